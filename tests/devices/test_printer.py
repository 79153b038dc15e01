"""The simulated label printer, over a real socket."""

import socket
from io import BytesIO

import pytest
from PIL import Image

from dolmetsch.devices.printer import LabelError, print_label

LABEL = [
    "LABEL 62 40",
    "TEXT 3 3 28 bold A",
    "LINE 3 20 59 20",
    "QR 42 3 17 http://127.0.0.1/bench/B-02/piece/A",
]


def test_a_label_has_its_size_and_ink_on_it():
    picture = Image.open(BytesIO(print_label(LABEL)))
    assert (picture.size, picture.format) == ((62 * 8, 40 * 8), "PNG")
    assert picture.convert("L").getextrema() == (0, 255)


@pytest.mark.parametrize(
    "lines",
    [
        [],
        ["LABEL 62"],
        ["LABEL 2 2"],
        ["LABEL 62 nan"],
        ["LABEL 62 40", "DANCE"],
        ["LABEL 62 40", "TEXT 3"],
        ["LABEL 62 40", "TEXT -4 3 28 bold A"],
    ],
)
def test_what_is_no_label_is_refused(lines):
    with pytest.raises(LabelError):
        print_label(lines)


def test_over_a_socket_what_comes_out_lies_in_the_tray(printer):
    port, tray = printer
    with socket.create_connection(("127.0.0.1", port), timeout=5) as line, line.makefile("rb") as heard:
        assert heard.readline() == b"PRINTER 1 labels\n"
        line.sendall(b"LABEL 62 40\nDANCE\nEND\n")
        assert heard.readline().startswith(b"NO what is")
        line.sendall("".join(f"{answer}\n" for answer in [*LABEL, "END"]).encode())
        word, name, size = heard.readline().decode().split()
        png = heard.read(int(size))
    assert (word, png) == ("PRINTED", (tray / name).read_bytes())
    assert png == print_label(LABEL)
