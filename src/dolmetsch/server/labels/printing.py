"""Labels one by one, from a label printer that speaks ``label-lines/1``."""

import base64
import socket
from typing import BinaryIO, Final

from django.conf import settings

from dolmetsch.server.labels.facts import LabelFacts
from dolmetsch.server.problems import DomainError

#: A label's size in millimetres.
WIDTH, HEIGHT = 62, 40
PATIENCE: Final = 5
#: A picture larger than this is none of a label.
MOST_BYTES: Final = 2_000_000


def lay_out_label(label: LabelFacts) -> list[str]:
    """The lines of a label."""
    below = [f"TEXT 3 {16 + 5 * index} 10 plain {line}" for index, line in enumerate(label.lines[:4])]
    return [
        f"LABEL {WIDTH} {HEIGHT}",
        f"TEXT 3 1 26 bold {label.mark}",
        f"TEXT {min(36, 6 + 7 * len(label.mark))} 4 14 bold {label.code}",
        f"TEXT 3 11 9 plain {label.name[:34]}",
        *below,
        f"QR 41 17 20 {label.address}",
        "END",
    ]


def print_labels(labels: list[LabelFacts]) -> list[str]:
    """Print ``labels``; what came out, each as a data address of a PNG.

    Raises:
        DomainError: printer_away, printer_refused.
    """
    if not settings.PRINTER:
        raise _away("No label printer is set up.")
    host, _, port = settings.PRINTER.rpartition(":")
    try:
        with socket.create_connection((host, int(port)), timeout=PATIENCE) as line:
            heard = line.makefile("rb")
            if not heard.readline(200).startswith(b"PRINTER 1 "):
                raise _away("The device at that address is not a label printer.")
            return [_print(line, heard, label) for label in labels]
    except OSError:
        raise _away("The label printer does not answer.") from None


def _print(line: socket.socket, heard: BinaryIO, label: LabelFacts) -> str:
    line.sendall("".join(f"{row}\n" for row in lay_out_label(label)).encode())
    answer = heard.readline(300).decode("utf-8", "replace").split()
    match answer:
        case ["PRINTED", _, size] if size.isdigit() and int(size) <= MOST_BYTES:
            png = heard.read(int(size))
            return f"data:image/png;base64,{base64.b64encode(png).decode()}"
        case ["NO", *why]:
            said = f"The printer refused {label.mark}: {' '.join(why)}."
            raise DomainError("printer_refused", 502, "Not printed", said)
    raise _away("What the label printer answers cannot be read.")


def _away(said: str) -> DomainError:
    return DomainError("printer_away", 503, "Printer away", f"{said} The sheet of labels is there as PDF.")
