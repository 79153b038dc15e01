"""The address by which phones and tablets open the application."""

import re
from dataclasses import dataclass
from urllib.parse import urlsplit

from dolmetsch.command.telling import TroubleError

_HOST = re.compile(r"[a-z0-9]([a-z0-9.-]*[a-z0-9])?")


@dataclass(frozen=True, slots=True)
class Address:
    """Where other devices find the application: ``url`` without a path, its ``host``.

    Over HTTPS a proxy of the kitchen's own stands before it, and it listens on loopback alone; over plain
    HTTP it listens to the network itself.
    """

    url: str
    host: str

    @property
    def is_proxied(self) -> bool:
        """A proxy speaks HTTPS for it."""
        return self.url.startswith("https://")


def read_address(typed: str, *, port: int) -> Address:
    """The address typed, for an application that listens on ``port``; a plain one takes that port.

    Raises:
        TroubleError: where it is none.
    """
    wrong = f"“{typed}” is not an address it can be opened by; write http://192.168.1.20 or https://kitchen.example."
    try:
        parts = urlsplit(typed)
        host, named_port = (parts.hostname or "").lower(), parts.port
    except ValueError:
        raise TroubleError(wrong) from None
    if parts.scheme not in ("http", "https") or not _HOST.fullmatch(host) or parts.path not in ("", "/"):
        raise TroubleError(wrong)
    if parts.query or parts.fragment or parts.username is not None:
        raise TroubleError(wrong)
    if parts.scheme == "https":
        return Address(url=f"https://{host}" + (f":{named_port}" if named_port else ""), host=host)
    if named_port not in (None, port):
        raise TroubleError(
            f"The application listens on port {port}, not {named_port}: say --port {named_port}."
        )
    return Address(url=f"http://{host}:{port}", host=host)
