"""Many copies of a kitchen: each whole and by itself, and read as quickly as one."""

import re
import uuid
from datetime import timedelta
from io import StringIO

import pytest
from django.core.management import CommandError, call_command
from django.db import connection, models
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from dolmetsch.server.archive.checking import check_sheets
from dolmetsch.server.archive.copying import BEYOND, copy_many
from dolmetsch.server.archive.lists import LISTS, write_list
from dolmetsch.server.archive.tables import DERIVED, list_tables, rows_of
from dolmetsch.server.batches.models import Batch, BatchFacts
from dolmetsch.server.books.recount import recount
from dolmetsch.server.fires.models import Fire, ProbeReading
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from tests.prepared import load_dump
from tests.server.conftest import Api, make_kitchen, sign_in
from tests.server.test_kitchens_apart import fill
from tests.server.test_rules import IN_KITCHEN, RULES

COPIES = 80
#: A table read whole is no matter while it is so small.
SMALL = 2000
TABLES = [*list_tables(), *DERIVED]


@pytest.fixture(scope="module")
def demo(django_db_setup, django_db_blocker):
    """The demo, copied; one for all tests of this file, which write nothing to it."""
    with django_db_blocker.unblock():
        load_dump("demo.sql")
        kitchen = Kitchen.objects.get(slug="salt-lantern")
        watch_fire(kitchen, timezone.now())
        owner = make_kitchen("own-kitchen").client
        user = User.objects.get(username="cook-of-own-kitchen")
        copy_many(kitchen, COPIES, seed=7, owner=user, now=timezone.now())
        yield kitchen, owner
        call_command("flush", interactive=False, verbosity=0)


def watch_fire(kitchen, now):
    """A fire whose cooker was heard for half an hour."""
    stages = [{"kind": "smoke", "air": "225", "minutes": None, "inside": None}]
    Fire.objects.create(
        kitchen=kitchen,
        key=uuid.uuid4(),
        recorded_at=now,
        recorded_by=User.objects.get(username="maren"),
        name="Night fire",
        cooker="drum",
        meat="pork",
        begun_at=now - timedelta(hours=1),
        stages=stages,
    )
    ProbeReading.objects.bulk_create(
        ProbeReading(kitchen=kitchen, cooker=cooker, at=at, values={"1": "90", "air": "225"}, heard_at=at)
        for cooker in ("drum", "loft")
        for at in (now - timedelta(seconds=10 * number) for number in range(180))
    )


pytestmark = pytest.mark.django_db


def count(model, kitchen):
    return rows_of(model, kitchen).count()


def test_a_copy_has_every_row_and_refers_to_its_own_alone(demo):
    kitchen, _ = demo
    copy = Kitchen.objects.get(slug="many-3")
    assert copy.pk == BEYOND + 3
    counts = {model: count(model, kitchen) for model in TABLES}
    assert sum(counts.values()) > 1000
    assert {model: count(model, copy) for model in TABLES} == counts
    # what a batch keeps of itself fits the days of the copy
    assert list(check_sheets(copy)) == []
    for model in TABLES:
        for field in model._meta.concrete_fields:
            target = field.related_model if isinstance(field, models.ForeignKey) else None
            if target is None or target not in TABLES:
                continue
            mine = rows_of(model, copy).exclude(**{f"{field.name}__isnull": True})
            theirs = set(mine.values_list(f"{field.name}_id", flat=True))
            assert theirs <= set(rows_of(target, copy).values_list("pk", flat=True)), (model, field.name)


def test_a_copy_comes_to_the_same_figures_some_days_earlier(demo):
    kitchen, _ = demo
    copies = Kitchen.objects.filter(pk__gt=BEYOND)
    assert copies.count() == COPIES
    facts = list(BatchFacts.objects.filter(kitchen=kitchen).order_by("batch_id"))
    apart = set()
    for copy in copies[:5]:
        mine = list(BatchFacts.objects.filter(kitchen=copy).order_by("batch_id"))
        assert [one.cost for one in mine] == [one.cost for one in facts]
        apart |= {one.finished_at - other.finished_at for one, other in zip(facts, mine, strict=True)}
    # each by days of its own
    assert len(apart) == 5
    assert all(one.seconds == 0 and 0 <= one.days < 1000 for one in apart)
    assert recount(copies[0], is_mending=False).wrong == []
    weights = [name for name in LISTS if name in ("steps", "packs")]
    for name in weights:
        assert len(write_list(copies[0], name, "csv")) == len(write_list(kitchen, name, "csv"))


def test_more_copies_go_on_after_those_that_are_there(demo):
    kitchen, _ = demo
    before = Batch.objects.count()
    said = StringIO()
    call_command("copy_kitchen", "1", "--like", kitchen.slug, stdout=said)
    assert re.match(rf"1 copies of {kitchen.name}, \d+ rows", said.getvalue())
    assert Kitchen.objects.filter(slug=f"many-{COPIES + 1}").exists()
    assert Batch.objects.count() - before == count(Batch, kitchen)
    assert not Membership.objects.filter(kitchen__slug=f"many-{COPIES + 1}").exists()
    for words in (["1", "--like", "nowhere"], ["1", "--owner", "nobody"]):
        with pytest.raises(CommandError, match=r"is no kitchen|Nobody signs in"):
            call_command("copy_kitchen", *words)


def ids_of(kitchen):
    """Ids of things in ``kitchen`` that its addresses take."""
    batch = Batch.objects.filter(kitchen=kitchen, is_finished=True, packs_made__gt=0).order_by("-pk")[0]
    fire = Fire.objects.filter(kitchen=kitchen).exclude(cooker="").order_by("-pk")[0]
    return {"code": batch.code, "mark": batch.summary["pieces"][0], "item_id": "1", "fire_id": str(fire.pk)}


def test_no_question_reads_a_table_whole_or_sorts_more_than_its_kitchens_rows(demo):
    """Every page of one of many kitchens, each query with its plan."""
    copy = Kitchen.objects.get(slug="many-9")
    api = Api(client=sign_in(User.objects.get(username="cook-of-own-kitchen")), slug=copy.slug)
    ids, bad, asked = ids_of(copy), [], set()
    sizes = {model._meta.db_table: count(model, copy) for model in TABLES}
    whole = {model._meta.db_table: model._default_manager.count() for model in TABLES}
    assert max(whole.values()) > 10 * SMALL
    for name, method, path in IN_KITCHEN:
        if method != "GET" or name in ("exportEverything", "getAudit", "exportAudit") or "isten" in name:
            continue
        if not RULES[name].least:
            continue
        with CaptureQueriesContext(connection) as captured:
            api.client.get(fill(path, copy.slug, ids))
        for query in captured.captured_queries:
            sql = query["sql"]
            if not sql.lstrip("(").startswith(("SELECT", "WITH")):
                continue
            shape = re.sub(r"'[^']*'|\b\d+\b|\([?, ]+\)", "?", sql)
            if shape in asked:
                continue
            asked.add(shape)
            with connection.cursor() as cursor:
                cursor.execute(f"EXPLAIN {sql.replace('%', '%%')}")
                heads = [column[0] for column in cursor.description]
                plan = [dict(zip(heads, row, strict=True)) for row in cursor.fetchall()]
            for step in plan:
                table, rows = step["table"], int(str(step["rows"] or 0).split()[0])
                if table not in whole or whole[table] <= SMALL:
                    continue
                is_whole = step["type"] == "ALL" or (step["type"] == "index" and rows > whole[table] / 2)
                is_sorted = "filesort" in (step["Extra"] or "") and rows > 3 * sizes[table] + SMALL
                if is_whole or is_sorted:
                    bad.append((name, table, step["type"], step["key"], rows, sql[:300]))
    assert len(asked) > 100
    assert bad == []


def test_a_copys_pages_are_its_own(demo):
    copy = Kitchen.objects.get(slug="many-2")
    stranger = Client()
    assert stranger.get(f"/api/kitchens/{copy.slug}/today").status_code == 401
    api = Api(client=sign_in(User.objects.get(username="cook-of-own-kitchen")), slug=copy.slug)
    assert api.get("/batches")[0] == 200
    other = make_kitchen("other-kitchen")
    assert other.client.get(f"/api/kitchens/{copy.slug}/today").status_code == 404
