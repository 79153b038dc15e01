"""A plate, part by part: amount ÷ yield × unit cost; and what it leaves at a price on the menu."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import ceil

from dolmetsch.core.errors import DolmetschError

CENTS = 100


class DishError(DolmetschError):
    """A dish that cannot be costed: the ``path`` of its part, and why."""

    code = "impossible_dish"

    def __init__(self, path: str, text: str) -> None:
        self.path = path
        self.text = text
        super().__init__(f"{path}: {text}")


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """A part of a plate: an ``amount``, in the unit of its ``unit_cost``; or plates of another ``dish``.

    ``yield_ratio``: how much of what is used comes onto the plate. ``unit_cost`` None: not known.
    """

    name: str
    amount: Fraction
    unit_cost: Fraction | None = None
    yield_ratio: Fraction = Fraction(1)
    dish: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Recipe:
    """A dish: its parts are for so many ``plates``."""

    parts: Sequence[Part]
    plates: Fraction = Fraction(1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Plate:
    """What one plate costs: each part by its position in the recipe; None where one has no price."""

    parts: tuple[Fraction | None, ...]

    @property
    def cost(self) -> Fraction | None:
        """All parts together; None where one has no price."""
        known = [part for part in self.parts if part is not None]
        return sum(known, Fraction(0)) if len(known) == len(self.parts) else None


def cost_plates(dishes: Mapping[str, Recipe]) -> dict[str, Plate]:
    """What a plate of each of ``dishes`` costs, dishes that are parts of others first.

    Raises:
        DishError: a dish that contains itself or is not there, a yield or a number of plates of nothing.
    """
    done: dict[str, Plate] = {}
    for name in dishes:
        _cost(name, dishes, done, within=())
    return done


def _cost(name: str, dishes: Mapping[str, Recipe], done: dict[str, Plate], within: tuple[str, ...]) -> Plate:
    if name in done:
        return done[name]
    recipe = dishes[name]
    if recipe.plates <= 0:
        raise DishError("plates", "a recipe makes at least part of a plate")
    inside = (*within, name)
    parts = []
    for index, part in enumerate(recipe.parts):
        path = f"parts[{index}]"
        if not 0 < part.yield_ratio <= 1:
            raise DishError(f"{path}.yield", "a yield is more than 0 and at most 100 %")
        unit = part.unit_cost
        if part.dish is not None:
            if part.dish in inside:
                raise DishError(f"{path}.dish", f"“{part.dish}” would contain itself")
            if part.dish not in dishes:
                raise DishError(f"{path}.dish", f"there is no dish “{part.dish}”")
            unit = _cost(part.dish, dishes, done, inside).cost
        parts.append(None if unit is None else part.amount / part.yield_ratio * unit / recipe.plates)
    done[name] = Plate(parts=tuple(parts))
    return done[name]


@dataclass(frozen=True, slots=True, kw_only=True)
class Menu:
    """A price on the menu and the ``tax`` in it, a ratio of the price without it; 0 where it comes on top."""

    price: Fraction
    tax: Fraction = Fraction(0)

    @property
    def net(self) -> Fraction:
        """What the kitchen gets of it."""
        return self.price / (1 + self.tax)

    def food_cost(self, cost: Fraction) -> Fraction | None:
        """Cost ÷ what the kitchen gets; None at a price of nothing."""
        return cost / self.net if self.net else None

    def leaves(self, cost: Fraction) -> Fraction:
        """What a plate leaves after its food."""
        return self.net - cost


def price_for(cost: Fraction, aim: Fraction, *, tax: Fraction = Fraction(0)) -> Fraction:
    """The menu price, in whole cents rounded up, at which food cost is at most ``aim`` (a ratio above 0)."""
    return Fraction(ceil(cost / aim * (1 + tax) * CENTS), CENTS)
