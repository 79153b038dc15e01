"""Reads: what the desk knows, and the cures of a batch."""

from collections.abc import Mapping
from fractions import Fraction

from dolmetsch.core.curing.cure import PRODUCTS, Product
from dolmetsch.core.curing.recipe_words import describe_cure
from dolmetsch.core.curing.schools import SCHOOLS, School
from dolmetsch.core.curing.usual_dose import usual_dose
from dolmetsch.core.errors import QuantityError
from dolmetsch.core.ledger.course import COURSE_FACTS, COURSES
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.quantity import GRAM_PLACES, MONEY_PLACES, read_price
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.reference.agents import AGENTS
from dolmetsch.core.reference.nitrite import Limits
from dolmetsch.core.reference.spoons import Spoonful
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.cures import schemas
from dolmetsch.server.cures.figures import limits_of, show_limits, show_spoons, spoons_of
from dolmetsch.server.cures.mixes import MixStock, find_mixes
from dolmetsch.server.cures.models import CureRecipe, PieceCure
from dolmetsch.server.cures.reading import read_recipe
from dolmetsch.server.cures.typed import IngredientIn, RecipeIn
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.prices.queries import Priced, find_used
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.kept import latest_by_name


def find_yield_methods(batch: Batch) -> dict[str, str]:
    """By kind of step (cure): the method yields of ``batch`` are kept under; none where its cures differ."""
    cures = PieceCure.objects.filter(batch=batch, taken_back=None)
    found = {SCHOOLS[school].yield_method for school in cures.values_list("school", flat=True).distinct()}
    return {"cure": found.pop()} if len(found) == 1 else {}


def read_facts(kitchen: Kitchen) -> schemas.DeskFactsOut:
    """All the desk knows before a piece is laid on it."""
    spoons, limits = spoons_of(kitchen), limits_of(kitchen)
    return schemas.DeskFactsOut(
        schools=[_show_school(school, limits) for school in SCHOOLS.values()],
        agents=[
            schemas.AgentOut.model_validate(
                {
                    "key": agent.key,
                    "label": agent.label,
                    "is_ready_mixed": agent.is_ready_mixed,
                    "nitrite": None if agent.nitrite is None else fixed(agent.nitrite * 100, 2),
                    "nitrate": fixed(agent.nitrate * 100, 2),
                    "purpose": agent.purpose,
                }
            )
            for agent in AGENTS.values()
        ],
        spoons=show_spoons(kitchen),
        limits=show_limits(kitchen),
        recipes=[_show_recipe(recipe) for recipe in list_recipes(kitchen)],
        mixes=[_show_mix(stock, spoons) for stock in find_mixes(kitchen).values()],
        scale=None if kitchen.scale_grams is None else f"{kitchen.scale_grams.normalize():f}",
    )


def _show_dose(
    school: School, product: Product, limits: Limits, *, skin_on: bool, is_dried: bool
) -> schemas.DoseOut:
    courses = [course for course in COURSES if COURSE_FACTS[course].is_dried == is_dried]
    dose = usual_dose(school.key, product=product, skin_on=skin_on, course=courses[0], limits=limits)
    return schemas.DoseOut.model_validate(
        {
            "product": product,
            "skin": "on" if skin_on else "off",
            "courses": [*courses, *([] if is_dried else [None])],
            "agent": dose.agent,
            "target": dose.target,
            "agent_amount": dose.agent_amount,
        }
    )


def _show_school(school: School, limits: Limits) -> schemas.SchoolOut:
    begins = school.begins
    return schemas.SchoolOut(
        key=school.key,
        label=school.label,
        method=school.method,
        how=school.how,
        turn_days=school.turn_days,
        course=school.course,
        shows=sorted(school.shows),
        begins=RecipeIn(
            school=school.key,
            salt=IngredientIn(name=begins.salt_name, amount=begins.salt, spoon="dense_flake"),
            sugar=IngredientIn(
                name=begins.sugar_name,
                amount=begins.sugar,
                spoon="brown_sugar" if begins.sugar_name == "brown sugar" else "",
            ),
            water=begins.water,
            pump=begins.pump,
            box=begins.box,
        ),
        doses=[
            _show_dose(school, product, limits, skin_on=skin_on, is_dried=is_dried)
            for product in PRODUCTS
            for skin_on in (False, True)
            for is_dried in (False, True)
        ],
    )


def list_recipes(kitchen: Kitchen) -> list[CureRecipe]:
    """The latest version of each recipe that is not put away, by name."""
    rows = CureRecipe.objects.filter(kitchen=kitchen).select_related("recorded_by")
    return latest_by_name(rows.order_by("name", "version"))


def _show_recipe(recipe: CureRecipe) -> schemas.RecipeOut:
    return schemas.RecipeOut(
        name=recipe.name,
        version=recipe.version,
        input=RecipeIn.model_validate(recipe.input),
        recorded_at=recipe.recorded_at,
        by=recipe.recorded_by.called,
    )


def _show_mix(stock: MixStock, spoons: Mapping[str, Spoonful]) -> schemas.MixOut:
    mix = stock.mix
    recipe = read_recipe(Reader(unit="g"), RecipeIn.model_validate(mix.recipe.input), spoons)
    return schemas.MixOut(
        id=mix.pk,
        recipe=mix.recipe.name,
        version=mix.recipe.version,
        made=print_weight(Fraction(mix.grams)),
        left=print_weight(stock.left),
        left_grams=fixed(stock.left, 0),
        made_at=mix.recorded_at,
        words="" if recipe is None else describe_cure(recipe),
        note=mix.note,
    )


def list_cures(batch: Batch) -> list[PieceCure]:
    """Every cure of ``batch``, the latest first."""
    return list(
        PieceCure.objects.filter(batch=batch)
        .select_related("recipe", "recorded_by", "taken_back", "mix__recipe")
        .order_by("-id")
    )


def read_cures(batch: Batch) -> schemas.CuresOut:
    """Every cure of ``batch``, and what its open ones are yet to be charged with."""
    costed = cost_batch(batch)
    waiting = {piece.id for piece in costed.sheet.ledger.mains if "cure" not in piece.kinds}
    cures = list_cures(batch)
    shown = [show_cure(cure, is_under_way=cure.mark in waiting) for cure in cures]
    charges, unpriced = _charges(batch.kitchen, [c for c in shown if c.is_under_way])
    return schemas.CuresOut(cures=shown, charges=charges, unpriced=unpriced)


def show_cure(cure: PieceCure, *, is_under_way: bool) -> schemas.CureOut:
    """One cure. ``is_under_way``: the piece is in it still; one taken back is not."""
    back = getattr(cure, "taken_back", None)
    return schemas.CureOut(
        id=cure.pk,
        mark=cure.mark,
        school=cure.school,
        recipe="" if cure.recipe is None else f"{cure.recipe.name}, version {cure.recipe.version}",
        in_at=cure.in_at,
        first_at=cure.first_at,
        last_at=cure.last_at,
        out_at=cure.out_at,
        by=cure.recorded_by.called,
        input=RecipeIn.model_validate(cure.input),
        answer=schemas.DeskPieceOut.model_validate(cure.answer),
        is_under_way=is_under_way and back is None,
        taken_back=None if back is None else back.reason,
    )


def _charges(kitchen: Kitchen, cures: list[schemas.CureOut]) -> tuple[list[schemas.ChargeOut], list[str]]:
    """Used lines for what went into the cure, and names of what has no price by weight."""
    lines = [
        (cure.mark, line) for cure in cures for line in cure.answer.lines if line.role not in ("water", "mix")
    ]
    listed = find_used(kitchen, {line.name for _, line in lines}) if lines else {}
    charges, unpriced = [], set()
    for mark, line in lines:
        priced = listed.get(same_name(line.name))
        if priced is None or priced.price.grams is None:
            unpriced.add(line.name)
        else:
            charges.append(
                schemas.ChargeOut(
                    what=line.name,
                    group="cure",
                    amount=f"{line.own_grams or line.grams} g",
                    price=_price_text(priced),
                    pieces=[mark],
                )
            )
    return charges, sorted(unpriced, key=str.casefold)


def _price_text(priced: Priced) -> str:
    """The latest price as one types it for something used."""
    typed = priced.latest.typed
    try:
        if read_price(typed) == priced.price:
            return typed
    except QuantityError:
        pass
    grams = priced.price.grams or Fraction(1)
    return f"{fixed(priced.price.paid, MONEY_PLACES)} for {fixed(grams, GRAM_PLACES)} g"


def find_salt_in_slice(cure: PieceCure) -> str | None:
    """Salt to expect in the finished slice, by what the desk answered then; None where it was not known.

    A soak draws some of it out, nobody knows how much: after one, what the desk said is the most it may be.
    """
    said: str | None = cure.answer.get("salt_in_slice")
    if said is None or not _was_soaked(cure):
        return said
    return f"under {said.partition(',')[0]}: it was soaked since, so taste it"


def _was_soaked(cure: PieceCure) -> bool:
    """Whether a soak was ticked off or recorded for the piece after it went into the cure."""
    done = PlannedTask.objects.filter(
        batch=cure.batch, kind="soak", state=PlannedTask.State.DONE, due_at__gte=cure.in_at
    )
    if any(cure.mark in task.marks for task in done):
        return True
    costed = cost_batch(cure.batch)
    soaked = [
        stage
        for stage, row in zip(costed.sheet.ledger.stages, costed.chain.step_entries, strict=True)
        if stage.kind.casefold() == "soak" and row.entry.happened_at >= cure.in_at
    ]
    return any(
        cure.mark in strand.marks for stage in soaked for piece in stage.entered for strand in piece.strands
    )
