"""What a cook keeps of the cured weight, by the inside temperature it is taken to (°F): start values."""

from typing import Final

COOK_SHRINK_SOURCE: Final = "common practice, used until your own cooks say better"
#: Inside °F, part kept, one standard deviation; between two by straight line.
COOK_SHRINK: Final = (
    (139.0, 0.91, 0.02),
    (150.0, 0.87, 0.03),
    (160.0, 0.83, 0.03),
    (165.0, 0.81, 0.03),
    (180.0, 0.72, 0.04),
    (200.0, 0.60, 0.06),
)
#: Wrapped or steamed meat is tender at about this inside (°F), until own cooks say better.
TENDER_INSIDE: Final = 200.0
#: So much more is lost an hour in the smoke beyond so many hours.
LOST_AN_HOUR, HOURS_WITHOUT = 0.007, 4.0
