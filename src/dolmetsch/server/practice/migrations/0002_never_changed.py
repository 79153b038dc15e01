"""What was done in a practice run is never changed and never deleted: its end follows from it."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("practice_practicerun", "practice_practiceact")


class Migration(migrations.Migration):
    """Triggers on both tables."""

    dependencies = [("practice", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
