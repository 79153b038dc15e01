"""Slicing with the scale, a larder without network, a dish that moves with the price list: whole journeys."""

from fractions import Fraction

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.models.pack_facts import pack_facts
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.dishes.models import Plating
from dolmetsch.server.larder.models import Pack, PackNow, Taken
from tests.browser.conftest import sign_in
from tests.browser.test_access import serious
from tests.browser.test_bench import cook, lay, open_without_network, wait_until  # noqa: F401 (fixture)


def accounted(code: str) -> bool:
    """Whether everything made of a batch is in the larder or gone, to the last cent."""
    batch = Batch.objects.get(code=code)
    mains = cost_batch(batch).sheet.ledger.mains
    stowed = pack_facts().follow(batch, mains)
    gone = sum((share.cost for share in stowed.gone.values()), Fraction(0))
    return gone + stowed.on_hand.cost == sum((piece.cost for piece in mains), Fraction(0))


def test_a_piece_is_cut_into_slices_and_dice_and_packed_with_the_scale(kitchen: Page, canteen, lay):
    entries = Entry.objects.filter(batch__code="G-01").count()
    kitchen.goto(f"{canteen}/slice")
    kitchen.get_by_role("link", name="G-01 Bay goose breast").click()
    kitchen.get_by_role("button", name="B 2.71 lb").click()
    expect(kitchen.get_by_text("nothing cut yet")).to_be_visible()
    kitchen.get_by_label("Product", exact=True).fill("Goose, thin")
    # ten slices by touch and key, half a pound on the scale
    for _ in range(9):
        kitchen.get_by_role("button", name="+ 1 slice").click()
    kitchen.get_by_role("heading", name="Slice and pack").click()
    kitchen.keyboard.press("s")
    lay("PUT 250")
    close = kitchen.get_by_role("button", name="Close P1: 10 slices, 0.55 lb")
    close.dblclick()
    expect(kitchen.get_by_text("10 cut, about")).to_be_visible()
    # as full again, typed
    lay("TAKE")
    kitchen.get_by_role("button", name="full: 10").click()
    kitchen.get_by_label("Weight of the pack").fill("248 g")
    kitchen.get_by_role("button", name="Close P2: 10 slices, 248 g").click()
    # half a slice closes no pack
    kitchen.get_by_role("button", name="Half a slice more").click()
    expect(kitchen.get_by_role("button", name="Half a slice is open")).to_be_disabled()
    kitchen.get_by_role("button", name="One slice fewer").click()
    kitchen.get_by_role("button", name="+ another product").click()
    kitchen.get_by_label("Weight of the pack").fill("0.3 kg")
    kitchen.get_by_role("button", name="Close P3: 0.3 kg").click()
    kitchen.get_by_label("Slicer set to, mm").fill("3")
    expect(kitchen.get_by_text("At 3.0 mm:")).to_be_visible()
    kitchen.get_by_role("button", name="+ ends").click()
    kitchen.get_by_label("Weight", exact=True).fill("100 g")
    kitchen.get_by_label("Minutes of work").fill("14")
    kitchen.get_by_label("A bag costs").fill("0.36")
    # what is left of the piece is loose slices
    kitchen.get_by_label("Weight of all of product 1").fill("780 g")
    assert serious(kitchen) == []
    # the rest is whole unless the cook says it is not
    expect(kitchen.get_by_role("button", name="Record 3 packs, keep cutting")).to_be_visible()
    kitchen.get_by_text("Lost", exact=True).click()
    kitchen.get_by_role("button", name="Record the slicing and 3 packs").click()
    expect(kitchen.get_by_role("heading", name="Made before")).to_be_visible()
    assert Entry.objects.filter(batch__code="G-01").count() == entries + 1
    packs = list(Pack.objects.filter(batch__code="G-01").order_by("number"))
    assert [(pack.mark, pack.product, pack.slices, pack.store) for pack in packs] == [
        ("P1", "Goose, thin", 10, "Freezer"),
        ("P2", "Goose, thin", 10, "Freezer"),
        ("P3", "Goose, thin, dice", None, "Freezer"),
    ]
    assert accounted("G-01")
    # fried in place, the next piece on the board
    kitchen.get_by_text("Fry a few slices").click()
    kitchen.get_by_label("Raw").fill("112 g")
    kitchen.get_by_label("Cooked").fill("50 g")
    kitchen.get_by_role("button", name="Record the frying").click()
    wait_until(kitchen, Entry.objects.filter(batch__code="G-01", act="fry").exists)
    kitchen.get_by_role("button", name="Labels").click()
    kitchen.get_by_role("button", name="Print on the label printer").click()
    expect(kitchen.get_by_text("3 printed")).to_be_visible()
    kitchen.keyboard.press("Escape")
    kitchen.get_by_role("link", name="Larder").first.click()
    expect(kitchen.get_by_role("list", name="Goose, thin", exact=True)).to_contain_text("G-01 P1")


def test_a_larder_on_a_phone_half_the_time_without_network(browser, canteen, faults):
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, locale="en-GB", service_workers="allow"
    )
    page = context.new_page()
    sign_in(page, canteen)
    page.evaluate("navigator.serviceWorker.ready.then(() => undefined)")
    page.reload()
    expect(page.get_by_role("region", name="Larder")).to_contain_text("Thaw tonight")
    page.goto(f"{canteen}/slice/pack/J-01/P5")
    expect(page.get_by_role("heading", name="Cherry jowl")).to_be_visible()
    page.goto(f"{canteen}/slice")
    expect(page.get_by_role("heading", name="Larder", exact=True)).to_be_visible()
    page.wait_for_timeout(800)
    taken = Taken.objects.count()
    # two touches with the pack's code: open it, eaten
    page.get_by_label("Code of a pack").fill("j-01 p4")
    page.get_by_role("button", name="Take a pack").click()
    page.get_by_role("button", name="Eaten").click()
    wait_until(page, lambda: Taken.objects.count() == taken + 1)
    expect(page.get_by_text("nothing left")).to_be_visible()

    context.set_offline(True)
    page = open_without_network(page, f"{canteen}/slice/pack/J-01/P5")
    page.get_by_role("button", name="Thaw in Fridge 1").click()
    page.get_by_role("button", name="Some slices").click()
    page.get_by_label("Slices", exact=True).fill("4")
    page.get_by_role("button", name="Sold").click()
    page.get_by_label("What it brought in").fill("3.20")
    page.get_by_role("button", name="Record 4 slices sold").click()
    expect(page.get_by_label("Waiting to be sent")).to_contain_text("2 records wait")
    expect(page.get_by_text("P5 sold: waiting to be sent")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    assert Taken.objects.count() == taken + 1

    context.set_offline(False)
    wait_until(page, lambda: Taken.objects.count() == taken + 2)
    expect(page.get_by_text("6 slices").first).to_be_visible()
    now = PackNow.objects.get(pack__batch__code="J-01", pack__mark="P5")
    assert (now.left_slices, now.store, now.state) == (6, "Fridge 1", "thawed")
    # someone else took the rest meanwhile: said, and nothing doubled
    context.set_offline(True)
    page.get_by_role("button", name="Given away").click()
    assert cook().call("POST", "/packs/J-01/P5/takings", {"fate": "eaten"})[0] == 201
    context.set_offline(False)
    expect(page.get_by_text("nothing is left of “P5”").first).to_be_visible()
    assert Taken.objects.count() == taken + 3
    assert accounted("J-01")
    # counted: one is missing
    page.goto(f"{canteen}/slice")
    page.get_by_role("button", name="Count the shelves").click()
    page.get_by_label("J-01 P6 Cherry jowl").uncheck()
    page.get_by_role("button", name="Record the count: 1 missing").click()
    wait_until(page, lambda: Taken.objects.filter(pack__mark="P6", fate="discarded").exists())
    assert accounted("J-01")
    context.close()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_dish_is_priced_plated_and_costed_anew_by_a_new_price(kitchen: Page, canteen, width):
    kitchen.set_viewport_size({"width": width, "height": 844})
    kitchen.goto(f"{canteen}/slice/dishes")
    kitchen.get_by_role("button", name="New dish").click()
    kitchen.get_by_label("Name", exact=True).fill("Lantern plate")
    kitchen.get_by_label("Price on the menu").fill("8.40")
    kitchen.get_by_label("What", exact=True).fill("Cherry jowl")
    kitchen.get_by_label("On the plate").fill("4 slices")
    kitchen.get_by_role("button", name="+ another part").click()
    kitchen.get_by_label("What", exact=True).nth(1).fill("eggs")
    kitchen.get_by_label("On the plate").nth(1).fill("3 each")
    expect(kitchen.get_by_text("A plate costs $2.72")).to_be_visible()
    kitchen.get_by_label("On the plate").nth(1).fill("-3")
    expect(kitchen.get_by_text("A plate costs –")).to_be_visible()
    kitchen.get_by_label("On the plate").nth(1).fill("3 each")
    expect(kitchen.get_by_text("For the aim: $7.")).to_be_visible()
    assert serious(kitchen) == []
    kitchen.get_by_role("button", name="Save the dish").click()
    kitchen.get_by_role("link", name="Lantern plate").click()
    kitchen.get_by_label("Plates", exact=True).fill("2")
    kitchen.get_by_role("button", name="Plate 2 out of the larder").click()
    expect(kitchen.get_by_text("2 in 30 days")).to_be_visible()
    assert Plating.objects.filter(name="Lantern plate").count() == 1
    assert accounted("J-01")
    on = {"sort": "ingredient", "name": "eggs", "source": "Harbour market", "on": "2026-12-01"}
    with_price = {**on, "price": "6.00", "size": "12 each"}
    with_price["on"] = str(kitchen.evaluate("new Date().toISOString().slice(0, 10)"))
    assert cook().call("POST", "/prices", with_price)[0] == 201
    kitchen.reload()
    moved = kitchen.get_by_role("status").filter(has_text="A plate has moved by +")
    expect(moved).to_be_visible()
    moved.get_by_role("button", name="Seen").click()
    expect(moved).to_have_count(0)
    assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    assert serious(kitchen) == []
    kitchen.goto(f"{canteen}/slice/dishes")
    kitchen.get_by_role("button", name="Export, import").click()
    toast = '{"name": "Toast", "parts": [{"sort": "own", "name": "bread", "cost": "0.40"}]}'
    document = f'{{"format": "dolmetsch-dishes/1", "dishes": [{toast}]}}'
    brought = {"name": "dishes.json", "mimeType": "application/json", "buffer": document.encode()}
    kitchen.get_by_label("Import dishes (CSV, XLSX, JSON)").set_input_files(brought)
    expect(kitchen.get_by_role("link", name="Toast")).to_be_visible()
