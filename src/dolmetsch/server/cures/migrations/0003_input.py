"""What was typed is the input, the words beside a weighed line its text, in kept answers too."""

from typing import Any, ClassVar

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

LINE, BRINE = ("told", "text"), ("water_told", "water_note")


def _rename(part: dict[str, Any] | None, old: str, new: str) -> None:
    if part is not None and old in part:
        part[new] = part.pop(old)


def _rename_all(apps: Apps, line: tuple[str, str], brine: tuple[str, str]) -> None:
    for cure in apps.get_model("cures", "PieceCure").objects.order_by("pk").iterator():
        for part in cure.answer["lines"]:
            _rename(part, *line)
        _rename(cure.answer.get("brine"), *brine)
        cure.save(update_fields=["answer"])


def rename(apps: Apps, _editor: BaseDatabaseSchemaEditor) -> None:
    """Rename the two keys in every answer kept."""
    _rename_all(apps, LINE, BRINE)


def restore(apps: Apps, _editor: BaseDatabaseSchemaEditor) -> None:
    """The names they had before."""
    _rename_all(apps, (LINE[1], LINE[0]), (BRINE[1], BRINE[0]))


class Migration(migrations.Migration):
    dependencies: ClassVar = [("cures", "0002_never_deleted")]
    operations: ClassVar = [
        migrations.RenameField(model_name="curerecipe", old_name="told", new_name="input"),
        migrations.RenameField(model_name="piececure", old_name="told", new_name="input"),
        migrations.RunPython(rename, restore),
    ]
