"""Records are taken back by later ones, never deleted."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_deleted


class Migration(migrations.Migration):
    dependencies = [("diary", "0001_initial")]
    operations = [never_deleted(table) for table in ("diary_note", "diary_photo",)]
