"""Takes the pictures in this folder again, from the demo data: ./dolmetsch screenshots [NAME …]."""

import os
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from dolmetsch.command.children import end, spawn
from dolmetsch.command.database import find_free_port
from dolmetsch.command.devices import Devices, command_device
from dolmetsch.command.paths import BROWSER
from dolmetsch.command.serving import gunicorn, wait_until_served
from dolmetsch.command.telling import must

#: Where the pictures go: here, unless a folder is named.
PAGES = Path(os.environ.get("DOLMETSCH_PAGES", Path(__file__).resolve().parent))
LAPTOP, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"]


def lay_on_scale(page: Page) -> None:
    """The first piece as it will weigh after the step, once the scale is steady."""
    page.get_by_text("Simulated scale: put").click()
    page.get_by_role("button", name="Put A on it").click()
    page.wait_for_timeout(600)
    page.get_by_text("Simulated scale: put").click()
    page.get_by_role("button", name="Take 4.").wait_for()
    page.get_by_text("kept of this step").wait_for()
    page.evaluate("window.scrollTo(0, 0)")


def cure_lamb(page: Page) -> None:
    """The house recipe, weighed out on a fine scale."""
    page.get_by_role("combobox", name="Recipe").click()
    page.get_by_role("option", name="House dry, juniper").click()
    page.get_by_label("Scale reads in steps of").fill("0.1 g")
    page.get_by_text("crushed juniper").first.wait_for()
    page.evaluate("document.activeElement.blur(); window.scrollTo(0, 0)")


def read_tags(page: Page) -> None:
    """Four tags, typed as one reads them."""
    page.get_by_role("button", name="Add an offer").click()
    tags = [
        (("Jowl", "skin on"), "2.85", "12"),
        (("Belly", "skin on"), "3.79", "11"),
        (("Belly", "skinless", "trimmed"), "5.20", ""),
        (("Shoulder", "bone in", "12 %"), "1.99", "8"),
    ]
    for index, (words, price, pack) in enumerate(tags):
        for word in words:
            page.get_by_role("button", name=word, exact=True).click()
        page.get_by_label("Price, $").fill(price)
        page.get_by_label("Pack weighs").fill(pack)
        last = index == len(tags) - 1
        page.get_by_role("button", name="Add, done" if last else "Add, next tag").click()
    page.get_by_text("worth up to").nth(3).wait_for()


def tend(page: Page) -> None:
    """Two pieces of loin in a stepped cook whose fire burned low for a while."""
    for words in ("meat 1 35", "meat 2 42", "program 130/60 180/120 225"):
        command_device("cooker", words.split())
    page.get_by_label("L-01 A").check()
    page.get_by_label("L-01 B").check()
    page.get_by_role("combobox", name="Begin with").click()
    page.get_by_role("option", name="Hot smoke").click()
    page.get_by_label("Nitrite in it").fill("140")
    page.get_by_role("button", name="Put 2 pieces into the smoke").click()
    page.get_by_text("stage 1 of 3").wait_for()
    command_device("cooker", ["speed", "300"])
    page.get_by_text("Smoke 180 now").first.wait_for(timeout=60_000)
    page.get_by_role("button", name="Next: Smoke 180").click()
    page.wait_for_timeout(9_000)
    command_device("cooker", ["fire", "low"])
    page.wait_for_timeout(3_000)
    command_device("cooker", ["fire", "good"])
    page.wait_for_timeout(6_000)
    command_device("cooker", ["speed", "1"])
    page.wait_for_timeout(6_000)
    page.evaluate("window.scrollTo(0, 0)")


def slice_goose(page: Page) -> None:
    """Two packs of a goose breast closed, a third begun."""
    page.get_by_role("button", name="B 2.71 lb").click()
    page.get_by_label("Product", exact=True).fill("Goose, thin")
    for weight in ("0.55 lb", "0.54 lb"):
        page.get_by_role("button", name="full: 10").click()
        page.get_by_label("Weight of the pack").fill(weight)
        page.get_by_role("button", name="Close P").click()
    for _ in range(6):
        page.get_by_role("button", name="+ 1 slice").click()
    page.get_by_label("Slicer set to, mm").fill("3")
    page.get_by_text("At 3.0 mm:").wait_for()
    page.evaluate("document.activeElement.blur(); window.scrollTo(0, 0)")


def taste(page: Page) -> None:
    """A taster's phone, the first plate half scored."""
    page.get_by_role("button", name="Open a tasting").click()
    link = page.get_by_role("region", name="Blind tasting").get_by_role("link")
    page.goto(page.url.partition("/books")[0] + (link.get_attribute("href") or ""))
    page.get_by_role("heading", name="Tasting at").wait_for()
    plate = page.get_by_role("region").first
    for scale, score in (("Salt", "7"), ("Smoke", "8"), ("Sweetness", "6")):
        plate.get_by_role("group", name=scale).get_by_text(score, exact=True).click()


def sign_out(page: Page) -> None:
    """The first page."""
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("link", name="Start your kitchen").wait_for()


def invite(page: Page) -> None:
    """A second cook invited by a code."""
    page.get_by_label("Their name").fill("Sela")
    page.get_by_role("button", name="Make the invitation").click()
    page.get_by_text("It is shown only now").wait_for()


#: name, path, viewport, what is typed first
PICTURES = [
    ("larder", "/slice", LAPTOP, None),
    ("slice", "/slice/board/G-01", LAPTOP, slice_goose),
    ("today", "/", LAPTOP, None),
    ("plan", "/plans/of/Saturday's%20sixty", LAPTOP, None),
    ("case", "/buy", LAPTOP, read_tags),
    ("verdict", "/verdict/J-01", LAPTOP, None),
    ("ladder", "/verdict/J-01/house-or-shop", LAPTOP, None),
    ("weigh", "/bench/L-01/weigh", LAPTOP, lay_on_scale),
    ("phone-weigh", "/bench/L-01/weigh", PHONE, lay_on_scale),
    ("cure", "/bench/B-01/cure", LAPTOP, cure_lamb),
    ("phone-today", "/", PHONE, None),
    ("fire", "/fire/new", LAPTOP, tend),
    ("phone-fire", "/fire/1", PHONE, None),
    ("books", "/books", LAPTOP, None),
    ("trial", "/books/trials/1", LAPTOP, None),
    ("phone-taste", "/books/trials/2", PHONE, taste),
    ("first", "/", LAPTOP, sign_out),
    ("people", "/kitchen/people", LAPTOP, invite),
    ("audit", "/kitchen/audit", LAPTOP, None),
]


def take_pictures(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=BROWSER, args=CHROMIUM)
        for name, path, viewport, fill in PICTURES:
            if sys.argv[1:] and name not in sys.argv[1:]:
                continue
            page = browser.new_context(viewport=viewport, locale="en-GB").new_page()
            # a busy machine is waited for
            page.set_default_timeout(120_000)
            page.goto(address)
            page.get_by_role("button", name="Look around in the demo").click()
            page.get_by_role("heading", name="Recently finished").wait_for()
            page.goto(address + path)
            page.get_by_role("heading", level=1).wait_for()
            if fill:
                fill(page)
            page.wait_for_timeout(500)
            page.screenshot(path=PAGES / f"{name}.png")
            page.context.close()


def main() -> None:
    port = find_free_port()
    with tempfile.TemporaryDirectory() as folder:
        log = Path(folder) / "log"
        load = [sys.executable, "-m", "django", "load_demo", "--migrate"]
        must(load, doing="load_demo", log=log, env=dict(os.environ))
        devices = Devices()
        devices.start()
        env = {**os.environ, **devices.environment()}
        process = spawn(gunicorn(port), log=log, env=env)
        collector = spawn([sys.executable, "-m", "django", "collect"], log=log, env=env)
        try:
            wait_until_served(port, process, log=log)
            take_pictures(f"http://127.0.0.1:{port}")
        finally:
            end(collector, patience=10)
            end(process, patience=10)
            devices.stop()


if __name__ == "__main__":
    main()
