"""What the cook has said in one room, every other room knows: whole walks, from the tag to the verdict."""

import json
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.fires.models import FireEvent
from tests.browser.choosing import choose, offered
from tests.browser.test_access import serious
from tests.browser.test_bench import cook, wait_until
from tests.server.conftest import BOUGHT, weigh


def start(page: Page, home: str, name: str, cut: str, becomes: str) -> str:
    """A batch started at the tag for what it is to become; its code."""
    page.goto(f"{home}/buy/start")
    page.get_by_label("Name of the batch").fill(name)
    page.get_by_label("Cut", exact=True).fill(cut)
    page.get_by_label("Weight on the label").fill("8 lb")
    page.get_by_label("Price", exact=True).fill("2.50")
    page.get_by_role("radio", name=becomes).check(force=True)
    page.get_by_role("button", name="Start the batch").click()
    expect(page.get_by_role("heading", name=name)).to_be_visible()
    return Batch.objects.get(name=name).code


def trimmed(weight: str) -> dict[str, object]:
    pieces = [{"mark": "A", "weight": weight}]
    return {"act": "split", "kind": "trim", "piece": "lot", "pieces": pieces}


def test_a_cold_smoked_belly_is_called_raw_on_every_page_and_document(kitchen: Page, canteen):
    code = start(kitchen, canteen, "Cold belly", "pork belly, skin off", "Cold-smoked, raw")
    expect(kitchen.get_by_text("becomes: cold-smoked, raw", exact=True)).to_be_visible()
    api, at = cook(), (timezone.now()).isoformat()
    api.recorded(code, trimmed("7 lb"))
    api.recorded(code, weigh("cure", A="6.8 lb"), happened_at=at)
    kitchen.reload()
    kitchen.get_by_role("radio", name="Smoke").check(force=True)
    # what was said at the tag is known here
    expect(kitchen.get_by_role("radio", name="Cold: stays raw")).to_be_checked()
    kitchen.get_by_label("Weight of A").fill("6.5 lb")
    kitchen.get_by_role("button", name="Record the smoke").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: smoked")
    expect(kitchen.get_by_text("raw, cook before eating")).to_be_visible()
    assert serious(kitchen) == []
    made = [{"mark": "S", "weight": "6 lb", "slices": "96"}]
    sliced = {"act": "split", "kind": "slice", "piece": "A", "pieces": made}
    seen = api.get(f"/batches/{code}")[1]["seen"]
    packs = [{"piece": "S", "product": "Cold belly", "weight": "1 lb", "slices": "16", "store": "Freezer"}]
    body = {"split": sliced, "packs": packs, "seen": seen}
    assert api.call("POST", f"/batches/{code}/packs", body)[0] == 201
    dish = {"name": "Belly toast", "parts": [{"sort": "larder", "name": "Cold belly", "amount": "2 slices"}]}
    assert api.call("POST", "/dishes", dish)[0] == 201
    for path in (
        f"/bench/{code}",
        f"/bench/{code}/piece/S",
        f"/verdict/{code}",
        f"/slice/board/{code}",
        f"/slice/pack/{code}/P1",
        "/slice/dishes/Belly%20toast",
    ):
        kitchen.goto(f"{canteen}{path}")
        expect(kitchen.get_by_text("cook before eating").first).to_be_visible()
    document = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/files/json").content
    assert json.loads(document)["course"] == "cold_smoked_raw"


def test_a_shoulder_pulled_at_200_from_tag_to_verdict_with_no_method_chosen(kitchen: Page, canteen):
    code = start(kitchen, canteen, "Pulled shoulder", "shoulder, bone in", "Pulled")
    note = kitchen.get_by_role("region", name="What it will come to")
    expect(note).to_contain_text("It becomes: pulled")
    api = cook()
    api.recorded(code, trimmed("6.6 lb"))
    foreseen = api.get(f"/batches/{code}/forecast")[1]["price"]
    kitchen.reload()
    # the next step is the one of its course
    expect(kitchen.get_by_role("radio", name="Cook", exact=True)).to_be_checked()
    kitchen.get_by_label("Weight of A").fill("4 lb")
    kitchen.get_by_label("Highest inside, if read").fill("201")
    kitchen.get_by_role("button", name="Record cooking").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: cooked")
    expect(kitchen.get_by_role("radio", name="Pull", exact=True)).to_be_checked()
    kitchen.get_by_label("Weight of A").fill("4 lb")
    kitchen.get_by_role("button", name="Record pulling").click()
    expect(kitchen.get_by_role("status")).to_contain_text("pulled")
    wait_until(kitchen, Batch.objects.filter(code=code, is_finished=True).exists)
    came = api.get(f"/batches/{code}")[1]["house"]["unit_cost"]["per_lb"]
    assert float(foreseen["low"]["per_lb"]) < float(came) < float(foreseen["high"]["per_lb"])
    kitchen.goto(f"{canteen}/verdict/{code}")
    expect(kitchen.get_by_text(f"${came}").first).to_be_visible()


def test_a_fire_read_by_hand_with_two_pieces(kitchen: Page, canteen):
    api, begun = cook(), timezone.now() - timedelta(minutes=40)
    body = {
        "name": "Night lamb",
        "cooker": "",
        "pull_at": "145",
        "begun_at": begun.isoformat(),
        "pieces": [{"code": "B-01", "mark": mark, "rack": 1, "slot": 1 + "AB".index(mark)} for mark in "AB"],
        "stages": [{"kind": "cook", "air": "225"}],
    }
    status, fire = api.call("POST", "/fires", body)
    assert status == 201, fire
    kitchen.goto(f"{canteen}/fire/{fire['id']}")
    alarms = kitchen.get_by_role("list", name="Alarms")

    def read(piece: str, degrees: str, where: str) -> None:
        kitchen.get_by_role("button", name="Instant reading").click()
        choose(kitchen.get_by_role("combobox", name="Piece"), piece)
        kitchen.get_by_label("Reading, ").fill(degrees)
        kitchen.get_by_label("Where in it").fill(where)
        kitchen.get_by_role("button", name="Record it").click()
        expect(kitchen.get_by_text(f"{piece}, {where} by hand: {degrees} °F")).to_be_visible()

    read("B-01 A", "150", "thick end")
    # the other one was not read: nobody says that it is done
    expect(kitchen.get_by_text("Not read: B-01 B.")).to_be_visible()
    expect(kitchen.get_by_text("not read, so not known to be done: B-01 B")).to_be_visible()
    assert serious(kitchen) == []
    read("B-01 B", "147", "thin end")
    expect(alarms).to_contain_text("145 °F is reached: pull it.")
    # a colder place takes it back, and the alarm with it
    read("B-01 B", "133", "bone")
    expect(kitchen.get_by_text("is reached: pull it.")).to_have_count(0)
    assert FireEvent.objects.filter(fire=fire["id"], kind="instant").count() == 3


def test_a_sausage_of_two_finished_meats_leaves_nothing_stale(kitchen: Page, canteen):
    api, codes = cook(), []
    for name in ("Smoked jowl", "Smoked neck"):
        code = api.started(name=name, course="cooked")
        api.recorded(code, trimmed("7 lb"))
        api.recorded(code, {**weigh("smoke", A="6 lb"), "heat": "hot"})
        codes.append(code)
    first, second = codes
    kitchen.goto(f"{canteen}/buy/start")
    kitchen.get_by_label("Name of the batch").fill("Harbor sausage")
    kitchen.get_by_role("radio", name="From another batch").check(force=True)
    choose(kitchen.get_by_label("From batch"), first)
    choose(kitchen.get_by_label("Piece", exact=True), "A")
    kitchen.get_by_label("What it is").fill("smoked jowl")
    kitchen.get_by_role("radio", name="Cooked", exact=True).check(force=True)
    kitchen.get_by_role("button", name="Start the batch").click()
    expect(kitchen.get_by_role("heading", name="Harbor sausage")).to_be_visible()
    kitchen.get_by_role("button", name="Add meat").click()
    kitchen.get_by_role("radio", name="From another batch").check(force=True)
    choose(kitchen.get_by_label("From batch"), second)
    choose(kitchen.get_by_label("Piece", exact=True), "A")
    kitchen.get_by_label("What it is").fill("smoked neck")
    kitchen.get_by_role("button", name="Add this meat").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: bought, smoked neck")
    sausage = Batch.objects.get(name="Harbor sausage").code
    # both meats went into it whole: they are finished, and no room lists them any more
    assert set(Batch.objects.filter(code__in=codes).values_list("is_finished", flat=True)) == {True}
    for path in ("/", "/bench/map", "/fire/new"):
        kitchen.goto(f"{canteen}{path}")
        expect(kitchen.get_by_text(sausage).first).to_be_visible()
        for code in codes:
            expect(kitchen.get_by_text(f"{code} A", exact=True)).to_have_count(0)
    kitchen.goto(f"{canteen}/buy/start")
    kitchen.get_by_role("radio", name="From another batch").check(force=True)
    choose(kitchen.get_by_label("From batch"), first)
    expect(offered(kitchen.get_by_label("Piece", exact=True))).to_have_text(["choose one"])
    assert serious(kitchen) == []


def test_a_plan_for_sixty_when_half_the_larder_is_past_its_date(kitchen: Page, canteen):
    api = cook()
    code = api.started(name="Quay ham", bought={**BOUGHT, "own_weight": "9 lb"}, course="cooked")
    api.recorded(code, trimmed("8 lb"))
    api.recorded(code, {**weigh("smoke", A="7 lb"), "heat": "hot"})
    sliced = {"act": "split", "kind": "slice", "piece": "A", "pieces": [{"mark": "S", "weight": "6 lb"}]}
    fridge = next(one["name"] for one in api.get("/map")[1]["stores"] if one["sort"] == "fridge")
    packs = [
        {"piece": "S", "product": "Quay ham", "weight": "3 lb", "store": store}
        for store in (fridge, "Freezer")
    ]
    seen = api.get(f"/batches/{code}")[1]["seen"]
    assert (
        api.call("POST", f"/batches/{code}/packs", {"split": sliced, "packs": packs, "seen": seen})[0] == 201
    )
    dish = {
        "name": "Ham roll",
        "price": "8.00",
        "parts": [{"sort": "larder", "name": "Quay ham", "amount": "2 oz"}],
    }
    assert api.call("POST", "/dishes", dish)[0] == 201
    day = (timezone.localdate() + timedelta(days=25)).isoformat()
    make = {"way": "Dry cure, cherry smoke", "cut": "jowl, skin on", "price": "3.00/lb"}
    plan = {
        "name": "Ham for sixty",
        "day": day,
        "at": "18:00",
        "wants": [{"sort": "dish", "name": "Ham roll", "amount": "60"}],
        "makes": [make],
    }
    assert api.call("POST", "/meals", plan)[0] == 201
    kitchen.goto(f"{canteen}/plans/of/Ham for sixty")
    where = kitchen.get_by_role("region", name="Where it comes from")
    # sixty rolls of two ounces are 7.50 lb; what lies in the fridge is past its date by then
    expect(where).to_contain_text("7.50 lb")
    expect(where).to_contain_text("3.00 lb")
    expect(where).to_contain_text("4.50 lb")
    kitchen.get_by_role("button", name="Add to the to-do list").click()
    expect(kitchen.get_by_text("Not started. First job:")).to_be_visible()
    # the frozen half goes meanwhile: the list says what that changes
    assert api.call("POST", f"/packs/{code}/P2/takings", {"fate": "eaten"})[0] == 201
    kitchen.reload()
    changed = kitchen.get_by_role("status", name="Changed since")
    expect(changed).to_contain_text("the list says “Buy ")
    assert serious(kitchen) == []
    changed.get_by_role("button", name="Update the to-do list").click()
    expect(changed).to_have_count(0)
