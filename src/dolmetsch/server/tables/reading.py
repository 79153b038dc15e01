"""Lists as files: the cells of a CSV or XLSX, whatever its encoding and separator.

Cells are text, or numbers where an XLSX holds numbers. A table row begins with its number in the file.
"""

import codecs
import csv
import io
import time
import zipfile
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Final

from dolmetsch.server.problems import DomainError
from dolmetsch.server.quantities.printing import DANGEROUS

Cell = str | float | int
MAX_BYTES: Final = 10_000_000
MAX_UNPACKED: Final = 100_000_000
#: Tables pack ten- or twentyfold; what unfolds further is made to take long.
MAX_RATIO, SMALL_UNPACKED = 100, 10_000_000
MAX_ROWS: Final = 50_000
#: A list is read in a second or two; a sheet made to take long is given up.
MAX_SECONDS: Final = 15
MAX_COLUMNS: Final = 60
MAX_CELL: Final = 200
#: Code pages a list may be in that is not UTF-8; one shop's spreadsheet writes the one of its language.
WESTERN: Final = "cp1252"
CODE_PAGES: Final = [WESTERN, "cp1250", "cp1251", "cp1253", "cp1254"]
_SEPARATORS: Final = (",", ";", "\t", "|")


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """Heads and rows of a list; ``notes`` say how it was read where that was not plain."""

    heads: list[str]
    rows: list[list[Cell]]
    notes: list[str]


def read_table(name: str, content: bytes) -> Table:
    """The table in an uploaded file.

    Raises:
        DomainError: too_large, bad_file.
    """
    if len(content) > MAX_BYTES:
        raise too_large(len(content))
    if not content.strip():
        raise _bad(f"“{name}” is empty.")
    is_xlsx = content.startswith(b"PK\x03\x04")
    rows, notes = _read_xlsx(name, content) if is_xlsx else _read_csv(name, content)
    filled = [(number, row) for number, row in rows if any(str(cell).strip() for cell in row)]
    heads_at = next(
        (at for at, (_, row) in enumerate(filled) if sum(bool(str(cell).strip()) for cell in row) > 1), None
    )
    if heads_at is None or heads_at + 1 >= len(filled):
        raise _bad(f"“{name}” holds no rows below a line of heads.")
    if len(filled) - heads_at - 1 > MAX_ROWS:
        raise _bad(f"“{name}” holds more than {MAX_ROWS} rows; bring it in in parts.")
    wide = min(max(len(row) for _, row in filled[heads_at:]), MAX_COLUMNS)
    heads = [str(cell).strip()[:MAX_CELL] for cell in filled[heads_at][1]][:wide]
    heads += [""] * (wide - len(heads))
    return Table(
        heads=[head or f"column {at + 1}" for at, head in enumerate(heads)],
        rows=[[number, *_even(row, wide)] for number, row in filled[heads_at + 1 :]],
        notes=notes,
    )


def read_records(name: str, content: bytes) -> list[tuple[int, dict[str, str]]]:
    """The rows of the first table of a file as texts by their heads, which are in lower case; each row with
    its number in the file. Below a line of one cell, such as the title of another table, nothing is read.

    Raises:
        DomainError: too_large, bad_file.
    """
    table = read_table(name, content)
    heads = [head.casefold() for head in table.heads]
    found: list[tuple[int, dict[str, str]]] = []
    for number, *cells in table.rows:
        texts = [_say(cell) for cell in cells]
        if sum(map(bool, texts)) < 2:
            break
        found.append((int(number), dict(zip(heads, texts, strict=True))))
    return found


def _say(cell: Cell) -> str:
    """A cell as it would be typed; without the apostrophe that keeps a spreadsheet from running it."""
    if isinstance(cell, float):
        return f"{cell:.9f}".rstrip("0").rstrip(".")
    text = str(cell)
    return text[1:] if text[:1] == "'" and text[1:].startswith(DANGEROUS) else text


def too_large(size: int) -> DomainError:
    """Refusal of a file that is too large."""
    said = (
        f"The file has {size / 1e6:.1f} MB; at most {MAX_BYTES // 10**6} MB can be read. "
        "Nothing was written. Bring it in in parts."
    )
    return DomainError("too_large", 413, "Too large", said)


def _bad(said: str) -> DomainError:
    return DomainError("bad_file", 422, "Not a list that can be read", said)


def _even(row: list[Cell], wide: int) -> list[Cell]:
    cut = [cell[:MAX_CELL].strip() if isinstance(cell, str) else cell for cell in row[:wide]]
    return [*cut, *[""] * (wide - len(cut))]


def _read_csv(name: str, content: bytes) -> tuple[list[tuple[int, list[Cell]]], list[str]]:
    text, notes = _decode(name, content)
    separator = _find_separator(text)
    if separator != ",":
        separator_name = {";": "semicolons", "\t": "tabs", "|": "upright bars"}[separator]
        notes.append(f"The columns are parted by {separator_name}.")
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    rows: list[tuple[int, list[Cell]]] = []
    try:
        for row in reader:
            rows.append((reader.line_num, list(row)))
            if len(rows) > MAX_ROWS * 2:
                break
    except csv.Error as error:
        raise _bad(f"“{name}” cannot be read at line {reader.line_num}: {error}.") from error
    return rows, notes


def _decode(name: str, content: bytes) -> tuple[str, list[str]]:
    if content.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
        try:
            return content.decode("utf-16"), ["The text is UTF-16."]
        except UnicodeDecodeError:
            raise _bad(f"“{name}” begins like UTF-16 text but is not.") from None
    if b"\x00" in content:
        raise _bad(f"“{name}” is neither a CSV nor an XLSX file.")
    try:
        return content.decode("utf-8-sig"), []
    except UnicodeDecodeError:
        page = _guess_code_page(content)
        note = f"The text is not UTF-8; it was read as Windows-{page[2:]}. Look at the letters with accents."
        return content.decode(page, errors="replace"), [note]


def _guess_code_page(content: bytes) -> str:
    """The Windows code page that ``content`` reads best by; the western one where it reads as well."""
    from charset_normalizer import from_bytes

    found = from_bytes(content, cp_isolation=CODE_PAGES)
    best = found.best()
    western = next((one for one in found if WESTERN in one.could_be_from_charset), None)
    if best is None or (western is not None and western.coherence >= best.coherence):
        return WESTERN
    return best.encoding


def _find_separator(text: str) -> str:
    """The separator that parts the first lines most evenly into the most columns."""
    head = text[:20_000]

    def evenness(separator: str) -> tuple[float, int]:
        try:
            rows = [row for row in csv.reader(io.StringIO(head, newline=""), delimiter=separator) if row][:40]
        except csv.Error:
            return 0.0, 0
        if not rows:
            return 0.0, 0
        columns, times = Counter(len(row) for row in rows).most_common(1)[0]
        return (times / len(rows), columns) if columns > 1 else (0.0, 0)

    return max(_SEPARATORS, key=evenness)


def _read_xlsx(name: str, content: bytes) -> tuple[list[tuple[int, list[Cell]]], list[str]]:
    import openpyxl

    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            unpacked = sum(part.file_size for part in packed.infolist())
            is_bomb = unpacked > max(SMALL_UNPACKED, MAX_RATIO * len(content))
            if unpacked > MAX_UNPACKED or is_bomb:
                raise _bad(f"“{name}” unpacks to more than can be read.")
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=False)
        try:
            sheets = book.worksheets
            if not sheets:
                raise _bad(f"“{name}” has no sheet.")
            cells = sheets[0].iter_rows(values_only=True, max_col=MAX_COLUMNS, max_row=MAX_ROWS * 2)
            rows = _read_sheet(name, cells)
            notes = (
                []
                if len(sheets) == 1
                else [f"The first of {len(sheets)} sheets, “{sheets[0].title}”, was read."]
            )
        finally:
            book.close()
    except DomainError:
        raise
    except Exception as error:
        raise _bad(f"“{name}” is not an XLSX file that can be read.") from error
    return rows, notes


def _read_sheet(name: str, cells: Iterable[tuple[Any, ...]]) -> list[tuple[int, list[Cell]]]:
    rows: list[tuple[int, list[Cell]]] = []
    deadline = time.monotonic() + MAX_SECONDS
    for number, values in enumerate(cells, start=1):
        if time.monotonic() > deadline:
            raise _bad(f"“{name}” takes over {MAX_SECONDS} s to read; save it anew, or as CSV.")
        last = max((at for at, value in enumerate(values, start=1) if value is not None), default=0)
        rows.append((number, [_cell(value) for value in values[:last]]))
        if number > MAX_ROWS * 2:
            break
    return rows


def _cell(value: Any) -> Cell:
    if value is None:
        return ""
    if isinstance(value, bool):
        return str(value)
    if isinstance(value, int | float):
        return value
    if isinstance(value, datetime):
        return value.date().isoformat()
    return value.isoformat() if isinstance(value, date) else str(value)
