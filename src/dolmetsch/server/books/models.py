"""Machines bought, which are to pay for themselves. Every row is added, none changed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q

from dolmetsch.server.quantities.columns import money_check, money_field
from dolmetsch.server.quantities.lengths import REASON_LENGTH, TYPED_LENGTH, WORD_LENGTH
from dolmetsch.server.writing.kept import Kept


class Tool(Kept):
    """A machine, such as a slicer: what was paid for it, and on which day."""

    name = models.CharField(max_length=WORD_LENGTH)
    paid = money_field()
    paid_typed = models.CharField(max_length=TYPED_LENGTH)
    bought_on = models.DateField()

    class Meta(Kept.Meta):
        abstract = False
        constraints: ClassVar = [
            *Kept.Meta.constraints,
            money_check("tool_paid", "paid"),
            models.CheckConstraint(name="tool_named", condition=~Q(name="")),
        ]

    def __str__(self) -> str:
        return self.name


class ToolCanceled(Kept):
    """A machine that was recorded by mistake."""

    tool = models.OneToOneField(Tool, on_delete=models.PROTECT, related_name="canceled")
    reason = models.CharField(max_length=REASON_LENGTH)

    def __str__(self) -> str:
        return f"{self.tool_id} canceled"
