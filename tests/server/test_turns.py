"""When more ask at once than can be answered, who waits too long is refused early, and nothing is lost."""

import threading
import time

import pytest
from django.http import HttpResponse, StreamingHttpResponse
from django.test import RequestFactory

from dolmetsch.server.config import turns
from tests.server.test_prices import JOWL
from tests.waiting import LONGEST, wait_for


@pytest.fixture
def hurried(monkeypatch):
    monkeypatch.setattr(turns, "READ_PATIENCE", 0.1)
    monkeypatch.setattr(turns, "WRITE_PATIENCE", 0.3)


def begin(count):
    """So many requests that are being answered; what ends them, and a middleware of theirs."""
    may_end, begun = threading.Event(), threading.Semaphore(0)

    def answer(_request):
        begun.release()
        may_end.wait(20)
        return HttpResponse()

    middleware = turns.take_turns(answer)
    threads = [
        threading.Thread(target=middleware, args=(RequestFactory().get("/api/x"),)) for _ in range(count)
    ]
    for one in threads:
        one.start()
    for _ in range(min(count, turns.AT_ONCE)):
        assert begun.acquire(timeout=LONGEST)

    def end():
        may_end.set()
        for one in threads:
            one.join(timeout=LONGEST)

    return end


def test_who_waits_too_long_is_refused_and_recorded_once_when_they_ask_again(api, hurried):
    end = begin(turns.AT_ONCE)
    refused = [turns.REQUESTS.labels("refused as busy", method, "503") for method in ("GET", "POST")]
    before = [one._value.get() for one in refused]
    try:
        for method, path, body in (("GET", "/today", None), ("POST", "/prices", JOWL)):
            status, problem = api.call(method, path, body)
            assert (status, problem["code"]) == (503, "busy")
            assert "trying again records it once" in problem["detail"]
        assert [one._value.get() - was for one, was in zip(refused, before, strict=True)] == [1, 1]
        assert api.client.get(f"/api/kitchens/{api.slug}/today")["Retry-After"] == "2"
        # what watches over it is answered all the same
        assert api.client.get("/healthz").status_code == 200
    finally:
        end()
    assert api.get("/today")[0] == 200
    assert api.get("/prices")[1]["items"] == []
    assert api.call("POST", "/prices", JOWL)[0] == 201
    assert len(api.get("/prices")[1]["items"]) == 1


def test_a_turn_that_comes_in_time_is_taken_and_a_write_waits_longer_than_a_read(api, monkeypatch):
    monkeypatch.setattr(turns, "READ_PATIENCE", 0.05)
    end = begin(turns.AT_ONCE)
    later = threading.Timer(0.5, end)
    later.start()
    assert api.get("/today")[0] == 503
    assert api.call("POST", "/prices", JOWL)[0] == 201
    later.join()


def test_who_comes_when_many_wait_is_refused_at_once_reads_before_writes(monkeypatch):
    monkeypatch.setattr(turns, "READS_WAITING", 2)
    monkeypatch.setattr(turns, "WRITES_WAITING", 3)
    end = begin(turns.AT_ONCE + 2)
    middleware, asked = turns.take_turns(lambda _request: HttpResponse()), RequestFactory()
    wait_for(lambda: turns._turns._waiting == 2, "two to wait")
    answers = []
    write = threading.Thread(target=lambda: answers.append(middleware(asked.post("/api/x"))))
    try:
        begun = time.monotonic()
        assert middleware(asked.get("/api/x")).status_code == 503
        # one write more may wait
        write.start()
        wait_for(lambda: turns._turns._waiting == 3, "the write to wait")
        assert middleware(asked.post("/api/x")).status_code == 503
        assert time.monotonic() - begun < turns.READ_PATIENCE
    finally:
        end()
    write.join(timeout=LONGEST)
    assert [one.status_code for one in answers] == [200]
    assert turns._turns._waiting == 0


@pytest.mark.parametrize("sort", ["application/json", "multipart/form-data; boundary=x"])
def test_a_slow_line_keeps_nobody_waiting(hurried, sort):
    may_come, middleware = threading.Event(), turns.take_turns(lambda _request: HttpResponse())

    class Slow:
        def read(self, *_size):
            may_come.wait(20)
            return b""

        readline = close = read

    def send():
        asked = RequestFactory().post("/api/x", data=b"{}", content_type=sort)
        asked._stream = asked.META["wsgi.input"] = Slow()
        answers.append(middleware(asked).status_code)

    answers = []
    senders = [threading.Thread(target=send) for _ in range(turns.AT_ONCE + 1)]
    for one in senders:
        one.start()
    time.sleep(0.2)
    try:
        assert middleware(RequestFactory().get("/api/x")).status_code == 200
        assert answers == []
    finally:
        may_come.set()
        for one in senders:
            one.join(timeout=LONGEST)
    assert answers == [200] * len(senders)


def test_a_stream_and_a_failure_give_their_turn_back(hurried):
    asked = RequestFactory().get("/api/x")
    stream = turns.take_turns(lambda _request: StreamingHttpResponse(iter([b"a"])))

    def fail(_request):
        raise RuntimeError("as planned")

    failing = turns.take_turns(fail)
    for _ in range(turns.AT_ONCE + 1):
        assert stream(asked).status_code == 200
        with pytest.raises(RuntimeError, match="as planned"):
            failing(asked)
