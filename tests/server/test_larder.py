"""The larder: slicing and packing, what leaves, what lies where, and everything accounted for."""

import json
import threading
import uuid
from datetime import timedelta
from decimal import Decimal
from fractions import Fraction

import pytest
from django.db import OperationalError, connection, transaction
from django.utils import timezone

from dolmetsch.core.slicing.packs import together
from dolmetsch.server.batches.models import Batch, LotLine
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.larder.models import Pack, Packing, PackNow, Taken, TakenNow
from tests.server.conftest import BOUGHT, TRIM, make_kitchen, weigh
from tests.server.test_documents import file_of, imported

pytestmark = pytest.mark.django_db

SLICE = {
    "act": "split",
    "kind": "slice",
    "piece": "A",
    "pieces": [{"mark": "S", "weight": "4 lb", "slices": "80"}, {"mark": "D", "weight": "0.8 lb"}],
    "cut_off": [],
}


def pack(piece="S", weight="0.5 lb", slices="10", **more):
    return {"piece": piece, "product": "Jowl, sliced", "weight": weight, "slices": slices, **more}


def stores(api):
    for name, sort in (("Fridge 1", "fridge"), ("Freezer", "freezer"), ("Drum", "smoker")):
        body = {"name": name, "sort": sort, "levels": 3, "slots": 2}
        assert api.call("POST", "/stores", body)[0] == 201


@pytest.fixture
def larder(api):
    """A kitchen with a fridge and a freezer, and a jowl smoked in two pieces."""
    stores(api)
    api.code = api.started()
    api.recorded(api.code, TRIM)
    api.recorded(api.code, weigh("cure", A="5 lb", B="3 lb"))
    api.recorded(api.code, weigh("smoke", A="4.8 lb", B="2.9 lb"))
    return api


def close(api, packs, *, split=SLICE, key=None, **more):
    seen = api.get(f"/batches/{api.code}")[1]["seen"]
    body = {"split": split, "packs": packs, "seen": seen, **more}
    return api.call("POST", f"/batches/{api.code}/packs", body, key)


@pytest.fixture
def packed(larder):
    """Three packs of ten slices in the freezer, and one of dice in the fridge."""
    frozen = [pack(store="Freezer") for _ in range(3)]
    dice = pack("D", "0.4 lb", "", product="Jowl, diced", form="dice", store="Fridge 1")
    status, board = close(larder, [*frozen, dice])
    assert status == 201, str(board)
    return larder


def take(api, mark="P1", fate="eaten", *, key=None, **more):
    """The status, and the pack's page; the refusal where it was refused."""
    status, body = api.call("POST", f"/packs/{api.code}/{mark}/takings", {"fate": fate, **more}, key)
    if status != 201:
        return status, body
    now = page(api, mark)
    assert now["pack"] == body
    return status, now


def page(api, mark="P1"):
    return api.get(f"/packs/{api.code}/{mark}")[1]


def paths(body):
    return {one["path"]: one["code"] for one in body["fields"]}


def dated(mark, *, days, state="chilled"):
    """The pack's last day lies so many days ahead."""
    day = timezone.localdate() + timedelta(days=days)
    PackNow.objects.filter(pack__mark=mark).update(keep_until=day, state=state)


def everything(api):
    """What was made, and what is in the larder or gone: weight and money, exactly."""
    batch = Batch.objects.get(code=api.code)
    costed = cost_batch(batch)
    stowed = pack_facts().follow(batch, costed.sheet.ledger.mains)
    return costed.sheet.final, together([*stowed.gone.values(), stowed.on_hand]), stowed


def test_a_slicing_and_its_packs_are_one_entry(packed):
    log = packed.get(f"/batches/{packed.code}")[1]["log"]
    assert [entry["act"] for entry in log][-2:] == ["weigh", "split"]
    board = packed.get(f"/batches/{packed.code}/board")[1]
    assert [(one["mark"], one["left_slices"], one["state"]) for one in board["packs"]] == [
        ("P1", 10, "frozen"),
        ("P2", 10, "frozen"),
        ("P3", 10, "frozen"),
        ("P4", None, "chilled"),
    ]
    # 4 of 4.8 lb are slices: a pack of half a pound costs an eighth of what they carry
    house = packed.get(f"/batches/{packed.code}/files/json")
    assert house[0] == 200
    left = {one["mark"]: (one["weight"]["lb"], one["slices"]) for one in board["unpacked"]}
    assert left == {"S": ("2.50", 50), "D": ("0.40", None), "B": ("2.90", None)}
    assert board["next_mark"] == "P5"


def test_what_it_would_make_is_shown_before(larder):
    body = {"split": SLICE, "packs": [pack(), pack(weight="")], "seen": 4}
    status, preview = larder.call("POST", f"/previews/batches/{larder.code}/packs", body)
    assert (status, [one["cost"] for one in preview["packs"]]) == (200, [None, None])
    assert paths({"fields": preview["problems"]}) == {"packs[1].weight": "missing"}
    body["packs"].pop()
    preview = larder.call("POST", f"/previews/batches/{larder.code}/packs", body)[1]
    assert preview["problems"] == []
    final = {one["mark"]: one for one in preview["pieces"]}
    slice_cost = Fraction(preview["slice_cost"])
    assert abs(slice_cost * 10 - Fraction(preview["packs"][0]["cost"])) < Fraction("0.005")
    assert final["S"]["slices"] == 70
    assert Packing.objects.count() == 0


def test_packs_of_a_piece_that_is_still_being_cut_leave_the_rest_a_part_of_it(larder):
    """Half a pound of 4.8 lb is packed: 4.3 lb are still whole, and cost what they cost."""
    split = {**SLICE, "pieces": [{"mark": "S", "weight": ""}]}
    seen = larder.get(f"/batches/{larder.code}")[1]["seen"]
    body = {"split": split, "packs": [pack()], "seen": seen, "is_done": False}
    preview = larder.call("POST", f"/previews/batches/{larder.code}/packs", body)[1]
    assert preview["left"]["lb"] == "4.30"
    before = larder.get(f"/batches/{larder.code}")[1]["house"]["cost"]
    status, board = larder.call("POST", f"/batches/{larder.code}/packs", body)
    assert status == 201, board
    page = larder.get(f"/batches/{larder.code}")[1]
    assert {one["mark"]: one["weight"]["lb"] for one in page["pieces"]} == {"B": "2.90", "S": "4.80"}
    assert page["house"]["cost"] == before
    (unpacked,) = [one for one in board["pieces"] if one["mark"] == "S"]
    assert unpacked["weight"]["lb"] == "4.80"
    # weighed to a crumb, nothing is asked about
    whole = {**split, "piece": "B", "pieces": [{"mark": "T", "weight": "2.89 lb"}]}
    fresh = {**body, "seen": page["seen"], "split": whole, "packs": [pack("T")]}
    assert larder.call("POST", f"/previews/batches/{larder.code}/packs", fresh)[1]["left"] is None


def test_while_slicing_what_is_left_counts_as_more_slices(larder):
    """Two packs of ten slices at half a pound of 4.8 lb, ends of 0.3 lb: 3.5 lb are 70 slices to go."""
    split = {
        **SLICE,
        "pieces": [{"mark": "S", "weight": ""}],
        "cut_off": [{"name": "ends", "material": "ends", "weight": "0.3 lb"}],
    }
    body = {"split": split, "packs": [pack(), pack()], "seen": 4, "is_done": False}
    preview = larder.call("POST", f"/previews/batches/{larder.code}/packs", body)[1]
    assert (preview["slice_weight"]["lb"], preview["to_go"], preview["problems"]) == ("0.050", 70, [])
    left = {one["mark"]: (one["weight"]["lb"], one["slices"]) for one in preview["pieces"]}
    assert left["S"] == ("3.50", 70)
    cost = preview["packs"][0]["cost"]
    # done, the packs weigh what the slices do, and carry all of it
    done = larder.call("POST", f"/previews/batches/{larder.code}/packs", {**body, "is_done": True})[1]
    assert Fraction(done["packs"][0]["cost"]) == pytest.approx(4.5 * float(cost), abs=0.03)
    # all of it weighed: so many slices as the packs have by weight
    weighed = {**split, "pieces": [{"mark": "S", "weight": "4 lb"}]}
    done = {**body, "split": weighed, "is_done": True}
    whole = larder.call("POST", f"/previews/batches/{larder.code}/packs", done)[1]
    assert {one["mark"]: one["slices"] for one in whole["pieces"]}["S"] == 60
    assert close(larder, body["packs"], split=split)[0] == 201
    board = larder.get(f"/batches/{larder.code}/board")[1]
    piece = next(one for one in board["pieces"] if one["mark"] == "S")
    assert (piece["weight"]["lb"], piece["slices"]) == ("1.00", 20)


@pytest.mark.parametrize(
    ("packs", "path"),
    [
        ([pack("X")], "packs[0].piece"),
        ([pack("A")], "packs[0].piece"),
        ([pack(weight="3 lb"), pack(weight="1.1 lb")], "packs[1].weight"),
        ([pack(slices="70"), pack(slices="11")], "packs[1].slices"),
        ([pack("B", "0.2 lb", "3")], "packs[0].slices"),
        ([pack(weight="nothing")], "packs[0].weight"),
        ([pack(slices="0")], "packs[0].slices"),
        ([pack(slices="2.5")], "packs[0].slices"),
        ([pack(store="Attic")], "packs[0].store"),
        ([pack(store="Drum")], "packs[0].store"),
        ([{**pack(), "product": ""}], "packs[0].product"),
    ],
)
def test_a_pack_that_cannot_be_is_refused_at_its_place(larder, packs, path):
    status, body = close(larder, packs)
    assert (status, list(paths(body))) == (422, [path])
    assert Pack.objects.count() == 0
    assert larder.get(f"/batches/{larder.code}")[1]["seen"] == 4


def test_a_fault_of_the_slicing_lies_below_it(larder):
    heavy = {**SLICE, "pieces": [{"mark": "S", "weight": "6 lb", "slices": "80"}]}
    assert list(paths(close(larder, [pack()], split=heavy)[1])) == ["split.pieces"]
    later = (timezone.now() + timedelta(days=3)).isoformat()
    assert list(paths(close(larder, [pack()], happened_at=later)[1])) == ["happened_at"]
    assert list(paths(close(larder, [], split=None)[1])) == ["packs"]


def test_what_was_sliced_already_is_packed_without_a_slicing(packed):
    status, board = close(packed, [pack(store="Fridge 1")], split=None)
    assert (status, board["packs"][-1]["mark"]) == (201, "P5")
    final, accounted, _ = everything(packed)
    assert (accounted.cost, accounted.grams) == (final.cost, final.grams)


def taken_by(api, weight):
    bought = {"act": "bought", "cut": "beans", "source": {"batch": api.code, "piece": "S", "weight": weight}}
    return api.start(name="Beans", bought=bought)


def test_what_another_batch_took_of_a_piece_is_not_left_to_pack(packed):
    # 1.5 of 4 lb are packed: 2.6 more are not there, two are
    status, body = taken_by(packed, "2.6 lb")
    assert (status, list(paths(body))) == (422, ["bought.source.weight"])
    assert taken_by(packed, "2 lb")[0] == 201
    board = packed.get(f"/batches/{packed.code}/board")[1]
    assert {one["mark"]: one["weight"]["lb"] for one in board["unpacked"]}["S"] == "0.50"
    status, body = close(packed, [pack(), pack(weight="0.1 lb", slices="2")], split=None)
    assert (status, paths(body)) == (422, {"packs[1].weight": "taken"})
    assert close(packed, [pack()], split=None)[0] == 201
    stowed = packed.get(f"/batches/{packed.code}/verdict")[1]["stowed"]
    used = next(one for one in stowed["went"] if one["fate"] == "used")
    # 7.7 lb were made: slices, dice and B
    assert (used["weight"]["lb"], stowed["left"]["lb"]) == ("2.00", "5.70")


def test_three_slices_eaten_and_two_sold(packed):
    assert take(packed, slices="3")[0] == 201
    status, body = take(packed, fate="sold", slices="2", income="4.50")
    assert (status, body["pack"]["left_slices"], body["pack"]["left"]["lb"]) == (201, 5, "0.25")
    assert [one["words"] for one in body["news"]][-2:] == ["3 slices eaten", "2 slices sold for $4.50"]
    went = {one["fate"]: one for one in packed.get("/larder")[1]["went"]}
    assert (went["eaten"]["weight"]["lb"], went["sold"]["income"]) == ("0.15", "4.50")
    assert went["eaten"]["cost"] == went["eaten"]["cost"]
    take(packed, fate="given")
    assert page(packed)["pack"]["is_gone"]
    final, accounted, stowed = everything(packed)
    assert accounted.cost == final.cost
    assert stowed.gone["sold"].income == Fraction("4.5")


@pytest.mark.parametrize(
    ("more", "path"),
    [
        ({"weight": "0.6 lb"}, "weight"),
        ({"slices": "11"}, "slices"),
        ({"slices": "1", "weight": "1 oz"}, "slices"),
        ({"income": "1.00"}, "income"),
        ({"fate": "sold", "income": "-1"}, "income"),
        ({"weight": "much"}, "weight"),
        ({"into": "J-01"}, "into"),
        ({"fate": "used", "into": "Z-09"}, "into"),
        ({"at": "2001-01-01T00:00:00Z"}, "at"),
        ({"at": "2101-01-01T00:00:00Z"}, "at"),
    ],
)
def test_a_taking_that_cannot_be_is_refused_at_its_place(packed, more, path):
    body = {"fate": "eaten", **more}
    status, answer = packed.call("POST", f"/packs/{packed.code}/P1/takings", body)
    assert (status, list(paths(answer))) == (422, [path])
    assert Taken.objects.count() == 0
    assert page(packed)["pack"]["left_slices"] == 10


def test_a_pack_used_in_another_batch_names_it(packed):
    assert list(paths(take(packed, fate="used", into=packed.code)[1])) == ["into"]
    other = packed.started(name="Beans")
    body = take(packed, fate="used", into=other)[1]
    assert body["news"][-1]["words"] == f"0.50 lb used in {other}"


@pytest.fixture
def sausage(packed):
    """Another batch, to which half a pound out of P1 came."""
    code = packed.started(name="Smoked sausage")
    assert take(packed, fate="used", into=code, weight="0.25 lb")[0] == 201
    return code


def test_what_is_used_in_another_batch_is_a_lot_there_with_its_cost(packed, sausage):
    entry = packed.get(f"/batches/{sausage}")[1]["log"][-1]
    assert entry["lines"][:2] == ["Jowl, sliced", f"0.25 lb of S from {packed.code}, out of pack P1"]
    (source,) = packed.get(f"/batches/{sausage}")[1]["sources"]
    gone = everything(packed)[2].gone["used"]
    assert (source["weight"]["lb"], source["carried"]) == ("0.25", f"{float(gone.cost):.2f}")
    made, there, _ = everything(packed)
    assert (made.cost, made.grams) == (there.cost, there.grams)
    # counted once where it went: by the larder, not as taken from the piece again
    verdict = packed.get(f"/batches/{packed.code}/verdict")[1]["stowed"]
    used = next(one for one in verdict["went"] if one["fate"] == "used")
    assert used["weight"]["lb"] == "0.25"
    assert packed.get("/larder")[1]["packs"] == 4


def test_a_correction_upstream_flows_into_what_was_used(packed, sausage):
    before = packed.get(f"/batches/{sausage}")[1]["sources"][0]["carried"]
    bought = packed.get(f"/batches/{packed.code}")[1]["log"][0]
    answer = packed.record(packed.code, {**BOUGHT, "price": "40.00"}, corrects=bought["id"], reason="typo")
    assert answer[0] == 201, answer
    assert float(packed.get(f"/batches/{sausage}")[1]["sources"][0]["carried"]) > float(before)


def test_what_was_used_is_canceled_in_the_larder_alone(packed, sausage):
    lot = packed.get(f"/batches/{sausage}")[1]["log"][-1]
    refused = packed.record(sausage, {"act": "withdraw"}, corrects=lot["id"], reason="slip")
    assert (refused[0], refused[1]["code"]) == (422, "bad_correction")
    taken = page(packed)["news"][-1]["taken"]
    assert packed.call("POST", f"/takings/{taken}/cancel", {"reason": "slip"})[0] == 201
    assert packed.get(f"/batches/{sausage}")[1]["sources"] == []
    assert page(packed)["pack"]["left_slices"] == 10


def test_what_later_steps_used_up_cannot_be_canceled(packed, sausage):
    log = packed.get(f"/batches/{sausage}")[1]
    marks = [piece["mark"] for piece in log["pieces"]]
    mixed = {"act": "merge", "kind": "mix", "pieces": marks, "into": {"mark": "M", "weight": "10 lb"}}
    packed.recorded(sausage, mixed)
    taken = page(packed)["news"][-1]["taken"]
    status, problem = packed.call("POST", f"/takings/{taken}/cancel", {"reason": "slip"})
    assert (status, problem["code"]) == (422, "breaks_later")
    assert page(packed)["pack"]["left_slices"] is None


def test_packs_used_elsewhere_come_back_with_their_documents(packed, sausage, other):
    path = f"/api/kitchens/{packed.slug}/batches/{sausage}/files/json"
    document = packed.client.get(path).content.decode()
    answer = other.call("POST", "/imports", {"document": document})
    assert answer[0] == 201, answer
    lots = LotLine.objects.filter(entry__kitchen__slug=other.slug, from_batch__isnull=False)
    assert [(lot.from_mark, lot.from_pack) for lot in lots] == [("S", "P1")]


def test_a_resend_takes_once_and_another_body_is_refused(packed):
    key = uuid.uuid4()
    assert [take(packed, slices="3", key=key)[0] for _ in range(2)] == [201, 201]
    assert page(packed)["pack"]["left_slices"] == 7
    status, body = take(packed, slices="4", key=key)
    assert (status, body["code"]) == (409, "key_reused")
    key = uuid.uuid4()
    assert [close(packed, [pack()], split=None, key=key, happened_at=None)[0] for _ in range(2)] == [201, 201]
    assert Pack.objects.count() == 5


@pytest.mark.django_db(transaction=True)
def test_of_two_phones_at_the_last_pack_one_gets_it(packed):
    take(packed, slices="8")
    answers = []

    def phone():
        try:
            answers.append(take(packed, slices="2"))
        finally:
            connection.close()

    phones = [threading.Thread(target=phone) for _ in range(2)]
    for one in phones:
        one.start()
    for one in phones:
        one.join()
    assert sorted(status for status, _ in answers) == [201, 422]
    refused = next(body for status, body in answers if status == 422)
    assert "slices" in paths(refused)
    assert Taken.objects.count() == 2


def test_another_kitchen_sees_and_takes_none_of_it(packed):
    other = make_kitchen("elsewhere")
    stores(other)
    other.code = packed.code
    assert other.get(f"/packs/{packed.code}/P1")[0] == 404
    assert take(other)[0] == 404
    assert other.call("POST", f"/packs/{packed.code}/P1/moves", {"sort": "opened"})[0] == 404
    assert other.call("POST", f"/packs/{packed.code}/P1/cancel", {"reason": "x"})[0] == 404
    missing = {"expected": 1, "missing": [{"code": packed.code, "mark": "P1"}]}
    assert other.call("POST", "/larder/counts", missing)[0] == 404
    take(packed, slices="1")
    taken = Taken.objects.get()
    assert other.call("POST", f"/takings/{taken.pk}/cancel", {"reason": "x"})[0] == 404
    seen = other.get("/larder")[1]
    assert (seen["packs"], seen["went"], seen["unpacked"]) == (0, [], [])
    assert Taken.objects.count() == 1


def test_what_did_not_happen_is_canceled_and_stays_in_the_history(packed):
    take(packed, slices="3")
    taken = page(packed)["news"][-1]["taken"]
    path = f"/takings/{taken}/cancel"
    assert list(paths(packed.call("POST", path, {"reason": ""})[1])) == ["reason"]
    assert packed.call("POST", path, {"reason": "the wrong pack"})[0] == 201
    assert packed.call("POST", path, {"reason": "again"})[0] == 409
    news = page(packed)["news"][-1]
    assert (news["is_canceled"], news["words"]) == (True, "3 slices eaten; canceled: the wrong pack")
    assert (page(packed)["pack"]["left_slices"], TakenNow.objects.count()) == (10, 0)


def test_a_pack_recorded_by_mistake_is_canceled_unless_something_left_it(packed):
    path = f"/packs/{packed.code}/P1/cancel"
    take(packed, slices="1")
    assert packed.call("POST", path, {"reason": "slip"})[1]["code"] == "pack_used"
    board = packed.call("POST", f"/packs/{packed.code}/P2/cancel", {"reason": "slip"})[1]
    assert [one["mark"] for one in board["packs"]] == ["P1", "P3", "P4"]
    # its mark is not used again
    assert board["next_mark"] == "P5"
    assert {one["mark"]: one["slices"] for one in board["unpacked"]}["S"] == 60


def test_from_freezer_to_fridge_to_open_it_keeps_shorter(packed):
    today = timezone.localdate()

    def keeps():
        now = page(packed)["pack"]
        return now["state"], now["keep_until"]

    # a jowl is bacon: a month frozen, a week chilled
    assert keeps() == ("frozen", str(today + timedelta(days=30)))
    move = f"/packs/{packed.code}/P1/moves"
    assert packed.call("POST", move, {"sort": "placed", "store": "fridge 1"})[0] == 201
    assert keeps() == ("thawed", str(today + timedelta(days=7)))
    assert packed.call("POST", move, {"sort": "opened"})[0] == 201
    assert keeps() == ("open", str(today + timedelta(days=7)))
    assert list(paths(packed.call("POST", move, {"sort": "placed", "store": "Drum"})[1])) == ["store"]
    take(packed)
    assert list(paths(packed.call("POST", move, {"sort": "opened"})[1])) == ["sort"]
    assert page(packed)["keep_source"]


def test_the_larder_is_stacks_oldest_first(packed):
    close(packed, [pack(store="Freezer")], split=None)
    larder = packed.get("/larder")[1]
    assert (larder["packs"], larder["weight"]["lb"]) == (5, "2.40")
    shelves = {one["store"]: one["stacks"] for one in larder["shelves"]}
    assert list(shelves) == ["Fridge 1", "Freezer"]
    (stack,) = shelves["Freezer"]
    assert (stack["count"], stack["slices"], [one["mark"] for one in stack["packs"]]) == (
        4,
        40,
        ["P1", "P2", "P3", "P5"],
    )
    assert Fraction(larder["cost"]) == sum(
        Fraction(one["cost"]) for stacks in shelves.values() for one in stacks
    )


def test_what_was_lost_after_packing_and_what_is_near_its_day(packed):
    assert packed.get("/larder")[1]["soon"] == []
    take(packed, fate="spoiled", why="bag leaked")
    take(packed, "P2", fate="eaten")
    larder = packed.get("/larder")[1]
    first = larder["lost"][0]
    # half a pound of one and a half
    assert (first["product"], first["percent"], first["lost"]["lb"]) == ("Jowl, sliced", "33.3", "0.50")
    assert larder["lost"][1]["percent"] == "0.0"
    dated("P3", days=-1, state="thawed")
    PackNow.objects.filter(pack__mark="P4").update(keep_until=timezone.localdate() + timedelta(days=3))
    larder = packed.get("/larder")[1]
    assert [(one["mark"], one["is_past"], one["is_soon"]) for one in larder["soon"]] == [
        ("P3", True, False),
        ("P4", False, True),
    ]
    assert larder["past"] == 1


def at_noon(days_ago):
    now = timezone.localtime() - timedelta(days=days_ago)
    return now.replace(hour=12, minute=0).isoformat()


def test_thaw_tonight_and_runs_out_by_the_pace_of_late(api):
    stores(api)
    nine_days = (timezone.now() - timedelta(days=9)).isoformat()
    body = {"name": "Test jowl", "bought": BOUGHT, "happened_at": nine_days}
    api.code = api.call("POST", "/batches", body)[1]["batch"]["code"]
    for content in (TRIM, weigh("cure", A="5 lb", B="3 lb"), weigh("smoke", A="4.8 lb", B="2.9 lb")):
        api.recorded(api.code, content)
    # packed six days ago; 4 slices of 0.05 lb yesterday and the day before: 0.4 lb in 7 days
    packs = [pack(store="Freezer"), pack(store="Freezer"), pack(store="Fridge 1")]
    six_days = (timezone.now() - timedelta(days=6)).isoformat()
    assert close(api, packs, happened_at=six_days)[0] == 201
    larder = api.get("/larder")[1]
    assert (larder["thaw"], larder["runs_out"]) == ([], [])
    for ago in (2, 1):
        assert take(api, "P3", slices="4", at=at_noon(ago))[0] == 201
    larder = api.get("/larder")[1]
    (runs_out,) = larder["runs_out"]
    # 1.1 lb are left: 19 days of 0.0571 lb
    assert (runs_out["left"]["lb"], runs_out["a_day"]["lb"]) == ("1.10", "0.057")
    assert runs_out["day"] == str(timezone.localdate() + timedelta(days=19))
    # 0.1 lb in the fridge is less than two days of it: the oldest of the freezer
    assert [one["mark"] for one in larder["thaw"]] == ["P1"]
    assert "2 days of Jowl, sliced" in larder["thaw_why"]
    # what is past its use-by date neither lasts nor is thawed nor stands in the way of thawing
    dated("P3", days=-1, state="thawed")
    (without,) = api.get("/larder")[1]["runs_out"]
    assert without["left"]["lb"] == "1.00"
    dated("P1", days=-1, state="thawed")
    assert [one["mark"] for one in api.get("/larder")[1]["thaw"]] == ["P2"]


def test_a_count_of_the_shelves_finds_fewer_and_more(packed):
    take(packed, "P2")
    counted = {
        "expected": 3,
        "missing": [{"code": packed.code, "mark": "P1"}],
        "found_again": [{"code": packed.code, "mark": "P2"}],
    }
    key = uuid.uuid4()
    assert [packed.call("POST", "/larder/counts", counted, key)[0] for _ in range(2)] == [201, 201]
    assert page(packed, "P1")["news"][-1]["words"].endswith("not found when the shelves were counted")
    assert not page(packed, "P2")["pack"]["is_gone"]
    final, accounted, _ = everything(packed)
    assert accounted.cost == final.cost
    again = {"expected": 3, "missing": counted["missing"], "found_again": counted["found_again"]}
    status, body = packed.call("POST", "/larder/counts", again)
    assert (status, paths(body)) == (422, {"missing[0]": "pack_empty", "found_again[0]": "here"})


def test_a_correction_upstream_moves_the_cost_of_every_pack(packed):
    take(packed, slices="3")
    cost = page(packed)["pack"]["cost"]
    log = packed.get(f"/batches/{packed.code}")[1]["log"]
    bought = {**log[0]["content"], "price": "40.00"}
    packed.recorded(packed.code, bought, corrects=log[0]["id"], reason="wrong price")
    assert Fraction(page(packed)["pack"]["cost"]) > Fraction(cost)
    final, accounted, stowed = everything(packed)
    assert accounted.cost == final.cost
    kept = PackNow.objects.get(pack__mark="P1")
    assert abs(Fraction(kept.left_cost) - stowed.packs["P1"].left_cost) < Fraction(1, 10**9)


def test_a_correction_that_leaves_less_than_was_packed_is_refused(packed):
    log = packed.get(f"/batches/{packed.code}")[1]["log"]
    sliced = next(one for one in log if one["label"].startswith("Slice"))
    content = {**SLICE, "pieces": [{"mark": "S", "weight": "1 lb", "slices": "80"}, SLICE["pieces"][1]]}
    status, body = packed.record(packed.code, content, corrects=sliced["id"], reason="slip")
    assert (status, body["code"]) == (422, "breaks_packs")
    status, body = packed.record(packed.code, {"act": "withdraw"}, corrects=sliced["id"], reason="slip")
    assert (status, body["code"]) == (422, "breaks_packs")
    assert page(packed)["pack"]["left_slices"] == 10
    # nor may a piece be cut further that is packed
    again = {"act": "split", "kind": "dice", "piece": "S", "pieces": [{"mark": "T", "weight": "4 lb"}]}
    assert packed.record(packed.code, again)[1]["code"] == "breaks_packs"


def weighs(api, weight, mark="P1", **more):
    return api.call("POST", f"/packs/{api.code}/{mark}/weighings", {"weight": weight, **more})


def test_a_pack_weighed_again_says_what_ran_out_and_costs_what_it_did(packed):
    before = page(packed)["pack"]
    assert weighs(packed, "0.3 lb")[0] == 201
    status, body = weighs(packed, "0.49 lb")
    assert (status, body["news"][-1]["words"]) == (
        201,
        "Weighed 0.49 lb: 2.0 % ran out in the bag or dried away",
    )
    assert weighs(packed, "0.45 lb", "P2")[0] == 201
    # what is here is what was weighed last, in every room; the cost stays
    after = page(packed)["pack"]
    assert (after["left"]["lb"], after["cost"], after["left_cost"]) == (
        "0.49",
        before["cost"],
        before["left_cost"],
    )
    shelves = packed.get("/larder")[1]["shelves"]
    stacks = [one for shelf in shelves for one in shelf["stacks"] if one["product"] == "Jowl, sliced"]
    assert [one["weight"]["lb"] for one in stacks] == ["1.44"]
    lost = {one["product"]: (one["weighed"], one["purge"]) for one in packed.get("/larder")[1]["lost"]}
    # of 1.00 lb in two packs 0.06 ran out; each by its latest weighing
    assert lost == {"Jowl, sliced": (2, "6.0"), "Jowl, diced": (0, None)}


def test_what_is_taken_of_a_pack_weighed_again_is_so_much_of_what_it_weighs(packed):
    """0.50 lb that weighs 0.40: half of it is 0.20, at half its cost; and all of it can be read back."""
    whole = page(packed)["pack"]
    assert weighs(packed, "0.4 lb")[0] == 201
    assert take(packed, weight="0.41 lb")[0] == 422
    assert take(packed, weight="0.2 lb")[0] == 201
    left = page(packed)["pack"]
    assert (left["left"]["lb"], Decimal(left["left_cost"]) * 2) == ("0.20", Decimal(whole["cost"]))
    document = json.loads(file_of(packed, packed.code).content)
    assert document["gone"][0]["weight"] == "113.3980925 g"
    again = imported(packed, json.dumps({**document, "name": "Again"}))
    assert packed.get(f"/packs/{again}/P1")[1]["pack"]["left_cost"] == left["left_cost"]
    # taken back, the weight is what the scale said
    taken = Taken.objects.get(pack__batch__code=packed.code).pk
    assert packed.call("POST", f"/takings/{taken}/cancel", {"reason": "slip"})[0] == 201
    assert page(packed)["pack"]["left"]["lb"] == "0.40"


@pytest.mark.parametrize(
    ("weight", "more", "path"),
    [("0.51 lb", {}, "weight"), ("", {}, "weight"), ("0.4 lb", {"at": "2020-01-01T00:00:00Z"}, "at")],
)
def test_a_weight_a_pack_cannot_have_is_refused(packed, weight, more, path):
    status, problem = weighs(packed, weight, **more)
    assert (status, list(paths(problem))) == (422, [path])
    take(packed)
    assert weighs(packed, "0.4 lb")[1]["fields"][0]["code"] == "pack_empty"


@pytest.mark.parametrize(
    "table", [*("pack", "packing", "taken", "takencanceled", "packmove"), *("shelfcount", "packweighing")]
)
@pytest.mark.parametrize("statement", ["UPDATE larder_{} SET id = id", "DELETE FROM larder_{}"])
def test_no_record_of_the_larder_is_ever_changed(packed, table, statement):
    take(packed)
    packed.call("POST", f"/packs/{packed.code}/P2/moves", {"sort": "opened"})
    weighs(packed, "0.4 lb", "P3")
    name = {"code": packed.code, "mark": "P1"}
    assert packed.call("POST", "/larder/counts", {"expected": 1, "found_again": [name]})[0] == 201
    with connection.cursor() as cursor, pytest.raises(OperationalError), transaction.atomic():
        cursor.execute(statement.format(table))


def test_how_thick_by_ten_slices_on_the_scale(larder):
    def ask(**more):
        return larder.call("POST", f"/batches/{larder.code}/thickness", {"mark": "A", **more})

    status, body = ask()
    assert (status, body["points"], "ten slices" in body["missing"]) == (200, [], True)
    # 0.4 lb of ten slices of 4 mm: 0.01 lb a mm; 4.8 lb are 120 slices of 4 mm
    body = ask(millimetres="4", of_slices=["0.3 lb", "0.1 lb"], count="10", in_pack="10", in_portion="3")[1]
    four = next(one for one in body["points"] if one["millimetres"] == "4.0")
    assert (four["slices"], four["packs"], four["over"], four["slice_weight"]["lb"]) == (120, 12, 0, "0.040")
    assert Fraction(four["portion_cost"]) == pytest.approx(3 * Fraction(four["slice_cost"]), abs=0.005)
    larder.call("POST", f"/batches/{larder.code}/pieces/A/facts", {"length": "12 in"})
    assert ask()[1]["points"]
    assert ask(millimetres="thick")[1]["problems"][0]["path"] == "millimetres"
    assert larder.call("POST", f"/batches/{larder.code}/thickness", {"mark": "Q"})[0] == 404
