"""The days in between: what is done with a piece from the cure to the smoke, and when.

Times are told, never read from a clock. How long things take is common practice: uncovered in the fridge
1 to 24 hours until tacky, soaked 20 to 60 minutes.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final, Literal

from dolmetsch.core.curing_time import Window

ActKind = Literal[
    "turn", "check", "spice", "out", "rinse", "taste", "soak", "dry", "reseason", "smoke", "weigh", "other"
]
#: What each act is called.
ACT_WORDS: Final[dict[ActKind, str]] = {
    "turn": "Turn and rub",
    "check": "Feel how firm it is",
    "spice": "Wipe off, rub with the spices",
    "out": "Out of the cure",
    "rinse": "Rinse",
    "taste": "Taste: fry a sliver",
    "soak": "Soak in cold water",
    "dry": "Dry uncovered in the fridge",
    "reseason": "Re-season, no salt",
    "smoke": "Into the smoke",
    "weigh": "Weigh",
    "other": "To do",
}
#: An act without a window counts as late so long after it is due.
GRACE: Final = timedelta(hours=12)
SOAK_MINUTES: Final = (20, 60)
Taste = Literal["salty", "right", "flat"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Act:
    """Something to do: from ``due``, late after ``until``; ``minutes`` it takes where that is known."""

    kind: ActKind
    due: datetime
    until: datetime
    minutes: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Wishes:
    """How the cook wants the days: turned every so many days (0: never), out on which day, dried how long.

    ``spice_day``: the day the second stage goes on; None: one stage.
    """

    turn_days: int
    out_day: int
    dry_hours: int
    soak_minutes: int | None = None
    reseason: bool = False
    spice_day: int | None = None


def plan_days(put_in: datetime, window: Window, wishes: Wishes) -> list[Act]:
    """The acts from the cure to the smoke, in the order of their days."""
    acts = [*_in_the_cure(put_in, window, wishes), *_after_it(put_in, wishes)]
    return sorted(acts, key=lambda act: act.due)


def _in_the_cure(put_in: datetime, window: Window, wishes: Wishes) -> Iterator[Act]:
    def on(day: int) -> datetime:
        return put_in + timedelta(days=day)

    if wishes.turn_days:
        for day in range(wishes.turn_days, wishes.out_day, wishes.turn_days):
            yield act_at("turn", on(day))
    if wishes.spice_day is not None:
        yield act_at("spice", on(wishes.spice_day))
    if window.first < wishes.out_day:
        yield act_at("check", on(window.first))
    out = on(wishes.out_day)
    yield Act(kind="out", due=out, until=max(out + GRACE, on(window.last)))


def _after_it(put_in: datetime, wishes: Wishes) -> Iterator[Act]:
    out = put_in + timedelta(days=wishes.out_day)
    at = out + timedelta(minutes=10)
    yield act_at("rinse", at)
    at += timedelta(minutes=15)
    yield act_at("taste", at)
    if wishes.soak_minutes:
        yield act_at("soak", at, minutes=wishes.soak_minutes)
        at += timedelta(minutes=wishes.soak_minutes)
        yield act_at("taste", at)
    at += timedelta(minutes=15)
    if wishes.reseason:
        yield act_at("reseason", at)
    yield act_at("dry", at, minutes=wishes.dry_hours * 60)
    yield act_at("smoke", at + timedelta(hours=wishes.dry_hours))


def act_at(kind: ActKind, due: datetime, *, minutes: int | None = None) -> Act:
    """An act due at a moment, late half a day after it."""
    return Act(kind=kind, due=due, until=due + GRACE, minutes=minutes)


def follow_taste(taste: Taste, *, tasted: datetime, soak_minutes: int) -> list[Act]:
    """What a tasting asks for: a soak and another tasting where it was too salty, else nothing more."""
    if taste != "salty":
        return []
    soak = act_at("soak", tasted, minutes=soak_minutes)
    return [soak, act_at("taste", tasted + timedelta(minutes=soak_minutes))]
