"""From "forty on Saturday" back to what to buy, whether it fits, and the list: a whole journey."""

import uuid
from datetime import date, timedelta

from django.db.models import F
from django.utils import timezone
from icalendar import Calendar
from playwright.sync_api import Page, expect

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews
from dolmetsch.server.plans.models import PlannedTask
from tests.browser.choosing import choose, day_in
from tests.browser.test_access import serious


def test_a_meal_is_planned_made_to_fit_and_put_on_the_list(kitchen: Page, canteen, faults):
    kitchen.get_by_role("link", name="Plan a meal").click()
    expect(kitchen.get_by_role("heading", name="Plans", exact=True)).to_be_visible()
    kitchen.get_by_role("link", name="Plan a meal").click()
    day = timezone.localdate() + timedelta(days=34)
    kitchen.get_by_label("Name").fill("Ferry supper")
    kitchen.get_by_label("Day", exact=True).fill(day.isoformat())
    kitchen.get_by_label("Dish", exact=True).fill("Harbor roll")
    kitchen.get_by_label("Plates").fill("50")
    choose(kitchen.get_by_label("Method"), "Dry cure, cherry smoke")
    choose(kitchen.get_by_label("Meat, from the price list"), "jowl, skin on")
    kitchen.get_by_label("A pack holds").fill("6 lb")
    kitchen.get_by_label("A piece weighs").fill("3 lb")
    expect(kitchen.get_by_text("3 packs, 18.00 lb")).to_be_visible()
    # six pieces, four places in the smoker: two loads are offered, with their price, and taken
    clash = kitchen.get_by_role("alert").filter(has_text="Smoker: 2 places too few")
    expect(clash).to_be_visible()
    assert serious(kitchen) == []
    clash.get_by_role("button", name="Smoke it in two loads").click()
    expect(kitchen.get_by_text("It fits.")).to_be_visible()
    expect(kitchen.get_by_label("Loads of the smoker")).to_have_text("2")
    kitchen.get_by_role("button", name="Save the plan").click()
    expect(kitchen.get_by_role("heading", name="Ferry supper")).to_be_visible()
    kitchen.get_by_role("button", name="Add to the to-do list").click()
    expect(kitchen.get_by_text("0 of 7 jobs done")).to_be_visible()
    assert Meal.objects.get(name="Ferry supper").input["makes"][0]["loads"] == 2
    with kitchen.expect_download() as loaded:
        kitchen.get_by_role("link", name="Calendar file").click()
    calendar = Calendar.from_ical(loaded.value.path().read_bytes())
    assert len(calendar.walk("VALARM")) == MealJob.objects.filter(meal__name="Ferry supper").count() == 7
    assert not MealJobNews.objects.exists()


def test_a_plan_is_dragged_asked_for_at_the_case_and_set_beside_another(kitchen: Page, canteen):
    saved = Meal.objects.get(name="Saturday's sixty")
    copy = {"name": "Ferry supper", "version": 1, "input": {**saved.input, "name": "Ferry supper"}}
    kept = {"kitchen": saved.kitchen, "recorded_at": saved.recorded_at, "recorded_by": saved.recorded_by}
    Meal.objects.create(**copy, **kept, key=uuid.uuid4(), fingerprint="x")
    kitchen.goto(f"{canteen}/plans/of/Ferry supper")
    expect(kitchen.get_by_role("button", name="Add to the to-do list")).to_be_visible()
    # dragged along its days it is worked out anew
    before = saved.input["day"]
    handle = kitchen.locator(".handle").bounding_box()
    width = kitchen.locator(".meal-day").bounding_box()["width"]
    at = (handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2)
    kitchen.mouse.move(*at)
    kitchen.mouse.down()
    kitchen.mouse.move(at[0] - 1.2 * width, at[1], steps=6)
    kitchen.mouse.up()
    after = day_in(kitchen.get_by_label("Day", exact=True))
    assert date.fromisoformat(before) - after == timedelta(days=1)
    expect(kitchen.get_by_role("button", name="Save the plan")).to_be_visible()
    # its places are held on Today; at the case it asks for what it lacks
    kitchen.goto(f"{canteen}/plans/of/Ferry supper")
    kitchen.get_by_role("link", name="Check offers at the case for it").click()
    expect(kitchen.get_by_text("sliced, enough 90 times of 100; buy by")).to_be_visible()
    kitchen.get_by_role("link", name="Today").first.click()
    expect(kitchen.get_by_role("region", name="Who lies where until when")).to_be_visible()
    expect(kitchen.get_by_role("link", name="packs, ").first).to_be_visible()
    kitchen.get_by_role("link", name="Plan a meal").click()
    for name in ("Ferry supper", "Saturday's sixty"):
        kitchen.get_by_label(f"{name} side by side").check()
    beside = kitchen.get_by_role("region", name="Plans side by side")
    expect(beside.get_by_role("columnheader")).to_have_text(["Ferry supper", "Saturday's sixty"])
    expect(beside.get_by_role("row", name="Latest start")).to_be_visible()
    assert serious(kitchen) == []


def test_a_cure_that_runs_long_says_what_it_does_to_the_meal_and_what_can_be_done(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/plans/new")
    day = timezone.localdate() + timedelta(days=20)
    kitchen.get_by_label("Name").fill("Lamp night")
    kitchen.get_by_label("Day", exact=True).fill(day.isoformat())
    choose(kitchen.get_by_label("Serve", exact=True), "so much of a product")
    kitchen.get_by_label("Product").fill("Autumn belly")
    kitchen.get_by_label("How much").fill("5 lb")
    choose(kitchen.get_by_label("Method"), "Dry cure, cherry smoke")
    choose(kitchen.get_by_label("Meat, from the price list"), "belly, skin on")
    kitchen.get_by_role("button", name="Save the plan").click()
    kitchen.get_by_role("button", name="Add to the to-do list").click()
    choose(kitchen.get_by_label("Made in batch"), "B-02")
    expect(kitchen.get_by_text("3 of 7 jobs done")).to_be_visible()
    expect(kitchen.get_by_text("What its batch shows to be done is checked off by itself.")).to_be_visible()
    expect(kitchen.get_by_role("status").filter(has_text="before the meal")).to_be_visible()
    moved_to = timezone.now() + timedelta(days=22)
    tasks = PlannedTask.objects.filter(batch__code="B-02", kind__in=["out", "smoke"], state="open")
    assert tasks.update(due_at=moved_to, until_at=moved_to)
    Kitchen.objects.update(writes=F("writes") + 1)
    kitchen.reload()
    late = kitchen.get_by_role("alert").filter(has_text="after the meal")
    expect(late).to_be_visible()
    late.get_by_role("button", name="Move the meal to").first.click()
    assert day_in(kitchen.get_by_label("Day", exact=True)) > day
    kitchen.get_by_role("button", name="Save the plan").click()
    expect(kitchen.get_by_role("status").filter(has_text="before the meal")).to_be_visible()


def test_two_days_ahead_it_is_too_late_and_says_which_day_can_be_met(kitchen: Page, canteen):
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/plans/new")
    kitchen.get_by_label("Name").fill("Tomorrow")
    kitchen.get_by_label("Day", exact=True).fill((timezone.localdate() + timedelta(days=2)).isoformat())
    kitchen.get_by_label("Dish", exact=True).fill("Harbor roll")
    kitchen.get_by_label("Plates").fill("50")
    choose(kitchen.get_by_label("Method"), "Dry cure, cherry smoke")
    choose(kitchen.get_by_label("Meat, from the price list"), "jowl, skin on")
    expect(kitchen.get_by_text("It is too late for that day. Begun now it is ready").first).to_be_visible()
    assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
