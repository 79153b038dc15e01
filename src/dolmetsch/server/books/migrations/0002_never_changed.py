"""Machines are added and taken back by a later row, never changed."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("books_tool", "books_toolcanceled")


class Migration(migrations.Migration):
    """Triggers on all tables."""

    dependencies = [("books", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
