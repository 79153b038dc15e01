"""Drying and fermenting: start values of a drying fit, limits of degree-hours, marks of a hard rim."""

from fractions import Fraction
from typing import Final

TARGET_SOURCE: Final = "common practice: 30 to 40 % of the green weight"
#: What a piece that hangs is to lose, in per cent, until the kitchen hung one for the same.
TARGET_PERCENT: Final = 35

DRYING_SOURCE: Final = "start values of ours, until the kitchen's own hooks say better"
#: What would be left of the green weight if it hung for ever: mean and standard deviation.
M_INF_MEAN, M_INF_DEVIATION = 0.50, 0.08
#: The rate of drying a day: middle, and the standard deviation of its logarithm.
K_MIDDLE, K_LOG_DEVIATION = 0.035, 0.6

#: A weighing over so much heavier than the one before is asked about: meat on a hook does not gain.
HEAVIER_RATIO: Final = Fraction(101, 100)

RIM_SOURCE: Final = "common practice: a loss that falls to half while the air is dry suggests a hard rim"
#: A hard rim: less than this part of the expected loss, under this mean humidity, over at least so long.
RIM_LOSS_RATIO: Final = Fraction(1, 2)
RIM_HUMIDITY: Final = Fraction(70, 100)
RIM_SECONDS: Final = 86_400

AIR_SOURCE: Final = "common practice: a chamber of 50 to 59 °F and 70 to 80 % humidity"
#: °F and humidity between which a chamber dries well.
AIR_COLDEST, AIR_WARMEST = Fraction(50), Fraction(59)
AIR_DRIEST, AIR_WETTEST = Fraction(70, 100), Fraction(80, 100)

FERMENT_SOURCE: Final = (
    "common practice: degree-hours above 60 °F until pH 5.3."
    " Your food authority and the culture's packet decide."
)
#: Below this pH a sausage counts as fermented; the degree-hours it may take to get there go by the air.
FERMENT_PH: Final = Fraction("5.3")
#: Degree-hours count from here, °F.
FERMENT_FROM: Final = Fraction(60)
#: The most degree-hours (°F·h) by the highest temperature: under 90 °F, to 100 °F, above.
FERMENT_WARM, FERMENT_HOT = Fraction(90), Fraction(100)
FERMENT_LIMITS: Final = (Fraction(1200), Fraction(1000), Fraction(900))


def degree_hours_limit(highest: Fraction) -> Fraction:
    """The most degree-hours at a ``highest`` temperature in °F."""
    if highest < FERMENT_WARM:
        return FERMENT_LIMITS[0]
    return FERMENT_LIMITS[1] if highest <= FERMENT_HOT else FERMENT_LIMITS[2]
