"""Problems: one shape for every refusal of the API (problem documents, RFC 9457).

DomainError carries a stable ``code``, an HTTP status and, where fields are at fault, which. The API
layer turns it, and everything else that goes wrong, into ``application/problem+json`` here only.
"""

import json
import logging
import sys
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from django.core.exceptions import BadRequest, RequestDataTooBig, SuspiciousOperation
from django.db import DataError, IntegrityError, InterfaceError, OperationalError
from django.db import Error as DatabaseError
from django.http import HttpRequest, HttpResponse, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from pydantic import BaseModel
from pydantic import ValidationError as ShapeError

log = logging.getLogger(__name__)

DATABASE_AWAY = (
    "The database is not answering. What you typed is kept; "
    "try again: it is recorded once, however often it is sent."
)


class FieldProblem(BaseModel):
    """What is wrong at one field; ``path`` as in the body sent (``pieces[0].weight``)."""

    path: str
    code: str
    message: str


class Problem(BaseModel):
    """Every refusal. ``detail`` is a sentence for the cook; ``fields`` where fields are at fault."""

    type: str = "about:blank"
    title: str
    status: int
    code: str
    detail: str
    fields: list[FieldProblem] = []
    changes: list[str] = []


@dataclass(eq=False)
class DomainError(Exception):
    """A refused command. ``changes``: what others recorded meanwhile, in words."""

    code: str
    status: int
    title: str
    detail: str
    fields: list[FieldProblem] = field(default_factory=list)
    changes: list[str] = field(default_factory=list)

    def __str__(self) -> str:
        return f"{self.code}: {self.detail}"


def not_found(what: str) -> DomainError:
    """Refusal for something that is not there, or not this kitchen's (the two are answered alike)."""
    return DomainError("not_found", 404, "Not here", f"There is no {what} in this kitchen.")


#: Faults of a field that nobody has filled in.
_EMPTY: Final = frozenset({"missing", "empty"})


def refuse_fields(fields: list[FieldProblem]) -> DomainError:
    """Refusal of what was typed, all its faults at once."""
    count = len(fields)
    verb = "Fill in" if all(one.code in _EMPTY for one in fields) else "Check"
    said = fields[0].message if count == 1 else f"{verb} {count} fields."
    return DomainError("bad_fields", 422, "Not recorded", said, fields)


def answer(error: DomainError) -> HttpResponse:
    """The problem document of ``error``."""
    problem = Problem(
        title=error.title,
        status=error.status,
        code=error.code,
        detail=error.detail,
        fields=error.fields,
        changes=error.changes,
    )
    return HttpResponse(
        json.dumps(problem.model_dump(), ensure_ascii=False),
        status=error.status,
        content_type="application/problem+json",
    )


def answer_failure(error: BaseException | None) -> HttpResponse:
    """The problem document of whatever else went wrong."""
    if isinstance(error, RequestDataTooBig):
        said = "That is more than one entry can hold; nothing was saved."
        return answer(DomainError("too_much", 413, "Too much at once", said))
    if isinstance(error, IntegrityError | DataError):
        log.warning("not kept: %s", error)
        said = "Something in this cannot be recorded as typed; nothing was written."
        return answer(DomainError("cannot_keep", 422, "Not recorded", said))
    unreadable = BadRequest | SuspiciousOperation | MultiPartParserError | UnicodeError | UnreadablePostError
    if isinstance(error, unreadable):
        log.warning("not understood: %s", error)
        said = "This request cannot be read; nothing was written."
        return answer(DomainError("bad_request", 400, "Not understood", said))
    if isinstance(error, OperationalError | InterfaceError):
        log.warning("database away: %s", error)
        return answer(DomainError("database_away", 503, "Record store away", DATABASE_AWAY))
    log.error("unexpected failure", exc_info=error)
    said = "Something went wrong here. Nothing was saved; what you typed is still here."
    return answer(DomainError("server_error", 500, "Server fault", said))


def answer_server_error(_request: HttpRequest) -> HttpResponse:
    """Django's last resort: what failed outside the API's own handling."""
    return answer_failure(sys.exc_info()[1])


def answer_no_such_address(_request: HttpRequest) -> HttpResponse:
    """An address below /api/ that does not exist."""
    return answer(DomainError("not_found", 404, "Not here", "There is nothing at this address."))


def answer_csrf_failure(_request: HttpRequest, reason: str = "") -> HttpResponse:
    """A write without the page's token."""
    said = f"This page is out of date; load it again. {reason}".strip()
    return answer(DomainError("stale_page", 403, "Page out of date", said))


def answer_wrong_method(
    get_response: Callable[[HttpRequest], HttpResponse],
) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: a method that an address of the API does not take is a problem like any other."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if response.status_code != 405 or not request.path.startswith("/api/"):
            return response
        said = f"{request.method} is not done at this address."
        problem = answer(DomainError("wrong_method", 405, "Not done here", said))
        problem["Allow"] = response["Allow"]
        return problem

    return middleware


def _path_of(location: tuple[str | int, ...]) -> str:
    """``('body', 'entry', 'pieces', 0, 'weight')`` as ``pieces[0].weight``."""
    text = ""
    for part in location[2:]:
        text += f"[{part}]" if isinstance(part, int) else f".{part}"
    return text.lstrip(".")


def say_fault(fault: Any) -> str:
    """What is wrong with a field's shape, in plain words."""
    context = fault.get("ctx") or {}
    match fault["type"]:
        case "string_too_long":
            return f"At most {context['max_length']} letters."
        case "too_long":
            return f"At most {context['max_length']} of these."
        case "too_short":
            return f"At least {context['min_length']} of these."
        case "missing":
            return "This is missing."
        case "string_pattern_mismatch":
            return "Plain letters on one line only."
        case "greater_than_equal" | "less_than_equal":
            word = "least" if "ge" in context else "most"
            return f"At {word} {context.get('ge', context.get('le'))}."
        case "extra_forbidden":
            return "That field is not known."
    return str(fault["msg"])


def _answer_invalid(_request: HttpRequest, error: ValidationError) -> HttpResponse:
    fields = [
        FieldProblem(path=_path_of(tuple(fault["loc"])), code=fault["type"], message=say_fault(fault))
        for fault in error.errors
    ]
    said = "; ".join(f"{fault.path or 'body'}: {fault.message}" for fault in fields[:3])
    return answer(DomainError("bad_request", 422, "Not understood", said, fields))


def _answer_shape(_request: HttpRequest, error: ShapeError) -> HttpResponse:
    """What came in parts and does not fit its shape."""
    fields = [
        FieldProblem(path=_path_of(("", "", *fault["loc"])), code=fault["type"], message=say_fault(fault))
        for fault in error.errors()
    ]
    return answer(refuse_fields(fields))


def _answer_http(_request: HttpRequest, error: HttpError) -> HttpResponse:
    if error.status_code == 403:
        return answer_csrf_failure(_request)
    return answer(DomainError("bad_request", error.status_code, "Not understood", error.message))


def _answer_signed_out(_request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    said = "You are signed out. What you typed is kept; sign in to continue."
    return answer(DomainError("signed_out", 401, "Signed out", said))


def install_handlers(api: NinjaAPI) -> None:
    """Make every error of ``api`` a problem document."""

    def handle(kind: Any, handler: Any) -> None:
        api.add_exception_handler(kind, handler)

    handle(DomainError, lambda _request, error: answer(error))
    handle(ValidationError, _answer_invalid)
    handle(ShapeError, _answer_shape)
    handle(HttpError, _answer_http)
    handle(AuthenticationError, _answer_signed_out)
    handle(DatabaseError, lambda _request, error: answer_failure(error))
    handle(Exception, lambda _request, error: answer_failure(error))
