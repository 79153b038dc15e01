"""Pieces, plans, diary and labels over the API: what is learned, ticked off, written down and printed."""

import socket
import threading
import uuid
from contextlib import closing, suppress
from datetime import UTC, datetime, timedelta
from io import BytesIO

import pytest
from django.db import DatabaseError, connection
from icalendar import Calendar
from PIL import Image

from dolmetsch.server.diary.models import Photo
from dolmetsch.server.labels import api as labels_api
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.plans.queries import read_plan
from tests.devices.conftest import printer  # noqa: F401 (a fixture)
from tests.server.conftest import TRIM, weigh


@pytest.fixture
def code(api):
    started = api.started()
    api.recorded(started, TRIM)
    return started


def learn(api, code, mark="A", **facts):
    return api.call("POST", f"/batches/{code}/pieces/{mark}/facts", facts)


def store(api, name="Fridge 1", **more):
    status, body = api.call(
        "POST", "/stores", {"name": name, "sort": "fridge", "levels": 2, "slots": 2, **more}
    )
    assert status == 201, body
    return body


def test_what_is_learned_of_a_piece_adds_up_and_the_latest_counts(api, code):
    store(api)
    assert learn(api, code, length="14", thickness="4 cm")[0] == 201
    assert learn(api, code, thickness="1.5 in", skin="off")[0] == 201
    status, body = learn(api, code, place={"store": "fridge 1", "level": 2, "slot": 1})
    assert status == 201
    piece = body["pieces"][0]
    assert (piece["length"]["inch"], piece["thickness"]["inch"], piece["skin"]) == ("14.00", "1.50", "off")
    assert piece["place"]["text"] == "Fridge 1, shelf 2, place 1"
    assert learn(api, code, place={"store": ""})[1]["pieces"][0]["place"] is None


def test_what_a_piece_is_cured_as_is_read_from_its_cut_until_the_cook_sets_it(api, code):
    def cured_as():
        piece = api.get(f"/batches/{code}/pieces")[1]["pieces"][0]
        return piece["product"], piece["is_product_set"]

    assert cured_as() == ("bacon", False)
    assert learn(api, code, product="whole_muscle")[0] == 201
    assert learn(api, code, thickness="1.5 in")[0] == 201
    assert cured_as() == ("whole_muscle", True)
    leaves = api.get(f"/batches/{code}/diary")[1]["leaves"]
    assert ["cured as whole muscle"] in [leaf["lines"] for leaf in leaves if leaf["title"] == "Noted"]
    assert learn(api, code, product="ham")[0] == 422


@pytest.mark.parametrize(
    ("facts", "path"),
    [
        ({}, "thickness"),
        ({"thickness": "0"}, "thickness"),
        ({"width": "wide"}, "width"),
        ({"place": {"store": "Fridge 9"}}, "place.store"),
        ({"place": {"store": "Fridge 1", "level": 3}}, "place.level"),
    ],
)
def test_what_cannot_be_learned_is_said(api, code, facts, path):
    store(api)
    status, body = learn(api, code, **facts)
    assert (status, body["fields"][0]["path"], PieceFact.objects.count()) == (422, path, 0)
    assert learn(api, code, mark="Z", thickness="1")[0] == 404


def test_the_map_shows_what_lies_where_and_what_lies_nowhere(api, code, other):
    store(api)
    learn(api, code, place={"store": "Fridge 1", "level": 1, "slot": 2})
    shown = api.get("/map")[1]
    assert [(one["mark"], one["level"], one["slot"]) for one in shown["stores"][0]["lying"]] == [("A", 1, 2)]
    assert [one["mark"] for one in shown["nowhere"]] == ["B"]
    # a store put away leaves its pieces lying nowhere
    assert [one["mark"] for one in store(api, put_away=True)["nowhere"]] == ["A", "B"]
    assert other.get("/map")[1] == {"stores": [], "nowhere": []}
    assert api.call("POST", "/stores", {"name": "-"})[0] == 422


def test_meat_is_looked_over_and_what_is_cut_off_remembers_its_worth(api, code):
    looks = api.get("/looks")[1]
    assert {look["key"] for look in looks} == {"bone", "cartilage", "glands", "smell"}
    status, body = api.call(
        "POST", f"/batches/{code}/look-overs", {"found": ["smell", "bone"], "note": "thin end"}
    )
    assert (status, body["looked_over_at"] is not None) == (201, True)
    assert api.call("POST", f"/batches/{code}/look-overs", {"found": ["rust"]})[0] == 422
    assert api.get("/offcuts")[1] == [
        {"name": "lean", "material": "lean", "worth": "price", "price": "2.50/lb"}
    ]


def test_the_butchers_test_re_costs_next_weeks_price_at_once(api, code):
    """20.00 for 10 lb; 1 lb of lean worth 2.50; 8 lb usable: 17.50 ÷ 8 = 2.1875, of 2.00: factor 1.09375."""
    path = f"/batches/{code}/butchers-test"
    test = api.call("POST", path, {"price": "3.00"})[1]
    assert (test["usable_price"]["per_lb"], test["factor"], test["lost_share"]) == ("2.19", "1.094", "10.0")
    # (30 − 2.50) ÷ 8 = 3.4375 where the lean stays worth 2.50
    assert (test["next_usable"]["per_lb"], test["next_with_same_worth"]["per_lb"]) == ("3.28", "3.44")
    assert api.call("POST", path, {"price": "dear"})[0] == 422
    assert api.call("POST", f"/batches/{api.started()}/butchers-test", {})[1]["code"] == "not_trimmed"


def plan(api, code, kind="turn", *, days=0, **more):
    due = (datetime.now(UTC) + timedelta(days=days)).isoformat()
    status, body = api.call("POST", f"/batches/{code}/tasks", {"kind": kind, "due_at": due, **more})
    assert status == 201, body
    return body["tasks"][-1]["uid"] if days >= 0 else body["tasks"][0]["uid"]


def tell(api, uid, sort="done", **more):
    return api.call("POST", f"/tasks/{uid}/news", {"sort": sort, **more})


def test_news_that_waited_on_a_device_reach_the_address_they_were_written_for(api, code):
    uid = plan(api, code)
    status, body = api.call("POST", f"/acts/{uid}/news", {"sort": "done"})
    assert (status, body["tasks"][0]["state"]) == (201, "done")


def test_an_act_is_ticked_off_once_and_late_ones_say_so(api, code):
    late = plan(api, code, days=-2)
    assert api.get("/plan")[1]["tasks"][0]["is_late"] is True
    # late from the moment it should have been done by, and not before
    task = PlannedTask.objects.get(uid=late)
    for now, is_late in ((task.until_at, False), (task.until_at + timedelta(seconds=1), True)):
        assert read_plan(task.kitchen, now, days=2).tasks[0].is_late is is_late
    status, body = tell(api, late)
    assert (status, body["tasks"][0]["state"], body["tasks"][0]["is_late"]) == (201, "done", False)
    status, body = tell(api, late)
    assert (status, body["code"]) == (409, "already")
    assert "by cook-of-test-kitchen" in body["detail"]
    assert tell(api, late, "open")[1]["tasks"][0]["state"] == "open"
    assert tell(api, uuid.uuid4())[0] == 404
    for when in ("0001-01-01T00:00:00Z", "9999-12-31T23:59:59Z"):
        assert tell(api, late, "moved", due_at=when)[1]["fields"][0]["code"] == "odd_time"
        assert tell(api, late, happened_at=when)[1]["fields"][0]["code"] == "odd_time"
        status, body = api.call("POST", f"/batches/{code}/tasks", {"kind": "turn", "due_at": when})
        assert (status, body["fields"][0]["path"]) == (422, "due_at")
    assert (
        api.call("POST", f"/batches/{code}/tasks", {"kind": "other", "due_at": "2026-01-01T00:00:00Z"})[0]
        == 422
    )


def test_an_act_moves_by_the_cooks_choice_alone_or_with_what_follows(api, code):
    body = {
        "pieces": [
            {
                "mark": "A",
                "recipe": {"salt": {"name": "salt", "amount": "2.5"}, "target": "150"},
                "out_day": 9,
            }
        ],
        "wishes": {"turn_days": 0},
    }
    assert api.call("POST", f"/batches/{code}/cures", body)[0] == 201
    out, rinse = PlannedTask.objects.get(kind="out"), PlannedTask.objects.get(kind="rinse")
    later = (out.due_at + timedelta(days=2)).isoformat()
    assert tell(api, out.uid, "moved")[1]["fields"][0]["path"] == "due_at"
    assert tell(api, out.uid, "moved", due_at=later)[0] == 201
    before = rinse.due_at
    rinse.refresh_from_db()
    assert rinse.due_at == before
    again = (out.due_at + timedelta(days=3)).isoformat()
    PlannedTask.objects.filter(pk=out.pk).update(due_at=out.due_at)
    assert tell(api, out.uid, "moved", due_at=again, with_following=True)[0] == 201
    rinse.refresh_from_db()
    assert rinse.due_at == before + timedelta(days=3)


def test_too_salty_plans_a_soak_and_another_tasting_twice(api, code):
    first = plan(api, code, "taste")
    assert tell(api, first, taste="salty", soak_minutes=30)[0] == 201
    second = PlannedTask.objects.filter(kind="taste", state="open").get()
    assert tell(api, second.uid, taste="salty", soak_minutes=20)[0] == 201
    third = PlannedTask.objects.filter(kind="taste", state="open").get()
    assert tell(api, third.uid, taste="right")[0] == 201
    soaks = PlannedTask.objects.filter(kind="soak").order_by("due_at").values_list("minutes", flat=True)
    assert (list(soaks), PlannedTask.objects.filter(kind="taste", state="open").exists()) == ([30, 20], False)
    turn = plan(api, code, "turn", days=5)
    assert tell(api, turn, taste="flat")[1]["fields"][0]["path"] == "taste"


def read_calendar(api, path="/plan.ics"):
    answer = api.client.get(f"/api/kitchens/{api.slug}{path}")
    assert (answer.status_code, answer["Content-Type"]) == (200, "text/calendar; charset=utf-8")
    return {str(event["uid"]): event for event in Calendar.from_ical(answer.content).walk("VEVENT")}


def test_a_second_calendar_updates_the_first(api, code, other):
    uid = plan(api, code, "turn", days=1)
    gone = plan(api, code, "weigh", days=2)
    first = read_calendar(api)
    assert tell(api, uid, "moved", due_at=(datetime.now(UTC) + timedelta(days=3)).isoformat())[0] == 201
    assert tell(api, gone, "dropped")[0] == 201
    second = read_calendar(api, f"/plan.ics?code={code}")
    assert set(first) == set(second) == {f"{uid}@dolmetsch", f"{gone}@dolmetsch"}
    moved = second[f"{uid}@dolmetsch"]
    assert (first[f"{uid}@dolmetsch"]["sequence"], moved["sequence"]) == (0, 1)
    assert moved["dtstart"].dt - first[f"{uid}@dolmetsch"]["dtstart"].dt > timedelta(days=1)
    assert str(second[f"{gone}@dolmetsch"]["status"]) == "CANCELLED"
    assert read_calendar(other) == {}


def photo_bytes(form="JPEG", *, size=(300, 200), exif=True):
    picture = Image.new("RGB", size, "#b5304a")
    answer = picture.getexif()
    answer[0x0112] = 6  # to be turned
    answer[0x010F] = "camera"
    answer.get_ifd(0x8825)[1] = "N"
    out = BytesIO()
    picture.save(out, form, **({"exif": answer} if exif else {}))
    return out.getvalue()


def send_photo(api, code, content, *, name="slab.jpg", key=None, **more):
    from django.core.files.uploadedfile import SimpleUploadedFile

    answer = api.client.post(
        f"/api/kitchens/{api.slug}/batches/{code}/photos",
        {"file": SimpleUploadedFile(name, content), **more},
        headers={"Idempotency-Key": str(key or uuid.uuid4())},
    )
    return answer.status_code, answer.json()


@pytest.fixture
def photos(settings, tmp_path):
    settings.PHOTOS = str(tmp_path)
    return tmp_path


@pytest.mark.parametrize("form", ["JPEG", "PNG", "WEBP"])
def test_a_photo_is_kept_upright_and_without_place_or_camera(api, code, photos, form):
    key = uuid.uuid4()
    content = photo_bytes(form, size=(3000, 1500))
    status, body = send_photo(api, code, content, name="x.html", key=key, mark="A", note="after the trim")
    assert status == 201, body
    (leaf,) = [leaf for leaf in body["leaves"] if leaf["sort"] == "photo"]
    assert (leaf["marks"], leaf["lines"], leaf["photo"]["width"], leaf["photo"]["height"]) == (
        ["A"],
        ["after the trim"],
        1000,
        2000,
    )
    answer = api.client.get(leaf["photo"]["large"])
    assert answer["Content-Type"] == "image/jpeg"
    assert (answer["X-Content-Type-Options"], "sandbox" in answer["Content-Security-Policy"]) == (
        "nosniff",
        True,
    )
    kept = Image.open(BytesIO(answer.content))
    assert (kept.format, kept.size, dict(kept.getexif())) == ("JPEG", (1000, 2000), {})
    assert b"camera" not in answer.content
    assert max(Image.open(BytesIO(api.client.get(leaf["photo"]["small"]).content)).size) == 480
    # once, however often it is sent
    send_photo(api, code, content, name="x.html", key=key, mark="A", note="after the trim")
    assert Photo.objects.count() == 1


def test_what_is_see_through_is_drawn_on_white(api, code, photos):
    out = BytesIO()
    Image.new("RGBA", (40, 40), (0, 0, 0, 0)).save(out, "PNG")
    body = send_photo(api, code, out.getvalue())[1]
    address = next(leaf["photo"]["large"] for leaf in body["leaves"] if leaf["photo"])
    drawn = Image.open(BytesIO(api.client.get(address).content))
    assert drawn.convert("L").getextrema() == (255, 255)


def test_words_about_a_photo_have_an_end(api, code, photos):
    status, body = send_photo(api, code, photo_bytes(), note="x" * 3000)
    assert (status, body["fields"][0]["path"], Photo.objects.count()) == (422, "note", 0)
    assert list(photos.iterdir()) == []


def bomb():
    out = BytesIO()
    Image.new("1", (20_000, 20_000)).save(out, "PNG")
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "status"),
    [
        (b"", 422),
        (b"<script>alert(1)</script>", 422),
        (b"GIF89a" + b"\0" * 40, 422),
        (photo_bytes()[:200], 422),
        (b"\xff\xd8\xff" + b"\0" * (15 * 1024 * 1024), 413),
    ],
)
def test_what_is_no_photo_is_said_and_nothing_is_kept(api, code, photos, content, status):
    assert send_photo(api, code, content)[0] == status
    assert (Photo.objects.count(), list(photos.iterdir())) == (0, [])


def test_a_small_file_that_unfolds_to_a_huge_picture_is_refused(api, code, photos):
    status, body = send_photo(api, code, bomb())
    assert (status, body["code"], list(photos.iterdir())) == (422, "no_photo", [])


def test_photos_belong_to_a_kitchen_and_a_lost_file_is_said(api, code, photos, other):
    body = send_photo(api, code, photo_bytes())[1]
    address = next(leaf["photo"]["large"] for leaf in body["leaves"] if leaf["photo"])
    assert other.client.get(address.replace("test-kitchen", "other-kitchen")).status_code == 404
    for kept in photos.rglob("*.jpg"):
        kept.unlink()
    assert api.client.get(address).json()["code"] == "photo_gone"


def test_the_diary_tells_everything_in_time_order(api, code):
    api.call("POST", f"/batches/{code}/look-overs", {"found": []})
    learn(api, code, thickness="1.6")
    at = (datetime.now(UTC) - timedelta(days=3)).isoformat()
    note = {"text": "Firm at the edges.\nSmells of juniper.", "mark": "A", "happened_at": at}
    status, body = api.call("POST", f"/batches/{code}/notes", note)
    assert status == 201
    tell(api, plan(api, code, "turn"))
    body = api.get(f"/batches/{code}/diary")[1]
    assert [leaf["title"] for leaf in body["leaves"]] == [
        "Note",
        "Bought",
        "Trimmed",
        "Checked",
        "Measured",
        "Turn and rub",
    ]
    assert body["leaves"][0]["lines"] == ["Firm at the edges.", "Smells of juniper."]
    assert api.call("POST", f"/batches/{code}/notes", {"text": " "})[0] == 422
    assert (
        api.call("POST", f"/batches/{code}/notes", {"text": "later", "happened_at": "2099-01-01T00:00:00Z"})[
            0
        ]
        == 422
    )


@pytest.mark.parametrize("table", ["pieces_piecefact", "plans_tasknews", "diary_note"])
def test_what_was_recorded_is_never_changed(api, code, table):
    learn(api, code, thickness="1.6")
    api.call("POST", f"/batches/{code}/notes", {"text": "so"})
    tell(api, plan(api, code, "turn"))
    with connection.cursor() as cursor, pytest.raises(DatabaseError, match="never changed"):
        cursor.execute(f"UPDATE {table} SET recorded_at = recorded_at")


def test_a_sheet_of_labels_and_the_printer(api, code, settings, printer):
    port, tray = printer
    answer = api.client.get(f"/api/kitchens/{api.slug}/batches/{code}/labels.pdf?paper=a4&marks=A")
    assert (answer["Content-Type"], answer.content[:5]) == ("application/pdf", b"%PDF-")
    settings.PRINTER = f"127.0.0.1:{port}"
    status, body = api.call("POST", f"/batches/{code}/labels", {})
    assert (status, len(body["pictures"]), len(list(tray.glob("*.png")))) == (200, 2, 2)
    assert body["pictures"][0].startswith("data:image/png;base64,")
    assert api.call("POST", f"/batches/{code}/labels", {"marks": ["Z"]})[0] == 404
    # a tub: what went under one brine together
    assert api.call("POST", f"/batches/{code}/labels", {"tubs": True})[1]["code"] == "no_tub"
    brine = {"school": "brine", "salt": {"name": "salt", "amount": "2.5"}, "target": "110", "water": "100 %"}
    pieces = [{"mark": mark, "recipe": brine, "skin": "off"} for mark in "AB"]
    assert api.call("POST", f"/batches/{code}/cures", {"pieces": pieces})[0] == 201
    assert len(api.call("POST", f"/batches/{code}/labels", {"tubs": True})[1]["pictures"]) == 1
    settings.PRINTER = "127.0.0.1:1"
    assert api.call("POST", f"/batches/{code}/labels", {})[1]["code"] == "printer_away"
    settings.PRINTER = ""
    assert "PDF" in api.call("POST", f"/batches/{code}/labels", {})[1]["detail"]


@pytest.mark.parametrize(
    ("answers", "said"),
    [
        ([b"HELLO\n"], "not a label printer"),
        ([b"PRINTER 1 labels\n", b"NO paper left\n"], "refused A: paper left"),
        ([b"PRINTER 1 labels\n", b"PRINTED x.png 99999999999\n"], "cannot be read"),
        ([b"PRINTER 1 labels\n", b"\xff\xfe\n"], "cannot be read"),
        ([], "not a label printer"),
    ],
)
def test_a_printer_in_trouble_is_told(api, code, settings, answers, said):
    with closing(socket.create_server(("127.0.0.1", 0))) as server:
        settings.PRINTER = f"127.0.0.1:{server.getsockname()[1]}"

        def serve():
            line, _ = server.accept()
            with line:
                for answer in answers:
                    line.sendall(answer)
                # until the label has come; one that says nothing hangs up
                line.settimeout(5)
                with suppress(OSError):
                    line.recv(4000 if answers else 0)

        thread = threading.Thread(target=serve)
        thread.start()
        status, body = api.call("POST", f"/batches/{code}/labels", {"marks": ["A"]})
        thread.join()
    assert (status in (502, 503), said in body["detail"]) == (True, True), body


def test_a_labels_code_opens_where_others_open_the_application(api, code, settings, monkeypatch):
    roots = []
    monkeypatch.setattr(labels_api, "gather_labels", lambda _batch, _marks, root: roots.append(root) or [])
    monkeypatch.setattr(labels_api, "print_labels", lambda _labels: [])
    for address in ("", "https://kitchen.example"):
        settings.ADDRESS = address
        assert api.call("POST", f"/batches/{code}/labels", {})[0] == 200
    assert roots == ["http://testserver", "https://kitchen.example"]


def test_the_weight_on_the_scale_means_something_at_once(api, code):
    def mean(**answer):
        return api.call("POST", f"/batches/{code}/on-the-scale", {"kind": "smoke", "mark": "A", **answer})

    body = mean(weight="4.35 lb")[1]
    assert (body["kept"], body["apart"]["lb"], body["gain"], body["asks"]) == ("87.0", "0.65", False, "")
    # 17.50 on 8 lb, 10.94 of it on A: over 4.35 lb
    assert body["cost"]["per_lb"] == "2.51"
    assert "tray" in mean(weight="5.1 lb")[1]["asks"]
    assert "right piece" in mean(weight="1 lb")[1]["asks"]
    assert mean(weight="0 lb")[1]["problems"][0]["code"] == "zero"
    assert mean(weight="-1 lb")[1]["problems"][0]["code"] == "negative"
    assert mean(weight="4 lb", mark="Z")[0] == 404
    api.recorded(code, weigh("smoke", A="4.4 lb"))
    assert mean(weight="4.3 lb")[1]["usual"] is None
