"""What a simulated cooker is asked to do from its panel. Nothing is recorded: it is the cooker's affair."""

import time
from collections.abc import Iterator
from typing import Final

from dolmetsch.devices.cooker.lines import CookerHello
from dolmetsch.server.fires.queries import open_cooker
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError

#: What would make the collector's own words lies, and what reads files of the machine.
RESERVED: Final = ("SINCE", "GOT", "PLAY")
_PATIENCE_SECONDS: Final = 2.0


def command_cooker(kitchen: Kitchen, name: str, command: str) -> None:
    """Send a simulated cooker a command of its own words.

    Raises:
        DomainError: not_found, cooker_away, not_simulated, bad_command.
    """
    words = command.split()
    if not words or words[0].upper() in RESERVED or not command.isprintable():
        raise DomainError("bad_command", 422, "Not sent", "That is no command of a cooker.")
    source = open_cooker(kitchen, name)
    try:
        _refuse_real(source.listen(), name)
        source.send(command)
    except OSError:
        said = f"The cooker “{name}” is gone."
        raise DomainError("cooker_away", 503, "Cooker away", said) from None
    finally:
        source.close()


def _refuse_real(heard: Iterator[object], name: str) -> None:
    """A real cooker is not commanded: its fire is tended by hand."""
    begun = time.monotonic()
    for one in heard:
        if isinstance(one, CookerHello):
            if one.is_simulated:
                return
            break
        if time.monotonic() - begun > _PATIENCE_SECONDS:
            break
    said = f"“{name}” is no simulated cooker."
    raise DomainError("not_simulated", 409, "Not sent", said)
