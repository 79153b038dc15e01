"""Reads: what matches the words asked for, of every kind of record; by a code and a mark, or by a day."""

from collections.abc import Callable, Iterable, Iterator
from datetime import date, datetime, time, timedelta
from functools import reduce
from operator import and_
from typing import Final

from django.db.models import Exists, OuterRef, Q
from django.utils import timezone

from dolmetsch.server.batches.models import Batch, Entry, Weighing
from dolmetsch.server.diary.models import Note
from dolmetsch.server.dishes.costing import list_dishes
from dolmetsch.server.finding import schemas
from dolmetsch.server.finding.schemas import FoundOut
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.larder.models import Pack
from dolmetsch.server.meals.inputs.listed import input_of, list_meals
from dolmetsch.server.meals.ways_out import say_wants
from dolmetsch.server.prices.models import PriceItem, Sort
from dolmetsch.server.quantities.calendar import print_clock, print_day

#: Of each kind so many are shown.
SHOWN: Final = 8
#: Words of a batch's code and the mark of a piece or a pack.
CODE_AND_MARK: Final = 2
#: Days as they are written; those without a year are the latest such day.
_DAYS: Final = ("%Y-%m-%d", "%d.%m.%Y", "%d %b %Y", "%d %B %Y", "%b %d %Y", "%B %d %Y")
_DAYS_OF_A_YEAR: Final = ("%d %b", "%d %B", "%b %d", "%B %d")

Finder = Callable[[Kitchen, list[str], date | None], Iterable[FoundOut]]


def find(kitchen: Kitchen, asked: str, now: datetime) -> schemas.FindOut:
    """What ``asked`` finds: records with all of its words, of a batch's code and a mark, or of a day."""
    words = asked.split()
    day = read_day(" ".join(words), timezone.localdate(now))
    found: list[FoundOut] = []
    more: list[schemas.FoundKind] = []
    for finder in _FINDERS if words else ():
        mine = list(finder(kitchen, words, day))
        found += mine[:SHOWN]
        if len(mine) > SHOWN:
            more.append(mine[0].kind)
    return schemas.FindOut(found=found, more=more)


def read_day(typed: str, today: date) -> date | None:
    """A day as typed ("2026-11-22", "22 Nov"), without a year the latest such day; None where it is none."""
    bare = typed.replace(",", "")
    for form in _DAYS:
        try:
            return datetime.strptime(bare, form).date()  # noqa: DTZ007 (a day has no time zone)
        except ValueError:
            continue
    for form in _DAYS_OF_A_YEAR:
        for year in (today.year, today.year - 1):
            try:
                day = datetime.strptime(f"{bare} {year}", f"{form} %Y").date()  # noqa: DTZ007
            except ValueError:
                continue
            if day <= today:
                return day
    return None


def _as_codes(word: str) -> tuple[str, str]:
    """A code or a mark as typed, and in capital letters: a small letter makes it another one."""
    return word, word.upper()


def _span(day: date) -> tuple[datetime, datetime]:
    begins = timezone.make_aware(datetime.combine(day, time()))
    return begins, timezone.make_aware(datetime.combine(day + timedelta(days=1), time()))


def _all_words(words: Iterable[str], *columns: str) -> Q:
    """Each of ``words`` in one of the columns."""
    return reduce(
        and_,
        (
            reduce(lambda one, other: one | other, (Q(**{column: word}) for column in columns))
            for word in words
        ),
    )


def _find_batches(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    """By name, cut and code; on a day those something was recorded of."""
    mine = Batch.objects.filter(kitchen=kitchen)
    if day is None:
        named = _all_words(words, "name__icontains", "cut__icontains")
        # the batch of a piece or a pack that is asked for by its mark
        is_coded = len(words) <= CODE_AND_MARK
        mine = mine.filter(named | Q(code__in=_as_codes(words[0])) if is_coded else named)
    else:
        begins, ends = _span(day)
        entries = Entry.current.filter(batch=OuterRef("pk"), happened_at__gte=begins, happened_at__lt=ends)
        # what was over before, or begun after, is not looked into
        mine = mine.filter(Exists(entries), started_at__lt=ends, last_entry_at__gte=begins)
    columns = ("code", "name", "cut", "started_at", "is_finished")
    for code, name, cut, started, is_finished in mine.order_by("-id").values_list(*columns)[: SHOWN + 1]:
        state = "finished" if is_finished else "under way"
        detail = f"{cut}, {state}, started {print_day(started)}"
        yield FoundOut(kind="batch", title=f"{code} {name}", detail=detail, code=code)


def _find_pieces(kitchen: Kitchen, words: list[str], _day: date | None) -> Iterator[FoundOut]:
    """A piece by the code of its batch and its mark: "B-02 A"."""
    if len(words) != CODE_AND_MARK:
        return
    batch = Batch.objects.filter(kitchen=kitchen, code__in=_as_codes(words[0])).only("code", "name").first()
    if batch is None:
        return
    counting = Entry.current.filter(batch=batch)
    lines = Weighing.objects.filter(entry__in=counting, role__in=("main", "same"))
    for mark in sorted(set(lines.values_list("mark", flat=True))):
        if mark.casefold() == words[1].casefold():
            detail = f"a piece of {batch.name}"
            yield FoundOut(
                kind="piece", title=f"{batch.code} {mark}", detail=detail, code=batch.code, mark=mark
            )


def _find_packs(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    """By the code and the mark, by product, or by the day on which they were packed."""
    mine = Pack.objects.filter(kitchen=kitchen, canceled__isnull=True)
    if day is not None:
        begins, ends = _span(day)
        mine = mine.filter(packed_at__gte=begins, packed_at__lt=ends)
    elif len(words) == CODE_AND_MARK:
        named = Q(batch__code__in=_as_codes(words[0]), mark__in=_as_codes(words[1]))
        mine = mine.filter(named | _all_words(words, "product__icontains"))
    else:
        mine = mine.filter(_all_words(words, "product__icontains"))
    columns = ("batch__code", "mark", "product", "packed_at", "typed")
    for code, mark, product, packed, weight in mine.order_by("-id").values_list(*columns)[: SHOWN + 1]:
        detail = f"{product}, {weight}, packed {print_day(packed)}"
        yield FoundOut(kind="pack", title=f"{code} {mark}", detail=detail, code=code, mark=mark)


def _find_notes(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    mine = Note.objects.filter(kitchen=kitchen)
    if day is None:
        mine = mine.filter(_all_words(words, "text__icontains"))
    else:
        begins, ends = _span(day)
        mine = mine.filter(happened_at__gte=begins, happened_at__lt=ends)
    columns = ("batch__code", "text", "happened_at", "recorded_by__first_name")
    for code, text, at, who in mine.order_by("-id").values_list(*columns)[: SHOWN + 1]:
        detail = ", ".join(filter(None, (code, who, print_day(at))))
        yield FoundOut(kind="note", title=text, detail=detail, code=code)


def _find_prices(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    """Lines of the price list by their names, or by where they were priced."""
    if day is not None:
        return
    mine = PriceItem.objects.filter(kitchen=kitchen)
    named = _all_words(words, "name__icontains", "kind__icontains")
    seen = mine.filter(_all_words(words, "quotes__source__icontains")).values("pk")
    for item in mine.filter(named | Q(pk__in=seen)).order_by("name")[: SHOWN + 1]:
        sort = Sort(item.sort).label.lower()
        yield FoundOut(kind="price", title=item.name, detail=f"price list, {sort}", id=item.pk)


def _has_all(words: Iterable[str], *texts: str) -> bool:
    said = " ".join(texts).casefold()
    return all(word.casefold() in said for word in words)


def _find_dishes(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    for dish in list_dishes(kitchen) if day is None else ():
        if _has_all(words, dish.name):
            yield FoundOut(kind="dish", title=dish.name, detail="a dish", name=dish.name)


def _find_plans(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    """By name and by what is served; by the day of the meal."""
    today = timezone.localdate()
    for meal in list_meals(kitchen):
        data = input_of(meal, today)
        served = say_wants(data)
        if data.day == day if day is not None else _has_all(words, meal.name, served):
            detail = f"a plan: {served}, {print_day(data.day)} at {print_clock(data.at)}"
            yield FoundOut(kind="plan", title=meal.name, detail=detail, name=meal.name)


def _find_people(kitchen: Kitchen, words: list[str], day: date | None) -> Iterator[FoundOut]:
    """Who cooks here, and how much they wrote down."""
    for user in (
        User.objects.filter(memberships__kitchen=kitchen).order_by("first_name") if day is None else ()
    ):
        if _has_all(words, user.first_name, user.username):
            entries = Entry.objects.filter(kitchen=kitchen, recorded_by=user).count()
            detail = f"cooks here: {entries} {'entry' if entries == 1 else 'entries'} recorded"
            yield FoundOut(kind="person", title=user.called, detail=detail, name=user.username)


_FINDERS: Final[tuple[Finder, ...]] = (
    _find_batches,
    _find_pieces,
    _find_packs,
    _find_notes,
    _find_prices,
    _find_dishes,
    _find_plans,
    _find_people,
)
