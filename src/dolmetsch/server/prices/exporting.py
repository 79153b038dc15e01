"""The price list to take away, as CSV and XLSX, in the columns an import reads back."""

import csv
import io
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.exact import fixed
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import Quote
from dolmetsch.server.quantities.printing import print_percent

Form = Literal["csv", "xlsx"]
HEADS: Final = (
    "sort",
    "item",
    "kind",
    "price",
    "pack size",
    "date",
    "slices",
    "solution %",
    "source",
    "noted by",
)


def list_rows(kitchen: Kitchen) -> list[tuple[str, ...]]:
    """Every price that counts, by line and day, in the columns of ``HEADS``."""
    quotes = (
        Quote.objects.filter(kitchen=kitchen, corrections__isnull=True, is_withdrawal=False)
        .select_related("item", "recorded_by")
        .order_by("item__sort", "item__name", "seen_on", "id")
    )
    return [
        (
            quote.item.sort,
            _safe(quote.item.name),
            _safe(quote.item.kind),
            fixed(Fraction(quote.paid), 4 if (quote.paid * 100) % 1 else 2),
            _size(quote),
            quote.seen_on.isoformat(),
            "" if quote.slices is None else str(quote.slices),
            "" if quote.solution_ratio is None else print_percent(Fraction(quote.solution_ratio)),
            _safe(quote.source),
            _safe(quote.recorded_by.first_name or quote.recorded_by.username),
        )
        for quote in quotes.iterator(chunk_size=2_000)
    ]


def _size(quote: Quote) -> str:
    if quote.grams is not None:
        return f"{quote.grams.normalize():f} g"
    return "" if quote.count is None else f"{quote.count.normalize():f} each"


def _safe(text: str) -> str:
    """Text that no table program takes for a formula."""
    return f"'{text}" if text[:1] in tuple("=+-@\t\r") else text


def write_prices(kitchen: Kitchen, form: Form) -> bytes:
    """The price list as a file."""
    rows = list_rows(kitchen)
    if form == "csv":
        out = io.StringIO(newline="")
        csv.writer(out).writerows([HEADS, *rows])
        return out.getvalue().encode("utf-8-sig")
    import openpyxl

    book = openpyxl.Workbook(write_only=True)
    sheet = book.create_sheet("Prices")
    for row in (HEADS, *rows):
        sheet.append(list(row))
    held = io.BytesIO()
    book.save(held)
    return held.getvalue()
