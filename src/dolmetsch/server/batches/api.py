"""The batch API: only maps requests to reads and writes."""

from datetime import date
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.core.costing.strip import lay_out_step
from dolmetsch.server.asking import giving_up
from dolmetsch.server.batches.entries.chain import list_entry_rows
from dolmetsch.server.batches.entries.finishing import is_finished
from dolmetsch.server.batches.entries.raw import ask_heat
from dolmetsch.server.batches.entries.reading_used import ask_sums
from dolmetsch.server.batches.entries.typed import EntryIn, ImportIn, StartIn
from dolmetsch.server.batches.exchange import importing
from dolmetsch.server.batches.exchange.files import CONTENT_TYPES, Form, write_file
from dolmetsch.server.batches.record import actions
from dolmetsch.server.batches.record.actions import Draft, draft_entry, draft_start
from dolmetsch.server.batches.record.helping import refuse_beyond_helping
from dolmetsch.server.batches.record.order import ask_gain
from dolmetsch.server.batches.show.queries import (
    Wanted,
    find_batches,
    get_batch,
    read_batch,
    read_strip_of_piece,
    read_today,
)
from dolmetsch.server.batches.show.schemas import (
    BatchesOut,
    BatchOut,
    BrieflyRecordedOut,
    ColumnOut,
    ImportOut,
    PreviewOut,
    RecordedOut,
    StripOut,
    TodayOut,
    VerdictsOut,
)
from dolmetsch.server.batches.show.showing import show_column, show_house, show_shops
from dolmetsch.server.batches.verdict.index import read_verdicts
from dolmetsch.server.batches.verdict.schemas import MachineIn, PayBackOut, TrialIn, TrialOut, VerdictOut
from dolmetsch.server.batches.verdict.show_verdict import read_verdict
from dolmetsch.server.batches.verdict.trials import read_pay_back, read_trial
from dolmetsch.server.kitchens.queries import kitchen_of, membership_of
from dolmetsch.server.quantities.printing import print_money, print_unit_cost
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

#: A day that a batch may be looked for by.
Day = Annotated[date, Query(ge=date(2000, 1, 1), le=date(2199, 12, 31))]

router = Router(tags=["batches"])


def answer_recorded(recorded: actions.Recorded, *, is_brief: bool = False) -> HttpResponse:
    """201 for what was made now, 200 for a resend of what had been; ``is_brief``: without the batch."""
    page = "" if is_brief else f',"batch":{read_batch(recorded.entry.batch).model_dump_json()}'
    printed = f'{{"entry":{recorded.entry.pk}{page}}}'
    headers = {"Idempotency-Replayed": "true"} if recorded.was_there else {}
    status = 200 if recorded.was_there else 201
    return HttpResponse(printed, status=status, headers=headers, content_type="application/json")


@router.get("/today", response=TodayOut, operation_id="getToday")
@until_next_write
def get_today(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Batches under way."""
    return print_json(read_today(kitchen_of(request, kitchen_slug)))


@router.get("/verdicts", response=VerdictsOut, operation_id="getVerdicts")
@until_next_write
def get_verdicts(
    request: HttpRequest, kitchen_slug: Path[str], page: Annotated[int, Query(ge=1, le=10_000)] = 1
) -> HttpResponse:
    """What finished batches came to, newest first, and what is under way by its forecast."""
    return print_json(read_verdicts(kitchen_of(request, kitchen_slug), page=page))


@router.get("/batches", response=BatchesOut, operation_id="findBatches")
@until_next_write
def list_batches(
    request: HttpRequest,
    kitchen_slug: Path[str],
    words: Annotated[str, Query(max_length=80)] = "",
    is_finished: bool | None = None,
    since: Day | None = None,
    until: Day | None = None,
    page: Annotated[int, Query(ge=1, le=100_000)] = 1,
) -> HttpResponse:
    """Every batch, a page at a time: by words in name, cut or code, by state, and by day of the start."""
    wanted = Wanted(words=words, is_finished=is_finished, since=since, until=until)
    return print_json(find_batches(kitchen_of(request, kitchen_slug), wanted, page=page))


@router.get("/batches/{code}", response=BatchOut, operation_id="getBatch")
@until_next_write
def get_one_batch(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """One batch, whole."""
    return print_json(read_batch(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.post("/batches", response={frozenset({200, 201}): RecordedOut}, operation_id="startBatch")
def start_batch(request: HttpRequest, kitchen_slug: Path[str], body: StartIn, key: Key) -> HttpResponse:
    """Start a batch. 200 for a resend of the same key, 201 for a new one."""
    kitchen = kitchen_of(request, kitchen_slug)
    return answer_recorded(actions.start_batch(write_of(request, kitchen, key), body))


@router.post("/previews/batches", response=PreviewOut, operation_id="previewBatch")
def preview_batch(request: HttpRequest, kitchen_slug: Path[str], body: StartIn) -> PreviewOut:
    """What starting this batch would make; nothing is written."""
    draft = draft_start(kitchen_of(request, kitchen_slug), body, now=timezone.now())
    preview = PreviewOut(readings=draft.reader.readings, problems=draft.reader.problems)
    if draft.costed is not None:
        preview.paid = print_money(draft.costed.sheet.bought.cost)
        preview.bought_cost = print_unit_cost(draft.costed.sheet.bought.cost_per_lb)
    return preview


@router.post(
    "/batches/{code}/entries",
    response={frozenset({200, 201}): RecordedOut | BrieflyRecordedOut},
    operation_id="recordEntry",
)
def record_entry(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: EntryIn, key: Key
) -> HttpResponse:
    """Record an entry or a correction. 200 for a resend of the same key, 201 for a new one.

    With ``Prefer: return=minimal`` the answer names the entry alone.
    """
    membership = membership_of(request, kitchen_slug)
    refuse_beyond_helping(membership, body)
    write = write_of(request, membership.kitchen, key)
    return answer_recorded(actions.record_entry(write, code, body), is_brief=write.is_brief)


@router.post("/previews/batches/{code}/entries", response=PreviewOut, operation_id="previewEntry")
def preview_entry(request: HttpRequest, kitchen_slug: Path[str], code: str, body: EntryIn) -> PreviewOut:
    """What this entry would do; nothing is written."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    draft = draft_entry(batch, list_entry_rows(batch), body, now=timezone.now())
    preview = PreviewOut(readings=draft.reader.readings, problems=draft.reader.problems)
    if draft.costed is None:
        return preview
    is_done = is_finished(batch, draft.costed)
    preview.house = show_house(draft.costed, is_finished=is_done)
    preview.shops = show_shops(draft.costed, is_finished=is_done)
    preview.bought_cost = print_unit_cost(draft.costed.sheet.bought.cost_per_lb)
    preview.paid = print_money(draft.costed.sheet.bought.cost)
    preview.column = _own_column(draft)
    preview.asks = [
        *ask_gain(preview.column),
        *ask_sums(draft.rows.used),
        *ask_heat(draft.rows, draft.costed),
    ]
    return preview


def _own_column(draft: Draft) -> ColumnOut | None:
    """The column of this entry's step alone, even where it will be drawn together with others."""
    costed = draft.costed
    if costed is None or draft.rows not in costed.chain.step_entries:
        return None
    step = costed.chain.step_entries.index(draft.rows) + 1
    column = lay_out_step(costed.sheet, step)
    return show_column(column, costed)


@router.get("/batches/{code}/verdict", response=VerdictOut, operation_id="getVerdict")
@until_next_write
def get_verdict(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """One batch's verdict."""
    return print_json(read_verdict(get_batch(kitchen_of(request, kitchen_slug), code), timezone.now()))


@router.post("/batches/{code}/trial", response=TrialOut, operation_id="tryChanges")
def try_changes(request: HttpRequest, kitchen_slug: Path[str], code: str, body: TrialIn) -> HttpResponse:
    """What the verdict would be with something changed; nothing is written."""
    return print_json(read_trial(get_batch(kitchen_of(request, kitchen_slug), code), body, timezone.now()))


@router.post("/batches/{code}/pay-back", response=PayBackOut, operation_id="getPayBack")
def get_pay_back(request: HttpRequest, kitchen_slug: Path[str], code: str, body: MachineIn) -> PayBackOut:
    """After how many batches like this one a machine is paid; nothing is written."""
    return read_pay_back(get_batch(kitchen_of(request, kitchen_slug), code), body, timezone.now())


@router.get("/batches/{code}/strips/{mark}", response=StripOut, operation_id="getStripOfPiece")
def get_strip_of_piece(request: HttpRequest, kitchen_slug: Path[str], code: str, mark: str) -> StripOut:
    """The strip of one living piece alone."""
    return read_strip_of_piece(get_batch(kitchen_of(request, kitchen_slug), code), mark)


@router.get(
    "/batches/{code}/files/{form}",
    operation_id="getFile",
    openapi_extra=answer_with(*CONTENT_TYPES.values()),
)
def get_file(request: HttpRequest, kitchen_slug: Path[str], code: str, form: Form) -> HttpResponse:
    """One batch to take away: its document (json), its page (pdf), its ledger (csv, xlsx)."""
    batch = get_batch(kitchen_of(request, kitchen_slug), code)
    name = f'attachment; filename="{batch.code}.{form}"'
    return HttpResponse(
        write_file(batch, form, timezone.now()),
        content_type=CONTENT_TYPES[form],
        headers={"Content-Disposition": name},
    )


@router.post("/imports", response={frozenset({200, 201}): ImportOut}, operation_id="importDocument")
def import_document(
    request: HttpRequest, kitchen_slug: Path[str], body: ImportIn, key: Key, dry_run: bool = False
) -> Status[ImportOut]:
    """Make the batches of a document. With ``dry_run`` they are shown and not written: 200, else 201."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    made = importing.import_document(write, body.document, dry_run=dry_run, give_up=giving_up(request))
    return Status(201 if made.written else 200, made)
