"""Records are taken back by later ones, never deleted."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_deleted


class Migration(migrations.Migration):
    dependencies = [("pieces", "0001_initial")]
    operations = [never_deleted(table) for table in ("pieces_piecefact", "pieces_lookover", "pieces_store",)]
