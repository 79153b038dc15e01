"""A logger’s file or a cook log, taken into a fire."""

import json
import uuid
from datetime import UTC, timedelta
from zoneinfo import ZoneInfo

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading
from tests.server.test_fires import begun, climb, cooks, happens  # noqa: F401 (fixtures)


def send_log(api, fire_id, text, match=None, *, preview=False, key=None, name="night.csv"):
    path = f"/api/kitchens/{api.slug}/{'previews/' if preview else ''}fires/{fire_id}/log"
    headers = {} if preview else {"HTTP_IDEMPOTENCY_KEY": str(key or uuid.uuid4())}
    form = {"file": SimpleUploadedFile(name, text.encode()), "match": json.dumps(match) if match else ""}
    response = api.client.post(path, form, **headers)
    return response.status_code, response.json()


def logger_file(fire_id, *, minutes=120, zone=UTC):
    start = Fire.objects.get(pk=fire_id).begun_at.astimezone(zone)
    lines = ["Time,Grill,Probe A,Probe B,Lid"]
    for minute in range(minutes):
        at = (start + timedelta(minutes=minute, seconds=1)).strftime("%Y-%m-%d %H:%M:%S")
        lines.append(f"{at},{200 + minute % 3},{40 + minute / 2},{45 + minute / 2},")
    return "\n".join(lines)


def test_a_loggers_file_is_matched_looked_over_and_taken_in_once(cooks):
    fire_id = begun(cooks, ago=121, cooker="", pieces=[{"code": cooks.code, "mark": "A"}])
    text = logger_file(fire_id, zone=ZoneInfo("America/New_York"))
    status, seen = send_log(cooks, fire_id, text, preview=True)
    assert (status, seen["heads"][1], seen["rows"]) == (200, "Grill", 120)
    assert seen["match"]["columns"] == {"1": "air", "2": "1", "3": "2"}
    # in UTC it would lie before the fire
    assert (seen["readings"], seen["notes"]) == (
        0,
        ["120 readings lie outside of this fire and are left out: is the time zone right?"],
    )
    assert send_log(cooks, fire_id, text, seen["match"])[1]["code"] == "no_readings"
    label = f"{cooks.code} A"
    match = {**seen["match"], "zone": "America/New_York", "places": {"1": label}}
    assert send_log(cooks, fire_id, text, match, preview=True)[1]["readings"] == 120
    assert not ProbeReading.objects.exists()
    key = uuid.uuid4()
    status, answer = send_log(cooks, fire_id, text, match, key=key)
    assert (status, answer["coldest"], answer["coldest_probe"], answer["air"]) == (201, "100", "1", "202")
    assert answer["events"][0]["text"] == "log taken in: night.csv: 120 readings"
    before = ProbeReading.objects.count(), FireEvent.objects.count()
    assert send_log(cooks, fire_id, text, match, key=key)[0] == 201
    assert (ProbeReading.objects.count(), FireEvent.objects.count()) == before
    # by another key it is another event, and no reading twice
    assert send_log(cooks, fire_id, text, {**match, "places": {}})[0] == 201
    assert ProbeReading.objects.count() == before[0]


def test_a_cook_log_goes_out_of_one_fire_and_into_another(cooks):
    fire_id = begun(cooks, ago=121)
    climb(cooks, fire_id, 120)
    start = Fire.objects.get(pk=fire_id).begun_at
    happens(
        cooks,
        fire_id,
        "instant",
        piece=f"{cooks.code} A",
        temp="70",
        at=(start + timedelta(minutes=61)).isoformat(),
    )
    log = cooks.client.get(f"/api/kitchens/{cooks.slug}/fires/{fire_id}/files/json").content.decode()
    happens(cooks, fire_id, "done")
    other = begun(cooks, ago=122, cooker="")
    seen = send_log(cooks, other, log, preview=True, name="cook.json")[1]
    assert (seen["match"]["columns"], seen["readings"]) == ({"1": "1", "2": "air"}, 61)
    answer = send_log(cooks, other, log, seen["match"], name="cook.json")[1]
    assert (answer["coldest"], answer["air"]) == ("100", "200")
    assert FireEvent.objects.filter(fire=other, kind="instant").get().data["fahrenheit"] == "70"
    away = begun(cooks, ago=122, cooker="", pieces=[{"code": cooks.code, "mark": "B", "probe": "1"}])
    answer = send_log(cooks, away, log, seen["match"], name="cook.json")[1]
    assert answer["events"][0]["text"].endswith("61 readings, 1 instant readings left out")


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"time": 50}, "time"),
        ({"columns": {"9": "1"}}, "columns.9"),
        ({"columns": {"1": "1", "2": "1"}}, "columns.1"),
        ({"columns": {"1": "9"}}, "columns.1"),
        ({"columns": {"1": ""}}, "columns"),
        ({"zone": "Harrow/Quay"}, "zone"),
        ({"zone": "../etc/passwd"}, "zone"),
        ({"places": {"1": "Z"}}, "places.1"),
    ],
)
def test_a_match_that_cannot_be_is_refused_at_its_place(cooks, change, path):
    fire_id = begun(cooks, ago=121)
    match = {"columns": {"1": "air", "2": "1"}, **change}
    text = logger_file(fire_id)
    assert send_log(cooks, fire_id, text, match, preview=True)[1]["problems"][0]["path"] == path
    status, body = send_log(cooks, fire_id, text, match)
    assert (status, body["fields"][0]["path"]) == (422, path)
    assert not ProbeReading.objects.exists()


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "is empty"),
        ("Time,1", "holds no rows"),
        ('{"format": "dolmetsch-cook/1"}', "unit"),
        ('{"format": "x"}', "is not “dolmetsch-cook/1”"),
        ("{", "night.csv"),
    ],
)
def test_a_file_that_is_no_log_is_refused(cooks, text, said):
    fire_id = begun(cooks)
    for preview in (True, False):
        status, body = send_log(cooks, fire_id, text, preview=preview)
        assert status == 422
        assert said in body["detail"]
    assert happens(cooks, fire_id, "import")[1]["fields"][0]["path"] == "kind"
    assert (
        send_log(cooks, fire_id, logger_file(fire_id), "unreadable", preview=True)[1]["fields"][0]["path"]
        == "match"
    )


def test_a_log_in_another_unit_is_asked_about(cooks):
    fire_id = begun(cooks, ago=60)
    start = Fire.objects.get(pk=fire_id).begun_at.isoformat()
    seen = send_log(cooks, fire_id, f"time,1,air\n{start},20,107\n", preview=True)[1]
    assert (seen["asks_unit"], seen["notes"]) == (True, ["Nothing like a fire in °F: was the log in °C?"])
