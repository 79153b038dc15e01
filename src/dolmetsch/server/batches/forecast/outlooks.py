"""Reads of forecasts, yields and calibration; choosing the way of a batch."""

from collections.abc import Iterator, Mapping
from fractions import Fraction
from statistics import median
from typing import Final, Literal

from django.db.models import Count, Q, QuerySet

from dolmetsch.core.costing.strip import USUAL_KINDS, label_kind
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.scoring import compute_quantile, score_counts
from dolmetsch.core.forecast.yields import believe
from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES, Course
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.meat.cuts import cut_of_key
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.reference.yields import METHODS, START_SOURCE
from dolmetsch.server.batches.entries.chain import CostedBatch, build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.entries.course import find_course_of, find_last_course, group_by_course
from dolmetsch.server.batches.forecast import schemas as out
from dolmetsch.server.batches.forecast.derived import renew
from dolmetsch.server.batches.forecast.forecasting import forecast, keep_forecast
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.batches.models import Batch, BatchWay, Forecast, ForecastScore
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_money, print_percent, print_price_of_gram, print_weight
from dolmetsch.server.quantities.schemas import Weight
from dolmetsch.server.ways.queries import get_way
from dolmetsch.server.writing.once import Write, once

#: What a batch whose course nobody said may become; what ferments is a sausage, which is said as it is mixed.
_LISTED: Final = tuple(course for course in COURSES if course != "fermented_dried")
#: So many scored forecasts are shown one by one; all are counted.
SCORED_SHOWN: Final = 60


def read_forecast(batch: Batch) -> out.ForecastOut:
    """The forecast of ``batch`` as it stands now."""
    return show_forecast(batch, cost_chain(build_chain(batch, list_entry_rows(batch))))


def show_forecast(batch: Batch, costed: CostedBatch) -> out.ForecastOut:
    """The forecast of a costed batch."""
    coming = None if batch.is_finished else forecast(batch, costed)
    shop = next(iter(costed.sheet.shop), None)
    if coming is None:
        notes = []
        if costed.strip.came_together and not batch.is_finished:
            notes.append("No forecast for meats mixed together: there are no start values for them.")
        groups = {} if batch.is_finished or notes else group_by_course(batch, costed)
        courses = list(_list_courses(batch, costed)) if len(groups) == 1 else []
        return out.ForecastOut(
            way=None,
            way_version=None,
            steps=[],
            price=None,
            weight=None,
            shop_name=None,
            chance=None,
            notes=notes,
            courses=courses,
            groups=list(_list_groups(batch, costed, groups)) if len(groups) > 1 else [],
            seen=batch.last_sequence,
        )
    bought = float(costed.sheet.bought.grams)
    way = None if coming.chosen is None else coming.chosen.way
    steps = []
    for step, milestone in zip(coming.steps, coming.outlook.milestones, strict=True):
        steps.append(
            out.StepToComeOut(
                kind=step.kind,
                label=label_kind(step.kind),
                kept=_percent(milestone.belief.ratio),
                kept_of_bought=_percent(milestone.grams.middle / bought),
                basis=milestone.belief.explain(),
                weight=show_weight_range(milestone.grams),
                price=show_range(milestone.price),
                spent=print_money(Fraction(milestone.spent)),
                worth_back=print_money(Fraction(milestone.worth_back)),
            )
        )
    notes = []
    course = find_course_of(batch, costed)
    if way is None:
        notes.append("No method chosen. Using the standard one: typical times, no ingredient costs.")
    chance = None
    if shop is not None:
        chance = round(100 * coming.outlook.price.chance_below(float(shop.cost_per_lb / GRAMS_PER_LB)))
    return out.ForecastOut(
        way=None if way is None else way.name,
        way_version=None if way is None else way.version,
        steps=steps,
        price=show_range(coming.outlook.price),
        weight=show_weight_range(coming.outlook.grams),
        shop_name=None if shop is None else (shop.name or "a pack"),
        chance=chance,
        notes=notes,
        course=course,
        course_label=COURSE_FACTS[course].label if course else "",
        seen=batch.last_sequence,
    )


def _list_groups(
    batch: Batch, costed: CostedBatch, groups: Mapping[Course | None, list[Piece]]
) -> Iterator[out.GroupForecastOut]:
    """What pieces that become different things come to, each kind for itself."""
    for course, pieces in groups.items():
        coming = forecast(batch, costed, course, pieces) if course else None
        yield out.GroupForecastOut(
            marks=[piece.id for piece in pieces],
            course=course,
            label=COURSE_FACTS[course].label if course else "not said",
            price=None if coming is None else show_range(coming.outlook.price),
            weight=None if coming is None else show_weight_range(coming.outlook.grams),
        )


def _list_courses(batch: Batch, costed: CostedBatch) -> Iterator[out.CourseForecastOut]:
    """What the batch would come to by each course it can still take, the kitchen's last for the cut first."""
    last = find_last_course(batch.kitchen, cut=batch.cut)
    for course in sorted(_LISTED, key=lambda one: one != last):
        coming = forecast(batch, costed, course)
        if coming is not None and coming.outlook.price.middle > 0:
            yield out.CourseForecastOut(
                course=course, label=COURSE_FACTS[course].label, price=show_range(coming.outlook.price)
            )


def show_range(price: Estimate) -> out.RangeOut:
    """A price a gram, printed by weight with its 80 % range."""
    return out.RangeOut(
        middle=print_price_of_gram(price.middle),
        low=print_price_of_gram(price.low),
        high=print_price_of_gram(price.high),
    )


def show_weight_range(grams: Estimate) -> out.WeightRangeOut:
    """A weight with its 80 % range."""
    return out.WeightRangeOut(middle=_weight(grams.middle), low=_weight(grams.low), high=_weight(grams.high))


def _weight(grams: float) -> Weight:
    return print_weight(Fraction(grams))


def _percent(ratio: float) -> str:
    return print_percent(Fraction(ratio))


def choose_way(write: Write, code: str, data: out.ChooseWayIn) -> out.ForecastOut:
    """Choose the way a batch is made by; what its steps kept is then counted by the way's methods.

    Raises:
        DomainError: not_found, key_reused.
    """

    def find() -> out.ForecastOut | None:
        done = BatchWay.objects.filter(batch__kitchen=write.kitchen, key=write.key).first()
        if done is None:
            return None
        write.refuse_reused(done.fingerprint)
        return read_forecast(get_batch(write.kitchen, code))

    def choose() -> out.ForecastOut:
        # read under the lock: what it keeps of itself is written back whole
        batch = get_batch(write.kitchen, code)
        return show_forecast(batch, put_way(write, batch, data.way))

    return once(write, find, choose)


def put_way(write: Write, batch: Batch, name: str) -> CostedBatch:
    """Note the way of ``batch``, what its steps kept by it, and what is now forecast.

    Raises:
        DomainError: not_found.
    """
    BatchWay.objects.create(
        batch=batch,
        way=get_way(write.kitchen, name),
        chosen_at=write.now,
        chosen_by=write.user,
        key=write.key,
        fingerprint=write.fingerprint,
    )
    batch.__dict__.pop("chosen_way", None)
    rows = list_entry_rows(batch)
    costed = cost_chain(build_chain(batch, rows))
    renew(batch, costed)
    keep_forecast(rows[-1].entry, costed, now=write.now)
    return costed


def read_yields(kitchen: Kitchen) -> out.YieldsOut:
    """What each method keeps of each cut the kitchen has finished, most batches first."""
    history = read_history(kitchen)
    shown = []
    for method in METHODS.values():
        for key in sorted(history.get(method.key, {})):
            belief = believe(method.key, cut_of_key(key), history)
            shown.append(
                out.YieldOut(
                    method=method.key,
                    label=method.label,
                    cut=key,
                    kept=_percent(belief.ratio),
                    low=_percent(belief.low),
                    high=_percent(belief.high),
                    start=_percent(belief.start.mean),
                    batches=belief.batches,
                    others=belief.others,
                    basis=belief.explain(),
                )
            )
    finished = Batch.objects.filter(kitchen=kitchen, is_finished=True).count()
    return out.YieldsOut(yields=shown, batches=finished, source=START_SOURCE)


def read_calibration(kitchen: Kitchen) -> out.CalibrationOut:
    """Kept forecasts of finished batches beside the prices they came to, by the step they were made after.

    Of each batch and step the last forecast counts: an entry that was corrected is forecast from anew.
    """
    mine = ForecastScore.objects.filter(kitchen=kitchen)
    order = {kind: at for at, kind in enumerate(("bought", *USUAL_KINDS))}
    found = mine.values_list("stage", flat=True).distinct()
    stages = sorted(found, key=lambda stage: (order.get(stage, len(order)), stage))
    # the latest are found by their keys first: joined, all would be sorted
    latest = list(mine.order_by("-id").values_list("pk", flat=True)[:SCORED_SHOWN])
    shown = ForecastScore.objects.filter(pk__in=latest).select_related("forecast", "batch")
    under_way = Forecast.objects.filter(batch__kitchen=kitchen, batch__is_finished=False)
    return out.CalibrationOut(
        all=_show_score("", "All", mine),
        stages=[_show_score(stage, _label_stage(stage), mine.filter(stage=stage)) for stage in stages],
        scored=[_show_scored(one) for one in shown.defer("batch__summary").order_by("-id")],
        batches=mine.aggregate(batches=Count("batch", distinct=True))["batches"],
        waiting=under_way.values("batch").distinct().count(),
    )


def _label_stage(stage: str) -> str:
    """When a forecast was made, in words; a batch of which all is sliced has none."""
    if stage == "bought":
        return "as bought"
    return "partly sliced" if stage == "slice" else f"once {label_kind(stage).lower()}"


def _show_score(stage: str, label: str, made: "QuerySet[ForecastScore]") -> out.StageScoreOut:
    counts = made.aggregate(
        all=Count("id"), above=Count("id", filter=Q(came__gt=0)), below=Count("id", filter=Q(came__lt=0))
    )
    scored = score_counts(
        count=counts["all"],
        above=counts["above"],
        below=counts["below"],
        off_ratio=_find_middle(made, counts["all"]),
    )
    return out.StageScoreOut(
        stage=stage,
        label=label,
        count=scored.count,
        held=scored.held,
        above=scored.above,
        below=scored.below,
        held_part=_percent(scored.held / scored.count) if scored.count else None,
        low=None if scored.low is None else _percent(scored.low),
        high=None if scored.high is None else _percent(scored.high),
        off=None if scored.off_ratio is None else _percent(scored.off_ratio),
        is_enough=scored.is_enough,
    )


def _find_middle(made: "QuerySet[ForecastScore]", count: int) -> float | None:
    """The median of how far off ``count`` forecasts were."""
    ordered = made.order_by("off").values_list("off", flat=True)
    middle = list(ordered[(count - 1) // 2 : count // 2 + 1]) if count else []
    return median(middle) if middle else None


def _show_scored(one: ForecastScore) -> out.ScoredOut:
    kept = one.forecast
    estimate = Estimate(middle=kept.price_middle, log_deviation=kept.price_deviation)
    came: dict[int, Literal["held", "above", "below"]] = {0: "held", 1: "above", -1: "below"}
    return out.ScoredOut(
        batch=one.batch.code,
        name=one.batch.name,
        stage=_label_stage(one.stage),
        price=show_range(estimate),
        true=print_price_of_gram(one.true_price),
        came=came[one.came],
        place=_percent(compute_quantile(estimate, one.true_price)),
    )
