"""What holds when the API is not asked: the tables' own guards, races, a record store that is away."""

import threading
import uuid
from pathlib import Path

import pytest
from django.core.management import call_command
from django.db import DatabaseError, connection, connections, transaction

from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import TRIM, make_kitchen, weigh
from tests.server.test_documents import EXAMPLE

RECORDS = ["entry", "lotline", "weighing", "usedline", "portionline", "shoppackline"]


def refused(statement, *values):
    with pytest.raises(DatabaseError) as error, transaction.atomic(), connection.cursor() as cursor:
        cursor.execute(statement, values)
    return str(error.value)


@pytest.fixture
def filled(api):
    code = api.started()
    used = [{"what": "salt", "group": "cure", "price": "1.00"}]
    api.recorded(code, {**TRIM, "used": used})
    api.recorded(code, {"act": "portion", "slices": "3"})
    api.recorded(code, {"act": "shop_pack", "name": "good", "paid": "6", "weight": "12 oz"})
    return api


@pytest.mark.parametrize("table", RECORDS)
def test_no_record_is_ever_changed(filled, table):
    assert "corrected by a later one" in refused(f"UPDATE batches_{table} SET id = id")


def test_an_entry_belongs_to_its_batchs_kitchen(filled, other):
    kitchen = Kitchen.objects.get(slug=other.slug)
    entry = Entry.objects.first()
    entry.pk, entry.kitchen, entry.key, entry.sequence = None, kitchen, uuid.uuid4(), 99
    with pytest.raises(DatabaseError, match="entry_of_its_kitchen"), transaction.atomic():
        entry.save(force_insert=True)


@pytest.mark.parametrize(
    ("table", "column", "value", "constraint"),
    [
        ("entry", "sequence", 1, "entry_in_order"),
        ("entry", "act", "flown", "entry_act"),
        ("entry", "reason", "because", "entry_reason"),
        ("weighing", "grams", 0, "weighing_weight"),
        ("weighing", "grams", 5_000_001, "weighing_weight"),
        ("weighing", "role", "pet", "weighing_role"),
        ("weighing", "worth_paid", None, "weighing_worth"),
        ("usedline", "price_paid", -1, "used_price"),
        ("usedline", "amount_count", None, "used_like_with_like"),
        ("portionline", "slices", None, "portion_one_way"),
        ("lotline", "paid", -1, "lot_paid"),
        ("shoppackline", "slices", 0, "shop_pack_slices"),
    ],
)
def test_the_tables_refuse_what_cannot_be(filled, table, column, value, constraint):
    """The last row, copied with one column changed, is refused by the constraint of that name."""
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT * FROM batches_{table} ORDER BY id DESC LIMIT 1")
        names = [field[0] for field in cursor.description]
        row = dict(zip(names, cursor.fetchone(), strict=True))
    row |= {
        "id": 10_000,
        "mark": "copy",
        "position": 77,
        "key": uuid.uuid4().hex,
        "sequence": 77,
        column: value,
    }
    if table in ("portionline", "shoppackline", "lotline", "weighing", "usedline"):
        row["entry_id"] = Entry.objects.get(act="split").id
    kept = {name: row[name] for name in names}
    columns = ", ".join(f"`{name}`" for name in kept)
    marks = ", ".join(["%s"] * len(kept))
    assert constraint in refused(f"INSERT INTO batches_{table} ({columns}) VALUES ({marks})", *kept.values())


def together(*acts):
    """Run ``acts`` at once, each in a thread with a connection of its own; their answers."""
    ready = threading.Barrier(len(acts))
    answers = []

    def run(act):
        ready.wait()
        try:
            answers.append(act())
        finally:
            connections.close_all()

    threads = [threading.Thread(target=run, args=(act,)) for act in acts]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return answers


@pytest.mark.django_db(transaction=True)
def test_two_cooks_at_once_one_records_the_other_is_told():
    api = make_kitchen("busy-kitchen")
    code = api.started()
    api.recorded(code, TRIM)
    for turn in range(4):
        seen = api.get(f"/batches/{code}")[1]["seen"]
        acts = [
            lambda weight=weight, seen=seen: api.record(code, weigh("cure", A=weight), seen=seen)[0]
            for weight in ("4 lb", "3 lb")
        ]
        assert sorted(together(*acts)) == [201, 409], turn
    assert list(Entry.objects.values_list("sequence", flat=True)) == [1, 2, 3, 4, 5, 6]


@pytest.mark.django_db(transaction=True)
def test_one_key_sent_twice_at_once_is_one_entry():
    api = make_kitchen("busy-kitchen")
    code = api.started()
    for turn in range(4):
        key = uuid.uuid4()
        seen = api.get(f"/batches/{code}")[1]["seen"]
        act = lambda key=key, seen=seen: api.record(code, weigh("cure", lot="9 lb"), seen=seen, key=key)  # noqa: E731
        answers = together(act, act)
        assert sorted(status for status, _ in answers) == [200, 201], turn
        assert len({body["entry"] for _, body in answers}) == 1
        start = uuid.uuid4()
        begin = lambda start=start: api.start(key=start)[0]  # noqa: E731
        assert sorted(together(begin, begin)) == [200, 201]
    assert Entry.objects.count() == 9
    assert Batch.objects.count() == 5


@pytest.mark.django_db(transaction=True)
def test_two_batches_started_at_once_get_two_codes():
    api = make_kitchen("busy-kitchen")
    for _ in range(4):
        assert together(api.start, api.start)[0][0] == 201
    assert len(set(Batch.objects.values_list("code", flat=True))) == 8


@pytest.mark.django_db(transaction=True)
def test_two_documents_imported_at_once_get_codes_of_their_own():
    api = make_kitchen("busy-kitchen")
    bring = lambda: api.call("POST", "/imports", {"document": EXAMPLE})[0]  # noqa: E731
    for _ in range(3):
        assert together(bring, bring) == [201, 201]
    codes = list(Batch.objects.values_list("code", flat=True))
    assert len(set(codes)) == len(codes) == 6


@pytest.mark.django_db(transaction=True)
def test_a_record_store_that_is_away_is_said_and_comes_back():
    api = make_kitchen("lonely-kitchen")
    code = api.started()
    port = connection.settings_dict["PORT"]
    try:
        connection.close()
        connection.settings_dict["PORT"] = "1"
        for status, problem in (api.get(f"/batches/{code}"), api.record(code, TRIM, seen=1)):
            assert (status, problem["code"]) == (503, "database_away")
            assert "What you typed is kept" in problem["detail"]
        answer = api.client.get("/api/session")
        assert (answer.status_code, answer["Content-Type"]) == (503, "application/problem+json")
    finally:
        connection.settings_dict["PORT"] = port
    assert api.record(code, TRIM, seen=1)[0] == 201


@pytest.mark.django_db
def test_models_and_migrations_agree():
    call_command("makemigrations", "--check", "--dry-run", verbosity=0)


def test_the_api_document_is_the_one_in_the_repo(tmp_path):
    fresh = tmp_path / "openapi.json"
    call_command("export_openapi_schema", api="dolmetsch.server.config.api.api", indent=2, output=str(fresh))
    kept = Path(__file__).parents[2] / "docs" / "openapi.json"
    assert fresh.read_text().strip() == kept.read_text().strip(), "run ./dolmetsch api to write it again"
