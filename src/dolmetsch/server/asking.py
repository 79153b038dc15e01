"""Whether anybody still waits for an answer."""

import socket
from collections.abc import Callable
from contextlib import suppress

from django.http import HttpRequest

from dolmetsch.server.problems import DomainError


def giving_up(request: HttpRequest) -> Callable[[], None]:
    """A check for long work: it raises once whoever asked has closed the connection."""
    line = request.META.get("gunicorn.socket")

    def check() -> None:
        if isinstance(line, socket.socket) and _is_closed(line):
            raise DomainError("gone", 400, "Given up", "Whoever asked is gone; nothing was written.")

    return check


def _is_closed(line: socket.socket) -> bool:
    """Whether the other end has closed: then it can be read, and nothing comes."""
    with suppress(BlockingIOError, OSError):
        return line.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT) == b""
    return False
