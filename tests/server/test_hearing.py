"""Readings of a cooker as they come, to many screens, before they are kept."""

import json

import pytest

from dolmetsch.devices.cooker.lines import CookerReading
from dolmetsch.devices.cooker.source import LineCooker
from dolmetsch.server.fires.readings import hearing
from dolmetsch.server.fires.readings.hearing import hear_cooker
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError
from dolmetsch.server.scales.hub import Hub
from tests.devices.conftest import cooker  # noqa: F401 (a fixture)
from tests.server.conftest import make_kitchen
from tests.server.test_scales import listen

pytestmark = pytest.mark.django_db


@pytest.fixture
def quay(cooker, settings, monkeypatch):
    settings.COOKERS = f"quay/drum=line:127.0.0.1:{cooker}"
    hub = Hub()
    monkeypatch.setattr(hearing, "hub", hub)
    api = make_kitchen("quay")
    line = LineCooker(f"127.0.0.1:{cooker}")
    yield Kitchen.objects.get(slug=api.slug), hub, line
    line.close()
    hub.close()


def test_every_screen_hears_a_reading_in_both_units(quay):
    kitchen, hub, line = quay
    line.send("MEAT 1 40")
    streams = [hub.stream(hear_cooker(kitchen, "drum")) for _ in range(3)]
    answers = [listen(stream, lambda now: "1" in now.get("read", {}).get("F", {})) for stream in streams]
    for answer in answers:
        read = answer["read"]
        assert set(read["F"]) == {"1", "air"}
        assert abs(float(read["C"]["1"]) - (float(read["F"]["1"]) - 32) / 1.8) < 0.6
        assert answer["state"] == "live"
    assert hear_cooker(kitchen, "drum") is hear_cooker(kitchen, "drum")
    for stream in streams:
        stream.close()


def test_a_cooker_that_says_nothing_is_silent_and_one_that_is_gone_is_away(quay, settings):
    kitchen, _, _ = quay
    heard = hear_cooker(kitchen, "drum")
    published = []
    heard._publish = lambda event: published.append(json.loads(event.removeprefix(b"data: "))["state"])
    heard._take(CookerReading(at=kitchen_time(), values={"air": "200"}))
    heard._take(None)
    heard._heard -= hearing.SILENT_SECONDS
    heard._take(ValueError("rubbish"))
    assert published == ["live", "silent"]
    settings.COOKERS = "quay/drum=line:127.0.0.1:1"
    stream = hearing.hub.stream(hear_cooker(kitchen, "drum"))
    assert listen(stream, lambda now: now["state"] == "away")
    stream.close()


def kitchen_time():
    from django.utils import timezone

    return timezone.now()


def test_no_other_kitchen_hears_it(quay):
    other = Kitchen.objects.get(slug=make_kitchen("elsewhere").slug)
    with pytest.raises(DomainError, match="drum"):
        hear_cooker(other, "drum")
    assert make_kitchen("another").get("/cookers/drum/stream")[0] == 404


def test_the_stream_is_one_of_events(quay):
    kitchen, _, _ = quay
    api = make_kitchen("third")
    Kitchen.objects.filter(slug="third").update(slug="unused")
    api.client.force_login(kitchen.memberships.get().user)
    response = api.client.get("/api/kitchens/quay/cookers/drum/stream")
    assert (response.status_code, response["Content-Type"]) == (200, "text/event-stream")
    assert json.loads(next(response.streaming_content).removeprefix(b"data: "))["state"] in ("live", "away")
    response.close()
