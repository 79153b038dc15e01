"""The record store filled up to 100 000 batches in 500 kitchens, and the plans of its busiest queries."""

import re
from typing import Any, Final

from django.db import connection, models
from django.test.utils import CaptureQueriesContext

COPIES: Final = 50
#: Batches of a kitchen of the copies.
EACH: Final = 200
FIRST_KITCHEN: Final = 10_000
#: Key of the first batch that is copied, as `fill` of run.py gave it.
FIRST_BATCH: Final = 1_000
#: Keys of the copies lie beyond what the run itself records.
BEYOND: Final = 1_000_000
#: So many of the queries that look at most rows are shown.
SHOWN: Final = 10


def fill_up(kinds: list[type[models.Model]], *, batches: int, entries: int) -> None:
    """Copy the filled kitchen's ``batches`` COPIES times, table by table, inside the database.

    ``kinds`` in an order in which each refers to earlier ones only; the first two are Batch and Entry.
    ``entries`` is more than the keys of all entries that are copied span.
    """
    from dolmetsch.server.kitchens.models import Kitchen

    pattern = Kitchen.objects.get(slug="salt-lantern")
    per_copy = batches // EACH
    for number in range(COPIES * per_copy):
        pattern.pk, pattern.slug = FIRST_KITCHEN + number, f"kitchen-{number}"
        pattern.save(force_insert=True)
    for copy in range(COPIES):
        shifts = {
            "batch": BEYOND + copy * batches,
            "entry": BEYOND + copy * entries,
            "kitchen": FIRST_KITCHEN + copy * per_copy,
        }
        with connection.cursor() as cursor:
            for kind in kinds:
                cursor.execute(_copying(kind, shifts, batches=batches))
    with connection.cursor() as cursor:
        cursor.execute(f"ANALYZE TABLE {', '.join(kind._meta.db_table for kind in kinds)}")


def _copying(kind: type[models.Model], shifts: dict[str, int], *, batches: int) -> str:
    table = kind._meta.db_table
    name = kind._meta.model_name
    all_columns = {field.column for field in kind._meta.concrete_fields}
    of_batch = "id" if name == "batch" else "batch_id"
    columns: dict[str, str] = {}
    for field in kind._meta.concrete_fields:
        own = name if field.primary_key else ""
        target = field.related_model._meta.model_name if field.is_relation else own
        column = field.column
        if target == "kitchen":
            columns[column] = f"{shifts['kitchen']} + ({of_batch} - {FIRST_BATCH}) DIV {EACH}"
        elif target in shifts:
            columns[column] = f"`{column}` + {shifts[target]}"
        elif not field.primary_key:
            columns[column] = f"`{column}`"
    ours = f"BETWEEN {FIRST_BATCH} AND {FIRST_BATCH + batches - 1}"
    where = f"{of_batch} {ours}"
    if of_batch not in all_columns:
        where = f"entry_id IN (SELECT id FROM batches_entry WHERE batch_id {ours})"
    names = ", ".join(f"`{column}`" for column in columns)
    values = ", ".join(columns.values())
    return f"INSERT INTO {table} ({names}) SELECT {values} FROM {table} WHERE {where}"


def explain_busiest(client: Any, addresses: dict[str, str]) -> list[dict[str, Any]]:
    """The queries of ``addresses`` that look at most rows, each with its plan: table, index and rows."""
    found: dict[str, dict[str, Any]] = {}
    for name, address in addresses.items():
        with CaptureQueriesContext(connection) as captured:
            response = client.get(address)
        assert response.status_code == 200, (address, response.content[:200])
        for query in captured.captured_queries:
            sql = query["sql"]
            if not sql.startswith(("SELECT", "(SELECT")):
                continue
            shape = re.sub(r"'[^']*'|\b\d+\b", "?", sql)
            with connection.cursor() as cursor:
                cursor.execute(f"EXPLAIN {sql.replace('%', '%%')}")
                heads = [column[0] for column in cursor.description]
                plan = [dict(zip(heads, row, strict=True)) for row in cursor.fetchall()]
            rows = sum(int(step["rows"] or 0) for step in plan)
            if shape not in found or rows > found[shape]["rows"]:
                found[shape] = {"name": name, "plan": plan, "rows": rows, "shape": shape}
    return sorted(found.values(), key=lambda one: -one["rows"])[:SHOWN]


def show_plans(plans: list[dict[str, Any]]) -> str:
    """The plans as a table of Markdown."""
    lines = ["| asked by | table | index | rows looked at |", "|---|---|---|---|"]
    for one in plans:
        steps = one["plan"]
        tables = ", ".join(dict.fromkeys(str(step["table"]) for step in steps))
        keys = ", ".join(dict.fromkeys(str(step["key"] or "none") for step in steps))
        lines.append(f"| {one['name']} | {tables} | {keys} | {one['rows']} |")
    return "\n".join(lines)
