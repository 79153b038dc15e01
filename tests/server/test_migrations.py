"""Migrations beside a program of the edition before: it goes on, and no table is held up."""

from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from django.db import DatabaseError, connection, models
from django.db.migrations import operations
from django.db.migrations.loader import MigrationLoader

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import PriceItem

RENAMED = (operations.RenameField, operations.RenameModel, operations.AlterModelTable)


def hindering(done: list[operations.base.Operation]) -> Iterator[str]:
    """What of a migration an older program cannot go on with."""
    made = {one.name.lower() for one in done if isinstance(one, operations.CreateModel)}
    for one in done:
        if isinstance(one, RENAMED):
            yield f"{one.describe()}: an older program asks for the name of before"
        elif isinstance(one, operations.RemoveField):
            yield f"{one.describe()}: an older program asks for it; leave the column, with a default"
        elif isinstance(one, operations.AddField) and one.model_name.lower() not in made:
            field = one.field
            if not (field.null or field.many_to_many or field.has_db_default()):
                yield f"{one.describe()}: an older program does not write it; give it null or db_default"


def test_a_migration_leaves_older_programs_running():
    known = MigrationLoader(None).disk_migrations
    ours = {app for (app, _), one in known.items() if type(one).__module__.startswith("dolmetsch.")}
    assert len(ours) == 20
    for (app, name), migration in known.items():
        # the first makes tables that no older program knows
        if app in ours and not migration.initial:
            assert list(hindering(migration.operations)) == [], f"{app} {name}"


def test_what_would_hinder_is_known():
    word = models.CharField(max_length=8, default="")
    new = operations.CreateModel(name="Fresh", fields=[])
    assert list(hindering([operations.RenameField("batch", "code", "mark")]))
    assert list(hindering([operations.RemoveField("batch", "code")]))
    assert list(hindering([new, operations.AddField("batch", "word", word)]))
    assert list(hindering([new, operations.AddField("fresh", "word", word)])) == []
    for kind in (models.CharField(max_length=8, db_default=""), models.DateField(null=True)):
        assert list(hindering([operations.AddField("batch", "word", kind)])) == []


@contextmanager
def added(field):
    """A column more, at once or not at all: MariaDB refuses what would touch the rows."""
    field.set_attributes_from_name("extra")
    field.model = PriceItem
    with connection.cursor() as cursor:
        cursor.execute("SET SESSION alter_algorithm = 'INSTANT'")
    with connection.schema_editor(atomic=False) as editor:
        editor.add_field(PriceItem, field)
    try:
        yield
    finally:
        with connection.schema_editor(atomic=False) as editor:
            editor.remove_field(PriceItem, field)
        with connection.cursor() as cursor:
            cursor.execute("SET SESSION alter_algorithm = 'DEFAULT'")


@pytest.mark.django_db(transaction=True)
def test_a_column_with_a_default_of_the_tables_own_is_there_at_once_and_older_programs_write_on():
    kitchen = Kitchen.objects.create(slug="upgraded", name="Upgraded")

    def write(name):
        """As an older program does: without the column."""
        PriceItem.objects.create(kitchen=kitchen, sort="fuel", name=name)

    with added(models.CharField(max_length=8, db_default="", blank=True)):
        write("oak")
    with added(models.CharField(max_length=8, default="", blank=True)), pytest.raises(DatabaseError):
        write("beech")
    write("alder")
    assert PriceItem.objects.count() == 2
