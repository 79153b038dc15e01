"""``check_records``: all records looked over, and what is wrong."""

from typing import Any, Final

from django.core.management.base import BaseCommand, CommandError

from dolmetsch.server.archive.checking import check_records
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.diary.models import Photo
from dolmetsch.server.kitchens.models import Kitchen

_COUNTED: Final = ((Kitchen, "kitchen", "kitchens"), (Batch, "batch", "batches"), (Photo, "photo", "photos"))


def _count(number: int, one: str, many: str) -> str:
    return f"{number} {one if number == 1 else many}"


class Command(BaseCommand):
    """Looks over all records."""

    help = "Recompute every sheet, every kept sum and every photo, and say what differs."

    def handle(self, *args: Any, **options: Any) -> None:
        """Say what is wrong; fails where anything is."""
        wrong = 0
        for said in check_records():
            wrong += 1
            self.stdout.write(said)
        looked = ", ".join(_count(kind.objects.count(), one, many) for kind, one, many in _COUNTED)
        if wrong:
            raise CommandError(f"{looked} looked over: {_count(wrong, 'thing is', 'things are')} wrong.")
        self.stdout.write(f"{looked} looked over: all is well.")
