"""What the ledger tells: pieces, stages, accounts.

Weights are integers in units of ``unit`` grams, chosen once a run so that every weight of the batch
is whole; whoever reads them asks for ``grams``.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.findings import Finding
from dolmetsch.core.ledger.bill import Bill, sum_of, total_of
from dolmetsch.core.ledger.strands import Heated, Strand
from dolmetsch.core.numbers.exact import GRAMS_PER_LB

ZERO: Final = Fraction(0)

StepType = Literal["split", "weigh", "merge", "discard"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A piece as it stands: its weight and the bill it carries.

    ``name`` and ``material`` say what a by-product is; several may share a name, never an id.
    ``kinds`` are the kinds of step it has been through, its forebears' included, in order; of a
    merged piece those that all of its parts have been through. ``strands`` say of each lot in it what it
    was and how it was heated.
    """

    id: str
    weight: int
    unit: Fraction
    bill: Bill
    is_main: bool
    slices: int | Fraction | None = None
    name: str = ""
    material: str = "lean"
    kinds: tuple[str, ...] = ()
    strands: tuple[Strand, ...] = ()

    def through(self, kind: str, bill: Bill, weight: int, heated: Heated | None) -> "Piece":
        """The piece as it comes through a step of ``kind``: what it carries and weighs then."""
        # spelled out, for a ledger makes hundreds of them: ``replace`` takes three times as long
        return Piece(
            id=self.id,
            weight=weight,
            unit=self.unit,
            bill=bill,
            is_main=self.is_main,
            slices=self.slices,
            name=self.name,
            material=self.material,
            kinds=(*self.kinds, kind),
            strands=self.strands
            if heated is None
            else tuple(one.then(heated=heated) for one in self.strands),
        )

    @property
    def grams(self) -> Fraction:
        """Its weight."""
        return self.weight * self.unit

    @property
    def path(self) -> frozenset[str]:
        """Every mark it had, from those of its lots to its own."""
        return frozenset[str]().union(*(strand.marks for strand in self.strands))

    @property
    def cost(self) -> Fraction:
        """Everything this piece carries."""
        return self.bill.total

    @property
    def costs(self) -> dict[str, Fraction]:
        """Everything this piece carries, by group."""
        return self.bill.costs


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """What one step did.

    Attributes:
        step: counted from 1.
        kind: the step's own word.
        act: split, weigh, merge or discard.
        before, after: all living mains before it and after it.
        entered: the step's own pieces as they came in, with what they carried until then.
        made: what left it, mains and by-products.
        bought: weight of all lots, in the ledger's unit.
        own: the step's own cost by group, as the policy counts it.
        credits: what its unit-priced by-products carry.
    """

    step: int
    kind: str
    act: StepType
    before: tuple[Piece, ...]
    after: tuple[Piece, ...]
    bought: int
    entered: tuple[Piece, ...]
    made: tuple[Piece, ...]
    own: Bill
    credits: Fraction

    @property
    def grams_in(self) -> Fraction:
        """Weight of all living mains before the step."""
        return grams_of(self.before)

    @property
    def grams_out(self) -> Fraction:
        """Weight of all living mains after it."""
        return grams_of(self.after)

    @property
    def own_grams_in(self) -> Fraction:
        """Weight of the step's own pieces entering it."""
        return grams_of(self.entered)

    @property
    def own_main_grams_out(self) -> Fraction:
        """Weight of the mains leaving it."""
        return grams_of([piece for piece in self.made if piece.is_main])

    @property
    def yield_ratio(self) -> Fraction | None:
        """Mains out ÷ pieces in, of the step's own pieces; None for a discard."""
        if self.act == "discard":
            return None
        out = sum([piece.weight for piece in self.made if piece.is_main])
        return Fraction(out, sum([piece.weight for piece in self.entered]))

    @property
    def kept_of_bought_ratio(self) -> Fraction:
        """All living mains after it ÷ all lots."""
        return Fraction(sum([piece.weight for piece in self.after]), self.bought)

    @property
    def lost_grams(self) -> Fraction:
        """What entered and was not weighed out; below zero for a gain, nothing for a discard."""
        return ZERO if self.act == "discard" else self.own_grams_in - grams_of(self.made)

    @property
    def cost_added(self) -> Fraction:
        """The step's own cost."""
        return self.own.total

    @property
    def cost_per_lb(self) -> Fraction | None:
        """Price of a pound of all living mains after it; None where none is left."""
        return per_lb_of(self.after)

    @property
    def cut_off(self) -> tuple[Piece, ...]:
        """The by-products a split made."""
        return tuple(piece for piece in self.made if not piece.is_main) if self.act == "split" else ()

    @property
    def pieces_in(self) -> tuple[str, ...]:
        """Ids entering."""
        return tuple(piece.id for piece in self.entered)

    @property
    def pieces_out(self) -> tuple[str, ...]:
        """Ids of the mains leaving."""
        return tuple(piece.id for piece in self.made if piece.is_main)


@dataclass(frozen=True, slots=True, kw_only=True)
class Ledger:
    """The run chain.

    Attributes:
        stages: one a step.
        mains: the mains that live at the end, unopened lots among them.
        by_products: those never used up.
        loss: the loss account: what was carried by pieces thrown away and charged to nobody.
        credit_cut: whether any by-product's worth had to be cut down.
        warnings: what is worth saying, in the order it happened, each about its step ("steps[1]": the first).
    """

    stages: tuple[Stage, ...]
    mains: tuple[Piece, ...]
    by_products: tuple[Piece, ...]
    loss: Bill
    credit_cut: bool
    warnings: tuple[Finding, ...]


def grams_of(pieces: Sequence[Piece]) -> Fraction:
    """Their weight together."""
    if not pieces:
        return ZERO
    units, per = pieces[0].unit.as_integer_ratio()
    return Fraction(sum([piece.weight for piece in pieces]) * units, per)


def per_lb_of(pieces: Sequence[Piece]) -> Fraction | None:
    """Price of a pound of ``pieces`` together; None where there are none."""
    if not pieces:
        return None
    money, over = sum_of([piece.bill for piece in pieces])
    units, per_unit = pieces[0].unit.as_integer_ratio()
    grams, per_grams = GRAMS_PER_LB.as_integer_ratio()
    weight = sum([piece.weight for piece in pieces])
    return Fraction(money * grams * per_unit, over * weight * units * per_grams)


def cost_of(pieces: Sequence[Piece]) -> Fraction:
    """What they carry together."""
    return total_of([piece.bill for piece in pieces])
