"""Reads: everything that happened to a batch, in time order."""

from collections.abc import Callable, Iterator
from fractions import Fraction
from itertools import groupby
from typing import Final

from django.db.models import Exists, Model, OuterRef

from dolmetsch.core.meat.looking_over import LOOKS_BY_KEY
from dolmetsch.server.batches.entries.chain import EntryRows, fetch_cooks, list_entry_rows
from dolmetsch.server.batches.entries.describing import describe, label_entry
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.cures.queries import list_cures
from dolmetsch.server.diary import schemas
from dolmetsch.server.diary.models import Note, Photo
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.fires.models import FirePiece
from dolmetsch.server.fires.of_batch import list_fires_of
from dolmetsch.server.fires.story import unit_of
from dolmetsch.server.fires.words import describe_event, label_stage
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder.models import Packing, Taken
from dolmetsch.server.larder.one_pack import describe_taken
from dolmetsch.server.pieces.models import LookOver, PieceFact
from dolmetsch.server.pieces.queries import NOWHERE, Facts, print_length, show_place, sorts_of
from dolmetsch.server.plans.models import TaskNews
from dolmetsch.server.plans.queries import words_of
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.calendar import print_day
from dolmetsch.server.quantities.printing import print_weight, sign_of

PRODUCT_WORDS = {
    "bacon": "bacon of belly",
    "whole_muscle": "whole muscle",
    "comminuted": "sausage, comminuted",
}
NEWS_WORDS = {"done": "", "moved": "Moved: ", "dropped": "Dropped: ", "open": "Open again: "}
TASTE_WORDS = {"salty": "too salty", "right": "just right", "flat": "flat"}


def read_diary(batch: Batch) -> schemas.DiaryOut:
    """The diary of ``batch``."""
    leaves = [*_show_entries(list_entry_rows(batch), batch.kitchen), *_show_kept(batch)]
    return schemas.DiaryOut(
        code=batch.code,
        name=batch.name,
        cut=batch.summary["cut"],
        pieces=sorted(batch.summary["pieces"]),
        leaves=sorted(leaves, key=lambda leaf: (leaf.happened_at, leaf.recorded_at)),
    )


def _show_fires(batch: Batch) -> Iterator[schemas.LeafOut]:
    """Into and out of each fire, and what was done beside it; readings stay with the fire."""
    unit = unit_of(batch.kitchen)
    for fire, marks in list_fires_of(batch):
        labels = {batch.label_piece(mark) for mark in marks}
        stages = ", ".join(label_stage(stage, unit) for stage in fire.stages)
        yield schemas.LeafOut(
            sort="fire",
            happened_at=fire.begun_at,
            recorded_at=fire.recorded_at,
            by=fire.recorded_by.called,
            title=f"Into the fire: {fire.name}",
            lines=[line for line in (stages, fire.wood) if line],
            marks=marks,
            is_wrong=False,
        )
        for event in fire.events.select_related("recorded_by").order_by("at", "id"):
            if event.kind == "probe" or event.data.get("piece", fire.name) not in {fire.name, *labels}:
                continue
            words = describe_event(event, fire, unit)
            yield schemas.LeafOut(
                sort="fire",
                happened_at=event.at,
                recorded_at=event.recorded_at,
                by=event.recorded_by.called,
                title=f"{words[:1].upper()}{words[1:]}",
                lines=[],
                marks=marks,
                is_wrong=False,
            )


def _show_entries(rows: list[EntryRows], kitchen: Kitchen) -> Iterator[schemas.LeafOut]:
    fetch_cooks(rows)
    latest = {row.root_sequence: row.entry.pk for row in rows}
    for row in rows:
        entry = row.entry
        lines = describe(row, kitchen)
        if entry.reason:
            lines = [*lines, f"because: {entry.reason}"]
        yield schemas.LeafOut(
            sort="entry",
            happened_at=entry.happened_at,
            recorded_at=entry.recorded_at,
            by=entry.recorded_by.called,
            title=label_entry(row),
            lines=lines,
            marks=[line.mark for line in row.weighings],
            is_wrong=latest[row.root_sequence] != entry.pk,
        )


def _show_cures(batch: Batch) -> Iterator[schemas.LeafOut]:
    for cure in list_cures(batch):
        lines = [
            f"{line['name']} {line['grams']} g" for line in cure.answer["lines"] if line["role"] != "water"
        ]
        gauge = cure.answer.get("gauge")
        if gauge and gauge["ppm"] is not None:
            lines.append(f"{gauge['ppm']} ppm of nitrite, limit {gauge['limit']} ({gauge['limit_name']})")
        found = [FindingOut.model_validate(one) for one in cure.answer["cautions"]]
        lines += [one.message for one in found if one.code != "poison"]
        window = f"{print_day(cure.first_at)} to {print_day(cure.last_at)}"
        lines.append(f"to come out {print_day(cure.out_at)} (window {window})")
        back = getattr(cure, "taken_back", None)
        if back is not None:
            lines.append(f"canceled: {back.reason}")
        yield schemas.LeafOut(
            sort="cure",
            happened_at=cure.in_at,
            recorded_at=cure.recorded_at,
            by=cure.recorded_by.called,
            title=f"Into the cure: {cure.answer['school']}",
            lines=lines,
            marks=[cure.mark],
            is_wrong=back is not None,
        )


def _show_tasks(batch: Batch) -> Iterator[schemas.LeafOut]:
    listed = TaskNews.objects.filter(task__batch=batch).select_related("task", "recorded_by").order_by("id")
    for news in listed:
        lines = [TASTE_WORDS[news.taste]] if news.taste else []
        if news.sort == "moved":
            lines.append(f"from {print_day(news.due_before)} to {print_day(news.due_now)}")
        if news.note:
            lines.append(news.note)
        yield schemas.LeafOut(
            sort="task",
            happened_at=news.happened_at,
            recorded_at=news.recorded_at,
            by=news.recorded_by.called,
            title=f"{NEWS_WORDS[news.sort]}{words_of(news.task)}",
            lines=lines,
            marks=news.task.marks,
            is_wrong=False,
        )


def _show_facts(batch: Batch) -> Iterator[schemas.LeafOut]:
    sorts = sorts_of(batch.kitchen)
    for row in PieceFact.objects.filter(batch=batch).select_related("recorded_by").order_by("id"):
        yield schemas.LeafOut(
            sort="fact",
            happened_at=row.recorded_at,
            recorded_at=row.recorded_at,
            by=row.recorded_by.called,
            title=_title_fact(row),
            lines=list(_describe_fact(row, sorts, batch.kitchen)),
            marks=[row.mark],
            is_wrong=False,
        )


def _title_fact(row: PieceFact) -> str:
    if row.thickness_mm or row.length_mm or row.width_mm:
        return "Measured"
    return "Laid" if row.store else "Noted"


def _describe_fact(row: PieceFact, sorts: dict[str, str], kitchen: Kitchen) -> Iterator[str]:
    sizes = []
    for word, size in (("long", row.length_mm), ("wide", row.width_mm), ("thick", row.thickness_mm)):
        length = print_length(size)
        if length is not None:
            text = f"{length.inch} in" if kitchen.weight_unit == "lb" else f"{length.cm} cm"
            sizes.append(f"{text} {word}")
    if sizes:
        yield ", ".join(sizes)
    if row.skin:
        yield f"skin {row.skin}"
    if row.product:
        yield f"cured as {PRODUCT_WORDS[row.product]}"
    if row.store == NOWHERE:
        yield "taken out of its place"
    elif row.store:
        place = show_place(Facts(place=(row.store, row.level or 1, row.slot or 1)), sorts)
        yield f"in {place.text}" if place else row.store


def _show_looks(batch: Batch) -> Iterator[schemas.LeafOut]:
    for row in LookOver.objects.filter(batch=batch).select_related("recorded_by").order_by("id"):
        found = [LOOKS_BY_KEY[key] for key in row.found if key in LOOKS_BY_KEY]
        lines = [f"{look.question.rstrip('?')}: {look.what_to_do}" for look in found] or ["Nothing found."]
        yield schemas.LeafOut(
            sort="look",
            happened_at=row.recorded_at,
            recorded_at=row.recorded_at,
            by=row.recorded_by.called,
            title="Checked",
            lines=[*lines, *([row.note] if row.note else [])],
            marks=[],
            is_wrong=False,
        )


def _show_notes(batch: Batch) -> Iterator[schemas.LeafOut]:
    for row in Note.objects.filter(batch=batch).select_related("recorded_by").order_by("id"):
        yield schemas.LeafOut(
            sort="note",
            happened_at=row.happened_at,
            recorded_at=row.recorded_at,
            by=row.recorded_by.called,
            title="Note",
            lines=row.text.splitlines(),
            marks=[row.mark] if row.mark else [],
            is_wrong=False,
        )


def _show_photos(batch: Batch) -> Iterator[schemas.LeafOut]:
    for row in Photo.objects.filter(batch=batch).select_related("recorded_by").order_by("id"):
        stem = f"/api/kitchens/{batch.kitchen.slug}/photos/{row.pk}"
        yield schemas.LeafOut(
            sort="photo",
            happened_at=row.recorded_at,
            recorded_at=row.recorded_at,
            by=row.recorded_by.called,
            title="Photo",
            lines=[row.note] if row.note else [],
            marks=[row.mark] if row.mark else [],
            is_wrong=False,
            photo=schemas.PhotoOut(
                id=row.pk,
                width=row.width,
                height=row.height,
                large=f"{stem}/large",
                small=f"{stem}/small",
            ),
        )


def _show_packings(batch: Batch) -> Iterator[schemas.LeafOut]:
    unit = batch.kitchen.weight_unit
    for row in Packing.objects.filter(batch=batch).select_related("recorded_by").order_by("id"):
        packs = list(row.packs.select_related("canceled").order_by("number"))
        for product, same in groupby(packs, key=lambda pack: pack.product):
            made = list(same)
            marks = [pack.mark for pack in made]
            weight = print_weight(sum((Fraction(pack.grams) for pack in made), Fraction(0))).say(unit)
            yield schemas.LeafOut(
                sort="pack",
                happened_at=made[0].packed_at,
                recorded_at=row.recorded_at,
                by=row.recorded_by.called,
                title=f"Packed: {product}",
                lines=[f"{len(made)} packs, {weight}", ", ".join(marks)],
                marks=sorted({pack.piece for pack in made}),
                is_wrong=all(hasattr(pack, "canceled") for pack in made),
            )


def _show_takings(batch: Batch) -> Iterator[schemas.LeafOut]:
    unit, sign = batch.kitchen.weight_unit, sign_of(batch.kitchen.currency)
    rows = Taken.objects.filter(pack__batch=batch).select_related(
        "recorded_by", "canceled", "now", "into", "pack"
    )
    for row in rows.order_by("id"):
        yield schemas.LeafOut(
            sort="pack",
            happened_at=row.at,
            recorded_at=row.recorded_at,
            by=row.recorded_by.called,
            title=f"{row.pack.mark}: {describe_taken(row, unit, sign)}",
            lines=[row.canceled.reason] if hasattr(row, "canceled") else [],
            marks=[row.pack.piece],
            is_wrong=hasattr(row, "canceled"),
        )


#: What is kept of a batch beside its entries: its table, how a row names the batch, how it is shown.
_KEPT: Final[tuple[tuple[type[Model], str, Callable[[Batch], Iterator[schemas.LeafOut]]], ...]] = (
    (PieceCure, "batch", _show_cures),
    (TaskNews, "task__batch", _show_tasks),
    (PieceFact, "batch", _show_facts),
    (LookOver, "batch", _show_looks),
    (Note, "batch", _show_notes),
    (Photo, "batch", _show_photos),
    (FirePiece, "batch", _show_fires),
    (Packing, "batch", _show_packings),
    (Taken, "pack__batch", _show_takings),
)


def _show_kept(batch: Batch) -> Iterator[schemas.LeafOut]:
    """Only tables with anything of ``batch`` are read, asked for in one query: few batches have of each."""
    # of most batches nothing was packed: those tables need not be asked
    kept = [one for one in _KEPT if batch.packs_made or one[0] not in (Packing, Taken)]
    asked = [Exists(table._default_manager.filter(**{name: OuterRef("pk")})) for table, name, _show in kept]
    found = Batch.objects.filter(pk=batch.pk).values_list(*asked).get()
    for (_table, _name, show), is_there in zip(kept, found, strict=True):
        if is_there:
            yield from show(batch)


def get_photo(kitchen: Kitchen, photo_id: int) -> Photo:
    """A photo of ``kitchen``.

    Raises:
        DomainError: not_found.
    """
    photo = Photo.objects.filter(kitchen=kitchen, pk=photo_id).first()
    if photo is None:
        raise not_found("such photo")
    return photo
