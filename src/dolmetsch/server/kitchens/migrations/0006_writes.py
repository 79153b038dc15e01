"""A kitchen counts what is written in it."""

from django.db import migrations, models


class Migration(migrations.Migration):
    """One more column, 0 for the kitchens there are."""

    dependencies = [("kitchens", "0005_derived_edition")]
    operations = [
        migrations.AddField("kitchen", "writes", models.PositiveBigIntegerField(default=0, editable=False)),
    ]
