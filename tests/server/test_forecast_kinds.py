"""How good every kind of forecast was: price, enough, ready time, dry date."""

import json
from dataclasses import replace
from fractions import Fraction

import pytest

from dolmetsch.core.documents.drying_reading import read_drying
from dolmetsch.core.documents.strict import parse
from dolmetsch.server.batches.models import Forecast, ForecastScore
from dolmetsch.server.books.forecasts import judge_dry, judge_ready
from tests.core.drying.test_drying import document
from tests.core.heat.simulated import simple_cook
from tests.server.test_finishing import PACK
from tests.server.test_outlooks import finish


def kinds_of(api):
    status, body = api.get("/books/forecasts")
    assert status == 200, body
    return {one["key"]: one for one in body["kinds"]}


def drying(*weighings):
    return read_drying(parse(json.dumps(document(*weighings))))[0]


def steady(days, last=None):
    """Weighings of a piece that dries as the model has it, every so many ``days``, and the ``last``."""
    loss = [(day, 1000 * (0.5 + 0.5 * 2.718281828 ** (-0.035 * day))) for day in range(days, 61, days)]
    return drying(*[(day, round(grams, 1)) for day, grams in loss if grams > 600], *([last] if last else []))


@pytest.mark.django_db
def test_without_batches_there_is_nothing_to_check(api):
    for kind in kinds_of(api).values():
        assert (kind["count"], kind["held_part"], kind["low"]) == (0, None, None)


@pytest.mark.django_db
def test_prices_and_weights_are_scored_when_the_batch_is_done(api, other):
    code = api.started(course="cooked")
    api.recorded(code, PACK)
    assert kinds_of(api)["price"]["count"] == 0
    finish(api, code)
    found = kinds_of(api)
    scores = ForecastScore.objects.filter(batch__code=code)
    assert found["price"]["count"] == scores.count() == 5
    assert found["price"]["held"] == scores.filter(came=0).count()
    assert (found["enough"]["count"], found["enough"]["expected"]) == (1, "90")
    bought = Forecast.objects.get(batch__code=code, stage="bought")
    final = float(api.get(f"/batches/{code}")[1]["house"]["weight"]["kg"]) * 1000
    least = bought.grams_middle * 2.718281828 ** (-1.2815516 * bought.grams_deviation)
    assert found["enough"]["held"] == int(final >= least)
    assert kinds_of(other)["price"]["count"] == 0


def test_a_fire_is_held_against_what_was_forecast_at_half_the_way():
    cooks = [cook for seed in range(40, 60) if (cook := simple_cook(seed)) is not None]
    came = [judge_ready(cook.log) for cook in cooks]
    said = [one for one in came if one is not None]
    assert len(said) >= 8
    # the range is made to hold eight in ten
    assert said.count("held") / len(said) > 0.5
    assert judge_ready(replace(cooks[0].log, pull_at=None)) is None
    assert judge_ready(replace(cooks[0].log, pull_at=Fraction(400))) is None


def test_a_hanging_piece_is_held_against_what_was_forecast_at_half_the_loss():
    assert judge_dry(steady(4, last=(47, 599))) == "held"
    assert judge_dry(steady(4, last=(120, 599))) == "late"
    fast = drying((4, 950), (8, 900), (12, 860), (14, 590))
    assert judge_dry(fast) == "early"
    # not dry yet, or dry before anything was known
    assert judge_dry(steady(4)) is None
    assert judge_dry(drying((30, 590))) is None
