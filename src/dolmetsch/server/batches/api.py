"""The batch API: only maps requests to reads and writes."""

import hashlib
import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Header, Path, Router

from dolmetsch.core.strip import lay_out_step
from dolmetsch.server.batches import actions
from dolmetsch.server.batches.actions import Draft, Write, draft_entry, draft_start
from dolmetsch.server.batches.chain import list_entry_rows
from dolmetsch.server.batches.printing import print_money, print_unit_cost
from dolmetsch.server.batches.queries import get_batch, read_page, read_today
from dolmetsch.server.batches.schemas import (
    BatchOut,
    ColumnOut,
    EntryIn,
    PreviewOut,
    RecordedOut,
    StartIn,
    TodayOut,
)
from dolmetsch.server.batches.showing import show_column, show_house, show_shop
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.kitchens.queries import get_kitchen, signed_in
from dolmetsch.server.problems import Problem

router = Router(tags=["batches"])
Key = Annotated[uuid.UUID, Header(alias="Idempotency-Key")]
REFUSALS = frozenset({400, 401, 403, 404, 409, 422, 500, 503})


def _kitchen(request: HttpRequest, slug: str) -> Kitchen:
    return get_kitchen(signed_in(request), slug)


def _write(request: HttpRequest, kitchen: Kitchen, key: uuid.UUID) -> Write:
    user = signed_in(request)
    told = f"{user.pk} {request.method} {request.path}\n".encode() + request.body
    return Write(
        kitchen=kitchen,
        user=user,
        now=timezone.now(),
        key=key,
        fingerprint=hashlib.sha256(told).hexdigest(),
    )


def _answer(recorded: actions.Recorded) -> HttpResponse:
    """201 for what was made now, 200 for a resend of what had been."""
    body = RecordedOut(entry=recorded.entry.id, batch=recorded.batch)
    headers = {"Idempotency-Replayed": "true"} if recorded.was_there else {}
    status = 200 if recorded.was_there else 201
    return _print(body.model_dump_json(), status=status, headers=headers)


def _print(printed: str, *, status: int = 200, headers: dict[str, str] | None = None) -> HttpResponse:
    return HttpResponse(printed, status=status, headers=headers, content_type="application/json")


@router.get("/today", response={200: TodayOut, REFUSALS: Problem}, operation_id="getToday")
def get_today(request: HttpRequest, kitchen_slug: Path[str]) -> TodayOut:
    """Batches under way."""
    return read_today(_kitchen(request, kitchen_slug))


@router.get("/batches/{code}", response={200: BatchOut, REFUSALS: Problem}, operation_id="getBatch")
def get_one_batch(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """One batch, whole."""
    batch = get_batch(_kitchen(request, kitchen_slug), code)
    return _print(read_page(batch))


@router.post(
    "/batches", response={frozenset({200, 201}): RecordedOut, REFUSALS: Problem}, operation_id="startBatch"
)
def start_batch(request: HttpRequest, kitchen_slug: Path[str], body: StartIn, key: Key) -> HttpResponse:
    """Start a batch. 200 for a resend of the same key, 201 for a new one."""
    kitchen = _kitchen(request, kitchen_slug)
    return _answer(actions.start_batch(_write(request, kitchen, key), body))


@router.post("/previews/batches", response={200: PreviewOut, REFUSALS: Problem}, operation_id="previewBatch")
def preview_batch(request: HttpRequest, kitchen_slug: Path[str], body: StartIn) -> PreviewOut:
    """What starting this batch would make; nothing is written."""
    draft = draft_start(_kitchen(request, kitchen_slug), body, now=timezone.now())
    preview = PreviewOut(readings=draft.reader.readings, problems=draft.reader.problems)
    if draft.reckoning is not None:
        preview.paid = print_money(draft.reckoning.sheet.bought.cost)
        preview.bought_cost = print_unit_cost(draft.reckoning.sheet.bought.cost_per_lb)
    return preview


@router.post(
    "/batches/{code}/entries",
    response={frozenset({200, 201}): RecordedOut, REFUSALS: Problem},
    operation_id="recordEntry",
)
def record_entry(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: EntryIn, key: Key
) -> HttpResponse:
    """Record an entry or a correction. 200 for a resend of the same key, 201 for a new one."""
    kitchen = _kitchen(request, kitchen_slug)
    return _answer(actions.record_entry(_write(request, kitchen, key), code, body))


@router.post(
    "/previews/batches/{code}/entries",
    response={200: PreviewOut, REFUSALS: Problem},
    operation_id="previewEntry",
)
def preview_entry(request: HttpRequest, kitchen_slug: Path[str], code: str, body: EntryIn) -> PreviewOut:
    """What this entry would do; nothing is written."""
    batch = get_batch(_kitchen(request, kitchen_slug), code)
    draft = draft_entry(batch, list_entry_rows(batch), body, now=timezone.now())
    preview = PreviewOut(readings=draft.reader.readings, problems=draft.reader.problems)
    if draft.reckoning is None:
        return preview
    preview.house = show_house(draft.reckoning)
    preview.shop = show_shop(draft.reckoning)
    preview.bought_cost = print_unit_cost(draft.reckoning.sheet.bought.cost_per_lb)
    preview.paid = print_money(draft.reckoning.sheet.bought.cost)
    preview.column = _own_column(draft)
    return preview


def _own_column(draft: Draft) -> ColumnOut | None:
    """The column of this entry's step alone, even where it will be drawn together with others."""
    reckoning = draft.reckoning
    if reckoning is None or draft.rows not in reckoning.chain.step_entries:
        return None
    step = reckoning.chain.step_entries.index(draft.rows) + 1
    column = lay_out_step(reckoning.sheet, step)
    return show_column(column, reckoning)
