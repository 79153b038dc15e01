"""Days are printed by the clock of whoever asks, on labels, in the diary and in the plan alike."""

from datetime import UTC, datetime

import pytest
from django.utils import timezone

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.labels import api as labels_api
from dolmetsch.server.labels.facts import gather_labels
from tests.server.conftest import TRIM

RECIPE = {
    "school": "measured",
    "salt": {"name": "coarse salt", "amount": "2.5 %"},
    "agent": "no_1",
    "target": "150",
}
#: Ten in the evening of the 1st in New York, the afternoon of the 2nd in Auckland.
PUT_IN = datetime(2026, 3, 2, 3, tzinfo=UTC).isoformat()


@pytest.fixture
def code(api):
    started = api.started(happened_at="2026-03-01T09:00:00Z")
    api.recorded(started, TRIM)
    piece = {"mark": "A", "recipe": RECIPE, "thickness": "1.6 in", "skin": "off", "out_day": 14}
    status, body = api.call("POST", f"/batches/{started}/cures", {"pieces": [piece], "in_at": PUT_IN})
    assert status == 201, body
    return started


def label_of(api, code, monkeypatch):
    """The lines of A's label as it would be printed for this client."""
    printed = []
    monkeypatch.setattr(
        labels_api,
        "gather_labels",
        lambda batch, marks, root: printed.extend(gather_labels(batch, marks, root=root)) or [],
    )
    monkeypatch.setattr(labels_api, "print_labels", lambda _labels: [])
    assert api.call("POST", f"/batches/{code}/labels", {"marks": ["A"]})[0] == 200
    return printed[0].lines


@pytest.mark.parametrize(
    ("zone", "put_in", "first", "last"),
    [
        ("", "Mar 2", "Mar 14", "Mar 24"),
        ("America/New_York", "Mar 1", "Mar 13", "Mar 23"),
        ("Pacific/Auckland", "Mar 2", "Mar 14", "Mar 24"),
        ("Nowhere/At_All", "Mar 2", "Mar 14", "Mar 24"),
        ("../../etc/passwd", "Mar 2", "Mar 14", "Mar 24"),
    ],
)
def test_a_label_and_the_diary_have_the_cooks_own_days(api, code, monkeypatch, zone, put_in, first, last):
    api.client.cookies["zone"] = zone
    lines = label_of(api, code, monkeypatch)
    assert f"in {put_in}" in lines
    assert f"window {first} to {last}" in lines
    leaves = api.get(f"/batches/{code}/diary")[1]["leaves"]
    (cure,) = [leaf for leaf in leaves if leaf["sort"] == "cure"]
    assert any(f"(window {first} to {last})" in line for line in cure["lines"])
    tasks = api.get(f"/plan?days=400&code={code}")[1]["tasks"]
    (out,) = [task for task in tasks if task["kind"] == "out"]
    assert out["text"] == f"window closes {last}"


@pytest.mark.kept_answers
def test_one_zone_ends_with_its_request(api, code):
    api.client.cookies["zone"] = "America/New_York"
    api.get(f"/batches/{code}/diary")
    assert timezone.get_current_timezone_name() == "UTC"


def test_a_kitchen_takes_the_clock_of_the_first_device_that_tells_one(api, code):
    """From then on all of its rooms go by that, whatever device looks."""
    kitchen = Kitchen.objects.get(slug=api.slug)
    assert kitchen.time_zone == ""
    api.client.cookies["zone"] = "Nowhere/At_All"
    api.get("/today")
    assert Kitchen.objects.get(pk=kitchen.pk).time_zone == ""
    api.client.cookies["zone"] = "America/New_York"
    api.get("/today")
    assert Kitchen.objects.get(pk=kitchen.pk).time_zone == "America/New_York"
    api.client.cookies["zone"] = "Pacific/Auckland"
    leaves = api.get(f"/batches/{code}/diary")[1]["leaves"]
    (cure,) = [leaf for leaf in leaves if leaf["sort"] == "cure"]
    assert any("(window Mar 13 to Mar 23)" in line for line in cure["lines"])
    assert Kitchen.objects.get(pk=kitchen.pk).time_zone == "America/New_York"
