"""What was recorded of a hanging piece is never changed and never deleted."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("hooks_hook", "hooks_hooknote")


class Migration(migrations.Migration):
    """Triggers on both tables."""

    dependencies = [("hooks", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
