"""A ``dolmetsch-cook/1`` document as a cook's log."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, cast

from dolmetsch.core.documents.node import Node
from dolmetsch.core.heat.cook_log import CookLog, InstantReading, Phase, PhaseKind, Probe, Reading, Role
from dolmetsch.core.heat.moments import INSTANT
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.reference.heat import Meat

FORMAT: Final = "dolmetsch-cook/1"
#: Words that stand for something else in a reading or in the answer.
_TAKEN: Final = ("at", INSTANT)


@dataclass(frozen=True, slots=True, kw_only=True)
class CookDocument:
    """A log, whole, and the time at which to look at it; None: at its end."""

    log: CookLog
    until: Fraction | None


def read_cook(document: object) -> CookDocument:
    """The log of a parsed document.

    Raises:
        DocumentError: a value that cannot be read.
    """
    head = Node(document)
    if not isinstance(document, dict):
        Node(document, "document").refuse(f"{head.found} is not an object; a cook log is one")
    found = head.get("format")
    if found.value != FORMAT:
        found.refuse(f"{found.found} is not “{FORMAT}”", reason="format")
    unit = read_unit(head.get("unit"))
    probes = _read_probes(head.get("probes"))
    meat, ground, until = head.find("meat"), head.find("ground"), head.find("until")
    pull_at, nitrite, instant = head.find("pull_at"), head.find("nitrite_ppm"), head.find("instant")
    by_hand = tuple(_read_instant(node, unit) for node in (instant.items(empty=True) if instant else ()))
    log = CookLog(
        unit=unit,
        probes=probes,
        readings=_read_readings(head.get("readings"), {probe.id for probe in probes}, unit),
        instant=by_hand,
        named=_read_pieces(head, probes, by_hand),
        phases=_read_phases(head.find("phases")),
        meat=cast(Meat, meat.one_of("pork", "beef", "poultry", "other")) if meat else "other",
        ground=ground.truth() if ground else False,
        pull_at=pull_at.temperature(unit) if pull_at else None,
        nitrite_ppm=nitrite.figure("parts per million") if nitrite else None,
    )
    return CookDocument(log=log, until=until.moment() if until else None)


def read_unit(node: Node) -> TemperatureUnit:
    """The unit of a document's temperatures."""
    return cast(TemperatureUnit, node.one_of("F", "C"))


def refuse_out_of_order(nodes: Iterable[tuple[Node, Fraction]]) -> None:
    """Refuse the first of ``nodes`` that is not later than the one before it.

    Raises:
        DocumentError: same_time or out_of_order, at its path.
    """
    before: Fraction | None = None
    for node, at in nodes:
        if before is not None and at == before:
            node.refuse("is at the same time as the one before it", reason="same_time")
        if before is not None and at < before:
            node.refuse("is earlier than the one before it; they go in order of time", reason="out_of_order")
        before = at


def _read_probes(listed: Node) -> tuple[Probe, ...]:
    probes: list[Probe] = []
    for node in listed.items(empty=True):
        mark, role = node.get("id"), node.find("role")
        piece, where = node.find("piece"), node.find("where")
        if mark.mark() in _TAKEN:
            mark.refuse(f"no probe can be called {mark.found}", reason="taken_word")
        if any(probe.id == mark.value for probe in probes):
            mark.refuse(f"{mark.found} is there already", reason="same_mark")
        probes.append(
            Probe(
                id=mark.mark(),
                role=cast(Role, role.one_of("inside", "air")) if role else "inside",
                piece=piece.text() if piece else "",
                where=where.text() if where else "",
            )
        )
    return tuple(probes)


def _read_readings(listed: Node, known: set[str], unit: TemperatureUnit) -> tuple[Reading, ...]:
    nodes = listed.items(empty=False)
    readings = []
    for node in nodes:
        at = node.get("at").moment()
        values = {}
        for probe, value in node.children():
            if probe == "at":
                continue
            if probe not in known:
                value.refuse("is no probe of “probes”", reason="unknown_probe")
            values[probe] = value.temperature(unit)
        readings.append(Reading(at=at, values=values))
    refuse_out_of_order(zip(nodes, (one.at for one in readings), strict=True))
    return tuple(readings)


def _read_instant(node: Node, unit: TemperatureUnit) -> InstantReading:
    where = node.find("where")
    return InstantReading(
        at=node.get("at").moment(),
        piece=node.get("piece").text(),
        fahrenheit=node.get("temp").temperature(unit),
        where=where.text() if where else "",
    )


def _read_pieces(
    head: Node, probes: Sequence[Probe], by_hand: Sequence[InstantReading]
) -> tuple[str, ...] | None:
    """The pieces that lie in the fire, where the log names them; then no other is read of."""
    listed = head.find("pieces")
    if listed is None:
        return None
    pieces: list[str] = []
    for node in listed.items(empty=True):
        if node.mark() in pieces:
            node.refuse(f"{node.found} is there already", reason="same_mark")
        pieces.append(node.mark())
    named = [(f"probes[{index}]", probe.piece) for index, probe in enumerate(probes)]
    named += [(f"instant[{index}]", one.piece) for index, one in enumerate(by_hand)]
    for path, piece in named:
        if piece and piece not in pieces:
            node = Node(piece, f"{path}.piece")
            node.refuse(f"{node.found} is not among the pieces", reason="unknown_piece")
    return tuple(pieces)


def _read_phases(listed: Node | None) -> tuple[Phase, ...] | None:
    if listed is None or not (nodes := listed.items(empty=True)):
        return None
    return tuple(_read_phase(node) for node in nodes)


def _read_phase(node: Node) -> Phase:
    kind = node.get("kind").one_of("cook", "cold_smoke", "hold", "rest", "cool")
    start, last = node.get("from").moment(), node.find("to")
    end = last.moment() if last else None
    if last is not None and end is not None and end < start:
        last.refuse(f"{last.found} is before the phase begins", reason="ends_before")
    return Phase(kind=cast(PhaseKind, kind), start=start, end=end)
