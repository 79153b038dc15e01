"""A cooker as it is heard now, for screens: each reading as it comes, before the collector keeps it."""

import json
import time
from fractions import Fraction
from typing import Final

from dolmetsch.devices.cooker.lines import CookerReading
from dolmetsch.devices.cooker.source import COOKER_SOURCES, CookerSource
from dolmetsch.server.fires.queries import find_cooker
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.temperatures import print_degrees
from dolmetsch.server.scales.hub import hub
from dolmetsch.server.scales.listening import HeardDevice

#: A cooker that says nothing readable for so long is silent.
SILENT_SECONDS: Final = 5.0


class HeardCooker(HeardDevice):
    """One cooker as heard by this process."""

    def __init__(self, name: str, kind: str, address: str) -> None:
        self.kind = kind
        self._heard = float("-inf")
        super().__init__(name, address)

    def _open(self) -> CookerSource:
        return COOKER_SOURCES[self.kind](self.address)

    def _take(self, heard: object) -> None:
        now = time.monotonic()
        if isinstance(heard, CookerReading):
            self._heard = now
            read = {
                unit: {name: print_degrees(Fraction(text), unit) for name, text in heard.values.items()}
                for unit in ("F", "C")
            }
            self._publish(_event({"state": "live", "at": heard.at.isoformat(), "read": read}))
        elif now - self._heard > SILENT_SECONDS:
            self._publish(_event({"state": "silent"}))

    def _say_away(self) -> bytes:
        return _event({"state": "away"})


def _event(content: dict[str, object]) -> bytes:
    return f"data: {json.dumps(content)}\n\n".encode()


def hear_cooker(kitchen: Kitchen, name: str) -> HeardCooker:
    """The cooker ``name`` of ``kitchen``: no other kitchen hears it.

    Raises:
        DomainError: not_found.
    """
    return hub.hold("cooker", find_cooker(kitchen, name), HeardCooker)
