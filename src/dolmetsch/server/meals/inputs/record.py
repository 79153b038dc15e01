"""How long the work takes here: minutes and hours from this kitchen's own record."""

from collections import defaultdict
from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from statistics import median, quantiles
from typing import Final

from dolmetsch.core.forecast.way import WayStep, find_method
from dolmetsch.core.ledger.kinds import method_kind
from dolmetsch.core.ledger.strands import Heat, Heated
from dolmetsch.server.batches.models import Entry, LotLine
from dolmetsch.server.fires.models import Fire, FireEvent
from dolmetsch.server.fires.of_batch import is_cold
from dolmetsch.server.fires.story import OUT_KINDS, pull_at_of
from dolmetsch.server.kitchens.models import Kitchen

#: So many of the latest fires, and entries of finished batches, are looked at.
FIRES_READ: Final = 30
ENTRIES_READ: Final = 240
#: So many batches say how long a step takes here; so many fires how late they run (ours).
LEAST_BATCHES: Final = 3
LEAST_FIRES: Final = 5


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnFires:
    """Hours in the smoke: half of the latest ``count`` fires took no longer than ``hours``, eight in ten
    no longer than ``late_hours`` more; None: too few to say.
    """

    hours: float
    late_hours: float | None
    count: int


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnRecord:
    """Fires by method, and by kind of step the (raw grams, minutes) of each batch that says them."""

    fires: Mapping[str, OwnFires] = field(default_factory=dict)
    minutes: Mapping[str, list[tuple[Fraction, Fraction]]] = field(default_factory=dict)

    def scaled(self, step: WayStep) -> WayStep:
        """``step`` with its minutes as they are here: times the median of minutes worked to minutes the step
        says for that batch; as it is where fewer than ``LEAST_BATCHES`` say so.
        """
        ratios = [
            minutes / planned
            for grams, minutes in self.minutes.get(step.kind, ())
            if (planned := step.batch_minutes + step.kilo_minutes * grams / 1000) > 0
        ]
        if len(ratios) < LEAST_BATCHES:
            return step
        ratio = median(ratios)
        return replace(step, batch_minutes=step.batch_minutes * ratio, kilo_minutes=step.kilo_minutes * ratio)

    def say_basis(self, step: WayStep) -> str:
        """Where minutes and hours of ``step`` come from: "minutes of 5 own batches, hours of 3 own fires"."""
        said = []
        batches = len(self.minutes.get(step.kind, ()))
        if batches >= LEAST_BATCHES and step.batch_minutes + step.kilo_minutes > 0:
            said.append(f"minutes of {batches} own batches")
        if (fires := self.fires.get(step.method)) is not None:
            said.append(f"hours of {fires.count} own {'fire' if fires.count == 1 else 'fires'}")
        return ", ".join(said)


def read_record(kitchen: Kitchen) -> OwnRecord:
    """What the kitchen's latest batches and fires say."""
    return OwnRecord(fires=find_own_fires(kitchen), minutes=find_own_minutes(kitchen))


def find_own_minutes(kitchen: Kitchen) -> dict[str, list[tuple[Fraction, Fraction]]]:
    """Raw grams and minutes worked of each of the latest batches, by kind of step. What was corrected or
    taken back does not count.
    """
    acts = (Entry.Act.SPLIT, Entry.Act.WEIGH, Entry.Act.MERGE)
    entries = Entry.current.filter(kitchen=kitchen, act__in=acts, batch__is_finished=True, minutes__gt=0)
    worked: dict[tuple[int, str], Fraction] = defaultdict(Fraction)
    for entry in entries.order_by("-id").only("batch_id", "kind", "minutes")[:ENTRIES_READ]:
        worked[entry.batch_id, method_kind(entry.kind)] += Fraction(entry.minutes or 0)
    bought = _sum_bought({batch for batch, _ in worked})
    found: dict[str, list[tuple[Fraction, Fraction]]] = defaultdict(list)
    for (batch, kind), worked_minutes in worked.items():
        if grams := bought.get(batch):
            found[kind].append((grams, worked_minutes))
    return dict(found)


def _sum_bought(batches: Collection[int]) -> dict[int, Fraction]:
    """Raw grams of each of ``batches``, by its purchases that count."""
    lots = LotLine.objects.filter(entry__in=Entry.current.filter(batch__in=batches))
    bought: dict[int, Fraction] = defaultdict(Fraction)
    for batch, *weights in lots.values_list("entry__batch", "own_grams", "label_grams", "from_grams"):
        bought[batch] += Fraction(next((grams for grams in weights if grams), 0))
    return bought


def find_own_fires(kitchen: Kitchen) -> dict[str, OwnFires]:
    """Hours from into the smoke to out of it, of the latest fires, by the method they were."""
    fires = list(Fire.objects.filter(kitchen=kitchen).order_by("-id")[:FIRES_READ])
    begun = {fire.pk: fire.begun_at for fire in fires}
    hours: dict[int, float] = {}
    for event in FireEvent.objects.filter(fire__in=fires, kind__in=OUT_KINDS).order_by("-at", "-id"):
        hours[event.fire_id] = (event.at - begun[event.fire_id]).total_seconds() / 3600
    found: dict[str, list[float]] = {}
    for fire in fires:
        if fire.pk in hours:
            found.setdefault(_method_of(fire), []).append(hours[fire.pk])
    return {method: _sum_up(own) for method, own in found.items()}


def _sum_up(hours: list[float]) -> OwnFires:
    late = None
    if len(hours) >= LEAST_FIRES:
        late = quantiles(hours, n=10, method="inclusive")[7] - median(hours)
    return OwnFires(hours=median(hours), late_hours=late, count=len(hours))


def _method_of(fire: Fire) -> str:
    heat: Heat = "cold" if is_cold(fire) else "hot"
    heated = Heated(kind="smoke", heat=heat, inside_fahrenheit=pull_at_of(fire))
    methods = {"smoke": "stepped_smoke"} if len(fire.stages) > 2 else {}
    return find_method("smoke", methods=methods, heated=heated) or "hot_smoke"
