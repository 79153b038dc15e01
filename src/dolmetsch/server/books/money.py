"""The money book: what a year saved beside the shop, batch by batch, and where the packs went."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Final

from django.db.models import Count, Sum
from django.utils import timezone

from dolmetsch.core.costing.sheet import cost_per_lb
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.packs import FATES, LOST
from dolmetsch.server.batches.models import BatchFacts, ShopSaving
from dolmetsch.server.books import schemas as out
from dolmetsch.server.books.tools import Saved, list_saved, list_tools
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import TakenNow
from dolmetsch.server.larder.one_pack import FATE_WORDS
from dolmetsch.server.prices.models import PriceItem, Sort
from dolmetsch.server.quantities.days import midnight_of
from dolmetsch.server.quantities.printing import (
    print_money,
    print_money_or_none,
    print_percent,
    print_unit_cost,
    print_weight,
)

#: Fewer batches, or fewer days from the first to now, and nothing is said of a month or an hour.
FEWEST_BATCHES: Final = 3
FEWEST_DAYS: Final = 30
#: More batches than this are drawn several to a point.
MOST_POINTS: Final = 120
#: Fates that brought in money, and those by which people of the house ate.
SOLD: Final = ("sold", "plated")
DAYS_A_MONTH: Final = Fraction(365, 12)


@dataclass(frozen=True, slots=True, kw_only=True)
class Finished:
    """A finished batch beside the shop: what it saved, its labor, minutes and finished weight; of all that
    the kitchen's own part where it had customers' pieces too.
    """

    saved: Saved
    labour: Decimal
    minutes: Decimal
    grams: Decimal

    @property
    def without_work(self) -> Decimal:
        """What it saved if work cost nothing."""
        return self.saved.amount + self.labour


def read_money_book(kitchen: Kitchen, now: datetime, *, year: int | None, kind: str) -> out.MoneyOut:
    """Money of ``year`` (None: the latest with a finished batch) beside a ``kind`` (empty: the first)."""
    kinds = list_kinds(kitchen)
    chosen = next((one for one in kinds if one == kind), next(iter(kinds), None))
    names = kinds[chosen] if chosen is not None else []
    saved = list_saved(kitchen, names)
    years = _list_years(saved)
    shown = year or (years[-1].year if years else timezone.localdate(now).year)
    begin, end = midnight_of(date(shown, 1, 1)), midnight_of(date(shown + 1, 1, 1))
    made = _list_finished(kitchen, saved, begin, end)
    thrown = BatchFacts.objects.filter(
        kitchen=kitchen, finished_at__gte=begin, finished_at__lt=end
    ).aggregate(grams=Sum("discarded_grams"), cost=Sum("loss"))
    fates = _sum_fates(kitchen, shown)
    lost = [fates[fate] for fate in LOST if fate in fates]
    return out.MoneyOut(
        year=shown,
        years=years,
        kind=chosen,
        kinds=list(kinds),
        sums=_sum_up(made, now, begin, end) if chosen is not None else None,
        points=_list_points(made),
        months=_list_months(made),
        fates=[_show_fate(fate, *fates[fate]) for fate in FATES if fate in fates],
        sold_part=_sold_part(fates),
        thrown_weight=print_weight(Fraction(thrown["grams"] or 0) + sum((grams for grams, _, _ in lost))),
        thrown_cost=print_money(Fraction(thrown["cost"] or 0) + sum((cost for _, cost, _ in lost))),
        tools=list_tools(kitchen, saved),
    )


def list_kinds(kitchen: Kitchen) -> dict[str, list[str]]:
    """Kinds of shop packs that batches were set beside, each with its packs' names; most batches first.

    A pack whose kind the price list does not know is a kind of its own.
    """
    by_name = {
        same_name(item.name): item.kind
        for item in PriceItem.objects.filter(kitchen=kitchen, sort=Sort.SHOP_PACK).exclude(kind="")
    }
    savings = ShopSaving.objects.filter(kitchen=kitchen).values_list("name")
    counts = dict(savings.annotate(batches=Count("*")))
    kinds: defaultdict[str, list[str]] = defaultdict(list)
    for name in sorted(counts):
        kinds[by_name.get(same_name(name), name)].append(name)
    ordered = sorted(kinds, key=lambda kind: (-sum(counts[name] for name in kinds[kind]), kind))
    return {_label_kind(kind, kinds[kind]): kinds[kind] for kind in ordered}


def _label_kind(kind: str, names: Sequence[str]) -> str:
    """A kind by its pack's own name, unless several packs are of it."""
    return names[0] if len(names) == 1 else f"{kind} shop packs"


def _list_years(saved: Sequence[Saved]) -> list[out.YearSumOut]:
    """The years with finished batches, oldest first."""
    years: defaultdict[int, list[Decimal]] = defaultdict(list)
    for one in saved:
        # only about the turn of a year it matters where they are; a zone takes its time
        is_turn = (one.at.month, one.at.day) in ((1, 1), (12, 31))
        years[timezone.localdate(one.at).year if is_turn else one.at.year].append(one.amount)
    return [
        out.YearSumOut(year=year, batches=len(amounts), saved=_money(sum(amounts, Decimal(0))))
        for year, amounts in sorted(years.items())
    ]


def _money(amount: Decimal) -> str:
    return print_money(Fraction(amount))


def _list_finished(
    kitchen: Kitchen, saved: Sequence[Saved], begin: datetime, end: datetime
) -> list[Finished]:
    """Of ``saved`` the batches finished from ``begin`` until ``end``, as they ended."""
    by_batch = {one.batch: one for one in saved if begin <= one.at < end}
    facts = BatchFacts.objects.filter(
        kitchen=kitchen, finished_at__gte=begin, finished_at__lt=end
    ).values_list(
        *("batch", "batch__code", "labour", "minutes", "final_grams", "customers_grams", "customers_labour")
    )
    found = [
        Finished(
            saved=replace(by_batch[batch], code=code),
            labour=labour - others_labour,
            # minutes are of the batch as a whole: theirs by weight
            minutes=(minutes or Decimal(0)) * (grams - others) / grams if grams else Decimal(0),
            grams=grams - others,
        )
        for batch, code, labour, minutes, grams, others, others_labour in facts
        if batch in by_batch
    ]
    return sorted(found, key=lambda one: (one.saved.at, one.saved.batch))


def _sum_up(made: Sequence[Finished], now: datetime, begin: datetime, end: datetime) -> out.MoneyYearOut:
    saved = sum((one.saved.amount for one in made), Decimal(0))
    grams = sum((one.grams for one in made), Decimal(0))
    labour = sum((one.labour for one in made), Decimal(0))
    timed = [one for one in made if one.minutes]
    minutes = sum((one.minutes for one in timed), Decimal(0))
    earned = sum((one.without_work for one in timed), Decimal(0))
    since = made[0].saved.at if made else begin
    days = max(min(now, end) - since, timedelta(0)).days
    is_enough = len(made) >= FEWEST_BATCHES
    a_month = Fraction(saved) * DAYS_A_MONTH / days if is_enough and days >= FEWEST_DAYS else None
    an_hour = Fraction(earned) * 60 / Fraction(minutes) if minutes and len(timed) >= FEWEST_BATCHES else None
    return out.MoneyYearOut(
        batches=len(made),
        saved=_money(saved),
        saved_without_work=_money(saved + labour),
        labor=_money(labour),
        weight=print_weight(Fraction(grams)),
        per_weight=print_unit_cost(cost_per_lb(Fraction(saved), Fraction(grams))),
        per_month=print_money_or_none(a_month),
        hours=fixed(Fraction(minutes) / 60, 1),
        hours_batches=len(timed),
        earned_an_hour=print_money_or_none(an_hour),
        beat=sum(one.saved.amount > 0 for one in made),
        lost=sum(one.saved.amount < 0 for one in made),
        too_little=_say_too_little(len(made), days),
    )


def _say_too_little(batches: int, days: int) -> str | None:
    if batches < FEWEST_BATCHES:
        many = "No batch is" if not batches else "One batch is" if batches == 1 else f"{batches} batches are"
        return f"{many} too little to say what a month, a year or an hour brings."
    if days < FEWEST_DAYS:
        return f"{days} days are too little to say what a month or a year brings."
    return None


def _list_points(made: Sequence[Finished]) -> list[out.SavedPointOut]:
    each = -(-len(made) // MOST_POINTS)
    points, sum_saved, sum_without = [], Decimal(0), Decimal(0)
    for at in range(0, len(made), max(each, 1)):
        together = made[at : at + each]
        saved = sum((one.saved.amount for one in together), Decimal(0))
        sum_saved += saved
        sum_without += sum((one.without_work for one in together), Decimal(0))
        last = together[-1].saved
        points.append(
            out.SavedPointOut(
                at=last.at,
                code=last.code,
                batches=len(together),
                saved=_money(saved),
                sum=_money(sum_saved),
                sum_without_work=_money(sum_without),
            )
        )
    return points


def _list_months(made: Sequence[Finished]) -> list[out.MonthOut]:
    months: defaultdict[date, list[Finished]] = defaultdict(list)
    for one in made:
        months[timezone.localdate(one.saved.at).replace(day=1)].append(one)
    shown = []
    for month, mine in sorted(months.items()):
        saved = sum((one.saved.amount for one in mine), Decimal(0))
        grams = sum((one.grams for one in mine), Decimal(0))
        shown.append(
            out.MonthOut(
                month=month,
                batches=len(mine),
                saved=_money(saved),
                saved_without_work=_money(sum((one.without_work for one in mine), Decimal(0))),
                weight=print_weight(Fraction(grams)),
                per_weight=print_unit_cost(cost_per_lb(Fraction(saved), Fraction(grams))),
            )
        )
    return shown


Fate = tuple[Fraction, Fraction, Fraction]


def _sum_fates(kitchen: Kitchen, year: int) -> dict[str, Fate]:
    """By fate: weight, cost and income of what left the larder in ``year``."""
    rows = (
        TakenNow.objects.filter(kitchen=kitchen, day__gte=date(year, 1, 1), day__lt=date(year + 1, 1, 1))
        .values("fate")
        .annotate(grams=Sum("grams"), cost=Sum("cost"), income=Sum("income"))
    )
    return {
        row["fate"]: (Fraction(row["grams"]), Fraction(row["cost"]), Fraction(row["income"])) for row in rows
    }


def _show_fate(fate: str, grams: Fraction, cost: Fraction, income: Fraction) -> out.FateSumOut:
    return out.FateSumOut(
        fate=fate,
        label=FATE_WORDS[fate],
        weight=print_weight(grams),
        cost=print_money(cost),
        income=print_money_or_none(income) or "0.00",
    )


def _sold_part(fates: dict[str, Fate]) -> str | None:
    sold = sum((fates[fate][1] for fate in SOLD if fate in fates), Fraction(0))
    eaten = fates["eaten"][1] if "eaten" in fates else Fraction(0)
    return print_percent(sold / (sold + eaten)) if sold + eaten else None
