"""Call what was typed of a recipe its input."""

from typing import ClassVar

from django.db import migrations


class Migration(migrations.Migration):
    dependencies: ClassVar = [("cures", "0002_never_deleted")]
    operations: ClassVar = [
        migrations.RenameField(model_name="curerecipe", old_name="told", new_name="input"),
        migrations.RenameField(model_name="piececure", old_name="told", new_name="input"),
    ]
