"""What is asked before a cure is believed, and what is said beside it. Neither blocks a record."""

from collections.abc import Iterator
from fractions import Fraction
from typing import Final

from dolmetsch.core.curing.cure import judge_limit, say_limit
from dolmetsch.core.curing.curing_time import CENTRE_RATIO, CuringTime, centre_on, days_to_centre
from dolmetsch.core.curing.desk_answer import Desk
from dolmetsch.core.curing.recipe import CuredPiece, Recipe
from dolmetsch.core.findings import Finding, care, note, question
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.numbers.exact import GRAMS_PER_LB, fixed, text_beside
from dolmetsch.core.reference.heat import DANGER_SOURCE
from dolmetsch.core.reference.nitrite import (
    CURED_PPM,
    CURED_SOURCE,
    FLOOR_PPM,
    FLOOR_SOURCE,
    INSPECTED_PLANTS,
    MAX_PUMP_RATIO,
    PRACTICE,
)
from dolmetsch.core.reference.sausage import (
    DEXTROSE_LEAST,
    SAUSAGE_FERMENT,
    SAUSAGE_SALT,
    SAUSAGE_SOURCE,
)

#: Salt outside of these, of the meat, is more likely a slip of the pen than a recipe.
SALT_RATIOS: Final = (Fraction(2, 1000), Fraction(10, 100))
#: So much curing salt no. 1 or 2 is a slip: 625 ppm, the highest limit of all, is 1 %.
MAX_AGENT_RATIO: Final = Fraction(1, 100)
#: A ready-mixed cure is used at a few per cent; more is grams per kilogram typed as per cent.
MAX_MIXED_RATIO: Final = Fraction(10, 100)
#: Spoons that hold less than this part of what is wanted are worth a word.
SPOON_SHORT: Final = Fraction(9, 10)
#: Where the salt may well be none, beside the packet's or the box.
_SALT_IS_ELSEWHERE: Final = frozenset({"packet", "box"})
#: What is eaten without being cooked through, or only fried: in words, what it is to be.
_RAW_FATES: Final[dict[Course | None, str]] = {
    "cold_smoked_raw": "cold-smoked",
    "air_dried": "air-dried",
    "fermented_dried": "fermented and dried",
}
#: Steps after which meat is no longer put into a cure.
_PAST_CURING: Final = frozenset({"smoke", "slice", "cook", "steam"})


POISON: Final = care(
    "poison",
    "Curing salt is poisonous by the spoonful. Weigh it on its own and keep it locked away from children. "
    "Selling cured meat may need a written plan: ask your local food authority.",
    source=PRACTICE,
)


def ask(recipe: Recipe, piece: CuredPiece) -> list[Finding]:
    """What to ask of a recipe and a piece before they are believed."""
    asked = [*_ask_salt(recipe, piece), *_ask_agent(recipe, piece), *_ask_extras(recipe)]
    if recipe.pump is not None and recipe.pump > MAX_PUMP_RATIO:
        text = (
            f"A pump of {_percent(recipe.pump)} % is more than meat holds; 8 to 15 % is usual. Is that right?"
        )
        asked.append(question("pump", text))
    done = sorted(piece.kinds & _PAST_CURING)
    if done:
        asked.append(question("piece", f"This piece has already been through: {done[0]}. Cure it now?"))
    return asked


def _ask_salt(recipe: Recipe, piece: CuredPiece) -> Iterator[Finding]:
    low, high = SALT_RATIOS
    salt = recipe.salt
    if salt is None or recipe.mixed is not None:
        return
    if not salt.share and recipe.facts.shows & _SALT_IS_ELSEWHERE:
        return
    # what would be too much in a brine does not dissolve
    most = high if recipe.facts.method == "dry" else 1
    if low <= salt.share <= most:
        return
    is_covered = recipe.facts.method in ("brine", "pump_and_brine")
    base = piece.grams * (1 + recipe.water) if is_covered else piece.grams
    of = "meat and water" if is_covered else "the meat"
    if not salt.share:
        text = "No salt at all, beside what the curing salt brings. Is that right?"
    else:
        meant = f"Did you mean {_percent(salt.share * 100)} %?" if salt.share < low else "Did you mean grams?"
        amount = f"{_percent(salt.share)} % salt is {fixed(salt.share * base, 1)} g for this piece."
        text = f"{amount} Amounts here are percent of {of}. {meant}"
    yield question("salt", text)


def _ask_agent(recipe: Recipe, piece: CuredPiece) -> Iterator[Finding]:
    agent, share = recipe.agent, recipe.agent_share
    if agent is None or share is None:
        return
    amount = f"{_percent(share)} % is {fixed(share * piece.grams, 1)} g for this piece"
    if agent.key in ("no_1", "no_2") and share > MAX_AGENT_RATIO:
        text = f"{amount}, far over any limit for curing salt. Is that right?"
        yield question("agent_amount", text)
    elif agent.is_ready_mixed and share > MAX_MIXED_RATIO:
        text = (
            f"{amount}. Did you mean {_percent(share * 100 / 1000)} % ({_percent(share)} g for each "
            "kilogram)?"
        )
        yield question("agent_amount", text)


def _ask_extras(recipe: Recipe) -> Iterator[Finding]:
    """Curing salt among the extras: its nitrite would be counted nowhere."""
    for extra in recipe.extras:
        if extra.is_agent:
            text = (
                f"“{extra.name}” stands among the other ingredients, where its nitrite is not counted. "
                "If it is a curing salt, choose it as the curing salt. Leave it here?"
            )
            yield question("extras", text)


def caution(recipe: Recipe, piece: CuredPiece, desk: Desk) -> list[Finding]:
    """What to mind with this cure, the gravest first."""
    cautions = [
        *_over_limit(desk),
        *_little_nitrite(recipe, piece, desk),
        *_wrong_agent(recipe, piece),
        *_sausage(recipe, piece),
        *_measuring(recipe, desk),
        *_amounts(piece, desk),
    ]
    if recipe.agent is not None:
        cautions.append(POISON)
    return cautions


def caution_days(piece: CuredPiece, time: CuringTime, day: int) -> list[Finding]:
    """What to mind with taking the piece out on ``day``: thickness not measured, the center not cured."""
    if time.asks_thickness:
        text = "The thickness is not measured, so these days go by weight alone. Measure the thickest part."
        return [note("no_thickness", text, source=PRACTICE)]
    center = centre_on(time, day)
    if center is None or center >= CENTRE_RATIO or piece.thickness_mm is None:
        return []
    needed = days_to_centre(piece.thickness_mm, skin_on=piece.skin_on)
    text = (
        f"On day {day} the center has about {center * 100:.0f} % of the salt outside; "
        f"{CENTRE_RATIO * 100:.0f} % takes about {needed:.0f} days. Leave it longer, or cut it thinner."
    )
    return [care("center", text, source="diffusion estimate; common practice decides by feel")]


def _over_limit(desk: Desk) -> Iterator[Finding]:
    mix = desk.mix
    if desk.ppm is None or mix.limit_ppm is None or mix.limit_source is None:
        return
    if (found := judge_limit(desk.ppm, mix)) is not None:
        yield found
    elif desk.ppm_high is not None and desk.ppm_high > mix.limit_ppm:
        text = (
            f"Measured no better than this it may be {text_beside(desk.ppm_high, mix.limit_ppm)} "
            f"ppm, over the limit of {say_limit(mix)}."
        )
        yield care("maybe_over", text, source=mix.limit_source)


def _little_nitrite(recipe: Recipe, piece: CuredPiece, desk: Desk) -> Iterator[Finding]:
    """What too little nitrite means for what becomes of the piece, by the parts per million really
    brought.
    """
    fates = [_RAW_FATES[piece.course]] if piece.course in _RAW_FATES else []
    if piece.is_kept_warm:
        fates.append("kept warm")
    if desk.ppm is None:
        text = "How much nitrite is in it is not known, so neither are its parts per million."
        if recipe.agent is not None and recipe.agent.nitrite is None:
            text = f"{text} Keep to the packet's rate."
        yield care("unknown", text, source=PRACTICE)
        for fate in fates:
            text = (
                f"It is to be {fate}, and nobody knows whether it has nitrite enough for that: cook "
                "it through instead."
            )
            yield care("unknown_nitrite", text, source=CURED_SOURCE)
    elif desk.ppm < CURED_PPM:
        much = f"only {fixed(desk.ppm, 0)} ppm of nitrite" if desk.ppm else "no nitrite"
        for fate in fates:
            text = (
                f"It is to be {fate} with {much}: never without at least {CURED_PPM} ppm. Cook it "
                "through, or cure it."
            )
            yield care("no_nitrite", text, source=CURED_SOURCE)
    if piece.is_kept_warm:
        text = (
            "A day or two at 66 to 68 °F is what some schools do. Uncooked meat between 40 and 140 °F is in"
            " the danger zone (2 hours in all for meat without a cure): no longer than it needs; note it."
        )
        yield care("kept_warm", text, source=DANGER_SOURCE)
    if desk.ppm is not None and not desk.ppm:
        text = "Without nitrite it turns out grayer and keeps a shorter time: as fresh meat, salted."
        yield note("plain", text, source=PRACTICE)


def _wrong_agent(recipe: Recipe, piece: CuredPiece) -> Iterator[Finding]:
    """One advice, by what becomes of the piece: dried for long no. 2, everything else no. 1."""
    agent = recipe.agent
    if agent is None:
        return
    if piece.is_to_be_dried:
        if agent.key == "no_1":
            text = (
                "Hung longer than about 30 days it needs no. 2, whose nitrate lasts. No. 1 is for pieces "
                "done within weeks."
            )
            yield care("dried_long", text, source=PRACTICE)
    elif agent.nitrate and piece.product == "bacon":
        text = (
            f"There is nitrate in {agent.label}: it is not allowed in bacon in US inspected plants. "
            "Use no. 1."
        )
        yield care("nitrate_in_bacon", text, source=INSPECTED_PLANTS)
    elif agent.nitrate:
        text = (
            f"{agent.label.capitalize()} is for {agent.purpose}; its nitrate has no time to work "
            "here. Use no. 1."
        )
        yield note("nitrate_too_soon", text, source=PRACTICE)


def _sausage(recipe: Recipe, piece: CuredPiece) -> Iterator[Finding]:
    """What is usual in a sausage, and how it is kept and followed."""
    if recipe.facts.time != "mixed":
        return
    low, high = SAUSAGE_SALT
    if recipe.salt is not None and not low <= recipe.salt.share <= high:
        text = f"Sausage is usually salted at {_percent(low)} to {_percent(high)} % of the meat."
        yield note("sausage_salt", text, source=SAUSAGE_SOURCE)
    yield care(
        "mixed_cold",
        f"Keep it under 40 °F while it is ground and mixed. {SAUSAGE_FERMENT}",
        source=SAUSAGE_SOURCE,
    )
    if piece.is_to_be_dried and (recipe.sugar is None or recipe.sugar.share < DEXTROSE_LEAST):
        text = "A culture needs something to live on: 0.2 to 0.5 % dextrose is usual."
        yield note("dextrose", text, source=SAUSAGE_SOURCE)


def _measuring(recipe: Recipe, desk: Desk) -> Iterator[Finding]:
    """How well scale or spoons measure the agent."""
    mix, spoons = desk.mix, desk.spoons
    if mix.scale_too_coarse and mix.agent_error is not None and desk.smallest_grams is not None:
        text = (
            f"The scale may be {fixed(mix.agent_error * 100, 0)} % off on this much curing agent: too "
            "coarse. "
            f"Good enough for pieces of {_both(desk.smallest_grams)} or more; use a finer scale, or "
            "mix for several."
        )
        yield care("coarse", text, source="a scale's half step over 5 % of the agent")
    if spoons is None:
        return
    if spoons.is_too_coarse:
        text = (
            f"{fixed(spoons.wanted, 2)} g of curing salt is less than the smallest spoon holds (¼ tsp "
            "is about "
            f"{fixed(spoons.smallest, 1)} g). Weigh it. A ¼ tsp fits pieces of "
            f"{_both(spoons.fits_from_grams)} or more."
        )
        yield care("spoon_coarse", text, source=PRACTICE)
    elif spoons.grams < SPOON_SHORT * spoons.wanted:
        text = (
            f"In quarter teaspoons, rounded down, {fixed(spoons.grams, 1)} g of the "
            f"{fixed(spoons.wanted, 1)} g "
            "wanted go on. Weigh it to get all of it."
        )
        yield note("spoon_short", text, source=PRACTICE)
    text = "Level spoons differ by 10 %, and heaped ones by more: weigh it if you can."
    yield note("spoons", text, source=PRACTICE)


def _amounts(piece: CuredPiece, desk: Desk) -> Iterator[Finding]:
    if desk.ppm is not None and 0 < desk.ppm < FLOOR_PPM and piece.product == "whole_muscle":
        text = f"{fixed(desk.ppm, 0)} ppm is under the usual floor of {FLOOR_PPM} ppm for what is kept cold."
        yield note("under_floor", text, source=FLOOR_SOURCE)
    if piece.carried_ppm is None:
        text = "It has been cured before with something whose nitrite is not known; that comes on top."
        yield note("carried", text, source="the cures recorded here")
    elif piece.carried_ppm:
        text = (
            f"It carries {fixed(piece.carried_ppm, 0)} ppm from an earlier cure already; the gauge "
            "counts both."
        )
        yield note("carried", text, source="the cures recorded here")


def _both(grams: Fraction) -> str:
    """A weight in both units: "1.2 lb (0.5 kg)"."""
    return f"{fixed(grams / GRAMS_PER_LB, 1)} lb ({fixed(grams / 1000, 1)} kg)"


def _percent(ratio: Fraction) -> str:
    text = fixed(ratio * 100, 3)
    return text.rstrip("0").rstrip(".")
