"""What the tables themselves must refuse: an entry of another kitchen than its batch's, and any change
of a recorded entry or its lines."""

from django.db import migrations

RECORDS = (
    "batches_entry",
    "batches_lotline",
    "batches_weighing",
    "batches_usedline",
    "batches_portionline",
    "batches_shoppackline",
)


def _never_changed(table: str) -> migrations.RunSQL:
    return migrations.RunSQL(
        f"CREATE TRIGGER {table}_never_changed BEFORE UPDATE ON {table} FOR EACH ROW "
        f"SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'an entry is corrected by a later one, never changed'",
        f"DROP TRIGGER {table}_never_changed",
    )


class Migration(migrations.Migration):
    dependencies = [("batches", "0001_initial")]
    operations = [
        migrations.RunSQL(
            "ALTER TABLE batches_entry ADD CONSTRAINT entry_of_its_kitchen "
            "FOREIGN KEY (batch_id, kitchen_id) REFERENCES batches_batch (id, kitchen_id)",
            "ALTER TABLE batches_entry DROP FOREIGN KEY entry_of_its_kitchen",
        ),
        *(_never_changed(table) for table in RECORDS),
    ]
