"""The case check: reads offers, carries them through the kitchen's way, and tells which to buy."""

from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from statistics import median
from typing import Final, Literal

from dolmetsch.core.batch import Policy
from dolmetsch.core.cuts import read_cut
from dolmetsch.core.exact import GRAMS_PER_LB, fixed
from dolmetsch.core.offer import (
    LB,
    Assessment,
    Plan,
    ShopKind,
    ask_basis,
    assess,
    fry_estimate,
    rank,
)
from dolmetsch.core.outlook import Estimate
from dolmetsch.core.reference import START_FRY
from dolmetsch.core.strip import label_kind
from dolmetsch.core.way import Way as CoreWay
from dolmetsch.server.batches.history import list_fryings, read_history
from dolmetsch.server.batches.outlooks import show_range
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.offers import schemas as out
from dolmetsch.server.offers.reading import ReadOffer, read_offer
from dolmetsch.server.prices.queries import Priced, list_priced
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.printing import print_money, print_unit_cost, print_weight, sign_of
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.quantities.schemas import UnitCost
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.queries import get_way, label_portion, list_latest, read_kept
from dolmetsch.server.ways.schemas import WayIn

#: Grams of meat as purchased where the offer check does not say what it is for.
DEFAULT_ABOUT: Final = Fraction(20) * GRAMS_PER_LB
EARLIEST: Final = date(2020, 1, 1)
LATEST: Final = date(2100, 1, 1)
MAX_PORTIONS: Final = Fraction(100_000)


@dataclass(frozen=True, slots=True, kw_only=True)
class Case:
    """A case check read and reckoned: offers that could be read, each with its assessment."""

    offers: list[ReadOffer]
    assessments: list[Assessment]
    shops: list[Priced]
    kinds: list[ShopKind]
    against: ShopKind | None
    way: Way
    core: CoreWay
    plan: Plan
    reader: Reader
    missing: list[str]


def check(kitchen: Kitchen, told: out.CaseIn) -> Case:
    """Read and reckon a case check.

    Raises:
        DomainError: not_found (the way).
    """
    way = get_way(kitchen, told.way)
    read = read_kept(way)
    if read.way is None:
        raise refuse_fields(read.reader.problems)
    reader = Reader(unit=kitchen.weight_unit)
    plan = _read_plan(kitchen, reader, told)
    shops = list_priced(kitchen, "shop_pack")
    kinds = [kind_of(shop) for shop in shops]
    against = next((kind for kind in kinds if kind.name == told.against), None) or _usual_kind(shops, kinds)
    if plan.portions and read.way.portion is None:
        said = "This way does not say what a portion is; set it there to count portions."
        reader.refuse("portions", "missing", said)
    if told.on is not None and not EARLIEST <= told.on <= LATEST:
        reader.refuse("on", "odd_time", "That day is too far away to plan for.")
    offers = []
    for at, offer in enumerate(told.offers):
        one = read_offer(reader, offer, at)
        if one is not None:
            offers.append(one)
    history = read_history(kitchen)
    policy = policy_of(kitchen)
    assessments = [
        assess(one.offer, read.way, history=history, policy=policy, plan=plan, against=against)
        for one in offers
    ]
    return Case(
        offers=offers,
        assessments=assessments,
        shops=shops,
        kinds=kinds,
        against=against,
        way=way,
        core=read.way,
        plan=plan,
        reader=reader,
        missing=read.missing,
    )


def policy_of(kitchen: Kitchen) -> Policy:
    """What the kitchen counts by default."""
    return Policy(
        labour_rate=None if kitchen.labour_rate is None else Fraction(kitchen.labour_rate),
        credit_by_products=kitchen.credit_by_products,
        fuel=kitchen.count_fuel,
        packaging=kitchen.count_packaging,
        overhead=kitchen.count_overhead,
    )


def _read_plan(kitchen: Kitchen, reader: Reader, told: out.CaseIn) -> Plan:
    about = reader.weight("about", told.about) if told.about else None
    portions = reader.number(
        "portions", told.portions, what="count of portions", limit=MAX_PORTIONS, places=0
    )
    if portions is not None and portions < 1:
        reader.refuse("portions", "zero", "At least one portion, or leave it empty.")
        portions = None
    return Plan(
        grams=Fraction(about) if about is not None else DEFAULT_ABOUT,
        portions=None if portions is None else int(portions),
        fry=_house_fry(kitchen),
    )


def _house_fry(kitchen: Kitchen) -> Estimate:
    return fry_estimate(START_FRY["house"], list_fryings(kitchen))


def kind_of(shop: Priced) -> ShopKind:
    """A shop pack of the price list as a kind to compare with, at its latest price."""
    return ShopKind(
        name=shop.item.name,
        price=float(shop.price.paid / shop.price.size),
        fry=fry_estimate(START_FRY["shop"], [float(one) for one in shop.fryings]),
    )


def _usual_kind(shops: list[Priced], kinds: list[ShopKind]) -> ShopKind | None:
    """The one called good, else the middle one by price."""
    for shop, kind in zip(shops, kinds, strict=True):
        if "good" in shop.item.kind.lower():
            return kind
    by_price = sorted(kinds, key=lambda kind: kind.price)
    return by_price[len(by_price) // 2] if by_price else None


def read_case(kitchen: Kitchen, told: out.CaseIn) -> out.CaseOut:
    """The answer to a case check; nothing is written.

    Raises:
        DomainError: not_found (the way).
    """
    case = check(kitchen, told)
    usual = _usual_prices(kitchen, case)
    shown = [
        _show_offer(case, case.offers[at], case.assessments[at], usual, kitchen=kitchen)
        for at in rank(case.assessments)
    ]
    notes = [f"“{name}” has no price that fits in the price list; it is left out." for name in case.missing]
    if not case.kinds:
        notes.append("No shop pack is in the price list yet, so nothing can be said against the shop.")
    days = case.core.days
    return out.CaseOut(
        offers=shown,
        shops=show_shops(case.shops, case.kinds),
        against=None if case.against is None else case.against.name,
        problems=case.reader.problems,
        way=case.way.name,
        way_days=days,
        portion_label=label_portion(WayIn.model_validate(case.way.told)),
        buy_by=_buy_by(told.on, days),
        told=notes,
    )


def _buy_by(on: date | None, days: int) -> date | None:
    """The last day to buy for eating on a day."""
    return on - timedelta(days=days) if on is not None and EARLIEST <= on <= LATEST else None


def _usual_prices(kitchen: Kitchen, case: Case) -> dict[str, Fraction]:
    """What a pound of meat usually costs, by kind of cut; under "" for any: from the list, else the shop."""
    by_kind: dict[str, list[Fraction]] = {}
    for priced in list_priced(kitchen, "meat"):
        usual = priced.summary.usual * GRAMS_PER_LB
        by_kind.setdefault(read_cut(priced.item.name).kind, []).append(usual)
    found = {kind: median(prices) for kind, prices in by_kind.items()}
    every = [price for prices in by_kind.values() for price in prices]
    if every:
        found[""] = median(every)
    elif case.against is not None:
        found[""] = Fraction(case.against.price) * GRAMS_PER_LB / 2
    return found


def show_shops(shops: list[Priced], kinds: list[ShopKind]) -> list[out.ShopLineOut]:
    """The shop's kinds, cheapest first."""
    lines = []
    for shop, kind in sorted(zip(shops, kinds, strict=True), key=lambda pair: pair[1].price):
        tests = len(shop.fryings)
        lines.append(
            out.ShopLineOut(
                name=kind.name,
                kind=shop.item.kind,
                price=_unit_cost(kind.price),
                cooked_oz=print_money(Fraction(kind.price / kind.fry.middle * LB / 16)),
                fry=fixed(Fraction(kind.fry.middle) * 100, 1),
                fry_told=f"{tests} fryings" if tests else "start value, not fried yet",
            )
        )
    return lines


def _unit_cost(per_gram: float | Fraction) -> UnitCost:
    shown = print_unit_cost(Fraction(per_gram) * GRAMS_PER_LB)
    assert shown is not None
    return shown


def _show_offer(
    case: Case, read: ReadOffer, found: Assessment, usual: dict[str, Fraction], *, kitchen: Kitchen
) -> out.CaseOfferOut:
    offer, told = read.offer, read.told
    asked, question = _ask(read, usual, kitchen)
    pack = offer.pack_grams
    worth = found.worth_up_to
    return out.CaseOfferOut(
        id=told.id,
        cut=told.cut,
        tag=_unit_cost(offer.price),
        meat=_unit_cost(offer.meat_price) if offer.solution else None,
        sliced=show_range(found.outlook.price),
        portion=None if found.portion is None else _money_range(found.portion),
        cooked_oz=_money_range(
            Estimate(middle=found.cooked.middle * LB / 16, log_deviation=found.cooked.log_deviation)
        ),
        worth_up_to=print_unit_cost(worth),
        worth_pack=None if worth is None or pack is None else print_money(worth * pack / GRAMS_PER_LB),
        chance=None if found.chance is None else round(100 * found.chance),
        verdict=found.verdict,
        hour=None if found.hourly is None else print_money(Fraction(found.hourly)),
        amount=_show_amount(found),
        pack=None if pack is None else print_weight(pack),
        packs_wanted=_packs_wanted(case.plan, found),
        doubts=list(found.doubts),
        steps=[
            out.StepBeliefOut(
                label=label_kind(step.kind),
                told=milestone.belief.explain(),
                price=show_range(milestone.price),
            )
            for step, milestone in zip(case.core.steps, found.outlook.milestones, strict=True)
        ],
        question=question,
        question_is=asked,
    )


def _packs_wanted(plan: Plan, found: Assessment) -> int | None:
    pack = found.offer.pack_grams
    if pack is None:
        return None
    return (found.amount.packs if found.amount else None) or max(1, round(plan.grams / pack))


def _show_amount(found: Assessment) -> out.AmountOut | None:
    amount = found.amount
    if amount is None:
        return None
    grams = Fraction(amount.grams)
    return out.AmountOut(
        packs=amount.packs,
        weight=print_weight(grams),
        cost=print_money(grams * found.offer.price),
        left=print_weight(Fraction(amount.left_grams)),
        left_portions=fixed(Fraction(amount.left_portions), 0),
    )


def _money_range(money: Estimate) -> out.MoneyRangeOut:
    return out.MoneyRangeOut(
        middle=print_money(Fraction(money.middle)),
        low=print_money(Fraction(money.low)),
        high=print_money(Fraction(money.high)),
    )


def _ask(
    read: ReadOffer, usual: dict[str, Fraction], kitchen: Kitchen
) -> tuple[Literal["is_pack", "is_each"] | None, str | None]:
    offer = read.offer
    known = usual.get(offer.cut.kind) or usual.get("")
    if read.told.is_sure or known is None:
        return None, None
    unit, word = (GRAMS_PER_LB, "pound") if kitchen.weight_unit == "lb" else (Fraction(1000), "kilogram")
    usually = known * unit / GRAMS_PER_LB
    each = offer.price * unit
    asked = ask_basis(
        each=each,
        pack=None if offer.pack_grams is None else offer.pack_grams / unit,
        is_pack_price=read.told.basis == "pack",
        usual=usually,
    )
    sign = sign_of(kitchen.currency)
    said = f"such meat usually costs about {sign}{print_money(usually)} a {word}"
    if asked == "is_pack":
        return asked, f"{sign}{print_money(each)} a {word}? That looks like the price of the pack: {said}."
    if asked == "is_each":
        return asked, f"{sign}{read.told.price} for the pack? That looks like the price of a {word}: {said}."
    return None, None


def read_choices(kitchen: Kitchen) -> out.ChoicesOut:
    """What a case check can be made of: ways, shop kinds, meats of the price list."""
    shops = list_priced(kitchen, "shop_pack")
    return out.ChoicesOut(
        ways=[_show_way(way) for way in list_latest(kitchen)],
        shops=show_shops(shops, [kind_of(shop) for shop in shops]),
        listed=[_show_listed(priced) for priced in list_priced(kitchen, "meat")],
    )


def _show_way(way: Way) -> out.WayChoiceOut:
    told = WayIn.model_validate(way.told)
    steps = ", ".join(step.method.replace("_", " ") for step in told.steps)
    return out.WayChoiceOut(name=way.name, steps=steps, portion=label_portion(told))


def _show_listed(priced: Priced) -> out.ListedOut:
    latest = priced.latest
    per_lb = priced.price.paid / priced.price.size * GRAMS_PER_LB
    return out.ListedOut(
        cut=priced.item.name,
        price=print_money(per_lb),
        source=latest.source,
        on=latest.seen_on,
        pack_weight=_spell(latest.grams) if latest.is_pack and latest.grams else "",
        solution="" if latest.solution_ratio is None else f"{(latest.solution_ratio * 100).normalize():f}",
    )


def _spell(grams: Decimal) -> str:
    pounds = Fraction(grams) / GRAMS_PER_LB
    exact = pounds * 100
    return f"{fixed(pounds, 2)} lb" if exact.denominator == 1 else f"{grams.normalize():f} g"


def name_of(told: out.OfferIn, way: Way) -> str:
    """A name for a batch nobody named: the cut and the way."""
    cut = told.cut[:1].upper() + told.cut[1:]
    return f"{cut}, {way.name}"[:80]


def find_offer(case: Case, offer_id: str) -> tuple[int, ReadOffer] | None:
    """The offer called so, with its place among those that could be read."""
    return next(((at, one) for at, one in enumerate(case.offers) if one.told.id == offer_id), None)
