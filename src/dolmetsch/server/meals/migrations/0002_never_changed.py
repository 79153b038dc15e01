"""What was planned and ticked off is never changed and never deleted."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("meals_meal", "meals_mealjob", "meals_mealjobnews")


class Migration(migrations.Migration):
    """Triggers on all tables."""

    dependencies = [("meals", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
