"""Buying as a cook does it: tags read with one hand, lists brought in, forecasts on the strip, the books."""

import io
import re

import openpyxl
import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.prices.models import Quote
from tests.browser.choosing import choose
from tests.browser.test_access import serious

PHONE = {"width": 390, "height": 844}
#: A tap on a key one sees, with a thumb, takes about a second; reading a tag comes on top.
TAP_SECONDS = 1.0
READ_SECONDS = 3.0


class Hand:
    """One hand: it taps what it sees, and counts."""

    def __init__(self, page: Page):
        self.page, self.taps = page, 0

    def tap(self, name, within=None):
        place = self.page if within is None else self.page.get_by_role("group", name=within)
        place.get_by_role("button", name=name, exact=True).tap()
        self.taps += 1

    def digits(self, typed):
        for digit in typed:
            self.tap(digit, "Digits")

    def field(self, label):
        self.page.get_by_label(label).tap()
        self.taps += 1


def offers(page: Page):
    """The rows of offers: items with a heading."""
    items = page.get_by_role("region", name="Offers, cheapest first").get_by_role("listitem")
    return items.filter(has=page.get_by_role("heading"))


@pytest.fixture
def browser_context_args(browser_context_args):
    return {**browser_context_args, "has_touch": True}


def test_four_offers_with_one_hand_in_under_a_minute(kitchen: Page):
    kitchen.set_viewport_size(PHONE)
    kitchen.get_by_role("link", name="Buy").tap()
    expect(kitchen.get_by_role("heading", name="At the case")).to_be_visible()
    hand = Hand(kitchen)
    hand.tap("Add an offer")
    hand.tap("Jowl", "Cut")
    hand.digits("285")
    hand.tap("Add, next tag")
    hand.tap("Belly", "Cut")
    hand.tap("skin on")
    hand.digits("379")
    hand.tap("Add, next tag")
    hand.tap("Belly", "Cut")
    hand.tap("skinless")
    hand.digits("52")
    hand.tap("0", "Digits")
    hand.tap("Add, next tag")
    hand.tap("Shoulder", "Cut")
    hand.tap("bone in")
    hand.tap("12 %")
    hand.digits("1592")
    hand.tap("the pack")
    hand.digits("8")
    hand.tap("00", "Digits")
    hand.tap("Add, done")
    assert hand.taps * TAP_SECONDS + 4 * READ_SECONDS < 60, hand.taps
    rows = offers(kitchen)
    expect(rows).to_have_count(4)
    names = rows.get_by_role("heading")
    expect(names).to_have_text(["Shoulder, bone in", "Jowl", "Belly, skin on", "Belly, skinless"])
    expect(rows.nth(0)).to_contain_text("paying for 12 % water: $2.23 meat")
    # cheap, but not meat to cure: that stands where "buy" would
    expect(rows.nth(0).get_by_text("better not cured", exact=True)).to_be_visible()
    expect(rows.nth(1)).to_contain_text("buy")
    expect(rows.nth(3)).to_contain_text("walk past")
    expect(rows.nth(1)).to_contain_text(re.compile(r"worth up to \$\d\.\d\d"))
    assert serious(kitchen) == []
    assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    # what was typed is still there when the phone comes out of the pocket again
    kitchen.reload()
    expect(rows).to_have_count(4)
    hand.tap("More on Shoulder, bone in")
    expect(rows.nth(0)).to_contain_text("Enhanced meat is better not cured")
    before = Batch.objects.count()
    hand.tap("Take 2 packs home")
    expect(kitchen.get_by_role("heading", name="Shoulder, Dry cure, cherry smoke")).to_be_visible()
    assert Batch.objects.count() == before + 1
    log = kitchen.get_by_role("region", name="Log")
    expect(log).to_contain_text("shoulder, bone in")
    expect(log).to_contain_text("good shop bacon")
    expect(kitchen.get_by_role("region", name="What it will come to")).to_contain_text("8 times out of 10")


def test_a_pack_price_typed_as_a_pound_is_asked_about(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/buy")
    hand = Hand(kitchen)
    hand.tap("Add an offer")
    hand.tap("Jowl", "Cut")
    kitchen.get_by_label("Price, $").fill("34.20")
    kitchen.get_by_label("Pack weighs").fill("12")
    hand.tap("Add, done")
    asked = kitchen.get_by_role("group", name="Is the price right?")
    expect(asked).to_contain_text("$34.20 a pound? That looks like the price of the pack")
    asked.get_by_role("button", name="It is for the pack").click()
    expect(asked).to_be_hidden()
    row = offers(kitchen)
    expect(row).to_contain_text("$2.85")
    hand.tap("Change the plan")
    kitchen.get_by_label("Or for how many portions").fill("60")
    hand.tap("More on Jowl")
    expect(row).to_contain_text("2 packs, 24.00 lb")
    expect(row).to_contain_text(
        re.compile(r"\d\d\.\d % ± \d+\.\d: your last 6 trims of this cut, and 4 of other cuts")
    )
    kitchen.get_by_label("Buying about").fill("lots")
    expect(kitchen.get_by_text("“lots” is not a weight")).to_be_visible()
    hand.tap("Add an offer")
    choose(kitchen.get_by_label("From the price list"), "shoulder, bone in, 1.99/lb, Harbour market")
    hand.tap("Add, done")
    expect(kitchen.get_by_role("heading", name="Shoulder, bone in")).to_be_visible()
    hand.tap("Add an offer")
    hand.tap("Loin", "Cut")
    hand.digits("300")
    hand.tap("the pack")
    hand.tap("Add, done")
    expect(kitchen.get_by_text("The pack's weight is missing")).to_be_visible()
    expect(row).to_have_count(2)
    kitchen.get_by_role("button", name="Remove it").click()
    assert serious(kitchen) == []


def bring(page: Page, name, content, mime="text/csv"):
    page.get_by_label(re.compile("^Choose (a|another) file")).set_input_files(
        {"name": name, "mimeType": mime, "buffer": content}
    )


def test_a_hostile_list_is_brought_in(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/buy/prices/import")
    kitchen.get_by_label("Supplier").fill("Tidewell Provisions")
    bring(kitchen, "holiday.png", b"\x89PNG\r\n\x1a\n\x00\x00")
    expect(kitchen.get_by_role("alert")).to_contain_text("neither a CSV nor an XLSX file")
    bring(kitchen, "huge.csv", b"item,price\n" + b"x" * 12_000_000)
    expect(kitchen.get_by_role("alert")).to_contain_text("12.0 MB; at most 10 MB can be read")
    rows = ["Ware;Einheit;Preis;Tag"]
    rows += ["Schinkenkeule roh;kg;1.234,50;2026-03-02", "Bauch;kg;=1+1;2026-03-02", ";kg;3,00;2026-03-02"]
    rows += [f"Gewürz {number};kg;{number},25;02.03.2026" for number in range(1, 2_400)]
    before = Quote.objects.count()
    bring(kitchen, "liste.csv", "\n".join(rows).encode("cp1252"))
    matching = kitchen.get_by_role("region", name="Match the columns")
    expect(matching).to_contain_text("2402 rows")
    expect(kitchen.get_by_text("parted by semicolons")).to_be_visible()
    expect(kitchen.get_by_text("read as Windows-1252")).to_be_visible()
    would = kitchen.get_by_role("region", name="What would be saved")
    expect(would).to_contain_text("Choose the column for what it is.")
    for head, what in (
        ("Ware", "what it is"),
        ("Einheit", "the unit"),
        ("Preis", "the price"),
        ("Tag", "the day"),
    ):
        choose(matching.get_by_label(f"Column {head} is"), what)
    expect(would).to_contain_text("2400 new, 0 already saved, 2 cannot be read")
    expect(would).to_contain_text("Row 3: “=1+1” is a formula")
    expect(would).to_contain_text("Row 4: the name is missing")
    assert serious(kitchen) == []
    assert Quote.objects.count() == before
    would.get_by_role("button", name="Save 2400 new prices, leave 2 out").click()
    expect(kitchen.get_by_text("Saved:")).to_be_visible()
    assert Quote.objects.count() == before + 2400
    # the same list again: matched as before, nothing new
    bring(kitchen, "liste.csv", "\n".join(rows).encode("cp1252"))
    expect(kitchen.get_by_text("Matched like the last list from Tidewell Provisions.")).to_be_visible()
    expect(would).to_contain_text("0 new, 2400 already saved")
    expect(would.get_by_role("button", name="Save 0 new prices")).to_be_disabled()


def test_a_workbook_is_brought_in_and_the_list_read(kitchen: Page, canteen):
    book = openpyxl.Workbook()
    for row in (["item", "price", "pack"], ["night jowl", 30, "10 lb"], ["night belly", 41.5, "10 lb"]):
        book.active.append(row)
    held = io.BytesIO()
    book.save(held)
    kitchen.goto(f"{canteen}/buy/prices/import")
    kitchen.get_by_label("Supplier").fill("Night boat")
    bring(kitchen, "night.xlsx", held.getvalue())
    would = kitchen.get_by_role("region", name="What would be saved")
    would.get_by_role("button", name="Save 2 new prices").click()
    kitchen.get_by_role("link", name="See the price list").click()
    kitchen.get_by_label("Search by name").fill("night")
    row = kitchen.get_by_role("row", name=re.compile("night jowl"))
    expect(row).to_contain_text("$3.00/lb")
    row.get_by_role("link").click()
    kitchen.get_by_role("button", name="Correct the price").click()
    kitchen.get_by_label("Price", exact=True).fill("33")
    kitchen.get_by_label("Pack size").fill("10 lb")
    kitchen.get_by_role("button", name="Save the correction").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("Give a reason")
    kitchen.get_by_label("What was wrong").fill("old list")
    kitchen.get_by_role("button", name="Save the correction").click()
    prices = kitchen.get_by_role("region", name="All prices")
    expect(prices).to_contain_text("does not count: old list")
    expect(kitchen.get_by_role("region", name="In short")).to_contain_text("$3.30/lb")


def test_a_shop_pack_is_noted_and_fried(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/buy/prices")
    # the sorts stand still once the list has come with their counts
    expect(kitchen.get_by_role("row", name=re.compile("jowl"))).to_be_visible()
    kitchen.get_by_role("radio", name=re.compile("Shop packs")).check(force=True)
    kitchen.get_by_role("button", name="Add a price").click()
    form = kitchen.get_by_role("region", name="Add a price")
    form.get_by_label("What", exact=True).fill("thick cut")
    form.get_by_label("Price", exact=True).fill("7.20")
    form.get_by_label("Where").fill("Pier grocer")
    form.get_by_role("button", name="Save this price").click()
    expect(form.get_by_text("Give the weight of the pack.").first).to_be_visible()
    form.get_by_label("Pack size").fill("12 oz")
    form.get_by_role("button", name="Save this price").click()
    expect(form.get_by_role("status")).to_contain_text("Saved")
    form.get_by_label("What", exact=True).fill("thick cut")
    form.get_by_label("Price", exact=True).fill("72")
    form.get_by_label("Pack size").fill("12 oz")
    form.get_by_label("Where").fill("Pier grocer")
    form.get_by_role("button", name="Save this price").click()
    expect(form.get_by_role("alert")).to_contain_text("96.00 a pound is far off the usual 9.60 a pound")
    form.get_by_role("button", name="Close").click()
    kitchen.get_by_role("link", name="thick cut").click()
    # the list's own “Raw meat” is gone once the pack's page stands
    expect(kitchen.get_by_role("heading", name="thick cut")).to_be_visible()
    kitchen.get_by_label("Raw", exact=True).fill("100 g")
    kitchen.get_by_label("Cooked").fill("35 g")
    kitchen.get_by_role("button", name="Save this test").click()
    expect(kitchen.get_by_role("region", name="Frying tests")).to_contain_text("35.0 % is left, 1 test")
    assert serious(kitchen) == []


def test_the_strip_shows_what_is_to_come_and_the_way_is_chosen(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/bench/B-01")
    note = kitchen.get_by_role("region", name="What it will come to")
    expect(note).to_contain_text("Nobody said yet what it becomes")
    before = note.inner_text()
    choose(note.get_by_label("Method"), "Dry cure, cherry smoke")
    expect(note).not_to_contain_text("Nobody said yet")
    assert note.inner_text() != before
    expect(kitchen.get_by_role("columnheader", name=re.compile("Smoked expected"))).to_be_visible()
    wide = note.locator(".range").inner_text()
    kitchen.get_by_label("Weight of A").fill("3.75 lb")
    kitchen.get_by_label("Weight of B").fill("3.6 lb")
    kitchen.get_by_role("button", name="Record the cure").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: cured")
    expect(note.locator(".range")).not_to_have_text(wide)
    now = [float(price) for price in re.findall(r"\d+\.\d\d", note.locator(".range").inner_text())]
    was = [float(price) for price in re.findall(r"\d+\.\d\d", wide)]
    assert now[1] - now[0] < was[1] - was[0]


def test_the_books_tell_what_steps_keep_and_how_good_forecasts_were(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/books/yields?by=step")
    yields = kitchen.get_by_role("region", name="Yields", exact=True)
    expect(yields).to_contain_text("your last 6 hot smokes of this cut, and 4 of other cuts")
    kitchen.get_by_role("navigation", name="Books").get_by_role("link", name="Forecasts").click()
    short = kitchen.get_by_role("region", name="In short")
    expect(short).to_contain_text(re.compile(r"\d+ of 70"))
    expect(short).to_contain_text("expected 80 %")
    steps = kitchen.get_by_role("region", name="By step")
    expect(steps.get_by_role("row")).to_have_count(8)


def test_a_way_is_saved_and_an_offer_is_judged_by_it(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/buy/ways")
    kitchen.get_by_role("button", name="New method").click()
    form = kitchen.get_by_role("region", name="New method")
    form.get_by_label("Name").fill("Night brine")
    form.get_by_label("Minutes per batch").first.fill("soon")
    form.get_by_role("button", name="Save this method").click()
    expect(form.get_by_text("“soon” is not a number of minutes").first).to_be_visible()
    form.get_by_label("Minutes per batch").first.fill("12")
    choose(form.get_by_role("combobox", name="Step 2"), "immersion")
    form.get_by_role("button", name="+ add something used").nth(1).click()
    form.get_by_label("Uses").fill("coarse salt")
    form.get_by_label("How much").fill("90 g")
    assert serious(kitchen) == []
    form.get_by_role("button", name="Save this method").click()
    expect(kitchen.get_by_role("heading", name="Night brine")).to_be_visible()
    kitchen.goto(f"{canteen}/buy")
    kitchen.get_by_role("button", name="Change the plan").click()
    choose(kitchen.get_by_label("Method"), "Night brine")
    expect(kitchen.get_by_text("by “Night brine”")).to_be_visible()
