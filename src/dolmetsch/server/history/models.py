"""Spreadsheets of past batches as uploaded, and how columns of such heads were matched last."""

from typing import ClassVar

from django.db import models

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.tables.uploaded import UploadedTable


class HistoryFile(UploadedTable):
    """A spreadsheet of past batches as uploaded."""

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
