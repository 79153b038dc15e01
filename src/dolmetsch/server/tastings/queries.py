"""Reads of trials: the sides beside each other, and what the tasters' scores say."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from fractions import Fraction
from typing import Any, Final

from django.db.models import Count, Max, Prefetch

from dolmetsch.core.costing.strip import Column, label_kind
from dolmetsch.core.costing.strip_of_piece import lay_out_piece
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.statistics.tasting import SCALES, PairResult, Scores, TastingResult, compute_tasting
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.cures.queries import find_salt_in_slice
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.printing import print_percent, print_unit_cost, print_weight
from dolmetsch.server.tastings import schemas as out
from dolmetsch.server.tastings.models import Tasting, TastingSheet, Trial, TrialSide

ALL_SCALES: Final = "all"
AGAIN: Final = "again"
_LABELS: Final = {ALL_SCALES: "All scales together", AGAIN: "Would have again"}
#: Below so many sheets nothing can be more than chance: five tasters of one mind come to 2 in 32.
FEWEST_SHEETS: Final = 6


def get_trial(kitchen: Kitchen, trial_id: int) -> Trial:
    """The trial ``trial_id``.

    Raises:
        DomainError: not_found.
    """
    trial = Trial.objects.filter(kitchen=kitchen, pk=trial_id).select_related("recorded_by").first()
    if trial is None:
        raise not_found("such trial")
    return trial


def list_trials(kitchen: Kitchen, now: datetime) -> out.TrialsOut:
    """All trials, the latest first."""
    trials = (
        Trial.objects.filter(kitchen=kitchen)
        .annotate(sheets=Count("tastings__sheets"), closes_at=Max("tastings__closes_at"))
        .prefetch_related("sides")
        .order_by("-id")
    )
    return out.TrialsOut(
        trials=[
            out.TrialRowOut(
                id=trial.pk,
                name=trial.name,
                begun_at=trial.recorded_at,
                sides=[side.what for side in sorted(trial.sides.all(), key=lambda side: side.letter)],
                sheets=trial.sheets,
                is_open=trial.closes_at is not None and trial.closes_at > now,
            )
            for trial in trials
        ]
    )


def show_trial(trial: Trial, now: datetime) -> out.CureTrialOut:
    """A trial whole, as its batches are now."""
    sides = list(trial.sides.select_related("batch__kitchen").order_by("letter"))
    costed = {side.batch_id: cost_batch(side.batch) for side in sides}
    columns = {side.letter: _columns_of(side, costed[side.batch_id]) for side in sides}
    in_order = Prefetch("sheets", TastingSheet.objects.order_by("id"))
    tastings = list(trial.tastings.order_by("id").prefetch_related(in_order))
    sheets = [sheet for tasting in tastings for sheet in tasting.sheets.all()]
    return out.CureTrialOut(
        id=trial.pk,
        name=trial.name,
        begun_at=trial.recorded_at,
        by=trial.recorded_by.called,
        sides=[_show_side(side, costed[side.batch_id], columns[side.letter]) for side in sides],
        steps=_show_steps([columns[side.letter] for side in sides]),
        tastings=[_show_tasting(tasting, now) for tasting in tastings],
        sheets=len(sheets),
        results=show_results(sheets, {side.letter: side.what for side in sides}) if sheets else [],
    )


def _columns_of(side: TrialSide, costed: CostedBatch) -> Sequence[Column]:
    """The steps of a side; none where its piece has gone into others."""
    if not side.mark:
        return costed.strip.columns
    strip = lay_out_piece(costed.chain.batch, costed.sheet, side.mark)
    return () if strip is None else strip.columns


def _show_side(side: TrialSide, costed: CostedBatch, columns: Sequence[Column]) -> out.SideOut:
    batch = side.batch
    cure = _find_cure(batch, {mark for column in columns for mark in column.pieces}, side.mark)
    last = columns[-1] if columns else None
    ended = max(row.entry.happened_at for row in costed.chain.step_entries or costed.chain.current)
    return out.SideOut(
        letter=side.letter,
        what=side.what,
        batch=batch.code,
        mark=side.mark,
        is_finished=batch.is_finished,
        is_gone=last is None,
        stage="" if last is None else label_kind(last.kind).lower(),
        weight=None if last is None else print_weight(last.grams_out),
        kept=None if last is None else print_percent(last.kept_of_bought_ratio),
        price=None if last is None else print_unit_cost(last.cost_per_lb),
        days=(ended - batch.started_at).days,
        cure=None if cure is None else str(cure.answer.get("school", "")),
        salt=None if cure is None else find_salt_in_slice(cure),
    )


def _find_cure(batch: Batch, marks: set[str], mark: str) -> PieceCure | None:
    """The last cure of a side's pieces, at whatever step they had those names."""
    mine = PieceCure.objects.filter(batch=batch, taken_back=None).order_by("-id")
    return (mine.filter(mark__in=marks) if mark else mine).first()


def _show_steps(sides: Sequence[Sequence[Column]]) -> list[out.StepKeptOut]:
    kinds: dict[str, None] = {}
    for columns in sides:
        kinds |= dict.fromkeys(column.kind for column in columns[1:] if column.kept_of_step_ratio is not None)
    return [
        out.StepKeptOut(
            kind=kind, label=label_kind(kind), kept=[_kept_of(columns, kind) for columns in sides]
        )
        for kind in kinds
    ]


def _kept_of(columns: Sequence[Column], kind: str) -> str | None:
    kept = [
        column.kept_of_step_ratio
        for column in columns[1:]
        if column.kind == kind and column.kept_of_step_ratio is not None
    ]
    whole = Fraction(1)
    for ratio in kept:
        whole *= ratio
    return print_percent(whole) if kept else None


def _show_tasting(tasting: Tasting, now: datetime) -> out.TastingOut:
    return out.TastingOut(
        id=tasting.pk,
        path=f"/taste/{tasting.token}",
        closes_at=tasting.closes_at,
        is_open=tasting.closes_at > now,
        codes=tasting.codes,
        tasters=[sheet.taster or "someone" for sheet in tasting.sheets.all()],
    )


def show_results(sheets: Iterable[TastingSheet], what: Mapping[str, str]) -> list[out.ScaleResultOut]:
    """What sheets say: all scales together, what they would have again, then each scale by itself."""
    sheets = list(sheets)
    tasters: dict[str, list[Scores]] = {
        ALL_SCALES: [_mean_scores(sheet.scores) for sheet in sheets],
        AGAIN: [_again_scores(sheet, list(what)) for sheet in sheets],
        **{
            scale: [{letter: float(mine[scale]) for letter, mine in sheet.scores.items()} for sheet in sheets]
            for scale in SCALES
        },
    }
    return [_show_result(key, compute_tasting(scores), what) for key, scores in tasters.items()]


def _mean_scores(scores: Mapping[str, Mapping[str, Any]]) -> Scores:
    return {letter: sum(mine[scale] for scale in SCALES) / len(SCALES) for letter, mine in scores.items()}


def _again_scores(sheet: TastingSheet, letters: Sequence[str]) -> Scores:
    """1 for the plate chosen; who could not choose gives each the same."""
    if not sheet.again:
        return dict.fromkeys(letters, 1 / len(letters))
    return {letter: float(letter == sheet.again) for letter in letters}


def _show_result(key: str, result: TastingResult, what: Mapping[str, str]) -> out.ScaleResultOut:
    return out.ScaleResultOut(
        key=key,
        label=_LABELS.get(key, key.capitalize()),
        plates=[
            out.PlateScoreOut(
                letter=plate.plate,
                what=what[plate.plate],
                mean=_score(plate.mean),
                low=None if plate.low is None else _score(plate.low),
                high=None if plate.high is None else _score(plate.high),
            )
            for plate in result.plates
        ],
        pairs=[
            out.PairOut(
                first=pair.first,
                second=pair.second,
                ahead=_score(pair.ahead),
                chance=fixed(Fraction(pair.chance), 4),
                is_more_than_chance=pair.is_more_than_chance,
                wins=pair.wins,
                ties=pair.ties,
                losses=pair.losses,
                more=pair.more,
            )
            for pair in result.pairs
        ],
        said=_say_pairs(result.pairs, result.tasters),
    )


def _score(value: float) -> str:
    return fixed(Fraction(value), 2)


def _say_pairs(pairs: Sequence[PairResult], tasters: int) -> list[str]:
    """What is more than chance, and what is not told apart yet, in words."""
    said = [
        f"{pair.first} over {pair.second} is more than chance "
        f"({_say_odds(pair.chance)}; {pair.wins} of {tasters} tasters, {pair.ties} alike)."
        for pair in pairs
        if pair.is_more_than_chance
    ]
    for pair in pairs:
        if pair.is_more_than_chance:
            continue
        both = f"{pair.first} and {pair.second}"
        if tasters < FEWEST_SHEETS:
            said.append(f"{both}: {tasters} tasters are too few to tell anything; it takes six or more.")
        elif pair.more is None:
            said.append(f"{both} cannot be told apart, and more tastings would hardly change that.")
        else:
            many = "one more tasting" if pair.more == 1 else f"about {pair.more} more tastings"
            said.append(f"{both} cannot be told apart yet: {many} would settle a difference like this one.")
    return said


def _say_odds(chance: float) -> str:
    return f"chance alone does that 1 time in {max(round(1 / chance), 1)}"
