"""A kitchen's name, units, currency and clock."""

from django.apps import apps
from django.utils import timezone

from dolmetsch.server.audit.noting import Origin, note_done
from dolmetsch.server.house.schemas import UnitsIn, UnitsOut
from dolmetsch.server.house.starting import check_units
from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.problems import FieldProblem, refuse_fields
from dolmetsch.server.writing.once import locked_for

#: The records that hold money: after the first of any the currency stays.
_WITH_PRICES = (
    ("batches", "Batch"),
    ("prices", "Quote"),
    ("ways", "Way"),
    ("dishes", "Dish"),
    ("dishes", "StockNote"),
    ("books", "Tool"),
)


def has_prices(kitchen: Kitchen) -> bool:
    """Whether a price was ever recorded in ``kitchen``."""
    if kitchen.labour_rate is not None:
        return True
    models = (apps.get_model(*name) for name in _WITH_PRICES)
    return any(model._default_manager.filter(kitchen=kitchen).exists() for model in models)


def show_units(kitchen: Kitchen) -> UnitsOut:
    """The units as saved."""
    return UnitsOut.model_validate(
        {
            "name": kitchen.name,
            "currency": kitchen.currency,
            "weight_unit": kitchen.weight_unit,
            "temperature_unit": kitchen.temperature_unit,
            "decimal_sign": kitchen.decimal_sign,
            "time_zone": kitchen.time_zone,
            "country": kitchen.country,
            "is_currency_fixed": has_prices(kitchen),
        }
    )


def change_units(kitchen: Kitchen, wanted: UnitsIn, *, user: User, origin: Origin) -> UnitsOut:
    """Keep ``wanted``; weights and temperatures recorded are shown in the new units.

    Raises:
        DomainError: bad_fields (also another currency after the first price).
    """
    problems = check_units(wanted)
    with locked_for(kitchen, user, origin):
        kept = Kitchen.objects.get(pk=kitchen.pk)
        if wanted.currency != kept.currency and has_prices(kept):
            said = (
                f"Prices are recorded in {kept.currency} here, so the currency stays. Start another kitchen."
            )
            problems.append(FieldProblem(path="currency", code="currency_fixed", message=said))
        if problems:
            raise refuse_fields(problems)
        kept.name, kept.currency = wanted.name.strip(), wanted.currency
        kept.weight_unit, kept.temperature_unit = wanted.weight_unit, wanted.temperature_unit
        kept.decimal_sign, kept.time_zone = wanted.decimal_sign, wanted.time_zone
        kept.country = wanted.country
        kept.save()
        note_done(origin, kitchen=kept, user=user, now=timezone.now(), made=kept)
    return show_units(kept)
