"""The bench as a cook works it: the scale, a garage without network, cures and labels, the days between."""

import re
import socket
import time
from contextlib import closing

import pytest
from django.test import Client
from django.utils import timezone
from playwright.sync_api import Page, expect

from dolmetsch.server.batches.models import Entry
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.diary.models import Note
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.plans.models import PlannedTask, TaskNews
from tests.browser.choosing import choose
from tests.browser.conftest import LAN_NAME, sign_in
from tests.browser.test_access import serious
from tests.server.conftest import Api
from tests.waiting import LONGEST

FOUR = {
    "act": "split",
    "kind": "trim",
    "piece": "lot",
    "pieces": [{"mark": mark, "weight": "2.4 lb"} for mark in "ABCD"],
}


def cook() -> Api:
    """Maren's own client, for what a journey needs to be there."""
    client = Client()
    client.force_login(User.objects.get(username="maren"))
    return Api(client=client, slug="salt-lantern")


@pytest.fixture
def lay(devices):
    """Lays so many grams on the simulated scale, or has it do something else."""

    def command(words):
        with closing(socket.create_connection(("127.0.0.1", devices[0]), timeout=3)) as line:
            line.sendall(f"{words}\n".encode())
            with line.makefile() as heard:
                assert next(answer for answer in heard if answer.startswith(("OK", "NO"))) == "OK\n"

    command("TAKE")
    command("CLEAR")
    yield command
    command("TAKE")
    command("CLEAR")


def wait_until(page: Page, is_so) -> None:
    """Wait for what the server has yet to write."""
    for _ in range(LONGEST * 10):
        if is_so():
            return
        page.wait_for_timeout(100)
    raise AssertionError("it never came")


def take(page: Page, pounds: str, mark: str) -> None:
    button = page.get_by_role("button", name=f"Take {pounds} lb for {mark}", exact=True)
    expect(button).to_be_enabled()
    # a wet knuckle hits twice
    button.dblclick()
    expect(page.get_by_role("button", name=f"Piece {mark}", exact=True)).to_contain_text("weighed")


@pytest.mark.parametrize("width", [1280, 390])
def test_three_pieces_one_after_another_on_a_noisy_scale(kitchen: Page, canteen, lay, width):
    kitchen.set_viewport_size({"width": width, "height": 844})
    kitchen.goto(f"{canteen}/bench/B-02/weigh")
    expect(kitchen.get_by_role("heading", name="Out of the cure")).to_be_visible()
    before = Entry.objects.count()
    # 4.40, 4.30 and 4.60 lb went in; the scale trembles by a gram and shows steps of five
    for grams, pounds, mark in ((1900, "4.19", "A"), (1855, "4.09", "B"), (2085, "4.60", "C")):
        lay(f"PUT {grams}")
        expect(kitchen.get_by_text("kept of this step")).to_be_visible()
        take(kitchen, pounds, mark)
    expect(kitchen.get_by_role("button", name="Piece D", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    assert serious(kitchen) == []
    # undone, and that stays readable
    kitchen.keyboard.press("u")
    expect(kitchen.get_by_role("button", name="Piece C", exact=True)).to_contain_text("before the cure")
    # it lies there still, and can be taken again
    expect(kitchen.get_by_role("button", name="Take 4.60 lb for C", exact=True)).to_be_enabled()
    expect(kitchen.get_by_text("since trimmed")).to_be_visible()
    assert Entry.objects.count() == before + 4
    weighed = Entry.objects.filter(batch__code="B-02", kind="cure").order_by("sequence")
    assert [entry.weighings.get().typed for entry in weighed] == ["4.19 lb", "4.09 lb", "4.60 lb"]
    # what the desk gave out for A is charged with it
    assert "crushed juniper" in {line.what for line in weighed[0].used.all()}
    undone = Entry.objects.get(batch__code="B-02", act="withdraw")
    assert (undone.corrects.pk, undone.reason) == (weighed[2].pk, "undone at the scale")


def test_a_scale_in_trouble_says_so_and_the_pad_is_there(kitchen: Page, canteen, lay):
    kitchen.goto(f"{canteen}/bench/L-01/weigh?kind=smoke")
    status = kitchen.get_by_role("status")
    lay("PUT 2100")
    expect(status).to_contain_text("steady")
    expect(kitchen.get_by_role("alert")).to_contain_text("Weighed with the tray?")
    lay("PUT 99999")
    expect(status).to_contain_text("Too much on the scale")
    lay("PUT 190")
    expect(kitchen.get_by_role("button", name=re.compile(r"Take 0\.4. lb for A"))).to_be_enabled()
    kitchen.get_by_role("button", name="Tare", exact=True).click()
    expect(kitchen.get_by_text(re.compile(r"net, tare 0\.4. lb"))).to_be_visible()
    lay("TAKE")
    expect(status).to_contain_text("Below zero")
    expect(kitchen.get_by_role("button", name="Put A on the scale")).to_be_disabled()
    lay("RUBBISH 4")
    expect(status).to_contain_text("something unreadable")
    begun = time.monotonic()
    lay("SILENT 8")
    expect(status).to_contain_text("stopped sending")
    assert time.monotonic() - begun < 6
    for figure in "4.1":
        kitchen.keyboard.press(figure)
    expect(kitchen.get_by_role("group", name="Number pad")).to_be_visible()
    kitchen.keyboard.press("ArrowDown")
    for figure in ("3", ".", "9"):
        kitchen.get_by_role("button", name=figure, exact=True).click()
    take(kitchen, "3.9", "B")
    assert Entry.objects.filter(batch__code="L-01", kind="smoke").get().weighings.get().typed == "3.9 lb"


def test_with_two_scales_one_says_which(kitchen: Page, canteen, lay, settings, devices):
    settings.SCALES = ",".join(
        f"salt-lantern/{name}=line:127.0.0.1:{devices[0]}" for name in ("bench", "floor")
    )
    lay("PUT 1900")
    kitchen.goto(f"{canteen}/bench/L-01/weigh?kind=smoke")
    expect(kitchen.get_by_role("status").first).to_contain_text("Two scales: choose the one you are using.")
    expect(kitchen.get_by_role("button", name="Type the weight of A")).to_be_disabled()
    kitchen.get_by_role("group", name="Which scale").get_by_role("button", name="floor").click()
    expect(kitchen.get_by_role("button", name="Take 4.19 lb for A", exact=True)).to_be_enabled()


def test_a_trim_is_weighed_part_by_part(kitchen: Page, canteen, lay):
    code = cook().started(name="Quay shoulder")
    kitchen.goto(f"{canteen}/bench/{code}/weigh")
    expect(kitchen.get_by_role("heading", name="After trimming")).to_be_visible()
    lay("PUT 2270")
    kitchen.get_by_role("button", name="Take 5.00 lb for A", exact=True).click()
    lay("PUT 1360")
    kitchen.get_by_role("button", name="Take 3.00 lb for B", exact=True).click()
    kitchen.get_by_role("button", name="+ add something cut off").click()
    # worth what it was worth the last time
    kitchen.get_by_role("group", name="What was cut off").get_by_role(
        "button", name="lean trim 2.40/lb"
    ).click()
    lay("PUT 455")
    kitchen.get_by_role("button", name="Take 1.00 lb for lean trim", exact=True).click()
    # on the device until it is recorded
    kitchen.reload()
    kitchen.get_by_role("button", name="Record trimming: 3 weighed").click()
    expect(kitchen.get_by_role("button", name="Undo trimming of lot")).to_be_visible()
    wait_until(kitchen, Entry.objects.filter(batch__code=code, act="split").exists)
    entry = Entry.objects.get(batch__code=code, act="split")
    answer = [(line.mark, line.role, line.typed, line.worth_typed) for line in entry.weighings.all()]
    assert answer == [
        ("A", "main", "5.00 lb", ""),
        ("B", "main", "3.00 lb", ""),
        ("lean trim", "by_product", "1.00 lb", "2.40/lb"),
    ]


def open_without_network(page: Page, address: str):
    """Close the page and open it again while the network is away."""
    context = page.context
    page.close()
    again = context.new_page()
    again.goto(address)
    return again


def type_weight(page: Page, figures: str, mark: str) -> None:
    for figure in figures:
        page.keyboard.press(figure)
    page.get_by_role("button", name=f"Take {figures} lb for {mark}", exact=True).click()


def test_without_network_nothing_is_lost_and_nothing_doubled(browser, canteen, faults):
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, locale="en-GB", service_workers="allow"
    )
    page = context.new_page()
    sign_in(page, canteen)
    # the application is on the device once its worker is
    page.evaluate("navigator.serviceWorker.ready.then(() => undefined)")
    page.reload()
    expect(page.get_by_role("heading", name="To do")).to_be_visible()
    page.goto(f"{canteen}/bench/B-02/diary")
    expect(page.get_by_role("textbox", name="Add a note")).to_be_visible()
    page.goto(f"{canteen}/bench/L-01/weigh?kind=smoke")
    expect(page.get_by_role("heading", name="After the smoke")).to_be_visible()
    page.wait_for_timeout(800)
    entries, notes = Entry.objects.count(), Note.objects.count()
    turned = PlannedTask.objects.filter(kind="turn", state="done")
    before = turned.count()
    type_weight(page, "4.1", "A")
    expect(page.get_by_role("button", name="Piece A", exact=True)).to_contain_text("weighed")

    context.set_offline(True)
    type_weight(page, "3.9", "B")
    sign = page.get_by_label("Waiting to be sent")
    expect(sign).to_contain_text("No connection: 1 record waits on this device")
    expect(page.get_by_role("button", name="Piece B", exact=True)).to_contain_text("waiting to be sent")
    page = open_without_network(page, f"{canteen}/bench/B-02/diary")
    page.get_by_role("textbox", name="Add a note").fill("Written in the garage.")
    page.get_by_role("button", name="Save the note").click()
    page.goto(f"{canteen}/")
    late = page.get_by_role("list", name="Late", exact=True)
    late.get_by_role("button", name="Check off Turn and rub").first.click()
    expect(late).to_contain_text("waiting to be sent")
    expect(page.get_by_label("Waiting to be sent")).to_contain_text("3 records wait")
    page = open_without_network(page, f"{canteen}/bench/L-01/weigh?kind=smoke")
    expect(page.get_by_role("button", name="Piece B", exact=True)).to_contain_text("waiting to be sent")
    page.keyboard.press("u")
    assert (Entry.objects.count(), Note.objects.count()) == (entries + 1, notes)

    context.set_offline(False)
    expect(page.get_by_label("Waiting to be sent")).to_have_count(0)
    expect(page.get_by_role("button", name="Piece B", exact=True)).to_contain_text("weighed")
    wait_until(page, lambda: turned.count() == before + 1)
    typed = [entry.weighings.get().typed for entry in Entry.objects.filter(batch__code="L-01", kind="smoke")]
    assert typed == ["4.1 lb", "3.9 lb"]
    assert (Entry.objects.count(), Note.objects.count(), TaskNews.objects.filter(note="").count() > 0) == (
        entries + 2,
        notes + 1,
        True,
    )
    context.close()


def test_a_phone_records_over_plain_http(page: Page, canteen, faults, settings):
    settings.ALLOWED_HOSTS = [LAN_NAME]
    address = canteen.replace("localhost", LAN_NAME)
    page.set_viewport_size({"width": 390, "height": 844})
    sign_in(page, address)
    assert page.evaluate("isSecureContext") is False
    page.goto(f"{address}/bench/L-01/weigh?kind=smoke")
    expect(page.get_by_role("heading", name="After the smoke")).to_be_visible()
    type_weight(page, "4.1", "A")
    expect(page.get_by_role("button", name="Piece A", exact=True)).to_contain_text("weighed")
    page.goto(f"{address}/bench/B-02/cure")
    page.get_by_role("button", name="Show the cure of B").click()
    expect(page.get_by_role("heading", name="Weighed out for B")).to_be_visible()
    page.get_by_role("button", name="Recorded by mistake").click()
    page.get_by_role("button", name="Cancel this cure").click()
    expect(page.get_by_text("Give a reason").first).to_be_visible()
    page.get_by_label("Why it should not count").fill("it was for piece A")
    page.get_by_role("button", name="Cancel this cure").click()
    expect(page.get_by_role("button", name="Show the cure of B")).to_have_count(0)
    wait_until(page, Entry.objects.filter(batch__code="L-01", kind="smoke").exists)


def test_what_others_recorded_meanwhile_is_shown_and_not_swallowed(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/bench/L-01/weigh?kind=smoke")
    expect(kitchen.get_by_role("heading", name="After the smoke")).to_be_visible()
    kitchen.wait_for_timeout(500)
    kitchen.context.set_offline(True)
    type_weight(kitchen, "4.1", "A")
    expect(kitchen.get_by_label("Waiting to be sent")).to_contain_text("1 record waits")
    cook().recorded("L-01", {"act": "fry", "kept": "41"})
    kitchen.context.set_offline(False)
    refused = kitchen.get_by_label("Waiting to be sent").get_by_role("alert")
    expect(refused).to_contain_text("Maren recorded “Fried”")
    assert not Entry.objects.filter(batch__code="L-01", kind="smoke").exists()
    refused.get_by_role("button", name="Record it anyway").click()
    expect(kitchen.get_by_label("Waiting to be sent")).to_have_count(0)
    wait_until(kitchen, Entry.objects.filter(batch__code="L-01", kind="smoke").exists)
    assert Entry.objects.filter(batch__code="L-01", kind="smoke").count() == 1


def test_four_cures_for_four_pieces_and_their_labels(kitchen: Page, canteen):
    code = cook().started(name="Four ways")
    cook().recorded(code, FOUR)
    kitchen.goto(f"{canteen}/bench/{code}/cure")
    expect(kitchen.get_by_role("heading", name="Cure for 4 pieces")).to_be_visible()
    desk = kitchen.get_by_role("list", name="On the desk")
    kitchen.get_by_label("Scale reads in steps of").fill("0.1 g")
    recipes = {
        "A": "House dry, juniper",
        "B": "Less salt, maple",
        "C": "Quay inject and cover",
        "D": "Grandmother's spoon",
    }
    for mark, recipe in recipes.items():
        desk.get_by_role("button", name=re.compile(f"^{mark} ")).click()
        choose(kitchen.get_by_label("Recipe"), recipe)
        kitchen.get_by_label("Thickness of the thickest part").fill("1.5 in")
        choose(kitchen.get_by_label("Skin"), "off")
        expect(kitchen.get_by_role("heading", name=f"Weigh out for {mark}")).to_be_visible()
        expect(kitchen.get_by_text("within the limit")).to_be_visible()
    # a slip is asked about before it is believed
    desk.get_by_role("button", name=re.compile("^A ")).click()
    kitchen.get_by_role("button", name="Method and amounts").click()
    kitchen.get_by_label("Amount, % of the meat").first.fill("0.025")
    expect(kitchen.get_by_text("Did you mean 2.5 %?")).to_be_visible()
    kitchen.get_by_label("Amount, % of the meat").first.fill("2.4")
    kitchen.get_by_role("button", name="Save the recipe").click()
    expect(kitchen.get_by_text("Saved as version 2")).to_be_visible()
    assert serious(kitchen) == []
    kitchen.get_by_role("button", name="Into the cure").click()
    expect(kitchen.get_by_text("In the cure: A · B · C · D")).to_be_visible()
    assert PieceCure.objects.filter(batch__code=code).count() == 4
    assert PieceCure.objects.get(batch__code=code, mark="A").recipe.version == 2
    kitchen.get_by_role("button", name="Labels").click()
    kitchen.get_by_role("button", name="Print on the label printer").click()
    expect(kitchen.get_by_alt_text("Label 4 as printed")).to_be_visible()
    sheet = kitchen.get_by_role("link", name="Open label sheet (PDF)").get_attribute("href")
    assert kitchen.request.get(f"{canteen}{sheet}").body().startswith(b"%PDF-")
    # what the code on a label opens
    kitchen.goto(f"{canteen}/bench/{code}/piece/C")
    expect(kitchen.get_by_text("Quay inject and cover")).to_be_visible()


def test_a_late_turn_and_two_soaks(kitchen: Page, canteen):
    cook().call(
        "POST", "/batches/L-01/tasks", {"kind": "taste", "due_at": "2026-01-02T08:00:00Z", "marks": ["A"]}
    )
    # about noon there: what is due within the hour is today's at any hour the tests run
    ahead = 12 - timezone.now().hour
    Kitchen.objects.update(time_zone=f"Etc/GMT{-ahead:+d}" if ahead else "Etc/GMT")
    kitchen.goto(canteen)
    late = kitchen.get_by_role("list", name="Late", exact=True)
    late.get_by_role("button", name="Check off Turn and rub, B-02").first.click()
    expect(kitchen.get_by_role("list", name="Done")).to_contain_text("Turn and rub")
    for minutes in ("30", "20"):
        tastes = kitchen.get_by_role("button", name="Check off Taste: fry a sliver, L-01 A")
        tastes.last.click()
        kitchen.get_by_label("Minutes to soak").fill(minutes)
        kitchen.get_by_role("button", name="too salty").click()
        soak = kitchen.get_by_role("button", name="Check off Soak in cold water, L-01 A")
        expect(soak).to_have_count(1)
        soak.click()
        expect(soak).to_have_count(0)
    kitchen.get_by_role("button", name="Check off Taste: fry a sliver, L-01 A").last.click()
    kitchen.get_by_role("button", name="just right").click()
    expect(kitchen.get_by_role("list", name="Done")).to_contain_text("just right")
    soaks = PlannedTask.objects.filter(batch__code="L-01", kind="soak", state="done")
    assert sorted(soaks.values_list("minutes", flat=True)) == [20, 30]
    # moved by the cook's choice
    smoke = PlannedTask.objects.get(batch__code="L-01", kind="smoke")
    kitchen.get_by_role("button", name="More for Into the smoke, L-01").click()
    kitchen.get_by_label("Move it to").fill("2030-01-02T10:00")
    kitchen.get_by_role("button", name="Move", exact=True).click()
    expect(kitchen.get_by_role("button", name="Check off Into the smoke, L-01")).to_have_count(0)
    moved = PlannedTask.objects.filter(pk=smoke.pk, due_at__year=2030)
    wait_until(kitchen, moved.exists)


def test_a_piece_is_laid_elsewhere_and_a_photo_kept(kitchen: Page, canteen, tmp_path):
    from PIL import Image

    kitchen.goto(f"{canteen}/bench/map")
    kitchen.get_by_role("button", name=re.compile("^B-02 A")).click()
    kitchen.get_by_role("button", name="Put B-02 A in Fridge 2, shelf 3, place 1").click()
    fridge = kitchen.get_by_role("region", name="Fridge 2")
    expect(fridge.get_by_role("button", name=re.compile("^B-02 A"))).to_be_visible()
    kitchen.goto(f"{canteen}/bench/B-02/diary")
    wrong = tmp_path / "no-photo.jpg"
    wrong.write_bytes(b"<html>")
    kitchen.get_by_role("region", name="Add a photo").locator("input[type=file]").set_input_files(wrong)
    kitchen.get_by_role("button", name="Save the photo").click()
    expect(kitchen.get_by_role("alert")).to_contain_text("cannot be read as JPEG, PNG or WebP")
    right = tmp_path / "slab.jpg"
    Image.new("RGB", (640, 480), "#d9657a").save(right)
    kitchen.get_by_role("region", name="Add a photo").locator("input[type=file]").set_input_files(right)
    kitchen.get_by_label("What it shows").fill("day four")
    kitchen.get_by_role("button", name="Save the photo").click()
    expect(kitchen.get_by_alt_text("day four")).to_be_visible()
    expect(kitchen.get_by_role("region", name="Diary")).to_contain_text("in Fridge 2, shelf 3, place 1")


def test_looked_over_and_the_butchers_test(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/bench/B-01")
    kitchen.get_by_role("button", name="Check the meat").click()
    kitchen.get_by_label("Smells off, or sticky?").check()
    expect(kitchen.get_by_text("Do not cure it")).to_be_visible()
    assert serious(kitchen) == []
    kitchen.get_by_role("button", name="Save what was found").click()
    expect(kitchen.get_by_text("Saved in the diary.")).to_be_visible()
    kitchen.get_by_role("button", name="Back to recording").click()
    kitchen.get_by_role("button", name="Butcher’s test").click()
    expect(kitchen.get_by_text("cost factor")).to_be_visible()
    kitchen.get_by_label("Next week’s price per pound").fill("3.50")
    expect(kitchen.get_by_role("status")).to_contain_text("by the factor")
    assert serious(kitchen) == []
