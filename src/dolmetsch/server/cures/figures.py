"""A kitchen's own figures in place of the reference: limits and spoons."""

from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.reference.nitrite import NITRITE_LIMITS, NitriteLimit
from dolmetsch.core.reference.spoons import SPOONS, Spoonful
from dolmetsch.server.cures import schemas, typed
from dolmetsch.server.cures.models import OwnFigure
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once

LimitKey = tuple[str, str, bool]
#: The most that may be entered as a limit, and as a teaspoon.
MOST = {"limit": Fraction(1000), "spoon": Fraction(15)}


def name_limit(key: LimitKey) -> str:
    """A limit's key as one word: ``bacon/dry/off``."""
    return f"{key[0]}/{key[1]}/{'on' if key[2] else 'off'}"


_LIMIT_NAMES = {name_limit(key): key for key in NITRITE_LIMITS}


def _own(kitchen: Kitchen, sort: str) -> dict[str, tuple[Fraction, str]]:
    """The kitchen's own figures of a sort that count, by name: value and source."""
    latest: dict[str, OwnFigure] = {}
    for row in OwnFigure.objects.filter(kitchen=kitchen, sort=sort).order_by("id"):
        latest[row.name] = row
    return {name: (Fraction(row.value), row.source) for name, row in latest.items() if row.value is not None}


def limits_of(kitchen: Kitchen) -> Mapping[LimitKey, NitriteLimit]:
    """The limits that count in ``kitchen``."""
    own = _own(kitchen, "limit")
    return {
        key: replace(limit, ppm=figure[0], source=figure[1])
        if (figure := own.get(name_limit(key)))
        else limit
        for key, limit in NITRITE_LIMITS.items()
    }


def spoons_of(kitchen: Kitchen) -> Mapping[str, Spoonful]:
    """What teaspoons weigh in ``kitchen``."""
    own = _own(kitchen, "spoon")
    return {
        key: replace(spoon, grams=figure[0], source=figure[1]) if (figure := own.get(key)) else spoon
        for key, spoon in SPOONS.items()
    }


def show_limits(kitchen: Kitchen) -> list[schemas.LimitOut]:
    """Every limit, here and in the reference."""
    here = limits_of(kitchen)
    return [
        schemas.LimitOut(
            key=name_limit(key),
            label=limit.name,
            ppm=fixed(here[key].ppm, 0),
            reference=fixed(limit.ppm, 0),
            source=here[key].source,
            reference_source=limit.source,
            is_own=here[key] != limit,
        )
        for key, limit in NITRITE_LIMITS.items()
    ]


def show_spoons(kitchen: Kitchen) -> list[schemas.SpoonOut]:
    """Every kind of spoonful, here and in the reference."""
    here = spoons_of(kitchen)
    return [
        schemas.SpoonOut(
            key=key,
            label=spoon.label,
            grams=fixed(here[key].grams, 2),
            reference=fixed(spoon.grams, 2),
            source=here[key].source,
            is_own=here[key] != spoon,
        )
        for key, spoon in SPOONS.items()
    ]


def set_figure(write: Write, data: typed.FigureIn) -> OwnFigure:
    """Keep a kitchen's own figure, or give the reference back.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def keep() -> OwnFigure:
        reader = Reader.of(write.kitchen)
        known = _LIMIT_NAMES if data.sort == "limit" else SPOONS
        if data.name not in known:
            reader.refuse("name", "unknown", f"“{data.name}” is not a {data.sort} in the reference.")
        value = reader.number("value", data.value, what=data.sort, limit=MOST[data.sort], places=3)
        if value is not None and data.sort == "spoon" and value == 0:
            reader.refuse("value", "zero", "A teaspoon has to weigh more than 0 g.")
        if data.value:
            reader.need("source", data.source, "Say where the figure is from.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        return OwnFigure.objects.create(
            sort=data.sort, name=data.name, value=value, source=data.source, **write.stamp
        )

    return keep_once(write, OwnFigure, keep)
