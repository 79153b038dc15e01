"""The curing salt to begin a recipe with, by its school and by what the piece is and becomes."""

from dataclasses import dataclass
from typing import Final

from dolmetsch.core.curing.cure import Product
from dolmetsch.core.curing.schools import SCHOOLS, SchoolKey
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.reference.nitrite import NITRITE_LIMITS, Limits, limit_for

#: The usual nitrite of meat cured at home, in parts per million (common practice), where the limit allows it.
USUAL_PPM: Final = 150


@dataclass(frozen=True, slots=True, kw_only=True)
class Dose:
    """A curing salt by its key, and its dose as it would be typed: parts per million, or an amount."""

    agent: str
    target: str
    agent_amount: str


def usual_dose(
    school: SchoolKey,
    *,
    product: Product,
    skin_on: bool,
    course: Course | None,
    limits: Limits = NITRITE_LIMITS,
) -> Dose:
    """What is usual: no. 2 where the piece hangs for weeks, else no. 1; and as much as the limit leaves room
    for, in tens of parts per million under it.

    Raises:
        KeyError: no such school.
    """
    facts = SCHOOLS[school]
    is_dried = course is not None and COURSE_FACTS[course].is_dried
    limit = limit_for(product=product, method=facts.method, skin_on=skin_on, limits=limits)
    room = (limit.ppm - 1) // 10 * 10
    return Dose(
        agent=facts.begins.agent or ("no_2" if is_dried else "no_1"),
        target=str(min(USUAL_PPM, room)) if facts.begins.has_target else "",
        agent_amount=facts.begins.agent_amount,
    )
