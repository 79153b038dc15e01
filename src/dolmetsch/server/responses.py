"""How the API answers, and what its document says of every operation's answers."""

from collections.abc import Iterable
from typing import Any

from django.db import connection
from django.http import HttpResponse, StreamingHttpResponse
from pydantic import BaseModel


def answer_with(*media_types: str) -> dict[str, Any]:
    """What the API document says of an operation that answers with a file of one of ``media_types``."""
    binary = {"type": "string", "format": "binary"}
    # a file of JSON is whatever its own schema says
    content = {one.split(";")[0]: {"schema": {} if "json" in one else binary} for one in media_types}
    return {"responses": {200: {"description": "The file", "content": content}}}


def print_json(body: BaseModel) -> HttpResponse:
    """``body`` as JSON, printed at once.

    Returned as it is, Ninja would check what was built by its schema against the schema once more, copy it
    into dicts and encode those: several times the work, felt where an answer is long or asked for often.
    """
    return HttpResponse(body.model_dump_json(), content_type="application/json")


def answer_stream(events: Iterable[bytes]) -> StreamingHttpResponse:
    """A stream of events (text/event-stream). A listener stays for minutes: it holds no connection to the
    record store.
    """
    if not connection.in_atomic_block:
        connection.close()
    headers = {"Cache-Control": "no-cache", "X-Accel-Buffering": "no"}
    return StreamingHttpResponse(events, content_type="text/event-stream", headers=headers)
