"""Loading the books' part of the demo, through the same actions as anyone's."""

import uuid
from datetime import datetime, timedelta

from dolmetsch.core.statistics.tasting import SCALES
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.books.schemas import ToolIn
from dolmetsch.server.books.tools import buy_tool
from dolmetsch.server.demo import books
from dolmetsch.server.demo.keys import KEYS, write_demo
from dolmetsch.server.diary.actions import write_note
from dolmetsch.server.diary.schemas import NoteIn
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.tastings.actions import begin_trial, hand_in, open_tasting
from dolmetsch.server.tastings.models import Tasting, Trial
from dolmetsch.server.tastings.schemas import CureTrialIn, SheetIn


def load_books(kitchen: Kitchen, cook: User, now: datetime) -> None:
    """A slicer, the weather, two trials and a tasting of one."""
    batches = {batch.name: batch for batch in Batch.objects.filter(kitchen=kitchen)}
    codes = {name: batch.code for name, batch in batches.items()}
    for days, name, paid in books.TOOLS:
        at = now - timedelta(days=days)
        tool = ToolIn(name=name, paid=paid, bought_on=at.date())
        buy_tool(write_demo(kitchen, cook, ["tool", name], at), tool)
    for days, name, text in books.NOTES:
        at = now - timedelta(days=days)
        write = write_demo(kitchen, cook, ["weather", name], at)
        write_note(write, batches[name], NoteIn.model_validate({"text": text, "happened_at": at}))
    tasted = now - timedelta(days=books.TASTED)
    trial = _begin(kitchen, cook, books.BUTCHERS, codes, tasted)
    _taste(open_tasting(write_demo(kitchen, cook, ["tasting"], tasted), trial.pk), tasted)
    _begin(kitchen, cook, books.FOUR_CURES, codes, now - timedelta(days=1))


def _begin(
    kitchen: Kitchen, cook: User, trial: tuple[str, list[books.Side]], codes: dict[str, str], at: datetime
) -> Trial:
    name, sides = trial
    shown = [{"batch": codes[batch], "mark": mark, "what": what} for batch, mark, what in sides]
    data = CureTrialIn.model_validate({"name": name, "sides": shown})
    return begin_trial(write_demo(kitchen, cook, ["trial", name], at), data)


def _taste(tasting: Tasting, at: datetime) -> None:
    for taster, plates, again in books.GUESTS:
        scored = [
            {"code": tasting.codes[letter], **dict(zip(SCALES, scores, strict=True))}
            for letter, scores in zip("ABC", plates, strict=True)
        ]
        sheet = {
            "taster": taster,
            "device": uuid.uuid5(KEYS, taster),
            "plates": scored,
            "again": tasting.codes.get(again, ""),
        }
        hand_in(tasting.token, SheetIn.model_validate(sheet), at + timedelta(minutes=30))
