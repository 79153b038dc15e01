"""The interface used as a cook uses it: by what is written on it, from sign-in to verdict."""

import re

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Entry
from tests.browser.conftest import sign_in


def choose(page: Page, word: str) -> None:
    page.get_by_role("radio", name=word, exact=True).first.check(force=True)


def start_a_batch(page: Page) -> None:
    page.get_by_role("link", name="Start a batch").first.click()
    page.get_by_label("Name of the batch").fill("Harbour lamb")
    page.get_by_label("Cut", exact=True).fill("breast of lamb")
    page.get_by_label("Weight on the label").fill("10 lb 4 oz")
    page.get_by_label("Weight on our scale").fill("10 lb")
    page.get_by_label("Price", exact=True).fill("2.00")
    price = page.get_by_role("region", name="Price as purchased")
    expect(price).to_contain_text("$2.05")
    expect(price).to_contain_text("$4.52 a kilogram")
    page.get_by_role("button", name="Start the batch").click()
    expect(page.get_by_role("heading", name="Harbour lamb")).to_be_visible()


def trim(page: Page) -> None:
    page.get_by_label("Weight of A").fill("5 lb")
    page.get_by_role("button", name="Split: add a piece").click()
    page.get_by_label("Weight of B").fill("1.36 kg")
    page.get_by_role("button", name="+ lean trim").click()
    page.get_by_label("Weight", exact=True).fill("1 lb")
    choose(page, "A price")
    page.get_by_role("textbox", name="Price of a pound").fill("2.50")
    expect(page.get_by_text("lost, not weighed", exact=True)).to_be_visible()
    expect(page.get_by_text("1.00 lb (0.454 kg)")).to_be_visible()
    page.get_by_role("button", name="Record trimming").click()
    expect(page.get_by_role("status")).to_contain_text("Recorded: trimmed")


def smoke(page: Page) -> None:
    choose(page, "Smoke")
    page.get_by_label("Weight of A").fill("4 lb")
    page.get_by_label("Weight of B").fill("2.5 lb")
    page.get_by_role("button", name="+ add something used").click()
    page.get_by_label("What", exact=True).fill("oak")
    page.get_by_label("How much").fill("3 lb")
    page.get_by_label("Price, or the sum for all of it").fill("10.00 for 5 lb")
    expect(page.get_by_text("comes to $6.00")).to_be_visible()
    page.get_by_label("Minutes of work").fill("30")
    page.get_by_role("button", name="Record the smoke").click()
    expect(page.get_by_role("status")).to_contain_text("Recorded: smoked")


def slice_piece(page: Page, mark: str, weight: str, slices: str) -> None:
    choose(page, "Slice")
    whole = page.get_by_role("radio", name=re.compile(rf"^{mark}, "))
    if whole.count():
        whole.check(force=True)
    page.get_by_label("Sliced weight").fill(weight)
    page.get_by_label("Slices", exact=True).fill(slices)
    page.get_by_role("button", name="+ ends").click()
    page.get_by_label("Weight", exact=True).fill("4 oz")
    choose(page, "As the meat")
    page.get_by_role("button", name="Record slicing").click()
    expect(page.get_by_role("status")).to_contain_text("Recorded: sliced")


def set_terms(page: Page) -> None:
    page.get_by_role("button", name="Add a shop pack").click()
    page.get_by_label("Which kind").fill("good shop bacon")
    page.get_by_label("Price of the pack").fill("6.00")
    page.get_by_label("Weight of the pack").fill("12 oz")
    page.get_by_label("Slices in the pack").fill("12")
    page.get_by_role("button", name="Set the shop pack").first.click()
    expect(page.get_by_role("status")).to_contain_text("Recorded: shop pack")
    page.get_by_role("button", name="Set the portion").click()
    page.get_by_label("Slices per portion").fill("3")
    page.get_by_role("button", name="Set the portion").first.click()
    expect(page.get_by_role("status")).to_contain_text("Recorded: portion")


@pytest.mark.parametrize("width", [1280, 390])
def test_from_sign_in_to_verdict(page: Page, canteen, faults, width):
    """20.50 − 2.50 back + 6.00 of oak + 9.00 of work, shared 5 lb to 1.36 kg: A 20.63, B 12.37.

    Their ends take along 1/16 and 1/10 of that: 30.47 stay for 6 lb in 96 slices.
    """
    page.set_viewport_size({"width": width, "height": 844 if width < 720 else 800})
    sign_in(page, canteen)
    start_a_batch(page)
    trim(page)
    smoke(page)
    set_terms(page)
    slice_piece(page, "A", "3.75 lb", "60")
    slice_piece(page, "B", "2.25 lb", "36")
    page.get_by_role("navigation", name="Batch").get_by_role("link", name="Verdict").click()
    headline = page.get_by_role("region", name="Price of a sliced pound")
    expect(headline).to_contain_text("$5.08")
    expect(headline).to_contain_text("$11.20 a kilogram")
    expect(headline).to_contain_text("A portion, 3 slices$0.95")
    expect(headline).to_contain_text("Kept of what was bought60.0 %")
    shop = page.get_by_role("region", name="Against the shop")
    expect(shop).to_contain_text("$2.92 a pound cheaper")
    expect(shop).to_contain_text("$17.53 less on this batch")
    expect(shop).to_contain_text("$0.55 less a portion")
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    page.get_by_role("link", name=re.compile("^Today")).click()
    expect(page.get_by_role("list", name="Recently finished")).to_contain_text("Harbour lamb")


def test_a_wrong_entry_is_corrected_and_both_stay(kitchen: Page):
    kitchen.get_by_role("link", name="Brined loin, maple and mustard", exact=True).click()
    kitchen.get_by_role("navigation", name="Batch").get_by_role("link", name="Log").click()
    kitchen.get_by_role("button", name=re.compile("Correct entry 5, Rested")).click()
    kitchen.get_by_label("Weight of A").fill("4 lb 8 oz")
    kitchen.get_by_role("button", name="Correct this step: rest").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("Give a reason: the wrong entry stays in the log")
    kitchen.get_by_label("What was wrong").fill("tray was on the scale")
    kitchen.get_by_role("button", name="Correct this step: rest").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Corrected: rested")
    log = kitchen.get_by_role("region", name="Log")
    expect(log).to_contain_text("A 4 lb 10.5 oz · B 4 lb 7 oz")
    expect(log).to_contain_text("Corrected by entry 6; no longer counts")
    expect(log).to_contain_text("Corrects entry 5: “tray was on the scale”")


def test_the_chain_by_keyboard_alone(kitchen: Page):
    keys = kitchen.keyboard
    kitchen.get_by_role("link", name="Skip to the content").focus()
    keys.press("n")
    expect(kitchen.get_by_label("Name of the batch")).to_be_visible()
    kitchen.get_by_label("Name of the batch").focus()
    for typed in ("Night duck", "duck breast", "Quay butcher", "4 lb", "3.9 lb"):
        keys.type(typed)
        keys.press("Tab")
    expect(kitchen.get_by_role("radio", name="A pound")).to_be_focused()
    keys.press("ArrowRight")
    keys.press("ArrowRight")
    keys.press("Tab")
    keys.type("24.00")
    keys.press("Enter")
    expect(kitchen.get_by_role("heading", name="Night duck")).to_be_visible()
    keys.press("w")
    expect(kitchen.get_by_label("Mark")).to_be_focused()
    keys.press("Tab")
    keys.type("3.5 lb")
    keys.press("Enter")
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: trimmed")
    kitchen.locator("body").click(position={"x": 2, "y": 400})
    keys.press("v")
    expect(kitchen.get_by_role("region", name="Price of a trimmed pound, so far")).to_be_visible()
    trimmed = kitchen.get_by_role("button", name=re.compile("^Trimmed"))
    trimmed.focus()
    keys.press("ArrowLeft")
    expect(kitchen.get_by_role("button", name=re.compile("^Bought"))).to_be_focused()
    keys.press("?")
    expect(kitchen.get_by_role("dialog", name="Keyboard shortcuts")).to_be_visible()
    keys.press("Escape")
    expect(kitchen.get_by_role("dialog", name="Keyboard shortcuts")).to_be_hidden()
    expect(kitchen.get_by_role("heading", name="Night duck")).to_be_visible()


def open_lamb(page: Page) -> None:
    lamb = page.get_by_role("listitem").filter(has_text="Rosemary lamb belly")
    lamb.get_by_role("link", name="Record the cure").click()
    page.get_by_label("Weight of A").fill("3.7 lb")
    page.get_by_label("Weight of B").fill("3.6 lb")


def test_a_lost_answer_is_retried_with_the_same_key_and_recorded_once(kitchen: Page):
    """The first answer never arrives, though the write lands; trying again doubles nothing."""
    keys = []
    open_lamb(kitchen)
    entries = "**/batches/B-01/entries"

    def lose_answer(route, request):
        keys.append(request.headers["idempotency-key"])
        if len(keys) == 1:
            route.fetch()
            route.abort()
        else:
            route.continue_()

    kitchen.route(lambda url: url.endswith("/batches/B-01/entries") and "previews" not in url, lose_answer)
    before = Entry.objects.count()
    kitchen.get_by_role("button", name="Record the cure").click()
    alert = kitchen.get_by_role("alert")
    expect(alert).to_contain_text("No answer came back")
    expect(kitchen.get_by_label("Weight of A")).to_have_value("3.7 lb")
    alert.get_by_role("button", name="Try again").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: cured")
    assert (len(keys), len(set(keys)), Entry.objects.count()) == (2, 1, before + 1), entries


def test_a_session_that_ran_out_keeps_what_was_typed(kitchen: Page):
    # what is still asked for would tell of the session before the button does
    with kitchen.expect_response(lambda answer: "3.6 lb" in (answer.request.post_data or "")):
        open_lamb(kitchen)
    expect(kitchen.get_by_text("then costs")).to_be_visible()
    kitchen.wait_for_load_state("networkidle")
    kitchen.context.clear_cookies(name="sessionid")
    kitchen.get_by_role("button", name="Record the cure").click()
    again = kitchen.get_by_role("dialog", name="Sign in to continue")
    again.get_by_label("Name").fill("maren")
    again.get_by_label("Password").fill("salt-lantern")
    again.get_by_role("button", name="Sign in").click()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: cured")


def test_what_was_typed_survives_a_reload(kitchen: Page):
    open_lamb(kitchen)
    kitchen.reload()
    expect(kitchen.get_by_label("Weight of A")).to_have_value("3.7 lb")
    expect(kitchen.get_by_label("Weight of B")).to_have_value("3.6 lb")


def test_two_cooks_at_one_batch(kitchen: Page, canteen):
    open_lamb(kitchen)
    other = kitchen.context.new_page()
    other.goto(f"{canteen}/bench/B-01")
    other.wait_for_load_state("networkidle")
    other.get_by_role("button", name="Correct entry 2, Trimmed").click()
    expect(other.get_by_role("heading", name="Correct entry 2")).to_be_visible()
    other.get_by_label("Minutes of work").fill("40")
    other.get_by_label("What was wrong").fill("clock was slow")
    other.get_by_role("button", name="Correct this step: trim").click()
    expect(other.get_by_role("status")).to_contain_text("Corrected: trimmed")
    kitchen.get_by_role("button", name="Record the cure").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("Maren recorded “Trimmed”")
    # nobody has read it sooner: of two touches within 400 ms the second hits nothing new
    kitchen.wait_for_timeout(500)
    # the form gives way under the second touch
    kitchen.get_by_role("button", name="Record the cure anyway").dblclick()
    expect(kitchen.get_by_role("status")).to_contain_text("Recorded: cured")


def test_a_weight_that_cannot_be_is_told_at_its_field(kitchen: Page):
    before = Entry.objects.count()
    open_lamb(kitchen)
    field = kitchen.get_by_label("Weight of B")
    for typed, answer in (
        ("0", "a weight of nothing"),
        ("-2 lb", "below zero"),
        ("6 t", "is not a weight"),
        ("5001 kg", "over 5 t"),
        ("4.3.1 lb", "is not a weight"),
        ("twelve", "is not a weight"),
    ):
        field.fill(typed)
        kitchen.get_by_role("button", name="Record the cure").click()
        expect(field).to_have_attribute("aria-invalid", "true")
        said = kitchen.locator(f"#{field.get_attribute('aria-describedby')}")
        expect(said).to_contain_text(answer)
        expect(field).to_have_value(typed)
        # typed anew, it is no longer held against the field
        field.fill("3.6 lb")
        expect(said).not_to_contain_text(answer)
    assert Entry.objects.count() == before
