"""``collect``: hear the cookers and keep what they read, until asked to stop; one at a time of several."""

import signal
import socket
import threading
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.db import close_old_connections

from dolmetsch.server.configured import read_configured
from dolmetsch.server.fires.readings.collecting import Collector
from dolmetsch.server.fires.readings.leasing import Lease


class Command(BaseCommand):
    """Runs the collector."""

    help = "Hear the cookers and chambers, and keep what they read."

    def add_arguments(self, parser: CommandParser) -> None:
        """Which devices: a group is heard by one collector, others with its name stand by."""
        parser.add_argument("--group", default="all", help="the group of devices it hears (%(default)s)")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run until SIGTERM or Ctrl-C."""
        closing = threading.Event()
        for asked in (signal.SIGTERM, signal.SIGINT):
            signal.signal(asked, lambda *_: closing.set())
        lease = Lease(options["group"], settings.NODE or socket.gethostname())
        while not closing.is_set():
            if not _has(lease):
                closing.wait(1)
                continue
            collector = Collector(read_configured(settings.COOKERS), read_configured(settings.CHAMBERS))
            collector.run(is_done=lambda: closing.is_set() or not _has(lease))
            collector.closing.set()
        lease.give_up()


def _has(lease: Lease) -> bool:
    # one that broke is not asked by again
    close_old_connections()
    return lease.renew()
