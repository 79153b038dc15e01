"""The cure desk: a recipe and a piece give what to weigh out, how much nitrite goes in, and what to mind.

The nitrite is computed by ``cure.mix_cure``. What is printed of the curing agent is rounded down, so that
weighing it out never brings more than was computed.
"""

from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction
from math import floor
from typing import Final

from dolmetsch.core.curing.cure import Cure, Mix, brine_strength, mix_cure
from dolmetsch.core.curing.desk_answer import Brine, Desk, Role, SpoonsOfAgent, WeighOut
from dolmetsch.core.curing.recipe import CuredPiece, Ingredient, MixedBrine, Recipe
from dolmetsch.core.errors import CureError
from dolmetsch.core.numbers.amounts import SMALLEST_SPOON, count_full_spoons
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.reference.nitrite import (
    COARSE_SCALE_RATIO,
    NITRITE_LIMITS,
    SOLUBLE_RATIO,
    SOLUBLE_SOURCE,
    Limits,
)
from dolmetsch.core.reference.spoons import SPOON_ERROR

ZERO: Final = Fraction(0)


def weigh_out(
    recipe: Recipe, piece: CuredPiece, *, scale: Fraction | None = None, limits: Limits = NITRITE_LIMITS
) -> Desk:
    """What to weigh out for ``piece`` by ``recipe``, on a scale that shows steps of ``scale`` grams.

    An agent that the recipe measures by the spoon is answered as measured: level spoons, rounded down.

    Raises:
        CureError: what cannot be mixed, with the field to blame.
    """
    build = _CURES[recipe.facts.method]
    cure = build(recipe, piece, scale, None)
    mix = mix_cure(cure, limits=limits)
    spoons = _measure(recipe, piece, mix)
    if spoons is not None and not spoons.is_too_coarse:
        cure = build(recipe, piece, scale, spoons.grams)
        mix = mix_cure(cure, limits=limits)
    brine = _brine(recipe, piece, mix, cure)
    low, high = _salt_in_meat(recipe, piece, mix, cure)
    ppm = None if mix.ppm is None or piece.carried_ppm is None else mix.ppm + piece.carried_ppm
    is_spooned = spoons is not None or (recipe.mixed is not None and recipe.mixed.by_volume)
    ppm_low, ppm_high = _spread(mix, ppm, spoons, is_spooned=is_spooned)
    smallest = None
    if mix.agent_error is not None and spoons is None:
        smallest = piece.grams * mix.agent_error / COARSE_SCALE_RATIO
    return Desk(
        lines=tuple(_lines(recipe, piece, mix)),
        mix=mix,
        brine=brine,
        ppm=ppm,
        ppm_low=ppm_low,
        ppm_high=ppm_high,
        spoons=spoons,
        smallest_grams=smallest,
        salt_low=low,
        salt_high=high,
    )


def _measure(recipe: Recipe, piece: CuredPiece, mix: Mix) -> SpoonsOfAgent | None:
    spoon = recipe.agent_spoon
    if not recipe.agent_by_spoon or spoon is None or not mix.agent:
        return None
    teaspoons = count_full_spoons(mix.agent, spoon)
    return SpoonsOfAgent(
        teaspoons=teaspoons,
        grams=teaspoons * spoon.grams,
        wanted=mix.agent,
        smallest=SMALLEST_SPOON * spoon.grams,
        fits_from_grams=piece.grams * SMALLEST_SPOON * spoon.grams / mix.agent,
    )


def _spread(
    mix: Mix, ppm: Fraction | None, spoons: SpoonsOfAgent | None, *, is_spooned: bool
) -> tuple[Fraction | None, Fraction | None]:
    """What the nitrite may come to by the error of the scale or the spoons; nothing where there is none.

    Where the smallest spoon is too coarse it lies between none of it and a level one.
    """
    if ppm is None or mix.ppm is None:
        return None, None
    if spoons is not None and spoons.is_too_coarse:
        most = mix.ppm / spoons.wanted * spoons.smallest * (1 + SPOON_ERROR)
        return ppm - mix.ppm, ppm - mix.ppm + most
    error = SPOON_ERROR if is_spooned else mix.agent_error
    if error is None:
        return None, None
    return max(ZERO, ppm - mix.ppm * error), ppm + mix.ppm * error


def _nitrite(recipe: Recipe) -> tuple[Fraction | None, Fraction]:
    """Shares of nitrite and nitrate; none of either without an agent."""
    return (ZERO, ZERO) if recipe.agent is None else (recipe.agent.nitrite, recipe.agent.nitrate)


def _salt_share(recipe: Recipe) -> Fraction:
    return ZERO if recipe.salt is None else recipe.salt.share


def _sugar_share(recipe: Recipe) -> Fraction:
    return ZERO if recipe.sugar is None else recipe.sugar.share


def _is_the_salt(recipe: Recipe) -> bool:
    """Nitrited salt: the agent is used as the salt."""
    return recipe.agent is not None and recipe.agent.key == "weak"


def _dose(
    recipe: Recipe, base: Fraction, measured: Fraction | None
) -> tuple[Fraction | None, Fraction | None]:
    """Target and amount of the agent, one of them None; ``base``: grams the salt's share is of.

    ``measured``: grams of the agent as spooned out, which then count.
    """
    if recipe.agent is None:
        return ZERO, None
    if measured is not None:
        return None, measured
    if _is_the_salt(recipe):
        return None, _salt_share(recipe) * base
    if recipe.target_ppm is not None:
        return recipe.target_ppm, None
    return None, None if recipe.agent_share is None else recipe.agent_share * base


def _own_salt(recipe: Recipe) -> Fraction:
    """What of the agent is salt."""
    nitrite, nitrate = _nitrite(recipe)
    return 1 - (nitrite or ZERO) - nitrate


def _salt_wanted(recipe: Recipe, base: Fraction, agent: Fraction) -> Fraction:
    """Salt wanted of ``base`` grams, so that what is weighed out beside the agent is what the recipe says."""
    brought = agent * _own_salt(recipe) / base
    if recipe.facts.salt == "box" or _is_the_salt(recipe):
        return brought
    return _salt_share(recipe) + (brought if recipe.facts.salt == "beside" else ZERO)


def _dry(recipe: Recipe, piece: CuredPiece, scale: Fraction | None, measured: Fraction | None) -> Cure:
    nitrite, nitrate = _nitrite(recipe)
    target, amount = _dose(recipe, piece.grams, measured)
    agent = amount if amount is not None else ZERO
    if target:
        agent = target * piece.grams / (nitrite or 1) / 10**6
    return Cure(
        method="dry",
        meat=piece.grams,
        nitrite=nitrite,
        nitrate=nitrate,
        target_ppm=target,
        agent_amount=amount,
        salt=_salt_wanted(recipe, piece.grams, agent),
        sugar=_sugar_share(recipe),
        scale=scale,
        product=piece.product,
        skin_on=piece.skin_on,
    )


def _as_mixed(recipe: Recipe, mixed: MixedBrine, piece: CuredPiece, scale: Fraction | None) -> Cure:
    """A brine as it was mixed: its salt and sugar are of meat and water together."""
    nitrite, nitrate = _nitrite(recipe)
    base = piece.grams + mixed.water
    is_pumped = recipe.facts.method == "pump_and_brine"
    return Cure(
        method="pump_and_brine" if is_pumped else "brine",
        meat=piece.grams,
        water=mixed.water,
        pump=_pump(recipe) if is_pumped else None,
        pick_up=recipe.pick_up,
        nitrite=nitrite,
        nitrate=nitrate,
        agent_amount=mixed.agent,
        salt=(mixed.salt + mixed.agent * _own_salt(recipe)) / base,
        sugar=mixed.sugar / base,
        scale=scale,
        product=piece.product,
        skin_on=piece.skin_on,
    )


def _covered(recipe: Recipe, piece: CuredPiece, scale: Fraction | None, measured: Fraction | None) -> Cure:
    if recipe.mixed is not None:
        return _as_mixed(recipe, recipe.mixed, piece, scale)
    if not recipe.water:
        raise CureError("water", "say how much water, as percent of the meat: 100 % is as much as the meat")
    nitrite, nitrate = _nitrite(recipe)
    water = piece.grams * recipe.water
    is_the_salt = _is_the_salt(recipe)
    target, amount = _dose(recipe, piece.grams + water if is_the_salt else piece.grams, measured)
    is_pumped = recipe.facts.method == "pump_and_brine"
    return Cure(
        method="pump_and_brine" if is_pumped else "brine",
        meat=piece.grams,
        water=water,
        pump=_pump(recipe) if is_pumped else None,
        pick_up=recipe.pick_up,
        nitrite=nitrite,
        nitrate=nitrate,
        target_ppm=target,
        agent_amount=amount,
        salt=_salt_wanted(recipe, piece.grams + water, amount or ZERO)
        if is_the_salt
        else _salt_share(recipe),
        sugar=_sugar_share(recipe),
        scale=scale,
        product=piece.product,
        skin_on=piece.skin_on,
    )


def _pump(recipe: Recipe) -> Fraction:
    if not recipe.pump:
        raise CureError("pump", "say how much weight the meat is to gain, like 10 %")
    return recipe.pump


def _injected(recipe: Recipe, piece: CuredPiece, scale: Fraction | None, measured: Fraction | None) -> Cure:
    """So much brine is made as the pump takes, and some to spare; all of it grows with its water alone."""
    pump = _pump(recipe)
    nitrite, nitrate = _nitrite(recipe)
    if _is_the_salt(recipe):
        raise CureError("agent", "nitrited salt is for rubs and brines; take curing salt no. 1 for the pump")
    target = recipe.target_ppm
    if recipe.agent is None:
        target = ZERO
    elif target is None and recipe.agent_share is not None:
        # what the pump takes of the brine holds just that share of the meat
        if not nitrite:
            raise CureError("agent", "what is injected must be of known nitrite; see its label")
        target = recipe.agent_share * nitrite * 10**6
    cure = Cure(
        method="pump",
        meat=piece.grams,
        water=piece.grams,
        pump=pump,
        nitrite=nitrite,
        nitrate=nitrate,
        target_ppm=target,
        salt=_salt_share(recipe),
        sugar=_sugar_share(recipe),
        scale=scale,
        product=piece.product,
        skin_on=piece.skin_on,
    )
    trial = mix_cure(replace(cure, water=piece.grams * (1 + pump)))
    assert trial.brine is not None
    wanted = pump * piece.grams * (1 + recipe.spare)
    cure = replace(cure, water=piece.grams * (1 + pump) * wanted / trial.brine)
    return cure if measured is None else replace(cure, target_ppm=None, agent_amount=measured)


_CURES: Final[dict[str, Callable[[Recipe, CuredPiece, Fraction | None, Fraction | None], Cure]]] = {
    "dry": _dry,
    "brine": _covered,
    "pump": _injected,
    "pump_and_brine": _covered,
}


def _brine(recipe: Recipe, piece: CuredPiece, mix: Mix, cure: Cure) -> Brine | None:
    if mix.brine is None:
        return None
    strength = brine_strength(cure, mix)
    if strength > SOLUBLE_RATIO:
        percent = fixed(strength * 100, 0)
        raise CureError(
            "salt", f"so much salt does not dissolve: this brine would be {percent} % salt ({SOLUBLE_SOURCE})"
        )
    injector = mix.pump or ZERO
    rest = mix.brine - injector
    has_tub = recipe.facts.method != "pump"
    tub, spare = (rest, ZERO) if has_tub else (ZERO, rest)
    return Brine(grams=mix.brine, injector=injector, tub=tub, spare=spare, strength=strength)


def _lines(recipe: Recipe, piece: CuredPiece, mix: Mix) -> list[WeighOut]:
    lines: list[WeighOut] = []

    def add(name: str, role: Role, grams: Fraction | None, ingredient: Ingredient | None = None) -> None:
        if grams:
            stage = 1 if ingredient is None else ingredient.stage
            share = grams / piece.grams
            lines.append(
                WeighOut(name=name, role=role, grams=grams, share=share, ingredient=ingredient, stage=stage)
            )

    add("water", "water", mix.water)
    if recipe.salt is not None:
        add(recipe.salt.name, "salt", mix.salt, recipe.salt)
    if recipe.agent is not None:
        add(recipe.agent.label, "agent", mix.agent)
    if recipe.sugar is not None:
        add(recipe.sugar.name, "sugar", mix.sugar, recipe.sugar)
    if recipe.facts.salt == "box" and recipe.salt is not None:
        add(recipe.salt.name, "box", recipe.box * piece.grams, recipe.salt)
    for extra in recipe.extras:
        add(extra.name, "extra", extra.share * piece.grams, extra)
    return lines


def _salt_in_meat(
    recipe: Recipe, piece: CuredPiece, mix: Mix, cure: Cure
) -> tuple[Fraction | None, Fraction | None]:
    """Salt in the cured meat, least and most; of a brine once all is even."""
    salt = mix.salt + mix.agent * _own_salt(recipe)
    # salt is salt, also where it stands among the extras
    salt += sum((extra.share * piece.grams for extra in recipe.extras if extra.is_salt), ZERO)
    if recipe.facts.salt == "box":
        return (None, None) if recipe.uptake is None else (recipe.uptake, recipe.uptake)
    if "packet" in recipe.facts.shows and recipe.agent is not None and recipe.agent.nitrite is None:
        return None, None
    if mix.brine is None:
        share = salt / piece.grams
        spread = SPOON_ERROR if recipe.salt is not None and recipe.salt.by_spoon else ZERO
        return share * (1 - spread), share * (1 + spread)
    if cure.pump is not None and recipe.facts.method == "pump":
        taken = salt / mix.brine * cure.pump / (1 + cure.pump)
        return taken, taken
    even = salt / (piece.grams + mix.brine)
    return even, even


def print_agent(grams: Fraction) -> str:
    """Grams of curing agent to read from a scale: to a tenth, below a gram to a hundredth, rounded down.

    So what is weighed out never brings more nitrite than was computed.
    """
    places = 1 if grams >= 1 else 2
    return fixed(Fraction(floor(grams * 10**places), 10**places), places)
