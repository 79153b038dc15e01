"""``recount``: count every finished batch anew from its entries, and compare with what the books keep."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from dolmetsch.server.books.recount import recount
from dolmetsch.server.kitchens.models import Kitchen


class Command(BaseCommand):
    """Compares kept sums with a full recount."""

    help = "Count all batches anew and say which kept other figures for the books."

    def add_arguments(self, parser: CommandParser) -> None:
        """``--mend``: renew those that differ."""
        parser.add_argument("--mend", action="store_true", help="renew what differs")

    def handle(self, *args: Any, **options: Any) -> None:
        """Recount each kitchen; fails where something differed and was not mended."""
        differed = False
        for kitchen in Kitchen.objects.order_by("slug"):
            found = recount(kitchen, is_mending=options["mend"])
            said = ", ".join(found.wrong) or "all as kept"
            mended = " (renewed)" if found.wrong and options["mend"] else ""
            self.stdout.write(f"{kitchen.slug}: {found.batches} batches counted anew, {said}{mended}")
            differed = differed or bool(found.wrong)
        if differed and not options["mend"]:
            raise CommandError("The books keep other figures than their entries come to; run it with --mend.")
