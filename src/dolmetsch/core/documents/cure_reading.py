"""A ``dolmetsch-cure/1`` document as a cure."""

from fractions import Fraction
from typing import Final, cast

from dolmetsch.core.curing.cure import Cure, Method, Product
from dolmetsch.core.documents.node import Node
from dolmetsch.core.reference.nitrite import PICK_UP_RATIO

FORMAT: Final = "dolmetsch-cure/1"


def read_cure(document: object) -> Cure:
    """The cure of a parsed document.

    Raises:
        DocumentError: a value that cannot be read.
    """
    head = Node(document)
    if not isinstance(document, dict):
        Node(document, "document").refuse(f"{head.found} is not an object; a cure document is one")
    found = head.get("format")
    if found.value != FORMAT:
        found.refuse(f"{found.found} is not “{FORMAT}”", reason="format")
    method = head.get("method").one_of("dry", "brine", "pump", "pump_and_brine")
    agent = head.get("agent")
    nitrite, product, skin_on = agent.find("nitrite"), head.find("product"), head.find("skin_on")
    wanted = product.one_of("bacon", "whole_muscle", "comminuted") if product else None
    target, amount = head.find("target_ppm"), head.find("agent_amount")
    pick_up = _ratio(head, "pick_up")
    return Cure(
        method=cast(Method, method),
        meat=head.get("meat").weight(),
        water=_water(head, method),
        pump=_pump(head, method),
        pick_up=PICK_UP_RATIO if pick_up is None else pick_up,
        nitrite=nitrite.ratio() if nitrite else None,
        nitrate=_ratio(agent, "nitrate") or Fraction(0),
        target_ppm=target.plain("parts per million are text with a plain number, like “120”")
        if target
        else None,
        agent_amount=amount.weight() if amount else None,
        salt=_ratio(head, "salt") or Fraction(0),
        sugar=_ratio(head, "sugar") or Fraction(0),
        scale=_weight(head, "scale"),
        product=cast(Product | None, wanted),
        skin_on=skin_on.truth() if skin_on else False,
    )


def _water(head: Node, method: str) -> Fraction:
    if method != "dry":
        return head.get("water").weight()
    return _weight(head, "water") or Fraction(0)


def _pump(head: Node, method: str) -> Fraction | None:
    if "pump" in method:
        return head.get("pump").ratio(zero=False)
    return _ratio(head, "pump")


def _ratio(node: Node, key: str) -> Fraction | None:
    found = node.find(key)
    return found.ratio() if found else None


def _weight(node: Node, key: str) -> Fraction | None:
    found = node.find(key)
    return found.weight() if found else None
