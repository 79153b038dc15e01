"""The records of one batch: lots bought, steps done, and the terms it is judged by.

Weights are exact grams, money is exact in the kitchen's currency, both as ``Fraction``.
Records only hold; whether they can have happened is judged by ``ledger.run``.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.ledger.strands import Heated
from dolmetsch.core.numbers.exact import exact
from dolmetsch.core.numbers.quantity import Price

#: Groups of cost that only the ledger itself may book.
LEDGER_GROUPS: Final = frozenset({"meat", "credit"})


class Worth(Enum):
    """How a by-product without a price of its own is valued."""

    AS_MAIN = "as_main"


AS_MAIN: Final = Worth.AS_MAIN
WORTH_NOTHING: Final = Price(paid=Fraction(0), grams=Fraction(1))


@dataclass(frozen=True, slots=True, kw_only=True)
class Policy:
    """What the kitchen counts. ``labour_rate``: money per hour; None leaves labour out."""

    labour_rate: Fraction | None = None
    credit_by_products: bool = True
    fuel: bool = True
    packaging: bool = True
    overhead: bool = True

    def counts(self, group: str) -> bool:
        """Whether costs of ``group`` are counted."""
        match group:
            case "labour":
                return self.labour_rate is not None
            case "fuel":
                return self.fuel
            case "packaging":
                return self.packaging
            case "overhead":
                return self.overhead
        return True


@dataclass(frozen=True, slots=True, kw_only=True)
class Origin:
    """Where a lot came from: a piece of another batch, named as that batch names it."""

    batch: str
    piece: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Extra:
    """A cost of buying: delivery, tax, the trip."""

    what: str
    cost: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Lot:
    """Meat as purchased, the first piece of its chain.

    ``grams`` is what it weighs here: the own scale's where weighed, else the label's.
    ``solution`` is the water added, as a ratio of the meat. ``resolution_grams`` is that of the scale
    it was weighed on; None where it is not known. A lot that is a piece of another batch has an
    ``origin`` and brings along what it ``carried`` there (money by group); nothing was paid for it.
    """

    id: str
    cut: str = ""
    grams: Fraction
    label_grams: Fraction | None = None
    paid: Fraction
    extras: tuple[Extra, ...] = ()
    solution: Fraction = Fraction(0)
    resolution_grams: Fraction | None = None
    origin: Origin | None = None
    carried: tuple[tuple[str, Fraction], ...] = ()

    def __post_init__(self) -> None:
        exact(self.grams), exact(self.paid), exact(self.solution)


def purge_ratio(*, label_grams: Fraction, own_grams: Fraction) -> Fraction | None:
    """Purge, the water that ran out in the bag, as a ratio of the label weight; None where none is missing.

    Its price stays on the meat: a lot's cost is divided by what the own scale says.
    """
    return (label_grams - own_grams) / label_grams if 0 < own_grams < label_grams else None


@dataclass(frozen=True, slots=True, kw_only=True)
class Main:
    """A piece that goes on. ``slices``: how many it was sliced into; None where it was not.

    A count is whole; only a trial (``trial.py``) has parts of slices.
    """

    id: str
    grams: Fraction
    slices: int | Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ByProduct:
    """Something cut off, weighed and kept by name.

    ``worth`` is a price by weight, or AS_MAIN: valued like the meat it came from.
    ``name`` is the word for it (its id where empty) and ``material`` one of skin, lean, fat, bone,
    waste, ends, other; both for reading and drawing only.
    """

    id: str
    grams: Fraction
    worth: Price | Literal[Worth.AS_MAIN] = WORTH_NOTHING
    name: str = ""
    material: str = "other"


@dataclass(frozen=True, slots=True, kw_only=True)
class Split:
    """One piece becomes many; what is not weighed out is loss."""

    piece: str
    into: tuple[Main | ByProduct, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Weigh:
    """Pieces go on under the same mark at a new weight (grams by piece)."""

    grams: Mapping[str, Fraction]


@dataclass(frozen=True, slots=True, kw_only=True)
class Merge:
    """Many pieces become one, whose weight may differ from their sum."""

    pieces: tuple[str, ...]
    into: Main


@dataclass(frozen=True, slots=True, kw_only=True)
class Discard:
    """Pieces are thrown away; their cost is borne by the ``batch``, or booked as ``loss``."""

    pieces: tuple[str, ...]
    charge: Literal["batch", "loss"]
    why: str = ""


Action = Split | Weigh | Merge | Discard


@dataclass(frozen=True, slots=True, kw_only=True)
class Used:
    """Something used up in a step: ``amount`` in grams or pieces, as its ``price`` is by weight or count.

    ``pieces`` names those that bear it; empty: all of the step.
    """

    what: str
    amount: Fraction
    price: Price
    group: str = "other"
    pieces: tuple[str, ...] = ()

    @property
    def cost(self) -> Fraction:
        """Money: amount × unit price."""
        return Fraction(*self.cost_parts)

    @property
    def cost_parts(self) -> tuple[int, int]:
        """``cost`` as numerator and denominator, not in lowest terms."""
        amount, per_amount = self.amount.as_integer_ratio()
        paid, per_paid = self.price.paid.as_integer_ratio()
        size, per_size = self.price.size.as_integer_ratio()
        return amount * paid * per_size, per_amount * per_paid * size


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step of the chain. ``kind`` names it (trim, cure, smoke, …) and is free.

    ``resolution_grams`` is that of the scale its pieces were weighed on; None where it is not known.
    ``heated``: how, where it is a step that heats.
    """

    kind: str
    action: Action
    minutes: Fraction = Fraction(0)
    used: tuple[Used, ...] = ()
    overhead: Fraction = Fraction(0)
    resolution_grams: Fraction | None = None
    heated: Heated | None = None

    @property
    def entering(self) -> tuple[str, ...]:
        """Ids of the pieces that enter the step."""
        if isinstance(self.action, Split):
            return (self.action.piece,)
        return tuple(self.action.grams) if isinstance(self.action, Weigh) else self.action.pieces


@dataclass(frozen=True, slots=True, kw_only=True)
class Portion:
    """What is served: so many ``slices``, so many ``grams`` raw, or ``cooked_grams``; just one of them."""

    slices: Fraction | None = None
    grams: Fraction | None = None
    cooked_grams: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopPack:
    """A pack the shop sells, to compare with. ``slices`` None: not counted.

    ``fry_yield``: cooked ÷ raw weight, 0–1; None where it was not tried.
    """

    name: str
    paid: Fraction
    grams: Fraction
    slices: int | None = None
    fry_yield: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Batch:
    """All that is known of one batch, steps in the order they were done.

    ``fry_yield``: cooked ÷ raw weight of what it came to, 0–1; None where it was not tried.
    """

    lots: tuple[Lot, ...]
    steps: tuple[Step, ...] = ()
    policy: Policy = field(default_factory=Policy)
    portion: Portion | None = None
    fry_yield: Fraction | None = None
    shop: tuple[ShopPack, ...] = ()
