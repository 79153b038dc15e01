"""Writes: a fire is begun, and what happens in it."""

import uuid
from collections.abc import Callable, Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Any, Final

from django.db.models import Q

from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES, Course
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import GRAM_PLACES, MONEY_PLACES
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.devices.cooker.lines import MOST_PROBES
from dolmetsch.server.batches.entries.chain import used_record
from dolmetsch.server.batches.entries.chosen_way import methods_of
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.reading_used import read_used
from dolmetsch.server.batches.entries.typed import UsedIn
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.batches.record.courses import state_course
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.fires import schemas
from dolmetsch.server.fires.cooked import how_cooked, inside_at
from dolmetsch.server.fires.models import Fire, FireEvent, FirePiece, Program
from dolmetsch.server.fires.of_batch import course_by_fire, is_cold, leads_to
from dolmetsch.server.fires.queries import cooker_names, get_fire, list_open, list_programs
from dolmetsch.server.fires.story import OUT_KINDS, Story, clock_of, read_story, unit_of
from dolmetsch.server.pieces.actions import put_in_store
from dolmetsch.server.pieces.models import PieceFact
from dolmetsch.server.pieces.queries import NOWHERE, Facts, gather_facts, sorts_of
from dolmetsch.server.pieces.schemas import PlaceIn
from dolmetsch.server.problems import DomainError, refuse_fields
from dolmetsch.server.quantities.lengths import WORD_LENGTH
from dolmetsch.server.quantities.reader import Reader, as_decimal
from dolmetsch.server.quantities.temperatures import read_temperature
from dolmetsch.server.ways.queries import list_latest
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once

PROBES = frozenset(str(number) for number in range(1, MOST_PROBES + 1))
#: So far back a fire may be recorded that was begun without being recorded.
MOST_BACK = timedelta(days=4)
MOST_MINUTES, MOST_PPM = Fraction(14 * 24 * 60), Fraction(10_000)
#: An event may lie so much behind the last one of its kind that comes in order.
_ORDERED = ("stage", "rest", "hold", "cool", "done")


def begin_fire(write: Write, data: schemas.FireIn) -> Fire:
    """Pieces go into the smoke.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def begin() -> Fire:
        reader = Reader.of(write.kitchen)
        unit = unit_of(write.kitchen)
        pieces = _read_pieces(write, data, reader)
        fire = Fire(
            name=data.name or _name(pieces),
            cooker=data.cooker,
            meat=data.meat,
            is_ground=data.ground,
            wood=data.wood,
            meal_at=data.meal_at,
            begun_at=write.now,
            stages=_read_stages(reader, data.stages, unit),
            **write.stamp,
        )
        fire.program = _say_program(write, data.program, fire.stages)
        fire.nitrite_ppm = reader.number(
            "nitrite_ppm", data.nitrite_ppm, what="number of parts per million", limit=MOST_PPM, places=2
        )
        if not data.nitrite_ppm:
            fire.nitrite_ppm = _find_nitrite(piece for piece, _ in pieces)
        fire.pull_at = read_temperature(reader, "pull_at", data.pull_at, unit)
        if data.cooker:
            _refuse_cooker(write, data.cooker, reader)
            # by the cooker's own clock, which a simulated one may have ahead of ours
            fire.begun_at = clock_of(fire)
        if data.begun_at is not None:
            if not fire.begun_at - MOST_BACK <= data.begun_at <= fire.begun_at:
                reader.refuse("begun_at", "odd_time", "A fire was begun within the last four days.")
            fire.begun_at = data.begun_at
        hung = _hang(write, data, pieces, reader)
        becoming = _read_courses(data, fire, [piece for piece, _ in pieces], reader)
        if reader.problems:
            raise refuse_fields(reader.problems)
        fire.save(force_insert=True)
        PieceFact.objects.bulk_create(hung)
        for piece, _ in pieces:
            piece.fire = fire
        FirePiece.objects.bulk_create(piece for piece, _ in pieces)
        _place_probes(write, fire, pieces)
        for batch, course, marks in becoming:
            state_course(write, batch, course, marks=marks)
        return fire

    return keep_once(write, Fire, begin)


def _hang(
    write: Write, data: schemas.FireIn, pieces: list[tuple[FirePiece, schemas.FirePieceIn]], reader: Reader
) -> list[PieceFact]:
    """Where the pieces of a fire lie from now on, by the map: on the racks of its smoker."""
    facts = []
    for index, (piece, one) in enumerate(pieces if data.store else ()):
        stamp = {**write.stamp, "key": uuid.uuid5(write.key, f"rack {index}")}
        fact = PieceFact(batch=piece.batch, mark=piece.mark, **stamp)
        place = PlaceIn(store=data.store, level=one.rack or 1, slot=one.slot or 1)
        put_in_store(fact, place, write, reader, path=f"pieces[{index}].place")
        facts.append(fact)
    return facts


def _read_courses(
    data: schemas.FireIn, fire: Fire, pieces: Sequence[FirePiece], reader: Reader
) -> list[tuple[Batch, Course, list[str]]]:
    """What is now said of ``pieces``, by batch: by the cook, else by the program where nothing was said.

    A program that does not lead to what was said before is asked about.
    """
    by_program, chosen = course_by_fire(fire), next((one for one in COURSES if one == data.course), None)
    known: dict[Batch, Mapping[str, Course | None]] = {}
    said: dict[tuple[Batch, Course], list[str]] = {}
    apart: list[str] = []
    for piece in pieces:
        batch = piece.batch
        if batch not in known:
            costed = cost_batch(batch)
            known[batch] = courses_of(batch, costed.sheet.ledger.mains, costed.chain.current)
        before = known[batch][piece.mark]
        now = chosen or (by_program if before is None else None)
        if before is not None and not data.course and by_program is not None:
            # cooked after a cold smoke, as its method says
            is_by_method = is_cold(fire) and methods_of(batch).get("smoke") == "cold_smoke"
            if not leads_to(fire, before) and not is_by_method:
                apart.append(f"{piece.label} is to become {COURSE_FACTS[before].label}")
        if now is not None:
            said.setdefault((batch, now), []).append(piece.mark)
    if apart and by_program is not None:
        by_it = COURSE_FACTS[by_program].label
        text = f"{'; '.join(apart)}. This program makes it {by_it}. Choose under “Becomes” what it is to be."
        reader.refuse("course", "contradicts", text)
    return [(batch, course, marks) for (batch, course), marks in said.items()]


def _take_down(write: Write, fire: Fire) -> None:
    """Pieces of a fire that is out lie in no smoker of the map any more."""
    pieces = list(fire.pieces.select_related("batch"))
    known, sorts = gather_facts(piece.batch for piece in pieces), sorts_of(write.kitchen)
    for index, piece in enumerate(pieces):
        place = known.get((piece.batch_id, piece.mark), Facts()).place
        if place is not None and sorts.get(same_name(place[0])) == "smoker":
            stamp = {**write.stamp, "key": uuid.uuid5(write.key, f"rack {index}")}
            PieceFact.objects.create(batch=piece.batch, mark=piece.mark, store=NOWHERE, **stamp)


def _find_nitrite(pieces: Iterable[FirePiece]) -> Decimal | None:
    """The least ingoing nitrite of ``pieces`` by their cures here; None where one has none that is known."""
    found = []
    for piece in pieces:
        cures = PieceCure.objects.filter(batch=piece.batch, mark=piece.mark, taken_back=None)
        gauge = next((cure.answer.get("gauge") for cure in cures.order_by("-id")), None)
        if gauge is None or gauge["ppm"] is None:
            return None
        found.append(Decimal(gauge["ppm"]))
    return min(found, default=None)


def _say_program(write: Write, name: str, stages: list[dict[str, Any]]) -> str:
    """The program a fire is begun with, in words; one that is not the kitchen's own by its name alone."""
    own = next((one for one in list_programs(write.kitchen) if one.name == name), None)
    if own is None:
        return name
    return f"{own}, changed" if own.stages != stages else str(own)


def save_program(write: Write, data: schemas.ProgramIn) -> Program:
    """Save the next version of a program.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> Program:
        reader = Reader.of(write.kitchen)
        unit = unit_of(write.kitchen)
        reader.need("name", data.name, "Give the program a name.")
        if data.way and data.way not in {way.name for way in list_latest(write.kitchen)}:
            reader.refuse("way", "unknown", f"There is no method “{data.way}” here.")
        stages = _read_stages(reader, data.stages, unit)
        pull_at = read_temperature(reader, "pull_at", data.pull_at, unit)
        if reader.problems:
            raise refuse_fields(reader.problems)
        name, version = next_version(write, Program, data.name)
        return Program.objects.create(
            name=name,
            version=version,
            stages=stages,
            pull_at=pull_at,
            wood=data.wood,
            way=data.way,
            is_put_away=data.put_away,
            **write.stamp,
        )

    return keep_once(write, Program, save)


def _read_pieces(
    write: Write, data: schemas.FireIn, reader: Reader
) -> list[tuple[FirePiece, schemas.FirePieceIn]]:
    if not data.pieces:
        reader.refuse("pieces", "missing", "Choose at least one piece.")
    batches = {
        batch.code: batch
        for batch in Batch.objects.filter(
            kitchen=write.kitchen, code__in={one.code for one in data.pieces}
        ).order_by("id")
    }
    for batch in batches.values():
        batch.kitchen = write.kitchen
    living = {
        code: {piece.id: piece.grams for piece in cost_batch(batch).sheet.ledger.mains}
        for code, batch in batches.items()
    }
    found: list[tuple[FirePiece, schemas.FirePieceIn]] = []
    probes: set[str] = set()
    for index, one in enumerate(data.pieces):
        path = f"pieces[{index}]"
        if one.code not in batches or one.mark not in living[one.code]:
            reader.refuse(path, "unknown", f"There is no piece {one.mark} in {one.code} now.")
            continue
        if any((other.batch.code, other.mark) == (one.code, one.mark) for other, _ in found):
            reader.refuse(path, "twice", f"{one.code} {one.mark} is in this fire twice.")
            continue
        if one.probe and one.probe not in PROBES:
            reader.refuse(f"{path}.probe", "unknown", f"Probes are numbered 1 to {MOST_PROBES}.")
        if one.probe and one.probe in probes:
            reader.refuse(f"{path}.probe", "twice", f"Probe {one.probe} cannot be in two pieces.")
        probes.add(one.probe)
        piece = FirePiece(
            batch=batches[one.code],
            mark=one.mark,
            rack=one.rack,
            slot=one.slot,
            grams=as_decimal(living[one.code][one.mark], GRAM_PLACES),
        )
        _refuse_elsewhere(piece, path, reader)
        found.append((piece, one))
    return found


def _refuse_elsewhere(piece: FirePiece, path: str, reader: Reader) -> None:
    """A piece hangs in one place: not in two fires, nor two in one slot."""
    others = FirePiece.objects.filter(batch=piece.batch, mark=piece.mark)
    other = others.filter(~Q(fire__events__kind="done")).select_related("fire").first()
    if other is not None:
        reader.refuse(
            path, "elsewhere", f"{piece.label} is in “{other.fire.name}” already; that one is not done."
        )


def _refuse_cooker(write: Write, cooker: str, reader: Reader) -> None:
    if cooker not in cooker_names(write.kitchen):
        reader.refuse("cooker", "unknown", f"There is no cooker “{cooker}” here.")
    for other in list_open(write.kitchen):
        if other.cooker == cooker and read_story(other).out_at is None:
            reader.refuse("cooker", "busy", f"“{other.name}” is in {cooker}; take it out first.")


def _name(pieces: list[tuple[FirePiece, schemas.FirePieceIn]]) -> str:
    names = dict.fromkeys(piece.batch.name for piece, _ in pieces)
    return ", ".join(names)[:80] or "Fire"


def _read_stages(reader: Reader, typed: list[schemas.StageIn], unit: TemperatureUnit) -> list[dict[str, Any]]:
    stages = []
    for index, stage in enumerate(typed or [schemas.StageIn(kind="cook")]):
        path = f"stages[{index}]"
        air = read_temperature(reader, f"{path}.air", stage.air, unit)
        inside = read_temperature(reader, f"{path}.inside", stage.inside, unit)
        minutes = reader.number(
            f"{path}.minutes", stage.minutes, what="number of minutes", limit=MOST_MINUTES, places=0
        )
        if stage.minutes and minutes is not None and not minutes:
            reader.refuse(
                f"{path}.minutes", "zero", "A stage lasts at least a minute; leave it empty for no end."
            )
        if minutes is not None and inside is not None:
            reader.refuse(
                path, "two_ends", "A stage ends after a time or at an inside temperature, not both."
            )
        stages.append(
            {
                "kind": stage.kind,
                "air": None if air is None else str(air),
                "minutes": None if minutes is None else f"{minutes:f}",
                "inside": None if inside is None else str(inside),
            }
        )
    return stages


def _place_probes(write: Write, fire: Fire, pieces: list[tuple[FirePiece, schemas.FirePieceIn]]) -> None:
    for index, (piece, one) in enumerate(pieces):
        if one.probe:
            FireEvent.objects.create(
                fire=fire,
                at=fire.begun_at,
                kind="probe",
                data={"probe": one.probe, "piece": piece.label, "where": one.where},
                **{**write.stamp, "key": uuid.uuid5(write.key, f"probe {index}")},
            )


def record_event(write: Write, fire_id: int, data: schemas.EventIn) -> FireEvent:
    """Something happened in a fire.

    Raises:
        DomainError: not_found, bad_fields, fire_done, key_reused.
    """

    def record() -> FireEvent:
        fire = get_fire(write.kitchen, fire_id)
        story = read_story(fire)
        if story.done_at is not None and data.kind != "note":
            said = "This fire is done. Begin a new one."
            raise DomainError("fire_done", 409, "Not recorded", said)
        reader = Reader.of(write.kitchen)
        now = clock_of(fire)
        at = data.at or now
        if not fire.begun_at <= at <= now:
            reader.refuse("at", "odd_time", "That is before the fire was begun, or has not come yet.")
        content = _read_event(reader, story, data, at=at)
        minutes = reader.number(
            "minutes", data.minutes, what="number of minutes", limit=MOST_MINUTES, places=0
        )
        if minutes is not None:
            content["minutes"] = f"{minutes:f}"
        if reader.problems:
            raise refuse_fields(reader.problems)
        if data.kind == "tender":
            content["inside"] = inside_at(story, at=at)
        if data.kind in OUT_KINDS:
            content |= how_cooked(story, at=at)
            _take_down(write, fire)
        return FireEvent.objects.create(fire=fire, at=at, kind=data.kind, data=content, **write.stamp)

    return keep_once(write, FireEvent, record)


def _read_event(reader: Reader, story: Story, data: schemas.EventIn, *, at: datetime) -> dict[str, Any]:
    """What is kept of an event, by its kind."""
    if data.kind in _ORDERED and any(event.kind in _ORDERED and event.at > at for event in story.events):
        reader.refuse("at", "out_of_order", "Something that came after it is recorded already.")
    read = _READERS.get(data.kind)
    if read is not None:
        return read(reader, story, data)
    if data.kind in _ASKED:
        reader.need("text", data.text, _ASKED[data.kind])
    return {"text": data.text}


def _refuse_import(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    reader.refuse("kind", "unknown", "A log is taken in as a file.")
    return {}


def _read_tender(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    if data.text not in ("no", "nearly", "yes"):
        reader.refuse("text", "unknown", "Tender: no, nearly or yes.")
    return {"text": data.text}


def _read_fuel(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    """Fuel as a cost line; without a price it is noted alone."""
    reader.need("text", data.text, "Say what.")
    if not data.price:
        return {"text": data.text, "amount": data.amount}
    own = Reader.of(story.fire.kitchen)
    used = UsedIn(what=data.text[:WORD_LENGTH], group="fuel", amount=data.amount, price=data.price)
    line = read_used(own, Entry(), 0, used)
    for problem in own.problems:
        reader.refuse(problem.path.removeprefix("used[0]."), problem.code, problem.message)
    cost = None if line is None else used_record(line).cost
    return {
        "text": data.text,
        "amount": data.amount,
        "price": data.price,
        "cost": None if cost is None else fixed(cost, MONEY_PLACES),
    }


def _read_swap(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    for path in ("probe", "other"):
        if story.placed_now(getattr(data, path)) is None:
            reader.refuse(path, "unknown", "That probe is in no piece.")
    if data.probe == data.other:
        reader.refuse("other", "twice", "Choose two probes.")
    return {"probe": data.probe, "other": data.other}


def _read_stage(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    if data.stage is None or data.stage >= len(story.fire.stages):
        reader.refuse("stage", "unknown", "The program has no such stage.")
    if story.out_at is not None:
        reader.refuse("stage", "out", "It is out of the fire.")
    return {"stage": data.stage}


def _read_instant(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    _refuse_unknown_piece(reader, story, data.piece)
    if not data.temp:
        reader.refuse("temp", "missing", "What did it read?")
    fahrenheit = read_temperature(reader, "temp", data.temp, unit_of(story.fire.kitchen))
    return {"piece": data.piece, "fahrenheit": str(fahrenheit), "where": data.where}


def _read_probe(reader: Reader, story: Story, data: schemas.EventIn) -> dict[str, Any]:
    if data.probe not in PROBES:
        reader.refuse("probe", "unknown", f"Probes are numbered 1 to {MOST_PROBES}.")
    _refuse_unknown_piece(reader, story, data.piece)
    return {"probe": data.probe, "piece": data.piece, "where": data.where}


def _refuse_unknown_piece(reader: Reader, story: Story, piece: str) -> None:
    if piece not in {one.label for one in story.fire.pieces.select_related("batch")}:
        reader.refuse("piece", "unknown", "Choose a piece of this fire.")


#: How what is kept of an event is read, by its kind; of others the text alone, asked for by some.
_READERS: Final[dict[str, Callable[[Reader, Story, schemas.EventIn], dict[str, Any]]]] = {
    "probe": _read_probe,
    "swap": _read_swap,
    "stage": _read_stage,
    "instant": _read_instant,
    "tender": _read_tender,
    "fuel": _read_fuel,
    "import": _refuse_import,
}
_ASKED: Final = {"note": "Say what.", "quiet": "Say which alarm."}
