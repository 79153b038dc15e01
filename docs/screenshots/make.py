"""Takes the pictures in this folder again, from the demo data: ./dolmetsch screenshots."""

import os
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from dolmetsch.command.children import end, spawn
from dolmetsch.command.database import find_free_port
from dolmetsch.command.devices import Devices
from dolmetsch.command.serving import gunicorn, wait_until_served
from dolmetsch.command.telling import must
from dolmetsch.server.kitchens.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME

HERE = Path(__file__).resolve().parent
LAPTOP, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"]


def fill_start(page: Page) -> None:
    page.get_by_label("Name of the batch").fill("Juniper venison loin")
    page.get_by_label("Cut", exact=True).fill("loin, boneless")
    page.get_by_label("Weight on the label").fill("4 lb 6 oz")
    page.get_by_label("Weight on our scale").fill("1.95 kg")
    page.get_by_label("Price", exact=True).fill("9.40")
    page.get_by_text("a kilogram").first.wait_for()


def fill_cure(page: Page) -> None:
    page.get_by_label("Weight of A").fill("3 lb 11.5 oz")
    page.get_by_label("Weight of B").fill("1.62 kg")
    page.get_by_role("button", name="+ something used").click()
    page.get_by_label("What", exact=True).fill("coarse salt")
    page.get_by_label("How much").fill("92 g")
    page.get_by_label("Price, or the sum for all of it").fill("1.20/kg")
    page.get_by_text("then costs").wait_for()
    page.get_by_text("comes to").wait_for()


def read_tags(page: Page) -> None:
    """Four tags, typed as one reads them."""
    page.get_by_role("button", name="Add an offer").click()
    tags = [
        (("Jowl", "skin on"), "2.85", "12"),
        (("Belly", "skin on"), "3.79", "11"),
        (("Belly", "skinless", "trimmed"), "5.20", ""),
        (("Shoulder", "bone in", "12 %"), "1.99", "8"),
    ]
    for place, (words, price, pack) in enumerate(tags):
        for word in words:
            page.get_by_role("button", name=word, exact=True).click()
        page.get_by_label("Price, $").fill(price)
        page.get_by_label("Pack weighs").fill(pack)
        last = place == len(tags) - 1
        page.get_by_role("button", name="Add, done" if last else "Add, next tag").click()
    page.get_by_text("worth up to").nth(3).wait_for()


def bring_in(page: Page) -> None:
    rows = [
        *(
            "item;price;pack;date",
            "jowl, skin on;34,20;12 lb;25.11.2026",
            "belly, skin on;42,90;11 lb;25.11.2026",
        ),
        *(
            "leg, bone in;=2*9;8 lb;25.11.2026",
            "loin, boneless;31,00;9 lb;25.11.2026",
            ";3,00;1 lb;25.11.2026",
        ),
    ]
    page.get_by_label("Whose list it is").fill("Tidewell Provisions")
    held = {"name": "november.csv", "mimeType": "text/csv", "buffer": "\n".join(rows).encode()}
    page.get_by_label("Choose a file").set_input_files(held)
    page.get_by_text("cannot be read").first.wait_for()
    page.mouse.wheel(0, 260)


def try_changes(page: Page) -> None:
    page.get_by_label("Tag price", exact=True).fill("3.30")
    page.get_by_label("Smoked", exact=True).fill("90")
    page.get_by_text("with what is tried").first.wait_for()


def ask_why(page: Page) -> None:
    page.get_by_role("button", name="A pound of what is left: where it comes from").click()
    page.get_by_role("dialog").wait_for()


#: name, path, viewport, what is typed first
PICTURES = [
    ("today", "/", LAPTOP, None),
    ("case", "/buy", LAPTOP, read_tags),
    ("phone-case", "/buy", PHONE, read_tags),
    ("prices", "/buy/prices", LAPTOP, None),
    ("import", "/buy/prices/import", LAPTOP, bring_in),
    ("forecasts", "/books/forecasts", LAPTOP, None),
    ("start", "/buy/start", LAPTOP, fill_start),
    ("bench", "/bench/B-01", LAPTOP, fill_cure),
    ("verdict", "/verdict/J-01", LAPTOP, None),
    ("ladder", "/verdict/J-01/house-or-shop", LAPTOP, None),
    ("what-if", "/verdict/J-01/house-or-shop", LAPTOP, try_changes),
    ("linked", "/verdict/S-01", LAPTOP, None),
    ("why", "/verdict/J-01", LAPTOP, ask_why),
    ("verdict-under-way", "/verdict/G-01", LAPTOP, None),
    ("phone-verdict", "/verdict/J-01", PHONE, None),
    ("phone-bench", "/bench/B-01", PHONE, fill_cure),
    ("phone-today", "/", PHONE, None),
]


def take_pictures(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        for name, path, viewport, fill in PICTURES:
            page = browser.new_context(viewport=viewport, locale="en-GB").new_page()
            page.goto(address)
            if name == "today":
                page.get_by_role("button", name="Sign in").wait_for()
                page.screenshot(path=HERE / "sign-in.png")
            page.get_by_label("Name").fill(DEMO_USERNAME)
            page.get_by_label("Password").fill(DEMO_PASSWORD)
            page.get_by_role("button", name="Sign in").click()
            page.get_by_role("heading", name="Lately sliced").wait_for()
            page.goto(address + path)
            page.get_by_role("heading", level=1).wait_for()
            if fill:
                fill(page)
            page.wait_for_timeout(500)
            page.screenshot(path=HERE / f"{name}.png")
            page.context.close()


def main() -> None:
    port = find_free_port()
    with tempfile.TemporaryDirectory() as folder:
        log = Path(folder) / "log"
        load = [sys.executable, "-m", "django", "load_demo", "--migrate"]
        must(load, doing="load_demo", log=log, env=dict(os.environ))
        devices = Devices()
        devices.start()
        process = spawn(gunicorn(port), log=log, env={**os.environ, **devices.environment()})
        try:
            wait_until_served(port, process, log=log)
            take_pictures(f"http://127.0.0.1:{port}")
        finally:
            end(process, patience=10)
            devices.stop()


if __name__ == "__main__":
    main()
