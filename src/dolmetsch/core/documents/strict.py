"""Strict JSON: what two readers could take differently is refused, with its path.

Numbers stay as written (``Written``), so that no binary float ever comes near the ledger.
"""

import json
from dataclasses import dataclass
from typing import Final, NoReturn

from dolmetsch.core.errors import DocumentError

#: Far beyond what a batch needs, and far below what would exhaust the parser or the memory.
MAX_DEPTH: Final = 40
MAX_BYTES: Final = 8_000_000
#: A text longer than this is no name, reason or quantity.
MAX_TEXT: Final = 4000


@dataclass(frozen=True, slots=True)
class Written:
    """A JSON number as it was written."""

    text: str


class _Object(dict[str, object]):
    """A JSON object that remembers the first key it was given twice."""

    repeated: str | None = None


def parse(data: bytes | str) -> object:
    """The value of a JSON text, objects as dicts, numbers as ``Written``.

    Raises:
        DocumentError: not UTF-8, not JSON, NaN or infinities, a key given twice, lone surrogates,
            nested too deeply, or too large.
    """
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
    except UnicodeDecodeError as error:
        fault = f"is not UTF-8 text (byte {error.start + 1} cannot be read)"
        raise DocumentError("not_utf8", field="document", text=fault) from None
    if len(text) > MAX_BYTES:
        raise DocumentError("too_large", field="document", text="is larger than 8 MB")
    try:
        value = json.loads(
            text,
            object_pairs_hook=_pairs,
            parse_float=Written,
            parse_int=Written,
            parse_constant=_refuse_constant,
        )
    except json.JSONDecodeError as error:
        fault = f"is not JSON: line {error.lineno}, column {error.colno}: {error.msg.lower()}"
        raise DocumentError("not_json", field="document", text=fault) from None
    except RecursionError:
        raise DocumentError("too_deep", field="document", text="is nested too deeply") from None
    _refuse_ambiguous(value, path="", depth=0)
    return value


def _pairs(pairs: list[tuple[str, object]]) -> _Object:
    found = _Object()
    for key, value in pairs:
        if key in found and found.repeated is None:
            found.repeated = key
        found[key] = value
    return found


def _refuse_constant(word: str) -> NoReturn:
    raise DocumentError("no_number", field="document", text=f"holds {word}, which is not a number")


def _refuse_ambiguous(value: object, *, path: str, depth: int) -> None:
    if depth > MAX_DEPTH:
        raise DocumentError("too_deep", field="document", text="is nested too deeply")
    if isinstance(value, str):
        _refuse_bad_text(value, path)
    elif isinstance(value, list):
        for index, item in enumerate(value):
            _refuse_ambiguous(item, path=f"{path}[{index}]", depth=depth + 1)
    elif isinstance(value, _Object):
        if value.repeated is not None:
            text = f"the key “{printable(value.repeated)}” is given twice"
            raise DocumentError("repeated_key", field=path or "document", text=text)
        for key, item in value.items():
            _refuse_bad_text(key, path or "document")
            _refuse_ambiguous(item, path=f"{path}.{key}" if path else key, depth=depth + 1)


def _refuse_bad_text(text: str, path: str) -> None:
    if any("\ud800" <= letter <= "\udfff" for letter in text):
        raise DocumentError(
            "bad_text", field=path or "document", text="holds half a character (a lone surrogate)"
        )
    if any(letter < " " and letter not in "\t\n\r" for letter in text) or "\x7f" in text:
        raise DocumentError("bad_text", field=path or "document", text="holds a control character")
    if len(text) > MAX_TEXT:
        raise DocumentError("too_long", field=path or "document", text=f"is longer than {MAX_TEXT} letters")


def printable(text: str, *, most: int = 60) -> str:
    """``text`` on one line and not too long, fit for a message."""
    plain = "".join(letter if letter.isprintable() else "·" for letter in text)
    return plain if len(plain) <= most else f"{plain[:most]}…"
