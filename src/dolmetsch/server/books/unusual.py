"""Out of the usual: batches and steps beyond what others of their sort keep, and what else differed then.

What differed is only said, never called the cause.
"""

import re
from collections import Counter
from collections.abc import Collection, Iterator, Sequence
from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.statistics.spread import FEWEST_OTHERS, Unusual, find_unusual
from dolmetsch.server.batches.models import Entry, UsedLine
from dolmetsch.server.books import schemas as out
from dolmetsch.server.books.rows import Made, Sort, list_batch_sorts, list_fires, list_step_sorts, say_degrees
from dolmetsch.server.books.yields import label_sort, say_chance, say_method, say_points
from dolmetsch.server.diary.models import Note
from dolmetsch.server.fires.models import FireEvent
from dolmetsch.server.kitchens.models import Kitchen

#: So many are shown, the latest first.
SHOWN: Final = 12
#: So many degrees (°F) and days beyond all the others are worth saying.
DEGREES_OFF: Final = 3
DAYS_OFF: Final = 1
#: A note that says something of the weather.
_WEATHER: Final = re.compile(
    r"\b(wind\w*|gale|storm\w*|rain\w*|snow\w*|frost\w*|fog\w*|mist|humid\w*|damp|heat wave|hot day|cold day"
    r"|freez\w*|drizzle|sun\w*|muggy|weather)\b",
    re.IGNORECASE,
)


def read_unusual_book(kitchen: Kitchen) -> out.UnusualBookOut:
    """Batches and steps out of the usual among the latest of each sort."""
    sorts = [
        *((sort, "step") for sort in list_step_sorts(kitchen)),
        *((sort, "way") for sort in list_batch_sorts(kitchen)),
    ]
    found: list[tuple[Made, Sort, str, Unusual]] = []
    for sort, by in sorts:
        for at, unusual in find_unusual(sort.yields).items():
            found.append((sort.made[at], sort, by, unusual))
    found.sort(key=lambda one: (one[0].at, one[0].batch), reverse=True)
    shown = found[:SHOWN]
    notes = _read_notes({made.batch for made, *_ in shown})
    return out.UnusualBookOut(
        unusual=[_show(*one, kitchen=kitchen, notes=notes) for one in shown],
        looked_at=sum(len(sort.made) for sort, _ in sorts),
        too_few=sum(len(sort.made) <= FEWEST_OTHERS for sort, _ in sorts),
    )


def _show(
    made: Made, sort: Sort, by: str, unusual: Unusual, *, kitchen: Kitchen, notes: dict[int, list[str]]
) -> out.UnusualOut:
    points = say_points(unusual.off)
    if by == "step":
        more = "less" if unusual.off > 0 else "more"
        said = f"lost {points} {more} than usual in the {say_method(sort.way)}"
    else:
        said = f"kept {points} {'more' if unusual.off > 0 else 'less'} of what was bought than usual"
    label = label_sort(sort, by="step" if by == "step" else "way")
    return out.UnusualOut(
        code=made.how.code,
        name=made.how.name,
        at=made.at,
        said=said,
        basis=(
            f"{fixed(Fraction(unusual.ratio * 100), 1)} % kept; the middle of {unusual.others} others "
            f"({label}) is {fixed(Fraction(unusual.usual * 100), 1)} %; {say_chance(unusual.chance)}"
        ),
        differed=[*_list_differences(made, sort, kitchen), *notes.get(made.batch, [])],
    )


def _list_differences(made: Made, sort: Sort, kitchen: Kitchen) -> Iterator[str]:
    others = [one for one in sort.made if one is not made]
    yield from _differs_in_word("bought from", made.how.source, [one.how.source for one in others])
    yield from _differs_in_word("made by", made.how.cook, [one.how.cook for one in others])
    insides = [one.how.inside for one in others if one.how.inside is not None]
    inside = made.how.inside
    if inside is not None and insides:
        low, high = min(insides), max(insides)
        if not low - DEGREES_OFF < inside < high + DEGREES_OFF:
            usual = _from_to(say_degrees(low, kitchen), say_degrees(high, kitchen))
            yield f"pulled at {say_degrees(inside, kitchen)} (others {usual})"
    days = [one.how.days for one in others]
    if not min(days) - DAYS_OFF <= made.how.days <= max(days) + DAYS_OFF:
        yield f"{made.how.days} days from start to end (others {_from_to(str(min(days)), str(max(days)))})"
    thick = [one.how.thickness for one in others if one.how.thickness is not None]
    if made.how.thickness is not None and thick and not min(thick) <= made.how.thickness <= max(thick):
        word = "thicker" if made.how.thickness > max(thick) else "thinner"
        yield f"pieces {word} than those of all others measured"
    yield from _list_new_things(made, others)


def _differs_in_word(label: str, mine: str, theirs: Sequence[str]) -> Iterator[str]:
    said = Counter(word for word in theirs if word)
    if mine and said and mine not in said:
        yield f"{label} {mine} (others: {said.most_common(1)[0][0]})"


def _from_to(low: str, high: str) -> str:
    return low if low == high else f"{low} to {high}"


def _list_new_things(made: Made, others: Sequence[Made]) -> Iterator[str]:
    """What was used in it, and in none of the others."""
    mine = _list_used({made.batch})
    new = sorted(mine - _list_used({one.batch for one in others}))
    if new:
        yield f"with {', '.join(new[:3])}, not used in the others"


def _list_used(batches: Collection[int]) -> set[str]:
    counting = Entry.current.filter(batch__in=batches)
    lines = UsedLine.objects.filter(entry__in=counting).exclude(cost_group="labour")
    return set(lines.values_list("what", flat=True).distinct())


def _read_notes(batches: Collection[int]) -> dict[int, list[str]]:
    """By batch: what was noted of the weather, on the batch or at its fires."""
    found: dict[int, list[str]] = {}
    for batch, text in Note.objects.filter(batch__in=batches).order_by("id").values_list("batch", "text"):
        if _WEATHER.search(text):
            found.setdefault(batch, []).append(f"noted: “{_shorten(text)}”")
    fires = list_fires(batches)
    events = FireEvent.objects.filter(fire__in=fires, kind="note").order_by("id").values_list("fire", "data")
    for fire, data in events:
        text = str(data.get("text", ""))
        for batch in fires[fire] if _WEATHER.search(text) else ():
            found.setdefault(batch, []).append(f"noted at the fire: “{_shorten(text)}”")
    return found


def _shorten(text: str) -> str:
    words = " ".join(text.split())
    return words if len(words) <= 120 else f"{words[:119]}…"
