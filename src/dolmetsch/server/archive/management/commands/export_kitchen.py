"""``export_kitchen``: a whole kitchen written as one ZIP."""

import shutil
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from dolmetsch.server.archive.writing import write_archive
from dolmetsch.server.kitchens.models import Kitchen


class Command(BaseCommand):
    """Writes a kitchen as a ZIP."""

    help = "Write everything of a kitchen as one ZIP."

    def add_arguments(self, parser: CommandParser) -> None:
        """Which kitchen, and into which file."""
        parser.add_argument("kitchen", help="the kitchen's name in addresses")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Write it; the file is there only once it is whole."""
        kitchen = Kitchen.objects.filter(slug=options["kitchen"]).first()
        if kitchen is None:
            raise CommandError(f"There is no kitchen “{options['kitchen']}”.")
        fresh = options["file"].with_suffix(".new")
        with write_archive(kitchen, timezone.now()) as held, fresh.open("wb") as out:
            shutil.copyfileobj(held, out)
        fresh.replace(options["file"])
        self.stdout.write(f"{options['file']}: {options['file'].stat().st_size} bytes")
