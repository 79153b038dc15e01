"""What is asked again is answered from what was worked out, until something is written."""

from datetime import timedelta

import pytest
from django.core.cache.backends.filebased import FileBasedCache
from django.db import connection, transaction
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from dolmetsch.server.batches.entries.chain import list_entry_rows
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show import queries as shown
from dolmetsch.server.batches.verdict import index
from dolmetsch.server.config import files
from dolmetsch.server.fires.models import Fire
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.ways import queries
from dolmetsch.server.ways.models import Way
from dolmetsch.server.writing import kept_answers
from tests.server.conftest import TRIM, make_kitchen, weigh
from tests.server.test_fires import begun, climb, cooks, heard, live  # noqa: F401 (a fixture)
from tests.server.test_meals import DISH, WAY, in_days, worked
from tests.server.test_outlooks import finish
from tests.server.test_prices import LIST, noted, upload, write
from tests.server.test_verdict_api import PACK

pytestmark = [pytest.mark.django_db, pytest.mark.kept_answers]

#: Who asks (session and user) and the kitchen they cook in.
ASKING = 3


def paths(code):
    of_batch = [f"/batches/{code}/{name}" for name in ("diary", "verdict", "forecast")]
    return ["/today", "/verdicts", "/batches", "/plan", "/map", *of_batch]


def test_the_second_time_only_who_asks_is_looked_up(api, django_assert_num_queries):
    for path in paths(api.started()):
        first = api.get(path)
        with django_assert_num_queries(ASKING):
            assert api.get(path) == first, path


@pytest.mark.django_db(transaction=True)
def test_a_method_is_read_once_for_all_its_batches_until_a_price_is_written(api, monkeypatch):
    assert api.call("POST", "/ways", WAY)[0] == 201
    read, reads = queries.read_kept, []
    monkeypatch.setattr(queries, "read_kept", lambda way: reads.append(way.name) or read(way))
    first = queries.core_of(Way.objects.get())
    assert queries.core_of(Way.objects.get()) == first
    assert len(reads) == 1
    noted(api, sort="fuel", name="cherry wood", price="9.00/kg")
    queries.core_of(Way.objects.get())
    assert len(reads) == 2


def writes(api, code):
    """Something of each kind that is written, the settings and a list of prices among them."""
    yield lambda: api.recorded(code, weigh("cure", lot="9.5 lb"))
    yield lambda: api.call("POST", f"/batches/{code}/notes", {"text": "turned"})
    yield lambda: api.call("PUT", "/settings", {**api.get("/settings")[1], "labour_rate": "21.00"})
    yield lambda: noted(api)


def test_every_write_makes_it_anew(api):
    code = api.started()
    for do in writes(api, code):
        before = Kitchen.objects.get(slug=api.slug).writes
        api.get("/today")
        do()
        assert Kitchen.objects.get(slug=api.slug).writes > before
    api.get("/today")
    other = api.started(name="Second jowl")
    assert other in [batch["code"] for batch in api.get("/today")[1]["under_way"]]


def test_a_piece_of_a_price_list_is_a_write(api):
    _, listed = upload(api, LIST)
    before = Kitchen.objects.get(slug=api.slug).writes
    assert write(api, listed)[0] == 200
    assert Kitchen.objects.get(slug=api.slug).writes > before


def test_what_is_refused_is_no_write(api):
    code = api.started()
    before = Kitchen.objects.get(slug=api.slug).writes
    assert api.record(code, weigh("cure", lot="0 lb"))[0] == 422
    assert Kitchen.objects.get(slug=api.slug).writes == before


def test_a_kept_answer_is_for_members_alone(api):
    assert api.get("/today")[0] == 200
    stranger = make_kitchen("elsewhere")
    assert stranger.client.get(f"/api/kitchens/{api.slug}/today").status_code == 404


def test_it_is_never_older_than_half_a_minute(api, monkeypatch):
    clock = [1_000_000.0]
    monkeypatch.setattr(kept_answers.time, "time", lambda: clock[0])
    api.get("/today")
    clock[0] += kept_answers.MOST_SECONDS
    with CaptureQueriesContext(connection) as asked:
        api.get("/today")
    assert len(asked) > ASKING


def test_what_was_not_found_is_not_kept(api):
    assert api.get("/batches/J-01/diary")[0] == 404
    api.started()
    assert api.get("/batches/J-01/diary")[0] == 200


@pytest.mark.django_db(transaction=True)
def test_entries_are_read_once_and_an_entry_more_is_seen(api):
    code = api.started()
    chosen = Batch.objects.get(code=code)
    assert len(list_entry_rows(chosen)) == 1
    with CaptureQueriesContext(connection) as asked:
        again = list_entry_rows(chosen)
    assert (len(asked), [row.lot.mark for row in again]) == (0, ["lot"])
    api.recorded(code, weigh("cure", lot="9.5 lb"))
    assert len(list_entry_rows(Batch.objects.get(code=code))) == 2
    # who read the batch before that entry sees it as it was
    assert len(list_entry_rows(chosen)) == 1


@pytest.mark.django_db(transaction=True)
def test_nothing_is_kept_of_a_write_that_may_be_taken_back():
    with transaction.atomic():
        assert kept_answers.keep(("a", 1), lambda: "of a write") == "of a write"
    assert kept_answers.keep(("a", 1), lambda: "as recorded") == "as recorded"
    assert kept_answers.keep(("a", 1), lambda: "not asked again") == "as recorded"
    assert kept_answers.keep(("a", 2), lambda: "of another") == "of another"


@pytest.mark.django_db(transaction=True)
def test_nothing_is_taken_of_what_another_program_worked_out(monkeypatch):
    assert kept_answers.keep(("a", 1), lambda: "by this one") == "by this one"
    monkeypatch.setattr(kept_answers, "_PROGRAM", 0)
    assert kept_answers.keep(("a", 1), lambda: "by another") == "by another"


@pytest.mark.django_db(transaction=True)
def test_what_a_plan_is_made_from_is_kept_until_a_write_and_read_anew_within_one(api):
    kitchen = Kitchen.objects.get(slug=api.slug)
    now, said = timezone.now(), ("a plan",)

    def of(row, at, words, about=said):
        return kept_answers.keep_until_write(row, at, about, lambda: words)

    assert of(kitchen, now, "first") == "first"
    assert of(kitchen, now, "not asked again") == "first"
    assert of(kitchen, now, "of another", ("another",)) == "of another"
    later = now + timedelta(seconds=kept_answers.MOST_SECONDS)
    assert of(kitchen, later, "half a minute later") == "half a minute later"
    with timezone.override("Pacific/Auckland"):
        assert of(kitchen, now, "of another clock") == "of another clock"
    with transaction.atomic():
        assert of(kitchen, now, "within a write") == "within a write"
    api.started()
    assert of(Kitchen.objects.get(slug=api.slug), now, "after a write") == "after a write"


@pytest.mark.django_db(transaction=True)
def test_a_plan_is_worked_out_from_what_is_kept(api):
    assert api.call("POST", "/ways", WAY)[0] == 201
    assert api.call("POST", "/dishes", DISH)[0] == 201
    api.call("POST", "/stores", {"name": "Fridge 1", "sort": "fridge", "levels": 3, "slots": 2})

    def asked(days):
        with CaptureQueriesContext(connection) as queries:
            body = worked(api, day=in_days(days))
        return body, len(queries)

    first, many = asked(20)
    again, few = asked(20)
    assert (again["needed"], again["lanes"], again["buys"]) == (
        first["needed"],
        first["lanes"],
        first["buys"],
    )
    moved, fewer = asked(19)
    assert few < many / 2
    assert fewer < many / 2
    assert (moved["days"], first["days"]) == (first["days"] - 1, 24)
    dish = {**DISH, "parts": [{**DISH["parts"][0], "amount": "6 oz"}]}
    assert api.call("POST", "/dishes", dish)[0] == 201
    assert asked(20)[0]["needed"][0]["wanted"]["lb"] == "15.00"


def find_under_way(api):
    """What is shown of each batch under way, as it is kept, which is as it would be worked out anew."""
    listed = api.get("/verdicts")[1]["under_way"]
    kept_answers.cache.clear()
    assert api.get("/verdicts")[1]["under_way"] == listed
    return {one["name"]: one for one in listed}


def test_of_many_batches_under_way_the_latest_are_shown_on_the_first_page(api, monkeypatch):
    monkeypatch.setattr(index, "UNDER_WAY_SHOWN", 2)
    monkeypatch.setattr(shown, "PAGE", 1)
    codes = [api.started(name=name) for name in ("Jowl", "Loin", "Neck", "Old", "Older")]
    for code in codes[3:]:
        finish(api, code)
    pages = [api.get(f"/verdicts?page={number}")[1] for number in (1, 2)]
    assert [(page["page"], page["pages"], page["more_under_way"]) for page in pages] == [(1, 2, 1), (2, 2, 0)]
    assert [[one["name"] for one in page["under_way"]] for page in pages] == [["Neck", "Loin"], []]
    assert [[one["name"] for one in page["finished"]] for page in pages] == [["Older"], ["Old"]]


@pytest.mark.django_db(transaction=True)
def test_of_batches_under_way_only_what_a_write_changed_is_worked_out_anew(api, monkeypatch):
    noted(api, sort="ingredient", name="salt", price="1.20/kg")
    use = {"what": "salt", "group": "cure", "amount": "2.5 %", "price": ""}
    steps = [{**WAY["steps"][1], "used": [use]}, *WAY["steps"][2:]]
    assert api.call("POST", "/ways", {**WAY, "steps": steps})[0] == 201
    jowl, loin = api.started(name="Jowl"), api.started(name="Loin", course="cooked")
    assert api.call("POST", f"/batches/{jowl}/way", {"way": WAY["name"]})[0] == 201
    for code in (jowl, loin):
        api.recorded(code, PACK)
        api.recorded(code, TRIM)
    down = {"cut": "rind", "source": {"batch": loin, "piece": "B"}}
    api.started(name="Down", bought=down, course="cooked")
    before, forecast = find_under_way(api), index.forecast
    made = []
    monkeypatch.setattr(
        index, "forecast", lambda batch, costed: made.append(batch.name) or forecast(batch, costed)
    )

    def changed(do):
        """What is worked out anew after ``do``, and of what the price is another then."""
        nonlocal before
        do()
        made.clear()
        api.get("/verdicts")
        anew, now = set(made), find_under_way(api)
        others = {name for name, one in now.items() if one["price"] != before[name]["price"]}
        before = now
        return anew, others

    # what is taken from another batch follows that one's entries: it is worked out each time
    assert changed(lambda: api.call("POST", f"/batches/{jowl}/notes", {"text": "turned"})) == (
        {"Down"},
        set(),
    )
    dear = {"sort": "ingredient", "name": "salt", "price": "2.20/kg"}
    assert changed(lambda: noted(api, **dear, on="2026-11-20")) == ({"Down", "Jowl"}, {"Jowl"})
    more = weigh("cure", A="4.5 lb", B="2.5 lb")
    assert changed(lambda: api.recorded(jowl, more)) == ({"Down", "Jowl"}, {"Jowl"})
    assert changed(lambda: api.recorded(loin, more)) == ({"Down", "Loin"}, {"Down", "Loin"})
    finished = api.started(name="Finished")
    assert changed(lambda: finish(api, finished))[0] == {"Down", "Jowl", "Loin"}


@pytest.mark.django_db(transaction=True)
def test_what_a_fire_is_expected_to_keep_is_part_of_what_is_shown(api):
    code = api.started(name="Jowl")
    api.recorded(code, TRIM)
    before = find_under_way(api)["Jowl"]["price"]
    pieces = [{"code": code, "mark": mark} for mark in ("A", "B")]
    hot = {"name": "Hot", "meat": "pork", "pull_at": "205", "stages": [{"kind": "smoke", "air": "225"}]}
    assert api.call("POST", "/fires", {**hot, "pieces": pieces})[0] == 201
    assert find_under_way(api)["Jowl"]["price"] != before


@pytest.mark.django_db(transaction=True)
def test_many_screens_at_a_fire_are_answered_from_one_until_it_is_heard_again(cooks):
    fire_id = begun(cooks, ago=30)
    climb(cooks, fire_id, 20, air=130)
    begun_at = Fire.objects.get(pk=fire_id).begun_at
    for path in ("/alarms", "/fires", f"/fires/{fire_id}"):
        first = cooks.get(path)
        with CaptureQueriesContext(connection) as asked:
            assert cooks.get(path) == first
        # besides the fires there are, what happened in them, and what was heard last
        assert len(asked) <= ASKING + 4, path
    heard(cooks, begun_at + timedelta(minutes=21), p1=60, air=130)
    assert live(cooks, fire_id)["coldest"] == "60"
    assert cooks.get("/fires")[1]["cookers"][0]["probes"] == {"1": "60"}
    assert cooks.get("/alarms")[1]["alarms"] == []


def test_of_many_answers_few_look_whether_too_many_are_kept(tmp_path, monkeypatch):
    turn, looked, look = iter(range(1, 401)), [], FileBasedCache._cull
    monkeypatch.setattr(files.random, "randrange", lambda many: next(turn) % many)
    monkeypatch.setattr(FileBasedCache, "_cull", lambda cache: looked.append(1) or look(cache))
    cache = files.ServedFiles(str(tmp_path), {"OPTIONS": {"MAX_ENTRIES": 50}})
    for number in range(400):
        cache.set(number, number)
    assert len(looked) == 20
    assert 25 < len(list(tmp_path.glob("*.djcache"))) < 75
    assert cache.get(399) == 399
