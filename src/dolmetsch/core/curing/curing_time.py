"""How long in the cure: each rule of the trade, a window from first to last day, and the salt at the centre.

The rules are common practice. Diffusion: a plane sheet of half-thickness L, held at its surface, reaches at
its centre 1 − (4/π) Σ (−1)ⁿ/(2n+1) · exp(−(2n+1)² π² D t ÷ 4L²) of the surface value (Crank, *The
Mathematics of Diffusion*, 2nd ed., 4.3.2). Skin nearly blocks its side, so L is then the whole thickness.
These are estimates, in floating point.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, exp, log, pi
from typing import Final, Literal, assert_never

from dolmetsch.core.curing.schools import SCHOOLS, SchoolKey
from dolmetsch.core.errors import CureError

MM_PER_INCH: Final = 25.4
#: Of salt in lean meat at 2–4 °C, in m²/s: middle, and the span of the literature.
DIFFUSIVITY: Final = 2.5e-10
DIFFUSIVITY_SPAN: Final = (1e-10, 5e-10)
#: The center counts as cured once it has this part of what the surface has.
CENTRE_RATIO: Final = 0.8
#: Thicker than this is no piece of meat but a slip of the unit.
MAX_THICKNESS_MM: Final = 400
SECONDS_PER_DAY: Final = 86_400
#: Belly stays in a dry cure at least so long.
BELLY_DAYS: Final = 7
#: A day more is begun only where a rule asks for more than this part of it.
_WHOLE: Final = 1e-9
_TERMS: Final = 60
#: Of π²Dt ÷ 4L²: until then less than two in a million has come to the centre.
_TOO_SOON: Final = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """A rule of the trade: so many days, or from ``first`` to ``last``; ``text`` says it in words."""

    key: str
    text: str
    first: float
    last: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Window:
    """From the first to the last day in the cure, counted from the day it goes in."""

    first: int
    last: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Point:
    """What part of the salt outside the centre has after ``days``; ``low``, ``high`` by the span of D."""

    days: float
    middle: float
    low: float
    high: float


@dataclass(frozen=True, slots=True, kw_only=True)
class CuringTime:
    """The rules side by side, the window of the chosen school, and the curve of the center.

    ``planned``: the day to take it out unless the cook picks another: the earliest that all rules which can
    be met in the window call done. ``asks_thickness``: rules by thickness, and the curve, want it measured.
    ``half_metres``: half of it, as diffusion takes it; None: not measured.
    """

    rules: tuple[Rule, ...]
    window: Window
    planned: int
    curve: tuple[Point, ...]
    asks_thickness: bool
    half_metres: float | None


DayState = Literal["early", "inside", "over"]


def judge_day(window: Window, day: int) -> DayState:
    """Where a day lies beside the window: before it, inside it (its ends included), or past it."""
    if day < window.first:
        return "early"
    return "over" if day > window.last else "inside"


def plan_time(
    school: SchoolKey, *, pounds: float, thickness_mm: float | None, skin_on: bool, is_belly: bool
) -> CuringTime:
    """How long a piece stays in the cure.

    Args:
        school: whose window counts.
        pounds: weight of the piece.
        thickness_mm: at its thickest; None: not measured, so that no rule by thickness can be given.
        skin_on: skin on one side.
        is_belly: at least a week by the rule of thickness.

    Raises:
        CureError: a thickness of nothing, or of no piece of meat.
    """
    if thickness_mm is not None and not 0 < thickness_mm <= MAX_THICKNESS_MM:
        raise CureError("thickness", "measure it at its thickest: above nothing, and under 16 inches")
    # the needle brings the cure inside, so its way in from the surface says nothing
    # nor where it is mixed through
    has_no_way_in = "pump" in SCHOOLS[school].method or SCHOOLS[school].time == "mixed"
    spread_mm = None if has_no_way_in else thickness_mm
    rules = _rules(school, pounds=pounds, thickness_mm=spread_mm, skin_on=skin_on, is_belly=is_belly)
    window = _window(school, {rule.key: rule for rule in rules}, is_belly=is_belly)
    curve = () if spread_mm is None else draw_centre(spread_mm, skin_on=skin_on, days=window.last + 3)
    # a rule that calls it done only past the window is not the one this school goes by
    done = max((rule.first for rule in rules if rule.first <= window.last), default=0.0)
    return CuringTime(
        rules=tuple(rules),
        window=window,
        planned=max(ceil(done - _WHOLE), window.first),
        curve=curve,
        asks_thickness=thickness_mm is None and not has_no_way_in,
        half_metres=None if spread_mm is None else _half(spread_mm, skin_on=skin_on),
    )


def _rules(
    school: SchoolKey, *, pounds: float, thickness_mm: float | None, skin_on: bool, is_belly: bool
) -> list[Rule]:
    rules: list[Rule] = []
    time = SCHOOLS[school].time
    match time:
        case "size" | "pound" | "box":
            if thickness_mm is not None:
                days = 7 * thickness_mm / MM_PER_INCH
                days = max(days, BELLY_DAYS) if is_belly else days
                rules.append(Rule(key="inch", text="a week per inch", first=days, last=2 * days))
            elif is_belly:
                text = "at least a week for belly"
                rules.append(Rule(key="belly", text=text, first=BELLY_DAYS, last=2 * BELLY_DAYS))
            weeks = 7 if pounds > 5 else 0
            text = "two days per pound and a week" if weeks else "two days per pound"
            rules.append(Rule(key="pound", text=text, first=2 * pounds + weeks, last=2 * pounds + weeks))
            if time == "box":
                rules.append(
                    Rule(key="box", text="a day per pound and one", first=pounds + 1, last=pounds + 1)
                )
        case "brine":
            low, high = min(max(3.5 * pounds, 5), 14), min(max(4 * pounds, 5), 21)
            rules.append(Rule(key="brine", text="3½ to 4 days per pound, 5 to 21", first=low, last=high))
        case "mixed":
            rules.append(Rule(key="mixed", text="mixed through: a night to bind", first=0.5, last=2))
        case "cover":
            rules.append(Rule(key="cover", text="injected and covered", first=4, last=7))
        case "injected":
            text = "12 to 24 hours of rest, then a day or two"
            rules.append(Rule(key="injected", text=text, first=1.5, last=3))
        case _:
            # another school's days are no default: too few of them leave the center raw
            assert_never(time)
    if thickness_mm is not None:
        days = days_to_centre(thickness_mm, skin_on=skin_on)
        rules.append(Rule(key="diffusion", text="by diffusion", first=days, last=days))
    return rules


def _window(school: SchoolKey, rules: dict[str, Rule], *, is_belly: bool) -> Window:
    by_size = rules.get("inch") or rules.get("belly")
    time = SCHOOLS[school].time
    if time == "size":
        rule = rules.get("inch") or rules["pound"]
        least = max(rule.first, by_size.first if by_size else 0.0)
        return _whole(least, max(rule.last, least + 2))
    if time in ("pound", "box"):
        own = rules[time]
        other = by_size or own
        least = max(min(own.first, other.first), BELLY_DAYS if is_belly else 0)
        return _whole(least, max(own.first, other.first))
    rule = rules[time]
    return _whole(rule.first, rule.last)


def _whole(first: float, last: float) -> Window:
    """Whole days: not before the first is reached, and at least a day wide."""
    begin = max(1, ceil(first - _WHOLE))
    return Window(first=begin, last=max(begin + 1, round(last)))


def _half(thickness_mm: float, *, skin_on: bool) -> float:
    """L in metres."""
    return thickness_mm / 1000 / (1 if skin_on else 2)


def centre_ratio(days: float, *, half_metres: float, diffusivity: float = DIFFUSIVITY) -> float:
    """What part of the surface's salt the centre has after ``days``: 0–1."""
    if days <= 0:
        return 0.0
    rate = pi * pi * diffusivity * days * SECONDS_PER_DAY / (4 * half_metres**2)
    if rate < _TOO_SOON:
        # the series would still be all rounding
        return 0.0
    series = sum((-1) ** n / (2 * n + 1) * exp(-((2 * n + 1) ** 2) * rate) for n in range(_TERMS))
    return min(1.0, max(0.0, 1.0 - 4 / pi * float(series)))


def days_to_centre(
    thickness_mm: float, *, skin_on: bool, ratio: float = CENTRE_RATIO, diffusivity: float = DIFFUSIVITY
) -> float:
    """Days until the centre has ``ratio`` of the surface's salt, by the first term, true at long times."""
    half = _half(thickness_mm, skin_on=skin_on)
    seconds = 4 * half**2 / (pi * pi * diffusivity) * log(4 / pi / (1 - ratio))
    return seconds / SECONDS_PER_DAY


def draw_centre(thickness_mm: float, *, skin_on: bool, days: int) -> tuple[Point, ...]:
    """The curve of the centre, twice a day for up to so many ``days`` (four a day where few)."""
    half = _half(thickness_mm, skin_on=skin_on)
    count = min(120, max(24, 2 * days))
    slow, fast = DIFFUSIVITY_SPAN

    def at(day: float) -> Point:
        return Point(
            days=day,
            middle=centre_ratio(day, half_metres=half),
            low=centre_ratio(day, half_metres=half, diffusivity=slow),
            high=centre_ratio(day, half_metres=half, diffusivity=fast),
        )

    return tuple(at(days * index / count) for index in range(count + 1))


def centre_on(time: CuringTime, day: float) -> float | None:
    """What part of the salt outside the center has on ``day``; None without a thickness."""
    return None if time.half_metres is None else centre_ratio(day, half_metres=time.half_metres)


def say_rules(rules: Sequence[Rule]) -> list[str]:
    """Each rule with its days, in words: "A week per inch: 11 days"."""
    lines = []
    for rule in rules:
        first, last = round(rule.first * 2) / 2, round(rule.last * 2) / 2
        span = f"{first:g}" if first == last else f"{first:g} to {last:g}"
        lines.append(f"{rule.text[:1].upper()}{rule.text[1:]}: {span} day{'' if span == '1' else 's'}")
    return lines
