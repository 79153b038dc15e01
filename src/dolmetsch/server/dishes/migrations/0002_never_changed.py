"""Dishes, plates and notes of the cupboard are added, never changed."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = (
    *("dishes_dish", "dishes_plating", "dishes_platingcanceled"),
    *("dishes_dishaims", "dishes_stocknote"),
)


class Migration(migrations.Migration):
    """Triggers on all tables."""

    dependencies = [("dishes", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
