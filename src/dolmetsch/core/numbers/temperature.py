"""Temperatures: degrees Fahrenheit inside, either unit at the edges, converted exactly."""

from fractions import Fraction
from typing import Final, Literal

TemperatureUnit = Literal["F", "C"]

#: 1 °C is 9/5 °F, and water freezes at 32 °F.
_SCALE: Final = Fraction(9, 5)
_FREEZING: Final = 32
#: °F that a probe in or around meat can read; beyond, the unit or the probe is wrong.
COLDEST_READ, HOTTEST_READ = Fraction(-40), Fraction(1000)


def to_fahrenheit(value: Fraction, unit: TemperatureUnit) -> Fraction:
    """A temperature given in ``unit``, in °F."""
    return value if unit == "F" else value * _SCALE + _FREEZING


def from_fahrenheit(fahrenheit: Fraction, unit: TemperatureUnit) -> Fraction:
    """A temperature in °F, in ``unit``."""
    return fahrenheit if unit == "F" else (fahrenheit - _FREEZING) / _SCALE


def difference_from_fahrenheit(fahrenheit: Fraction, unit: TemperatureUnit) -> Fraction:
    """A difference or rate of temperature in °F, in ``unit``: the freezing point does not enter."""
    return fahrenheit if unit == "F" else fahrenheit / _SCALE
