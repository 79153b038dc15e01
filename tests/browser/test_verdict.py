"""The verdict used as a cook uses it: the ladder, what-if, policies, files out and in, linked batches."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.core.documents.answers import answer_cost
from dolmetsch.server.batches.models import Batch, Entry
from tests.browser.choosing import choose
from tests.browser.test_access import serious


@pytest.fixture
def ladder(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/verdict/J-01/house-or-shop")
    expect(kitchen.get_by_role("region", name="Ladder of prices")).to_contain_text("A pound, sliced")
    return kitchen


def test_the_ladder_on_every_basis(ladder: Page):
    drawn = ladder.get_by_role("region", name="Ladder of prices")
    expect(drawn).to_contain_text("$1.06 under the good shop bacon")
    for basis, answer in (
        ("portion", "$0.43 under the good shop bacon"),
        ("slice", "A slice"),
        ("cooked ounce", "$0.46 under the good shop bacon"),
    ):
        ladder.get_by_role("radio", name=basis, exact=True).check(force=True)
        expect(drawn).to_contain_text(answer)
    expect(ladder.get_by_text("Past year:")).to_be_visible()
    sizes = ladder.get_by_role("region", name="How many slabs at once")
    expect(sizes).to_contain_text("Cheaper than the good shop bacon from 2 slabs up.")
    expect(sizes).to_contain_text("the smoker is full")
    machine = ladder.get_by_role("region", name="Would a machine pay")
    machine.get_by_label("It costs").fill("180")
    machine.get_by_label("Minutes saved per batch").fill("30")
    expect(machine).to_contain_text("Pays for itself after 20 batches like this one")


def test_what_if_by_typing_and_by_key_and_the_record_stays(ladder: Page):
    entries = Entry.objects.count()
    drawn = ladder.get_by_role("region", name="Ladder of prices")
    tag = ladder.get_by_label("Tag price", exact=True)
    tag.fill("3.30")
    expect(drawn).to_contain_text("with your changes")
    expect(ladder.get_by_role("region", name="What if")).to_contain_text("a sliced pound $7.14")
    strip = ladder.get_by_role("region", name="The strip with your changes")
    expect(strip).to_be_visible()
    slide = ladder.get_by_label("Smoked, slide")
    slide.focus()
    before = ladder.get_by_label("Smoked", exact=True).input_value()
    for _ in range(4):
        ladder.keyboard.press("ArrowRight")
    assert float(ladder.get_by_label("Smoked", exact=True).input_value()) > float(before)
    tag.fill("much")
    expect(ladder.get_by_text("“much” is not a price")).to_be_visible()
    ladder.get_by_role("button", name="Reset").click()
    expect(drawn).not_to_contain_text("with your changes")
    expect(strip).to_be_hidden()
    assert Entry.objects.count() == entries


def test_a_policy_is_tried_then_kept_for_the_batch(ladder: Page, canteen):
    ladder.get_by_role("button", name="Work counted, $18.00").click()
    ladder.get_by_label("Fuel", exact=True).uncheck()
    ladder.get_by_label("An hour of work is worth").fill("")
    expect(ladder.get_by_role("region", name="Ladder of prices")).to_contain_text("with your changes $4.53")
    ladder.get_by_role("button", name="Save for this batch").click()
    expect(ladder.get_by_role("button", name="Work not counted")).to_be_visible()
    ladder.goto(f"{canteen}/verdict/J-01")
    expect(ladder.get_by_role("region", name="Price of a sliced pound")).to_contain_text("$4.53")
    expect(
        ladder.get_by_text("Work not counted, trim credited, fuel left out, for this batch.")
    ).to_be_visible()


def test_a_figure_tells_where_it_comes_from(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/verdict/J-01")
    kitchen.get_by_role("button", name="A portion: where it comes from", exact=True).click()
    answer = kitchen.get_by_role("dialog", name="A portion")
    expect(answer).to_contain_text("price of a slice × slices of a portion")
    expect(answer.get_by_role("link", name="entry 10, sliced")).to_be_visible()
    kitchen.keyboard.press("Escape")
    expect(answer).to_be_hidden()
    kitchen.get_by_role("radio", name="B1").check(force=True)
    expect(kitchen.get_by_role("region", name=re.compile("^The strip"))).to_contain_text("4.95")


def test_a_batch_goes_out_as_a_document_and_comes_in_again(kitchen: Page, canteen, tmp_path):
    kitchen.goto(f"{canteen}/verdict/J-01")
    kitchen.get_by_role("button", name="Export").click()
    with kitchen.expect_download() as download:
        kitchen.get_by_role("link", name="The batch document").click()
    path = tmp_path / "jowl.json"
    download.value.save_as(path)
    assert answer_cost(path.read_bytes())["final"]["cost_per_lb"] == "7.1388"
    batches = Batch.objects.count()
    kitchen.goto(f"{canteen}/books/import")
    kitchen.set_input_files("input[type=file]", path)
    expect(kitchen.get_by_text("not imported yet")).to_be_visible()
    assert Batch.objects.count() == batches
    kitchen.get_by_role("button", name="Import this batch").click()
    expect(kitchen.get_by_role("status")).to_contain_text("J-02 Cherry-smoked jowl")
    assert Batch.objects.count() == batches + 1
    broken = json.loads(path.read_text())
    broken["steps"][2]["weigh"]["Q"] = "1 lb"
    path.write_text(json.dumps(broken))
    kitchen.set_input_files("input[type=file]", path)
    expect(kitchen.get_by_role("alert")).to_contain_text("step 3, weigh.Q: there is no piece “Q”")


def test_meats_come_together_and_one_is_thrown_away(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/bench/B-01")
    kitchen.get_by_role("button", name="Add meat").click()
    kitchen.get_by_role("radio", name="From another batch").check(force=True)
    choose(kitchen.get_by_label("From batch"), "J-01")
    choose(kitchen.get_by_label("Piece", exact=True), "A1")
    kitchen.get_by_label("What it is").fill("smoked jowl")
    kitchen.get_by_label("How much of it").fill("1 lb")
    kitchen.get_by_role("button", name="Add this meat").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: bought, smoked jowl")
    kitchen.get_by_role("button", name="Combine pieces").click()
    kitchen.get_by_label("A, 3.90 lb").check()
    kitchen.get_by_label("lot 2, 1.00 lb").check()
    kitchen.get_by_label("Weight of all together").fill("4.8 lb")
    kitchen.get_by_role("button", name="Combine them").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: mixed")
    kitchen.get_by_role("button", name="Throw pieces away").click()
    kitchen.get_by_label("B, 3.75 lb").check()
    kitchen.get_by_label("Why", exact=True).fill("smelled off")
    kitchen.get_by_role("button", name="Throw them away").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: thrown away, B")
    kitchen.get_by_role("navigation", name="Batch").get_by_role("link", name="Verdict").click()
    expect(kitchen.get_by_role("region", name="Linked batches")).to_contain_text("A1 of J-01")


def test_one_field_finds_a_piece_a_price_and_what_was_recorded_on_a_day(kitchen: Page, canteen):
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/books")
    field = kitchen.get_by_role("search", name="Find")
    field.get_by_label("Find").fill("b-02 a")
    expect(field.get_by_role("link", name="B-02 A", exact=True)).to_be_visible()
    assert serious(kitchen) == []
    assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    field.get_by_label("Find").fill("cherry pellets")
    field.get_by_role("link", name="cherry pellets").click()
    expect(kitchen.get_by_role("heading", name="cherry pellets")).to_be_visible()
    # back, what was asked for is still there
    kitchen.go_back()
    expect(field.get_by_role("link", name="cherry pellets")).to_be_visible()
    field.get_by_label("Find").fill("no such thing")
    expect(field.get_by_text("No match.")).to_be_visible()
