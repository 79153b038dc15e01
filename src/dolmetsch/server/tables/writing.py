"""Tables written for spreadsheets, cells that would be taken for formulas made safe."""

import csv
import io
from decimal import Decimal
from typing import Final, Literal

from openpyxl import Workbook
from openpyxl.cell import WriteOnlyCell

from dolmetsch.server.quantities.printing import make_safe

Cell = str | Decimal | int | None
Row = list[Cell]
#: Each with its title.
Tables = list[tuple[str, list[Row]]]
ListForm = Literal["csv", "xlsx"]
TableForm = Literal["csv", "xlsx", "json"]
TABLE_TYPES: Final[dict[str, str]] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}


def write_tables(tables: Tables, form: ListForm) -> bytes:
    """``tables`` as one file."""
    return write_csv(tables) if form == "csv" else write_xlsx(tables)


def write_list(title: str, rows: list[Row], form: ListForm) -> bytes:
    """One table as a file that begins with its heads, as an import reads it."""
    if form == "xlsx":
        return write_xlsx([(title, rows)])
    out = io.StringIO(newline="")
    csv.writer(out).writerows([make_safe(cell) for cell in row] for row in rows)
    return out.getvalue().encode("utf-8-sig")


def write_csv(tables: Tables) -> bytes:
    """All tables below each other, each with its title, as CSV in UTF-8 with a byte order mark."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    for title, rows in tables:
        writer.writerow([title])
        writer.writerows([make_safe(cell) for cell in row] for row in rows)
        writer.writerow([])
    return out.getvalue().encode("utf-8-sig")


def write_xlsx(tables: Tables) -> bytes:
    """A sheet a table; texts as texts, numbers as numbers."""
    book = Workbook(write_only=True)
    for title, rows in tables:
        sheet = book.create_sheet(title)
        sheet.column_dimensions["A"].width = 34
        for row in rows:
            cells = []
            for value in row:
                cell = WriteOnlyCell(sheet, value=make_safe(value))
                if isinstance(value, str):
                    cell.data_type = "s"
                cells.append(cell)
            sheet.append(cells)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
