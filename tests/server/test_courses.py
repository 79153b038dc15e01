"""What the meat is to become, hot or cold, and what is raw: said once, known in every room."""

import json
import uuid
from importlib import import_module

import pytest
from django.apps import apps

from dolmetsch.core.documents.answers import answer_cure
from dolmetsch.core.heat.raw import RAW_LABEL
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.models import Batch, Entry, Forecast
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.cures.queries import find_salt_in_slice
from dolmetsch.server.labels.facts import gather_labels
from dolmetsch.server.plans.models import PlannedTask
from tests.server.conftest import BOUGHT, TRIM, make_kitchen, weigh
from tests.server.test_case import WAY, save
from tests.server.test_cures import ask, on_desk, put_in
from tests.server.test_documents import file_of, imported, take
from tests.server.test_larder import close, pack, page, stores

CURED = weigh("cure", A="4.8 lb", B="2.9 lb")


def smoke(heat="", inside="", **weights):
    return {**weigh("smoke", **(weights or {"A": "4.4 lb", "B": "2.6 lb"})), "heat": heat, "inside": inside}


@pytest.fixture
def code(api):
    api.code = api.started()
    api.recorded(api.code, TRIM)
    api.recorded(api.code, CURED)
    return api.code


def say(api, code, course, *marks, **more):
    return api.record(code, {"act": "course", "course": course, "pieces": [*marks]}, **more)


def courses(api, code):
    batch = Batch.objects.get(code=code, kitchen__slug=api.slug)
    costed = cost_batch(batch)
    return dict(courses_of(batch, costed.sheet.ledger.mains, costed.chain.current))


def raw(api, code):
    return [one["mark"] for one in api.get(f"/batches/{code}/pieces")[1]["pieces"] if one["is_raw"]]


def lines(api, code):
    return api.get(f"/batches/{code}")[1]["log"][-1]["lines"]


def test_meat_smoked_cold_on_the_bench_is_called_raw_in_every_room(api, code):
    stores(api)
    api.recorded(code, smoke("cold", A="4.8 lb", B="2.6 lb"))
    assert lines(api, code)[1] == "cold"
    assert raw(api, code) == ["A", "B"]
    assert "raw" in [one["code"] for one in api.get(f"/batches/{code}/verdict")[1]["cautions"]]
    assert close(api, [pack(store="Freezer")])[0] == 201
    assert [one["code"] for one in api.get(f"/batches/{code}/board")[1]["cautions"]] == ["raw"]
    assert page(api)["pack"]["is_raw"] is True
    (label,) = gather_labels(Batch.objects.get(code=code), ["B"], root="")
    assert RAW_LABEL in label.lines
    product = page(api)["pack"]["product"]
    dish = {"name": "Roll", "parts": [{"sort": "larder", "name": product, "amount": "3 slices"}]}
    assert api.call("POST", "/dishes", dish)[0] == 201
    assert [one["is_raw"] for one in api.get("/dishes/Roll")[1]["parts"]] == [True]
    document = json.loads(file_of(api, code).content)
    assert [step.get("heat") for step in document["steps"]] == [None, None, "cold", None]
    # it is told as it was typed, and a correction to hot cooks it
    smoked = next(one for one in api.get(f"/batches/{code}")[1]["log"] if one["label"] == "Smoked")
    assert smoked["content"]["heat"] == "cold"
    api.recorded(
        code, smoke("hot", A="4.8 lb", B="2.6 lb"), corrects=smoked["id"], reason="it was the hot one"
    )
    assert (raw(api, code), page(api)["pack"]["is_raw"]) == ([], False)


@pytest.mark.parametrize(
    ("unit", "heat", "inside", "said", "is_raw"),
    [
        ("lb", "hot", "", "hot", False),
        ("lb", "hot", "144.9", "hot, 144.9 °F inside", True),
        ("lb", "hot", "145", "hot, 145 °F inside", False),
        ("lb", "", "63 C", "63 °C inside", False),
        ("kg", "", "62", "62 °C inside", True),
        ("kg", "", "152 °F", "152 °F inside", False),
    ],
)
def test_a_reading_inside_decides_in_either_unit(db, unit, heat, inside, said, is_raw):
    api = make_kitchen("reading", weight_unit=unit)
    code = api.started()
    api.recorded(code, TRIM)
    api.recorded(code, smoke(heat, inside))
    assert lines(api, code)[1] == said
    assert bool(raw(api, code)) is is_raw
    back = api.get(f"/batches/{code}")[1]["log"][-1]["content"]
    back_inside = said.removeprefix("hot, ").removesuffix(" inside") if inside else ""
    assert (back["heat"], back["inside"]) == (heat, back_inside)
    first = file_of(api, code).content
    assert file_of(api, imported(api, first.decode())).content == first


@pytest.mark.parametrize(
    ("content", "path"),
    [
        ({**CURED, "heat": "hot"}, "heat"),
        ({**CURED, "inside": "150"}, "inside"),
        (smoke(inside="very"), "inside"),
        (smoke(inside="1001"), "inside"),
    ],
)
def test_heat_that_cannot_be_is_refused_at_its_field(api, code, content, path):
    status, problem = api.record(code, content)
    assert (status, [field["path"] for field in problem["fields"]]) == (422, [path])


def test_a_course_is_said_changed_and_canceled_in_the_log(api, code):
    assert courses(api, code) == {"A": None, "B": None}
    assert say(api, code, "cooked")[0] == 201
    assert say(api, code, "air_dried", "B")[0] == 201
    assert (lines(api, code), courses(api, code)) == (["B: air-dried"], {"A": "cooked", "B": "air_dried"})
    shown = api.get(f"/batches/{code}/pieces")[1]["pieces"]
    assert [(one["course_label"], one["smoke"]) for one in shown] == [
        ("cooked", "hot"),
        ("air-dried", "cold"),
    ]
    # what is cut from a piece goes its way
    api.recorded(
        code,
        {"act": "split", "kind": "cut", "piece": "B", "pieces": [{"weight": "1 lb"}, {"weight": "1.8 lb"}]},
    )
    assert courses(api, code) == {"A": "cooked", "B1": "air_dried", "B2": "air_dried"}
    document = json.loads(file_of(api, code).content)
    assert (document["course"], document["courses"]) == ("cooked", {"B": "air_dried"})
    again = imported(api, json.dumps(document))
    assert courses(api, again) == courses(api, code)
    assert json.loads(file_of(api, again).content) == document
    said = Entry.objects.get(batch__code=code, course="air_dried")
    assert api.get(f"/batches/{code}")[1]["log"][said.sequence - 1]["content"]["pieces"] == ["B"]
    assert api.record(code, {"act": "withdraw"}, corrects=said.pk, reason="a slip")[0] == 201
    assert courses(api, code) == {"A": "cooked", "B1": "cooked", "B2": "cooked"}
    assert say(api, code, "")[0] == 201
    assert lines(api, code) == ["not said any more"]
    assert courses(api, code) == {"A": None, "B1": None, "B2": None}
    assert "course" not in json.loads(file_of(api, code).content)
    status, problem = say(api, code, "cooked", "A", "Q")
    found = [(field["path"], field["code"]) for field in problem["fields"]]
    assert (status, found) == (422, [("pieces[1]", "unknown_piece")])


def test_a_batch_is_started_for_what_it_is_to_become(api):
    key = str(uuid.uuid4())
    body = {"name": "Cold one", "bought": BOUGHT, "course": "cold_smoked_raw"}
    status, started = api.call("POST", "/batches", body, key)
    code = started["batch"]["code"]
    assert (status, [one["label"] for one in started["batch"]["log"]]) == (201, ["Bought", "To become"])
    assert api.call("POST", "/batches", body, key)[0] in (200, 201)
    assert (Batch.objects.count(), Entry.objects.count()) == (1, 2)
    api.recorded(code, TRIM)
    # a smoke nobody said anything of goes by it
    api.recorded(code, smoke())
    assert raw(api, code) == ["A", "B"]


def test_the_desk_says_it_for_its_piece_and_takes_it_from_the_batch(api, code):
    api.code = api.started(name="Other")
    api.recorded(api.code, TRIM)
    assert put_in(api, api.code, on_desk("A", course="cold_smoked_raw"))[0] == 201
    assert courses(api, api.code) == {"A": "cold_smoked_raw", "B": None}
    (shown,) = ask(api, api.code, on_desk("A"))["pieces"]
    assert shown["course"] == "cold_smoked_raw"
    before = Entry.objects.count()
    say(api, api.code, "cooked", "B")
    assert put_in(api, api.code, on_desk("B", course="cooked"))[0] == 201
    # said already: it is not said again
    assert Entry.objects.count() == before + 1
    kinds = PlannedTask.objects.filter(batch__code=api.code, kind__in=["hang", "smoke"])
    assert {one.kind for one in kinds} == {"smoke"}
    api.recorded(api.code, smoke())
    assert raw(api, api.code) == ["A"]


def test_what_was_said_at_the_desk_before_there_were_courses_is_kept(api, code):
    put_in(api, code, on_desk("A"), on_desk("B"), sure=True)
    made = PieceCure.objects.get(mark="A")
    for number, (mark, finish) in enumerate([("A", "cold_smoked"), ("B", "cooked")]):
        answer = {**made.answer, "finish": finish}
        fields = {
            one.attname: getattr(made, one.attname) for one in PieceCure._meta.fields if one.name != "id"
        }
        PieceCure.objects.create(**{**fields, "mark": mark, "answer": answer, "key": uuid.UUID(int=number)})
    import_module("dolmetsch.server.cures.migrations.0002_courses_said").state_courses(apps, None)
    assert courses(api, code) == {"A": "cold_smoked_raw", "B": None}
    said = Entry.objects.get(act="course")
    assert (said.sequence, said.happened_at, said.recorded_at) == (4, made.in_at, made.recorded_at)
    # the batch goes on behind it
    assert say(api, code, "cooked")[0] == 201


@pytest.mark.parametrize(("heat", "is_raw"), [("hot", False), ("cold", True)])
def test_meat_of_another_batch_is_as_raw_as_it_was_there(api, code, heat, is_raw):
    api.recorded(code, smoke(heat))
    down = api.started(name="Sausage", bought=take(code, weight="2 lb"))
    sliced = [{"mark": "S", "weight": "1.9 lb"}]
    api.recorded(down, {"act": "split", "kind": "slice", "piece": "lot", "pieces": sliced})
    assert raw(api, down) == (["S"] if is_raw else [])


def test_salt_in_the_slice_is_a_bound_once_it_was_soaked(api, code):
    put_in(api, code, on_desk("A"), wishes={"soak_minutes": 40}, sure=True)
    cure = PieceCure.objects.get()
    said = find_salt_in_slice(cure)
    assert said == cure.answer["salt_in_slice"]
    PlannedTask.objects.filter(kind="soak", batch__code=code).update(state=PlannedTask.State.DONE)
    soaked = f"under {said.partition(',')[0]}: it was soaked since, so taste it"
    assert find_salt_in_slice(cure) == soaked
    PlannedTask.objects.filter(kind="soak").update(state=PlannedTask.State.OPEN)
    assert find_salt_in_slice(cure) == said
    api.recorded(code, weigh("Soak", B="2.8 lb"))
    assert find_salt_in_slice(PieceCure.objects.get()) == said
    api.recorded(code, weigh("Soak", A="4.7 lb"))
    assert find_salt_in_slice(PieceCure.objects.get()) == soaked


def test_two_stages_without_nitrite_are_possible_and_all_cautions_stand(api, code):
    bare = {
        "school": "two_stage",
        "agent": "none",
        "target": "",
        "extras": [{"name": "juniper", "amount": "0.3 %", "stage": 2}],
    }
    (piece,) = ask(api, code, on_desk(recipe=bare, course="air_dried", is_kept_warm=True))["pieces"]
    assert [one["code"] for one in piece["cautions"]][:3] == ["no_nitrite", "no_nitrite", "kept_warm"]
    assert (
        put_in(api, code, on_desk(recipe=bare, course="air_dried"), wishes={"spice_day": 5}, sure=True)[0]
        == 201
    )
    kinds = set(PlannedTask.objects.filter(batch__code=code).values_list("kind", flat=True))
    assert {"spice", "hang"} <= kinds


def test_the_command_and_the_desk_say_one_sentence_of_a_limit(api, code):
    """2 g of no. 1 on 800 g of sausage meat are 156.25 ppm, which the rule behind the limit of 156 allows."""
    document = {
        "format": "dolmetsch-cure/1",
        "method": "dry",
        "meat": "2 kg",
        "agent": {"nitrite": "0.0625"},
        "agent_amount": "5 g",
        "product": "comminuted",
    }
    said = answer_cure(json.dumps(document))["warnings"]
    sausage = {"school": "sausage", "target": "", "agent_amount": "0.25 %"}
    (piece,) = ask(api, code, on_desk(recipe=sausage))["pieces"]
    (desk,) = [one["message"] for one in piece["cautions"] if one["code"] == "at_rule"]
    assert [one for one in said if one.startswith(desk)]
    assert "Nothing to change." in desk


def forecast(api, code):
    return api.get(f"/batches/{code}/forecast")[1]


def test_a_shoulder_to_be_pulled_is_forecast_as_that_with_no_method_chosen(api):
    """8 lb at $2.50: trimmed to .82 and pulled at .60 a pound is about $5; as sliced bacon $3.70."""
    bought = {
        **BOUGHT,
        "cut": "shoulder, bone in",
        "own_weight": "8 lb",
        "label_weight": "",
        "price": "20.00",
    }
    code = api.call("POST", "/batches", {"name": "Shoulder", "bought": bought})[1]["batch"]["code"]
    unsaid = forecast(api, code)
    lines = {one["course"]: float(one["price"]["middle"]["per_lb"]) for one in unsaid["courses"]}
    assert unsaid["course"] is None
    assert list(lines) == ["cooked", "pulled", "steamed", "cold_smoked_raw", "cured_raw", "air_dried"]
    assert lines["cold_smoked_raw"] < lines["cooked"] < lines["pulled"]
    assert say(api, code, "pulled")[0] == 201
    said = forecast(api, code)
    assert (said["course"], said["courses"], said["way"]) == ("pulled", [], None)
    assert [step["kind"] for step in said["steps"]] == ["trim", "cook"]
    assert float(said["price"]["middle"]["per_lb"]) == pytest.approx(lines["pulled"], abs=0.01)
    assert 4.3 < float(said["price"]["low"]["per_lb"]) < 5.1 < float(said["price"]["high"]["per_lb"]) < 6
    page = api.get(f"/batches/{code}")[1]
    assert [one["kind"] for one in page["strip"]["to_come"]] == ["trim", "cook", "pull"]
    assert Batch.objects.get(code=code).summary["next"]["kind"] == "trim"
    # on to the end: what it came to lies in the range
    api.recorded(
        code, {"act": "split", "kind": "trim", "piece": "lot", "pieces": [{"mark": "A", "weight": "6.6 lb"}]}
    )
    api.recorded(code, {**weigh("cook", A="4 lb"), "inside": "201"})
    assert [one["kind"] for one in api.get(f"/batches/{code}")[1]["strip"]["to_come"]] == ["pull"]
    api.recorded(code, weigh("pull", A="4 lb"))
    done = api.get(f"/batches/{code}")[1]
    assert (done["is_finished"], done["house"]["unit_cost"]["per_lb"]) == (True, "5.00")
    # the next one of this cut is asked about what the last one became first
    again = api.call("POST", "/batches", {"name": "Another", "bought": bought})[1]["batch"]["code"]
    assert forecast(api, again)["courses"][0]["course"] == "pulled"


@pytest.mark.parametrize(
    ("course", "to_come", "methods"),
    [
        ("cold_smoked_raw", ["rest", "smoke", "chill", "slice"], ["rest", "smoke", "chill", "slice"]),
        ("cured_raw", ["rest", "slice"], ["rest", "slice"]),
        ("air_dried", ["hang", "slice"], ["dry", "slice"]),
        ("steamed", ["rest", "steam", "chill", "slice"], ["rest", "cook", "chill", "slice"]),
    ],
)
def test_the_steps_to_come_are_those_of_the_course(api, code, course, to_come, methods):
    say(api, code, course)
    strip = api.get(f"/batches/{code}")[1]["strip"]
    assert [one["kind"] for one in strip["to_come"]] == to_come
    assert [one["kind"] for one in forecast(api, code)["steps"]] == methods
    # pieces that go different ways have no one way
    say(api, code, "cooked", "A")
    assert [one["kind"] for one in api.get(f"/batches/{code}")[1]["strip"]["to_come"]][-1] == "slice"
    answer = forecast(api, code)
    assert (answer["courses"], answer["price"], answer["steps"]) == ([], None, [])
    assert [(one["marks"], one["course"]) for one in answer["groups"]] == [
        (["A"], "cooked"),
        (["B"], course),
    ]
    # each is what it would be if all became that, for both cost the same by weight until here
    for one in answer["groups"]:
        say(api, code, one["course"])
        whole = forecast(api, code)
        assert whole["groups"] == []
        near = float(whole["price"]["middle"]["per_lb"])
        assert float(one["price"]["middle"]["per_lb"]) == pytest.approx(near, rel=0.01)
        assert float(one["weight"]["middle"]["lb"]) < float(whole["weight"]["middle"]["lb"])


def test_a_method_does_not_speak_for_a_piece_that_becomes_something_else(api, code):
    """Nor does the fire for one that is not to be what it makes."""
    assert api.call("POST", "/ways", WAY)[0] == 201
    assert api.call("POST", f"/batches/{code}/way", {"way": WAY["name"]})[0] in (200, 201)
    alone = forecast(api, code)
    say(api, code, "air_dried", "B")
    answer = forecast(api, code)
    assert (answer["price"], answer["way"]) == (None, None)
    assert [one["course"] for one in answer["groups"]] == [alone["course"], "air_dried"]
    assert answer["groups"][0]["price"] != answer["groups"][1]["price"]
    (shown,) = api.get("/verdicts")[1]["under_way"]
    assert shown["price"] is None


def test_where_nobody_said_there_is_no_one_price_in_any_room(api, code):
    api.recorded(code, {"act": "shop_pack", "name": "good", "paid": "8.00", "weight": "1 lb"})
    answer = forecast(api, code)
    assert (answer["price"], answer["weight"], answer["chance"], answer["steps"]) == (None, None, None, [])
    (shown,) = api.get("/verdicts")[1]["under_way"]
    assert (shown["price"], shown["chance"]) == (None, None)
    assert api.get(f"/batches/{code}/verdict")[1]["judged"]["expected"] is None
    assert not Forecast.objects.exists()
    say(api, code, "cooked")
    (shown,) = api.get("/verdicts")[1]["under_way"]
    assert shown["price"] == forecast(api, code)["price"]["middle"]
    assert Forecast.objects.count() == 1


def test_the_latest_said_counts_a_method_as_well(api, code):
    """A method leads somewhere too: choosing it says so, until something else is said."""
    save(api, {**WAY, "name": "dried", "steps": [{"method": "dry_cure"}, {"method": "air_dry"}]})
    save(api, {**WAY, "name": "cured", "steps": [{"method": "dry_cure"}, {"method": "slice"}]})
    say(api, code, "pulled")
    assert api.call("POST", f"/batches/{code}/way", {"way": "dried"})[0] == 201
    assert courses(api, code) == {"A": "air_dried", "B": "air_dried"}
    assert [one["kind"] for one in api.get(f"/batches/{code}")[1]["strip"]["to_come"]] == ["hang", "slice"]
    assert Batch.objects.get(code=code).summary["mains"][0]["course"] == "air_dried"
    assert forecast(api, code)["way"] == "dried"
    say(api, code, "cooked", "B")
    assert courses(api, code) == {"A": "air_dried", "B": "cooked"}
    say(api, code, "cooked")
    # said since: the method does not lead there, so its steps are the standard ones
    answer = forecast(api, code)
    assert (answer["way"], answer["course"]) == (None, "cooked")
    assert [one["kind"] for one in answer["steps"]] == ["rest", "smoke", "chill", "slice"]
    # a method that leads to nothing by itself leaves what was said
    assert api.call("POST", f"/batches/{code}/way", {"way": "cured"})[0] == 201
    assert courses(api, code) == {"A": "cooked", "B": "cooked"}
    assert forecast(api, code)["way"] == "cured"


def sliced(api, code):
    for mark in "AB":
        part = {"mark": f"{mark}1", "weight": "2.5 lb", "slices": "9"}
        api.recorded(code, {"act": "split", "kind": "slice", "piece": mark, "pieces": [part]})


def test_books_keep_a_shoulder_taken_to_200_apart_from_a_hot_smoke(api):
    """Same cut, no method chosen: what each was heated to tells them apart, in books and in forecasts."""
    made = {}
    for name, steps in {
        "hot": [smoke("hot", "150")],
        "long": [smoke("hot", "201", A="3 lb", B="2.6 lb")],
        "cold": [smoke("cold")],
        "apart": [smoke("hot", "150", A="4.4 lb"), smoke("hot", "200", B="2.6 lb")],
    }.items():
        made[name] = api.started()
        api.recorded(made[name], TRIM)
        api.recorded(made[name], CURED)
        for step in steps:
            api.recorded(made[name], step)
        sliced(api, made[name])
    kept = {one["method"]: one["batches"] for one in api.get("/yields")[1]["yields"]}
    assert kept == {"trim": 4, "dry_cure": 4, "slice": 4, "hot_smoke": 1, "pulled": 1, "cold_smoke": 1}
    book = api.get("/books/yields?by=way")[1]
    labels = {one["label"]: one["parts"][0]["spread"]["batches"] for one in book["sorts"]}
    assert labels == {
        "jowl skin on · cooked": 2,
        "jowl skin on · long cook": 1,
        "jowl skin on · cold-smoked, raw": 1,
    }
    insides = api.get("/books/yields?by=way&part=inside")[1]["sorts"]
    parts = [part["label"] for one in insides if one["label"].endswith("long cook") for part in one["parts"]]
    assert parts == ["190 °F and more"]
    houses = {one["label"] for one in api.get("/books/prices")[1]["house"]}
    assert houses == {*labels}


def test_a_weight_is_judged_by_what_the_piece_becomes(api, code):
    """A cold smoke keeps .96, a hot one .86, a long cook .60: each is usual for its own alone."""

    def usual(kind="smoke", **more):
        asked = {"kind": kind, "mark": "A", "weight": "4.6 lb", **more}
        answer = api.call("POST", f"/batches/{code}/on-the-scale", asked)[1]
        return answer["usual"]["label"].removeprefix("usual for "), answer["asks"]

    assert usual()[0] == "hot smokes"
    assert usual(heat="cold") == ("cold smokes", "")
    say(api, code, "air_dried", "A")
    assert usual() == ("cold smokes", "")
    assert usual(heat="hot")[0] == "hot smokes"
    assert usual(kind="hang")[0] == "dryings"
    say(api, code, "pulled", "A")
    label, asks = usual()
    assert label == "long cooks"
    assert asks.endswith("Weighed with the tray?")


def test_a_smoke_called_hot_that_read_too_cold_is_asked_about(api, code):
    def asks(**more):
        return api.preview(code, smoke(A="4.4 lb", **more))[1]["asks"]

    said = "120 °F inside: under 145 °F it is not cooked, and is called raw. Is that right?"
    assert asks(heat="hot", inside="120") == [said]
    assert asks(heat="hot", inside="145") == asks(heat="cold", inside="90") == asks(heat="hot") == []
    cooked = {**weigh("cook", A="4 lb"), "inside": "63 C"}
    assert api.preview(code, cooked)[1]["asks"] == []
    assert api.preview(code, {**cooked, "inside": "60 C"})[1]["asks"] == [said.replace("120", "140")]
    # it is recorded all the same, and raw
    api.recorded(code, smoke("hot", "120", A="4.4 lb"))
    assert raw(api, code) == ["A"]
