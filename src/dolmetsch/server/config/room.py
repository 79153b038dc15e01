"""Room for deep calls, which CPython 3.11 else asks the system for again and again.

It keeps the frames of Python functions in chunks of 16 KiB, and gives a chunk back as soon as it is empty.
Where a loop calls across the end of one, each call maps a chunk and unmaps it: under Django's middleware that
took a quarter of a request. A frame that wants a little more than a power of two gets the next one, of which
the rest is then free for all that is called from it.
"""

from collections.abc import Callable
from types import FunctionType
from typing import Final, ParamSpec, TypeVar

from django.http import HttpRequest, HttpResponse

#: Words of the frame: 1 MiB, so that its chunk is of 2; what is not touched takes no memory.
_WORDS: Final = 2**17

P = ParamSpec("P")
T = TypeVar("T")


def with_room(function: Callable[P, T]) -> Callable[P, T]:
    """``function``, below which there is room for about a thousand calls."""

    def call(*args: P.args, **kwargs: P.kwargs) -> T:
        return function(*args, **kwargs)

    roomy: FunctionType = call  # type: ignore[assignment]
    roomy.__code__ = roomy.__code__.replace(co_stacksize=_WORDS)
    return call


def answer_with_room(
    get_response: Callable[[HttpRequest], HttpResponse],
) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: all below it has room."""
    return with_room(get_response)
