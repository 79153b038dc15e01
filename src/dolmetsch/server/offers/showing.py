"""What is shown of a case check: offers with their ranges, the shop's lines, what there is to choose from."""

from collections.abc import Iterable
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Literal

from django.utils import timezone

from dolmetsch.core.buying.offer import Assessment, Plan, ShopKind, ask_basis, rank
from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES, Course
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed
from dolmetsch.server.batches.entries.chosen_way import way_of
from dolmetsch.server.batches.entries.course import find_last_course
from dolmetsch.server.batches.forecast.outlooks import show_range
from dolmetsch.server.findings import show_findings
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.offers import schemas as out
from dolmetsch.server.offers.checking import EARLIEST, LATEST, Case, check, kind_of, usual_prices
from dolmetsch.server.offers.reading import ReadOffer
from dolmetsch.server.prices.models import Quote
from dolmetsch.server.prices.queries import Priced, list_latest_quotes, list_priced, price_of
from dolmetsch.server.quantities.printing import (
    print_money,
    print_price_of_gram,
    print_unit_cost,
    print_weight,
    sign_of,
)
from dolmetsch.server.quantities.units import UNITS
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.queries import label_portion, list_latest
from dolmetsch.server.ways.schemas import WayIn


def read_case(kitchen: Kitchen, data: out.CaseIn) -> out.CaseOut:
    """The answer to a case check; nothing is written.

    Raises:
        DomainError: not_found (the way).
    """
    case = check(kitchen, data)
    usual = usual_prices(kitchen, case)
    buy_by, today = _buy_by(data.on, case.core.days), timezone.localdate()
    is_past = buy_by is not None and buy_by < today
    shown = [
        show_offer(case, case.offers[at], case.assessments[at], usual, kitchen=kitchen)
        for at in rank(case.assessments)
    ]
    notes = [f"“{name}” has no price that fits in the price list; it is left out." for name in case.missing]
    return out.CaseOut(
        offers=shown,
        shops=show_shops(case.shops, case.kinds),
        against=None if case.against is None else case.against.name,
        problems=case.reader.problems,
        way="" if case.way is None else case.way.name,
        course=case.course,
        course_label=COURSE_FACTS[case.course].label if case.course else "",
        portion_label=None if case.way is None else label_portion(WayIn.model_validate(case.way.input)),
        buy_by=None if is_past else buy_by,
        ready_if_bought_today=today + timedelta(days=case.core.days) if is_past else None,
        notes=notes,
    )


def _buy_by(on: date | None, days: int) -> date | None:
    """The last day to buy for eating on a day."""
    return on - timedelta(days=days) if on is not None and EARLIEST <= on <= LATEST else None


def show_shops(shops: list[Priced], kinds: list[ShopKind]) -> list[out.ShopLineOut]:
    """The shop's kinds, cheapest first."""
    lines = []
    for shop, kind in sorted(zip(shops, kinds, strict=True), key=lambda pair: pair[1].price):
        tests = len(shop.fryings)
        lines.append(
            out.ShopLineOut(
                name=kind.name,
                kind=shop.item.kind,
                price=print_price_of_gram(kind.price),
                fry=fixed(Fraction(kind.fry.middle) * 100, 1),
                fry_basis=f"{tests} fryings" if tests else "start value, no frying test yet",
            )
        )
    return lines


def show_offer(
    case: Case, read: ReadOffer, found: Assessment, usual: dict[str, Fraction], *, kitchen: Kitchen
) -> out.CaseOfferOut:
    """One offer carried to the end; ``usual`` is what a pound of each kind of cut usually costs."""
    offer, data = read.offer, read.input
    asked, question = _ask(read, usual, kitchen)
    pack = offer.pack_grams
    worth = found.worth_up_to
    return out.CaseOfferOut(
        id=data.id,
        cut=data.cut,
        tag=print_price_of_gram(offer.price),
        meat=print_price_of_gram(offer.meat_price) if offer.solution else None,
        sliced=show_range(found.outlook.price),
        portion=None if found.portion is None else _money_range(found.portion),
        cooked=_money_range(
            replace(found.cooked, middle=found.cooked.middle * float(UNITS[kitchen.weight_unit].cooked_grams))
        ),
        worth_up_to=print_unit_cost(worth),
        worth_pack=None if worth is None or pack is None else print_money(worth * pack / GRAMS_PER_LB),
        chance=None if found.chance is None else round(100 * found.chance),
        verdict=found.verdict,
        hour=None if found.hourly is None else print_money(Fraction(found.hourly)),
        amount=_show_amount(found),
        pack=None if pack is None else print_weight(pack),
        packs_wanted=_packs_wanted(case.plan, found),
        warning=found.warning,
        doubts=show_findings(found.doubts),
        steps=[
            out.StepBeliefOut(
                label=label_kind(step.kind),
                basis=milestone.belief.explain(),
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
        left_portions=None if amount.left_portions is None else fixed(Fraction(amount.left_portions), 0),
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
    if read.input.is_sure or known is None:
        return None, None
    unit = UNITS[kitchen.weight_unit]
    usually = unit.price(known)
    each = offer.price * unit.grams
    asked = ask_basis(
        each=each,
        pack=None if offer.pack_grams is None else offer.pack_grams / unit.grams,
        is_pack_price=read.input.basis == "pack",
        usual=usually,
    )
    sign, word = sign_of(kitchen.currency), unit.word
    said = f"such meat usually costs about {sign}{print_money(usually)} a {word}"
    if asked == "is_pack":
        return asked, f"{sign}{print_money(each)} a {word}? That looks like the price of the pack: {said}."
    if asked == "is_each":
        return asked, f"{sign}{read.input.price} for the pack? That looks like the price of a {word}: {said}."
    return None, None


def read_choices(kitchen: Kitchen) -> out.ChoicesOut:
    """What a case check can be made of: ways, the standard one to each course (the last made first), shop
    kinds, meats of the price list.
    """
    first = find_last_course(kitchen)
    shops = list_priced(kitchen, "shop_pack")
    return out.ChoicesOut(
        ways=[_show_way(way) for way in list_latest(kitchen)],
        courses=[_show_course(course) for course in sorted(COURSES, key=lambda one: one != first)],
        shops=show_shops(shops, [kind_of(shop) for shop in shops]),
        listed=[_show_listed(quote) for quote in list_latest_quotes(kitchen, "meat")],
    )


def _show_course(course: Course) -> out.CourseChoiceOut:
    steps = _say_steps(step.method for step in way_of(None, course=course).steps)
    return out.CourseChoiceOut(course=course, label=COURSE_FACTS[course].label, steps=steps)


def _say_steps(methods: Iterable[str]) -> str:
    return ", ".join(method.replace("_", " ") for method in methods)


def _show_way(way: Way) -> out.WayChoiceOut:
    data = WayIn.model_validate(way.input)
    steps = _say_steps(step.method for step in data.steps)
    return out.WayChoiceOut(name=way.name, steps=steps, portion=label_portion(data))


def _show_listed(latest: Quote) -> out.ListedOut:
    price = price_of(latest)
    return out.ListedOut(
        cut=latest.item.name,
        price=print_money(price.paid / price.size * GRAMS_PER_LB),
        source=latest.source,
        on=latest.seen_on,
        pack_weight=_spell(latest.grams) if latest.is_pack and latest.grams else "",
        solution="" if latest.solution_ratio is None else f"{(latest.solution_ratio * 100).normalize():f}",
    )


def _spell(grams: Decimal) -> str:
    pounds = Fraction(grams) / GRAMS_PER_LB
    exact = pounds * 100
    return f"{fixed(pounds, 2)} lb" if exact.denominator == 1 else f"{grams.normalize():f} g"
