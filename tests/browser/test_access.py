"""Every view by axe: no serious find; nothing wider than the screen."""

import re
from datetime import date

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.tastings.models import Trial
from tests.browser.choosing import day_in

VIEWS = {
    "/": "Recently finished",
    "/buy": "At the case",
    "/buy/prices": "Price list",
    "/buy/prices/{jowl}": "jowl, skin on",
    "/buy/prices/import": "Import a price list",
    "/buy/ways": "Methods",
    "/buy/start": "Start a batch",
    "/bench": "Bench",
    "/bench/map": "Map",
    "/bench/figures": "Nitrite limits and spoon weights",
    "/plans": "Plans",
    "/plans/new": "A new plan",
    "/plans/of/Saturday's%20sixty": "Saturday's sixty",
    "/bench/B-01": "Rosemary lamb belly",
    "/bench/L-01/weigh": "After the smoke",
    "/bench/B-01/weigh?kind=trim": "After trimming",
    "/bench/B-01/cure": "Cure for 2 pieces",
    "/bench/B-02/cure": "Cure desk",
    "/bench/B-02/diary": "Lantern belly, four cures",
    "/bench/B-02/piece/A": "A",
    "/bench/J-01": "Cherry-smoked jowl",
    "/fire": "Fire",
    "/slice": "Larder",
    "/slice/board/G-01": "Slice and pack",
    "/slice/pack/J-01/P5": "Cherry jowl",
    "/slice/dishes": "Dishes",
    "/slice/dishes/Harbor%20roll": "Harbor roll",
    "/slice/cupboard": "Store cupboard",
    "/verdict": "Verdict",
    "/verdict/J-01": "Cherry-smoked jowl",
    "/verdict/B-01": "Rosemary lamb belly",
    "/verdict/S-01": "Two-meat quay sausage",
    "/no/such/page": "No such page",
    "/verdict/J-01/house-or-shop": "House or shop?",
    "/verdict/B-01/house-or-shop": "House or shop?",
    "/books": "Books",
    "/books/forecasts": "How good forecasts were",
    "/books/yields": "Yields",
    "/books/yields?by=step&part=source": "Yields",
    "/books/unusual": "Unusual results",
    "/books/trials": "Trials",
    "/books/trials/{trial}": "Trial: Jowl from two butchers",
    "/books/money": "Money",
    "/books/prices": "Prices over time",
    "/books/in-and-out": "In and out",
    "/books/history": "Past batches",
    "/bench/B-02/pieces": "Lantern belly, four cures",
    "/verdict/L-01": "Brined loin, maple and mustard",
    "/books/import": "Import a batch document",
    "/kitchen": "Salt Lantern Canteen",
    "/kitchen/people": "People",
    "/kitchen/audit": "Who did what",
    "/me": "My page",
}


def serious(page: Page):
    # what passes is not written down, which takes as long as finding what does not
    found = Axe().run(page, options={"resultTypes": ["violations"]}).response["violations"]
    return [
        (one["id"], [(node["target"], node["failureSummary"]) for node in one["nodes"]][:3])
        for one in found
        if one["impact"] in ("serious", "critical")
    ]


def test_the_sign_in_page(page: Page, canteen, faults):
    page.goto(canteen)
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    assert serious(page) == []
    page.get_by_role("link", name="Start your kitchen").click()
    expect(page.get_by_role("heading", name="Start your kitchen")).to_be_visible()
    assert serious(page) == []


@pytest.mark.parametrize("width", [1280, 390])
def test_every_view(kitchen: Page, canteen, width):
    kitchen.set_viewport_size({"width": width, "height": 800})
    jowl = PriceItem.objects.get(name="jowl, skin on").pk
    trial = Trial.objects.get(name="Jowl from two butchers").pk
    for address, heading in VIEWS.items():
        path = address.format(jowl=jowl, trial=trial)
        kitchen.goto(canteen + path)
        expect(kitchen.get_by_role("heading", name=heading, exact=True).first).to_be_visible()
        kitchen.wait_for_timeout(150)
        assert (path, serious(kitchen)) == (path, [])
        assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), path


def test_every_form_of_the_bench(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/bench/B-01")
    buttons = {"Trim": "trimming", "Cure": "the cure", "Slice": "slicing", "Other": "the step"}
    for word, recorded in buttons.items():
        kitchen.get_by_role("group", name="What was done").get_by_label(word).check(force=True)
        if word in ("Trim", "Slice"):
            kitchen.get_by_role("button", name="+ skin").click()
        kitchen.get_by_role("button", name="+ add something used").click()
        kitchen.get_by_role("button", name=f"Record {recorded}").click()
        expect(kitchen.get_by_role("alert")).to_be_visible()
        assert (word, serious(kitchen)) == (word, [])
    kitchen.keyboard.press("Escape")
    for word in ("Set the portion", "Add a shop pack", "Record a frying test", "Combine pieces", "Add meat"):
        kitchen.get_by_role("button", name=word, exact=True).press("Enter")
        assert (word, serious(kitchen)) == (word, [])
        kitchen.get_by_role("button", name="Back to recording").press("Enter")
    kitchen.get_by_role("button", name="Correct entry 1, Bought").click()
    expect(kitchen.get_by_label("What was wrong")).to_be_visible()
    assert serious(kitchen) == []


def test_a_batch_that_is_not_here_is_said(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/verdict/Z-99")
    expect(kitchen.get_by_role("alert")).to_contain_text("There is no batch “Z-99” in this kitchen.")
    kitchen.goto(f"{canteen}/no/such/place")
    expect(kitchen.get_by_role("heading", name="No such page")).to_be_visible()


def test_lists_days_folds_and_uploads_by_the_keyboard_and_while_they_are_open(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/plans/new")
    serve = kitchen.get_by_role("combobox", name="Serve")
    serve.focus()
    kitchen.keyboard.press("Enter")
    expect(serve).to_have_attribute("aria-activedescendant", re.compile("."))
    looked_at = kitchen.locator(f"id={serve.get_attribute('aria-activedescendant')}")
    expect(looked_at).to_have_text("plates of a dish")
    expect(looked_at).to_have_attribute("aria-selected", "true")
    assert serious(kitchen) == []
    kitchen.keyboard.press("ArrowDown")
    kitchen.keyboard.press("Enter")
    expect(serve).to_have_text("so much of a product")
    expect(serve).to_be_focused()
    kitchen.keyboard.press("Enter")
    kitchen.keyboard.press("Escape")
    expect(serve).to_have_attribute("aria-expanded", "false")
    # a day is typed, stepped through, and refused where it is none
    day = kitchen.get_by_label("Day", exact=True)
    day.fill("2027-01-31")
    day.press("ArrowUp")
    assert day_in(day) == date(2027, 2, 1)
    day.fill("February 30")
    day.press("Tab")
    expect(day).to_have_attribute("aria-invalid", "true")
    expect(kitchen.get_by_text("“February 30” is not a day")).to_be_visible()
    # chosen in a month
    day.fill("2027-03-05")
    day.locator("xpath=../../..").get_by_role("button", include_hidden=True).click()
    kitchen.locator(".n-date-panel-date").get_by_text("17", exact=True).first.click()
    assert day_in(day) == date(2027, 3, 17)
    fold = kitchen.get_by_role("button", name="What, when and how")
    fold.press("Enter")
    expect(fold).to_have_attribute("aria-expanded", "false")
    # eight and more are narrowed by what is typed
    kitchen.goto(f"{canteen}/kitchen")
    zone = kitchen.get_by_role("combobox", name="Time zone")
    zone.focus()
    kitchen.keyboard.press("Enter")
    kitchen.keyboard.type("Anch")
    expect(kitchen.get_by_role("option")).to_have_text(["America/Anchorage"])
    assert serious(kitchen) == []
    kitchen.keyboard.press("Enter")
    expect(zone).to_have_attribute("aria-expanded", "false")
    expect(kitchen.locator(f"id={zone.get_attribute('aria-describedby').split()[0]}")).to_have_text(
        "America/Anchorage"
    )
