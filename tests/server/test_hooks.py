"""Pieces on the hook: hung, weighed by the batch's own weighings, noted, cut, taken down."""

import uuid
from datetime import timedelta
from fractions import Fraction

import pytest
from django.db import OperationalError, transaction
from django.utils import timezone

from dolmetsch.server.fires.models import ProbeReading
from dolmetsch.server.hooks.chambers import list_air, list_rows
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import BOUGHT, TRIM, make_kitchen, weigh

pytestmark = pytest.mark.django_db


def days_ago(days):
    return (timezone.now() - timedelta(days=days)).isoformat()


@pytest.fixture
def hangs(api):
    """A piece A of 5 lb, hung thirty days ago to lose 40 %."""
    bought = {"name": "Test jowl", "bought": BOUGHT, "happened_at": days_ago(40)}
    _, body = api.call("POST", "/batches", bought)
    api.code = body["batch"]["code"]
    api.recorded(api.code, TRIM, happened_at=days_ago(39))
    api.hook = hung(api, hung_at=days_ago(30))
    return api


def hung(api, **more):
    status, body = api.call("POST", "/hooks", {"code": api.code, "mark": "A", "target": "40", **more})
    assert status == 201, body
    return body["id"]


def weighed(api, days, pounds, kind="hang", mark="A", **more):
    content = weigh(kind, **{mark: f"{pounds} lb"})
    return api.recorded(api.code, content, happened_at=days_ago(days), **more)


def chamber(api):
    return api.get("/chamber")[1]


def hanging(api):
    (one,) = chamber(api)["hanging"]
    return one


def noted(api, kind, **more):
    return api.call("POST", f"/hooks/{api.hook}/notes", {"kind": kind, **more})


def codes(hook):
    return [one["code"] for one in hook["findings"]]


def test_a_piece_is_hung_at_what_it_weighs_and_followed_by_its_weighings(hangs):
    one = hanging(hangs)
    assert (one["green"]["lb"], one["lost"], one["target"]) == ("5.00", "0.0", "40.0")
    assert (one["low"], one["why"]) == (None, "not weighed yet")
    weighed(hangs, 20, "4.25")
    weighed(hangs, 10, "3.75")
    one = hanging(hangs)
    assert (one["weight"]["lb"], one["lost"], one["weight_at_target"]["lb"]) == ("3.75", "25.0", "3.00")
    assert [round(dot["day"]) for dot in one["dots"]] == [10, 20]
    assert one["low"] < one["likely"] < one["high"]
    assert one["low_day"] < one["high_day"]
    assert len(one["line"]) > 10
    assert codes(one) == ["raw_pork"]


def test_the_price_climbs_as_the_weight_goes_down(hangs):
    weighed(hangs, 10, "3.75")
    one = hanging(hangs)
    page = hangs.get(f"/batches/{hangs.code}")[1]
    now = next(piece["cost"] for piece in page["pieces"] if piece["mark"] == "A")
    assert one["price"] == now
    ratio = float(one["price_at_target"]["per_lb"]) / float(one["price"]["per_lb"])
    assert ratio == pytest.approx(3.75 / 3, rel=0.01)


def test_a_corrected_weighing_counts_once_and_one_before_it_hung_not_at_all(hangs):
    weighed(hangs, 35, "4.9", kind="rest")
    weighed(hangs, 10, "3.75")
    wrong = hangs.get(f"/batches/{hangs.code}")[1]["log"][-1]["id"]
    content = weigh("hang", A="3.70 lb")
    hangs.recorded(hangs.code, content, corrects=wrong, reason="misread", happened_at=days_ago(10))
    one = hanging(hangs)
    assert (one["weight"]["lb"], len(one["dots"])) == ("3.70", 1)


def test_a_heavier_weighing_is_kept_and_asked_about(hangs):
    weighed(hangs, 20, "4.25")
    weighed(hangs, 10, "4.35")
    assert "ask" in codes(hanging(hangs))


def test_reached_says_dry_is_not_safe(hangs):
    weighed(hangs, 5, "3.0")
    one = hanging(hangs)
    assert (one["why"], one["low"]) == ("reached", one["high"])
    assert codes(one) == ["dry", "raw_pork"]


def test_a_hard_rim_is_suspected_in_dry_air(hangs):
    for days, pounds in ((25, "4.6"), (20, "4.25"), (15, "3.97")):
        weighed(hangs, days, pounds)
    weighed(hangs, 12, "3.96")
    assert hanging(hangs)["rim"] == "possible"
    status, answer = noted(hangs, "air", humidity="64 %", temp="55", at=days_ago(13))
    assert status == 201
    assert answer["hanging"][0]["rim"] == "suspected"
    assert answer["air"] == [{"at": answer["air"][0]["at"], "temp": "55", "humidity": "64.0"}]
    assert "rim" in codes(hanging(hangs))


def test_a_fermentation_by_its_degree_hours(hangs):
    noted(hangs, "ferment", temp="80", at=days_ago(30))
    noted(hangs, "ph", ph="5.8", at=days_ago(30))
    noted(hangs, "ph", ph="5.0", at=days_ago(28))
    ferment = hanging(hangs)["ferment"]
    assert (ferment["state"], ferment["limit"], ferment["ph"]) == ("met", "1200", "5.0")
    assert float(ferment["degree_hours"]) == pytest.approx(20 * 48 * 0.625, abs=1)


def test_too_many_degree_hours_are_said(hangs):
    noted(hangs, "ferment", temp="95", at=days_ago(30))
    noted(hangs, "ph", ph="5.8", at=days_ago(28))
    one = hanging(hangs)
    assert one["ferment"]["state"] == "failed"
    assert "ferment" in codes(one)


def test_one_is_cut_and_the_rest_hung_back(hangs):
    weighed(hangs, 20, "4.25")
    noted(hangs, "cut", before="4.25 lb", after="3.40 lb", at=days_ago(19))
    # one piece to the log as well, under the mark it has there since
    entry = hangs.get(f"/batches/{hangs.code}")[1]["log"][-1]["content"]
    (rest,) = entry["pieces"]
    assert (entry["act"], entry["piece"], rest["weight"]) == ("split", "A", "3.40 lb")
    assert [(one["name"], one["weight"]) for one in entry["cut_off"]] == [
        ("cut while hanging", "385.5535145 g")
    ]
    assert (hanging(hangs)["mark"], hanging(hangs)["down_at"]) == (rest["mark"], None)
    assert hangs.get("/chamber")[1]["loose"] == []
    weighed(hangs, 10, "3.00", mark=rest["mark"])
    one = hanging(hangs)
    # four fifths of the green 5 lb are 4: 3 of them are a loss of a quarter, and 2.4 the target
    assert (one["lost"], one["weight_at_target"]["lb"]) == ("25.0", "2.40")


def test_cut_in_the_log_it_hangs_on_until_it_is_sliced(hangs):
    weighed(hangs, 20, "4.25")
    trim = {
        "act": "split",
        "kind": "trim",
        "piece": "A",
        "pieces": [{"mark": "A1", "weight": "3.40 lb"}],
        "cut_off": [{"name": "for the cook", "material": "lean", "weight": "0.85 lb"}],
    }
    hangs.recorded(hangs.code, trim, happened_at=days_ago(19))
    one = hanging(hangs)
    assert (one["label"], one["lost"], one["weight"]["lb"]) == (f"{hangs.code} A1", "15.0", "3.40")
    weighed(hangs, 10, "3.00", mark="A1")
    assert hanging(hangs)["lost"] == "25.0"
    # cut in two, or sliced, it is down
    slices = {"act": "split", "kind": "slice", "piece": "A1", "pieces": [{"mark": "S", "weight": "2.9 lb"}]}
    hangs.recorded(hangs.code, slices, happened_at=days_ago(5))
    answer = hangs.get("/chamber")[1]
    assert answer["hanging"] == []
    assert [one["down_at"][:10] for one in answer["down"]] == [days_ago(5)[:10]]


def test_what_it_is_to_lose_is_as_it_was_hung_here_last_for_what_it_becomes(api):
    code = api.started()
    api.recorded(code, TRIM)
    usual = {"air_dried": "35", "fermented_dried": "35"}
    assert api.get("/chamber")[1]["targets"] == usual
    api.recorded(code, {"act": "course", "course": "fermented_dried", "pieces": ["B"]})
    assert api.call("POST", "/hooks", {"code": code, "mark": "B", "target": "28"})[0] == 201
    assert api.get("/chamber")[1]["targets"] == {**usual, "fermented_dried": "28"}
    again = api.started(course="fermented_dried")
    assert api.call("POST", "/hooks", {"code": again, "mark": "lot"})[0] == 201
    assert api.call("POST", "/hooks", {"code": code, "mark": "A"})[0] == 201
    targets = {one["label"]: one["target"] for one in api.get("/chamber")[1]["hanging"]}
    assert targets == {f"{code} B": "28.0", again: "28.0", f"{code} A": "35.0"}


def test_taken_down_it_hangs_no_longer(hangs):
    weighed(hangs, 10, "3.75")
    answer = noted(hangs, "down")[1]
    assert answer["hanging"] == []
    assert [one["label"] for one in answer["down"]] == [f"{hangs.code} A"]
    status, body = noted(hangs, "ph", ph="5.5")
    assert (status, body["code"]) == (409, "hook_down")
    hangs.hook = hung(hangs)
    assert hanging(hangs)["green"]["lb"] == "3.75"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"mark": "A"}, "mark"),
        ({"mark": "B", "target": "0"}, "target"),
        ({"mark": "B", "target": "100"}, "target"),
        ({"mark": "B", "target": "140"}, "target"),
        ({"mark": "B", "green": "0 lb"}, "green"),
        ({"mark": "B", "hung_at": "2199-01-01T00:00:00Z"}, "hung_at"),
    ],
)
def test_what_cannot_hang_is_refused_at_its_place(hangs, change, path):
    body = {"code": hangs.code, "target": "40", **change}
    status, answer = hangs.call("POST", "/hooks", body)
    assert (status, [one["path"] for one in answer["fields"]]) == (422, [path])
    assert Hook.objects.count() == 1


@pytest.mark.parametrize(
    ("kind", "more", "path"),
    [
        ("air", {}, "humidity"),
        ("air", {"humidity": "140"}, "humidity"),
        ("air", {"temp": "1500"}, "temp"),
        ("ph", {"ph": "15"}, "ph"),
        ("ph", {}, "ph"),
        ("ferment", {}, "temp"),
        ("cut", {"before": "3 lb", "after": "4 lb"}, "after"),
        ("cut", {"before": "3 lb"}, "after"),
        ("down", {"at": "2020-01-01T00:00:00Z"}, "at"),
        ("down", {"at": "2199-01-01T00:00:00Z"}, "at"),
    ],
)
def test_a_note_that_cannot_be_is_refused_at_its_place(hangs, kind, more, path):
    status, answer = noted(hangs, kind, **more)
    assert (status, [one["path"] for one in answer["fields"]]) == (422, [path])
    assert not HookNote.objects.exists()


def test_another_kitchen_sees_none_of_it_and_a_resend_is_one(hangs):
    other = make_kitchen("other-kitchen")
    assert chamber(other)["hanging"] == []
    assert other.call("POST", f"/hooks/{hangs.hook}/notes", {"kind": "down"})[0] == 404
    assert other.call("POST", "/hooks", {"code": hangs.code, "mark": "B", "target": "40"})[0] == 404
    key = uuid.uuid4()
    for _ in range(2):
        status, _ = hangs.call("POST", f"/hooks/{hangs.hook}/notes", {"kind": "ph", "ph": "5.5"}, key)
        assert status == 201
    assert HookNote.objects.count() == 1
    assert hangs.call("POST", "/hooks", {"code": hangs.code, "mark": "Z", "target": "40"})[0] == 404


def test_a_kitchen_of_kilograms(hangs):
    Kitchen.objects.filter(slug=hangs.slug).update(weight_unit="kg", temperature_unit="C")
    answer = noted(hangs, "air", temp="13", humidity="76")[1]
    assert (answer["unit"], answer["air"][0]["temp"]) == ("C", "13.0")


@pytest.mark.parametrize("model", [Hook, HookNote])
def test_no_record_of_a_hook_is_ever_changed(hangs, model):
    noted(hangs, "ph", ph="5.5")
    with pytest.raises(OperationalError, match="never changed"), transaction.atomic():
        model.objects.update(recorded_at=timezone.now())


@pytest.fixture
def loft(hangs, settings):
    """A chamber that is heard, and one of another kitchen."""
    settings.CHAMBERS = f"{hangs.slug}/loft=line:127.0.0.1:1,elsewhere/cellar=line:127.0.0.1:1"
    return hangs


def heard(api, days, **values):
    kitchen = Kitchen.objects.get(slug=api.slug)
    texts = {name: str(value) for name, value in values.items()}
    at = timezone.now() - timedelta(days=days)
    ProbeReading.objects.create(kitchen=kitchen, cooker="loft", at=at, values=texts, heard_at=timezone.now())


def test_a_load_cell_weighs_what_hangs_on_it_every_six_hours(loft):
    weighed(loft, 29, "4.9")
    noted(loft, "down")
    loft.hook = hung(loft, hung_at=days_ago(20), chamber="loft", cell="1", green="5 lb")
    for hours in range(48):
        heard(loft, 20 - hours / 24, air=55, humidity=76, w1=2268 - 10 * hours, w2=100)
    one = hanging(loft)
    # at 0, 6, 12 … 42 hours, and the last
    assert len(one["dots"]) == 9
    # 2268 g less 470
    assert one["weight"]["lb"] == "3.96"
    assert (one["chamber"], one["cell"]) == ("loft", "1")
    weighed(loft, 17, "3.9")
    assert hanging(loft)["weight"]["lb"] == "3.90"


def test_a_chambers_air_is_shown_with_how_long_it_lay_outside(loft):
    for half_hours in range(20):
        heard(loft, 1 - half_hours / 48, air=55 if half_hours < 10 else 61, humidity=76 if half_hours else 90)
    (one,) = chamber(loft)["chambers"]
    assert (one["name"], one["is_heard"], one["temp"], one["humidity"]) == ("loft", True, "61", "76.0")
    assert one["outside"] == ["Air over 59 °F for 4.5 h."]
    assert (len(one["temps"]), one["cells"]) == (20, [])
    assert make_kitchen("no-loft").get("/chamber")[1]["chambers"] == []


def test_the_air_heard_enters_fermentation_and_rim(loft):
    noted(loft, "down")
    loft.hook = hung(loft, hung_at=days_ago(10), chamber="loft", green="5 lb")
    noted(loft, "ferment", temp="70", at=days_ago(10))
    for hours in range(49):
        heard(loft, 10 - hours / 24, air=80, humidity=90)
    noted(loft, "ph", ph="5.2", at=days_ago(8))
    # 20 °F above 60, for 48 hours, and not the 10 that were noted
    assert hanging(loft)["ferment"]["degree_hours"] == "960"


@pytest.mark.parametrize("cell", ["9", "0", "x"])
def test_a_load_cell_is_one_of_a_chamber_that_is_heard(loft, cell):
    body = {"code": loft.code, "mark": "B", "chamber": "loft", "cell": cell}
    assert loft.call("POST", "/hooks", body)[1]["fields"][0]["path"] == "cell"
    away = {**body, "chamber": "cellar", "cell": "1"}
    assert loft.call("POST", "/hooks", away)[1]["fields"][0]["path"] == "cell"


def test_a_load_cell_holds_one_piece(loft):
    body = {"code": loft.code, "mark": "B", "chamber": "loft", "cell": "1"}
    noted(loft, "down")
    hung(loft, chamber="loft", cell="1", green="5 lb")
    status, refused = loft.call("POST", "/hooks", body)
    assert (status, refused["fields"][0]["message"]) == (422, "Something hangs on load cell 1 already.")
    assert loft.call("POST", "/hooks", {**body, "cell": "2"})[0] == 201


def test_a_chamber_that_reads_humidity_alone_is_heard_too(loft):
    for number in range(3):
        heard(loft, 1 - number * 50 / 1440, humidity=60)
    (one,) = chamber(loft)["chambers"]
    assert (one["temp"], one["humidity"], one["outside"]) == (
        None,
        "60.0",
        ["Humidity under 70 % for 1.7 h."],
    )
    noted(loft, "down")
    loft.hook = hung(loft, hung_at=days_ago(2), chamber="loft", green="5 lb")
    assert hanging(loft)["chamber"] == "loft"
    kitchen = Kitchen.objects.get(slug=loft.slug)
    air = list(list_air(list_rows(kitchen, "loft", since=timezone.now() - timedelta(days=2))))
    assert {(one.fahrenheit, one.humidity) for one in air} == {(None, Fraction(60, 100))}


def test_what_hangs_is_counted_on_the_hook_of_its_place_until_it_is_taken_down(hangs, other):
    assert hangs.get("/alarms")[1]["pieces"] == 1
    assert other.get("/alarms")[1]["pieces"] == 0
    assert noted(hangs, "down")[0] == 201
    assert hangs.get("/alarms")[1]["pieces"] == 0


def test_what_hangs_in_the_chamber_hangs_by_the_log_and_is_to_be_dried(api):
    api.code = api.started()
    api.recorded(api.code, TRIM)
    hung(api)
    log = api.get(f"/batches/{api.code}")[1]["log"]
    assert [(one["label"], one["lines"][0]) for one in log[2:]] == [
        ("To become", "A: air-dried"),
        ("Hung", "A 5 lb"),
    ]
    pieces = {one["mark"]: one for one in api.get(f"/batches/{api.code}/pieces")[1]["pieces"]}
    assert (pieces["A"]["course"], pieces["A"]["is_raw"], pieces["B"]["course"]) == ("air_dried", True, None)
    assert chamber(api)["loose"] == []
    # weighed by either, the weight is one
    weighed(api, 0, "4.5")
    assert (hanging(api)["weight"]["lb"], hanging(api)["lost"]) == ("4.50", "10.0")


def test_what_hangs_by_the_log_is_followed_with_all_that_was_weighed_since(api):
    bought = {"name": "Test jowl", "bought": BOUGHT, "happened_at": days_ago(40)}
    api.code = api.call("POST", "/batches", bought)[1]["batch"]["code"]
    api.recorded(api.code, TRIM, happened_at=days_ago(39))
    since = days_ago(30)
    api.recorded(api.code, weigh("hang", A="4.8 lb"), happened_at=since)
    weighed(api, 20, "4.2")
    weighed(api, 10, "3.9")
    (loose,) = chamber(api)["loose"]
    assert (loose["label"], loose["weight"]["lb"]) == (f"{api.code} A", "3.90")
    count = len(api.get(f"/batches/{api.code}")[1]["log"])
    hung(api, hung_at=loose["since"])
    one = hanging(api)
    assert (one["green"]["lb"], one["weight"]["lb"], one["lost"]) == ("4.80", "3.90", "18.8")
    assert [round(dot["day"]) for dot in one["dots"]] == [10, 20]
    # the log knew it: what it becomes follows from its hanging, and nothing is weighed again
    assert len(api.get(f"/batches/{api.code}")[1]["log"]) == count
    assert chamber(api)["loose"] == []


def test_what_was_sliced_hangs_no_longer(hangs):
    weighed(hangs, 10, "3.75")
    sliced = [{"mark": "S", "weight": "3.7 lb"}]
    at = days_ago(5)
    hangs.recorded(
        hangs.code, {"act": "split", "kind": "slice", "piece": "A", "pieces": sliced}, happened_at=at
    )
    answer = chamber(hangs)
    assert answer["hanging"] == []
    assert [one["down_at"] for one in answer["down"]] == [at.replace("+00:00", "Z")]
    status, body = noted(hangs, "ph", ph="5.5")
    assert (status, body["code"]) == (409, "hook_down")
    assert hangs.get("/alarms")[1]["pieces"] == 0
