"""What is usual in a sausage."""

from fractions import Fraction
from typing import Final

SAUSAGE_SOURCE: Final = "common practice"
#: Salt of the meat, from and to.
SAUSAGE_SALT: Final = (Fraction(25, 1000), Fraction(30, 1000))
#: The least dextrose of the meat that a culture needs.
DEXTROSE_LEAST: Final = Fraction(2, 1000)
SAUSAGE_FERMENT: Final = (
    "With a culture it ferments slowly at 68 to 75 °F for 48 to 72 hours, or fast at 80 to 90 °F for 18 to"
    " 24, in 85 to 95 % humidity: hang it in the chamber and follow pH and degree-hours there."
)
