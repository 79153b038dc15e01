"""How long a scale's line takes to fifty listeners, and to a real screen among them."""

import http.client
import json
import socket
import statistics
import threading
import time

from benchmarks.connections import Pool
from benchmarks.sizes import LONGEST_MS, of

LISTENERS = of(50, 2)
LINES = of(60, 4)
#: Nothing comes any more after so many.
MOST_LINES = 1_200
#: Seconds between two weights; each is far from the last, so that no screen holds it for a tremble.
EVERY = of(0.25, 0.1)


class TellingScale:
    """A scale of this process's own: it notes when it sent each weight."""

    def __init__(self) -> None:
        self.server = socket.create_server(("127.0.0.1", 0))
        self.port = self.server.getsockname()[1]
        self.sent: dict[int, float] = {}
        self._lines: list[socket.socket] = []
        threading.Thread(target=self._take, daemon=True).start()

    def _take(self) -> None:
        while True:
            line, _ = self.server.accept()
            line.sendall(b"SCALE 1 bench step=5 max=15000\n")
            self._lines.append(line)

    def weigh(self, grams: int) -> None:
        self.sent[grams] = time.time()
        for line in list(self._lines):
            try:
                line.sendall(f"W {grams} g steady\n".encode())
            except OSError:
                self._lines.remove(line)


class Listener(threading.Thread):
    """One stream of events, and when each weight came."""

    def __init__(self, pool: Pool, slug: str) -> None:
        super().__init__(daemon=True)
        self.connection = http.client.HTTPConnection("127.0.0.1", pool.port, timeout=30)
        self.pool, self.path = pool, f"/api/kitchens/{slug}/scales/bench/stream"
        self.heard: dict[int, float] = {}
        self.refused = 0

    def run(self) -> None:
        while True:
            self.connection.request("GET", self.path, headers={"Cookie": self.pool.cookies})
            response = self.connection.getresponse()
            if response.status == 200:
                break
            # that worker has all it takes: ask again, as the page does
            response.read()
            self.refused += 1
        try:
            while line := response.readline():
                if line.startswith(b"data: "):
                    answer = json.loads(line[6:])
                    if "grams" in answer:
                        self.heard.setdefault(round(float(answer["grams"])), time.time())
        except (OSError, http.client.HTTPException):
            return


WATCH = """() => {
  window.shown = []
  const look = () => {
    const now = document.querySelector('.number')?.textContent.trim()
    if (now !== window.shown.at(-1)?.[0]) window.shown.push([now, Date.now() / 1000])
    requestAnimationFrame(look)
  }
  look()
}"""


def _has_come(listeners: list[Listener], page) -> bool:
    return any(one.heard for one in listeners) and page.evaluate("window.shown.length > 2")


def measure_delay(port: int, scale: TellingScale) -> dict[str, float]:
    """Milliseconds from a line of the scale to the listeners and to the screen: median and 95 % within."""
    from playwright.sync_api import sync_playwright

    from dolmetsch.command.paths import BROWSER

    pool = Pool(port)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=BROWSER, args=["--no-sandbox"])
        page = browser.new_page()
        page.set_default_timeout(LONGEST_MS)
        page.goto(f"http://127.0.0.1:{port}/")
        page.get_by_label("Name").fill("maren")
        page.get_by_label("Password").fill("salt-lantern")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Recently finished").wait_for()
        page.goto(f"http://127.0.0.1:{port}/bench/L-01/weigh")
        page.get_by_role("heading", name="After the smoke").wait_for()
        listeners = [Listener(pool, "salt-lantern") for _ in range(LISTENERS)]
        for listener in listeners:
            listener.start()
        time.sleep(1.5)
        page.evaluate(WATCH)
        number = 0
        # a machine that is busy with other things hears and draws later
        while number < LINES or (number < MOST_LINES and not _has_come(listeners, page)):
            scale.weigh(1000 + 50 * (number % 40) + number)
            time.sleep(EVERY)
            number += 1
        shown = page.evaluate("window.shown")
        browser.close()
    heard = sorted(
        at - scale.sent[grams]
        for listener in listeners
        for grams, at in listener.heard.items()
        if grams in scale.sent
    )
    screen = {f"{grams / 453.59237:.2f}": at for grams, at in scale.sent.items()}
    seen = sorted(at - screen[answer] for answer, at in shown if answer in screen and at >= screen[answer])
    return {
        "listeners": len([one for one in listeners if one.heard]),
        "heard": len(heard),
        "p50": statistics.median(heard) * 1000,
        "p95": heard[int(len(heard) * 0.95)] * 1000,
        "seen": len(seen),
        "screen_p50": statistics.median(seen) * 1000,
        "screen_p95": seen[int(len(seen) * 0.95)] * 1000,
    }
