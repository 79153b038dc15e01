"""The yield book: every batch a dot, the band of eight in ten, and what changes go with."""

from collections import defaultdict
from collections.abc import Sequence
from fractions import Fraction
from math import fsum
from typing import Final, Literal

from dolmetsch.core.forecast.pull import believe_pull
from dolmetsch.core.forecast.yields import believe
from dolmetsch.core.heat.cook_shrink import OwnCook
from dolmetsch.core.meat.cuts import cut_of_key
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.reference.cook_shrink import HOURS_WITHOUT
from dolmetsch.core.statistics.difference import compute_difference, compute_slope
from dolmetsch.core.statistics.spread import compute_spread
from dolmetsch.server.batches.forecast.history import YIELDS_READ, read_history
from dolmetsch.server.batches.models import BatchFacts
from dolmetsch.server.books import schemas as out
from dolmetsch.server.books.rows import (
    MM_PER_INCH,
    Made,
    Part,
    Sort,
    list_batch_sorts,
    list_step_sorts,
    part_of,
    say_degrees,
    say_thickness,
)
from dolmetsch.server.fires.of_batch import list_own_cooks
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_percent, print_price_of_gram

By = Literal["way", "step"]
#: Parts two of which are compared; the others are measured, and have a slope.
_GROUPED: Final[tuple[Part, ...]] = ("source", "cook", "season")
#: Methods whose key is no word for one of them.
_METHOD_WORDS: Final = {"pulled": "long cook", "immersion": "brine", "pumped": "pumped cure"}
#: What a change of the temperature inside is shown of.
PULL_STEP: Final = 5
#: Smokes and cooks that heat.
_HEATED: Final = ("hot_smoke", "stepped_smoke", "pulled")
#: Where a hot smoke is usually pulled (°F inside), until the kitchen's own were read.
PULLED_AT: Final = 150
#: What a change brings has to be seen in the figure: a tenth of a point.
LEAST_CHANGE: Final = 0.001
#: A slope of thickness is shown of so many inches.
THICKNESS_STEP: Final = 0.5


def read_yield_book(kitchen: Kitchen, *, by: By, part: Part) -> out.YieldBookOut:
    """Yields of whole batches by cut and way, or of steps by cut and method, parted by ``part``."""
    sorts = list_batch_sorts(kitchen) if by == "way" else list_step_sorts(kitchen)
    history = read_history(kitchen) if by == "step" else {}
    shown = []
    for sort in sorts:
        beliefs = None
        if by == "step":
            beliefs = believe(sort.way, cut_of_key(sort.cut), history).explain()
        shown.append(_show_sort(sort, kitchen, by=by, part=part, forecast=beliefs))
    steps = sorts if by == "step" else list_step_sorts(kitchen)
    return out.YieldBookOut(
        sorts=shown,
        changes=[
            *_list_pulls(steps, kitchen),
            *(change for sort in sorts for change in _list_changes(sort, kitchen, by=by)),
        ],
        batches=BatchFacts.objects.filter(kitchen=kitchen).count(),
        read_of_each=YIELDS_READ,
    )


def label_sort(sort: Sort, *, by: By) -> str:
    """A sort in words: "jowl skin on · dry rub · cooked", "hot smoke · jowl skin on"."""
    if by == "step":
        return f"{say_method(sort.way)} · {say_cut(sort.cut)}"
    return say_made(sort.cut, sort.way, sort.becomes)


def say_made(cut: str, way: str, becomes: str) -> str:
    """What was made, in words: its cut, the method where one was chosen, and what it became where known."""
    how = " · ".join(filter(None, (way, becomes)))
    return f"{say_cut(cut)} · {how or 'no method chosen'}"


def say_method(key: str) -> str:
    """A method of doing a step in words, one of them."""
    return _METHOD_WORDS.get(key, key.replace("_", " "))


def say_cut(key: str) -> str:
    """The key of a cut in words."""
    return key.replace("skin-", "skin ").replace("bone-", "bone ")


def _show_sort(sort: Sort, kitchen: Kitchen, *, by: By, part: Part, forecast: str | None) -> out.SortOut:
    parts: defaultdict[tuple[float, str], list[Made]] = defaultdict(list)
    unsaid = 0
    for made in sort.made:
        where = (0.0, "") if part == "none" else part_of(made, part, kitchen)
        if where is None:
            unsaid += 1
        else:
            parts[where].append(made)
    ordered = sorted(parts.items(), key=lambda item: item[0])
    return out.SortOut(
        key=f"{sort.cut} {sort.way} {sort.becomes}".strip(),
        label=label_sort(sort, by=by),
        cut=say_cut(sort.cut),
        way=sort.way,
        parts=[_show_part(label, made) for (_, label), made in ordered],
        unsaid=unsaid,
        forecast=forecast,
    )


def _show_part(label: str, made: Sequence[Made]) -> out.YieldPartOut:
    spread = compute_spread([one.kept for one in made])
    prices = [one.per_gram for one in made if one.per_gram is not None]
    return out.YieldPartOut(
        label=label,
        spread=out.YieldSpreadOut(
            batches=spread.count,
            middle=_percent(spread.middle),
            low=_percent_or_none(spread.low),
            high=_percent_or_none(spread.high),
            deviation=_percent_or_none(spread.deviation),
            scale=_percent(spread.scale_deviation),
            own=_percent_or_none(spread.own_deviation),
            price=print_price_of_gram(fsum(prices) / len(prices)) if prices else None,
        ),
        dots=[
            out.YieldDotOut(
                code=one.how.code,
                name=one.how.name,
                at=one.at,
                kept=_percent(one.kept.ratio),
                price=None if one.per_gram is None else print_price_of_gram(one.per_gram),
                is_last=one is made[-1],
            )
            for one in made
        ],
    )


def _percent(ratio: float) -> str:
    return print_percent(Fraction(ratio))


def _percent_or_none(ratio: float | None) -> str | None:
    return None if ratio is None else _percent(ratio)


def _list_changes(sort: Sort, kitchen: Kitchen, *, by: By) -> list[out.ChangeOut]:
    label = label_sort(sort, by=by)
    found = [_compare_parts(sort, label, part, kitchen) for part in _GROUPED]
    found.append(_go_thicker(sort, label, kitchen))
    return [change for change in found if change is not None]


def _compare_parts(sort: Sort, label: str, part: Part, kitchen: Kitchen) -> out.ChangeOut | None:
    """The best of the parts beside the one that has most batches of the others."""
    parts: defaultdict[tuple[float, str], list[float]] = defaultdict(list)
    for made in sort.made:
        where = part_of(made, part, kitchen)
        if where is not None:
            parts[where].append(made.kept.ratio)
    enough = [(word, kept) for (_, word), kept in sorted(parts.items()) if len(kept) > 1]
    if len(enough) < 2:
        return None
    enough.sort(key=lambda item: -fsum(item[1]) / len(item[1]))
    (best, mine), (other, theirs) = enough[0], max(enough[1:], key=lambda item: len(item[1]))
    # the best is picked for being the best: all pairs it could have been are counted
    pairs = len(enough) * (len(enough) - 1) // 2
    difference = compute_difference(mine, theirs)
    if difference is None:
        return None
    is_more = difference.chance * pairs < 0.05
    said = f"{best} rather than {other}: {say_points(difference.middle)} {_more(difference.middle)} kept"
    return out.ChangeOut(
        sort=label,
        said=said if is_more else f"{best} and {other} cannot be told apart yet",
        basis=(
            f"{len(mine)} and {len(theirs)} batches, 8 times out of 10 "
            f"{_signed(difference.low)} to {_signed(difference.high)} points; "
            f"{say_chance(difference.chance * pairs)}"
        ),
        is_more_than_chance=is_more,
    )


def _list_pulls(steps: Sequence[Sort], kitchen: Kitchen) -> list[out.ChangeOut]:
    """What pulling lower brings in each smoke that heats, by what forecasts believe of it."""
    heated = [sort for sort in steps if sort.way in _HEATED]
    cooks = list_own_cooks(kitchen) if heated else []
    found = [_pull_lower(sort, cooks, kitchen) for sort in heated]
    return [change for change in found if change is not None]


def _pull_lower(sort: Sort, cooks: Sequence[OwnCook], kitchen: Kitchen) -> out.ChangeOut | None:
    """Pulled 5 °F lower than usual here; of hot smokes no inside was read of, than usual in the trade."""
    inside = [made.how.inside for made in sort.made if made.how.inside is not None]
    if not inside and sort.way != "hot_smoke":
        return None
    usual = round(fsum(inside) / len(inside) / PULL_STEP) * PULL_STEP if inside else PULLED_AT
    hours = fsum(cook.hours for cook in cooks) / len(cooks) if cooks else HOURS_WITHOUT
    kept = [
        believe_pull(at, hours=hours, method=sort.way, cooks=cooks, at="").ratio
        for at in (usual - PULL_STEP, usual)
    ]
    if kept[0] - kept[1] < LEAST_CHANGE:
        return None
    lower, higher = say_degrees(usual - PULL_STEP, kitchen), say_degrees(usual, kitchen)
    learned = f"corrected by {len(cooks)} of your cooks" if cooks else "none of your cooks has been read yet"
    return out.ChangeOut(
        sort=label_sort(sort, by="step"),
        said=f"Pulled at {lower} rather than {higher}: {say_points(kept[0] - kept[1])} more kept",
        basis=(
            f"start values by inside temperature, {learned}; whether it is cooked through is for the fire's "
            "lethality to say, not for its yield"
        ),
        is_more_than_chance=True,
    )


def _go_thicker(sort: Sort, label: str, kitchen: Kitchen) -> out.ChangeOut | None:
    points = [
        (made.how.thickness / MM_PER_INCH / THICKNESS_STEP, made.kept.ratio)
        for made in sort.made
        if made.how.thickness is not None
    ]
    slope = compute_slope(points)
    if slope is None:
        return None
    step = say_thickness(THICKNESS_STEP, kitchen)
    said = f"{step} thicker: {say_points(slope.middle)} {_more(slope.middle)} kept"
    return out.ChangeOut(
        sort=label,
        said=said
        if slope.is_more_than_chance
        else f"{step} thicker or thinner makes no clear difference yet",
        basis=(
            f"{len(points)} batches, 8 times out of 10 {_signed(slope.low)} to {_signed(slope.high)} points; "
            f"{say_chance(slope.chance)}"
        ),
        is_more_than_chance=slope.is_more_than_chance,
    )


def say_points(ratio: float) -> str:
    """A difference of ratios in points, without its sign."""
    text = fixed(Fraction(abs(ratio) * 100), 1)
    return f"{text} {'point' if text == '1.0' else 'points'}"


def _more(ratio: float) -> str:
    return "less" if ratio < 0 else "more"


def _signed(ratio: float) -> str:
    text = fixed(Fraction(ratio * 100), 1)
    return f"−{text[1:]}" if text.startswith("-") else text


def say_chance(chance: float) -> str:
    """How often chance alone does that, in words."""
    if chance >= 0.5:
        return "chance alone does that more often than not"
    once = round(1 / chance) if chance > 0.001 else 1000
    return f"chance alone does that 1 time in {once}" + (" or less" if once == 1000 else "")
