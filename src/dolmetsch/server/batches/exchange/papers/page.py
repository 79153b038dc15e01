"""One page of a batch's cost: strip, ledger, bill, verdict, policy, cautions; right in black and white."""

from datetime import datetime
from pathlib import Path
from typing import Final

from django.template import Context, Engine

from dolmetsch.server.batches.exchange.papers.strip_drawing import draw_strip
from dolmetsch.server.batches.show.schemas import BatchOut
from dolmetsch.server.batches.verdict.schemas import VerdictOut
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.calendar import print_year_day
from dolmetsch.server.quantities.printing import sign_of

ENGINE: Final = Engine(dirs=[str(Path(__file__).parent / "templates")])
#: A long batch is set smaller until it fits on its page.
SIZES: Final = ("9pt", "8pt", "7pt", "6pt", "5pt", "4pt")


def write_pdf(batch: BatchOut, verdict: VerdictOut, *, kitchen: Kitchen, now: datetime) -> bytes:
    """The page as PDF."""
    # slow to import, and needed for nothing else
    from weasyprint import HTML

    for size in SIZES:
        page = HTML(string=write_page(batch, verdict, kitchen=kitchen, now=now, size=size)).render()
        if len(page.pages) == 1:
            break
    written = page.write_pdf()
    assert isinstance(written, bytes)
    return written


def write_page(
    batch: BatchOut, verdict: VerdictOut, *, kitchen: Kitchen, now: datetime, size: str = SIZES[0]
) -> str:
    """The page as HTML that needs nothing beside it."""
    sign = sign_of(kitchen.currency)
    context = {
        "size": size,
        "batch": batch,
        "verdict": verdict,
        "house": verdict.judged.house,
        "kitchen": kitchen,
        "sign": sign,
        "unit": kitchen.weight_unit,
        "started": print_year_day(batch.started_at),
        "printed": print_year_day(now),
        "strip": draw_strip(batch.strip, batch.shops, unit=kitchen.weight_unit, sign=sign),
    }
    return str(ENGINE.get_template("sheet.html").render(Context(context)))
