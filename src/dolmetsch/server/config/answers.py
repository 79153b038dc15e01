"""Which feature answers what those below it ask (``server/upward.py``)."""

from dolmetsch.server.batches.models.cure_facts import cured_by
from dolmetsch.server.batches.models.fire_facts import fire_facts
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.cures.queries import find_yield_methods
from dolmetsch.server.fires.alarms import hanging
from dolmetsch.server.fires.of_batch import KnownFires
from dolmetsch.server.hooks.queries import count_hanging
from dolmetsch.server.lanes.queries import planned_stays
from dolmetsch.server.larder.of_batch import KnownPacks
from dolmetsch.server.meals.holding import list_stays


def connect() -> None:
    """Have each question answered, once Django has the models."""
    pack_facts.answer_by(KnownPacks())
    fire_facts.answer_by(KnownFires())
    cured_by.answer_by(find_yield_methods)
    hanging.answer_by(count_hanging)
    planned_stays.answer_by(list_stays)
