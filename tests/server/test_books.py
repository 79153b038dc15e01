"""The books: yields, what is out of the usual, money and prices, from what finished batches keep."""

import io
import random
from datetime import timedelta
from fractions import Fraction
from math import exp

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone

from dolmetsch.core.statistics.difference import compute_difference
from dolmetsch.server.batches.models import BatchFacts, ShopSaving, StepYield
from dolmetsch.server.books.recount import recount
from dolmetsch.server.books.yields import say_chance
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import weigh
from tests.server.test_prices import noted

pytestmark = pytest.mark.django_db
SHOP = {"act": "shop_pack", "name": "good bacon", "paid": "8.00", "weight": "1 lb"}


def made(api, *, days=30, sliced="6 lb", smoked="7 lb", price="20.00", source="", shop=SHOP, minutes="60"):
    """A batch of 10 lb, smoked and sliced, finished so many days ago: its code."""
    at = timezone.now() - timedelta(days=days)
    bought = {
        "act": "bought",
        "cut": "jowl, skin on",
        "own_weight": "10 lb",
        "price_basis": "pack",
        "price": price,
        "scale": "5 g",
        "bought_from": source,
    }
    start = {"name": "Jowl", "bought": bought, "happened_at": (at - timedelta(days=8)).isoformat()}
    status, body = api.call("POST", "/batches", start)
    assert status == 201, body
    code = body["batch"]["code"]
    if shop:
        api.recorded(code, shop)
    smoke = {**weigh("smoke", lot=smoked), "minutes": minutes}
    api.recorded(code, smoke, happened_at=(at - timedelta(days=1)).isoformat())
    cut = {"act": "split", "kind": "slice", "piece": "lot", "pieces": [{"mark": "A", "weight": sliced}]}
    api.recorded(code, {**cut, "cut_off": []}, happened_at=at.isoformat())
    return code


def book(api, path):
    status, body = api.get(f"/books/{path}")
    assert status == 200, body
    return body


def test_every_batch_is_a_dot_with_its_band(api):
    codes = [made(api, days=40 - at, sliced=f"{weight} lb") for at, weight in enumerate(("6", "6.2", "5.8"))]
    (sort,) = book(api, "yields")["sorts"]
    assert sort["label"] == "jowl skin on · cooked"
    (part,) = sort["parts"]
    assert [dot["code"] for dot in part["dots"]] == codes
    assert [dot["kept"] for dot in part["dots"]] == ["60.0", "62.0", "58.0"]
    assert [dot["is_last"] for dot in part["dots"]] == [False, False, True]
    assert part["dots"][0]["price"]["per_lb"] == "3.33"
    spread = part["spread"]
    assert spread["middle"] == "60.0"
    # ln deviation 0.03336, t(0.9, 2) = 1.8856, √(4/3): 0.0726 each way
    assert (spread["low"], spread["high"]) == ("55.8", "64.5")
    # 5 g at 10 lb and 6 lb: hundredths of a point
    assert (spread["deviation"], spread["scale"], spread["own"]) == ("2.0", "0.0", "2.0")


def test_steps_show_what_forecasts_go_by(api):
    made(api)
    sorts = book(api, "yields?by=step")["sorts"]
    smoke = next(sort for sort in sorts if sort["way"] == "hot_smoke")
    assert smoke["parts"][0]["dots"][0]["kept"] == "70.0"
    yields = api.get("/yields")[1]["yields"]
    assert smoke["forecast"] == next(one["basis"] for one in yields if one["method"] == "hot_smoke")


def test_what_pulling_lower_brings_is_the_start_values_until_own_cooks_are_read(api):
    made(api)
    for by in ("way", "step"):
        (pull,) = book(api, f"yields?by={by}")["changes"]
        # on the line from 0.91 at 139 °F to 0.87 at 150: 5 of 11 of 4 points
        assert pull["said"] == "Pulled at 145 °F rather than 150 °F: 1.8 points more kept"
        assert pull["sort"] == "hot smoke · jowl skin on"
        assert "none of your cooks has been read yet" in pull["basis"]
    Kitchen.objects.filter(slug=api.slug).update(weight_unit="kg", temperature_unit="C")
    assert "63 °C rather than 66 °C" in book(api, "yields")["changes"][0]["said"]


def test_yields_are_parted_by_source_season_and_cook(api):
    for at in range(3):
        made(api, days=30 + at, source="Quay butcher", sliced=f"6.{at} lb")
        made(api, days=30 + at, source="Tidewell", sliced=f"5.{at} lb")
    made(api)
    (sort,) = book(api, "yields?part=source")["sorts"]
    assert [(part["label"], part["spread"]["batches"]) for part in sort["parts"]] == [
        ("Quay butcher", 3),
        ("Tidewell", 3),
    ]
    assert sort["unsaid"] == 1
    body = book(api, "yields")
    change = next(one for one in body["changes"] if "Quay butcher" in one["said"])
    assert change["said"] == "Quay butcher rather than Tidewell: 10.0 points more kept"
    assert change["is_more_than_chance"]
    assert "3 and 3 batches" in change["basis"]
    (sort,) = book(api, "yields?part=season")["sorts"]
    assert sum(part["spread"]["batches"] for part in sort["parts"]) == 7
    # the only cook has no first name here: then nobody can be told apart
    assert book(api, "yields?part=inside")["sorts"][0]["unsaid"] == 7


def test_one_seller_in_two_spellings_is_one_seller(api):
    for at, source in enumerate(("hollow farm", "Hollow  Farm", "Hollow Farm")):
        made(api, days=30 - at, source=source)
        made(api, days=20 - at, source="Tidewell")
    (sort,) = book(api, "yields?part=source")["sorts"]
    assert [(part["label"], part["spread"]["batches"]) for part in sort["parts"]] == [
        ("Hollow Farm", 3),
        ("Tidewell", 3),
    ]


def test_who_cannot_be_told_apart_is_not_ranked(api):
    for at, (one, other) in enumerate((("6", "6.1"), ("6.2", "6.0"), ("5.9", "6.1"))):
        made(api, days=30 + at, source="Quay butcher", sliced=f"{one} lb")
        made(api, days=30 + at, source="Tidewell", sliced=f"{other} lb")
    (change,) = [one for one in book(api, "yields")["changes"] if "Tidewell" in one["said"]]
    assert change["said"].endswith("cannot be told apart yet")
    assert not change["is_more_than_chance"]


def test_the_best_of_three_sellers_is_judged_by_all_their_pairs(api):
    kept = {
        "Quay butcher": ("6.2", "6.5", "6.4"),
        "Tidewell": ("5.9", "6.1", "6.2"),
        "Hollow Farm": ("5.0", "5.1", "5.2"),
    }
    for source, sliced in kept.items():
        for at, weight in enumerate(sliced):
            made(api, days=30 + at, source=source, sliced=f"{weight} lb")
    (change,) = [one for one in book(api, "yields")["changes"] if "Quay butcher" in one["said"]]
    mine, theirs = ([float(one) / 10 for one in kept[name]] for name in ("Quay butcher", "Tidewell"))
    alone = compute_difference(mine, theirs).chance
    assert change["basis"].endswith(say_chance(alone * 3))
    assert say_chance(alone * 3) != say_chance(alone * 6)


def test_an_odd_batch_is_said_with_what_else_differed(api):
    weights = ("7", "7.04", "6.95", "7.02", "6.98", "7.01")
    for at, smoked in enumerate(weights):
        made(api, days=60 - at, smoked=f"{smoked} lb", source="Quay butcher")
    assert book(api, "unusual")["unusual"] == []
    odd = made(api, days=20, smoked="6.4 lb", sliced="5.5 lb", source="Tidewell")
    note = {"text": "Wind from the north all day, the smoker ran away twice"}
    assert api.call("POST", f"/batches/{odd}/notes", note)[0] == 201
    assert api.call("POST", f"/batches/{odd}/notes", {"text": "New gloves"})[0] == 201
    body = book(api, "unusual")
    smoke = next(one for one in body["unusual"] if "hot smoke" in one["said"])
    assert smoke["code"] == odd
    assert smoke["said"] == "lost 6.0 points more than usual in the hot smoke"
    assert "64.0 % kept; the middle of 6 others" in smoke["basis"]
    assert smoke["differed"] == [
        "bought from Tidewell (others: Quay butcher)",
        "noted: “Wind from the north all day, the smoker ran away twice”",
    ]
    assert {one["code"] for one in body["unusual"]} == {odd}


def test_what_a_year_saved_by_kind_with_and_without_work(api):
    year = timezone.localdate().year
    noted(api, sort="shop_pack", name="good bacon", kind="good", price="8.00", size="1 lb")
    Kitchen.objects.filter(slug=api.slug).update(labour_rate=15)
    since = timezone.localdate() - timezone.localdate().replace(month=1, day=1)
    spread = [max(1, since.days * at // 4) for at in (3, 2, 1)]
    codes = [made(api, days=days, price="20.00") for days in spread]
    money = book(api, f"money?year={year}")
    # 6 lb at 8.00 less 20.00 and an hour at 15.00: 13.00 each
    assert money["kind"] == "good bacon"
    sums = money["sums"]
    assert (sums["batches"], sums["saved"], sums["saved_without_work"]) == (3, "39.00", "84.00")
    assert sums["per_weight"]["per_lb"] == "2.17"
    assert (sums["hours"], sums["earned_an_hour"]) == ("3.0", "28.00")
    assert (sums["beat"], sums["lost"]) == (3, 0)
    assert [point["code"] for point in money["points"]] == codes
    assert [point["sum"] for point in money["points"]] == ["13.00", "26.00", "39.00"]
    assert sum(Fraction(month["saved"]) for month in money["months"]) == 39
    assert money["years"] == [{"year": year, "batches": 3, "saved": "39.00"}]
    assert book(api, "money?kind=best&year=2019")["sums"]["batches"] == 0


def test_one_batch_makes_no_year(api):
    made(api, days=1)
    sums = book(api, "money")["sums"]
    assert sums["per_month"] is sums["earned_an_hour"] is None
    assert sums["too_little"] == "One batch is too little to say what a month, a year or an hour brings."
    for days in (2, 3):
        made(api, days=days)
    sums = book(api, "money")["sums"]
    assert sums["per_month"] is None
    assert sums["earned_an_hour"] is not None
    assert "days are too little" in sums["too_little"]


def test_what_left_the_larder_is_sold_eaten_and_thrown_away(api):
    code = made(api)
    seen = api.get(f"/batches/{code}")[1]["seen"]
    pack = {"piece": "A", "product": "Bacon", "form": "whole", "weight": "2 lb"}
    status, body = api.call("POST", f"/batches/{code}/packs", {"packs": [pack, pack, pack], "seen": seen})
    assert status == 201, body
    for mark, fate, more in (("P1", "sold", {"income": "20.00"}), ("P2", "eaten", {}), ("P3", "spoiled", {})):
        took = {"fate": fate, **more}
        status, body = api.call("POST", f"/packs/{code}/{mark}/takings", took)
        assert status == 201, body
    money = book(api, "money")
    fates = {one["fate"]: (one["weight"]["lb"], one["cost"], one["income"]) for one in money["fates"]}
    # 6 lb for 20.00: 2 lb are 6.67
    assert fates == {
        "eaten": ("2.00", "6.67", "0.00"),
        "sold": ("2.00", "6.67", "20.00"),
        "spoiled": ("2.00", "6.67", "0.00"),
    }
    assert money["sold_part"] == "50.0"
    assert (money["thrown_weight"]["lb"], money["thrown_cost"]) == ("2.00", "6.67")


def test_pieces_thrown_away_before_packing_count_as_thrown_away(api):
    code = made(api)
    split = {"act": "split", "kind": "trim", "piece": "A", "cut_off": []}
    pieces = [{"mark": "A1", "weight": "4 lb"}, {"mark": "A2", "weight": "2 lb"}]
    api.recorded(code, {**split, "pieces": pieces})
    gone = {"act": "discard", "pieces": ["A2"], "charge": "loss", "why": "dropped"}
    api.recorded(code, gone)
    api.recorded(code, {"act": "finish"})
    money = book(api, "money")
    assert (money["thrown_weight"]["lb"], money["thrown_cost"]) == ("2.00", "6.67")


def test_a_slicer_pays_for_itself(api):
    codes = [made(api, days=days) for days in (50, 40, 30)]
    assert len(codes) == 3
    day = (timezone.localdate() - timedelta(days=45)).isoformat()
    status, body = api.call("POST", "/tools", {"name": "slicer", "paid": "50.00", "bought_on": day})
    assert status == 201, body
    # two batches since, 28.00 each
    (tool,) = body
    assert (tool["saved_since"], tool["batches_since"]) == ("56.00", 2)
    assert tool["paid_on"] == (timezone.localdate() - timedelta(days=30)).isoformat()
    assert tool["said"].startswith("has paid for itself since")
    status, body = api.call("POST", "/tools", {"name": "sealer", "paid": "90", "bought_on": day})
    assert body[1]["said"] == "has earned back $56.00 of $90.00, in 2 batches since"
    assert api.call("POST", f"/tools/{tool['id']}/cancel", {"reason": ""})[0] == 422
    assert [
        one["name"] for one in api.call("POST", f"/tools/{tool['id']}/cancel", {"reason": "rented"})[1]
    ] == ["sealer"]
    assert api.call("POST", f"/tools/{tool['id']}/cancel", {"reason": "again"})[0] == 409


def test_a_machine_with_faults_is_refused(api, other):
    ahead = (timezone.localdate() + timedelta(days=2)).isoformat()
    status, body = api.call("POST", "/tools", {"name": "", "paid": "a lot", "bought_on": ahead})
    assert status == 422
    assert [one["path"] for one in body["fields"]] == ["name", "paid", "bought_on"]
    day = timezone.localdate().isoformat()
    theirs = other.call("POST", "/tools", {"name": "slicer", "paid": "50", "bought_on": day})[1][0]["id"]
    assert api.call("POST", f"/tools/{theirs}/cancel", {"reason": "not ours"})[0] == 404


def test_prices_over_time_and_the_house_at_todays(api):
    day = timezone.localdate()
    for days, source, price in (
        (400, "Quay", "2.00/lb"),
        (5, "Quay", "3.00/lb"),
        (90, "Tidewell", "2.50/lb"),
    ):
        noted(
            api,
            name="jowl, skin on",
            price=price,
            source=source,
            on=(day - timedelta(days=days)).isoformat(),
        )
    noted(api, sort="shop_pack", name="good bacon", kind="good", price="9.00", size="1 lb")
    code = made(api, price="20.00")
    body = book(api, "prices")
    meat, shop = body["items"]
    assert [(line["source"], len(line["points"])) for line in meat["lines"]] == [("Quay", 2), ("Tidewell", 1)]
    assert meat["change"] == "50.0"
    assert (shop["name"], shop["change"]) == ("good bacon", None)
    (house,) = body["house"]
    # 6 lb for 20.00 then; 10 lb at 3.00 today
    assert (house["code"], house["then"]["per_lb"], house["now"]["per_lb"]) == (code, "3.33", "5.00")
    assert (house["shop"]["per_lb"], house["saved"]["per_lb"]) == ("9.00", "4.00")


def test_each_kitchen_has_its_own_books(api, other):
    made(other, source="Quay butcher")
    noted(other, name="jowl, skin on", price="2.00/lb")
    other.call("POST", "/tools", {"name": "slicer", "paid": "50", "bought_on": "2026-01-02"})
    assert book(api, "yields")["sorts"] == book(api, "yields?by=step")["sorts"] == []
    assert (book(api, "yields")["batches"], book(other, "yields")["batches"]) == (0, 1)
    money = book(api, "money")
    assert (money["kind"], money["sums"], money["points"], money["tools"]) == (None, None, [], [])
    assert book(api, "prices") == {"items": [], "house": [], "sellers": []}
    assert book(api, "unusual")["looked_at"] == 0
    status, _ = api.call("GET", "/../other-kitchen/books/money")
    assert status == 404


def test_a_recount_finds_what_was_kept_wrong_and_mends_it(api):
    code = made(api)
    kitchen = Kitchen.objects.get(slug=api.slug)
    assert recount(kitchen, is_mending=False).wrong == []
    out = io.StringIO()
    call_command("recount", stdout=out)
    assert out.getvalue() == "test-kitchen: 1 batches counted anew, all as kept\n"
    for kind, change in (
        (BatchFacts, {"cost": 1}),
        (StepYield, {"log_ratio": 0.5}),
        (ShopSaving, {"saved": 7}),
    ):
        kind.objects.filter(batch__code=code).update(**change)
        assert recount(kitchen, is_mending=False).wrong == [code]
        with pytest.raises(CommandError, match="--mend"):
            call_command("recount", stdout=io.StringIO())
        call_command("recount", "--mend", stdout=io.StringIO())
        assert recount(kitchen, is_mending=False).wrong == []
    BatchFacts.objects.all().delete()
    assert recount(kitchen, is_mending=True).wrong == [code]
    assert BatchFacts.objects.get().log_yield == pytest.approx(-0.5108256)
    assert exp(BatchFacts.objects.get().log_yield) == pytest.approx(0.6)


@pytest.mark.parametrize("seed", range(4))
def test_whatever_is_done_a_recount_finds_nothing_wrong(api, seed):
    """Batches begun, weighed, corrected, taken back, packed, in an order drawn by chance."""
    draw = random.Random(seed)
    codes = [made(api, days=draw.randint(2, 300), sliced=f"{draw.uniform(5, 6.5):.2f} lb")]
    for _ in range(14):
        code = draw.choice(codes)
        log = [one for one in api.get(f"/batches/{code}")[1]["log"] if not one["overruled_by"]]
        last = draw.choice(log)
        match draw.randint(0, 5):
            case 0:
                codes.append(made(api, days=draw.randint(2, 300), minutes=str(draw.randint(0, 90))))
            case 1 if last["act"] == "weigh":
                lighter = {**weigh("smoke", lot=f"{draw.uniform(6.6, 8):.2f} lb"), "minutes": "30"}
                api.record(code, lighter, corrects=last["corrects"] or last["id"], reason="misread")
            case 2 if last["act"] in ("split", "shop_pack"):
                api.record(code, {"act": "withdraw"}, corrects=last["corrects"] or last["id"], reason="no")
            case 3:
                pack = {"piece": "A", "product": "Bacon", "form": "whole", "weight": "1 lb"}
                seen = api.get(f"/batches/{code}")[1]["seen"]
                api.call("POST", f"/batches/{code}/packs", {"packs": [pack], "seen": seen})
            case 4:
                api.record(code, {**SHOP, "name": draw.choice(["good bacon", "best bacon"])})
            case _:
                api.record(code, {"act": "discard", "pieces": ["A"], "charge": "loss", "why": "burnt"})
    kitchen = Kitchen.objects.get(slug=api.slug)
    assert recount(kitchen, is_mending=False).wrong == []
    finished = sum(one["is_finished"] for one in api.get("/batches")[1]["batches"])
    assert BatchFacts.objects.count() == finished


def test_a_correction_changes_the_books_with_the_batch(api):
    code = made(api)
    entry = api.get(f"/batches/{code}")[1]["log"][-1]["id"]
    cut = {"act": "split", "kind": "slice", "piece": "lot", "pieces": [{"mark": "A", "weight": "5 lb"}]}
    api.recorded(code, {**cut, "cut_off": []}, corrects=entry, reason="misread")
    (sort,) = book(api, "yields")["sorts"]
    assert [dot["kept"] for dot in sort["parts"][0]["dots"]] == ["50.0"]
    entry = api.get(f"/batches/{code}")[1]["log"][-1]["id"]
    api.recorded(code, {"act": "withdraw"}, corrects=sort and entry, reason="not sliced yet")
    assert book(api, "yields")["sorts"] == []
    assert not BatchFacts.objects.exists()
