"""``collect``: hear the cookers and keep what they read, until asked to stop."""

import signal
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand

from dolmetsch.server.configured import read_configured
from dolmetsch.server.fires.collecting import Collector


class Command(BaseCommand):
    """Runs the collector."""

    help = "Hear the cookers and chambers, and keep what they read."

    def handle(self, *args: Any, **options: Any) -> None:
        """Run until SIGTERM or Ctrl-C."""
        collector = Collector(read_configured(settings.COOKERS), read_configured(settings.CHAMBERS))
        for asked in (signal.SIGTERM, signal.SIGINT):
            signal.signal(asked, lambda *_: collector.closing.set())
        collector.run()
