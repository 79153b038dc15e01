"""Packs where other rooms show them: verdict, diary, labels, owners, dates."""

from datetime import timedelta
from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.heat.raw import RAW_LABEL
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.labels.facts import gather_pack_labels
from dolmetsch.server.larder.here import find_usable, list_usable
from dolmetsch.server.larder.models import PackNow, Taken
from dolmetsch.server.larder.queries import list_here
from tests.server.conftest import TRIM, weigh
from tests.server.test_larder import close, dated, larder, pack, packed, page, stores, take  # noqa: F401 (fixtures)


def test_the_verdict_says_where_it_went_and_what_it_earned(packed):
    packed.recorded(packed.code, {"act": "shop_pack", "name": "good", "paid": "8.00", "weight": "1 lb"})
    before = packed.get(f"/batches/{packed.code}/verdict")[1]
    (shop,) = before["stowed"]["earned"]
    assert before["stowed"]["went"] == []
    take(packed, fate="sold", income="9.00")
    take(packed, "P2", fate="discarded", why="freezer burn")
    stowed = packed.get(f"/batches/{packed.code}/verdict")[1]["stowed"]
    assert [(one["fate"], one["income"]) for one in stowed["went"]] == [
        ("sold", "9.00"),
        ("discarded", "0.00"),
    ]
    # half a pound for 9.00 instead of the shop's 4.00; half of 1.9 packed pounds thrown away
    assert Fraction(stowed["earned"][0]["on_batch"]) - Fraction(shop["on_batch"]) == 5
    assert (stowed["income"], stowed["shrink"]) == ("9.00", "26.3")
    other = packed.started(name="Not packed")
    assert packed.get(f"/batches/{other}/verdict")[1]["stowed"] is None


def test_packs_and_what_left_them_stand_in_the_diary(packed):
    take(packed, slices="3")
    take(packed, "P2", fate="sold", income="4.50")
    row = Taken.objects.get(fate="sold")
    packed.call("POST", f"/takings/{row.pk}/cancel", {"reason": "came back"})
    leaves = [
        one for one in packed.get(f"/batches/{packed.code}/diary")[1]["leaves"] if one["sort"] == "pack"
    ]
    assert [(one["title"], one["is_wrong"]) for one in leaves] == [
        ("Packed: Jowl, sliced", False),
        ("Packed: Jowl, diced", False),
        ("P1: 3 slices eaten", False),
        ("P2: the rest sold for $4.50", True),
    ]
    assert leaves[0]["lines"] == ["3 packs, 1.50 lb", "P1, P2, P3"]


def test_a_packs_label_says_what_it_is_and_its_code_opens_it(packed):
    batch = Batch.objects.get(code=packed.code)
    labels = gather_pack_labels(batch, [], root="http://kitchen")
    assert [one.mark for one in labels] == ["P1", "P2", "P3", "P4"]
    first = labels[0]
    assert (first.name, first.address) == ("Jowl, sliced", f"http://kitchen/slice/pack/{packed.code}/P1")
    assert first.lines[0] == "10 slices, 0.50 lb"
    assert first.lines[2].startswith("best by ")
    assert gather_pack_labels(batch, ["P4"], root="")[0].lines[2].startswith("use by ")
    take(packed)
    assert [one.mark for one in gather_pack_labels(batch, [], root="")] == ["P2", "P3", "P4"]
    path = f"/api/kitchens/{packed.slug}/batches/{packed.code}/pack-labels.pdf"
    assert packed.client.get(f"{path}?marks=P2").content[:4] == b"%PDF"
    assert packed.client.get(f"{path}?marks=P9").status_code == 404
    other = packed.started(name="Unpacked")
    assert packed.get(f"/batches/{other}/pack-labels.pdf")[1]["code"] == "no_packs"


def test_a_pack_of_what_was_never_cooked_says_so(api):
    stores(api)
    api.code = api.started()
    for content in (TRIM, weigh("cure", A="5 lb", B="3 lb"), weigh("hang", A="4.8 lb", B="2.9 lb")):
        api.recorded(api.code, content)
    assert close(api, [pack(store="Freezer")])[0] == 201
    now = page(api)
    # dried: the chart has no row for it
    assert (now["pack"]["is_raw"], now["pack"]["keep_until"], now["keep_source"]) == (True, None, "")
    label = gather_pack_labels(Batch.objects.get(code=api.code), ["P1"], root="")[0]
    assert RAW_LABEL in label.lines
    assert [one["code"] for one in api.get(f"/batches/{api.code}/board")[1]["cautions"]] == ["raw"]


def test_a_customers_packs_are_kept_apart(packed):
    """Noted before or after packing: the kitchen's stock, thawing, dishes and plates leave them."""
    before = packed.get("/larder")[1]
    assert (before["packs"], before["their_packs"]) == (4, 0)
    owned = {"owner": "Ibba", "marks": ["S"]}
    assert packed.call("POST", f"/batches/{packed.code}/owners", owned)[0] == 201
    after = packed.get("/larder")[1]
    assert (after["packs"], after["their_packs"]) == (1, 3)
    assert (after["weight"]["lb"], after["their_weight"]["lb"]) == ("0.40", "1.50")
    assert Fraction(after["cost"]) < Fraction(before["cost"])
    stacks = {
        (one["owner"], one["product"]): one["count"] for shelf in after["shelves"] for one in shelf["stacks"]
    }
    assert stacks == {("Ibba", "Jowl, sliced"): 3, ("", "Jowl, diced"): 1}
    assert page(packed, "P1")["pack"]["owner"] == "Ibba"
    # a pack closed later of the same piece is the customer's too
    assert close(packed, [pack(store="Freezer")], split=None)[0] == 201
    assert packed.get("/larder")[1]["their_packs"] == 4
    assert [now.pack.product for now in list_here(get_kitchen(packed))] == ["Jowl, diced"]


def get_kitchen(api):
    return Kitchen.objects.get(slug=api.slug)


def test_what_is_past_its_use_by_date_counts_for_nothing_and_a_frozen_pack_past_its_best_does(packed):
    """Three packs of ten slices: one in date, one past its use-by date, one frozen and past its best."""
    kitchen, today = Kitchen.objects.get(slug=packed.slug), timezone.localdate()
    dated("P1", days=-1)
    dated("P2", days=-1, state="frozen")
    dated("P3", days=0)
    PackNow.objects.filter(pack__mark="P4").update(keep_until=None)
    here = find_usable(kitchen, today).order_by("pack_id").values_list("pack__mark", flat=True)
    assert list(here) == ["P2", "P3", "P4"]
    assert list(find_usable(kitchen, today + timedelta(days=1)).values_list("pack__mark", flat=True)) == [
        "P2",
        "P4",
    ]
    assert [one.pack.mark for one in list_usable(list(list_here(kitchen)), today)] == ["P2", "P3", "P4"]
    larder = packed.get("/larder")[1]
    marked = {
        one["mark"]: (one["is_past"], one["is_past_best"])
        for shelf in larder["shelves"]
        for stack in shelf["stacks"]
        for one in stack["packs"]
    }
    assert marked == {"P1": (True, False), "P2": (False, True), "P3": (False, False), "P4": (False, False)}
    assert larder["past"] == 1


def test_plates_pass_by_what_is_past_its_date_and_take_it_only_knowingly(packed):
    roll = {"name": "Roll", "parts": [{"sort": "larder", "name": "Jowl, sliced", "amount": "5 slices"}]}
    assert packed.call("POST", "/dishes", roll)[0] == 201
    dated("P1", days=-2)
    dish = packed.get("/dishes/Roll")[1]
    assert (dish["enough"], [one["mark"] for one in dish["past"]]) == (4, ["P1"])
    assert dish["parts"][0]["basis"].endswith("P2")
    assert packed.call("POST", "/dishes/Roll/plates", {"plates": "3"})[0] == 201
    assert [page(packed, f"P{number}")["pack"]["left_slices"] for number in (1, 2, 3)] == [10, 0, 5]
    status, problem = packed.call("POST", "/dishes/Roll/plates", {"plates": "2"})
    assert (status, problem["code"]) == (409, "only_past")
    assert "P1" in problem["detail"]
    assert page(packed, "P3")["pack"]["left_slices"] == 5
    # knowingly: recorded, and marked
    assert packed.call("POST", "/dishes/Roll/plates", {"plates": "2", "use_past": True})[0] == 201
    assert [page(packed, f"P{number}")["pack"]["left_slices"] for number in (1, 3)] == [5, 0]
    assert Taken.objects.get(pack__mark="P1").why == "past its use-by date"
    assert set(Taken.objects.exclude(pack__mark="P1").values_list("why", flat=True)) == {""}
    # too little even so: it is said as it is
    status, problem = packed.call("POST", "/dishes/Roll/plates", {"plates": "9", "use_past": True})
    assert (status, problem["code"]) == (422, "not_enough")
