"""Finding's API: only maps requests to reads."""

from typing import Annotated

from django.http import HttpRequest
from django.utils import timezone
from ninja import Path, Query, Router

from dolmetsch.server.finding import schemas
from dolmetsch.server.finding.queries import find
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.quantities.lengths import NAME_LENGTH

router = Router(tags=["finding"])


@router.get("/find", response=schemas.FindOut, operation_id="find")
def get_found(
    request: HttpRequest, kitchen_slug: Path[str], words: Annotated[str, Query(max_length=NAME_LENGTH)] = ""
) -> schemas.FindOut:
    """Batches, pieces, packs, notes, prices, dishes, plans and people, by word, mark, day or code."""
    return find(kitchen_of(request, kitchen_slug), words, timezone.now())
