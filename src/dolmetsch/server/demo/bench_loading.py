"""Loading the bench's part of the demo, through the same actions as anyone's."""

from datetime import datetime, timedelta

from dolmetsch.server.batches.models import Batch
from dolmetsch.server.cures.actions import put_in, save_recipe
from dolmetsch.server.cures.mixes import make_mix
from dolmetsch.server.cures.typed import CuredPieceIn, MixIn, PutInIn, SaveRecipeIn, WishesIn
from dolmetsch.server.demo import bench
from dolmetsch.server.demo.keys import write_demo
from dolmetsch.server.diary.actions import write_note
from dolmetsch.server.diary.schemas import NoteIn
from dolmetsch.server.hooks.actions import hang
from dolmetsch.server.hooks.actions import write_note as write_note_of_hook
from dolmetsch.server.hooks.schemas import HangIn, HookNoteIn
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.pieces.actions import learn_facts, look_over, save_store
from dolmetsch.server.pieces.schemas import FactsIn, LookOverIn, PlaceIn, StoreIn
from dolmetsch.server.plans.actions import plan_task, record_news
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.plans.schemas import NewsIn, TaskIn


def load_bench(kitchen: Kitchen, cooks: dict[str, User], now: datetime) -> None:
    """Stores, recipes, a mix, sizes and places, four cures under way, and what is due today."""
    maren, odo = cooks["maren"], cooks["odo"]
    batches = {batch.code: batch for batch in Batch.objects.filter(kitchen=kitchen)}
    for batch in batches.values():
        batch.kitchen = kitchen
    for name, sort, levels, slots in bench.STORES:
        store = StoreIn.model_validate({"name": name, "sort": sort, "levels": levels, "slots": slots})
        save_store(write_demo(kitchen, maren, ["store", name], now - timedelta(days=300)), store)
    for recipe in bench.RECIPES:
        data = SaveRecipeIn.model_validate({"recipe": recipe})
        save_recipe(write_demo(kitchen, maren, ["recipe", recipe], now - timedelta(days=200)), data)
    mixed = MixIn(recipe=bench.HOUSE["name"], weight="1.5 kg", note="tin on the spice shelf")
    make_mix(write_demo(kitchen, odo, "mix", now - timedelta(days=20)), mixed)
    for code, mark, sizes, skin, place in bench.FACTS:
        length, width, thickness = sizes
        facts = FactsIn.model_validate(
            {
                "length": length,
                "width": width,
                "thickness": thickness,
                "skin": skin,
                "place": {"store": place[0], "level": place[1], "slot": place[2]},
            }
        )
        write = write_demo(kitchen, odo, ["facts", code, mark], now - timedelta(hours=20))
        learn_facts(write, batches[code], mark, facts)
    _cure_belly(kitchen, maren, batches["B-02"], now)
    _tick_turns(kitchen, odo, batches["B-02"])
    _plan_loin(kitchen, odo, batches["L-01"], now)
    _hang_sausage(kitchen, maren, now)
    for code, days, hours, cook, mark, text in bench.NOTES:
        at = now - timedelta(days=days, hours=hours)
        note = NoteIn(text=text, mark=mark, happened_at=at)
        write_note(write_demo(kitchen, cooks[cook], ["note", text], at), batches[code], note)


def _cure_belly(kitchen: Kitchen, cook: User, batch: Batch, now: datetime) -> None:
    in_at = (now - timedelta(days=4)).replace(hour=8, minute=40, second=0, microsecond=0)
    looked = write_demo(kitchen, cook, "look", in_at - timedelta(days=1))
    look_over(looked, batch, LookOverIn(found=["glands"], note="two small ones by the thin end"))
    for mark, _, thickness, (store, level, slot) in bench.CURED:
        place = PlaceIn(store=store, level=level, slot=slot)
        facts = FactsIn(thickness=thickness, skin="off", place=place)
        learn_facts(write_demo(kitchen, cook, ["facts", batch.code, mark], in_at), batch, mark, facts)
    pieces = [
        CuredPieceIn.model_validate({"mark": mark, "recipe": recipe, "out_day": out})
        for (mark, recipe, _, _), out in zip(bench.CURED, (10, 10, 5, 9), strict=True)
    ]
    data = PutInIn(pieces=pieces, scale="0.1 g", in_at=in_at, wishes=WishesIn(turn_days=1, dry_hours=12))
    put_in(write_demo(kitchen, cook, "put in", in_at), batch, data)


def _tick_turns(kitchen: Kitchen, cook: User, batch: Batch) -> None:
    """The first two days were turned, the third was forgotten."""
    turns = PlannedTask.objects.filter(batch=batch, kind="turn").order_by("due_at", "id")
    days = sorted({task.due_at for task in turns})[:2]
    for task in turns:
        if task.due_at in days:
            at = task.due_at + timedelta(minutes=25)
            write = write_demo(kitchen, cook, ["turn", task.marks, str(task.due_at - days[0])], at)
            record_news(write, task.uid, NewsIn(sort="done", happened_at=at))


def _hang_sausage(kitchen: Kitchen, cook: User, now: datetime) -> None:
    """Two of the sausages hang since they went into the warm; it is noted what the chamber and they did."""
    hung_at = (now - timedelta(days=3)).replace(hour=9, minute=30, second=0, microsecond=0)
    for mark, green in bench.HUNG:
        data = HangIn(code="S-01", mark=mark, green=green, target="38", hung_at=hung_at, chamber="Chamber")
        hook = hang(write_demo(kitchen, cook, ["hang", mark], hung_at), data)
        for hours, kind, content in bench.HOOK_NOTES:
            at = hung_at + timedelta(hours=hours)
            noted = HookNoteIn.model_validate({"kind": kind, "at": at, **content})
            write_note_of_hook(write_demo(kitchen, cook, ["hook", mark, hours, content], at), hook.pk, noted)


def _plan_loin(kitchen: Kitchen, cook: User, batch: Batch, now: datetime) -> None:
    due = now + timedelta(hours=1)
    data = TaskIn(kind="smoke", due_at=due, marks=["A", "B"])
    plan_task(write_demo(kitchen, cook, "smoke", now - timedelta(hours=16)), batch, data)
