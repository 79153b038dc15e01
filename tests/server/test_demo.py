"""The demo is made by the same actions as anyone's entries, and is the same every time."""

from datetime import timedelta

import pytest
from django.core.management import call_command

from dolmetsch.server.batches.forecast.outlooks import read_calibration
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.show.queries import read_batch, read_today
from dolmetsch.server.demo.loading import load_demo
from dolmetsch.server.kitchens.models import Kitchen
from tests.prepared import load_dump


def seen_from(now):
    """Every batch's figures, and how long before ``now`` each entry was."""
    shown = [read_batch(batch).model_dump() for batch in Batch.objects.order_by("code")]
    figures = [(one["house"], one["shops"], one["pieces"], one["by_products"]) for one in shown]
    days = [(now - entry.happened_at).days for entry in Entry.objects.order_by("batch__code", "sequence")]
    for _, shops, _, _ in figures:
        for shop in shops:
            shop.pop("entry")
    return figures, days


def batches_stand_at_different_points_and_a_year_lies_behind(kitchen):
    today = read_today(kitchen)
    assert {batch.code: batch.stage for batch in today.under_way} == {
        "G-01": "partly sliced",
        "S-01": "hung",
        "B-01": "trimmed",
        "L-01": "rested",
        "B-02": "trimmed",
    }
    assert today.finished[0].code == "J-01"
    assert Batch.objects.filter(is_finished=True).count() == 10
    # nine of them and the jowl each left a forecast at each of seven points
    assert read_calibration(kitchen).all.count == 70
    assert today.hanging == {"today": 5, "bench": 10, "slice": 2}


def the_jowl_keeps_its_corrected_weighing_beside_the_wrong_one():
    log = read_batch(Batch.objects.get(code="J-01")).log
    (wrong,) = [entry for entry in log if entry.overruled_by]
    assert ("5.27 lb" in wrong.lines[0], log[7].corrects) == (True, wrong.id)


@pytest.mark.django_db(transaction=True)
def test_the_demo_moves_with_the_day_and_is_otherwise_the_same():
    load_dump("demo.sql")
    kitchen = Kitchen.objects.get()
    now = kitchen.memberships.earliest("pk").joined_at
    batches_stand_at_different_points_and_a_year_lies_behind(kitchen)
    the_jowl_keeps_its_corrected_weighing_beside_the_wrong_one()
    first = seen_from(now)
    call_command("flush", interactive=False, verbosity=0)
    load_demo(now - timedelta(days=100))
    assert seen_from(now - timedelta(days=100)) == first


@pytest.mark.django_db
def test_a_store_in_use_is_left_alone():
    Kitchen.objects.create(slug="mine", name="Mine")
    call_command("load_demo", verbosity=0)
    assert not Batch.objects.exists()
