"""A fire as a cook tends it: a whole stepped cook at 600 times, its fire low, its probes mixed up."""

import socket
import time
from contextlib import closing

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading
from dolmetsch.server.practice import actions
from tests.browser.choosing import choose
from tests.browser.test_access import serious
from tests.browser.test_bench import cook
from tests.devices.conftest import cooker  # noqa: F401 (a fixture)
from tests.server.conftest import weigh
from tests.server.test_collecting import collecting
from tests.server.test_practice import BELLY, seed_with
from tests.waiting import LONGEST, wait_for


@pytest.fixture
def drum(cooker, canteen, settings):
    """The canteen's cooker, heard by a collector; sends it a command."""
    settings.COOKERS = f"salt-lantern/drum=line:127.0.0.1:{cooker}"

    def command(words):
        with closing(socket.create_connection(("127.0.0.1", cooker), timeout=3)) as line:
            line.sendall(f"{words}\n".encode())
            with line.makefile() as heard:
                assert next(answer for answer in heard if answer.startswith(("OK", "NO"))) == "OK\n"

    with collecting(cooker, kitchen="salt-lantern"):
        yield command


def into_the_smoke(page: Page) -> None:
    page.get_by_role("link", name="Fire").click()
    page.get_by_role("link", name="Into the smoke").click()
    page.get_by_label("L-01 A").check()
    page.get_by_label("L-01 B").check()
    choose(page.get_by_label("Begin with"), "Hot smoke")
    page.get_by_label("Nitrite in it").fill("140")
    page.get_by_role("button", name="Put 2 pieces into the smoke").click()
    expect(page.get_by_role("heading", name="Brined loin")).to_be_visible()


def test_a_stepped_cook_whose_fire_burns_low_and_whose_probes_are_mixed_up(kitchen: Page, drum):
    for words in ("MEAT 1 35", "MEAT 2 60", "PROGRAM 130/60 180/120 235", "SPEED 600"):
        drum(words)
    into_the_smoke(kitchen)
    alarm = (
        kitchen.get_by_role("list", name="Alarms").get_by_role("listitem").filter(has_text="Smoke 180 now")
    )
    alarm.get_by_role("button", name="Silence").click()
    expect(alarm).to_contain_text("quieted")
    kitchen.get_by_role("button", name="Next: Smoke 180").click()
    expect(alarm).to_have_count(0)
    kitchen.get_by_role("button", name="Fuel", exact=True).click()
    kitchen.get_by_label("What was added").fill("oak pellets")
    kitchen.get_by_label("At", exact=True).fill("4.20")
    kitchen.get_by_role("button", name="Record it").click()
    kitchen.get_by_text("Cook 225 in").wait_for()
    drum("FIRE low")
    expect(kitchen.get_by_role("list", name="What is wrong")).to_contain_text("Fire low since")
    drum("FIRE good")
    expect(kitchen.get_by_role("list", name="What is wrong")).to_contain_text("Fire low at")
    kitchen.get_by_role("button", name="Next: Cook 225").click()
    expect(kitchen.get_by_role("region", name="Ready")).to_contain_text("Ready between")
    # the plugs are mixed up: a reading by hand of A is what probe 2 reads now
    drum("SWAP 1 2")
    before = ProbeReading.objects.count()
    # what is compared with a reading by hand is what was kept, so that has to be of after the swap
    wait_for(lambda: ProbeReading.objects.count() >= before + 3, "readings of the new fire")
    drum("SPEED 1")
    kitchen.wait_for_timeout(6_000)
    hot = kitchen.get_by_role("region", name="drum").get_by_role("listitem").filter(has_text="L-01 B")
    kitchen.get_by_role("button", name="Instant reading").click()
    choose(kitchen.get_by_role("combobox", name="Piece"), "L-01 A")
    kitchen.get_by_label("Reading, ").fill(hot.locator("b").inner_text().strip("°"))
    kitchen.get_by_role("button", name="Record it").click()
    kitchen.get_by_role("button", name="Swap probes 2 and 1 from here on").click()
    expect(hot).to_contain_text("probe 1")
    assert serious(kitchen) == []
    drum("SPEED 600")
    expect(kitchen.get_by_role("region", name="Ready")).to_contain_text("The coldest is there")
    expect(kitchen.get_by_role("region", name="Cooked through?")).to_contain_text("✓ met")
    # one into ice, the thick one forgotten on the table: the warmest decides
    for words in ("ICE 1", "TAKE 2"):
        drum(words)
    kitchen.get_by_role("button", name="Out of the smoke, cool").click()
    cooling = kitchen.get_by_role("region", name="Cooling")
    expect(cooling.get_by_role("listitem").filter(has_text="135 to 70 °F")).to_contain_text("failed")
    expect(kitchen.get_by_role("list", name="Alarms")).to_contain_text("Too slow to 70 °F")
    kitchen.get_by_role("link", name="Weigh L-01").click()
    expect(kitchen.get_by_text("Goes into this step")).to_contain_text("oak pellets, share of 2 $2.1")
    kitchen.go_back()
    kitchen.get_by_role("button", name="Done").click()
    expect(kitchen.get_by_text("done, since")).to_be_visible()
    kinds = list(FireEvent.objects.order_by("at", "id").values_list("kind", flat=True))
    assert [kind for kind in kinds if kind not in ("quiet", "fuel")] == [
        *("probe", "probe", "stage", "stage", "instant", "swap", "cool", "done")
    ]


def test_with_one_hand_on_a_phone_and_without_a_cooker(kitchen: Page, canteen, settings):
    settings.COOKERS = ""
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/fire")
    expect(kitchen.get_by_text("No cooker is connected")).to_be_visible()
    kitchen.get_by_role("link", name="Into the smoke").click()
    kitchen.get_by_label("B-01 A").check()
    choose(kitchen.get_by_label("Begin with"), "Cold smoke")
    kitchen.get_by_role("button", name="Put one piece into the smoke").click()
    kitchen.get_by_role("button", name="Instant reading").click()
    kitchen.get_by_label("Reading, ").fill("1500")
    kitchen.get_by_role("button", name="Record it").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("cannot be; look at the unit")
    kitchen.get_by_role("button", name="Instant reading").click()
    kitchen.get_by_label("Reading, ").fill("62")
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
    choose(form.get_by_role("combobox", name="Piece"), "G-01 B")
    form.get_by_label("To lose, %").fill("140")
    form.get_by_role("button", name="Hang this piece").click()
    expect(form.get_by_role("alert")).to_be_visible()
    form.get_by_label("To lose, %").fill("30")
    form.get_by_role("button", name="Hang this piece").click()
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
    choose(note.get_by_role("combobox", name="Piece"), "G-01 B")
    choose(note.get_by_role("combobox", name="What"), "Taken down")
    note.get_by_role("button", name="Save").click()
    expect(kitchen.get_by_text("lost 30.3 %")).to_be_visible()
    expect(hung).to_have_count(0)


def test_a_practice_run_on_a_phone(kitchen: Page, canteen, monkeypatch):
    monkeypatch.setattr(actions.secrets, "randbelow", lambda most: seed_with(BELLY, "fire_out"))
    before = Batch.objects.count()
    kitchen.set_viewport_size({"width": 390, "height": 844})
    kitchen.goto(f"{canteen}/fire/practice")
    choose(kitchen.get_by_label("How fast"), "an hour in 6 seconds")
    kitchen.get_by_role("button", name="Start practice").first.click()
    alarms = kitchen.get_by_role("list", name="Alarms")
    # whoever looks does what the alarms ask for, in whatever order, until it is ready
    asked = {
        "Smoke 180 now": "Next: Smoke 180",
        "ook at the fire": "Fuel",
        "Cook 225 now": "Next: Cook 225",
        "is reached: pull it": "Out of the smoke, cool",
    }
    deadline = time.monotonic() + 2 * LONGEST
    while "is reached: pull it" in asked:
        assert time.monotonic() < deadline, asked
        expect(alarms).to_be_visible()
        text = alarms.inner_text()
        for word in [word for word in asked if word in text]:
            # fuel goes on as often as it is asked for
            act = asked[word] if asked[word] == "Fuel" else asked.pop(word)
            kitchen.get_by_role("button", name=act, exact=True).click()
        kitchen.wait_for_timeout(500)
    kitchen.get_by_role("button", name="Done").click()
    end = kitchen.get_by_role("region", name="How it went")
    expect(end).to_contain_text("The fire went out. Caught")
    expect(end).to_contain_text("cooked through")
    assert kitchen.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious(kitchen) == []
    assert Batch.objects.count() == before
