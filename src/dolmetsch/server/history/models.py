"""Spreadsheets of past batches as uploaded, and how columns of such heads were matched last."""

from typing import ClassVar

from django.db import models

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.quantities.lengths import FILE_NAME_LENGTH


class HistoryFile(models.Model):
    """A spreadsheet: cells, how columns are matched, how far it is written.

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
        constraints: ClassVar = [
            models.UniqueConstraint(name="history_file_key", fields=["kitchen", "key"]),
        ]

    def __str__(self) -> str:
        return self.name


class HistoryMatch(models.Model):
    """How the columns of a spreadsheet with these heads were matched the last time."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")
    digest = models.CharField(max_length=64)
    match = models.JSONField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(name="history_match_once", fields=["kitchen", "digest"])
        ]

    def __str__(self) -> str:
        return self.digest
