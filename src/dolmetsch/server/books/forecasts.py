"""How good every kind of forecast was: price, finished weight, when a fire is ready, when a piece is dry.

Prices and weights were kept as they were forecast. What a fire or a hook forecast follows from its own
readings alone, so it is worked out again as it was known at half the way, and held against what came.
"""

from collections.abc import Iterable
from fractions import Fraction
from functools import partial
from typing import Final, Literal

from dolmetsch.core.drying.drying_log import DryingLog
from dolmetsch.core.drying.follow_drying import follow_drying
from dolmetsch.core.forecast.scoring import part_interval
from dolmetsch.core.heat.cook_log import CookLog
from dolmetsch.core.heat.moments import count_log, list_inside, list_moments, list_within
from dolmetsch.core.heat.ready import find_reached, forecast_ready
from dolmetsch.core.numbers.span import TimeSpan
from dolmetsch.server.batches.models import ForecastScore
from dolmetsch.server.books import schemas as out
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.fires.story import build_log as build_cook
from dolmetsch.server.fires.story import list_readings, read_story
from dolmetsch.server.hooks.drying import build_log as build_drying
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_percent
from dolmetsch.server.writing.kept_answers import keep

#: So many of the latest fires and hooks are worked out again.
REPLAYED: Final = 12
#: What was is not worked out again for a month: no reading of it comes later.
KEPT_SECONDS: Final = 30 * 86_400
Came = Literal["held", "early", "late"]


def read_kinds(kitchen: Kitchen) -> out.ForecastKindsOut:
    """How often each kind of forecast held."""
    mine = ForecastScore.objects.filter(kitchen=kitchen)
    bought = mine.filter(stage="bought")
    return out.ForecastKindsOut(
        kinds=[
            _show("price", "Price of a finished pound", "80", mine.filter(came=0).count(), mine.count()),
            _show(
                "enough",
                "Enough, where a plan counts on 9 times out of 10",
                "90",
                bought.filter(is_enough=True).count(),
                bought.count(),
            ),
            _show_came("ready", "When a fire is ready, forecast at half the way", _replay_fires(kitchen)),
            _show_came(
                "dry", "When a hanging piece is dry, forecast at half the loss", _replay_hooks(kitchen)
            ),
        ]
    )


def _show_came(key: Literal["ready", "dry"], label: str, came: Iterable[Came]) -> out.ForecastKindOut:
    found = list(came)
    shown = _show(key, label, "80", found.count("held"), len(found))
    shown.early, shown.late = found.count("early"), found.count("late")
    return shown


def _show(
    key: Literal["price", "enough", "ready", "dry"], label: str, expected: str, held: int, count: int
) -> out.ForecastKindOut:
    low, high = part_interval(held, count) if count else (None, None)
    return out.ForecastKindOut(
        key=key,
        label=label,
        expected=expected,
        count=count,
        held=held,
        held_part=print_percent(Fraction(held, count)) if count else None,
        low=None if low is None else print_percent(Fraction(low)),
        high=None if high is None else print_percent(Fraction(high)),
    )


def _replay_fires(kitchen: Kitchen) -> Iterable[Came]:
    done = FireEvent.objects.filter(kitchen=kitchen, kind="done", fire__pull_at__isnull=False)
    latest = dict.fromkeys(done.order_by("-id").values_list("fire", flat=True)[: 2 * REPLAYED])
    for fire in Fire.objects.filter(pk__in=list(latest)[:REPLAYED]).order_by("id"):
        fire.kitchen = kitchen
        came = keep(("ready replayed", fire.pk), partial(_replay_fire, fire), seconds=KEPT_SECONDS)
        if came:
            yield came


def _replay_fire(fire: Fire) -> Came | Literal[""]:
    story = read_story(fire)
    return judge_ready(build_cook(story, list_readings(story))) or ""


def judge_ready(log: CookLog) -> Came | None:
    """Whether the pull temperature came within the range forecast at half the way; None: not to be said."""
    inside = list_inside(list_moments(count_log(log)))
    cooked = list_within(inside, log.list_phases("cook"))
    if log.pull_at is None or not cooked:
        return None
    reached = find_reached(cooked, log.pull_at)
    if reached is None:
        return None
    half = log.cut_at(cooked[0].at + (reached.at - cooked[0].at) / 2)
    ready = forecast_ready(half, list_inside(list_moments(count_log(half))))
    return None if ready is None or ready.span is None else _judge(ready.span, reached.at)


def _replay_hooks(kitchen: Kitchen) -> Iterable[Came]:
    hooks = Hook.objects.filter(kitchen=kitchen).select_related("batch").order_by("-id")
    for hook in hooks[: 2 * REPLAYED]:
        hook.batch.kitchen = kitchen
        notes = list(HookNote.objects.filter(hook=hook).order_by("at", "id"))
        came = judge_dry(build_drying(hook, notes))
        if came is not None:
            yield came


def judge_dry(log: DryingLog) -> Came | None:
    """Whether the target came within the range forecast at half the loss; None: it has not, or not known.

    It came between two weighings, on the line between them.
    """
    losses = [(log.hung_at, Fraction(0)), *((one.at, log.loss_at(one)) for one in log.weighings)]
    at = next((at for at, (_, loss) in enumerate(losses) if at and loss >= log.target_loss), None)
    if at is None:
        return None
    (before, lost), (after, more) = losses[at - 1], losses[at]
    reached = before + (log.target_loss - lost) / (more - lost) * (after - before)
    early = [when for when, loss in losses[1:at] if loss <= log.target_loss / 2]
    if not early:
        return None
    span = follow_drying(log, until=early[-1]).dry.span
    return None if span is None else _judge(span, reached)


def _judge(span: TimeSpan, came: Fraction) -> Came:
    return "early" if came < span.low else "late" if came > span.high else "held"
