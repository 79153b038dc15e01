"""The plans' API: only maps requests to reads and writes."""

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.plans import actions, schemas
from dolmetsch.server.plans.queries import read_plan, write_calendar
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["plans"])
#: How far ahead a whole plan reaches.
ALL_DAYS = 400


@router.get("/plan", response=schemas.PlanOut, operation_id="getPlan")
@until_next_write
def get_plan(
    request: HttpRequest,
    kitchen_slug: Path[str],
    days: Annotated[int, Query(ge=0, le=ALL_DAYS)] = 2,
    code: str = "",
) -> HttpResponse:
    """What is to be done within ``days``, late ones included; of one batch where its ``code`` is given."""
    return print_json(read_plan(kitchen_of(request, kitchen_slug), timezone.now(), days=days, code=code))


@router.get("/plan.ics", operation_id="getCalendar", openapi_extra=answer_with("text/calendar"))
def get_calendar(request: HttpRequest, kitchen_slug: Path[str], code: str = "") -> HttpResponse:
    """The plan as a calendar file."""
    kitchen = kitchen_of(request, kitchen_slug)
    name = f"{code or kitchen.slug}.ics" if code.replace("-", "").isalnum() or not code else "plan.ics"
    return HttpResponse(
        write_calendar(kitchen, code=code),
        content_type="text/calendar; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="{name}"'},
    )


@router.post("/batches/{code}/tasks", response={201: schemas.PlanOut}, operation_id="planTask")
def plan_task(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: schemas.TaskIn, key: Key
) -> Status[schemas.PlanOut]:
    """Plan a task by hand."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    actions.plan_task(write, get_batch(kitchen, code), body)
    return Status(201, read_plan(kitchen, write.now, days=ALL_DAYS, code=code))


@router.post("/tasks/{uid}/news", response={201: schemas.PlanOut}, operation_id="recordNews")
# what waits on a device may have been written for the address of before
@router.post(
    "/acts/{uid}/news",
    response={201: schemas.PlanOut},
    include_in_schema=False,
    operation_id="recordNewsAsBefore",
)
def record_news(
    request: HttpRequest, kitchen_slug: Path[str], uid: uuid.UUID, body: schemas.NewsIn, key: Key
) -> Status[schemas.PlanOut]:
    """Tell what became of a task: done, moved, dropped, or open again."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    news = actions.record_news(write, uid, body)
    return Status(201, read_plan(kitchen, write.now, days=ALL_DAYS, code=news.task.batch.code))
