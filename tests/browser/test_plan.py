"""From "forty on Saturday" back to what to buy, whether it fits, and the list: a whole journey."""

from datetime import timedelta

from django.utils import timezone
from icalendar import Calendar
from playwright.sync_api import Page, expect

from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews
from tests.browser.test_access import serious


def test_a_meal_is_planned_made_to_fit_and_put_on_the_list(kitchen: Page, canteen, faults):
    kitchen.get_by_role("link", name="Plan a meal").click()
    kitchen.get_by_role("link", name="Plan a meal").click()
    day = timezone.localdate() + timedelta(days=34)
    kitchen.get_by_label("Name").fill("Ferry supper")
    kitchen.get_by_label("Day", exact=True).fill(day.isoformat())
    kitchen.get_by_label("Dish", exact=True).fill("Harbor roll")
    kitchen.get_by_label("Plates").fill("50")
    kitchen.get_by_label("Method").select_option("Dry cure, cherry smoke")
    kitchen.get_by_label("Meat, from the price list").select_option("jowl, skin on")
    kitchen.get_by_label("A pack holds").fill("6 lb")
    kitchen.get_by_label("A piece weighs, as it is laid").fill("3 lb")
    expect(kitchen.get_by_text("3 packs, 18.00 lb")).to_be_visible()
    # six pieces, four places in the smoker: two loads are offered, with their price, and taken
    clash = kitchen.get_by_role("alert").filter(has_text="Smoker: 2 places too few")
    expect(clash).to_be_visible()
    assert serious(kitchen) == []
    clash.get_by_role("button", name="Smoke it in two loads").click()
    expect(kitchen.get_by_text("It fits.")).to_be_visible()
    expect(kitchen.get_by_label("Loads of the smoker")).to_have_value("2")
    kitchen.get_by_role("button", name="Save the plan").click()
    expect(kitchen.get_by_role("heading", name="Ferry supper")).to_be_visible()
    kitchen.get_by_role("button", name="Go: put it on the list").click()
    expect(kitchen.get_by_text("0 of 7 jobs done")).to_be_visible()
    assert Meal.objects.get(name="Ferry supper").input["loads"] == 2
    with kitchen.expect_download() as loaded:
        kitchen.get_by_role("link", name="Calendar file").click()
    calendar = Calendar.from_ical(loaded.value.path().read_bytes())
    assert len(calendar.walk("VALARM")) == MealJob.objects.filter(meal__name="Ferry supper").count() == 7
    # its places are held on Today, and what it does to the meal follows what was done
    kitchen.get_by_role("link", name="Today").first.click()
    expect(kitchen.get_by_role("region", name="Who lies where until when")).to_be_visible()
    assert not MealJobNews.objects.exists()


def test_two_days_ahead_it_is_too_late_and_says_which_day_can_be_met(kitchen: Page, canteen):
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/plans/new")
    kitchen.get_by_label("Name").fill("Tomorrow")
    kitchen.get_by_label("Day", exact=True).fill((timezone.localdate() + timedelta(days=2)).isoformat())
    kitchen.get_by_label("Dish", exact=True).fill("Harbor roll")
    kitchen.get_by_label("Plates").fill("50")
    kitchen.get_by_label("Method").select_option("Dry cure, cherry smoke")
    kitchen.get_by_label("Meat, from the price list").select_option("jowl, skin on")
    expect(kitchen.get_by_text("It is too late for that day. Begun now it is ready").first).to_be_visible()
    assert kitchen.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
