"""What was packed and what left is added, never changed."""

from django.db import migrations

from dolmetsch.server.quantities.columns import never_changed, never_deleted

TABLES = (
    *("larder_packing", "larder_pack", "larder_packcanceled", "larder_packmove"),
    *("larder_taken", "larder_takencanceled", "larder_shelfcount"),
)


class Migration(migrations.Migration):
    """Triggers on what is recorded; what is derived is renewed."""

    dependencies = [("larder", "0001_initial")]
    operations = [guard(table) for table in TABLES for guard in (never_changed, never_deleted)]
