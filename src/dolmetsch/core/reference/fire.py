"""When a low fire, a probe that is out and probes that are mixed up are said: marks of ours."""

from fractions import Fraction
from typing import Final

#: The fire is low where the air is so far (°F) under what it was, the median of an hour, for over so long.
FIRE_LOW_DROP: Final = Fraction(40)
FIRE_LOW_SECONDS: Final = 300
FIRE_LOW_WINDOW_SECONDS: Final = 3600
#: The median needs readings of at least so long.
FIRE_LOW_LEAST_SECONDS: Final = 600

#: No meat warms so fast (°F) within a minute, or from one reading to the next within two.
PROBE_OUT_RISE: Final = Fraction(25)
PROBE_OUT_SECONDS, PROBE_OUT_NEIGHBOR_SECONDS = 60, 120
#: Or it reads so near the air (°F) for so long while all others are so far (°F) under it.
PROBE_OUT_NEAR_AIR: Final = Fraction(5)
PROBE_OUT_OTHERS_UNDER: Final = Fraction(30)
PROBE_OUT_NEAR_SECONDS: Final = 600

#: An instant reading so much nearer (°F) to another piece's probe says that two are mixed up.
PROBE_SWAP_NEARER: Final = Fraction(10)
#: An air so long under what the program asks for is called out; a cooker needs some of it to heat up.
COLD_AIR_SECONDS: Final = 2400
#: An air so far (°F) over what the program asks for, for so long, is called out.
HOT_AIR_OVER: Final = Fraction(40)
HOT_AIR_SECONDS: Final = 600
