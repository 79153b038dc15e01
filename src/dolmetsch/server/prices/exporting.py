"""The price list to take away, as CSV and XLSX, in the columns an import reads back."""

import csv
import io
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import Quote
from dolmetsch.server.quantities.printing import make_safe, print_percent

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
    "recorded by",
)


def list_rows(kitchen: Kitchen) -> list[tuple[str, ...]]:
    """Every price that counts, by line and day, in the columns of ``HEADS``."""
    quotes = (
        # by its lines, from which MariaDB goes to their prices
        Quote.counting.filter(item__kitchen=kitchen)
        .select_related("item", "recorded_by")
        .order_by("item__sort", "item__name", "seen_on", "id")
    )
    return [
        (
            quote.item.sort,
            make_safe(quote.item.name),
            make_safe(quote.item.kind),
            fixed(Fraction(quote.paid), 4 if (quote.paid * 100) % 1 else 2),
            _size(quote),
            quote.seen_on.isoformat(),
            "" if quote.slices is None else str(quote.slices),
            "" if quote.solution_ratio is None else print_percent(Fraction(quote.solution_ratio)),
            make_safe(quote.source),
            make_safe(quote.recorded_by.called),
        )
        for quote in quotes.iterator(chunk_size=2_000)
    ]


def _size(quote: Quote) -> str:
    if quote.grams is not None:
        return f"{quote.grams.normalize():f} g"
    return "" if quote.count is None else f"{quote.count.normalize():f} each"


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
