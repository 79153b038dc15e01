"""The schools of curing: how meat and salt are brought together, and what is usual in each."""

from dataclasses import dataclass
from typing import Final, Literal

from dolmetsch.core.curing.cure import Method

SchoolKey = Literal[
    "measured",
    "spoon",
    "salt_box",
    "brine",
    "injection",
    "inject_cover",
    "ready_mixed",
    "two_stage",
    "sausage",
    "plain",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """A school of curing.

    ``method`` is how its nitrite is computed; ``yield_method`` the name its yields are kept under;
    ``how`` what one does; ``inside`` and ``over`` are said of a day inside and past the window;
    ``turn_days``: turned every so many days (0: not at all).
    """

    key: SchoolKey
    label: str
    method: Method
    yield_method: str
    how: str
    inside: str
    over: str
    turn_days: int


#: Where a cure lies: below it curing nearly stops, above it meat spoils.
COLD: Final = "34 to 40 °F (1 to 4 °C)"
SCHOOLS: Final[dict[str, School]] = {
    school.key: school
    for school in (
        School(
            key="measured",
            label="measured dry cure",
            method="dry",
            yield_method="dry_cure",
            how=f"In a bag with its juices, at {COLD}. Turn and rub every day.",
            inside="A measured cure takes up no more salt than was weighed out. A few days longer do "
            "no harm.",
            over="Take it out: past twice the time the meat only softens.",
            turn_days=1,
        ),
        School(
            key="spoon",
            label="rub by spoon",
            method="dry",
            yield_method="dry_cure",
            how=f"Rubbed in all over, on a rack or in a bag, at {COLD}. Turn every day.",
            inside="A rub by spoon is not measured to the piece: each extra day makes it saltier.",
            over="Take it out and taste early: it has gone on taking up salt, and may need a soak.",
            turn_days=1,
        ),
        School(
            key="salt_box",
            label="salt box",
            method="dry",
            yield_method="salt_box",
            how=f"Rub the nitrite on first, then bury it in the box and press it, at {COLD}. Pull "
            "it by feel.",
            inside="The box always has more salt to give: each extra day makes a saltier piece. Press "
            "it every day.",
            over="Take it out: the box has gone on salting it. Taste it, and plan a long soak.",
            turn_days=2,
        ),
        School(
            key="brine",
            label="brine",
            method="brine",
            yield_method="immersion",
            how=f"Under the brine and weighed down, at {COLD}. Turn every other day.",
            inside="The salt evens out up to the last day of the window.",
            over="Take it out: longer only softens the meat and sours the brine.",
            turn_days=2,
        ),
        School(
            key="injection",
            label="injection",
            method="pump",
            yield_method="pumped",
            how=f"Cold and fully dissolved, a shot every inch and around the bone; then rest it at {COLD}.",
            inside="Rest 12 to 24 hours, then a day or two.",
            over="Take it out: longer in the rest, it only drips.",
            turn_days=0,
        ),
        School(
            key="inject_cover",
            label="inject and cover",
            method="pump_and_brine",
            yield_method="pumped",
            how=f"Inject every inch, then cover with the rest of the brine and weigh it down, at {COLD}.",
            inside="Ready in four to seven days; an extra day makes the outside a little saltier.",
            over="Take it out: the outside keeps getting saltier while the inside is done.",
            turn_days=2,
        ),
        School(
            key="ready_mixed",
            label="ready-mixed cure",
            method="dry",
            yield_method="dry_cure",
            how=f"At the packet's rate for this weight, no other salt, at {COLD}. Turn every day.",
            inside="The packet's own time counts first. A measured rate does no harm for a few days more.",
            over="Take it out: this is past what the rule and most packets give.",
            turn_days=1,
        ),
        School(
            key="two_stage",
            label="two-stage dry cure",
            method="dry",
            yield_method="dry_cure",
            how="Salt and cure first; then wipe it off, rub on the spices and hang it. Turn every day, "
            f"{COLD}.",
            inside="A measured cure takes up no more salt than was weighed out. A few days longer do "
            "no harm.",
            over="Wipe it off and go on with the spices: past twice the time the meat only softens.",
            turn_days=1,
        ),
        School(
            key="sausage",
            label="sausage",
            method="dry",
            yield_method="dry_cure",
            how="Ground and mixed with all of it until it binds, never over 40 °F (4 °C); then stuffed.",
            inside="Mixed through it is cured at once; a night in the cold lets it bind.",
            over="Stuff it and go on: ground meat spoils sooner than a whole piece.",
            turn_days=0,
        ),
        School(
            key="plain",
            label="without nitrite",
            method="dry",
            yield_method="dry_cure",
            how=f"Salt and sugar only, in a bag, at {COLD}. Turn and rub every day.",
            inside="It keeps a shorter time than cured meat: leave it in no longer than it needs.",
            over="Take it out and use it soon: without nitrite a long stay is a risk, not a gain.",
            turn_days=1,
        ),
    )
}
