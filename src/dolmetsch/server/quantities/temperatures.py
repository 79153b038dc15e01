"""Temperatures as they are typed."""

from decimal import Decimal

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.quantity import read_number
from dolmetsch.core.numbers.temperature import COLDEST_READ, HOTTEST_READ, TemperatureUnit, to_fahrenheit
from dolmetsch.server.quantities.reader import Reader


def read_temperature(reader: Reader, path: str, typed: str, unit: TemperatureUnit) -> Decimal | None:
    """°F of what was typed in ``unit``; None where nothing was, or with a fault noted."""
    text = typed.strip().removesuffix(unit).removesuffix("°").strip()
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
