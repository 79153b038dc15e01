"""The price list to take away, as CSV and XLSX, in the columns an import reads back."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import Quote
from dolmetsch.server.quantities.printing import print_percent
from dolmetsch.server.tables.writing import ListForm, Row, write_list

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


def list_rows(kitchen: Kitchen) -> list[Row]:
    """Every price that counts, by line and day, in the columns of ``HEADS``."""
    quotes = (
        # by its lines, from which MariaDB goes to their prices
        Quote.counting.filter(item__kitchen=kitchen)
        .select_related("item", "recorded_by")
        .order_by("item__sort", "item__name", "seen_on", "id")
    )
    return [
        [
            quote.item.sort,
            quote.item.name,
            quote.item.kind,
            fixed(Fraction(quote.paid), 4 if (quote.paid * 100) % 1 else 2),
            _size(quote),
            quote.seen_on.isoformat(),
            "" if quote.slices is None else str(quote.slices),
            "" if quote.solution_ratio is None else print_percent(Fraction(quote.solution_ratio)),
            quote.source,
            quote.recorded_by.called,
        ]
        for quote in quotes.iterator(chunk_size=2_000)
    ]


def _size(quote: Quote) -> str:
    if quote.grams is not None:
        return f"{quote.grams.normalize():f} g"
    return "" if quote.count is None else f"{quote.count.normalize():f} each"


def write_prices(kitchen: Kitchen, form: ListForm) -> bytes:
    """The price list as a file."""
    return write_list("Prices", [list(HEADS), *list_rows(kitchen)], form)
