"""A simulated label printer: ``python -m dolmetsch.devices.printer --port 7402 --tray FOLDER``.

Its protocol, ``label-lines/1``, is text lines of UTF-8, a label between LABEL and END; sizes in millimetres
from the top left corner, text sizes in points::

    PRINTER 1 labels                 once, from the printer
    LABEL 62 40                      width and height
    TEXT 3 3 28 bold A               x, y, size, plain or bold, then the text
    QR 42 3 17 http://…              x, y, side, then what it holds
    LINE 3 20 59 20                  from, to
    END

It answers ``PRINTED name bytes`` and so many bytes of PNG, the label as it came out; or ``NO why``.
"""

import argparse
import asyncio
import contextlib
import secrets
from dataclasses import dataclass, field
from io import BytesIO
from pathlib import Path
from typing import Final

import segno
from PIL import Image, ImageDraw, ImageFont

VERSION: Final = 1
#: 203 dots an inch, as label printers have.
DOTS_PER_MM: Final = 8
MAX_LINE: Final = 1000
MAX_LINES: Final = 60
MAX_MM: Final = 150


class LabelError(ValueError):
    """A label that cannot be printed, in words."""


@dataclass(slots=True)
class Label:
    """A label being laid out."""

    width: float
    height: float
    picture: Image.Image = field(init=False)

    def __post_init__(self) -> None:
        if not (10 <= self.width <= MAX_MM and 10 <= self.height <= MAX_MM):
            raise LabelError(f"a label is 10 to {MAX_MM} mm wide and high")
        size = (round(self.width * DOTS_PER_MM), round(self.height * DOTS_PER_MM))
        self.picture = Image.new("1", size, 1)

    def draw(self, words: list[str]) -> None:
        """Put one line of the protocol on the label.

        Raises:
            LabelError: the line is none of the protocol.
        """
        pen = ImageDraw.Draw(self.picture)
        match words:
            case ["TEXT", x, y, size, weight, *text]:
                height = _number(size) / 72 * 25.4 * DOTS_PER_MM
                font = ImageFont.load_default(size=max(6, height))
                place = (_dots(x), _dots(y))
                pen.text(place, " ".join(text), font=font, fill=0, stroke_width=1 if weight == "bold" else 0)
            case ["QR", x, y, side, held]:
                self._code(_dots(x), _dots(y), _dots(side), held)
            case ["LINE", x1, y1, x2, y2]:
                pen.line([_dots(x1), _dots(y1), _dots(x2), _dots(y2)], fill=0, width=2)
            case _:
                raise LabelError(f"what is “{' '.join(words)[:40]}”?")

    def _code(self, x: int, y: int, side: int, held: str) -> None:
        code = segno.make(held, error="m", micro=False)
        scale = max(1, side // code.symbol_size(border=0)[0])
        out = BytesIO()
        code.save(out, kind="png", scale=scale, border=0)
        self.picture.paste(Image.open(out).convert("1"), (x, y))

    def png(self) -> bytes:
        """The label as it comes out."""
        out = BytesIO()
        self.picture.save(out, "PNG")
        return out.getvalue()


def _number(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        raise LabelError(f"“{text[:20]}” is not a number") from None
    if not 0 <= value <= 1000:
        raise LabelError(f"“{text[:20]}” is off the label")
    return value


def _dots(text: str) -> int:
    return round(_number(text) * DOTS_PER_MM)


def print_label(lines: list[str]) -> bytes:
    """The picture of a label from its lines, LABEL first, without END.

    Raises:
        LabelError: a line that cannot be printed.
    """
    head = lines[0].split() if lines else []
    if len(head) != 3 or head[0] != "LABEL":
        raise LabelError("a label begins with LABEL, its width and its height")
    label = Label(_number(head[1]), _number(head[2]))
    for line in lines[1:]:
        label.draw(line.split())
    return label.png()


class PrinterServer:
    """The printer on a port; what it prints lies in its tray as files besides."""

    def __init__(self, tray: Path) -> None:
        self.tray = tray

    async def serve(self, port: int) -> asyncio.Server:
        """Listen on loopback."""
        self.tray.mkdir(parents=True, exist_ok=True)
        return await asyncio.start_server(self._talk, "127.0.0.1", port, limit=MAX_LINE)

    async def _talk(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        writer.write(f"PRINTER {VERSION} labels\n".encode())
        lines: list[str] = []
        try:
            while raw := await reader.readline():
                line = raw.decode("utf-8", "replace").strip()
                if line != "END":
                    lines.append(line)
                if line == "END" or len(lines) > MAX_LINES:
                    writer.write(self._print(lines))
                    await writer.drain()
                    lines = []
        except (ConnectionError, ValueError):
            pass
        finally:
            writer.close()
            with contextlib.suppress(ConnectionError):
                await writer.wait_closed()

    def _print(self, lines: list[str]) -> bytes:
        try:
            png = print_label(lines)
        except (LabelError, segno.DataOverflowError) as error:
            return f"NO {error}\n".encode()
        name = f"{secrets.token_hex(6)}.png"
        (self.tray / name).write_bytes(png)
        return f"PRINTED {name} {len(png)}\n".encode() + png


async def _run(port: int, tray: Path) -> None:
    async with await PrinterServer(tray).serve(port) as server:
        await server.serve_forever()


def main() -> None:
    """Run a label printer until it is stopped."""
    parser = argparse.ArgumentParser(description="A simulated label printer.")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--tray", type=Path, required=True, help="where what is printed comes out")
    options = parser.parse_args()
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(_run(options.port, options.tray))


if __name__ == "__main__":
    main()
