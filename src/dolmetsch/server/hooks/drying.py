"""A hook's rows as the core's drying log, and what the chamber shows of it."""

from collections.abc import Container, Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from dolmetsch.core.costing.sheet import cost_per_lb
from dolmetsch.core.drying.drying_fit import DryingFit
from dolmetsch.core.drying.drying_log import (
    ChamberReading,
    Cut,
    DryingLog,
    Ferment,
    HookWeighing,
    PhReading,
)
from dolmetsch.core.drying.fermentation import Fermentation
from dolmetsch.core.drying.follow_drying import FollowedDrying, follow_drying
from dolmetsch.core.findings import Finding, care, note
from dolmetsch.core.ledger.kinds import FINISHING, method_kind, method_kinds
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.moment import DAY_SECONDS
from dolmetsch.core.numbers.span import REACHED
from dolmetsch.core.reference.drying import FERMENT_SOURCE, RIM_SOURCE
from dolmetsch.core.reference.raw_pork import RAW_PORK, RAW_PORK_SOURCE
from dolmetsch.server.batches.entries.chain import STEP_ACTS, Act, CostedBatch, list_current, list_entry_rows
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.taken import list_pieces_here
from dolmetsch.server.batches.models import Batch, Weighing
from dolmetsch.server.batches.show.queries import cost_batch, get_piece
from dolmetsch.server.findings import show_findings
from dolmetsch.server.fires.story import moment_of, seconds_of, unit_of
from dolmetsch.server.hooks import schemas as out
from dolmetsch.server.hooks.chambers import list_air, list_cell, list_rows
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight
from dolmetsch.server.quantities.temperatures import print_degrees

#: Words of the log by which a piece hangs.
HANG_WORDS: Final = ("hang", "Hang", "dry", "Dry")
#: Of a cut that is recorded in the log as well.
IN_LOG: Final = "entry"
#: Points of the fitted curve that are drawn.
LINE_POINTS: Final = 40


def read_hook(hook: Hook, *, now: datetime) -> out.HookOut:
    """A hanging piece as the chamber shows it."""
    notes = list(hook.notes.order_by("at", "id"))
    down_at = find_down(hook, notes)
    log, hung = build_log(hook, notes), follow_hook(hook)
    followed = follow_drying(log)
    costed = cost_batch(hook.batch)
    weight = log.weighings[-1].grams if log.weighings else Fraction(hook.green_grams)
    # a simulated chamber's clock may be ahead of ours
    latest = max([seconds_of(now), *(one.at for one in log.weighings[-1:])])
    days = float(((latest if down_at is None else seconds_of(down_at)) - log.hung_at) / DAY_SECONDS)
    span = followed.dry.span
    return out.HookOut(
        id=hook.pk,
        code=hook.batch.code,
        mark=hung.mark,
        label=hook.batch.label_piece(hung.mark),
        name=hook.batch.name,
        chamber=hook.chamber,
        cell=hook.cell,
        hung_at=hook.hung_at,
        down_at=down_at,
        day=round(days, 2),
        green=print_weight(Fraction(hook.green_grams)),
        weight=print_weight(weight),
        lost=print_percent(followed.loss_ratio or Fraction(0)),
        target=print_percent(log.target_loss),
        weight_at_target=print_weight(followed.grams_at_target),
        price=_price(hung.mark, costed, weight),
        price_at_target=_price(hung.mark, costed, followed.grams_at_target),
        dots=[_dot(log, one.at, log.loss_at(one)) for one in log.weighings],
        line=list(_draw_line(log, followed.fit, until=days)),
        low=None if span is None else moment_of(span.low),
        likely=None if span is None else moment_of(span.likely),
        high=None if span is None else moment_of(span.high),
        low_day=None if span is None else _day(log, span.low),
        high_day=None if span is None else _day(log, span.high),
        why=followed.dry.why,
        rim=followed.rim,
        ferment=_show_ferment(followed.fermentation, log),
        findings=show_findings(_list_findings(hook, followed)),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Hung:
    """What hangs of a hook by the log: its mark now, what it weighed and was cut since, and when it was cut
    up, combined or thrown away (None: it hangs).
    """

    mark: str
    weighings: Mapping[Fraction, Fraction]
    cuts: tuple[Cut, ...]
    gone_at: datetime | None


def follow_hook(hook: Hook) -> Hung:
    """The piece as it hangs: cut and hung back it is one piece still, under the mark it has since."""
    mark = hook.mark
    weighings: dict[Fraction, Fraction] = {}
    cuts: list[Cut] = []
    for row in list_current(list_entry_rows(hook.batch)):
        entry = row.entry
        # what was weighed as it was hung is its green weight
        if entry.act not in STEP_ACTS or entry.happened_at <= hook.hung_at:
            continue
        at = seconds_of(entry.happened_at)
        if entry.act == Act.WEIGH:
            for line in row.weighings:
                if line.mark == mark:
                    # of two at one time the later recorded
                    weighings[at] = Fraction(line.grams)
        elif mark in (entry.from_mark, *entry.marks):
            rest = [line for line in row.weighings if line.role == Weighing.Role.MAIN]
            if entry.act != Act.SPLIT or len(rest) != 1 or method_kind(entry.kind) in FINISHING:
                return Hung(mark=mark, weighings=weighings, cuts=tuple(cuts), gone_at=entry.happened_at)
            mark, after = rest[0].mark, Fraction(rest[0].grams)
            # what came off unweighed is not told from what dried away
            before = sum((Fraction(line.grams) for line in row.weighings), Fraction(0))
            cuts.append(Cut(at=at, before=before, after=after))
            weighings[at] = after
    return Hung(mark=mark, weighings=weighings, cuts=tuple(cuts), gone_at=None)


def find_down(hook: Hook, notes: Iterable[HookNote]) -> datetime | None:
    """When a piece was taken down: as noted, else when it was sliced, combined or thrown away.

    None: it hangs.
    """
    noted = next((one.at for one in notes if one.kind == "down"), None)
    # under the mark it was hung by it hangs uncut: nearly all do, and their entries need not be read
    if noted is not None or hook.mark in hook.batch.summary["pieces"]:
        return noted
    hung = follow_hook(hook)
    if hung.gone_at is None and hung.mark not in hook.batch.summary["pieces"]:
        return hook.batch.last_entry_at
    return hung.gone_at


def build_log(hook: Hook, notes: list[HookNote]) -> DryingLog:
    """The core's log of a hook: weighings of the batch since it was hung, and what was noted."""
    by_kind: dict[str, list[HookNote]] = {}
    for one in notes:
        by_kind.setdefault(one.kind, []).append(one)
    began = next(iter(by_kind.get("ferment", ())), None)
    scale = hook.batch.kitchen.scale_grams
    down_at = find_down(hook, notes)
    heard = list_rows(hook.batch.kitchen, hook.chamber, since=hook.hung_at, until=down_at)
    hung = follow_hook(hook)
    typed = [HookWeighing(at=at, grams=grams) for at, grams in sorted(hung.weighings.items())]
    noted_cuts = [
        Cut(at=seconds_of(one.at), before=_of(one, "before"), after=_of(one, "after"))
        for one in by_kind.get("cut", ())
        # the others stand in the log
        if IN_LOG not in one.data
    ]
    noted = (
        ChamberReading(
            at=seconds_of(one.at),
            fahrenheit=_or_none(one.data["fahrenheit"]),
            humidity=_or_none(one.data["humidity"]),
        )
        for one in by_kind.get("air", ())
    )
    return DryingLog(
        unit=unit_of(hook.batch.kitchen),
        green=Fraction(hook.green_grams),
        hung_at=seconds_of(hook.hung_at),
        target_loss=Fraction(hook.target_loss),
        weighings=tuple(_join(typed, list_cell(hook, heard))),
        scale_grams=Fraction(1) if scale is None else Fraction(scale),
        cuts=tuple(sorted((*hung.cuts, *noted_cuts), key=lambda one: one.at)),
        chamber=(*noted, *list_air(heard)),
        ph=tuple(PhReading(at=seconds_of(one.at), ph=_of(one, "ph")) for one in by_kind.get("ph", ())),
        ferment=None
        if began is None
        else Ferment(start=seconds_of(began.at), fahrenheit=_of(began, "fahrenheit")),
    )


def _of(note: HookNote, name: str) -> Fraction:
    return Fraction(note.data[name])


def _or_none(text: Any) -> Fraction | None:
    return None if text is None else Fraction(text)


def weight_at(batch: Batch, mark: str, at: datetime) -> tuple[Fraction, str]:
    """What the piece ``mark``, which lives, weighed at a time by the log, in grams and as typed; as it weighs
    now where that does not go back so far.
    """
    weights = [
        (row.entry.happened_at, row.root_sequence, Fraction(line.grams), line.typed)
        for row in list_current(list_entry_rows(batch))
        for line in row.weighings
        if line.mark == mark
    ]
    before = [(grams, typed) for when, _, grams, typed in sorted(weights) if when <= at]
    if before:
        return before[-1]
    grams = get_piece(cost_batch(batch), mark).grams
    return grams, f"{fixed(grams, 2)} g"


def list_loose(kitchen: Kitchen, hung: Container[tuple[int, str]]) -> Iterator[out.LooseOut]:
    """Pieces that hang by the log of their batch, and that the chamber does not follow yet."""
    under_way = Batch.objects.filter(kitchen=kitchen, is_finished=False)
    for batch in under_way.filter(entries__kind__in=HANG_WORDS).distinct().order_by("id"):
        batch.kitchen = kitchen
        for piece in list_pieces_here(batch, cost_batch(batch)):
            kinds = method_kinds(piece.kinds)
            if "dry" not in kinds or kinds & FINISHING or (batch.pk, piece.id) in hung:
                continue
            since = min(
                row.entry.happened_at
                for row in list_current(list_entry_rows(batch))
                if method_kind(row.entry.kind) == "dry"
                and not piece.path.isdisjoint(line.mark for line in row.weighings)
            )
            yield out.LooseOut(
                code=batch.code,
                mark=piece.id,
                label=batch.label_piece(piece.id),
                since=since,
                weight=print_weight(piece.grams),
                course=courses_of(batch, [piece], list_current(list_entry_rows(batch)))[piece.id],
            )


def _join(typed: Iterable[HookWeighing], weighed: Iterable[HookWeighing]) -> list[HookWeighing]:
    """Weighings by hand and by the load cell in order; by hand counts where both are of one time."""
    found = {one.at: one for one in (*weighed, *typed)}
    return [found[at] for at in sorted(found)]


def _price(mark: str, costed: CostedBatch, grams: Fraction) -> Any:
    """What a pound costs where ``grams`` of the piece are left; None where it is in use no longer."""
    piece = next((one for one in costed.sheet.ledger.mains if one.id == mark), None)
    return None if piece is None else print_unit_cost(cost_per_lb(piece.cost, grams))


def _day(log: DryingLog, at: Fraction) -> float:
    return round(float((at - log.hung_at) / DAY_SECONDS), 2)


def _dot(log: DryingLog, at: Fraction, loss: Fraction) -> out.DotOut:
    return out.DotOut(day=_day(log, at), lost=round(float(loss) * 100, 2))


def _draw_line(log: DryingLog, fit: DryingFit | None, *, until: float) -> Iterator[out.DotOut]:
    """The fitted curve from hanging until now."""
    if fit is None:
        return
    for number in range(LINE_POINTS + 1):
        day = until * number / LINE_POINTS
        yield out.DotOut(day=round(day, 2), lost=round((1 - fit.kept_after(day)) * 100, 2))


def _show_ferment(found: Fermentation | None, log: DryingLog) -> out.FermentOut | None:
    if found is None:
        return None
    return out.FermentOut(
        degree_hours=fixed(found.degree_hours, 0),
        limit=fixed(found.limit, 0),
        ph=fixed(log.ph[-1].ph, 1) if log.ph else None,
        reached_at=None if found.ph_reached_at is None else moment_of(found.ph_reached_at),
        state=found.state,
        source=FERMENT_SOURCE,
    )


def _list_findings(hook: Hook, followed: FollowedDrying) -> Iterator[Finding]:
    yield from followed.warnings
    if followed.rim in ("possible", "suspected"):
        word = "suspected" if followed.rim == "suspected" else "possible; note the humidity to tell"
        yield care(
            "rim",
            f"{hook.label} lost less than half of what was expected: a hard rim is {word}."
            " Wipe it, raise the humidity to 75 to 80 %, and weigh again in two days.",
            source=RIM_SOURCE,
        )
    if followed.fermentation is not None and followed.fermentation.state == "failed":
        yield care("ferment", "Too many degree-hours before pH 5.3.", source=FERMENT_SOURCE)
    if followed.dry.why == REACHED:
        yield note(
            "dry", "It has lost its target: that says it is dry, not that it is safe.", source=RAW_PORK_SOURCE
        )
    yield care("raw_pork", RAW_PORK, source=RAW_PORK_SOURCE)


def show_air(notes: list[HookNote], unit: Any) -> list[out.AirOut]:
    """The air as it was noted, of all hooks together."""
    return [
        out.AirOut(
            at=one.at,
            temp=None if one.data["fahrenheit"] is None else print_degrees(_of(one, "fahrenheit"), unit),
            humidity=None if one.data["humidity"] is None else print_percent(_of(one, "humidity")),
        )
        for one in notes
    ]
