"""Everything out as one ZIP, and an empty kitchen filled from it with the same figures."""

import csv
import hashlib
import io
import json
import re
import zipfile
from pathlib import Path

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.utils import timezone

from dolmetsch.server.archive.lists import LISTS
from dolmetsch.server.archive.reading import fill_kitchen
from dolmetsch.server.archive.tables import list_tables
from dolmetsch.server.archive.writing import write_archive
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.problems import DomainError
from dolmetsch.server.tastings.models import Tasting
from tests.prepared import load_dump
from tests.server.conftest import TRIM, make_kitchen
from tests.server.test_bench_days import photo_bytes, photos, send_photo  # noqa: F401
from tests.server.test_books import made
from tests.server.test_meals import WAY

pytestmark = pytest.mark.django_db


def archive_of(slug):
    with write_archive(Kitchen.objects.get(slug=slug), timezone.now()) as held:
        return held.read()


def records_of(content):
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        names = [name for name in packed.namelist() if name.startswith("records/")]
        return {name: packed.read(name).decode() for name in names}


#: What goes on while a test runs: moments, and how late things are.
MOMENT = re.compile(r'"(now|until|at)": ?"[^"]*"|T\d\d:\d\d:\d\d[.\d]*(Z|\+00:00)')


def send(api, content):
    file = SimpleUploadedFile("kitchen.zip", content, content_type="application/zip")
    answer = api.client.post(f"/api/kitchens/{api.slug}/archive", {"file": file})
    return answer.status_code, answer.json()


def changed(content, path, change):
    """The archive with a file changed, and the manifest made to fit."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w") as new:
        manifest = json.loads(old.read("manifest.json"))
        for name in old.namelist():
            held = old.read(name)
            if name == path:
                held = change(held)
                manifest["files"][name] = hashlib.sha256(held).hexdigest()
            if name != "manifest.json":
                new.writestr(name, held)
        new.writestr("manifest.json", json.dumps(manifest))
    return out.getvalue()


@pytest.mark.django_db(transaction=True)
def test_out_in_and_out_is_the_same(api, monkeypatch):
    """The whole demo: every record, and what every page then says."""
    load_dump("demo.sql")
    content = archive_of("salt-lantern")
    theirs = User.objects.get(username="maren")
    client = make_kitchen("third").client
    client.force_login(theirs)
    moment = timezone.now()
    with monkeypatch.context() as clock:
        clock.setattr(timezone, "now", lambda: moment)
        alone = {path: answer_of(client, path) for path in every_list()}
    assert len(alone) > 25
    status, body = send(api, content)
    assert status == 201, str(body)
    assert body["batches"] == Batch.objects.filter(kitchen__slug="salt-lantern").count()
    again = archive_of(api.slug)
    first, second = records_of(content), records_of(again)
    assert first.keys() == second.keys()
    for path, rows in first.items():
        assert second[path] == rows, path
    with zipfile.ZipFile(io.BytesIO(content)) as one, zipfile.ZipFile(io.BytesIO(again)) as other:
        assert one.namelist() == other.namelist()
        for name in one.namelist():
            if name.startswith(("lists/", "batches/")) and name.endswith((".csv", ".json")):
                assert one.read(name) == other.read(name), name
    # and another kitchen with the same meat, prices and codes changes no figure here
    with monkeypatch.context() as clock:
        clock.setattr(timezone, "now", lambda: moment)
        for path, before in alone.items():
            assert answer_of(client, path) == before, path
    for path in ("books/yields", "books/yields?by=step&part=cook", "books/money", "books/prices", "larder"):
        before = client.get(f"/api/kitchens/salt-lantern/{path}").json()
        after = api.get(f"/{path}")[1]
        assert without_ids(after) == without_ids(before), path


def every_list():
    """The addresses of all that is shown of a kitchen as a whole, the books by their parts too."""
    document = json.loads((Path(__file__).parents[2] / "docs/openapi.json").read_text())
    below = "/api/kitchens/{kitchen_slug}/"
    apart = {"archive", "archive/everything.zip", "audit", "people", "fires", "alarms"}
    plain = [path.removeprefix(below) for path, ways in document["paths"].items() if "get" in ways]
    lists = [path for path in plain if path not in apart and "{" not in path and "/api/" not in path]
    return [*lists, "books/yields?by=step&part=cook", "books/yields?by=step&part=source", "find?words=jowl"]


def answer_of(client, path):
    answer = client.get(f"/api/kitchens/salt-lantern/{path}")
    return answer.status_code, MOMENT.sub("", answer.content.decode())


def without_ids(value):
    """An answer without the numbers that rows have in the database."""
    if isinstance(value, dict):
        return {key: without_ids(one) for key, one in value.items() if key not in ("id", "now")}
    return [without_ids(one) for one in value] if isinstance(value, list) else value


def test_a_zip_says_what_is_in_it(api, photos):
    code = made(api)
    assert send_photo(api, code, photo_bytes())[0] == 201
    with zipfile.ZipFile(io.BytesIO(archive_of(api.slug))) as packed:
        names = packed.namelist()
        assert "Test-Kitchen: everything" in packed.read("README.txt").decode()
        for path in (f"batches/{code}.json", f"batches/{code}.html", "schemas/batch.schema.json"):
            assert path in names
        assert {f"lists/{name}.{form}" for name in LISTS for form in ("csv", "xlsx")} <= set(names)
        assert sum(name.startswith("photos/") for name in names) == 2
        manifest = json.loads(packed.read("manifest.json"))
        assert set(manifest["files"]) == set(names) - {"manifest.json"}
        for path, digest in manifest["files"].items():
            assert hashlib.sha256(packed.read(path)).hexdigest() == digest
        written = csv.reader(io.StringIO(packed.read("lists/batches.csv").decode("utf-8-sig")))
        heads, row = (line for line in written if len(line) > 1)
        assert dict(zip(heads, row, strict=True))["kept, %"] == "60.0"
        assert json.loads(packed.read(f"batches/{code}.json"))["format"] == "dolmetsch-batch/1"
        assert "token" not in packed.read("records/tastings_tasting.jsonl").decode()


def test_every_table_belongs_to_the_kitchen(api, other):
    made(other)
    content = records_of(archive_of(api.slug))
    assert len(content) == len(list_tables()) > 40
    assert not any(content.values())


def test_only_an_empty_kitchen_is_filled(api, other):
    made(api)
    content = archive_of(api.slug)
    made(other)
    status, body = send(other, content)
    assert (status, body["code"]) == (409, "not_empty")
    assert Batch.objects.filter(kitchen__slug=other.slug).count() == 1
    assert api.get("/archive")[1]["is_empty"] is False
    third = make_kitchen("third")
    assert third.get("/archive")[1] == {"is_empty": True, "lists": list(LISTS)}
    assert send(third, content)[0] == 201
    assert send(third, content)[0] == 409


def test_people_are_those_of_the_kitchen_by_name_and_else_cannot_sign_in(api, other):
    User.objects.filter(username="cook-of-test-kitchen").update(first_name="Maren")
    made(api)
    content = archive_of(api.slug)
    User.objects.filter(username="cook-of-other-kitchen").update(first_name="Maren")
    assert send(other, content)[1]["people"] == 1
    assert User.objects.filter(first_name="Maren").count() == 2
    third = make_kitchen("third")
    assert send(third, content)[0] == 201
    (made_up,) = User.objects.filter(memberships__kitchen__slug="third", first_name="Maren")
    assert not made_up.is_active
    assert not made_up.has_usable_password()
    assert {one["by"] for one in third.get("/batches/J-01")[1]["log"]} == {"Maren"}


def broken(content, path, old, new):
    return changed(content, path, lambda held: held.replace(old, new, 1))


def test_what_is_damaged_or_contradicts_itself_changes_nothing(api, other):
    code = made(api)
    content = archive_of(api.slug)
    entries, weighings = "records/batches_entry.jsonl", "records/batches_weighing.jsonl"
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        weight = json.loads(packed.read(weighings).splitlines()[0])["grams"].encode()
    cases = [
        (b"no zip at all", "no ZIP of a kitchen"),
        (content[: len(content) // 2], "no ZIP of a kitchen"),
        (broken(content, entries, b'"row":1', b'"row":7'), "not numbered in order"),
        (broken(content, entries, b'"batch":1', b'"batch":9'), "there is no row 9"),
        (broken(content, entries, b'"recorded_by":1', b'"recorded_by":2'), "there is no row 2"),
        (broken(content, entries, b'"act":"bought"', b'"act":"baught"'), "line 1, act"),
        (broken(content, entries, b'"note":', b'"notes":'), "columns differ (note, notes)"),
        (broken(content, weighings, weight, b"9000000"), "contradict each other"),
        (broken(content, weighings, b'"' + weight + b'"', b"12.5"), "a decimal is a string"),
        (broken(content, "people.json", b"[", b"[7,"), "person 1"),
        (broken(content, "kitchen.json", b'"lb"', b'"st"'), "kitchen.json"),
        (changed(content, entries, lambda held: b"{"), "cannot be read"),
    ]
    for damaged, said in cases:
        status, body = send(other, damaged)
        assert (status, body["code"]) == (422, "bad_archive"), said
        assert said.lower() in body["detail"].lower()
        assert "Nothing was written" in body["detail"]
        assert not Batch.objects.filter(kitchen__slug=other.slug).exists()
        assert Kitchen.objects.get(slug=other.slug).weight_unit == "lb"
    assert send(other, content)[0] == 201
    assert other.get(f"/batches/{code}")[0] == 200


def test_what_unpacks_to_too_much_is_not_unpacked(api, monkeypatch):
    content = archive_of(api.slug)
    for limit in ("MAX_FILE", "MAX_FILES", "MAX_UNPACKED"):
        with monkeypatch.context() as patched:
            patched.setattr(f"dolmetsch.server.archive.reading.{limit}", 3)
            status, body = send(api, content)
        assert status == 422, limit
        assert "unpacks to more than can be read" in body["detail"]


def test_a_file_changed_beside_the_manifest_is_noticed(api, other):
    made(api)
    content = archive_of(api.slug)
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            held = old.read(name)
            new.writestr(name, held.replace(b"Jowl", b"Howl") if name.startswith("records/") else held)
    status, body = send(other, out.getvalue())
    assert status == 422
    assert "is not what the manifest says" in body["detail"]


def test_a_photo_cannot_be_written_elsewhere(api, other, photos):
    code = made(api)
    assert send_photo(api, code, photo_bytes())[0] == 201
    content = archive_of(api.slug)
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        digest = json.loads(packed.read("records/diary_photo.jsonl"))["digest"]
    assert send(other, content)[0] == 201
    third = make_kitchen("third")
    odd = "../" * 10 + "tmp/x"
    moved = broken(content, "records/diary_photo.jsonl", digest.encode(), odd.encode())
    moved = changed(moved, "none", lambda held: held)
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(moved)) as old, zipfile.ZipFile(out, "w") as new:
        manifest = json.loads(old.read("manifest.json"))
        manifest["files"][f"photos/{odd}.large.jpg"] = hashlib.sha256(b"x").hexdigest()
        for name in old.namelist():
            new.writestr(name, old.read(name) if name != "manifest.json" else json.dumps(manifest))
        new.writestr(f"photos/{odd}.large.jpg", b"x")
    status, body = send(third, out.getvalue())
    assert (status, body["code"]) == (422, "bad_archive")
    assert not Batch.objects.filter(kitchen__slug="third").exists()


def test_links_of_tastings_are_new(api, other):
    codes = [made(api), made(api)]
    sides = [{"batch": code, "what": f"side {code}"} for code in codes]
    trial = api.call("POST", "/trials", {"name": "Two", "sides": sides})[1]
    assert api.call("POST", f"/trials/{trial['id']}/tastings")[0] == 201
    assert send(other, archive_of(api.slug))[0] == 201
    one, another = Tasting.objects.order_by("id").values_list("token", flat=True)
    assert one != another
    assert len(another) >= 32


def test_lists_are_files_of_their_own_kitchen(api, other):
    code = made(api)
    api.recorded(api.started(), TRIM)
    for name in LISTS:
        for form in ("csv", "xlsx"):
            answer = api.client.get(f"/api/kitchens/{api.slug}/archive/{name}.{form}")
            assert answer.status_code == 200, name
            assert answer["Content-Disposition"] == f'attachment; filename="{name}.{form}"'
            if form == "csv" and name in ("batches", "yields", "savings", "entries"):
                assert code in answer.content.decode()
                theirs = other.client.get(f"/api/kitchens/{other.slug}/archive/{name}.csv")
                assert code not in theirs.content.decode()
    assert api.call("POST", "/ways", WAY)[0] == 201
    methods = api.client.get(f"/api/kitchens/{api.slug}/archive/methods.csv").content.decode()
    assert WAY["name"] in methods
    assert api.get("/archive/secrets.csv")[0] == 422
    assert other.client.get(f"/api/kitchens/{api.slug}/archive/everything.zip").status_code == 404


def test_the_zip_comes_by_the_api_and_by_a_command(api, tmp_path):
    code = made(api)
    answer = api.client.get(f"/api/kitchens/{api.slug}/archive/everything.zip")
    assert answer["Content-Type"] == "application/zip"
    content = answer.getvalue()
    assert f"batches/{code}.json" in zipfile.ZipFile(io.BytesIO(content)).namelist()
    file = tmp_path / "kitchen.zip"
    call_command("export_kitchen", api.slug, str(file), stdout=io.StringIO())
    assert records_of(file.read_bytes()) == records_of(content)
    with pytest.raises(CommandError, match="no kitchen"):
        call_command("export_kitchen", "nowhere", str(file))


def test_what_was_being_filled_is_whole_or_not_there(api, other, monkeypatch):
    made(api)
    content = archive_of(api.slug)
    cook = User.objects.get(username="cook-of-other-kitchen")
    kitchen = Kitchen.objects.get(slug=other.slug)

    def fail(_kitchen):
        raise ValueError("no more")

    monkeypatch.setattr("dolmetsch.server.archive.reading.renew_kitchen", fail)
    with pytest.raises(DomainError, match="no more"):
        fill_kitchen(kitchen, cook, io.BytesIO(content))
    assert not Batch.objects.filter(kitchen=kitchen).exists()
