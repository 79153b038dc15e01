"""What a cook does with lists and days, whichever way they are drawn."""

import contextlib
import re
from datetime import UTC, date, datetime

from playwright.sync_api import Error, Locator, expect

from tests.waiting import wait_for


def choose(box: Locator, word: str) -> None:
    """Choose what begins with ``word`` from a list, found by its role or label."""
    if box.evaluate("one => one.tagName") == "SELECT":
        found = box.locator("option").filter(has_text=re.compile(rf"^\s*{re.escape(word)}"))
        box.select_option(found.first.get_attribute("value"))
        return
    wanted = offered(box).filter(has_text=re.compile(rf"^\s*{re.escape(word)}")).first
    wanted.click()
    # a list that moves while it is touched is touched again; choosing the same twice changes nothing
    wait_for(lambda: _is_shut(box, wanted), f"the list of {word} to close")


def _is_shut(box: Locator, wanted: Locator) -> bool:
    with contextlib.suppress(AssertionError):
        expect(box).to_have_attribute("aria-expanded", "false", timeout=3000)
        return True
    with contextlib.suppress(Error):
        wanted.click(timeout=1000)
    return False


def offered(box: Locator) -> Locator:
    """What a list that is opened by a click offers."""
    box.click()
    expect(box).to_have_attribute("aria-expanded", "true")
    return box.page.locator(f"id={box.get_attribute('aria-controls')}").get_by_role("option")


def day_in(field: Locator) -> date:
    """The day a field shows, in whichever order the country has it."""
    shown = field.input_value().replace(",", "")
    order = "%a %d %b %Y" if shown.split()[1].isdigit() else "%a %b %d %Y"
    return datetime.strptime(shown, order).replace(tzinfo=UTC).date()
