"""An answer kept until the kitchen's next write: what is looked at often is not worked out each time."""

import hashlib
import time
from collections.abc import Callable
from functools import wraps
from typing import Any, Final

from django.core.cache import cache
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from dolmetsch.server.kitchens.queries import kitchen_of

#: An answer says what is late and how long ago: it is never older than this.
MOST_SECONDS: Final = 30

View = Callable[..., HttpResponse]


def until_next_write(view: View) -> View:
    """Keep a GET's answer until something is written in its kitchen, MOST_SECONDS at the longest.

    Kept in the memory of each worker, by the kitchen's count of writes, which every write raises in its own
    transaction (``writing.once``): what is kept of a count is at least as new as that count. Whoever asks has
    to be a member, as without it.
    """

    @wraps(view)
    def answer(request: HttpRequest, kitchen_slug: str, **path: Any) -> HttpResponse:
        kitchen = kitchen_of(request, kitchen_slug)
        about = (kitchen.pk, kitchen.writes, timezone.get_current_timezone_name(), request.get_full_path())
        age = int(time.time()) // MOST_SECONDS
        key = hashlib.sha256(repr((*about, age)).encode()).hexdigest()
        kept = cache.get(key)
        if kept is not None:
            return HttpResponse(kept, content_type="application/json")
        response = view(request, kitchen_slug, **path)
        if response.status_code == 200:
            cache.set(key, response.content, MOST_SECONDS)
        return response

    return answer
