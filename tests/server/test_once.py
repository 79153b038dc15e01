"""A write is made once, however often and however close together its key arrives: every kind there is."""

import json
import uuid
from datetime import timedelta
from pathlib import Path
from types import SimpleNamespace

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import IntegrityError
from django.utils import timezone

from dolmetsch.server.batches.models import Batch, BatchWay, Entry
from dolmetsch.server.books.models import Tool, ToolCanceled
from dolmetsch.server.cures.models import CureRecipe, CureTakenBack, MadeMix, OwnFigure, PieceCure
from dolmetsch.server.diary.models import Note, Photo
from dolmetsch.server.dishes.models import Dish, DishAims, Plating, PlatingCanceled, StockNote
from dolmetsch.server.fires.models import Fire, FireEvent, Program
from dolmetsch.server.history.models import HistoryFile
from dolmetsch.server.hooks.models import Hook, HookNote
from dolmetsch.server.larder.models import (
    PackCanceled,
    Packing,
    PackMove,
    PackWeighing,
    ShelfCount,
    Taken,
    TakenCanceled,
)
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews, MealMade
from dolmetsch.server.pieces.models import LookOver, PieceFact, Store
from dolmetsch.server.plans.models import PlannedTask, TaskNews
from dolmetsch.server.practice.models import PracticeAct, PracticeRun
from dolmetsch.server.prices.models import FryTest, PriceFile, Quote, SellerName
from dolmetsch.server.tastings.models import Tasting, Trial
from dolmetsch.server.ways.models import Way
from dolmetsch.server.writing import once as writing
from tests.server.conftest import BOUGHT, TRIM, as_file, make_kitchen, weigh
from tests.server.test_bench_days import photo_bytes, photos, send_photo  # noqa: F401
from tests.server.test_case import OFFERS, WAY
from tests.server.test_cures import RECIPE, on_desk
from tests.server.test_dishes import part
from tests.server.test_documents import EXAMPLE
from tests.server.test_fires_logs import send_log
from tests.server.test_guards import together
from tests.server.test_larder import pack
from tests.server.test_prices import PACK, noted, upload

ROOT = Path(__file__).parents[2]
DOCUMENT = json.loads((ROOT / "docs/openapi.json").read_text())
LIST = "what,price,date\njowl,3.10/lb,2026-03-02\n"


def dishes_document(name, parts):
    return json.dumps({"format": "dolmetsch-dishes/1", "dishes": [{"name": name, "parts": parts}]})


def send_history(api, said, key):
    file = SimpleUploadedFile(
        "batches.csv", f"cut,date,bought lb,paid,sliced\n{said},2026-03-02,9,9,6\n".encode()
    )
    answer = api.client.post(
        f"/api/kitchens/{api.slug}/history", {"file": file}, headers={"Idempotency-Key": str(key)}
    )
    return answer.status_code, answer.json()


def without_clock(body):
    """An answer without the time it is, which differs between two."""
    if isinstance(body, list):
        return body
    live = {"live": without_clock(body["live"])} if "live" in body else {}
    return {**body, **live, "now": None}


def kinds(api):
    """By the path in the API document: what is counted, and a function that sends with a key and a word in
    the body that can differ.
    """
    code = api.started()
    api.recorded(code, TRIM)
    noted(api, **PACK)
    item = api.get("/prices?sort=shop_pack")[1]["items"][0]["id"]
    assert api.call("POST", "/ways", WAY)[0] == 201
    assert api.call("POST", "/recipes", {"recipe": {**RECIPE, "name": "House dry"}})[0] == 201
    assert api.call("POST", f"/batches/{code}/cures", {"pieces": [on_desk("B")]})[0] == 201
    cure = PieceCure.objects.get()
    due = {"kind": "turn", "due_at": "2030-03-03T09:00:00Z"}
    assert api.call("POST", f"/batches/{code}/tasks", due)[0] == 201
    task = PlannedTask.objects.filter(kind="turn").latest("pk").uid
    fire = api.call("POST", "/fires", {"pieces": [{"code": code, "mark": "A"}]})[1]["id"]
    log = f"time,air\n{Fire.objects.get(pk=fire).begun_at.isoformat()},200\n"
    practice = api.call("POST", "/practice", {"lesson": "belly", "speed": 1})[1]["id"]
    program = {"stages": [{"kind": "cook"}]}
    hook = api.call("POST", "/hooks", {"code": code, "mark": "A", "target": "40"})[1]["id"]
    seen = api.get(f"/batches/{code}")[1]["seen"]

    larder = api.started(name="Packed")
    packs = [pack("lot", "1 lb", "") for _ in range(4)]
    seen_larder = api.get(f"/batches/{larder}")[1]["seen"]
    body = {"packs": packs, "seen": seen_larder}
    assert api.call("POST", f"/batches/{larder}/packs", body)[0] == 201
    assert api.call("POST", f"/packs/{larder}/P1/takings", {"fate": "eaten"})[0] == 201
    taken = Taken.objects.get().pk
    parts = [part("larder", "Jowl, sliced", "1 oz")]
    for dish in ("Roll", "Looked at", "Served"):
        assert api.call("POST", "/dishes", {"name": dish, "parts": parts})[0] == 201
    assert api.call("POST", "/dishes/Served/plates", {"plates": "1"})[0] == 201
    plating = Plating.objects.get().pk
    meal = {
        "day": (timezone.localdate() + timedelta(days=30)).isoformat(),
        "wants": [{"sort": "product", "name": "Jowl, sliced", "amount": "9 lb"}],
        "makes": [{"way": WAY["name"], "cut": "jowl"}],
    }
    for plan in ("Listed", "Ticked"):
        assert api.call("POST", "/meals", {**meal, "name": plan})[0] == 201
    assert api.call("POST", "/meals/Ticked/listed")[0] == 201
    job = MealJob.objects.order_by("id").first().uid

    bought = {"name": "slicer", "paid": "90", "bought_on": "2026-03-02"}
    tool = api.call("POST", "/tools", bought)[1][0]["id"]
    sides = [{"batch": code, "mark": mark, "what": mark} for mark in ("A", "B")]
    trial = api.call("POST", "/trials", {"name": "Looked at", "sides": sides})[1]["id"]

    def post(path, body, word):
        return lambda key, said="one": api.call("POST", path, {**body, **word(said)}, key)

    def name(word):
        return lambda said: {word: said}

    entry = {"content": weigh("rest", A="4.9 lb"), "seen": seen}
    mix = {"recipe": "House dry", "weight": "1 kg"}
    figure = {"sort": "limit", "name": "bacon/dry/off", "value": "180", "source": "our office"}
    frying = {"raw": "100 g", "cooked": "40 g", "on": "2026-03-03"}
    heard = {"sort": "done"}
    return {
        "/batches": (Batch, post("/batches", {"bought": BOUGHT}, name("name"))),
        "/batches/{code}/entries": (
            Entry,
            post(f"/batches/{code}/entries", entry, lambda said: {"reason": "" if said == "one" else said}),
        ),
        "/imports": (
            Batch,
            post("/imports", {}, lambda said: {"document": EXAMPLE + (" " if said != "one" else "")}),
        ),
        "/batches/{code}/way": (BatchWay, post(f"/batches/{code}/way", {}, lambda said: {"way": "plain"})),
        "/prices": (
            Quote,
            post("/prices", {**PACK, "sort": "shop_pack", "on": "2026-03-09"}, name("source")),
        ),
        "/prices/{item_id}/fryings": (
            FryTest,
            post(
                f"/prices/{item}/fryings",
                frying,
                lambda said: {"cooked": "40 g" if said == "one" else "41 g"},
            ),
        ),
        "/price-lists": (PriceFile, lambda key, said="one": upload(api, LIST, source=said, key=key)),
        "/ways": (Way, post("/ways", WAY, name("name"))),
        "/fires/{fire_id}/log": (
            FireEvent,
            lambda key, said="one": send_log(
                api, fire, log, {"columns": {"1": "air"}}, key=key, name=f"{said}.csv"
            ),
        ),
        "/practice": (
            PracticeRun,
            post("/practice", {}, lambda said: {"lesson": "belly" if said == "one" else "shoulder"}),
        ),
        "/practice/{run_id}/events": (
            PracticeAct,
            post(f"/practice/{practice}/events", {"kind": "note"}, name("text")),
        ),
        "/programs": (Program, post("/programs", program, name("name"))),
        "/case/taken": (
            Batch,
            post("/case/taken", {"case": {"way": "plain", "offers": OFFERS}, "offer": "a"}, name("name")),
        ),
        "/batches/{code}/pieces/{mark}/facts": (
            PieceFact,
            post(f"/batches/{code}/pieces/A/facts", {}, lambda said: {"thickness": f"{len(said)} in"}),
        ),
        "/batches/{code}/look-overs": (
            LookOver,
            post(f"/batches/{code}/look-overs", {"found": []}, name("note")),
        ),
        "/stores": (Store, post("/stores", {"sort": "fridge", "levels": 2, "slots": 2}, name("name"))),
        "/batches/{code}/tasks": (
            PlannedTask,
            post(f"/batches/{code}/tasks", {**due, "kind": "other"}, name("words")),
        ),
        "/tasks/{uid}/news": (TaskNews, post(f"/tasks/{task}/news", heard, name("note"))),
        "/fires": (Fire, post("/fires", {"pieces": [{"code": code, "mark": "B"}]}, name("name"))),
        "/fires/{fire_id}/events": (
            FireEvent,
            post(f"/fires/{fire}/events", {"kind": "spritz"}, name("text")),
        ),
        "/hooks": (Hook, post("/hooks", {"code": code, "mark": "B"}, name("chamber"))),
        "/hooks/{hook_id}/notes": (
            HookNote,
            post(
                f"/hooks/{hook}/notes", {"kind": "ph"}, lambda said: {"ph": "5.5" if said == "one" else "5.6"}
            ),
        ),
        "/recipes": (
            CureRecipe,
            post("/recipes", {}, lambda said: {"recipe": {**RECIPE, "name": said}}),
        ),
        "/cure-figures": (OwnFigure, post("/cure-figures", figure, name("source"))),
        "/mixes": (MadeMix, post("/mixes", mix, name("note"))),
        "/batches/{code}/cures": (
            PieceCure,
            post(
                f"/batches/{code}/cures",
                {"pieces": [on_desk("A")]},
                lambda said: {"sure": said != "one"},
            ),
        ),
        "/batches/{code}/cures/{cure_id}/take-back": (
            CureTakenBack,
            post(f"/batches/{code}/cures/{cure.pk}/take-back", {}, name("reason")),
        ),
        "/batches/{code}/packs": (
            Packing,
            post(
                f"/batches/{larder}/packs",
                {"seen": seen_larder},
                lambda said: {"packs": [pack("lot", "1 lb", "", product=said)]},
            ),
        ),
        "/packs/{code}/{mark}/takings": (
            Taken,
            post(f"/packs/{larder}/P2/takings", {"fate": "eaten", "weight": "1 oz"}, name("why")),
        ),
        "/packs/{code}/{mark}/moves": (
            PackMove,
            post(f"/packs/{larder}/P2/moves", {"sort": "opened"}, lambda said: {"store": said}),
        ),
        "/packs/{code}/{mark}/cancel": (PackCanceled, post(f"/packs/{larder}/P3/cancel", {}, name("reason"))),
        "/takings/{taken_id}/cancel": (TakenCanceled, post(f"/takings/{taken}/cancel", {}, name("reason"))),
        "/larder/counts": (
            ShelfCount,
            post("/larder/counts", {}, lambda said: {"expected": len(said)}),
        ),
        "/packs/{code}/{mark}/weighings": (
            PackWeighing,
            post(f"/packs/{larder}/P2/weighings", {}, lambda said: {"weight": f"0.{len(said)} lb"}),
        ),
        "/meals": (Meal, post("/meals", meal, name("name"))),
        "/meals/{name}/listed": (
            # a listing is several jobs: their first ones are counted
            SimpleNamespace(objects=MealJob.objects.filter(position=0)),
            lambda key, said="one": api.call(
                "POST", f"/meals/{'Listed' if said == 'one' else 'Ticked'}/listed", None, key
            ),
        ),
        "/meal-jobs/{uid}/news": (
            MealJobNews,
            post(f"/meal-jobs/{job}/news", {}, lambda said: {"sort": "done" if said == "one" else "open"}),
        ),
        "/meals/{name}/made": (
            MealMade,
            post(
                "/meals/Ticked/made",
                {"product": "Jowl, sliced"},
                lambda said: {"batch": larder if said == "one" else ""},
            ),
        ),
        "/larder/imports": (
            Packing,
            post(
                "/larder/imports",
                {},
                lambda said: as_file(f"batch,product,weight\n{larder},{said},0.1 lb\n"),
            ),
        ),
        "/dishes": (Dish, post("/dishes", {"parts": parts}, name("name"))),
        "/dish-imports": (
            Dish,
            post("/dish-imports", {}, lambda said: as_file(dishes_document(said, parts))),
        ),
        "/dishes/{name}/looks": (
            Dish,
            lambda key, said="one": api.call(
                "POST", f"/dishes/{'Looked at' if said == 'one' else 'Roll'}/looks", None, key
            ),
        ),
        "/dishes/{name}/plates": (
            Plating,
            post("/dishes/Roll/plates", {}, lambda said: {"plates": "1" if said == "one" else "2"}),
        ),
        "/platings/{plating_id}/cancel": (
            PlatingCanceled,
            post(f"/platings/{plating}/cancel", {}, name("reason")),
        ),
        "/dish-aims": (
            DishAims,
            post("/dish-aims", {"low": "28", "high": "35"}, lambda said: {"threshold": str(len(said))}),
        ),
        "/cupboard": (StockNote, post("/cupboard", {"sort": "bought", "amount": "1 kg"}, name("what"))),
        "/batches/{code}/notes": (Note, post(f"/batches/{code}/notes", {}, name("text"))),
        "/tools": (
            Tool,
            post("/tools", {"paid": "90", "bought_on": "2026-03-02"}, name("name")),
        ),
        "/tools/{tool_id}/cancel": (ToolCanceled, post(f"/tools/{tool}/cancel", {}, name("reason"))),
        "/sellers": (SellerName, post("/sellers", {"same_as": "Quay butcher"}, name("name"))),
        "/trials": (Trial, post("/trials", {"sides": sides}, name("name"))),
        "/trials/{trial_id}/tastings": (
            Tasting,
            lambda key, said="one": api.call(
                "POST", f"/trials/{trial}/tastings", None if said == "one" else {"said": said}, key
            ),
        ),
        "/history": (HistoryFile, lambda key, said="one": send_history(api, said, key)),
        "/batches/{code}/owners": (
            PieceFact,
            post(f"/batches/{code}/owners", {"marks": ["A"]}, name("owner")),
        ),
        "/batches/{code}/photos": (
            Photo,
            lambda key, said="one": send_photo(api, code, photo_bytes(), note=said, key=key),
        ),
    }


@pytest.mark.django_db(transaction=True)
@pytest.mark.usefixtures("photos")
def test_two_at_once_with_one_key_make_one_and_are_answered_alike():
    api = make_kitchen("busy-kitchen")
    writes = kinds(api)
    keyed = {
        path.removeprefix("/api/kitchens/{kitchen_slug}")
        for path, operations in DOCUMENT["paths"].items()
        for operation in operations.values()
        if any(one["name"] == "Idempotency-Key" for one in operation.get("parameters", []))
    }
    # a list is written piece by piece, by the row it has reached: sent again, it says how far it is
    assert set(writes) == keyed - {"/price-lists/{file_id}/write", "/history/{file_id}/write"}
    for path, (model, send) in writes.items():
        before, key = model.objects.count(), uuid.uuid4()
        answers = together(lambda send=send, key=key: send(key), lambda send=send, key=key: send(key))
        assert {status for status, _ in answers} <= {200, 201}, (path, answers)
        assert model.objects.count() - before <= (2 if path == "/imports" else 1), path
        assert model.objects.count() > before, path
        seen = [without_clock(body) for _, body in answers]
        assert seen[0] == seen[1], path
        after = model.objects.count()
        if path != "/batches/{code}/way":
            status, body = send(key, "another")
            assert (status, body["code"]) == (409, "key_reused"), path
        assert model.objects.count() == after, path


@pytest.mark.django_db(transaction=True)
def test_without_the_lock_both_would_be_made(monkeypatch):
    """The control: both look, neither finds, both make."""
    import threading

    api = make_kitchen("busy-kitchen")
    code = api.started()
    looked = threading.Barrier(2)
    found = writing.find_kept

    def look(write, kind):
        done = found(write, kind)
        looked.wait()
        return done

    monkeypatch.setattr(writing, "lock_kitchen", lambda kitchen: kitchen)
    monkeypatch.setattr(writing, "find_kept", look)
    key = uuid.uuid4()
    note = lambda: api.call("POST", f"/batches/{code}/notes", {"text": "salted"}, key)[0]  # noqa: E731
    try:
        answers = together(note, note)
    except IntegrityError:
        answers = [500]
    assert sorted(answers) != [201, 201]


def test_a_key_counts_in_its_own_kitchen_alone(api, other):
    key = uuid.uuid4()
    for kitchen in (api, other):
        assert kitchen.call("POST", "/ways", WAY)[0] == 201
        code = kitchen.started(key=key)
        assert kitchen.call("POST", f"/batches/{code}/way", {"way": "plain"}, key)[0] == 201
        assert kitchen.call("POST", f"/batches/{code}/notes", {"text": "salted"}, key)[0] == 201
    assert (Batch.objects.count(), BatchWay.objects.count(), Note.objects.count()) == (2, 2, 2)
    # and what it made is known again in another of the kitchen's batches
    elsewhere = api.started()
    assert api.call("POST", f"/batches/{elsewhere}/way", {"way": "plain"}, key)[1]["code"] == "key_reused"


@pytest.mark.django_db(transaction=True)
def test_of_two_cooks_at_once_the_second_sees_what_the_first_did():
    """Each with a key of their own: a piece into two cures, a price corrected twice, a name saved twice, an
    task done twice, a cure canceled twice.
    """
    api = make_kitchen("busy-kitchen")
    code = api.started()
    api.recorded(code, TRIM)
    price = noted(api, **PACK)["quote"]
    planned = {"kind": "turn", "due_at": "2030-03-03T09:00:00Z"}
    assert api.call("POST", f"/batches/{code}/tasks", planned)[0] == 201
    task = PlannedTask.objects.get().uid

    def twice(path, body):
        def send():
            return api.call("POST", path, body)

        return sorted((status, answer.get("code")) for status, answer in together(send, send))

    into = twice(f"/batches/{code}/cures", {"pieces": [on_desk("A")]})
    assert into == [(201, None), (409, "ask")]
    right = {
        **PACK,
        "sort": "shop_pack",
        "on": "2026-03-02",
        "corrects": price,
        "reason": "misread",
        "price": "6.10",
    }
    assert twice("/prices", right) == [(201, None), (409, "moved_on")]
    assert twice("/ways", WAY) == [(201, None), (201, None)]
    assert sorted(Way.objects.values_list("version", flat=True)) == [1, 2]
    assert twice(f"/tasks/{task}/news", {"sort": "done"}) == [(201, None), (409, "already")]
    cure = PieceCure.objects.get()
    gone = twice(f"/batches/{code}/cures/{cure.pk}/take-back", {"reason": "was B"})
    assert gone == [(201, None), (409, "already")]


def test_an_act_of_another_kitchen_is_not_there(api, other):
    code = api.started()
    planned = {"kind": "turn", "due_at": "2030-03-03T09:00:00Z"}
    assert api.call("POST", f"/batches/{code}/tasks", planned)[0] == 201
    task = PlannedTask.objects.get()
    assert other.call("POST", f"/tasks/{task.uid}/news", {"sort": "done"})[0] == 404
    task.refresh_from_db()
    assert task.state == "open"
