"""The case check: offers carried through a way to the price of a sliced pound, and ranked.

An offer's tag is for the weight on it. Of meat with a solution of X added only 1 ÷ (1 + X) is meat, and only
that is carried through the way's yields.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import exp, floor, hypot
from typing import Final, Literal

from dolmetsch.core.buying.price_history import is_odd
from dolmetsch.core.findings import Finding, note
from dolmetsch.core.forecast.outlook import Estimate, Outlook, Start, carry
from dolmetsch.core.forecast.way import Way, cost_step
from dolmetsch.core.forecast.yields import Belief, History, believe, believe_ratio, tally
from dolmetsch.core.ledger.batch import Policy
from dolmetsch.core.meat.cuts import OTHER, Cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.planning.need import USUAL_CHANCE, raw_needed, whole_packs
from dolmetsch.core.reference.yields import METHODS, StartYield

Verdict = Literal["buy", "walk_past", "too_close"]
#: Bought where the chance of beating the shop is at least so much, passed where it is at most the rest.
SURE_AT: Final = 0.75
#: More water than this is no label a shop prints; it is a slip.
MAX_SOLUTION: Final = Fraction(1, 2)
LB: Final = float(GRAMS_PER_LB)
ENHANCED: Final = (
    "Enhanced meat is better not cured: nobody says how much salt is in it already. Its price here "
    "counts the "
    "meat only."
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """Meat at the case: the tag's price a gram, the weight of one pack (None: sold by weight).

    ``solution``: water added, as a ratio of the meat. ``is_enhanced``: the tag says so, or tells a solution.
    """

    cut: Cut
    price: Fraction
    pack_grams: Fraction | None = None
    solution: Fraction = Fraction(0)
    is_enhanced: bool = False

    @property
    def meat_price(self) -> Fraction:
        """Money for a gram of the meat in it."""
        return self.price * (1 + self.solution)


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopKind:
    """A pack the shop sells, by kind: price a gram, and cooked ÷ raw weight."""

    name: str
    price: float
    fry: Estimate


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """For what it is bought: about so many ``grams`` as purchased; or ``portions`` wanted in all; or so many
    grams ``sliced``, which go before portions.

    ``fry``: cooked ÷ raw weight of what the house makes. ``sure``: the chance asked for that it suffices.
    """

    grams: Fraction
    portions: int | None
    fry: Estimate
    sliced: Fraction | None = None
    sure: float = USUAL_CHANCE


@dataclass(frozen=True, slots=True, kw_only=True)
class OrderAmount:
    """How much to buy for what is wanted: so that it suffices with the chance the plan asks for.

    ``packs`` whole ones (None where it is sold by weight), ``grams`` as purchased, and what is then left
    over, as expected, in grams sliced and in portions (None where the way does not say what one is).
    """

    packs: int | None
    grams: float
    left_grams: float
    left_portions: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Assessment:
    """An offer carried to the end. Prices a gram unless they say otherwise.

    ``worth_up_to``: the tag price a pound, in cents rounded down, at which the sliced pound costs what the
    chosen shop kind costs; below zero: at no price. ``chance`` that it beats that kind. ``hourly``: what an
    hour earns against it, None where no minutes are known. ``doubts``: what to know before
    believing it; ``warning``: the one that may turn the verdict, whatever the price; empty: none.
    """

    offer: Offer
    outlook: Outlook
    beliefs: tuple[Belief, ...]
    portion: Estimate | None
    cooked: Estimate
    worth_up_to: Fraction | None
    chance: float | None
    verdict: Verdict | None
    hourly: float | None
    amount: OrderAmount | None
    doubts: tuple[Finding, ...]
    warning: str


def assess(
    offer: Offer, way: Way, *, history: History, policy: Policy, plan: Plan, against: ShopKind | None
) -> Assessment:
    """Carry ``offer`` through ``way`` as ``plan`` asks; ``against``: the shop kind chosen, if any."""
    beliefs = tuple(believe(step.method, offer.cut, history) for step in way.steps)
    costs = [cost_step(step, policy) for step in way.steps]
    needed = portion_grams(way, plan)
    kept = Estimate(
        middle=exp(sum(belief.log_mean for belief in beliefs)) / float(1 + offer.solution),
        log_deviation=sum(belief.log_deviation**2 for belief in beliefs) ** 0.5,
    )
    amount = None
    if plan.sliced is not None:
        amount = _amount(offer, kept, needed=float(plan.sliced), a_portion=needed, sure=plan.sure)
    elif plan.portions and needed is not None:
        reach = kept
        if way.portion is not None and way.portion.cooked_grams is not None:
            # what is left after frying is as uncertain as what is left before it
            reach = replace(reach, log_deviation=hypot(kept.log_deviation, plan.fry.log_deviation))
        amount = _amount(offer, reach, needed=needed * plan.portions, a_portion=needed, sure=plan.sure)
    bought = amount.grams if amount else float(plan.grams)
    meat = bought / float(1 + offer.solution)
    paid = bought * float(offer.price)
    start = Start(cost=paid, labour=0.0, joining=[meat, *[0.0] * len(beliefs)])
    outlook = carry(start, list(zip(costs, beliefs, strict=True)))
    worth = chance = verdict = hourly = None
    if against is not None:
        room = against.price * outlook.grams.middle - (outlook.cost - paid)
        worth = Fraction(floor(room / bought * LB * 100), 100)
        chance = outlook.price.chance_below(against.price)
        verdict = judge_chance(chance)
        if outlook.minutes:
            gained = against.price * outlook.grams.middle - (outlook.cost - outlook.labour)
            hourly = gained / (outlook.minutes / 60)
    cooked = Estimate(
        middle=outlook.price.middle / plan.fry.middle,
        log_deviation=(outlook.price.log_deviation**2 + plan.fry.log_deviation**2) ** 0.5,
    )
    return Assessment(
        offer=offer,
        outlook=outlook,
        beliefs=beliefs,
        portion=_portion(way, needed, outlook.price, cooked),
        cooked=cooked,
        worth_up_to=worth,
        chance=chance,
        verdict=verdict,
        hourly=hourly,
        amount=amount,
        doubts=tuple(doubts_of(offer, beliefs)),
        warning=ENHANCED if offer.is_enhanced or offer.solution else "",
    )


def judge_chance(chance: float) -> Verdict:
    """The verdict by the chance of beating the shop: three in four either way, else too close to call."""
    if chance >= SURE_AT:
        return "buy"
    return "walk_past" if chance <= 1 - SURE_AT else "too_close"


def rank(assessments: Sequence[Assessment]) -> list[int]:
    """Places of the assessments, cheapest sliced pound first; the order given among equals."""
    return sorted(range(len(assessments)), key=lambda at: (assessments[at].outlook.price.middle, at))


def portion_grams(way: Way, plan: Plan) -> float | None:
    """Sliced grams that go into one portion; None where the way does not tell."""
    portion = way.portion
    if portion is None:
        return None
    if portion.grams is not None:
        return float(portion.grams)
    if portion.cooked_grams is not None:
        return float(portion.cooked_grams) / plan.fry.middle
    if way.slice_grams is None or portion.slices is None:
        return None
    return float(portion.slices * way.slice_grams)


def _portion(way: Way, needed: float | None, price: Estimate, cooked: Estimate) -> Estimate | None:
    """What a portion costs; one given by its cooked weight is as uncertain as the frying besides."""
    if needed is None:
        return None
    is_cooked = way.portion is not None and way.portion.cooked_grams is not None
    deviation = (cooked if is_cooked else price).log_deviation
    return Estimate(middle=price.middle * needed, log_deviation=deviation)


def _amount(
    offer: Offer, kept: Estimate, *, needed: float, a_portion: float | None, sure: float
) -> OrderAmount:
    wanted = raw_needed(needed, kept, chance=sure).sure
    packs = None
    if offer.pack_grams is not None:
        packs = whole_packs(wanted, offer.pack_grams)
        wanted = packs * float(offer.pack_grams)
    left = wanted * kept.middle - needed
    return OrderAmount(
        packs=packs, grams=wanted, left_grams=left, left_portions=left / a_portion if a_portion else None
    )


def doubts_of(offer: Offer, beliefs: Sequence[Belief]) -> list[Finding]:
    """What a cook should know before believing the figure."""
    cut = offer.cut
    doubts: list[Finding] = []
    if cut.kind == OTHER:
        doubts.append(
            note("unknown_cut", "No start value for this cut; the one for all cuts is used, with its spread.")
        )
    borrowed = [METHODS[one.method].label for one in beliefs if one.is_borrowed and not one.batches]
    if borrowed and cut.kind != OTHER:
        methods = ", ".join(borrowed)
        doubts.append(
            note("borrowed", f"No start value of this cut for {methods}; those of other cuts are used.")
        )
    if not any(one.batches for one in beliefs):
        doubts.append(note("no_batch", "No batch of this cut has been finished here yet."))
    trims = [one for one in beliefs if one.method == "trim" and not one.batches]
    if trims and cut.kind == "shoulder" and cut.bone != "in":
        said = "The start value for the trim is for bone-in shoulder; without the bone less is trimmed off."
        doubts.append(note("boneless", said))
    if trims and cut.is_trimmed:
        doubts.append(
            note("trimmed", "The start value for the trim is for a whole piece; a trimmed one keeps more.")
        )
    return doubts


def ask_basis(
    *, each: Fraction, pack: Fraction | None, is_pack_price: bool, usual: Fraction
) -> Literal["is_pack", "is_each"] | None:
    """Whether a price was plainly typed on the wrong basis: "is_pack" where the price of a pound looks like a
    pack's, "is_each" the other way round; None where it is fine or nothing can be said.

    ``each``: as typed a pound (or kilogram) comes to so much; ``pack``: pounds in the pack; ``usual``: a
    pound of such meat usually costs, from the price list or the shop. The other basis must fit by far better.
    """
    if pack is None or usual <= 0 or each <= 0 or pack <= 0:
        return None
    other = each * pack if is_pack_price else each / pack
    if not is_odd(each, usual) or is_odd(other, usual) or (each > usual) == is_pack_price:
        return None
    return "is_each" if is_pack_price else "is_pack"


def fry_estimate(start: StartYield, tests: Sequence[float]) -> Estimate:
    """Cooked ÷ raw weight of the next frying: the start value, and own tests (cooked ÷ raw, above 0).

    The start value's deviation is that of a next test; it is worth three tests (``yields.py``).
    """
    log_mean, log_deviation = believe_ratio(start, tally(tests))
    return Estimate(middle=exp(log_mean), log_deviation=log_deviation)
