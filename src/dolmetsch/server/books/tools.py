"""Machines that are to pay for themselves: what they cost, and what was saved since."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from fractions import Fraction

from django.utils import timezone

from dolmetsch.server.batches.models import ShopSaving
from dolmetsch.server.books import schemas
from dolmetsch.server.books.models import Tool, ToolCanceled
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.days import midnight_of
from dolmetsch.server.quantities.printing import print_money, sign_of
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once


@dataclass(frozen=True, slots=True, kw_only=True)
class Saved:
    """What a batch saved when it was finished; below zero: lost. ``code``: where it is asked for."""

    batch: int
    at: datetime
    amount: Decimal
    code: str = ""


def list_tools(kitchen: Kitchen, saved: Sequence[Saved]) -> list[schemas.ToolOut]:
    """The machines, the first bought first, by what of ``saved`` came since."""
    tools = Tool.objects.filter(kitchen=kitchen, canceled__isnull=True).order_by("bought_on", "id")
    shown = []
    for tool in tools:
        since = midnight_of(tool.bought_on)
        shown.append(_show(tool, [one for one in saved if one.at >= since]))
    return shown


def list_saved(kitchen: Kitchen, names: Sequence[str]) -> list[Saved]:
    """What batches saved beside a pack of ``names``, once each, as they were finished, from the index."""
    rows = ShopSaving.objects.filter(kitchen=kitchen, name__in=names)
    found: dict[int, Saved] = {}
    for batch, at, amount in rows.order_by("name", "finished_at", "batch").values_list(
        "batch", "finished_at", "saved"
    ):
        if batch not in found:
            found[batch] = Saved(batch=batch, at=at, amount=amount)
    return sorted(found.values(), key=lambda one: (one.at, one.batch))


def _money(amount: Decimal) -> str:
    return print_money(Fraction(amount))


def _show(tool: Tool, saved: Sequence[Saved]) -> schemas.ToolOut:
    paid, total = tool.paid, Decimal(0)
    paid_on = None
    for one in saved:
        total += one.amount
        if paid_on is None and total >= paid:
            paid_on = timezone.localdate(one.at)
    sign = sign_of(tool.kitchen.currency)
    count = "one batch" if len(saved) == 1 else f"{len(saved)} batches"
    if paid_on is not None:
        said = f"has paid for itself since {paid_on:%B %Y}"
    elif not saved:
        said = "has earned nothing back yet: no batch was finished since"
    elif total < 0:
        said = f"has earned nothing back: {count} since lost {sign}{_money(-total)} together"
    else:
        said = f"has earned back {sign}{_money(total)} of {sign}{_money(paid)}, in {count} since"
    return schemas.ToolOut(
        id=tool.pk,
        name=tool.name,
        paid=_money(paid),
        bought_on=tool.bought_on,
        saved_since=_money(total),
        batches_since=len(saved),
        paid_on=paid_on,
        said=said,
    )


def buy_tool(write: Write, data: schemas.ToolIn) -> Tool:
    """Record a machine that was bought.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def make() -> Tool:
        reader = Reader.of(write.kitchen)
        reader.need("name", data.name, "Say what was bought.")
        paid = reader.money("paid", data.paid)
        if data.bought_on > write.today:
            reader.refuse("bought_on", "odd_time", "That day is still to come.")
        if reader.problems or paid is None:
            raise refuse_fields(reader.problems)
        return Tool.objects.create(
            name=data.name, paid=paid, paid_typed=data.paid, bought_on=data.bought_on, **write.stamp
        )

    return keep_once(write, Tool, make)


def cancel_tool(write: Write, tool_id: int, data: schemas.ToolGoneIn) -> ToolCanceled:
    """Take a machine back that was recorded by mistake.

    Raises:
        DomainError: not_found, bad_fields, done_already, key_reused.
    """

    def make() -> ToolCanceled:
        tool = Tool.objects.filter(kitchen=write.kitchen, pk=tool_id).first()
        if tool is None:
            raise not_found("such machine")
        reader = Reader.of(write.kitchen)
        if not reader.need("reason", data.reason, "Say why."):
            raise refuse_fields(reader.problems)
        if ToolCanceled.objects.filter(tool=tool).exists():
            raise DomainError("done_already", 409, "Not recorded", "That was canceled already.")
        return ToolCanceled.objects.create(tool=tool, reason=data.reason, **write.stamp)

    return keep_once(write, ToolCanceled, make)
