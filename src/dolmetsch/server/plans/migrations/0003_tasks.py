"""Call what is planned a task: an act is what an entry records."""

from typing import ClassVar

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies: ClassVar = [("plans", "0002_hang")]
    operations: ClassVar = [
        migrations.RenameModel(old_name="PlannedAct", new_name="PlannedTask"),
        migrations.RenameModel(old_name="ActNews", new_name="TaskNews"),
        migrations.RenameField(model_name="tasknews", old_name="act", new_name="task"),
        migrations.AlterField(
            model_name="plannedtask",
            name="batch",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT,
                related_name="planned_tasks",
                to="batches.batch",
            ),
        ),
        # the new one first: an index over the kitchen has to be there for its foreign key
        migrations.AddConstraint(
            model_name="tasknews",
            constraint=models.UniqueConstraint(fields=("kitchen", "key"), name="tasknews_key_once"),
        ),
        migrations.RemoveConstraint(model_name="tasknews", name="actnews_key_once"),
    ]
