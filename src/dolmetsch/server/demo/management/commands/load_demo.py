"""``load_demo``: fill an empty record store with the demo; leave one in use alone."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from dolmetsch.server.batches.forecast.derived import renew_stale
from dolmetsch.server.demo.loading import load_demo
from dolmetsch.server.kitchens.models import Kitchen


class Command(BaseCommand):
    """Load the demo where there is no kitchen yet."""

    help = "Load the Salt Lantern Canteen if there is no kitchen yet."

    def add_arguments(self, parser: CommandParser) -> None:
        """Bring the tables up to date first; and then leave the demo out."""
        parser.add_argument("--migrate", action="store_true", help="bring the tables up to date first")
        parser.add_argument("--no-demo", action="store_true", help="load no demo")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Load, or say that there was nothing to do."""
        if options["migrate"]:
            call_command("migrate", interactive=False)
            if renewed := renew_stale():
                self.stdout.write(f"What {renewed} batches came to has been worked out anew.")
        if options["no_demo"]:
            return
        if Kitchen.objects.exists():
            self.stdout.write("The record store is in use; demo left out.")
            return
        self.stdout.write(f"Demo loaded: {load_demo(timezone.now()).name}.")
