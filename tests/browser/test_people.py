"""A kitchen of one's own, in the browser: started, shared, locked out of and let in again, looked over."""

import re
import time

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen, User
from tests.browser.choosing import choose
from tests.browser.test_access import serious

PASSWORD = "smoke and salt 9"


@pytest.fixture
def machine(transactional_db, live_server, settings, tmp_path):
    """A fresh machine without the demo; its address."""
    settings.PHOTOS = str(tmp_path)
    return live_server.url


def start_kitchen(page: Page, address: str) -> None:
    page.goto(address)
    page.get_by_role("link", name="Start your kitchen").click()
    page.get_by_label("Its name").fill("The Back Porch")
    choose(page.get_by_label("Country"), "United States")
    page.get_by_role("button", name="Next").click()
    page.get_by_label("What the others call you").fill("Ibba")
    page.get_by_label("Name to sign in with").fill("ibba")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Next").click()
    page.get_by_label("Your scale shows steps of").fill("5 g")
    page.get_by_label("One fridge more").click()
    page.get_by_label("One smoker more").click()
    page.get_by_role("button", name="Start the kitchen").click()
    expect(page.get_by_role("heading", name="Start a batch")).to_be_visible()


def start_batch(page: Page) -> None:
    page.get_by_label("Cut", exact=True).fill("belly, skin off")
    page.get_by_label("Weight on our scale").fill("10 lb")
    page.get_by_label("Price", exact=True).fill("3.20")
    page.get_by_role("button", name=re.compile("Start the batch|Start")).last.click()
    expect(page.get_by_role("heading", name="belly, skin off").first).to_be_visible()


def invite(page: Page, address: str, role: str, name: str) -> str:
    page.goto(f"{address}/kitchen/people")
    page.get_by_label("Their name").fill(name)
    page.get_by_text(role, exact=True).last.click()
    page.get_by_role("button", name="Make the invitation").click()
    card = page.get_by_text("It is shown only now")
    expect(card).to_be_visible()
    return re.search(r"Code\s*([A-Z0-9]{5}-[A-Z0-9]{5})", page.locator("aside").inner_text())[1]


def open_phone(page: Page) -> Page:
    context = page.context.browser.new_context(
        viewport={"width": 390, "height": 844}, service_workers="block"
    )
    context.set_default_timeout(30_000)
    return context.new_page()


def test_from_the_first_start_to_the_first_batch_of_ones_own(page: Page, machine, faults):
    begun = time.monotonic()
    start_kitchen(page, machine)
    start_batch(page)
    assert time.monotonic() - begun < 180
    kitchen = Kitchen.objects.get()
    assert (kitchen.name, kitchen.currency, kitchen.weight_unit) == ("The Back Porch", "USD", "lb")
    assert Batch.objects.get().kitchen == kitchen
    # the fridge and the smoker are on the map, and nobody else's records are to be seen
    page.goto(f"{machine}/bench/map")
    expect(page.get_by_role("heading", name="Fridge")).to_be_visible()
    expect(page.get_by_text("Salt Lantern")).to_have_count(0)


def test_a_second_cook_comes_in_by_a_code_and_a_helper_sees_no_price(page: Page, machine, faults):
    start_kitchen(page, machine)
    start_batch(page)
    page.goto(f"{machine}/kitchen")
    page.get_by_label("Helpers see prices and costs").uncheck()
    page.get_by_role("button", name="Save", exact=True).first.click()
    expect(page.get_by_text("Saved").first).to_be_visible()
    code = invite(page, machine, "Helper", "Odo")
    phone = open_phone(page)
    phone.goto(machine)
    phone.get_by_label("The code you were given").fill(code.lower())
    phone.get_by_role("button", name="Open the invitation").click()
    expect(phone.get_by_role("heading", name="The Back Porch")).to_be_visible()
    assert serious(phone) == []
    phone.get_by_label("Name to sign in with").fill("odo")
    phone.get_by_label("Password").fill("password1234")
    phone.get_by_role("button", name="Join The Back Porch").click()
    expect(phone.get_by_text("too common").first).to_be_visible()
    phone.get_by_label("Password").fill("hams and hooks 7")
    phone.get_by_role("button", name="Join The Back Porch").click()
    expect(phone.get_by_text("You are a helper here")).to_be_visible()
    assert "$" not in phone.locator("main").inner_text()
    phone.goto(f"{machine}/bench/B-01")
    expect(phone.get_by_role("heading", name="belly, skin off").first).to_be_visible()
    phone.wait_for_timeout(300)
    assert "$3" not in phone.locator("main").inner_text()
    assert phone.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    phone.goto(f"{machine}/verdict/B-01")
    expect(phone.get_by_text("keeps prices from helpers")).to_be_visible()
    # and somebody else finds the code used
    other = open_phone(page)
    other.goto(f"{machine}/join/{code}")
    expect(other.get_by_text("was used already")).to_be_visible()


def test_a_forgotten_password_is_made_anew_by_an_owners_link(page: Page, machine, faults):
    start_kitchen(page, machine)
    code = invite(page, machine, "Cook", "Odo")
    phone = open_phone(page)
    phone.goto(f"{machine}/join/{code}")
    phone.get_by_label("Name to sign in with").fill("odo")
    phone.get_by_label("Password").fill("hams and hooks 7")
    phone.get_by_role("button", name="Join The Back Porch").click()
    expect(phone.get_by_role("link", name="Kitchen", exact=True)).to_be_visible()
    page.goto(f"{machine}/kitchen/people")
    page.get_by_role("button", name="Link for a new password").click()
    expect(page.get_by_text("It is shown only now")).to_be_visible()
    link = page.locator(".address").inner_text()
    forgetful = open_phone(page)
    forgetful.goto(machine + link.split("/password/")[0][:0] + "/password/" + link.split("/password/")[1])
    expect(forgetful.get_by_role("heading", name="A new password for Odo")).to_be_visible()
    assert serious(forgetful) == []
    forgetful.get_by_label("New password").fill("juniper and bay 5")
    forgetful.get_by_role("button", name="Save the new password").click()
    forgetful.get_by_role("button", name="Sign in").click()
    forgetful.get_by_label("Name", exact=True).fill("odo")
    forgetful.get_by_label("Password").fill("juniper and bay 5")
    forgetful.get_by_role("button", name="Sign in").click()
    expect(forgetful.get_by_role("link", name="Kitchen", exact=True)).to_be_visible()
    assert User.objects.get(username="odo").check_password("juniper and bay 5")


def test_an_owner_reads_who_did_what_and_goes_to_it(page: Page, machine, faults):
    start_kitchen(page, machine)
    start_batch(page)
    page.get_by_role("link", name="The Back Porch").click()
    page.get_by_role("link", name="Who did what").click()
    row = page.get_by_role("listitem").filter(has_text="started a batch")
    expect(row).to_contain_text("Ibba")
    expect(row).to_contain_text("Bought: belly, skin off")
    page.get_by_label("Find").fill("fridge")
    expect(row).to_have_count(0)
    expect(page.get_by_text("has a fridge: Fridge")).to_be_visible()
    page.get_by_label("Find").fill("started a batch")
    row.get_by_role("link", name="See it").click()
    expect(page.get_by_role("heading", name="belly, skin off").first).to_be_visible()


def test_the_kitchens_tablet_asks_who_works_there(page: Page, machine, faults):
    start_kitchen(page, machine)
    page.goto(f"{machine}/me")
    page.get_by_label("Your code, 4 to 8 digits").fill("4711")
    page.get_by_role("button", name="Save the code").click()
    expect(page.get_by_text("Your code for the kitchen tablet is saved.")).to_be_visible()
    page.goto(f"{machine}/kitchen/people")
    page.get_by_role("button", name="Make this device the tablet").click()
    expect(page.get_by_text("Who are you?")).to_be_visible()
    assert serious(page) == []
    page.get_by_role("button", name="Ibba").click()
    for digit in "4712":
        page.get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="Open").click()
    expect(page.get_by_text("That is not your code")).to_be_visible()
    for digit in "4711":
        page.get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="Open").click()
    expect(page.get_by_role("button", name="Hand over, Ibba")).to_be_visible()
    page.get_by_role("button", name="Hand over, Ibba").click()
    expect(page.get_by_text("Who are you?")).to_be_visible()
