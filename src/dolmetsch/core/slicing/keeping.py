"""How long a pack keeps: the shortest time its row of the chart gives, from when it was chilled or thawed."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final, Literal

from dolmetsch.core.curing.cure import Product
from dolmetsch.core.ledger.kinds import method_kinds
from dolmetsch.core.reference.keeping import KEEPING, Keeps

State = Literal["frozen", "thawed", "open", "chilled"]
_CURING: Final = frozenset({"cure"})
_DRYING: Final = frozenset({"dry", "ferment"})


def keeps_like(kinds: Collection[str], *, product: Product, is_raw: bool) -> Keeps | None:
    """The row of the chart a piece keeps by, from the ``kinds`` of step it went through.

    None where it has none: what is dried or fermented keeps by how far it was dried, which it does not say.
    """
    done = method_kinds(kinds)
    if done & _DRYING:
        return None
    if product == "comminuted":
        return "raw_sausage" if is_raw else "sausage"
    if not done & _CURING:
        return "fresh" if is_raw else "cooked"
    if product == "bacon":
        return "bacon"
    # a cured whole muscle that is raw keeps no shorter than fresh meat
    return "fresh" if is_raw else "ham"


@dataclass(frozen=True, slots=True, kw_only=True)
class KeepUntil:
    """The last day of a pack, by ``source``; ``is_quality``: it is then no longer at its best, but safe."""

    day: date
    is_quality: bool
    source: str


def keep_until(
    keeps: Keeps | None, state: State, *, packed: date, frozen: date | None, chilled: date | None
) -> KeepUntil | None:
    """The last day of a pack that is in ``state``; None where the chart says nothing of it.

    ``frozen``: since when it is frozen. ``chilled``: since when it was thawed or opened; else it counts from
    the day it was ``packed``.
    """
    if keeps is None:
        return None
    row = KEEPING[keeps]
    if state == "frozen":
        return KeepUntil(
            day=(frozen or packed) + timedelta(days=row.frozen[0]), is_quality=True, source=row.source
        )
    since = chilled or packed
    return KeepUntil(day=since + timedelta(days=row.chilled[0]), is_quality=False, source=row.source)
