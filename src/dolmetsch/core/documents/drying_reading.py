"""A ``dolmetsch-drying/1`` document as a hanging piece's log."""

from fractions import Fraction
from typing import Final

from dolmetsch.core.documents.cook_reading import read_unit, refuse_out_of_order
from dolmetsch.core.documents.node import Node
from dolmetsch.core.drying.drying_log import (
    ChamberReading,
    Cut,
    DryingLog,
    Ferment,
    HookWeighing,
    PhReading,
)
from dolmetsch.core.numbers.temperature import TemperatureUnit

FORMAT: Final = "dolmetsch-drying/1"
_HIGHEST_PH: Final = 14


def read_drying(document: object) -> tuple[DryingLog, Fraction | None]:
    """The log of a parsed document, whole, and the time at which to look at it (None: at its end).

    Raises:
        DocumentError: a value that cannot be read.
    """
    head = Node(document)
    if not isinstance(document, dict):
        Node(document, "document").refuse(f"{head.found} is not an object; a drying log is one")
    found = head.get("format")
    if found.value != FORMAT:
        found.refuse(f"{found.found} is not “{FORMAT}”", reason="format")
    unit_node, scale, until = head.find("unit"), head.find("scale"), head.find("until")
    unit: TemperatureUnit = read_unit(unit_node) if unit_node else "F"
    if (piece := head.find("piece")) is not None:
        piece.text()
    hung_at = head.get("hung_at").moment()
    chamber = tuple(sorted(_list_chamber(head, unit), key=lambda one: one.at))
    ferment = head.find("ferment")
    log = DryingLog(
        unit=unit,
        green=head.get("green").weight(),
        hung_at=hung_at,
        target_loss=_read_target(head.get("target_loss")),
        weighings=_read_weighings(head.get("weighings"), hung_at),
        scale_grams=scale.weight() if scale else Fraction(1),
        cuts=tuple(sorted((_read_cut(node) for node in _items(head, "cuts")), key=lambda one: one.at)),
        chamber=chamber,
        ph=tuple(sorted((_read_ph(node) for node in _items(head, "ph")), key=lambda one: one.at)),
        ferment=_read_ferment(ferment, unit, chamber) if ferment else None,
    )
    return log, until.moment() if until else None


def _items(head: Node, key: str) -> list[Node]:
    listed = head.find(key)
    return listed.items(empty=True) if listed else []


def _read_target(node: Node) -> Fraction:
    target = node.share("the target loss")
    if not 0 < target < 1:
        node.refuse(f"{node.found} is not between 0 and 1: a piece loses part of its weight", reason="zero")
    return target


def _read_weighings(listed: Node, hung_at: Fraction) -> tuple[HookWeighing, ...]:
    nodes = listed.items(empty=True)
    weighings = [
        HookWeighing(at=node.get("at").moment(), grams=node.get("weight").weight()) for node in nodes
    ]
    refuse_out_of_order(zip(nodes, (one.at for one in weighings), strict=True))
    for node, weighing in zip(nodes, weighings, strict=True):
        if weighing.at < hung_at:
            node.get("at").refuse("is before the piece was hung", reason="before_hung")
    return tuple(weighings)


def _read_cut(node: Node) -> Cut:
    before, after = node.get("before").weight(), node.get("after").weight()
    if after > before:
        node.get("after").refuse("weighs more than it did before the cut", reason="overweight")
    return Cut(at=node.get("at").moment(), before=before, after=after)


def _list_chamber(head: Node, unit: TemperatureUnit) -> list[ChamberReading]:
    readings = []
    for node in _items(head, "chamber"):
        temp, humidity = node.find("temp"), node.find("humidity")
        readings.append(
            ChamberReading(
                at=node.get("at").moment(),
                fahrenheit=temp.temperature(unit) if temp else None,
                humidity=humidity.share("humidity") if humidity else None,
            )
        )
    return readings


def _read_ph(node: Node) -> PhReading:
    ph = node.get("ph")
    value = ph.number("pH")
    if value > _HIGHEST_PH:
        ph.refuse(f"{ph.found} is no pH: they go from 0 to 14", reason="out_of_range")
    return PhReading(at=node.get("at").moment(), ph=value)


def _read_ferment(node: Node, unit: TemperatureUnit, chamber: tuple[ChamberReading, ...]) -> Ferment:
    temp = node.find("temp")
    if temp is None and all(one.fahrenheit is None for one in chamber):
        node.get("temp")
    return Ferment(start=node.get("from").moment(), fahrenheit=temp.temperature(unit) if temp else None)
