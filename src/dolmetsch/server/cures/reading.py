"""A recipe as typed, read into the core's record; all faults are reported at once."""

from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction
from typing import Final

from dolmetsch.core.curing.recipe import Ingredient, MixedBrine, Recipe
from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.volumes import WATER
from dolmetsch.core.reference.agents import AGENTS, Agent
from dolmetsch.core.reference.nitrite import PICK_UP_RATIO
from dolmetsch.core.reference.spoons import Spoonful
from dolmetsch.server.cures.typed import IngredientIn, RecipeIn
from dolmetsch.server.quantities.reader import Reader

#: The highest target that may be typed: beyond it is a slip.
MAX_TARGET: Final = Fraction(2000)
_IN_WATER: Final = ("brine", "pump_and_brine")


def read_recipe(
    reader: Reader, data: RecipeIn, spoons: Mapping[str, Spoonful], *, path: str = ""
) -> Recipe | None:
    """The recipe; None with faults noted at paths below ``path``."""
    before = len(reader.problems)
    school = SCHOOLS[data.school]
    agent = _read_agent(reader, data, path)
    salt = _read_ingredient(reader, data.salt, spoons, f"{path}salt")
    mixed = _read_mixed(reader, data, agent, spoons, path) if is_mixed(data) else None
    sugar = _read_ingredient(reader, data.sugar, spoons, f"{path}sugar")
    extras = [
        _read_ingredient(reader, extra, spoons, f"{path}extras[{index}]")
        for index, extra in enumerate(data.extras)
    ]
    target, share, by_spoon = None, None, False
    if not is_mixed(data):
        target, share, by_spoon = _read_dose(reader, data, agent, spoons, path)
    agent_spoon = None if agent is None else spoons[agent.spoon]
    if agent is not None and agent.key == "weak" and salt is not None and salt.by_spoon:
        # nitrited salt is the salt, so its spoons are the agent's
        by_spoon, agent_spoon = True, salt.spoon
    has_salt = "box" in school.shows or bool(data.mixed_salt)
    recipe = Recipe(
        school=data.school,
        salt=salt or _named_alone(data.salt, "salt", spoons, is_there=has_salt),
        sugar=sugar or _named_alone(data.sugar, "sugar", spoons, is_there=bool(data.mixed_sugar)),
        agent=agent,
        target_ppm=target,
        agent_share=share,
        agent_by_spoon=by_spoon,
        agent_spoon=agent_spoon,
        mixed=mixed,
        extras=tuple(extra for extra in extras if extra is not None),
        water=_share(reader, f"{path}water", data.water, what="share of water", most=1000) or Fraction(0),
        pump=_share(reader, f"{path}pump", data.pump, what="pump") if "pump" in school.method else None,
        spare=_or(_share(reader, f"{path}spare", data.spare, what="share"), Fraction(1, 10)),
        pick_up=_or(_share(reader, f"{path}pick_up", data.pick_up, what="pick-up"), PICK_UP_RATIO),
        box=_or(_share(reader, f"{path}box", data.box, what="share of salt", most=1000), Fraction(0)),
        uptake=_share(reader, f"{path}uptake", data.uptake, what="share of salt"),
    )
    _need_amounts(reader, data, salt, path)
    return recipe if len(reader.problems) == before else None


def _named_alone(
    data: IngredientIn, name: str, spoons: Mapping[str, Spoonful], *, is_there: bool
) -> Ingredient | None:
    """What is in the box or the mixed brine, and so has no share of the meat of its own."""
    if not is_there:
        return None
    return Ingredient(name=data.name or name, share=Fraction(0), spoon=spoons.get(data.spoon))


def _need_amounts(reader: Reader, data: RecipeIn, salt: Ingredient | None, path: str) -> None:
    """Faults where the school asks for an amount that was not given."""
    school = SCHOOLS[data.school]
    if is_mixed(data):
        return
    if salt is None and not school.shows & {"packet", "box"} and not data.salt.amount:
        reader.refuse(f"{path}salt.amount", "missing", "Say how much salt, like 2.5 %.")
    if school.method in _IN_WATER and not data.water:
        reader.refuse(f"{path}water", "missing", "Say how much water: 100 % is as much as the meat.")
    if "box" in school.shows and not data.box:
        said = "Say how much salt is in the box: 100 % is as much as the meat."
        reader.refuse(f"{path}box", "missing", said)


def is_mixed(data: RecipeIn) -> bool:
    """Whether a brine is given as it was mixed, in place of shares of the meat."""
    is_covered = SCHOOLS[data.school].method in _IN_WATER
    return is_covered and any((data.mixed_water, data.mixed_salt, data.mixed_sugar, data.mixed_agent))


def _read_mixed(
    reader: Reader, data: RecipeIn, agent: Agent | None, spoons: Mapping[str, Spoonful], path: str
) -> MixedBrine | None:
    before = len(reader.problems)
    reader.need(f"{path}mixed_water", data.mixed_water, "Say how much water went in, like 8 qt or 3 kg.")
    if agent is not None:
        reader.need(f"{path}mixed_agent", data.mixed_agent, "Say how much curing salt went in, like 2 tsp.")
    water = reader.measure(f"{path}mixed_water", data.mixed_water, WATER, bare=True)
    salt = reader.measure(f"{path}mixed_salt", data.mixed_salt, spoons.get(data.salt.spoon))
    sugar = reader.measure(f"{path}mixed_sugar", data.mixed_sugar, spoons.get(data.sugar.spoon))
    dose = None
    if agent is not None:
        dose = reader.measure(f"{path}mixed_agent", data.mixed_agent, spoons[agent.spoon])
    if len(reader.problems) > before or water is None:
        return None
    return MixedBrine(
        water=water.grams,
        salt=Fraction(0) if salt is None else salt.grams,
        sugar=Fraction(0) if sugar is None else sugar.grams,
        agent=Fraction(0) if dose is None else dose.grams,
        by_volume=any(one is not None and one.by_volume for one in (salt, dose)),
    )


def _or(value: Fraction | None, usual: Fraction) -> Fraction:
    return usual if value is None else value


def _share(reader: Reader, path: str, text: str, *, what: str, most: int = 100) -> Fraction | None:
    value = reader.percent(path, text, what=what, most=most)
    return None if value is None else Fraction(value)


def _read_agent(reader: Reader, data: RecipeIn, path: str) -> Agent | None:
    if "agent" not in SCHOOLS[data.school].shows or data.agent == "none":
        return None
    if not data.agent:
        reader.refuse(f"{path}agent", "missing", "Say which curing salt, or that it is made without nitrite.")
        return None
    agent = AGENTS[data.agent]
    nitrite = _share(reader, f"{path}agent_nitrite", data.agent_nitrite, what="share of nitrite")
    nitrate = _share(reader, f"{path}agent_nitrate", data.agent_nitrate, what="share of nitrate")
    if "packet" in SCHOOLS[data.school].shows and not agent.is_ready_mixed:
        said = "A ready-mixed cure is a complete cure or a packet; curing salt is measured to the piece."
        reader.refuse(f"{path}agent", "not_ready_mixed", said)
    return replace(agent, nitrite=_known(nitrite, agent.nitrite), nitrate=_or(nitrate, agent.nitrate))


def _known(entered: Fraction | None, usual: Fraction | None) -> Fraction | None:
    return usual if entered is None else entered


def _read_dose(
    reader: Reader, data: RecipeIn, agent: Agent | None, spoons: Mapping[str, Spoonful], path: str
) -> tuple[Fraction | None, Fraction | None, bool]:
    """Target, share of the meat, and whether that was measured by the spoon."""
    if agent is None:
        return None, None, False
    if agent.key == "weak":
        if data.target or data.agent_amount:
            said = "Nitrited salt is used as the salt: the salt's own amount says how much."
            reader.refuse(f"{path}agent_amount", "one_of", said)
        return None, None, False
    if bool(data.target) == bool(data.agent_amount):
        said = "Say how much nitrite is wanted (156 ppm), or how much curing agent (0.25 %): one of them."
        reader.refuse(f"{path}target", "one_of", said)
        return None, None, False
    if data.target:
        bare = data.target.lower().removesuffix("ppm").strip()
        target = reader.number(f"{path}target", bare, what="target in ppm", limit=MAX_TARGET, places=2)
        if target is not None and agent.nitrite is None:
            said = "Its nitrite is not known, so a target cannot be worked out: give the packet's rate."
            reader.refuse(f"{path}target", "unknown_nitrite", said)
        return None if target is None else Fraction(target), None, False
    amount = reader.amount(f"{path}agent_amount", data.agent_amount)
    if amount is None:
        return None, None, False
    return None, amount.share_by(spoons[agent.spoon]), amount.teaspoons is not None


def _read_ingredient(
    reader: Reader, data: IngredientIn, spoons: Mapping[str, Spoonful], path: str
) -> Ingredient | None:
    if not data.amount:
        return None
    amount = reader.amount(f"{path}.amount", data.amount)
    spoon = spoons.get(data.spoon)
    if data.spoon and spoon is None:
        reader.refuse(f"{path}.spoon", "unknown", f"“{data.spoon}” is not a kind of spoon measure.")
    if not reader.need(f"{path}.name", data.name, "Say what it is.") or amount is None:
        return None
    try:
        share = amount.share_by(spoon)
    except QuantityError as error:
        reader.refuse(f"{path}.amount", error.reason, f"“{data.amount}”: {error}.")
        return None
    return Ingredient(
        name=data.name,
        share=share,
        by_spoon=amount.teaspoons is not None,
        spoon=spoon,
        stage=data.stage,
    )
