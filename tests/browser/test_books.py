"""The books in use: a blind tasting on three phones, a messy history in, an odd batch explained."""

import io
import re
import zipfile

from openpyxl import load_workbook
from playwright.sync_api import Browser, Page, expect

from dolmetsch.server.batches.models import Batch, BatchFacts
from dolmetsch.server.tastings.models import TastingSheet
from tests.browser.choosing import choose
from tests.browser.test_access import serious

PHONE = {"width": 390, "height": 844}
MESSY = """Our batches, as far as we wrote them down
Batch;Cut;Date;Butcher;Bought;Paid;Trimmed;Smoked;Sliced;Minutes
Ferry jowl;jowl, skin on;03/04/2025;Quay butcher;10,4 lb;24,10;8,9 lb;7,3 lb;6,4 lb;90
Eel-week belly;belly, skin on;05/06/2025;Tidewell;5,2 kg;41,00;4,4 kg;3,7 kg;3,2 kg;80
Storm jowl;jowl, skin on;07/08/2025;Quay butcher;9,8;22,00;8,2;18,0;6,0;70
Formula jowl;jowl, skin on;07/09/2025;Quay butcher;9,8;=F2*2;8,2;7,0;6,0;70
Net jowl;jowl, skin on;08/09/2025;Quay butcher;9,8;22,00;8,2;7,0;6,0;70
"""


def score(phone: Page, codes: dict[str, str], given: dict[str, str], again: str) -> None:
    """Score every plate on its five scales, as a thumb does."""
    for letter, number in given.items():
        plate = phone.get_by_role("region", name=f"Plate {codes[letter]}")
        for scale in ("Salt", "Smoke", "Sweetness", "Texture", "Color"):
            plate.get_by_role("group", name=scale).get_by_text(number, exact=True).click()
    phone.get_by_role("radio", name=again, exact=True).check(force=True)


def test_a_blind_tasting_on_three_phones(kitchen: Page, canteen, browser: Browser):
    kitchen.goto(f"{canteen}/books/trials")
    kitchen.get_by_role("button", name="Begin a trial").click()
    kitchen.get_by_label("What is tried").fill("Less smoke")
    for side, what, batch, piece in (("A", "house", "j-01", "A1"), ("B", "lighter", "J-01", "B1")):
        form = kitchen.get_by_role("group", name=f"Side {side}")
        form.get_by_label("What is different").fill(what)
        form.get_by_label("Batch").fill(batch)
        form.get_by_label("Piece").fill("Z9" if side == "A" else piece)
    kitchen.get_by_role("button", name="Begin the trial").click()
    expect(kitchen.get_by_text("J-01 has no piece “Z9”").first).to_be_visible()
    kitchen.get_by_role("group", name="Side A").get_by_label("Piece").fill("A1")
    kitchen.get_by_role("button", name="Begin the trial").click()
    expect(kitchen.get_by_role("heading", name="Trial: Less smoke")).to_be_visible()
    side_by_side = kitchen.get_by_role("region", name="Side by side")
    expect(side_by_side).to_contain_text("$7.0")
    kitchen.get_by_role("button", name="Open a tasting").click()
    tasting = kitchen.get_by_role("region", name="Blind tasting")
    link = tasting.get_by_role("link").get_attribute("href")
    listed = [row.inner_text() for row in tasting.get_by_role("listitem").all()]
    codes = {row.split()[1]: row.split()[0] for row in listed}
    assert set(codes) == {"A", "B"}

    for taster, given, again in (
        ("Ibba", {"A": "8", "B": "6"}, "A"),
        ("Tolle", {"A": "7", "B": "7"}, ""),
        ("Wieb", {"A": "9", "B": "5"}, "A"),
    ):
        context = browser.new_context(viewport=PHONE, service_workers="block")
        phone = context.new_page()
        phone.goto(canteen + link)
        expect(phone.get_by_role("heading", name="Tasting at Salt Lantern Canteen")).to_be_visible()
        expect(phone.get_by_text("lighter")).to_have_count(0)
        assert serious(phone) == []
        assert phone.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
        phone.get_by_label("Your name").fill(taster)
        send = phone.get_by_role("button", name="Hand in my scores")
        expect(send).to_be_disabled()
        score(phone, codes, {"A": given["A"]}, "I can’t choose")
        expect(phone.get_by_text(f"Still to score: plate {codes['B']}.")).to_be_visible()
        # what was scored survives the phone going to sleep
        phone.reload()
        expect(phone.get_by_text(f"Still to score: plate {codes['B']}.")).to_be_visible()
        score(phone, codes, {"B": given["B"]}, f"Plate {codes[again]}" if again else "I can’t choose")
        send.click()
        expect(phone.get_by_role("heading", name="Thank you")).to_be_visible()
        # the same phone a second time
        phone.reload()
        expect(phone.get_by_role("heading", name="Thank you")).to_be_visible()
        context.close()

    assert TastingSheet.objects.filter(tasting__trial__name="Less smoke").count() == 3
    # the cook looks at the link too, signed in
    kitchen.goto(canteen + link)
    expect(kitchen.get_by_role("heading", name="Tasting at Salt Lantern Canteen")).to_be_visible()
    kitchen.go_back()
    expect(tasting.get_by_role("status")).to_contain_text("Handed in: Ibba, Tolle, Wieb.")
    result = kitchen.get_by_role("region", name="What tasters said")
    expect(result.get_by_role("heading", name="3 tasters, blind")).to_be_visible()
    expect(result).to_contain_text("A and B: 3 tasters are too few to tell anything; it takes six or more.")
    assert serious(kitchen) == []


def test_a_messy_spreadsheet_becomes_the_kitchens_history(kitchen: Page, canteen, tmp_path):
    path = tmp_path / "batches.csv"
    path.write_bytes(MESSY.encode("cp1252"))
    before = Batch.objects.count()
    kitchen.goto(f"{canteen}/books/in-and-out")
    kitchen.get_by_role("link", name="Past batches, from a spreadsheet").click()
    kitchen.set_input_files("input[type=file]", path)
    shown = kitchen.get_by_role("region", name="What would be saved")
    expect(shown).to_contain_text("Say in which unit weights without one are.")
    expect(shown).to_contain_text("Say what 03/04/2026 means here")
    choose(kitchen.get_by_label("Weights without a unit are in"), "pounds")
    choose(kitchen.get_by_label("03/04/2026 means"), "3 April")
    expect(shown).to_contain_text("3 new, 0 already saved, 2 cannot be read")
    expect(shown).to_contain_text("are pounds and kilograms mixed?")
    expect(shown).to_contain_text("is a formula, not a value")
    expect(shown).to_contain_text("Several units in one column: 4 in lb, 1 in kg")
    assert serious(kitchen) == []
    assert Batch.objects.count() == before
    kitchen.get_by_role("button", name="Save 3 batches, leave 2 out").click()
    expect(kitchen.get_by_text("3 new, 0 already saved, 2 left out")).to_be_visible()
    assert Batch.objects.count() == before + 3
    belly = BatchFacts.objects.get(batch__name="Eel-week belly")
    assert (belly.cut, belly.source, round(belly.bought_grams)) == ("belly skin-on", "Tidewell", 5200)
    kitchen.get_by_role("link", name="See the yields").click()
    expect(kitchen.get_by_role("region", name="belly skin on · cooked")).to_be_visible()
    # the same file again: matched as before, and nothing is new
    kitchen.goto(f"{canteen}/books/history")
    kitchen.set_input_files("input[type=file]", path)
    expect(kitchen.get_by_text("Matched as the last time.")).to_be_visible()
    expect(kitchen.get_by_role("button", name="Nothing to save")).to_be_disabled()


def test_an_odd_batch_is_explained_and_money_and_lists_agree(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/books")
    odd = kitchen.get_by_role("region", name="Unusual results")
    expect(odd).to_contain_text("J-01 lost 0.9 points more than usual in the hot smoke.")
    expect(odd).to_contain_text("noted: “Gusty wind off the harbor")
    expect(odd).to_contain_text("What was different need not be the cause.")
    expect(kitchen.get_by_role("region", name="Your hour")).to_contain_text(re.compile(r"\$\d+\.\d\d"))
    saved = kitchen.get_by_role("region", name="Saved", exact=True).get_by_role("img")
    total = re.search(r"\$(\d+\.\d\d)", saved.get_attribute("aria-label") or "")
    kitchen.get_by_role("navigation", name="Books").get_by_role("link", name="Money").click()
    sums = kitchen.get_by_role("region", name="Saved", exact=True)
    expect(sums).to_contain_text(f"${total[1]}")
    kitchen.get_by_role("button", name="Add a machine").click()
    kitchen.get_by_role("textbox", name="Machine").fill("sealer")
    kitchen.get_by_label("Paid", exact=True).fill("ninety")
    kitchen.get_by_label("Bought on").fill("2026-01-05")
    kitchen.get_by_role("button", name="Save the machine").click()
    expect(kitchen.get_by_text("“ninety” is not").first).to_be_visible()
    kitchen.get_by_label("Paid", exact=True).fill("90")
    kitchen.get_by_role("button", name="Save the machine").click()
    expect(kitchen.get_by_role("region", name="Machines")).to_contain_text("The sealer has")
    kitchen.get_by_role("navigation", name="Books").get_by_role("link", name="In and out").click()
    with kitchen.expect_download() as loaded:
        kitchen.get_by_role("link", name="Batches as XLSX").click()
    sheet = load_workbook(io.BytesIO(loaded.value.path().read_bytes())).active
    codes = [row[0] for row in sheet.iter_rows(values_only=True) if row[0]]
    assert "J-01" in codes
    with kitchen.expect_download() as loaded:
        kitchen.get_by_role("link", name="Export everything (ZIP)").click()
    names = zipfile.ZipFile(io.BytesIO(loaded.value.path().read_bytes())).namelist()
    assert {"README.txt", "manifest.json", "batches/J-01.html"} <= set(names)


def test_pieces_get_owners_and_a_page_each(kitchen: Page, canteen):
    kitchen.goto(f"{canteen}/verdict/B-02")
    kitchen.get_by_role("link", name="table").click()
    table = kitchen.get_by_role("region", name="All pieces")
    expect(table.get_by_role("row")).to_have_count(5)
    table.get_by_label("Choose A", exact=True).check()
    table.get_by_label("Choose C", exact=True).check()
    kitchen.get_by_label("Owner of 2 pieces").fill("Ibba")
    kitchen.get_by_role("button", name="Save for 2 pieces").click()
    expect(table.get_by_role("row").filter(has_text="Ibba")).to_have_count(2)
    kitchen.get_by_label("Piece, owner or place").fill("ibba")
    expect(table.get_by_role("row")).to_have_count(3)
    kitchen.get_by_label("Charge a pound").fill("1.20")
    page = kitchen.get_by_role("link", name="Ibba (PDF)").get_attribute("href") or ""
    answer = kitchen.request.get(canteen + page)
    assert answer.body().startswith(b"%PDF")
    table.get_by_role("link", name="Weigh C").click()
    expect(kitchen.get_by_role("button", name="Piece C")).to_have_attribute("aria-pressed", "true")
