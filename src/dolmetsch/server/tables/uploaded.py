"""Spreadsheets as uploaded: cells, how their columns are matched, how far they are written."""

from typing import Any

from django.db import models

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.lengths import FILE_NAME_LENGTH

#: So many of its first rows are shown.
SAMPLE = 8


class UploadedTable(models.Model):
    """A spreadsheet that is written piece by piece, once its match was confirmed.

    ``table`` holds the rows below the heads, each with its number first; ``next_row`` is the first one not
    written yet, and ``match`` is empty until it was confirmed.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.PROTECT, related_name="+")
    name = models.CharField(max_length=FILE_NAME_LENGTH)
    heads = models.JSONField()
    table = models.JSONField()
    rows_count = models.PositiveIntegerField()
    notes = models.JSONField(default=list)
    match = models.JSONField(default=dict)
    next_row = models.PositiveIntegerField(default=0)
    added = models.PositiveIntegerField(default=0)
    known = models.PositiveIntegerField(default=0)
    faulty = models.PositiveIntegerField(default=0)
    uploaded_at = models.DateTimeField()
    uploaded_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    key = models.UUIDField()
    fingerprint = models.CharField(max_length=64)

    class Meta:
        abstract = True

    def show_progress(self) -> dict[str, Any]:
        """What it holds and how far it is, as every kind of upload shows it."""
        return {
            "id": self.pk,
            "name": self.name,
            "heads": self.heads,
            "first": [[str(cell) for cell in row[1:]] for row in self.table[:SAMPLE]],
            "rows": self.rows_count,
            "notes": self.notes,
            "next_row": self.next_row,
            "added": self.added,
            "known": self.known,
            "faulty": self.faulty,
            "is_done": self.next_row >= self.rows_count,
        }
