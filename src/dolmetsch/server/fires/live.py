"""A fire as it is now: what the live view shows, all of it computed by the core."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.cook_log import STALE_SECONDS
from dolmetsch.core.heat.cooling import Leg
from dolmetsch.core.heat.follow_cook import FollowedCook
from dolmetsch.core.heat.inside import InsideNow, PieceReading, read_pieces
from dolmetsch.core.heat.moments import INSTANT, list_inside
from dolmetsch.core.heat.raw import raw_finding
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.span import REACHED
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
from dolmetsch.server.batches.entries.course import find_course_of
from dolmetsch.server.batches.forecast.forecasting import Ahead, look_ahead
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.alarms import list_alarms
from dolmetsch.server.fires.cooked import is_cooked
from dolmetsch.server.fires.followed import FollowedFire, is_on, list_troubles
from dolmetsch.server.fires.models import Fire, FirePiece
from dolmetsch.server.fires.of_batch import (
    believe_at,
    course_by_fire,
    hours_in,
    is_cold,
    list_own_cooks,
    step_kind,
)
from dolmetsch.server.fires.story import (
    Placed,
    Story,
    moment_of,
    pull_at_of,
    seconds_of,
    unit_of,
)
from dolmetsch.server.fires.tender import show_tender
from dolmetsch.server.fires.words import describe_event, label_stage, say_next
from dolmetsch.server.quantities.printing import print_price_of_gram, print_weight
from dolmetsch.server.quantities.temperatures import print_degrees

EVENTS_SHOWN: Final = 40
_STATES: Final[dict[str, out.FireState]] = {"rest": "resting", "hold": "holding", "cool": "cooling"}


def read_live(followed: FollowedFire) -> out.LiveOut:
    """The live view of a fire."""
    fire = followed.story.fire
    pieces = list(fire.pieces.select_related("batch").order_by("rack", "slot", "id"))
    ready = followed.cook.ready
    never = followed.lost is not None and ready is not None and ready.span is None
    can_pull = followed.story.out_at is None and not is_cold(fire) and not never
    pulls = _show_pulls(fire, pieces, unit_of(fire.kitchen), now=followed.now) if can_pull else ()
    return show_live(followed, pieces, pulls=list(pulls), tender=show_tender(followed.story, followed.cook))


def show_live(
    fire_followed: FollowedFire,
    pieces: Sequence[FirePiece],
    *,
    pulls: list[out.PullOut],
    tender: out.TenderOut | None,
) -> out.LiveOut:
    """The live view of a fire that was followed."""
    story, followed, now = fire_followed.story, fire_followed.cook, fire_followed.now
    fire = story.fire
    unit = unit_of(fire.kitchen)
    curves = list(_show_curves(fire_followed, unit))
    inside = followed.inside
    stage = story.stages[-1][0]
    return out.LiveOut(
        id=fire.pk,
        name=fire.name,
        cooker=fire.cooker,
        unit=unit,
        meat=fire.meat,
        wood=fire.wood,
        program=fire.program,
        now=now,
        begun_at=fire.begun_at,
        out_at=story.out_at,
        done_at=story.done_at,
        meal_at=fire.meal_at,
        pull_at=None if fire.pull_at is None else print_degrees(Fraction(fire.pull_at), unit),
        state=_state(story),
        stage=stage,
        stages=list(_show_stages(story, unit)),
        next_stage=say_next(story, followed, now=now),
        air=_latest(followed, AIR, now, unit),
        air_points=fire_followed.curves.get(AIR, []),
        curves=curves,
        by_hand=list(_show_by_hand(story, followed, unit)),
        hanging=list(_show_hanging(pieces, story, followed, now, unit)),
        coldest=None if inside is None else print_degrees(inside.fahrenheit, unit),
        coldest_probe=None if inside is None else inside.probe,
        unread=[] if inside is None else list(inside.unread),
        cooked_by=_say_decided(followed),
        rate_per_hour=_print_rate(followed, unit),
        ready=_show_ready(fire_followed),
        tender=tender,
        lethality=_show_lethality(followed),
        lethality_source=LETHALITY_SOURCE,
        home_rule=None if followed.home_rule is None else followed.home_rule.needs,
        home_met_at=None if followed.home_rule is None else _when(followed.home_rule.met_at),
        cooling=list(_show_cooling(followed)),
        peak=None if followed.peak is None else print_degrees(followed.peak.fahrenheit, unit),
        pulls=pulls,
        pulls_source=COOK_SHRINK_SOURCE,
        troubles=list(_show_troubles(story, followed)),
        alarms=list_alarms(fire_followed),
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
    for one in list_troubles(followed):
        yield out.TroubleOut(
            code=one.code,
            begun_at=moment_of(one.start),
            ended_at=moment_of(one.end),
            probe=one.probe,
            text=one.text,
            is_on=story.done_at is None and is_on(one, followed),
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


def _latest(followed: FollowedCook, probe: str, now: datetime, unit: TemperatureUnit) -> str | None:
    moment = followed.moments[-1] if followed.moments else None
    value = None if moment is None else moment.value_of(probe)
    if moment is None or value is None or seconds_of(now) - moment.at > STALE_SECONDS:
        return None
    return print_degrees(value, unit)


def _show_curves(fire: FollowedFire, unit: TemperatureUnit) -> Iterator[out.CurveOut]:
    story, followed = fire.story, fire.cook
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
            points=fire.curves.get(placed.id, []),
        )


def _show_hanging(
    pieces: Sequence[FirePiece], story: Story, followed: FollowedCook, now: datetime, unit: TemperatureUnit
) -> Iterator[out.HangingOut]:
    inside = followed.inside
    readings = read_pieces(followed.log, now=seconds_of(now))
    here: dict[str, list[Placed]] = {}
    for placed in story.placed:
        if story.placed_now(placed.probe) is placed:
            here.setdefault(placed.piece, []).append(placed)
    for piece in pieces:
        reading = readings.get(piece.label)
        # of several probes in one piece the one that decides is shown
        probes = sorted(here.get(piece.label, ()), key=lambda one: reading is None or one.id != reading.probe)
        placed_in = probes[0] if probes else None
        yield out.HangingOut(
            code=piece.batch.code,
            mark=piece.mark,
            label=piece.label,
            rack=piece.rack,
            slot=piece.slot,
            probe=None if placed_in is None else placed_in.probe,
            where=reading.where if reading else placed_in.where if placed_in else "",
            now=None if reading is None else print_degrees(reading.fahrenheit, unit),
            read_at=None if reading is None else moment_of(reading.at),
            is_by_hand=reading is not None and reading.probe == INSTANT,
            is_unread=reading is None or reading.is_unread,
            is_coldest=_is_coldest(reading, inside),
            step_kind=step_kind(story.fire, piece.batch),
        )


def _is_coldest(reading: PieceReading | None, inside: InsideNow | None) -> bool:
    if reading is None or inside is None or reading.is_unread:
        return False
    return (reading.probe, reading.fahrenheit) == (inside.probe, inside.fahrenheit)


def _say_decided(followed: FollowedCook) -> str:
    """What decided whether it is cooked: the coldest when it was, else the coldest now."""
    lethality, rule = followed.lethality, followed.home_rule
    met = [lethality.met_at_6_5 if lethality else None, rule.met_at if rule else None]
    times = [at for at in met if at is not None]
    inside = list_inside(followed.moments)
    if not inside:
        return ""
    decided = next((one for one in inside if times and one.at >= min(times)), inside[-1])
    if decided.probe == INSTANT:
        return "a reading by hand"
    piece = next((one.piece for one in followed.log.inside if one.id == decided.probe), "")
    return f"probe {decided.probe}{f' in {piece}' if piece else ''}"


def _show_by_hand(story: Story, followed: FollowedCook, unit: TemperatureUnit) -> Iterator[out.HandPointOut]:
    start = seconds_of(story.fire.begun_at)
    for one in followed.log.instant:
        yield out.HandPointOut(
            piece=one.piece,
            where=one.where,
            seconds=int(one.at - start),
            degrees=round(float(from_fahrenheit(one.fahrenheit, unit)), 1),
        )


def _show_ready(fire: FollowedFire) -> out.ReadyOut | None:
    story, ready = fire.story, fire.cook.ready
    if ready is None:
        return None
    lost = fire.lost
    back = None if lost is None or lost.if_back is None else lost.if_back.span
    returned: dict[str, datetime | None] = {
        "back_low": None if back is None else moment_of(back.low),
        "back_high": None if back is None else moment_of(back.high),
    }
    if ready.span is None:
        why = ready.why
        if lost is not None:
            unit = unit_of(story.fire.kitchen)
            why = (
                f"it will not get there at this fire: the air is at {print_degrees(lost.air, unit)} °{unit}, "
                f"the stage asks for {print_degrees(lost.asked, unit)}"
            )
        return out.ReadyOut(low=None, likely=None, high=None, why=why, left_seconds=None, **returned)
    if ready.why != REACHED and moment_of(ready.span.high) < fire.now:
        why = "it was expected there by now, and was not read since: read it again"
        return out.ReadyOut(low=None, likely=None, high=None, why=why, left_seconds=None, **returned)
    meal = story.fire.meal_at
    return out.ReadyOut(
        low=moment_of(ready.span.low),
        likely=moment_of(ready.span.likely),
        high=moment_of(ready.span.high),
        why=ready.why,
        # by the later end: what is left when it takes long
        left_seconds=None if meal is None else int((meal - moment_of(ready.span.high)).total_seconds()),
        **returned,
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
    """What pulling at each mark leaves of the pieces, and makes of the forecast of their batches."""
    hours = hours_in(fire, now)
    history, cooks = read_history(fire.kitchen), list_own_cooks(fire.kitchen)
    grams = Fraction(0)
    ahead: dict[Batch, Ahead | None] = {}
    for batch, marks in _by_batch(pieces).items():
        batch.kitchen = fire.kitchen
        costed = cost_batch(batch)
        known = find_course_of(batch, costed)
        ahead[batch] = look_ahead(batch, costed, known or course_by_fire(fire))
        mine = [piece for piece in costed.sheet.ledger.mains if piece.id in marks]
        grams += sum((piece.grams for piece in mine), Fraction(0))
    if not grams:
        return
    plan = pull_at_of(fire)
    marks_f = sorted({Fraction(mark) for mark, _, _ in COOK_SHRINK} | ({plan} if plan is not None else set()))
    for mark in marks_f:
        cost = sliced = 0.0
        for batch, coming in ahead.items():
            belief = believe_at(fire, mark, batch, hours=hours, cooks=cooks)
            if coming is not None:
                outlook = coming.carry(history, {step_kind(fire, batch): belief})
                cost += outlook.cost
                sliced += outlook.grams.middle
        yield out.PullOut(
            inside=print_degrees(mark, unit),
            kept=fixed(Fraction(belief.ratio) * 100, 0),
            low=fixed(Fraction(belief.low) * 100, 0),
            high=fixed(Fraction(belief.high) * 100, 0),
            weight=print_weight(grams * Fraction(belief.ratio)),
            price=print_price_of_gram(cost / sliced) if sliced else None,
            is_plan=mark == plan,
        )


def _by_batch(pieces: Sequence[FirePiece]) -> dict[Batch, set[str]]:
    found: dict[Batch, set[str]] = {}
    for piece in pieces:
        found.setdefault(piece.batch, set()).add(piece.mark)
    return found


def _list_notes(story: Story, followed: FollowedCook) -> Iterator[FindingOut]:
    if _is_raw(story, followed):
        yield FindingOut.model_validate(raw_finding())


def _is_raw(story: Story, followed: FollowedCook) -> bool:
    """Whether it came out of the fire and was not cooked in it."""
    return story.out_at is not None and not is_cooked(followed.lethality, followed.home_rule)
