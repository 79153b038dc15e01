"""A sheet of labels as PDF: A4 or letter, two across, seven or so down."""

from html import escape
from io import BytesIO
from typing import Final, Literal

import segno

from dolmetsch.server.labels.facts import LabelFacts

Paper = Literal["a4", "letter"]
#: Label sheets as sold: width and height of a label, margins and gaps, in millimetres.
PAPERS: Final[dict[Paper, str]] = {
    "a4": "size: A4; margin: 15.1mm 4.7mm",
    "letter": "size: letter; margin: 12.7mm 4mm",
}
SIZES: Final[dict[Paper, tuple[float, float]]] = {"a4": (99.1, 38.1), "letter": (101.6, 33.9)}

_STYLE: Final = """
body { font-family: sans-serif; margin: 0; color: #1b1f1e; }
.sheet { display: flex; flex-wrap: wrap; column-gap: 2.5mm; }
.label { display: flex; justify-content: space-between; align-items: center; box-sizing: border-box;
  padding: 3mm 5mm; overflow: hidden; break-inside: avoid; }
.mark { font-size: 30pt; font-weight: 800; line-height: 1; }
.code { font-size: 13pt; font-weight: 700; }
p { margin: 0.4mm 0; font-size: 9.5pt; line-height: 1.15; }
.out { font-weight: 700; }
svg { width: 25mm; height: 25mm; }
"""


def write_sheet(labels: list[LabelFacts], paper: Paper) -> bytes:
    """The labels as PDF, to be printed at their true size."""
    # slow to load, and needed here alone
    from weasyprint import HTML

    width, height = SIZES[paper]
    size = f"width: {width}mm; height: {height}mm"
    drawn = "".join(f'<div class="label" style="{size}">{_write(label)}</div>' for label in labels)
    style = f"@page {{ {PAPERS[paper]} }} {_STYLE}"
    page = f'<html lang="en"><head><title>Labels</title><style>{style}</style></head>'
    html = f'{page}<body><div class="sheet">{drawn}</div></body></html>'
    written: bytes = HTML(string=html, url_fetcher=_fetch_nothing).write_pdf()
    return written


def _fetch_nothing(url: str) -> dict[str, object]:
    raise ValueError(f"a label fetches nothing, least of all {url}")


def _write(label: LabelFacts) -> str:
    lines = "".join(
        f'<p class="{"out" if line.startswith("out ") else "line"}">{escape(line)}</p>'
        for line in label.lines
    )
    head = f'<span class="mark">{escape(label.mark)}</span> <span class="code">{escape(label.code)}</span>'
    return f"<div>{head}<p>{escape(label.name)}</p>{lines}</div>{draw_code(label.address)}"


def draw_code(address: str) -> str:
    """A QR code as SVG."""
    out = BytesIO()
    segno.make(address, error="m", micro=False).save(
        out, kind="svg", xmldecl=False, svgns=True, border=1, omitsize=True
    )
    return out.getvalue().decode()
