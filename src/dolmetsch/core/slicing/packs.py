"""Packs of a finished batch and where they went: weight and money of each, to the last gram and cent.

A pack is made of a final main and costs its weight times that piece's cost by weight. Everything made is in
the packs, unpacked, or gone: Σ gone + on hand = Σ cost of the final mains.
"""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Final, Literal, NoReturn, get_args

from dolmetsch.core.errors import LedgerError
from dolmetsch.core.ledger.pieces import ZERO, Piece
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT

Fate = Literal["eaten", "plated", "sold", "given", "used", "spoiled", "discarded"]
FATES: Final[tuple[Fate, ...]] = get_args(Fate)
#: Fates by which meat is lost after it was packed.
LOST: Final[tuple[Fate, ...]] = ("spoiled", "discarded")
#: Fates that may bring money in.
EARNING: Final[frozenset[Fate]] = frozenset({"plated", "sold"})
#: Taking so many grams more than is left takes what is left.
SLACK_GRAMS: Final = Fraction(1, 2)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pack:
    """A pack of the final main ``piece``; ``slices`` None: not counted."""

    id: str
    piece: str
    grams: Fraction
    slices: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Taking:
    """What left a pack, as what: so many ``grams``, so many ``slices``, or with neither all that was left."""

    pack: str
    fate: Fate
    grams: Fraction | None = None
    slices: int | None = None
    income: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighed:
    """A pack weighed again: what ran out of it, or dried away, changes its weight and no cost."""

    pack: str
    grams: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class PackNow:
    """A pack as made, and what is left of it.

    ``left_grams`` by what it weighed as it was made; ``weighs``: what a gram of that weighs since it was
    weighed again. ``left_slices`` None: not counted, or no longer known since a part was taken by weight.
    """

    pack: Pack
    cost: Fraction
    left_grams: Fraction
    left_slices: int | None
    weighs: Fraction = Fraction(1)

    @property
    def here_grams(self) -> Fraction:
        """What the rest weighs now."""
        return self.left_grams * self.weighs

    @property
    def left_cost(self) -> Fraction:
        """What the rest cost."""
        return self.cost * self.left_grams / self.pack.grams


@dataclass(frozen=True, slots=True, kw_only=True)
class Share:
    """A weight, what it cost, and what came in for it."""

    grams: Fraction = ZERO
    cost: Fraction = ZERO
    income: Fraction = ZERO

    def plus(self, other: "Share") -> "Share":
        """Both together."""
        return Share(
            grams=self.grams + other.grams, cost=self.cost + other.cost, income=self.income + other.income
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Stowed:
    """What became of the final mains: ``packs`` by id, ``unpacked`` by piece, ``gone`` by fate.

    ``takings`` are weight, cost and income of each taking, in order.
    """

    packs: Mapping[str, PackNow]
    unpacked: Mapping[str, Share]
    gone: Mapping[Fate, Share]
    takings: tuple[Share, ...]

    @property
    def on_hand(self) -> Share:
        """What is left in the packs, and unpacked."""
        left = [Share(grams=one.here_grams, cost=one.left_cost) for one in self.packs.values()]
        return together([*left, *self.unpacked.values()])


def together(shares: Iterable[Share]) -> Share:
    """The sum of ``shares``."""
    whole = Share()
    for share in shares:
        whole = whole.plus(share)
    return whole


def follow_packs(
    mains: Sequence[Piece], packs: Sequence[Pack], happened: Sequence[Taking | Weighed]
) -> Stowed:
    """What became of ``mains``, the final pieces of a batch; ``happened``: what left the packs, and what they
    weighed, in order.

    Raises:
        LedgerError: a pack that cannot have been made (its field below ``packs[…]``), or a taking that cannot
            have happened (below ``gone[…]``).
    """
    pieces = {piece.id: piece for piece in mains}
    packed = _fill(pieces, packs)
    left = {
        pack.id: PackNow(
            pack=pack,
            cost=_cost_of(pack, pieces[pack.piece], packed[pack.piece]),
            left_grams=pack.grams,
            left_slices=pack.slices,
        )
        for pack in packs
    }
    gone: dict[Fate, Share] = {}
    shares: list[Share] = []
    for taking in happened:
        if isinstance(taking, Weighed):
            left[taking.pack] = weigh_again(left[taking.pack], taking.grams)
            continue
        index = len(shares)
        if taking.pack not in left:
            _refuse("unknown_pack", f"gone[{index}].pack", f"there is no pack “{taking.pack}”")
        before = left[taking.pack]
        after = take(before, taking, path=f"gone[{index}]")
        share = Share(
            grams=before.left_grams - after.left_grams,
            cost=before.left_cost - after.left_cost,
            income=taking.income or ZERO,
        )
        left[taking.pack] = after
        gone[taking.fate] = gone.get(taking.fate, Share()).plus(share)
        shares.append(share)
    return Stowed(
        packs=left,
        unpacked={mark: _unpacked(piece, packed.get(mark, ZERO)) for mark, piece in pieces.items()},
        gone={fate: gone[fate] for fate in FATES if fate in gone},
        takings=tuple(shares),
    )


def weigh_again(now: PackNow, grams: Fraction) -> PackNow:
    """The pack once it weighed ``grams``; one of which nothing is left stays so."""
    return replace(now, weighs=grams / now.left_grams) if now.left_grams else now


def take(now: PackNow, taking: Taking, *, path: str) -> PackNow:
    """The pack after ``taking``; ``path`` is where a refusal lies.

    Raises:
        LedgerError: more than is left, slices of a pack whose slices are not known, income that cannot be.
    """
    _refuse_income(taking, path)
    if taking.slices is not None:
        return _take_slices(now, taking.slices, path=f"{path}.slices")
    if not now.left_grams:
        _refuse("pack_empty", f"{path}.all", f"nothing is left of “{now.pack.id}”")
    if taking.grams is None:
        return _left(now, ZERO)
    if taking.grams <= 0:
        _refuse("no_weight", f"{path}.weight", "a weight must be above zero")
    if taking.grams > now.here_grams + SLACK_GRAMS:
        _refuse("more_than_left", f"{path}.weight", f"that is more than is left of “{now.pack.id}”")
    return _left(now, max(ZERO, now.left_grams - taking.grams / now.weighs))


def _take_slices(now: PackNow, slices: int, *, path: str) -> PackNow:
    pack = now.pack
    if pack.slices is None:
        _refuse("no_slices", path, f"the slices of “{pack.id}” were not counted; take a weight")
    if now.left_slices is None:
        _refuse("no_slices", path, f"part of “{pack.id}” was taken by weight; take a weight")
    if slices > now.left_slices:
        text = f"“{pack.id}” has {now.left_slices} slices left"
        _refuse("more_than_left", path, text)
    left = now.left_slices - slices
    grams = now.left_grams - pack.grams * slices / pack.slices if left else ZERO
    return replace(now, left_grams=grams, left_slices=left)


def _left(now: PackNow, grams: Fraction) -> PackNow:
    """The pack with so much left by weight: its slices are no longer known, unless nothing is left."""
    slices = 0 if not grams and now.pack.slices is not None else None
    return replace(now, left_grams=grams, left_slices=slices)


def _fill(pieces: Mapping[str, Piece], packs: Sequence[Pack]) -> dict[str, Fraction]:
    """How much of each piece is packed.

    Raises:
        LedgerError: a pack of no final piece, a name twice, or more than there is.
    """
    grams: dict[str, Fraction] = defaultdict(Fraction)
    slices: dict[str, int] = defaultdict(int)
    names: set[str] = set()
    for index, pack in enumerate(packs):
        path = f"packs[{index}]"
        piece = pieces.get(pack.piece)
        if piece is None:
            _refuse("unknown_piece", f"{path}.piece", f"“{pack.piece}” is no final piece of the batch")
        if pack.id in names:
            _refuse("same_mark", f"{path}.id", f"there is a pack “{pack.id}” already")
        if pack.grams <= 0:
            _refuse("no_weight", f"{path}.weight", "a weight must be above zero")
        names.add(pack.id)
        grams[piece.id] += pack.grams
        slices[piece.id] += pack.slices or 0
        if grams[piece.id] * 100 > piece.grams * OVERWEIGHT_PERCENT:
            text = f"the packs of “{piece.id}” weigh over 1 % more than it does"
            _refuse("overweight", f"{path}.weight", text)
        if slices[piece.id] > (piece.slices or 0):
            text = f"the packs of “{piece.id}” have more slices than it has"
            _refuse("too_many_slices", f"{path}.slices", text)
    return dict(grams)


def _cost_of(pack: Pack, piece: Piece, packed: Fraction) -> Fraction:
    """Its weight times the piece's cost by weight; packs that weigh more than the piece share its cost."""
    return piece.cost * pack.grams / max(piece.grams, packed)


def _unpacked(piece: Piece, packed: Fraction) -> Share:
    grams = max(ZERO, piece.grams - packed)
    return Share(grams=grams, cost=piece.cost * grams / piece.grams)


def _refuse_income(taking: Taking, path: str) -> None:
    if taking.income is None:
        return
    if taking.fate not in EARNING:
        _refuse("income", f"{path}.income", f"what is {taking.fate} brings no money in")
    if taking.income < 0:
        _refuse("negative", f"{path}.income", "cannot be below zero")


def _refuse(reason: str, field: str, text: str) -> NoReturn:
    raise LedgerError(reason, field=field, text=text)
