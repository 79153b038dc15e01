"""What ordinary use and strangers must not break: lengths, invisible letters, sign-in, headers, files,
imports.
"""

import gzip
import json
import logging
import stat
import threading
import uuid
from collections import Counter
from datetime import timedelta
from io import StringIO

import pytest
from django.core.management import call_command
from django.db import DatabaseError, connection, transaction
from django.http import HttpResponse
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from pydantic import BaseModel

from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.config.compressing import CompressJson
from dolmetsch.server.diary.models import Note
from dolmetsch.server.kitchens.models import Membership, SignInFailure, User
from dolmetsch.server.quantities.visible import make_visible
from tests.server.conftest import BOUGHT, TRIM, weigh
from tests.server.test_bench_days import photo_bytes, photos, send_photo  # noqa: F401

ZERO_WIDTH, BRAILLE_BLANK = "\u200b", "\u2800"


@pytest.mark.parametrize("letters", [60, 61, 80])
def test_a_cut_has_the_length_of_a_name_everywhere(api, letters):
    status, body = api.start(bought={**BOUGHT, "cut": "j" * letters})
    assert (status, body["batch"]["cut"]) == (201, "j" * letters)


def test_what_is_too_long_is_said_in_plain_words_at_its_field(api):
    status, body = api.start(bought={**BOUGHT, "cut": "j" * 81})
    assert (status, body["fields"][0]["message"], body["fields"][0]["path"]) == (
        422,
        "At most 80 letters.",
        "bought.cut",
    )
    code = api.started()
    used = {"what": "salt", "amount": "1 lb", "price": "1/lb", "group": "g" * 60}
    assert api.record(code, {**TRIM, "used": [used]})[0] == 201
    status, body = api.record(code, {**weigh("cure", A="4 lb"), "used": [{**used, "group": "g" * 61}]})
    assert (status, body["fields"][0]["message"]) == (422, "At most 60 letters.")


def test_the_longest_price_for_the_longest_size_is_kept(api):
    quote = {
        "sort": "ingredient",
        "name": "salt",
        "source": "market",
        "on": "2026-01-02",
        "price": "1.2500" + " " * 0,
        "size": "100 g",
    }
    assert api.call("POST", "/prices", quote)[0] == 201
    long = {**quote, "name": "sugar", "price": "0" * 35 + "1.25", "size": "0" * 33 + "100 g"}
    assert api.call("POST", "/prices", long)[0] == 201


@pytest.mark.parametrize("text", [ZERO_WIDTH, "\u202e", BRAILLE_BLANK, "\u0301", "\u034f\u200d", " \u00a0 "])
def test_what_nobody_can_see_is_empty(api, text):
    code = api.started()
    status, body = api.call("POST", f"/batches/{code}/notes", {"text": text})
    assert (status, body["fields"][0]["message"]) == (422, "Add a note.")
    recorded = api.recorded(code, TRIM)["entry"]
    status, body = api.record(code, TRIM, corrects=recorded, reason=text)
    assert (status, body["fields"][0]["path"]) == (422, "reason")
    assert Note.objects.count() == 0


def test_letters_stay_and_what_would_make_them_read_otherwise_goes():
    assert make_visible("Sa\u200blt\u202e, 2 %") == "Salt, 2 %"
    assert make_visible("e\u0301clair") == "éclair"
    assert make_visible("two\nlines") == "two\nlines"
    assert make_visible("€ 5") == "€ 5"


def test_an_upload_without_a_boundary_is_refused_in_words(api):
    code = api.started()
    path = f"/api/kitchens/{api.slug}/batches/{code}/photos"
    for kind in (
        "multipart/form-data",
        "multipart/form-data; boundary=",
        "multipart/form-data; boundary=\u00e9",
    ):
        answer = api.client.generic(
            "POST", path, b"x", content_type=kind, headers={"Idempotency-Key": "0" * 32}
        )
        assert answer.status_code in (400, 422), kind
        assert answer["Content-Type"] == "application/problem+json"


def test_what_the_tables_refuse_is_no_server_fault(api, monkeypatch):
    from dolmetsch.server.diary import actions

    def refuse(*_args, **_more):
        raise (
            DatabaseError if False else __import__("django.db", fromlist=["DataError"]).DataError("too long")
        )

    monkeypatch.setattr(actions.Note.objects, "create", refuse)
    status, body = api.call("POST", f"/batches/{api.started()}/notes", {"text": "hello"})
    assert (status, body["code"]) == (422, "cannot_keep")


@pytest.mark.parametrize(
    "table",
    [
        "batches_entry",
        "batches_lotline",
        "batches_weighing",
        "batches_usedline",
        "batches_forecast",
        "diary_note",
    ],
)
def test_no_record_is_ever_deleted(api, table):
    code = api.started(course="cooked")
    api.recorded(code, {**TRIM, "used": [{"what": "salt", "price": "1.00"}]})
    api.call("POST", f"/batches/{code}/notes", {"text": "hello"})
    with (
        pytest.raises(DatabaseError, match="never deleted"),
        transaction.atomic(),
        connection.cursor() as cursor,
    ):
        cursor.execute(f"DELETE FROM {table}")


def test_answers_are_not_kept_and_the_page_may_use_the_camera_alone(api):
    answer = api.client.get(f"/api/kitchens/{api.slug}/today")
    assert answer["Cache-Control"] == "no-store"
    assert "camera=(self), microphone=()" in answer["Permissions-Policy"]
    assert "Strict-Transport-Security" not in answer
    assert api.client.get("/api/openapi.json")["Cache-Control"] == "max-age=3600"


def test_every_refusal_is_documented_with_its_media_type(api):
    document = api.client.get("/api/openapi.json").json()
    operations = [operation for path in document["paths"].values() for operation in path.values()]
    assert len(operations) > 60
    for operation in operations:
        answers = dict(operation["responses"])
        assert answers.pop("default") == {"$ref": "#/components/responses/Refusal"}, operation["operationId"]
        for answer in answers.values():
            assert "application/problem+json" not in answer.get("content", {}), operation["operationId"]
    assert list(document["components"]["responses"]["Refusal"]["content"]) == ["application/problem+json"]
    assert "fields" in document["components"]["schemas"]["Problem"]["properties"]


@pytest.mark.parametrize(
    ("path", "media_type"),
    [
        ("plan.ics", "text/calendar"),
        ("prices/files/csv", "text/csv"),
        ("batches/{code}/files/json", "application/json"),
        ("batches/{code}/labels.pdf", "application/pdf"),
    ],
)
def test_a_file_is_documented_with_its_media_type(api, path, media_type):
    code = api.started()
    answer = api.client.get(f"/api/kitchens/{api.slug}/{path.format(code=code)}")
    assert (answer.status_code, answer["Content-Type"].split(";")[0]) == (200, media_type)
    document = api.client.get("/api/openapi.json").json()
    named = path.replace("files/csv", "files/{form}").replace("files/json", "files/{form}")
    result = document["paths"][f"/api/kitchens/{{kitchen_slug}}/{named}"]["get"]["responses"]["200"]
    assert media_type in result["content"]


def test_log_lines_tell_when_and_who(api):
    from dolmetsch.server.config import logs

    heard = []

    class Ear(logging.Handler):
        def emit(self, record):
            heard.append(record.who)

    ear = Ear()
    ear.addFilter(logs.Who())
    logger = logging.getLogger("django.request")
    logger.addHandler(ear)
    try:
        api.get("/batches/none")
    finally:
        logger.removeHandler(ear)
    assert heard == [f"[cook-of-test-kitchen GET /api/kitchens/{api.slug}/batches/none]"]
    record = logging.makeLogRecord({})
    # a thread of its own answers no request
    aside = threading.Thread(target=logs.Who().filter, args=(record,))
    aside.start()
    aside.join()
    assert record.who == "-"


# ---- signing in ----


@pytest.fixture
def cook(api):
    user = User.objects.create_user("tilde", password="a long one")
    Membership.objects.create(user=user, kitchen=Batch._meta.get_field("kitchen").related_model.objects.get())
    return user


def sign_in(name="tilde", password="wrong", **headers):
    client = Client(headers=headers)
    body = json.dumps({"username": name, "password": password})
    return client.post("/api/session", body, content_type="application/json")


def test_wrong_passwords_cost_a_pause_that_grows(cook):
    for _ in range(5):
        assert sign_in().status_code == 401
    locked = sign_in(password="a long one")
    assert (locked.status_code, locked.json()["code"]) == (429, "locked_out")
    pauses = []
    for _ in range(4):
        for seconds in (15, 30, 60, 120, 240):
            SignInFailure.objects.update(at=timezone.now() - timedelta(seconds=seconds + 1))
            if sign_in().status_code == 401:
                pauses.append(seconds)
                break
    assert pauses == [15, 30, 60, 120]
    SignInFailure.objects.update(at=timezone.now() - timedelta(hours=2))
    assert sign_in(password="a long one").status_code == 200
    assert SignInFailure.objects.count() == 0


def test_a_stranger_elsewhere_locks_nobody_out(cook, settings):
    settings.IS_PROXIED = True
    for _ in range(6):
        sign_in(**{"X-Forwarded-For": "203.0.113.9"})
    assert sign_in(password="a long one", **{"X-Forwarded-For": "203.0.113.9"}).status_code == 429
    assert sign_in(password="a long one", **{"X-Forwarded-For": "198.51.100.7"}).status_code == 200
    # only the last address is the proxy's own word; what came before may be made up
    assert (
        sign_in(password="a long one", **{"X-Forwarded-For": "198.51.100.7, 203.0.113.9"}).status_code == 429
    )


def test_an_address_that_nobody_stands_before_is_believed_by_its_own(cook):
    for _ in range(6):
        sign_in(**{"X-Forwarded-For": "203.0.113.9"})
    assert sign_in(password="a long one", **{"X-Forwarded-For": "198.51.100.7"}).status_code == 429


def test_tries_from_one_address_are_bounded_whatever_the_names(cook):
    now = timezone.now()
    SignInFailure.objects.bulk_create(
        SignInFailure(name=f"n{number}", address="127.0.0.1", at=now) for number in range(59)
    )
    assert sign_in(password="a long one").status_code == 200
    SignInFailure.objects.create(name="n59", address="127.0.0.1", at=now)
    assert sign_in(password="a long one").status_code == 429
    SignInFailure.objects.update(at=now - timedelta(minutes=11))
    assert sign_in(password="a long one").status_code == 200


def test_the_demos_sign_in_is_for_the_machine_itself_unless_asked_for(db, settings):
    settings.DEMO = True
    User.objects.create_user("maren", password="salt-lantern")
    elsewhere = {"X-Forwarded-For": "203.0.113.9"}
    assert Client().get("/api/session").json()["demo"] is not None
    assert Client(headers=elsewhere).get("/api/session").json()["demo"] is None
    assert Client(REMOTE_ADDR="192.168.1.30").get("/api/session").json()["demo"] is None
    assert sign_in("maren", "salt-lantern").status_code == 200
    assert sign_in("maren", "salt-lantern", **elsewhere).status_code == 401
    settings.DEMO_EVERYWHERE = True
    assert Client(headers=elsewhere).get("/api/session").json()["demo"] is not None
    assert sign_in("maren", "salt-lantern", **elsewhere).status_code == 200
    settings.DEMO = False
    assert Client().get("/api/session").json()["demo"] is None


# ---- files and imports ----


def test_photos_are_for_their_owner_alone_on_the_machine(api, photos):
    assert send_photo(api, api.started(), photo_bytes())[0] == 201
    files = [path for path in photos.rglob("*") if path.is_file()]
    assert len(files) == 2
    assert {stat.S_IMODE(path.stat().st_mode) for path in files} == {0o600}
    assert not list(photos.rglob("*.new"))


def document(steps, **more):
    lot = {"id": "L", "weight": "10 lb", "paid": "31.90"}
    weighed = [{"kind": "smoke", "weigh": {"L": f"{10 - 0.001 * (at + 1):.3f} lb"}} for at in range(steps)]
    return {"document": json.dumps({"format": "dolmetsch-batch/1", "lots": [lot], "steps": weighed, **more})}


def test_a_dry_run_asks_the_same_few_questions_however_long_and_holds_no_lock(api):
    counts = []
    for steps in (5, 120):
        with CaptureQueriesContext(
            connection,
        ) as asked:
            status, shown = api.call("POST", "/imports?dry_run=true", document(steps))
        assert (status, shown["batches"][0]["entries"]) == (200, steps + 2)
        counts.append(len(asked))
        assert not any("FOR UPDATE" in one["sql"] or "INSERT" in one["sql"] for one in asked)
    assert counts[0] == counts[1]
    assert not Entry.objects.exists()


def test_an_import_is_written_once_under_one_lock(api):
    status, made = api.call("POST", "/imports", document(40))
    assert (status, made["written"], Entry.objects.count()) == (201, True, 42)
    code = made["batches"][0]["code"]
    assert api.get(f"/batches/{code}")[1]["house"]["weight"]["lb"] == "9.96"
    assert api.record(code, weigh("chill", L="9.9 lb"))[0] == 201


def test_a_document_with_more_entries_than_any_batch_is_refused_before_it_is_computed(api):
    status, body = api.call("POST", "/imports?dry_run=true", document(2000))
    assert (status, body["code"]) == (413, "too_much")
    assert "2001 entries; at most 2000" in body["detail"]


def test_control_characters_in_a_document_are_refused(api):
    status, body = api.call("POST", "/imports", document(1, name="a\u0000b"))
    assert (status, "control character" in body["detail"]) == (422, True)


def test_work_is_given_up_once_nobody_waits_for_it(api):
    import socket

    from django.test import RequestFactory

    from dolmetsch.server.asking import giving_up
    from dolmetsch.server.problems import DomainError

    here, there = socket.socketpair()
    with here, there:
        check = giving_up(RequestFactory().get("/", **{"gunicorn.socket": here}))
        check()
        there.sendall(b"more of the request")
        check()
    here, there = socket.socketpair()
    with here:
        check = giving_up(RequestFactory().get("/", **{"gunicorn.socket": here}))
        there.close()
        with pytest.raises(DomainError, match="gone"):
            check()
    giving_up(RequestFactory().get("/"))()


def test_what_one_cook_wrote_is_never_recorded_under_another_ones_name(api):
    mine = api.client.get("/api/session").json()["username"]

    def start(cook):
        answer = api.client.post(
            f"/api/kitchens/{api.slug}/batches",
            json.dumps({"name": "Jowl", "bought": BOUGHT}),
            content_type="application/json",
            headers={"Dolmetsch-Cook": cook, "Idempotency-Key": str(uuid.uuid4())} if cook else {},
        )
        return answer.status_code, answer.json().get("code")

    assert start("someone%20else") == (401, "signed_out")
    assert Batch.objects.count() == 0
    assert start(mine)[0] == 201
    read = api.client.get(f"/api/kitchens/{api.slug}/today", headers={"Dolmetsch-Cook": "someone%20else"})
    assert read.status_code == 200


def test_assets_named_by_their_content_are_kept_and_the_page_is_not(settings):
    is_immutable = settings.WHITENOISE_IMMUTABLE_FILE_TEST
    assert is_immutable("dist/assets/index-4f2a.js", "/assets/index-4f2a.js")
    assert not is_immutable("dist/index.html", "/index.html")
    assert not is_immutable("dist/worker.js", "/worker.js")


def test_every_schema_has_a_name_of_its_own():
    """Two of one name become one in the API's document, and the client is typed by the wrong one."""

    def every(kind):
        return {kind}.union(*(every(one) for one in kind.__subclasses__()))

    names = Counter(one.__name__ for one in every(BaseModel) if one.__module__.startswith("dolmetsch.server"))
    assert [name for name, count in names.items() if count > 1] == []


def test_json_is_compressed_for_whoever_takes_that_and_nothing_else_is(api):
    code = api.started()

    def asked(path, **headers):
        return api.client.get(f"/api/kitchens/{api.slug}{path}", headers=headers)

    plain = asked(f"/batches/{code}")
    packed = asked(f"/batches/{code}", accept_encoding="gzip")
    assert "Content-Encoding" not in plain.headers
    assert packed.headers["Content-Encoding"] == "gzip"
    assert "Accept-Encoding" in packed.headers["Vary"]
    assert len(packed.content) < len(plain.content) / 2
    assert gzip.decompress(packed.content) == plain.content
    for path in ("/prices/files/csv", f"/batches/{code}/page.pdf"):
        assert "Content-Encoding" not in asked(path, accept_encoding="gzip").headers


@pytest.mark.parametrize(
    ("kind", "is_packed"),
    [
        ("application/json; charset=utf-8", True),
        ("application/problem+json", True),
        ("text/csv", False),
        ("text/event-stream", False),
    ],
)
def test_a_long_answer_is_compressed_by_its_kind(rf, kind, is_packed):
    answer = CompressJson(lambda _: HttpResponse(b"salt " * 200, content_type=kind))
    said = answer(rf.get("/api/x", headers={"accept-encoding": "gzip"}))
    assert said.has_header("Content-Encoding") is is_packed


def test_what_was_looked_over_is_counted_in_whole_words(api):
    api.started()
    said = StringIO()
    call_command("check_records", stdout=said)
    assert said.getvalue() == "1 kitchen, 1 batch, 0 photos looked over: all is well.\n"
