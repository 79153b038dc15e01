"""A fire as it is now: what the live view shows, all of it computed by the core."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from fractions import Fraction
from math import exp
from typing import Final

from dolmetsch.core.costing.sheet import cost_per_lb
from dolmetsch.core.forecast.yields import RANGE_80, believe
from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.heat.cook_shrink import kept_at
from dolmetsch.core.heat.cooling import Leg
from dolmetsch.core.heat.follow_cook import FollowedCook, follow_cook
from dolmetsch.core.heat.thinning import thin
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.moment import HOUR_SECONDS
from dolmetsch.core.numbers.temperature import (
    TemperatureUnit,
    difference_from_fahrenheit,
    from_fahrenheit,
)
from dolmetsch.core.reference.cook_shrink import COOK_SHRINK, COOK_SHRINK_SOURCE
from dolmetsch.core.reference.heat import (
    CURED_COOLING,
    CURED_COOLING_SOURCE,
    LETHALITY_SOURCE,
    PLAIN_COOLING,
    PLAIN_COOLING_SOURCE,
    CoolingLeg,
)
from dolmetsch.devices.cooker.lines import AIR
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, FirePiece
from dolmetsch.server.fires.story import (
    Placed,
    Story,
    build_log,
    clock_of,
    list_readings,
    moment_of,
    plan_air,
    read_story,
    seconds_of,
    unit_of,
)
from dolmetsch.server.fires.words import describe_event, label_stage
from dolmetsch.server.quantities.printing import print_unit_cost, print_weight

#: Points of a curve that are drawn.
POINTS: Final = 240
EVENTS_SHOWN: Final = 40
#: Steps between the smoke and the sliced pound.
_LATER: Final = ("chill", "slice")
_STATES: Final[dict[str, out.FireState]] = {"rest": "resting", "hold": "holding", "cool": "cooling"}


def read_live(fire: Fire) -> out.LiveOut:
    """The live view of a fire."""
    story = read_story(fire)
    rows = list_readings(story)
    log = build_log(story, rows)
    now = story.done_at or clock_of(fire)
    followed = follow_cook(log, program=plan_air(story, now=now))
    pieces = list(fire.pieces.select_related("batch").order_by("rack", "slot", "id"))
    unit = unit_of(fire.kitchen)
    curves = list(_show_curves(story, followed, unit))
    air = _points(followed, AIR, fire.begun_at, unit)
    inside = followed.inside
    stage = story.stages[-1][0]
    return out.LiveOut(
        id=fire.pk,
        name=fire.name,
        cooker=fire.cooker,
        unit=unit,
        meat=fire.meat,
        wood=fire.wood,
        now=now,
        begun_at=fire.begun_at,
        out_at=story.out_at,
        done_at=story.done_at,
        meal_at=fire.meal_at,
        pull_at=None if fire.pull_at is None else print_degrees(Fraction(fire.pull_at), unit),
        state=_state(story),
        stage=stage,
        stages=list(_show_stages(story, unit)),
        next_stage=_say_next(story, followed, now=now),
        air=_latest(followed, AIR, now, unit),
        air_points=air,
        curves=curves,
        hanging=list(_show_hanging(pieces, story, followed, now, unit)),
        coldest=None if inside is None else print_degrees(inside.fahrenheit, unit),
        coldest_probe=None if inside is None else inside.probe,
        rate_per_hour=_print_rate(followed, unit),
        ready=_show_ready(story, followed),
        lethality=_show_lethality(followed),
        lethality_source=LETHALITY_SOURCE,
        home_rule=None if followed.home_rule is None else followed.home_rule.needs,
        home_met_at=None if followed.home_rule is None else _when(followed.home_rule.met_at),
        cooling=list(_show_cooling(followed)),
        peak=None if followed.peak is None else print_degrees(followed.peak.fahrenheit, unit),
        pulls=list(_show_pulls(fire, pieces, unit, now=now)) if story.out_at is None else [],
        pulls_source=COOK_SHRINK_SOURCE,
        troubles=list(_show_troubles(story, followed)),
        events=list(_show_events(story, unit)),
        notes=list(_list_notes(story, followed)),
        is_raw=_is_raw(story, followed),
        heard_at=moment_of(followed.moments[-1].at) if followed.moments else None,
    )


def _when(seconds: Fraction | None) -> datetime | None:
    return None if seconds is None else moment_of(seconds)


def _print_rate(followed: FollowedCook, unit: TemperatureUnit) -> str | None:
    rate = None if followed.inside is None else followed.inside.rate_per_hour
    return None if rate is None else fixed(difference_from_fahrenheit(rate, unit), 0)


def _show_troubles(story: Story, followed: FollowedCook) -> Iterator[out.TroubleOut]:
    for one in followed.troubles:
        yield out.TroubleOut(
            code=one.code,
            begun_at=moment_of(one.start),
            ended_at=moment_of(one.end),
            probe=one.probe,
            text=one.text,
            is_on=story.done_at is None and one.end >= followed.moments[-1].at,
        )


def _show_events(story: Story, unit: TemperatureUnit) -> Iterator[out.HappenedOut]:
    """What happened, the latest first."""
    for event in reversed(story.events[-EVENTS_SHOWN:]):
        happened = {
            "at": event.at,
            "kind": event.kind,
            "text": describe_event(event, story.fire, unit),
            "by": event.recorded_by.called,
        }
        yield out.HappenedOut.model_validate(happened)


def print_degrees(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    """A temperature in ``unit``, to a whole °F or a tenth of a °C."""
    return fixed(from_fahrenheit(fahrenheit, unit), 0 if unit == "F" else 1)


def _state(story: Story) -> out.FireState:
    if story.done_at is not None:
        return "done"
    return _STATES[story.after[-1][0]] if story.after else "burning"


def _show_stages(story: Story, unit: TemperatureUnit) -> Iterator[out.StageOut]:
    begun = dict(story.stages)
    ends = [*(at for _, at in story.stages[1:]), story.out_at]
    ended = {index: end for (index, _), end in zip(story.stages, ends, strict=True)}
    for index, stage in enumerate(story.fire.stages):
        yield out.StageOut(
            kind=stage["kind"],
            label=label_stage(stage, unit),
            air=_degrees_or_none(stage["air"], unit),
            minutes=stage["minutes"],
            inside=_degrees_or_none(stage["inside"], unit),
            begun_at=begun.get(index),
            ended_at=ended.get(index),
        )


def _degrees_or_none(text: str | None, unit: TemperatureUnit) -> str | None:
    return None if text is None else print_degrees(Fraction(text), unit)


def _say_next(story: Story, followed: FollowedCook, *, now: datetime) -> str | None:
    """When the next stage is due; None where it is the last, or it has no end that can be foreseen."""
    index, begun = story.stages[-1]
    if story.out_at is not None or index + 1 >= len(story.fire.stages):
        return None
    stage, unit = story.fire.stages[index], unit_of(story.fire.kitchen)
    name = label_stage(story.fire.stages[index + 1], unit)
    if stage["minutes"] is not None:
        left = int(Fraction(stage["minutes"]) - Fraction((now - begun).total_seconds()) / 60)
        return f"{name} in {left} min" if left > 0 else f"{name} now: {-left} min over"
    inside = followed.inside
    if stage["inside"] is not None:
        goal = print_degrees(Fraction(stage["inside"]), unit)
        is_there = inside is not None and inside.fahrenheit >= Fraction(stage["inside"])
        return f"{name} now: {goal} °{unit} is reached" if is_there else f"{name} at {goal} °{unit} inside"
    return f"{name} when you say so"


def _latest(followed: FollowedCook, probe: str, now: datetime, unit: TemperatureUnit) -> str | None:
    moment = followed.moments[-1] if followed.moments else None
    value = None if moment is None else moment.value_of(probe)
    if moment is None or value is None or seconds_of(now) - moment.at > STALE_SECONDS:
        return None
    return print_degrees(value, unit)


def _points(
    followed: FollowedCook, probe: str, begun_at: datetime, unit: TemperatureUnit
) -> list[out.Point | None]:
    """A probe's curve, thinned, with a None in each gap."""
    start = seconds_of(begun_at)
    curve = [
        (float(reading.at - start), float(from_fahrenheit(reading.values[probe], unit)))
        for reading in followed.log.readings
        if probe in reading.values
    ]
    points: list[out.Point | None] = []
    before: float | None = None
    for at, value in thin(curve, most=POINTS):
        if before is not None and at - before > STALE_SECONDS:
            points.append(None)
        points.append([round(at), round(value, 1)])
        before = at
    return points


def _show_curves(story: Story, followed: FollowedCook, unit: TemperatureUnit) -> Iterator[out.CurveOut]:
    moment = followed.moments[-1] if followed.moments else None
    for placed in story.placed:
        is_now = story.placed_now(placed.probe) is placed
        value = None if moment is None or not is_now else moment.value_of(placed.id)
        yield out.CurveOut(
            id=placed.id,
            probe=placed.probe,
            piece=placed.piece,
            where=placed.where,
            is_now=is_now,
            now=None if value is None else print_degrees(value, unit),
            points=_points(followed, placed.id, story.fire.begun_at, unit),
        )


def _show_hanging(
    pieces: Sequence[FirePiece], story: Story, followed: FollowedCook, now: datetime, unit: TemperatureUnit
) -> Iterator[out.HangingOut]:
    coldest = None if followed.inside is None else followed.inside.probe
    here: dict[str, list[Placed]] = {}
    for placed in story.placed:
        if story.placed_now(placed.probe) is placed:
            here.setdefault(placed.piece, []).append(placed)
    for piece in pieces:
        # of several probes in one piece the coldest is shown
        probes = sorted(here.get(piece.label, ()), key=lambda one: one.id != coldest)
        placed_in = probes[0] if probes else None
        yield out.HangingOut(
            code=piece.batch.code,
            mark=piece.mark,
            label=piece.label,
            rack=piece.rack,
            slot=piece.slot,
            probe=None if placed_in is None else placed_in.probe,
            where="" if placed_in is None else placed_in.where,
            now=None if placed_in is None else _latest(followed, placed_in.id, now, unit),
            is_coldest=placed_in is not None and placed_in.id == coldest,
        )


def _show_ready(story: Story, followed: FollowedCook) -> out.ReadyOut | None:
    ready = followed.ready
    if ready is None:
        return None
    if ready.span is None:
        return out.ReadyOut(low=None, likely=None, high=None, why=ready.why, left_seconds=None)
    meal = story.fire.meal_at
    return out.ReadyOut(
        low=moment_of(ready.span.low),
        likely=moment_of(ready.span.likely),
        high=moment_of(ready.span.high),
        why=ready.why,
        # by the later end: what is left when it takes long
        left_seconds=None if meal is None else int((meal - moment_of(ready.span.high)).total_seconds()),
    )


def _show_lethality(followed: FollowedCook) -> list[out.ReductionOut]:
    found = followed.lethality
    if found is None:
        return []
    columns = (("6.5 log", found.log6_5, found.met_at_6_5), ("7 log", found.log7, found.met_at_7))
    return [
        out.ReductionOut(
            name=name,
            part=fixed(min(part, Fraction(99)), 2),
            met_at=_when(met_at),
        )
        for name, part, met_at in columns
    ]


def _show_cooling(followed: FollowedCook) -> Iterator[out.LegOut]:
    cooling = followed.cooling
    for rule, legs, table, source in (
        ("plain", cooling.plain, PLAIN_COOLING, PLAIN_COOLING_SOURCE),
        ("cured", cooling.cured, CURED_COOLING, CURED_COOLING_SOURCE),
    ):
        for row in table if legs is not None else ():
            leg = None if legs is None else legs[row.name]
            if leg is not None:
                yield _show_leg(leg, row, rule, source, followed)


def _show_leg(leg: Leg, row: CoolingLeg, rule: str, source: str, followed: FollowedCook) -> out.LegOut:
    unit = followed.log.unit
    label = f"{print_degrees(row.start, unit)} to {print_degrees(row.end, unit)} °{unit}"
    return out.LegOut.model_validate(
        {
            "name": row.name,
            "rule": rule,
            "label": label,
            "state": leg.state,
            "seconds": int(leg.seconds),
            "most_seconds": row.seconds,
            "source": source,
        }
    )


def _show_pulls(
    fire: Fire, pieces: Sequence[FirePiece], unit: TemperatureUnit, *, now: datetime
) -> Iterator[out.PullOut]:
    """What pulling at each mark leaves of the pieces and makes of a sliced pound's price."""
    hours = float((seconds_of(now) - seconds_of(fire.begun_at)) / HOUR_SECONDS)
    history = read_history(fire.kitchen)
    grams = cost = Fraction(0)
    # of each pound that comes out of the fire, what is left sliced, by each batch's own cut
    sliced = 0.0
    for batch, marks in _by_batch(pieces).items():
        costed = cost_batch(batch)
        cut = read_cut(costed.chain.batch.lots[0].cut)
        mine = [piece for piece in costed.sheet.ledger.mains if piece.id in marks]
        weighs = sum((piece.grams for piece in mine), Fraction(0))
        grams += weighs
        cost += sum((piece.cost for piece in mine), Fraction(0))
        sliced += float(weighs) * exp(sum(believe(step, cut, history).log_mean for step in _LATER))
    if not grams:
        return
    plan = None if fire.pull_at is None else float(fire.pull_at)
    marks_f = sorted({mark for mark, _, _ in COOK_SHRINK} | ({plan} if plan is not None else set()))
    for mark in marks_f:
        kept, deviation = kept_at(mark, hours=hours)
        yield out.PullOut(
            inside=print_degrees(Fraction(mark), unit),
            kept=fixed(Fraction(kept) * 100, 0),
            low=fixed(Fraction(kept - RANGE_80 * deviation) * 100, 0),
            high=fixed(Fraction(kept + RANGE_80 * deviation) * 100, 0),
            weight=print_weight(grams * Fraction(kept)),
            price=print_unit_cost(cost_per_lb(cost, Fraction(sliced * kept))),
            is_plan=plan is not None and mark == plan,
        )


def _by_batch(pieces: Sequence[FirePiece]) -> dict[Batch, set[str]]:
    found: dict[Batch, set[str]] = {}
    for piece in pieces:
        found.setdefault(piece.batch, set()).add(piece.mark)
    return found


def _list_notes(story: Story, followed: FollowedCook) -> Iterator[FindingOut]:
    if _is_raw(story, followed):
        yield FindingOut(
            code="raw",
            severity="care",
            message="Raw: cook before eating. It was not heated enough to be cooked.",
            source="common practice",
        )


def _is_raw(story: Story, followed: FollowedCook) -> bool:
    """Whether it was smoked and not cooked: neither a reduction nor the home rule is met."""
    if story.out_at is None:
        return False
    lethality, home = followed.lethality, followed.home_rule
    is_met = lethality is not None and lethality.met_at_6_5 is not None
    return not (is_met or (home is not None and home.met_at is not None))
