"""What the API document says of every operation's answers."""

from typing import Any

#: The statuses an answer may have besides its own.
REFUSALS = frozenset({400, 401, 403, 404, 409, 413, 422, 429, 500, 503})


def answer_with(*media_types: str) -> dict[str, Any]:
    """What the API document says of an operation that answers with a file of one of ``media_types``."""
    content = {one.split(";")[0]: {"schema": {"type": "string", "format": "binary"}} for one in media_types}
    return {"responses": {200: {"description": "The file", "content": content}}}
