"""A kitchen's settings: what it counts by default, its scale, and how many slabs fit where."""

from decimal import Decimal
from fractions import Fraction

from django.utils import timezone

from dolmetsch.core.errors import QuantityError
from dolmetsch.core.numbers.quantity import read_number, read_weight
from dolmetsch.server.audit.noting import Origin, note_done
from dolmetsch.server.house.schemas import SettingsIn
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.problems import FieldProblem, refuse_fields
from dolmetsch.server.writing.once import locked_for

#: The coarsest a kitchen's scale may be: half a kilogram.
MAX_SCALE_GRAMS = 500


def show_settings(kitchen: Kitchen) -> SettingsIn:
    """The settings as they would be typed."""
    return SettingsIn(
        labour_rate="" if kitchen.labour_rate is None else f"{kitchen.labour_rate:.2f}",
        by_products=kitchen.credit_by_products,
        fuel=kitchen.count_fuel,
        packaging=kitchen.count_packaging,
        overhead=kitchen.count_overhead,
        scale="" if kitchen.scale_grams is None else f"{kitchen.scale_grams.normalize():f} g",
        fridge_slabs=kitchen.fridge_slabs,
        smoker_slabs=kitchen.smoker_slabs,
        helpers_see_money=kitchen.helpers_see_money,
    )


def change_settings(kitchen: Kitchen, wanted: SettingsIn, *, user: User, origin: Origin) -> SettingsIn:
    """Keep ``wanted``; batches already begun keep the policy of the day they were started.

    Raises:
        DomainError: bad_fields.
    """
    problems: list[FieldProblem] = []
    rate = scale = None
    try:
        if wanted.labour_rate:
            wage = read_number(wanted.labour_rate, what="wage", limit=Fraction(100_000), places=2)
            rate = Decimal(wage.numerator) / wage.denominator
    except QuantityError as error:
        problems.append(FieldProblem(path="labour_rate", code=error.reason, message=str(error)))
    try:
        if wanted.scale:
            scale = read_scale(wanted.scale)
    except QuantityError as error:
        problems.append(FieldProblem(path="scale", code=error.reason, message=str(error)))
    if problems:
        raise refuse_fields(problems)
    with locked_for(kitchen, user, origin):
        kept = Kitchen.objects.get(pk=kitchen.pk)
        kept.labour_rate, kept.scale_grams = rate, scale
        kept.credit_by_products, kept.count_fuel = wanted.by_products, wanted.fuel
        kept.count_packaging, kept.count_overhead = wanted.packaging, wanted.overhead
        kept.fridge_slabs, kept.smoker_slabs = wanted.fridge_slabs, wanted.smoker_slabs
        kept.helpers_see_money = wanted.helpers_see_money
        kept.save()
        note_done(origin, kitchen=kept, user=user, now=timezone.now(), made=kept)
    return show_settings(kept)


def read_scale(typed: str) -> Decimal:
    """Grams of a scale's steps.

    Raises:
        QuantityError: unreadable, too coarse, or too fine.
    """
    grams = read_weight(typed, default_unit="g")
    if grams > MAX_SCALE_GRAMS:
        raise QuantityError("too_heavy", typed, f"“{typed}” is too coarse for a kitchen scale")
    if (grams * 1000).denominator != 1:
        raise QuantityError("too_fine", typed, f"“{typed}” is finer than a kitchen scale can show")
    return Decimal(int(grams * 1000)) / 1000
