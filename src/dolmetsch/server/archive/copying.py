"""Many kitchens for measuring: one kitchen's records copied inside the record store, table by table.

Copies are known from real records: their kitchens are called `many-1` and so on, and all their rows are
numbered beyond ``BEYOND``. Nobody is in them but who is asked for.
"""

import random
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any, Final

from django.db import connection, models, transaction

from dolmetsch.server.archive.tables import DERIVED, MADE_ANEW, AnyModel, list_tables, rows_of
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User

#: Ids of copies begin here, out of the way of any that are numbered one by one.
BEYOND: Final = 1_000_000_000
STEM: Final = "many"
#: Copies lie up to so many days earlier than what they are copied from.
MOST_DAYS: Final = 1000


def copy_many(pattern: Kitchen, count: int, *, seed: int, owner: User | None, now: datetime) -> int:
    """Copy ``pattern`` ``count`` times, each some days earlier by ``seed``; how many rows were made.

    One transaction a copy, so that it may be stopped and goes on with the next one. ``owner`` may sign in to
    all of them.
    """
    dice = random.Random(seed)  # noqa: S311 (days for measuring)
    tables = [*list_tables(), *sorted(DERIVED, key=lambda model: model.__name__)]
    spans = {model: _span(model, pattern) for model in tables}
    made = 0
    known = Kitchen.objects.filter(pk__gte=BEYOND).count()
    for number in range(1, known + count + 1):
        days = dice.randrange(MOST_DAYS)
        if number <= known:
            continue
        with _unchecked(), transaction.atomic():
            made += _copy(pattern, number, days=days, spans=spans)
            if owner is not None:
                Membership.objects.create(
                    user=owner, kitchen_id=BEYOND + number, role=Role.OWNER, joined_at=now
                )
    names = ", ".join(f"`{model._meta.db_table}`" for model in tables)
    with connection.cursor() as cursor:
        cursor.execute(f"ANALYZE TABLE {names}")
    return made


@contextmanager
def _unchecked() -> Iterator[None]:
    """Rows that are copied keep the rules that the rows they are copied from keep: not checked once more."""
    checks = ("foreign_key_checks", "check_constraint_checks")
    with connection.cursor() as cursor:
        cursor.execute(f"SET SESSION {', '.join(f'{name} = 0' for name in checks)}")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute(f"SET SESSION {', '.join(f'{name} = 1' for name in checks)}")


def _span(model: AnyModel, pattern: Kitchen) -> int:
    """More than the numbers of a table's rows of ``pattern`` reach."""
    found = rows_of(model, pattern).aggregate(most=models.Max("pk"))["most"]
    return int(found or 0) + 1


def _copy(pattern: Kitchen, number: int, *, days: int, spans: dict[AnyModel, int]) -> int:
    fresh = Kitchen.objects.get(pk=pattern.pk)
    fresh.pk, fresh.slug, fresh.name = BEYOND + number, f"{STEM}-{number}", f"{pattern.name} {number}"
    fresh.save(force_insert=True)
    made = 0
    for model in spans:
        columns = dict(_columns(model, number, days=days, spans=spans))
        rows, parameters = rows_of(model, pattern).order_by().values("pk").query.sql_with_params()
        table = f"`{model._meta.db_table}`"
        key = f"`{model._meta.pk.column if model._meta.pk else 'id'}`"
        names = ", ".join(f"`{column}`" for column in columns)
        with connection.cursor() as cursor:
            # what is named by the program's own tables, never by what anyone typed
            sql = f"INSERT INTO {table} ({names}) SELECT {', '.join(columns.values())} FROM {table} "  # noqa: S608
            # in their order: a row may refer to an earlier one of its table
            cursor.execute(sql + f"WHERE {key} IN ({rows}) ORDER BY {key}", parameters)
            made += cursor.rowcount
    return made


def _columns(
    model: AnyModel, number: int, *, days: int, spans: dict[AnyModel, int]
) -> Iterator[tuple[str, str]]:
    """Each column of a copied row with the SQL of its value."""
    anew = MADE_ANEW.get(model, ("", None))[0]
    for field in model._meta.concrete_fields:
        name = str(field.column)
        column = f"`{name}`"
        target: Any = field.related_model if field.is_relation else model if field.primary_key else None
        if target is Kitchen:
            yield name, str(BEYOND + number)
        elif target in spans:
            yield name, f"{column} + {BEYOND + number * spans[target]}"
        elif field.name == anew:
            is_uuid = isinstance(field, models.UUIDField)
            yield name, "UUID()" if is_uuid else f"MD5(CONCAT({column}, '{number}'))"
        elif isinstance(field, models.DateTimeField | models.DateField):
            yield name, f"DATE_SUB({column}, INTERVAL {days} DAY)"
        else:
            yield name, column
