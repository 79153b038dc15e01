"""The case check: reads offers and plan, and carries each offer through the kitchen's way."""

from dataclasses import dataclass
from datetime import date
from fractions import Fraction
from statistics import median
from typing import Final

from dolmetsch.core.buying.offer import (
    Assessment,
    Plan,
    ShopKind,
    assess,
    fry_estimate,
)
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.way import Way as CoreWay
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.yields import START_FRY
from dolmetsch.server.batches.entries.chain import policy_record
from dolmetsch.server.batches.entries.chosen_way import course_of_way, way_of
from dolmetsch.server.batches.entries.own_slices import as_sliced_here
from dolmetsch.server.batches.forecast.history import list_fryings, read_history
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.offers import schemas as out
from dolmetsch.server.offers.reading import ReadOffer, read_offer
from dolmetsch.server.prices.queries import Priced, find_usual, list_priced
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.queries import get_way, read_kept

#: Grams of meat as purchased where the offer check does not say what it is for.
DEFAULT_ABOUT: Final = Fraction(20) * GRAMS_PER_LB
EARLIEST: Final = date(2020, 1, 1)
LATEST: Final = date(2100, 1, 1)
MAX_PORTIONS: Final = Fraction(100_000)


@dataclass(frozen=True, slots=True, kw_only=True)
class Case:
    """A case check read and costed: offers that could be read, each with its assessment.

    ``way`` None: the standard one to ``course``, which is what it leads to (None: to several things).
    """

    offers: list[ReadOffer]
    assessments: list[Assessment]
    shops: list[Priced]
    kinds: list[ShopKind]
    against: ShopKind | None
    way: Way | None
    course: Course | None
    core: CoreWay
    plan: Plan
    reader: Reader
    missing: list[str]


def check(kitchen: Kitchen, data: out.CaseIn) -> Case:
    """Read and compute a case check.

    Raises:
        DomainError: not_found (the way).
    """
    way, core, missing = _find_way(kitchen, data.way, data.course)
    reader = Reader.of(kitchen)
    plan = _read_plan(kitchen, reader, data)
    shops = list_priced(kitchen, "shop_pack")
    kinds = [kind_of(shop) for shop in shops]
    against = next((kind for kind in kinds if kind.name == data.against), None) or _usual_kind(shops, kinds)
    if plan.portions and plan.sliced is None and core.portion is None:
        said = "This method does not say what a portion is. Set it under Methods to count portions."
        reader.refuse("portions", "missing", said)
    if data.on is not None and not EARLIEST <= data.on <= LATEST:
        reader.refuse("on", "odd_time", "That day is too far away to plan for.")
    offers = []
    for at, offer in enumerate(data.offers):
        one = read_offer(reader, offer, at)
        if one is not None:
            offers.append(one)
    history = read_history(kitchen)
    policy = policy_record(kitchen)
    assessments = [
        assess(one.offer, core, history=history, policy=policy, plan=plan, against=against) for one in offers
    ]
    return Case(
        offers=offers,
        assessments=assessments,
        shops=shops,
        kinds=kinds,
        against=against,
        way=way,
        course=data.course if way is None else course_of_way(way),
        core=core,
        plan=plan,
        reader=reader,
        missing=missing,
    )


def _find_way(kitchen: Kitchen, name: str, course: Course) -> tuple[Way | None, CoreWay, list[str]]:
    """The way of that name, and what it uses that has no price; without a name the standard to ``course``."""
    if not name:
        return None, way_of(None, course=course), []
    way = get_way(kitchen, name)
    read = read_kept(way)
    if read.way is None:
        raise refuse_fields(read.reader.problems)
    return way, as_sliced_here(read.way, kitchen), read.missing


def _read_plan(kitchen: Kitchen, reader: Reader, data: out.CaseIn) -> Plan:
    about = reader.weight("about", data.about) if data.about else None
    portions = reader.number(
        "portions", data.portions, what="count of portions", limit=MAX_PORTIONS, places=0
    )
    if portions is not None and portions < 1:
        reader.refuse("portions", "zero", "At least one portion, or leave it empty.")
        portions = None
    sliced = reader.weight("sliced", data.sliced) if data.sliced else None
    return Plan(
        grams=Fraction(about) if about is not None else DEFAULT_ABOUT,
        portions=None if portions is None else int(portions),
        fry=_house_fry(kitchen),
        sliced=None if sliced is None else Fraction(sliced),
        sure=reader.chance("sure", data.sure),
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


def usual_prices(kitchen: Kitchen, case: Case) -> dict[str, Fraction]:
    """What a pound of meat usually costs, by kind of cut; under "" for any: from the list, else the shop."""
    by_kind: dict[str, list[Fraction]] = {}
    for name, usual in find_usual(kitchen, "meat").items():
        by_kind.setdefault(read_cut(name).kind, []).append(usual * GRAMS_PER_LB)
    found = {kind: median(prices) for kind, prices in by_kind.items()}
    every = [price for prices in by_kind.values() for price in prices]
    if every:
        found[""] = median(every)
    elif case.against is not None:
        found[""] = Fraction(case.against.price) * GRAMS_PER_LB / 2
    return found


def name_of(data: out.OfferIn, way: Way | None) -> str:
    """A name for a batch nobody named: the cut and the way."""
    cut = data.cut[:1].upper() + data.cut[1:]
    return cut[:80] if way is None else f"{cut}, {way.name}"[:80]


def find_offer(case: Case, offer_id: str) -> ReadOffer | None:
    """The offer called so, among those that could be read."""
    return next((one for one in case.offers if one.input.id == offer_id), None)
