"""The schools of curing: how meat and salt are brought together, and what is usual in each."""

from dataclasses import dataclass
from typing import Final, Literal

from dolmetsch.core.curing.cure import Method
from dolmetsch.core.ledger.course import Course

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


#: By which rule a school's days go: of the piece's size, of its pounds, of a day per pound in the box, of a
#: brine, mixed through, injected and covered, or injected alone.
TimeRule = Literal["size", "pound", "box", "brine", "mixed", "cover", "injected"]
#: Where the salt that counts comes from: all of it as the recipe says; the recipe's beside what the curing
#: salt brings; or the box, so that only the curing salt is weighed out.
SaltRule = Literal["all", "beside", "box"]
#: What a recipe of a school has to say: each is shown as a field, or says how one is read.
SchoolField = Literal[
    "agent",
    "packet",
    "spoons",
    "box",
    "tub",
    "brine",
    "water",
    "pump",
    "pick_up",
    "spare",
    "stages",
    "spices_later",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Begins:
    """Amounts to begin a recipe with, as they would be typed. Of ``target`` and ``agent_amount`` only one."""

    salt: str = "2.5 %"
    sugar: str = "1 %"
    salt_name: str = "coarse salt"
    sugar_name: str = "brown sugar"
    has_target: bool = True
    agent: str = ""
    agent_amount: str = ""
    water: str = ""
    pump: str = ""
    box: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """A school of curing.

    ``method`` is how its nitrite is computed; ``yield_method`` the name its yields are kept under; ``time``
    the rule its days go by; ``salt`` which salt counts; ``shows`` what its recipes say; ``begins`` the usual
    amounts; ``how`` what one does; ``inside`` and ``over`` are said of a day inside and past the window;
    ``turn_days``: turned every so many days (0: not at all). ``course``: what is cured so usually becomes,
    where nobody said.
    """

    key: SchoolKey
    label: str
    method: Method
    yield_method: str
    time: TimeRule
    salt: SaltRule = "all"
    shows: frozenset[SchoolField] = frozenset({"agent"})
    begins: Begins = Begins()
    how: str
    inside: str
    over: str
    turn_days: int
    course: Course | None = None


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
            time="size",
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
            time="pound",
            salt="beside",
            shows=frozenset({"agent", "spoons"}),
            begins=Begins(salt="2 tsp/lb", sugar="1 tsp/lb", has_target=False, agent_amount="1 tsp for 5 lb"),
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
            time="box",
            salt="box",
            shows=frozenset({"agent", "box"}),
            begins=Begins(salt="", sugar="", box="100 %"),
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
            time="brine",
            shows=frozenset({"agent", "tub", "brine", "water", "pick_up", "stages"}),
            begins=Begins(water="100 %"),
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
            time="injected",
            shows=frozenset({"agent", "brine", "pump", "spare"}),
            begins=Begins(salt="2 %", pump="10 %"),
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
            time="cover",
            shows=frozenset({"agent", "tub", "brine", "water", "pump", "stages"}),
            begins=Begins(pump="10 %", water="80 %"),
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
            time="size",
            salt="beside",
            shows=frozenset({"agent", "packet"}),
            begins=Begins(
                salt="", sugar="", has_target=False, agent="complete", agent_amount="25 g for 1 kg"
            ),
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
            time="size",
            shows=frozenset({"agent", "stages", "spices_later"}),
            begins=Begins(salt="2.8 %"),
            course="air_dried",
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
            time="mixed",
            begins=Begins(
                salt="2.7 %",
                sugar="0.3 %",
                salt_name="kosher salt",
                sugar_name="dextrose",
                has_target=False,
                agent_amount="0.25 %",
            ),
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
            time="size",
            shows=frozenset(),
            begins=Begins(has_target=False, agent="none"),
            how=f"Salt and sugar only, in a bag, at {COLD}. Turn and rub every day.",
            inside="It keeps a shorter time than cured meat: leave it in no longer than it needs.",
            over="Take it out and use it soon: without nitrite a long stay is a risk, not a gain.",
            turn_days=1,
        ),
    )
}
