"""Call what was typed of a method its input."""

from typing import ClassVar

from django.db import migrations


class Migration(migrations.Migration):
    dependencies: ClassVar = [("ways", "0002_never_deleted")]
    operations: ClassVar = [migrations.RenameField(model_name="way", old_name="told", new_name="input")]
