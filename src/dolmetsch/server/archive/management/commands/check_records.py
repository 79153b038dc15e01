"""``check_records``: all records looked over, and what is wrong."""

from typing import Any, Final

from django.core.management.base import BaseCommand, CommandError

from dolmetsch.server.archive.checking import check_records
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.diary.models import Photo
from dolmetsch.server.kitchens.models import Kitchen

_COUNTED: Final = ((Kitchen, "kitchens"), (Batch, "batches"), (Photo, "photos"))


class Command(BaseCommand):
    """Looks over all records."""

    help = "Recompute every sheet, every kept sum and every photo, and say what differs."

    def handle(self, *args: Any, **options: Any) -> None:
        """Say what is wrong; fails where anything is."""
        wrong = 0
        for said in check_records():
            wrong += 1
            self.stdout.write(said)
        counts = [f"{kind.objects.count()} {word}" for kind, word in _COUNTED]
        looked = ", ".join(counts)
        if wrong:
            raise CommandError(f"{looked} looked over: {wrong} things are wrong.")
        self.stdout.write(f"{looked} looked over: all is well.")
