"""A quote names the one it replaces; the column stays what it was."""

import django.db.models.deletion
from django.db import migrations, models

_REPLACES = models.ForeignKey(
    blank=True,
    db_column="corrects_id",
    null=True,
    on_delete=django.db.models.deletion.PROTECT,
    related_name="corrections",
    to="prices.quote",
)
_REASON = models.CheckConstraint(
    condition=models.Q(replaces__isnull=True, reason="", is_withdrawal=False)
    | (models.Q(replaces__isnull=False) & ~models.Q(reason="")),
    name="quote_reason",
)


class Migration(migrations.Migration):
    dependencies = [("prices", "0001_tables")]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.RemoveConstraint(model_name="quote", name="quote_reason"),
                migrations.RenameField(model_name="quote", old_name="corrects", new_name="replaces"),
                migrations.AlterField(model_name="quote", name="replaces", field=_REPLACES),
                migrations.AddConstraint(model_name="quote", constraint=_REASON),
            ]
        )
    ]
