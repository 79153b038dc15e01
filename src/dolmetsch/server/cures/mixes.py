"""Mixes made once and used up by weight."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from django.db.models import Sum

from dolmetsch.core.curing.schools import SCHOOLS, SchoolKey
from dolmetsch.server.cures import typed
from dolmetsch.server.cures.figures import spoons_of
from dolmetsch.server.cures.models import CureRecipe, MadeMix, PieceCure
from dolmetsch.server.cures.reading import read_recipe
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once


@dataclass(frozen=True, slots=True, kw_only=True)
class MixStock:
    """A mix and what is left of it, in grams; below zero where more was used than was made."""

    mix: MadeMix
    left: Fraction


def find_mixes(kitchen: Kitchen, ids: Sequence[int] | None = None) -> dict[int, MixStock]:
    """The kitchen's mixes with what is left, latest first; those of ``ids``, or all."""
    mixes = MadeMix.objects.filter(kitchen=kitchen).select_related("recipe", "recorded_by").order_by("-id")
    if ids is not None:
        mixes = mixes.filter(pk__in=ids)
    used = dict(
        PieceCure.objects.filter(mix__in=list(mixes), taken_back=None)
        .values_list("mix")
        .annotate(used=Sum("mix_grams"))
        .order_by()
    )
    return {
        mix.pk: MixStock(mix=mix, left=Fraction(mix.grams) - Fraction(used.get(mix.pk) or 0)) for mix in mixes
    }


def get_recipe(kitchen: Kitchen, name: str) -> CureRecipe:
    """The latest version of the recipe ``name``.

    Raises:
        DomainError: not_found.
    """
    recipe = CureRecipe.objects.filter(kitchen=kitchen, name=name).order_by("-version").first()
    if recipe is None or recipe.is_put_away:
        raise not_found(f"recipe “{name}”")
    return recipe


def make_mix(write: Write, data: typed.MixIn) -> MadeMix:
    """Keep that a mix was made.

    Raises:
        DomainError: not_found (the recipe), bad_fields, key_reused.
    """

    def make() -> MadeMix:
        recipe = get_recipe(write.kitchen, data.recipe)
        reader = Reader(unit="g")
        grams = reader.weight("weight", data.weight)
        read = read_recipe(reader, typed.RecipeIn.model_validate(recipe.input), spoons_of(write.kitchen))
        if read is not None and not is_mixable(read.school):
            reader.refuse(
                "recipe", "no_mix", "Only a measured dry cure is mixed ahead, to be used by weight."
            )
        if reader.problems or grams is None:
            raise refuse_fields(reader.problems)
        return MadeMix.objects.create(recipe=recipe, grams=grams, note=data.note, **write.stamp)

    return keep_once(write, MadeMix, make)


def is_mixable(school: SchoolKey) -> bool:
    """Whether all dry things of a school's recipe may be mixed ahead and used by weight."""
    facts = SCHOOLS[school]
    return facts.time == "size" and "packet" not in facts.shows
