"""Rename two keys in the answers kept of cures: the words beside a weighed line, and those about the water.

What was recorded stays as it was, so the guard against changes is put aside for as long as this takes. A
migration that was broken off can be run again.
"""

from typing import Any, ClassVar

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

from dolmetsch.server.quantities.columns import never_changed

TABLE = "cures_piececure"
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
    _rename_all(apps, LINE[::-1], BRINE[::-1])


class Migration(migrations.Migration):
    atomic = False
    dependencies: ClassVar = [("cures", "0003_input")]
    operations: ClassVar = [
        migrations.RunSQL(f"DROP TRIGGER IF EXISTS {TABLE}_never_changed", migrations.RunSQL.noop),
        migrations.RunPython(rename, restore),
        never_changed(TABLE),
    ]
