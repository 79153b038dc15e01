"""Trials, tastings and sheets are added, never changed."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = ("tastings_trial", "tastings_trialside", "tastings_tasting", "tastings_tastingsheet")


class Migration(migrations.Migration):
    """Triggers on all tables."""

    dependencies = [("tastings", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
