"""A batch as a file to take away."""

from datetime import datetime
from typing import Final, Literal

from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.exchange.exporting import export_batch
from dolmetsch.server.batches.exchange.papers.page import write_pdf
from dolmetsch.server.batches.exchange.papers.tables import build_tables
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.showing import show_batch
from dolmetsch.server.batches.verdict.show_verdict import show_verdict
from dolmetsch.server.tables.writing import TABLE_TYPES, write_tables

Form = Literal["json", "pdf", "csv", "xlsx"]
CONTENT_TYPES: Final[dict[str, str]] = {**TABLE_TYPES, "pdf": "application/pdf"}


def write_file(batch: Batch, form: Form, now: datetime) -> bytes:
    """The batch document (``json``), its page (``pdf``), or its ledger (``csv``, ``xlsx``)."""
    if form == "json":
        return export_batch(batch)
    rows = list_entry_rows(batch)
    costed = cost_chain(build_chain(batch, rows))
    shown, verdict = show_batch(batch, rows, costed), show_verdict(batch, rows, costed, now=now)
    if form == "pdf":
        return write_pdf(shown, verdict, kitchen=batch.kitchen, now=now)
    tables = build_tables(shown, verdict, kitchen=batch.kitchen)
    return write_tables(tables, form)
