"""``copy_kitchen``: many copies of a kitchen, for measuring a record store that is full."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from dolmetsch.server.archive.copying import copy_many
from dolmetsch.server.kitchens.models import Kitchen, User


class Command(BaseCommand):
    """Copies a kitchen inside the record store."""

    help = "Copy a kitchen many times, for measuring; copies are called many-1 and so on."

    def add_arguments(self, parser: CommandParser) -> None:
        """Which kitchen, how often, and who may open the copies."""
        parser.add_argument("count", type=int)
        parser.add_argument("--like", default="salt-lantern", metavar="KITCHEN")
        parser.add_argument("--seed", type=int, default=1)
        parser.add_argument("--owner", default="", metavar="NAME", help="who may sign in to all of them")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Copy, and say how many rows that were."""
        pattern = Kitchen.objects.filter(slug=options["like"]).first()
        if pattern is None:
            raise CommandError(f"There is no kitchen “{options['like']}” here.")
        owner = User.objects.filter(username=options["owner"]).first()
        if options["owner"] and owner is None:
            raise CommandError(f"Nobody signs in as “{options['owner']}” here.")
        now = timezone.now()
        made = copy_many(pattern, options["count"], seed=options["seed"], owner=owner, now=now)
        seconds = (timezone.now() - now).total_seconds()
        self.stdout.write(f"{options['count']} copies of {pattern.name}, {made} rows, {seconds:.0f} s.")
