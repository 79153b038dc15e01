"""Fires from the side of a batch: which step a fire is, whether it cooked it, each piece's share."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.forecast.pull import believe_pull
from dolmetsch.core.forecast.way import find_method
from dolmetsch.core.forecast.yields import Belief
from dolmetsch.core.heat.cook_shrink import OwnCook
from dolmetsch.core.heat.program_course import course_of_program, fits_course, is_cold_program
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.ledger.strands import Heated
from dolmetsch.core.numbers.exact import apportion
from dolmetsch.core.numbers.moment import HOUR_SECONDS
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import kinds_of, methods_of
from dolmetsch.server.batches.models import Batch, Entry, StepYield
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.fires import schemas as out
from dolmetsch.server.fires.models import Fire, FireEvent, FirePiece
from dolmetsch.server.fires.story import OUT_KINDS, clock_of, pull_at_of, unit_of
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.lengths import WORD_LENGTH
from dolmetsch.server.quantities.temperatures import print_degrees

#: Stages that make a fire a smoke; without one it is a cook.
_SMOKES: Final = frozenset({"cold_smoke", "smoke"})
#: Methods by which the shrink of a fire that heats is kept.
_METHODS: Final = ("hot_smoke", "stepped_smoke", "pulled")
#: So many of the latest cooks are learned from.
_COOKS_READ: Final = 60


class KnownFires:
    """What fires know of a batch (``FireFacts``)."""

    def look_up(self, batches: Sequence[Batch]) -> None:
        """The latest fire of each, in one query."""
        pieces = FirePiece.objects.filter(batch__in=batches).select_related("fire").order_by("fire_id")
        latest = {piece.batch_id: piece.fire for piece in pieces}
        for batch in batches:
            _keep_latest(batch, latest.get(batch.pk))

    def cooked(self, batch: Batch) -> Mapping[str, bool]:
        """By kind of step: whether every fire of that kind the batch was in heated it enough."""
        found: dict[str, bool] = {}
        for kind, data in _list_out(batch):
            found[kind] = found.get(kind, True) and bool(data.get("cooked"))
        return found

    def inside(self, batch: Batch) -> Mapping[str, Fraction]:
        """By kind of step: the highest the coldest inside (°F) came to, of what was read."""
        found: dict[str, Fraction] = {}
        for kind, data in _list_out(batch):
            if (peak := data.get("peak")) is not None:
                found[kind] = max(found.get(kind, Fraction(peak)), Fraction(peak))
        return found

    def methods(self, batch: Batch) -> Mapping[str, str]:
        """A cold smoke is one, whatever the batch's method says; hot ones go by that."""
        fire = latest_fire(batch)
        return {} if fire is None or not is_cold(fire) else {step_kind(fire, batch): "cold_smoke"}

    def expected(self, batch: Batch, course: Course | None) -> Mapping[str, Belief]:
        """What the latest fire keeps: pulled as planned, or as it was once it is out. Not of a cold one: what
        that keeps has nothing to do with a temperature inside.
        """
        fire = latest_fire(batch)
        if fire is None or is_cold(fire) or (course is not None and not leads_to(fire, course)):
            return {}
        last = fire.events.filter(kind__in=OUT_KINDS).order_by("at", "id").first()
        peak = fire.pull_at if last is None else last.data.get("peak")
        if peak is None:
            return {}
        end = clock_of(fire) if last is None else last.at
        kind = step_kind(fire, batch)
        return {
            kind: believe_at(
                fire, Fraction(peak), batch, hours=hours_in(fire, end), cooks=list_own_cooks(batch.kitchen)
            )
        }


def latest_fire(batch: Batch) -> Fire | None:
    """The fire ``batch`` was put into last; looked up once for each object."""
    if batch._state.adding:
        return None
    kept = batch.__dict__
    if "latest_fire" not in kept:
        piece = FirePiece.objects.filter(batch=batch).select_related("fire").order_by("-fire_id").first()
        _keep_latest(batch, None if piece is None else piece.fire)
    found: Fire | None = kept["latest_fire"]
    return found


def _keep_latest(batch: Batch, fire: Fire | None) -> None:
    batch.__dict__["latest_fire"] = fire
    if fire is not None:
        fire.kitchen = batch.kitchen


def is_cold(fire: Fire) -> bool:
    """Whether it is a cold smoke, with no stage that heats."""
    return is_cold_program(kinds_of_stages(fire.stages))


def kinds_of_stages(stages: Iterable[Mapping[str, Any]]) -> set[str]:
    """The kinds of a program's stages."""
    return {stage["kind"] for stage in stages}


def course_by_fire(fire: Fire) -> Course | None:
    """What its program makes of the meat; None where that does not tell."""
    return course_of_program(kinds_of_stages(fire.stages), pull_at_of(fire))


def leads_to(fire: Fire, course: Course) -> bool:
    """Whether its program leads to what the meat is to become."""
    return fits_course(kinds_of_stages(fire.stages), pull_at_of(fire), course)


def _list_out(batch: Batch) -> Iterator[tuple[str, Mapping[str, Any]]]:
    """Of each fire ``batch`` came out of: the kind of step it was, and what was kept of it last."""
    if batch._state.adding:
        return
    fires = FirePiece.objects.filter(batch=batch).values("fire")
    events = FireEvent.objects.filter(fire__in=fires, kind__in=OUT_KINDS)
    latest = {event.fire_id: event for event in events.select_related("fire").order_by("at", "id")}
    for event in latest.values():
        yield step_kind(event.fire, batch), event.data


def list_fires_of(batch: Batch) -> list[tuple[Fire, list[str]]]:
    """The fires ``batch`` was in, in order, with the marks of its pieces in each."""
    found: dict[int, tuple[Fire, list[str]]] = {}
    pieces = FirePiece.objects.filter(batch=batch).select_related("fire__recorded_by")
    for piece in pieces.order_by("fire_id", "id"):
        found.setdefault(piece.fire_id, (piece.fire, []))[1].append(piece.mark)
    return list(found.values())


def step_kind(fire: Fire, batch: Batch) -> str:
    """The kind of step the fire is for ``batch``: a smoke, or a cook where nothing is smoked.

    A method that has one of both alone decides.
    """
    kind = "smoke" if any(stage["kind"] in _SMOKES for stage in fire.stages) else "cook"
    chosen = batch.chosen_way
    mine = {"smoke", "cook"} & set(kinds_of(chosen)) if chosen is not None else set()
    return mine.pop() if len(mine) == 1 else kind


def hours_in(fire: Fire, end: datetime) -> float:
    """Hours from its beginning to ``end``."""
    return max(0.0, (end - fire.begun_at).total_seconds() / HOUR_SECONDS)


def believe_at(
    fire: Fire, fahrenheit: Fraction, batch: Batch, *, hours: float, cooks: Sequence[OwnCook]
) -> Belief:
    """What pulling at ``fahrenheit`` after ``hours`` keeps."""
    unit = unit_of(batch.kitchen)
    kind = step_kind(fire, batch)
    heated = Heated(kind=kind, heat="hot", inside_fahrenheit=fahrenheit)
    return believe_pull(
        float(fahrenheit),
        hours=hours,
        method=find_method(kind, methods=methods_of(batch), heated=heated) or "hot_smoke",
        cooks=cooks,
        at=f"{print_degrees(fahrenheit, unit)} °{unit} inside",
    )


def list_own_cooks(kitchen: Kitchen) -> list[OwnCook]:
    """The latest finished cooks whose peak was read, with what they kept; batches that were in one fire."""
    done = FireEvent.objects.filter(kitchen=kitchen, kind="done", data__peak__isnull=False)
    latest = {event.fire_id: event for event in done.select_related("fire").order_by("-id")[:_COOKS_READ]}
    if not latest:
        return []
    fires: dict[int, set[int]] = {}
    batches = FirePiece.objects.filter(fire__in=latest).values("batch")
    for batch, fire in FirePiece.objects.filter(batch__in=batches).values_list("batch", "fire").distinct():
        fires.setdefault(batch, set()).add(fire)
    alone = {batch: mine.pop() for batch, mine in fires.items() if len(mine) == 1}
    kept = StepYield.objects.filter(batch__in=alone, method__in=_METHODS).values_list("batch", "log_ratio")
    return [
        OwnCook(
            peak=float(latest[alone[batch]].data["peak"]),
            hours=float(latest[alone[batch]].data["hours"]),
            log_ratio=log_ratio,
        )
        for batch, log_ratio in kept
        if alone[batch] in latest
    ]


def read_of_batch(batch: Batch) -> out.BatchFiresOut:
    """The latest fire of each living piece of ``batch``, with its share of fuel and work."""
    costed = cost_batch(batch)
    living = {piece.id for piece in costed.sheet.ledger.mains}
    latest: dict[str, Fire] = {}
    for piece in FirePiece.objects.filter(batch=batch).select_related("fire").order_by("fire_id"):
        latest[piece.mark] = piece.fire
    return out.BatchFiresOut(
        pieces=[
            _show_piece(batch, mark, fire, costed) for mark, fire in sorted(latest.items()) if mark in living
        ]
    )


def _show_piece(batch: Batch, mark: str, fire: Fire, costed: CostedBatch) -> out.PieceFireOut:
    fire.kitchen = batch.kitchen
    events = list(fire.events.order_by("at", "id"))
    came_out = next((event for event in events if event.kind in OUT_KINDS), None)
    shares = share_out(fire, events, batch.label_piece(mark))
    return out.PieceFireOut(
        mark=mark,
        fire=fire.pk,
        name=fire.name,
        kind=step_kind(fire, batch),
        begun_at=fire.begun_at,
        out_at=None if came_out is None else came_out.at,
        is_weighed=came_out is not None and _is_weighed(costed, mark, since=came_out.recorded_at),
        minutes=shares.minutes,
        used=shares.used,
    )


def _is_weighed(costed: CostedBatch, mark: str, *, since: datetime) -> bool:
    return any(
        row.entry.act == Entry.Act.WEIGH
        and row.entry.recorded_at >= since
        and any(line.mark == mark for line in row.weighings)
        for row in costed.chain.current
    )


def share_out(fire: Fire, events: Sequence[FireEvent], label: str) -> out.SharesOut:
    """The share of the piece ``label`` in fuel and minutes, by what it weighed among all of the fire.

    Shares of one line are rounded so that those of all pieces add up to it.
    """
    pieces = list(fire.pieces.select_related("batch").order_by("id"))
    grams = [Fraction(piece.grams or 0) for piece in pieces]
    total = sum(grams, Fraction(0))
    parts = [one / total if total else Fraction(1, len(pieces)) for one in grams]
    index = [piece.label for piece in pieces].index(label)

    def share(whole: Fraction, places: int) -> str:
        return apportion([whole * part for part in parts], places=places)[index]

    many = f", share of {len(pieces)}" if len(pieces) > 1 else ""
    return out.SharesOut(
        used=[
            out.FuelOut(
                what=f"{event.data['text'][: WORD_LENGTH - len(many)].rstrip()}{many}",
                price=share(Fraction(event.data["cost"]), 2),
            )
            for event in events
            if event.kind == "fuel" and event.data.get("cost")
        ],
        minutes=share(sum((Fraction(one.data.get("minutes") or 0) for one in events), Fraction(0)), 0),
    )
