"""The real interface in headless Chromium, over a live server with the demo canteen in it."""

import os

import pytest
from playwright.sync_api import Page, expect

from dolmetsch.command.paths import BROWSER
from tests.devices.conftest import start_device, stop_device
from tests.prepared import load_dump
from tests.waiting import LONGEST

os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"
# long enough for a machine busy with other things: journeys test what comes, not how soon
expect.set_options(timeout=LONGEST * 1000)

#: Another machine's name for this one: a browser does not trust it as it trusts loopback.
LAN_NAME = "kitchen.test"
CHROMIUM = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    f"--host-resolver-rules=MAP {LAN_NAME} localhost",
)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": BROWSER, "args": list(CHROMIUM)}


@pytest.fixture
def browser_context_args(browser_context_args):
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "locale": "en-GB",
        "service_workers": "block",
    }


@pytest.fixture(autouse=True)
def a_busy_machine_is_waited_for(context):
    """Also by what is clicked and filled in."""
    context.set_default_timeout(LONGEST * 1000)


#: What the console says of refusals, of the worker that most journeys do without, and of plain HTTP.
EXPECTED = (
    "Failed to load resource",
    "Service Worker registration blocked by Playwright",
    "The Cross-Origin-Opener-Policy header has been ignored",
)


@pytest.fixture(scope="session")
def devices(tmp_path_factory):
    """A scale and a label printer for all journeys; their ports."""
    scale, scale_port = start_device("scale", "--name", "bench")
    printer, printer_port = start_device("printer", "--tray", str(tmp_path_factory.mktemp("tray")))
    yield scale_port, printer_port
    stop_device(scale)
    stop_device(printer)


@pytest.fixture
def canteen(transactional_db, live_server, settings, devices, tmp_path):
    """The demo canteen behind a live server, with its devices; its address."""
    settings.DEMO = True
    settings.SCALES = f"salt-lantern/bench=line:127.0.0.1:{devices[0]}"
    settings.PRINTER = f"127.0.0.1:{devices[1]}"
    settings.PHOTOS = str(tmp_path)
    load_dump("demo.sql")
    return live_server.url


@pytest.fixture
def faults(page: Page):
    """Errors in the console of the page, but for the refusals that a test expects."""
    answer = []
    page.on("pageerror", lambda error: answer.append(str(error)))
    page.on(
        "console",
        lambda line: (
            answer.append(line.text)
            if line.type in ("error", "warning") and not any(one in line.text for one in EXPECTED)
            else None
        ),
    )
    yield answer
    assert answer == []


def sign_in(page: Page, address: str) -> None:
    """As anyone would who looks around."""
    page.goto(address)
    page.get_by_role("button", name="Look around in the demo").click()
    expect(page.get_by_role("heading", name="Recently finished")).to_be_visible()


@pytest.fixture
def kitchen(page: Page, canteen, faults):
    """A signed-in page on Today."""
    sign_in(page, canteen)
    return page
