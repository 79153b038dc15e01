"""The hub that hears a scale: streams of events over a real socket, silence, rubbish, and many listeners."""

import json
import threading
import time

import pytest

from dolmetsch.server.problems import DomainError
from dolmetsch.server.scales import hub as hubs
from dolmetsch.server.scales.hub import Hub
from tests.devices.conftest import scale  # noqa: F401 (a fixture)
from tests.waiting import LONGEST

BENCH = ("test-kitchen", "bench")


@pytest.fixture
def hub(scale, settings):
    settings.SCALES = f"test-kitchen/bench=line:127.0.0.1:{scale}"
    hub = Hub()
    hub.get(*BENCH).send("TAKE")
    hub.get(*BENCH).send("CLEAR")
    yield hub
    hub.close()


def listen(stream, until):
    deadline = time.monotonic() + LONGEST
    for event in stream:
        answer = json.loads(event.removeprefix(b"data: "))
        if until(answer):
            return answer
        assert time.monotonic() < deadline, answer
    raise AssertionError("the stream ended")


def test_a_listener_hears_what_lies_on_it_in_both_units(hub):
    stream = hub.stream(hub.get(*BENCH))
    hub.get(*BENCH).send("PUT 2595")
    answer = listen(
        stream, lambda now: now["state"] == "live" and now["steady"] and abs(float(now["grams"]) - 2595) < 6
    )
    assert (answer["scale"], answer["step"]) == ("bench", "5")
    assert (answer["simulated"], answer["below"]) == (True, False)
    assert abs(float(answer["net"]["lb"]) - 5.72) < 0.02
    stream.close()
    stream.close()


def test_tare_less_than_nothing_and_too_much(hub):
    stream = hub.stream(hub.get(*BENCH))
    bench = hub.get(*BENCH)
    bench.send("PUT 190")
    listen(stream, lambda now: now.get("steady") and abs(float(now["grams"]) - 190) < 6)
    bench.send("TARE")
    bench.send("TAKE")
    answer = listen(stream, lambda now: now.get("below"))
    assert abs(float(answer["tare"]["kg"]) - 0.19) < 0.01
    bench.send("PUT 400000")
    assert "grams" not in listen(stream, lambda now: now["state"] == "over")
    stream.close()


def test_silence_and_rubbish_are_told_apart_from_live(hub):
    # how long a busy machine takes over it is its own affair
    assert hubs.SILENT_SECONDS < 2
    stream = hub.stream(hub.get(*BENCH))
    listen(stream, lambda now: now["state"] == "live")
    for trouble, state in (("SILENT 3", "silent"), ("RUBBISH 3", "rubbish")):
        hub.get(*BENCH).send(trouble)
        listen(stream, lambda now, state=state: now["state"] == state)
        listen(stream, lambda now: now["state"] == "live")
    stream.close()


def test_a_scale_that_is_not_there_is_said_and_comes_back(settings):
    settings.SCALES = "test-kitchen/bench=line:127.0.0.1:1,test-kitchen/odd=carrier-pigeon:x"
    hub = Hub()
    stream = hub.stream(hub.get(*BENCH))
    assert json.loads(next(stream).removeprefix(b"data: "))["state"] == "away"
    stream.close()
    with pytest.raises(DomainError, match="scale_away"):
        hub.get(*BENCH).send("TARE")
    for name in ("odd", "none"):
        with pytest.raises(DomainError, match="not_found"):
            hub.get("test-kitchen", name)


def test_a_worker_takes_only_so_many_listeners_and_lets_go_of_them(hub, monkeypatch):
    monkeypatch.setattr(hubs, "MAX_LISTENERS", 3)
    held = [hub.stream(hub.get(*BENCH)) for _ in range(3)]
    with pytest.raises(DomainError, match="too_many"):
        hub.stream(hub.get(*BENCH))
    # one that never listened frees its place as well
    held[0].close()
    hub.stream(hub.get(*BENCH)).close()
    for stream in held:
        stream.close()


def test_over_the_api(transactional_db, api, other, scale, settings):
    settings.SCALES = f"test-kitchen/bench=line:127.0.0.1:{scale}"
    assert api.get("/scales")[1] == {"names": ["bench"]}
    answer = api.client.get(f"/api/kitchens/{api.slug}/scales/bench/stream")
    assert (answer["Content-Type"], answer["Cache-Control"]) == ("text/event-stream", "no-cache")
    assert json.loads(next(iter(answer.streaming_content)).removeprefix(b"data: "))["scale"] == "bench"
    answer.close()
    assert api.call("POST", "/scales/bench/command", {"command": "clear"})[0] == 200
    assert api.call("POST", "/scales/bench/command", {"command": "dance"})[0] == 422
    assert api.call("POST", "/scales/none/command", {"command": "tare"})[0] == 404
    assert other.client.get(f"/api/kitchens/{api.slug}/scales/bench/stream").status_code == 404
    # nor is it the other kitchen's own, to be heard, tared or loaded
    assert other.get("/scales")[1] == {"names": []}
    assert other.get("/scales/bench/stream")[0] == 404
    assert other.call("POST", "/scales/bench/command", {"command": "tare"})[0] == 404
    assert other.call("POST", "/scales/bench/lay", {"weight": "1 lb"})[0] == 404


def test_what_lies_on_the_simulated_scale_is_set_from_the_page(api, scale, settings):
    settings.SCALES = f"test-kitchen/bench=line:127.0.0.1:{scale}"
    code = api.started()

    def lay(**answer):
        return api.call("POST", "/scales/bench/lay", answer)

    assert lay(weight="5.72 lb")[1] == {"grams": "2594.5"}
    assert lay()[1] == {"grams": "0.0"}
    # as the lot will weigh after its trim: 88 % of 10 lb
    assert 3900 < float(lay(code=code, mark="lot", kind="trim")[1]["grams"]) < 4100
    assert lay(weight="heavy")[1]["fields"][0]["path"] == "weight"
    assert lay(trouble="over")[1] == {"grams": "400000.0"}
    assert lay(trouble="silent")[0] == 200
    assert lay(code=code, mark="Z")[0] == 404


def test_closing_wakes_a_listener_that_waits(monkeypatch):
    """A scale that says nothing, and a wait without end: only being woken ends it."""
    quiet = hubs.Scale("quiet", "line", "127.0.0.1:1")
    monkeypatch.setattr(quiet, "_start", lambda: None)
    wait = quiet._news.wait
    monkeypatch.setattr(quiet._news, "wait", lambda timeout: wait())
    closing, heard = threading.Event(), []
    listener = threading.Thread(target=lambda: heard.extend(quiet.listen(closing=closing)), daemon=True)
    listener.start()
    while not quiet._news._waiters:
        time.sleep(0.01)
    closing.set()
    quiet.wake()
    listener.join(timeout=LONGEST)
    assert not listener.is_alive()
    assert len(heard) <= 2


def test_closing_the_hub_wakes_its_scales(hub, monkeypatch):
    woken = []
    hub.stream(hub.get(*BENCH)).close()
    monkeypatch.setattr(hub.get(*BENCH), "wake", lambda: woken.append(True))
    hub.close()
    assert woken == [True]
