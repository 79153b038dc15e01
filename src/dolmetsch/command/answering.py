"""``cost``, ``cure``, ``cook`` and ``dry``: a document in, its answer out; nothing to set up, no server."""

import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Final

from dolmetsch.command.telling import RefusedError
from dolmetsch.core.documents.answers import answer_cook, answer_cost, answer_cure, answer_drying
from dolmetsch.core.errors import DolmetschError

#: What answers the document of each verb.
ANSWERS: Final[dict[str, Callable[[bytes], dict[str, object]]]] = {
    "cost": answer_cost,
    "cure": answer_cure,
    "cook": answer_cook,
    "dry": answer_drying,
}


def answer(verb: str, source: str) -> None:
    """Print the answer to the document in the file ``source``, or on standard input for ``-``.

    Raises:
        RefusedError: the document is refused, or there is none.
    """
    try:
        result = ANSWERS[verb](_read(source))
    except DolmetschError as refused:
        raise RefusedError(str(refused)) from None
    sys.stdout.buffer.write((json.dumps(result, ensure_ascii=False, indent=1) + "\n").encode())
    sys.stdout.buffer.flush()


def _read(source: str) -> bytes:
    if source == "-":
        return sys.stdin.buffer.read()
    try:
        return Path(source).read_bytes()
    except (OSError, ValueError) as error:
        reason = error.strerror if isinstance(error, OSError) and error.strerror else str(error)
        raise RefusedError(f"{source} cannot be read: {reason.lower()}") from None
