"""A batch of 60 pieces and 400 entries: how long its views take in a real browser, and their longest task."""

import statistics
from typing import Final

from benchmarks.connections import Pool
from benchmarks.sizes import LONGEST_MS, of

PIECES, ENTRIES, ROUNDS = of((60, 400, 5), (6, 20, 1))
NAME: Final = "Sixty slabs"
#: One after another, every piece weighed by itself.
KINDS: Final = ("cure", "rinse", "rest", "smoke", "chill", "press", "pack")
VIEWS: Final = {"log": "/bench/{}", "weigh view": "/bench/{}/weigh", "verdict": "/verdict/{}"}
#: Goes to an address as a link does, and waits until the batch's name is drawn.
VISIT: Final = """async ([address, name]) => {
  const tasks = []
  const watch = new PerformanceObserver((list) => tasks.push(...list.getEntries().map((one) => one.duration)))
  watch.observe({ type: 'longtask' })
  const heading = () => document.querySelector('h1')?.textContent
  const [before, begun] = [heading(), performance.now()]
  history.pushState(null, '', address)
  dispatchEvent(new PopStateEvent('popstate', { state: null }))
  const text = () => document.querySelector('main').textContent
  const isThere = () => ![before, undefined].includes(heading()) && text().includes(name)
  while (!isThere()) await new Promise(requestAnimationFrame)
  await new Promise(requestAnimationFrame)
  const took = performance.now() - begun
  await new Promise((done) => setTimeout(done, 1000))
  watch.disconnect()
  return [took, Math.max(0, ...tasks)]
}"""


def record_large(pool: Pool) -> str:
    """Record the batch through the API; its code."""
    kitchen = "/api/kitchens/salt-lantern/batches"
    bought = {"cut": "belly", "own_weight": "400 lb", "price_basis": "per_lb", "price": "3.10"}
    code = pool.read("POST", kitchen, {"name": NAME, "bought": bought})["batch"]["code"]
    address, seen = f"{kitchen}/{code}", 1

    def record(content: dict) -> None:
        nonlocal seen
        pool.post(f"{address}/entries", {"content": content, "seen": seen})
        seen += 1

    def split(kind: str, piece: str, *pieces: str) -> list[str]:
        lines = [{"weight": weight} for weight in pieces]
        record({"act": "split", "kind": kind, "piece": piece, "pieces": lines, "cut_off": []})
        return [one["mark"] for one in pool.read("GET", address)["pieces"]]

    for half in split("trim", "lot", "195 lb", "195 lb"):
        marks = split("portion", half, *["6 lb"] * (PIECES // 2))
    steps = [(kind, mark, place) for place, kind in enumerate(KINDS) for mark in marks]
    for kind, mark, place in steps[: ENTRIES - 4]:
        weights = [{"mark": mark, "weight": f"{5.9 - 0.1 * place:.1f} lb"}]
        record({"act": "weigh", "kind": kind, "weights": weights})
    return code


def measure_large(port: int) -> dict[str, dict[str, float]]:
    """Median milliseconds from a click until each view is drawn, and its longest task, from the browser."""
    from playwright.sync_api import sync_playwright

    from dolmetsch.command.paths import BROWSER

    code = record_large(Pool(port))
    found = {}
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=BROWSER, args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.set_default_timeout(LONGEST_MS)
        page.goto(f"http://127.0.0.1:{port}/")
        page.get_by_label("Name").fill("maren")
        page.get_by_label("Password").fill("salt-lantern")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Recently finished").wait_for()
        for view, address in VIEWS.items():
            # the view's script is there before: another batch was looked at
            page.evaluate(VISIT, [address.format("L-01"), "L-01"])
            visits = []
            for _ in range(ROUNDS):
                page.evaluate(VISIT, ["/", "Recently finished"])
                visits.append(page.evaluate(VISIT, [address.format(code), code]))
            found[view] = {
                "drawn": statistics.median(took for took, _ in visits),
                "task": max(task for _, task in visits),
            }
        browser.close()
    return found


def describe_large(found: dict[str, dict[str, float]]) -> str:
    """The figures as a part of docs/speed.md."""
    rows = "\n".join(f"| {view} | {one['drawn']:.0f} | {one['task']:.0f} |" for view, one in found.items())
    return f"""## A large batch
{PIECES} pieces and {ENTRIES} entries, in a real browser: from a click until the view is drawn (median of
{ROUNDS}; aim: under 400 ms), and the longest task that keeps the page from answering (aim: under 200 ms).

| | drawn after ms | longest task ms |
|---|---|---|
{rows}
"""
