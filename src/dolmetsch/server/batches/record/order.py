"""What comes before what, and what weighs more than it can: slips that are asked about or refused."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from fractions import Fraction
from typing import Final

from dolmetsch.server.batches.entries.chain import EntryRows, list_current
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.batches.show.schemas import ColumnOut
from dolmetsch.server.quantities.calendar import print_moment
from dolmetsch.server.quantities.reader import Reader

#: No pumping or brining adds more than a quarter; a weight beyond that is asked about.
MOST_KEPT: Final = Fraction(5, 4)
#: A page gives a time to the minute.
MINUTE: Final = timedelta(minutes=1)
_STEPS: Final = frozenset({Entry.Act.SPLIT, Entry.Act.WEIGH, Entry.Act.MERGE, Entry.Act.DISCARD})


def say_gain(kept: str) -> str:
    """The question about a weight far over the one before it; ``kept`` in per cent."""
    return f"{kept} % of the weight before. Weighed with the tray, or is a digit wrong?"


def ask_gain(column: ColumnOut | None) -> list[str]:
    """What is odd about the weights of a step that is being typed."""
    kept = None if column is None else column.kept_of_step
    return [say_gain(kept)] if kept is not None and Fraction(kept) > 100 * MOST_KEPT else []


def refuse_before_purchase(reader: Reader, entry: Entry, others: Sequence[EntryRows]) -> None:
    """A fault where a step would lie before the meat was bought, or the purchase after a step."""
    current = [row.entry for row in list_current(others)]
    if entry.act == Entry.Act.BOUGHT:
        steps = [one.happened_at for one in current if one.act in _STEPS]
        is_only = not any(one.act == Entry.Act.BOUGHT for one in current)
        if is_only and steps and min(steps) < _from(entry.happened_at):
            said = (
                f"This batch has a step on {print_moment(min(steps))}, before that. Correct that entry first."
            )
            reader.refuse("happened_at", "after_a_step", said)
    elif entry.act in _STEPS:
        refuse_before_meat(reader, "happened_at", entry.happened_at, others)


def refuse_before_meat(reader: Reader, path: str, moment: datetime, entries: Sequence[EntryRows]) -> None:
    """A fault where what is done to the meat at ``moment`` would lie before it was bought."""
    current = [row.entry for row in list_current(entries)]
    bought = [one.happened_at for one in current if one.act == Entry.Act.BOUGHT]
    if bought and moment < _from(min(bought)):
        said = f"The meat was bought on {print_moment(min(bought))}, after that. Correct its date first."
        reader.refuse(path, "before_purchase", said)


def _from(moment: datetime) -> datetime:
    return moment - MINUTE
