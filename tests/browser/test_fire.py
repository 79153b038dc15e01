"""A fire as a cook tends it: a whole stepped cook at 600 times, its fire low, its probes mixed up."""

import socket
from contextlib import closing

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.fires.models import Fire, FireEvent
from tests.browser.test_access import serious
from tests.browser.test_bench import cook
from tests.devices.conftest import cooker  # noqa: F401 (a fixture)
from tests.server.conftest import weigh
from tests.server.test_collecting import start_collector


@pytest.fixture
def drum(cooker, canteen, settings):  # noqa: F811
    """The canteen's cooker, heard by a collector; sends it a command."""
    settings.COOKERS = f"salt-lantern/drum=line:127.0.0.1:{cooker}"
    collector = start_collector(cooker, kitchen="salt-lantern")

    def command(words):
        with closing(socket.create_connection(("127.0.0.1", cooker), timeout=3)) as line:
            line.sendall(f"{words}\n".encode())
            with line.makefile() as heard:
                assert next(answer for answer in heard if answer.startswith(("OK", "NO"))) == "OK\n"

    yield command
    collector.terminate()
    collector.wait(timeout=10)


def into_the_smoke(page: Page) -> None:
    page.get_by_role("link", name="Fire").click()
    page.get_by_role("link", name="Into the smoke").click()
    page.get_by_label("L-01 A").check()
    page.get_by_label("L-01 B").check()
    page.get_by_label("Begin with").select_option("Hot smoke")
    page.get_by_label("Nitrite in it").fill("140")
    page.get_by_role("button", name="Put 2 pieces into the smoke").click()
    expect(page.get_by_role("heading", name="Brined loin")).to_be_visible()


def test_a_stepped_cook_whose_fire_burns_low_and_whose_probes_are_mixed_up(kitchen: Page, drum):
    for words in ("MEAT 1 35", "MEAT 2 60", "PROGRAM 130/60 180/120 235", "SPEED 600"):
        drum(words)
    into_the_smoke(kitchen)
    kitchen.get_by_text("Smoke 180 now").wait_for()
    kitchen.get_by_role("button", name="Next: Smoke 180").click()
    kitchen.get_by_text("Cook 225 in").wait_for()
    drum("FIRE low")
    expect(kitchen.get_by_role("list", name="What is wrong")).to_contain_text("Fire low since")
    drum("FIRE good")
    expect(kitchen.get_by_role("list", name="What is wrong")).to_contain_text("Fire low at")
    kitchen.get_by_role("button", name="Next: Cook 225").click()
    expect(kitchen.get_by_role("region", name="Ready")).to_contain_text("Ready between")
    # the plugs are mixed up: a reading by hand of A is what probe 2 reads now
    drum("SWAP 1 2")
    drum("SPEED 1")
    kitchen.wait_for_timeout(6_000)
    hot = kitchen.get_by_role("region", name="drum").get_by_role("listitem").filter(has_text="L-01 B")
    kitchen.get_by_role("button", name="Instant reading").click()
    kitchen.get_by_role("combobox", name="Piece").select_option("L-01 A")
    kitchen.get_by_label("It read").fill(hot.locator("b").inner_text().strip("°"))
    kitchen.get_by_role("button", name="Record it").click()
    kitchen.get_by_role("button", name="Swap probes 2 and 1 from here on").click()
    expect(hot).to_contain_text("probe 1")
    assert serious(kitchen) == []
    drum("SPEED 600")
    expect(kitchen.get_by_role("region", name="Ready")).to_contain_text("The coldest is there")
    expect(kitchen.get_by_role("region", name="Cooked through?")).to_contain_text("✓ met")
    for words in ("ICE 1", "ICE 2"):
        drum(words)
    kitchen.get_by_role("button", name="Out of the smoke, cool").click()
    cooling = kitchen.get_by_role("region", name="Cooling")
    expect(cooling.get_by_role("listitem").filter(has_text="135 to 70 °F")).to_contain_text("✓ met")
    expect(cooling.get_by_role("listitem").filter(has_text="80 to 45 °F")).to_contain_text("✓ met")
    expect(kitchen.get_by_role("link", name="Weigh L-01")).to_be_visible()
    kitchen.get_by_role("button", name="Done").click()
    expect(kitchen.get_by_text("done, since")).to_be_visible()
    kinds = list(FireEvent.objects.order_by("at", "id").values_list("kind", flat=True))
    assert kinds == ["probe", "probe", "stage", "stage", "instant", "swap", "cool", "done"]


def test_with_one_hand_on_a_phone_and_without_a_cooker(kitchen: Page, canteen, settings):
    settings.COOKERS = ""
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/fire")
    expect(kitchen.get_by_text("No cooker is connected")).to_be_visible()
    kitchen.get_by_role("link", name="Into the smoke").click()
    kitchen.get_by_label("B-01 A").check()
    kitchen.get_by_label("Begin with").select_option("Cold smoke")
    kitchen.get_by_role("button", name="Put one piece into the smoke").click()
    kitchen.get_by_role("button", name="Instant reading").click()
    kitchen.get_by_label("It read").fill("1500")
    kitchen.get_by_role("button", name="Record it").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("cannot be; look at the unit")
    kitchen.get_by_role("button", name="Instant reading").click()
    kitchen.get_by_label("It read").fill("62")
    kitchen.get_by_role("button", name="Record it").click()
    expect(kitchen.get_by_role("region", name="Diary of the fire")).to_contain_text("B-01 A by hand: 62 °F")
    assert kitchen.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious(kitchen) == []
    kitchen.get_by_role("button", name="Out of the smoke, rest").click()
    expect(kitchen.get_by_role("list", name="Cautions")).to_contain_text("Raw: cook before eating")
    assert Fire.objects.get().pull_at is None


def test_a_hook_from_green_to_ready(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/fire/chamber")
    expect(kitchen.get_by_text("2 pieces hang")).to_be_visible()
    kitchen.get_by_role("button", name="Hang a piece").click()
    form = kitchen.get_by_role("form", name="Hang a piece")
    form.get_by_role("combobox", name="Piece").select_option("G-01 B")
    form.get_by_label("To lose, %").fill("140")
    form.get_by_role("button", name="Hang it").click()
    expect(form.get_by_role("alert")).to_be_visible()
    form.get_by_label("To lose, %").fill("30")
    form.get_by_role("button", name="Hang it").click()
    hung = kitchen.get_by_role("list", name="What hangs").get_by_role("listitem").filter(has_text="G-01 B")
    expect(hung).to_contain_text("not weighed yet")
    # 2.71 lb green; a weighing on the scale view is a weighing of the hook
    cook().recorded("G-01", weigh("hang", B="2.50 lb"))
    kitchen.reload()
    expect(hung).to_contain_text("−7.8 %")
    expect(kitchen.get_by_role("region", name="Next ready")).to_be_visible()
    assert serious(kitchen) == []
    kitchen.set_viewport_size({"width": 390, "height": 844})
    assert kitchen.evaluate("document.documentElement.scrollWidth") <= 390
    cook().recorded("G-01", weigh("hang", B="1.89 lb"))
    kitchen.reload()
    expect(hung).to_contain_text("✓ dry")
    expect(kitchen.get_by_role("list", name="What to mind")).to_contain_text("not that it is safe")
    note = kitchen.get_by_role("form", name="Note")
    note.get_by_role("combobox", name="Piece").select_option("G-01 B")
    note.get_by_role("combobox", name="What").select_option("Taken down")
    note.get_by_role("button", name="Note it").click()
    expect(kitchen.get_by_text("lost 30.3 %")).to_be_visible()
    expect(hung).to_have_count(0)
