"""``load_demo``: fill an empty record store with the demo; leave one in use alone."""

from typing import Any

from django.core.management.base import BaseCommand
from django.utils import timezone

from dolmetsch.server.demo.loading import load_demo
from dolmetsch.server.kitchens.models import Kitchen


class Command(BaseCommand):
    """Load the demo where there is no kitchen yet."""

    help = "Load the Salt Lantern Canteen if there is no kitchen yet."

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Load, or say that there was nothing to do."""
        if Kitchen.objects.exists():
            self.stdout.write("The record store is in use; demo left out.")
            return
        self.stdout.write(f"Demo loaded: {load_demo(timezone.now()).name}.")
