"""The country whose rules days, times and money are written by."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("kitchens", "0001_tables")]

    operations = [
        migrations.AddField(
            model_name="kitchen",
            name="country",
            field=models.CharField(blank=True, db_default="", default="", max_length=2),
        ),
    ]
