"""Reads of the larder: stacks in their stores, what thaws, runs out, went, and is to be packed."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from functools import reduce
from typing import Any, Final, cast

from django.db.models import Min, QuerySet, Sum
from django.utils import timezone

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.slicing.pace import PACE_DAYS, Pace, find_pace
from dolmetsch.core.slicing.packs import FATES, LOST
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import schemas
from dolmetsch.server.larder.here import is_past_best, is_past_use, list_usable
from dolmetsch.server.larder.models import Pack, PackNow, PackWeighing, TakenNow
from dolmetsch.server.pieces.queries import list_stores
from dolmetsch.server.quantities.printing import print_money, print_percent, print_weight

#: Where it went is shown of so many days.
WENT_DAYS: Final = 30
#: So many packs of a stack are listed; the others are counted.
LISTED: Final = 8
#: A pack is to be used soon, a product runs out soon, within so many days.
SOON_DAYS: Final = 3
#: The fridge is to hold so many days of what is eaten of a product; a pack thaws overnight.
THAW_DAYS: Final = 2
#: Fates of what people eat: what a pace is made of.
EATEN: Final = tuple(fate for fate in FATES if fate not in LOST)
#: So many packs near their day are listed.
SOON_SHOWN: Final = 12


def list_here(kitchen: Kitchen) -> QuerySet[PackNow]:
    """The kitchen's own packs that are in the larder, oldest first; customers' are not for its plates."""
    here = PackNow.objects.filter(kitchen=kitchen, is_gone=False, owner="")
    whole = here.select_related("pack", "pack__batch")
    return whole.order_by("pack__packed_at", "pack_id")


@dataclass(frozen=True, slots=True)
class Lying:
    """A pack as it lies in the larder, its columns alone: there are thousands of them."""

    code: str
    batch_name: str
    mark: str
    product: str
    form: str
    piece: str
    grams: Decimal
    slices: int | None
    packed_at: datetime
    cost: Decimal
    left_grams: Decimal
    left_slices: int | None
    left_cost: Decimal
    state: str
    store: str
    keep_until: date | None
    is_raw: bool
    is_gone: bool
    owner: str


_COLUMNS: Final = (
    *("pack__batch__code", "pack__batch__name", "pack__mark", "pack__product", "pack__form", "pack__piece"),
    *("pack__grams", "pack__slices", "pack__packed_at", "cost", "left_grams", "left_slices", "left_cost"),
    *("state", "store", "keep_until", "is_raw", "is_gone", "owner"),
)


def list_lying(kitchen: Kitchen) -> list[Lying]:
    """The packs that are in the larder, customers' too, oldest first."""
    here = PackNow.objects.filter(kitchen=kitchen, is_gone=False).order_by("pack__packed_at", "pack_id")
    return [Lying(*row) for row in here.values_list(*_COLUMNS)]


def show_now(now: PackNow, today: date) -> schemas.PackOut:
    """A pack as it is now."""
    values = [reduce(getattr, name.split("__"), now) for name in _COLUMNS]
    return show_pack(Lying(*cast(Any, values)), today)


def show_pack(now: Lying, today: date) -> schemas.PackOut:
    """A pack as it lies there."""
    until = now.keep_until
    return schemas.PackOut(
        code=now.code,
        batch_name=now.batch_name,
        mark=now.mark,
        product=now.product,
        form=cast(Any, now.form),
        piece=now.piece,
        made=print_weight(Fraction(now.grams)),
        left=print_weight(Fraction(now.left_grams)),
        slices=now.slices,
        left_slices=now.left_slices,
        cost=print_money(Fraction(now.cost)),
        left_cost=print_money(Fraction(now.left_cost)),
        packed_at=now.packed_at,
        state=cast(Any, now.state),
        store=now.store,
        keep_until=until,
        is_past=is_past_use(now, today) and not now.is_gone,
        is_past_best=is_past_best(now, today) and not now.is_gone,
        is_soon=until is not None and today <= until <= today + timedelta(days=SOON_DAYS),
        is_raw=now.is_raw,
        is_gone=now.is_gone,
        owner=now.owner,
    )


def read_larder(kitchen: Kitchen) -> schemas.LarderOut:
    """The whole larder."""
    today = timezone.localdate()
    lying = list_lying(kitchen)
    here = [now for now in lying if not now.owner]
    theirs = [now for now in lying if now.owner]
    paces, usable = find_paces(kitchen, today), list_usable(here, today)
    thaw, why = _list_thaw(usable, paces)
    return schemas.LarderOut(
        packs=len(here),
        weight=print_weight(_grams(here)),
        cost=print_money(_cost(here)),
        their_packs=len(theirs),
        their_weight=print_weight(_grams(theirs)),
        shelves=_show_shelves(kitchen, lying, paces, today),
        thaw=thaw,
        thaw_why=why,
        runs_out=_list_runs_out(usable, paces, today),
        went=list_went(kitchen, since=today - timedelta(days=WENT_DAYS - 1)),
        past=len(here) - len(usable),
        soon=_list_soon(lying, today),
        lost=list_lost(kitchen),
        unpacked=list_ready(kitchen),
    )


def _list_soon(here: Sequence[Lying], today: date) -> list[schemas.PackOut]:
    near = today + timedelta(days=SOON_DAYS)
    soon = [now for now in here if now.keep_until is not None and now.keep_until <= near]
    return [
        show_pack(now, today) for now in sorted(soon, key=lambda now: now.keep_until or near)[:SOON_SHOWN]
    ]


def list_lost(kitchen: Kitchen) -> list[schemas.LostOut]:
    """What was lost of each product after it was packed, the most first."""
    counted = Pack.objects.filter(kitchen=kitchen, canceled__isnull=True)
    packed = {row["product"]: row["grams"] for row in counted.values("product").annotate(grams=Sum("grams"))}
    gone = TakenNow.objects.filter(kitchen=kitchen, fate__in=LOST).values("product")
    lost = {row["product"]: row for row in gone.annotate(weight=Sum("grams"), money=Sum("cost"))}
    purges = _find_purges(kitchen)
    found = []
    for product, grams in packed.items():
        row = lost.get(product)
        weight = Fraction(0) if row is None else Fraction(row["weight"])
        money = Fraction(0) if row is None else Fraction(row["money"])
        found.append((weight / Fraction(grams), product, Fraction(grams), weight, money))
    return [
        schemas.LostOut(
            product=product,
            packed=print_weight(grams),
            lost=print_weight(weight),
            cost=print_money(money),
            percent=print_percent(ratio),
            weighed=purges[product].count if product in purges else 0,
            purge=print_percent(purges[product].ratio) if product in purges else None,
        )
        for ratio, product, grams, weight, money in sorted(found, key=lambda one: (-one[0], one[1]))
    ]


@dataclass(slots=True)
class _Purge:
    """What packs that were weighed again have lost: how many, what was in them by the book, and what is."""

    count: int = 0
    book: Fraction = Fraction(0)
    weighed: Fraction = Fraction(0)

    @property
    def ratio(self) -> Fraction:
        """What ran out, of what was in them."""
        return max(Fraction(0), (self.book - self.weighed) / self.book)


def _find_purges(kitchen: Kitchen) -> dict[str, _Purge]:
    """By product, each pack by its latest weighing."""
    rows = PackWeighing.objects.filter(kitchen=kitchen, pack__canceled__isnull=True).order_by("id")
    latest = {
        pack: (product, book, grams)
        for pack, product, book, grams in rows.values_list("pack", "pack__product", "book_grams", "grams")
    }
    found: dict[str, _Purge] = defaultdict(_Purge)
    for product, book, grams in latest.values():
        one = found[product]
        one.count += 1
        one.book += Fraction(book)
        one.weighed += Fraction(grams)
    return found


def _grams(packs: Iterable[Lying]) -> Fraction:
    return Fraction(sum((now.left_grams for now in packs), Decimal(0)))


def _cost(packs: Iterable[Lying]) -> Fraction:
    return Fraction(sum((now.left_cost for now in packs), Decimal(0)))


def _by_product(packs: Iterable[Lying]) -> dict[str, list[Lying]]:
    found: dict[str, list[Lying]] = defaultdict(list)
    for now in packs:
        found[same_name(now.product)].append(now)
    return found


def _by_stack(packs: Iterable[Lying]) -> dict[tuple[str, str], list[Lying]]:
    """By owner and product: the kitchen's own first."""
    found: dict[tuple[str, str], list[Lying]] = defaultdict(list)
    for now in packs:
        found[same_name(now.owner), same_name(now.product)].append(now)
    return dict(sorted(found.items(), key=lambda item: item[0][0]))


def find_paces(kitchen: Kitchen, today: date) -> dict[str, Pace]:
    """The pace of each product of late, by its name; those of which too little was eaten are left out."""
    taken: dict[str, list[tuple[date, Fraction]]] = defaultdict(list)
    lately = TakenNow.objects.filter(
        kitchen=kitchen, day__gt=today - timedelta(days=PACE_DAYS), fate__in=EATEN
    )
    for product, day, grams in lately.values_list("product", "day", "grams"):
        taken[same_name(product)].append((day, Fraction(grams)))
    if not taken:
        return {}
    packed = Pack.objects.filter(kitchen=kitchen, canceled__isnull=True).values("product")
    since: dict[str, date] = {}
    for row in packed.annotate(first=Min("packed_at")):
        name, day = same_name(row["product"]), timezone.localdate(row["first"])
        since[name] = min(day, since.get(name, day))
    paces = {}
    for product, takings in taken.items():
        pace = find_pace(takings, since=since.get(product, today - timedelta(days=PACE_DAYS)), today=today)
        if pace is not None:
            paces[product] = pace
    return paces


def _show_shelves(
    kitchen: Kitchen, here: Sequence[Lying], paces: dict[str, Pace], today: date
) -> list[schemas.ShelfOut]:
    by_store: dict[str, list[Lying]] = defaultdict(list)
    for now in here:
        by_store[same_name(now.store)].append(now)
    stores = {same_name(store.name): (store.name, store.sort) for store in list_stores(kitchen)}
    wanted = [
        (name, sort, by_store.pop(key, []))
        for key, (name, sort) in stores.items()
        if sort in ("fridge", "freezer")
    ]
    wanted += [
        (packs[0].store, stores.get(key, ("", ""))[1], packs) for key, packs in sorted(by_store.items())
    ]
    return [
        schemas.ShelfOut(
            store=name,
            sort=sort,
            stacks=[_show_stack(packs, paces, today) for packs in _by_stack(lying).values()],
        )
        for name, sort, lying in wanted
        if lying or sort
    ]


def _show_stack(packs: Sequence[Lying], paces: dict[str, Pace], today: date) -> schemas.StackOut:
    product, owner = packs[0].product, packs[0].owner
    # a customer's are not eaten at the kitchen's pace
    pace = None if owner else paces.get(same_name(product))
    grams = _grams(packs)
    counts = [now.left_slices for now in packs]
    days = [now.keep_until for now in packs if now.keep_until is not None]
    return schemas.StackOut(
        product=product,
        owner=owner,
        packs=[show_pack(now, today) for now in packs[:LISTED]],
        more=max(0, len(packs) - LISTED),
        count=len(packs),
        weight=print_weight(grams),
        slices=None if None in counts else sum(count or 0 for count in counts),
        cost=print_money(_cost(packs)),
        lasts=None if pace is None else int(pace.lasts_days(grams)),
        use_by=min(days, default=None),
    )


def _list_thaw(here: Sequence[Lying], paces: dict[str, Pace]) -> tuple[list[schemas.ThawOut], str]:
    """Packs to thaw tonight, oldest first, so that the fridge holds what is eaten; and why."""
    thaw: list[schemas.ThawOut] = []
    why: list[str] = []
    for product, packs in _by_product(here).items():
        pace = paces.get(product)
        frozen = [now for now in packs if now.state == "frozen"]
        if pace is None or not frozen:
            continue
        have = _grams(now for now in packs if now.state != "frozen")
        wanted = pace.grams_a_day * THAW_DAYS
        before = len(thaw)
        for now in frozen:
            if have >= wanted:
                break
            have += Fraction(now.left_grams)
            thaw.append(schemas.ThawOut(code=now.code, mark=now.mark, product=now.product))
        if len(thaw) > before:
            why.append(packs[0].product)
    said = (
        f"So that the fridge holds {THAW_DAYS} days of {', '.join(why)} at the current pace." if why else ""
    )
    return thaw, said


def _list_runs_out(here: Sequence[Lying], paces: dict[str, Pace], today: date) -> list[schemas.RunsOutOut]:
    found = []
    for product, packs in _by_product(here).items():
        pace = paces.get(product)
        if pace is None:
            continue
        grams = _grams(packs)
        day = pace.runs_out(grams, today)
        found.append(
            schemas.RunsOutOut(
                product=packs[0].product,
                day=day,
                a_day=print_weight(pace.grams_a_day),
                left=print_weight(grams),
                is_soon=day <= today + timedelta(days=SOON_DAYS),
            )
        )
    return sorted(found, key=lambda one: (one.day, one.product))


def list_went(kitchen: Kitchen, *, since: date) -> list[schemas.WentOut]:
    """What went which way since a day."""
    sums = (
        TakenNow.objects.filter(kitchen=kitchen, day__gte=since)
        .values("fate")
        .annotate(grams=Sum("grams"), cost=Sum("cost"), income=Sum("income"))
    )
    by_fate = {row["fate"]: row for row in sums}
    return [
        schemas.WentOut(
            fate=fate,
            weight=print_weight(Fraction(by_fate[fate]["grams"])),
            cost=print_money(Fraction(by_fate[fate]["cost"])),
            income=print_money(Fraction(by_fate[fate]["income"])),
        )
        for fate in FATES
        if fate in by_fate
    ]


#: So many batches to slice or to pack are listed.
READY_SHOWN: Final = 12


def list_ready(kitchen: Kitchen) -> list[schemas.ToPackOut]:
    """Batches that can be sliced, and finished ones of which nothing is packed, latest first."""
    mine = Batch.objects.filter(kitchen=kitchen)
    chilled = mine.filter(is_finished=False, place="slice").order_by("-last_entry_at")[:READY_SHOWN]
    lately = timezone.now() - timedelta(days=WENT_DAYS)
    done = mine.filter(is_finished=True, packs_made=0, last_entry_at__gt=lately)
    return [
        schemas.ToPackOut(
            code=batch.code,
            name=batch.name,
            weight=cast(Any, batch.summary["weight"]),
            is_finished=batch.is_finished,
        )
        for batch in (*chilled, *done.order_by("-last_entry_at")[:READY_SHOWN])
    ]


def list_choices(kitchen: Kitchen) -> list[schemas.StoreChoice]:
    """Stores packs can be put into: fridges and freezers."""
    stores = [store for store in list_stores(kitchen) if store.sort in ("fridge", "freezer")]
    return [schemas.StoreChoice(name=store.name, sort=store.sort) for store in stores]
