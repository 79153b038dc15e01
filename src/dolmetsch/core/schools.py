"""The schools of curing: how meat and salt are brought together, and what is usual in each."""

from dataclasses import dataclass
from typing import Final, Literal

from dolmetsch.core.cure import Method

SchoolKey = Literal[
    "measured",
    "spoon",
    "salt_box",
    "brine",
    "injection",
    "inject_cover",
    "ready_mixed",
    "two_stage",
    "plain",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """A school of curing.

    ``method`` is how its nitrite is reckoned; ``yield_method`` the name its yields are kept under;
    ``how`` what one does, ``over`` what is said about leaving it in longer; ``turn_days``: turned every so
    many days (0: not at all).
    """

    key: SchoolKey
    label: str
    method: Method
    yield_method: str
    how: str
    over: str
    turn_days: int


SCHOOLS: Final[dict[str, School]] = {
    school.key: school
    for school in (
        School(
            key="measured",
            label="measured dry cure",
            method="dry",
            yield_method="dry_cure",
            how="In a bag with all that drips; turned and rubbed each day, 34 to 40 °F.",
            over="A few days over do no harm to a measured cure, up to twice the time.",
            turn_days=1,
        ),
        School(
            key="spoon",
            label="rub by spoon",
            method="dry",
            yield_method="dry_cure",
            how="Rubbed in all over, on a rack or in a bag; turned each day, 34 to 40 °F.",
            over="A rub by spoon is not measured to the piece: each day over makes it saltier.",
            turn_days=1,
        ),
        School(
            key="salt_box",
            label="salt box",
            method="dry",
            yield_method="salt_box",
            how="Nitrite rubbed on first, then buried in the box and pressed; pulled by feel, 34 to 40 °F.",
            over="The box always has more salt to give: a day over is a saltier piece. Press it each day.",
            turn_days=2,
        ),
        School(
            key="brine",
            label="brine",
            method="brine",
            yield_method="immersion",
            how="Under the brine and weighed down, turned every other day, 34 to 40 °F.",
            over="Up to the last day it evens out; longer only softens the meat and sours the brine.",
            turn_days=2,
        ),
        School(
            key="injection",
            label="injection",
            method="pump",
            yield_method="pumped",
            how="Cold and all dissolved, a shot every inch and around the bone; then at rest, 34 to 40 °F.",
            over="Rest 12 to 24 hours, then a day or two; longer, it only drips.",
            turn_days=0,
        ),
        School(
            key="inject_cover",
            label="inject and cover",
            method="pump_and_brine",
            yield_method="pumped",
            how="Injected every inch, then under the rest of the brine, weighed down, 34 to 40 °F.",
            over="Ready in four to seven days; a day over makes it a little saltier outside.",
            turn_days=2,
        ),
        School(
            key="ready_mixed",
            label="ready-mixed cure",
            method="dry",
            yield_method="dry_cure",
            how="At the packet's rate for this weight, no other salt; turned each day, 34 to 40 °F.",
            over="The packet's own time counts; a measured rate does no harm for a few days more.",
            turn_days=1,
        ),
        School(
            key="two_stage",
            label="two-stage dry cure",
            method="dry",
            yield_method="dry_cure",
            how="Salt and cure first; wiped off, then spices, and hung. Turned each day, 34 to 40 °F.",
            over="A few days over do no harm to a measured cure, up to twice the time.",
            turn_days=1,
        ),
        School(
            key="plain",
            label="without nitrite",
            method="dry",
            yield_method="dry_cure",
            how="Salt and sugar alone, in a bag; turned and rubbed each day, 34 to 40 °F.",
            over="It keeps a shorter time than cured meat: do not leave it in longer than it needs.",
            turn_days=1,
        ),
    )
}
