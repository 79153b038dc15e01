"""Temperatures as they are typed and printed."""

from decimal import Decimal
from fractions import Fraction
from typing import cast, get_args

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import read_number
from dolmetsch.core.numbers.temperature import (
    COLDEST_READ,
    HOTTEST_READ,
    TemperatureUnit,
    from_fahrenheit,
    to_fahrenheit,
)
from dolmetsch.server.quantities.reader import Reader


def split_unit(typed: str, unit: TemperatureUnit) -> tuple[str, TemperatureUnit]:
    """What was typed without its unit, and the unit: the one it names, else ``unit``."""
    text = typed.strip()
    if (named := text[-1:].upper()) in get_args(TemperatureUnit):
        text, unit = text[:-1], cast(TemperatureUnit, named)
    return text.strip().removesuffix("°").strip(), unit


def read_temperature(reader: Reader, path: str, typed: str, unit: TemperatureUnit) -> Decimal | None:
    """°F of what was typed in ``unit``, or in the unit it names; None: nothing, or a fault noted."""
    text, unit = split_unit(typed, unit)
    if not text:
        return None
    sign, size = (-1, text[1:]) if text[:1] in ("-", "−") else (1, text)
    try:
        value = sign * read_number(size, what="temperature", places=1)
    except QuantityError as error:
        reader.refuse(path, error.reason, str(error))
        return None
    fahrenheit = to_fahrenheit(value, unit)
    if not COLDEST_READ <= fahrenheit <= HOTTEST_READ:
        reader.refuse(path, "out_of_range", f"{typed} °{unit} cannot be; look at the unit.")
        return None
    return round(Decimal(fahrenheit.numerator) / fahrenheit.denominator, 3)


def print_degrees(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    """A temperature in ``unit``, to a whole °F or a tenth of a °C."""
    return fixed(from_fahrenheit(fahrenheit, unit), 0 if unit == "F" else 1)
