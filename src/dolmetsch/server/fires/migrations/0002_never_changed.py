"""What was recorded of a fire is never changed and never deleted; readings are no records of anyone's."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("fires_fire", "fires_firepiece", "fires_fireevent", "fires_program")


class Migration(migrations.Migration):
    """Triggers on the four tables of records."""

    dependencies = [("fires", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
