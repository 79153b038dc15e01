"""Every table of a kitchen's records: which there are, how its rows are found, written and read."""

import secrets
import uuid
from collections.abc import Callable, Iterator
from datetime import date, datetime
from decimal import Decimal
from typing import Any, Final

from django.apps import apps
from django.db import models
from django.utils.dateparse import parse_date, parse_datetime

from dolmetsch.server.batches.models import Batch, BatchFacts, ForecastScore, ShopSaving, StepYield
from dolmetsch.server.fires.models import CollectorLease
from dolmetsch.server.kitchens.models import Kitchen, Membership, SignInFailure, User
from dolmetsch.server.larder.models import PackNow, TakenNow
from dolmetsch.server.meals.models import MealJob
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.tastings.actions import TOKEN_BYTES
from dolmetsch.server.tastings.models import Tasting

Row = dict[str, Any]
AnyModel = type[models.Model]
#: Derived from the records, renewed after they are read; and what is no record of a kitchen.
DERIVED: Final[frozenset[AnyModel]] = frozenset(
    {StepYield, ShopSaving, BatchFacts, ForecastScore, PackNow, TakenNow}
)
_NO_RECORDS: Final[frozenset[AnyModel]] = frozenset(
    {User, Kitchen, Membership, SignInFailure, CollectorLease}
)
#: Who is in a kitchen, on which devices, and who did what stay with the machine.
_NO_RECORDS_OF: Final = frozenset({"access", "people", "audit"})
#: Columns that no two kitchens may share, and how each is made anew: the link of a tasting, which opens a
#: door, and the identity of a task in calendars.
MADE_ANEW: Final[dict[AnyModel, tuple[str, Callable[[], Any]]]] = {
    Tasting: ("token", lambda: secrets.token_urlsafe(TOKEN_BYTES)),
    PlannedTask: ("uid", uuid.uuid4),
    MealJob: ("uid", uuid.uuid4),
}
#: What a batch keeps of itself is derived.
LEFT_OUT: Final[dict[AnyModel, frozenset[str]]] = {
    Batch: frozenset({"summary"}),
    **{model: frozenset({column}) for model, (column, _) in MADE_ANEW.items()},
}


def list_tables() -> list[AnyModel]:
    """The tables of records, each after those it refers to."""
    mine = [
        model
        for model in apps.get_models()
        if model.__module__.startswith("dolmetsch.")
        and model not in DERIVED | _NO_RECORDS
        and model._meta.app_label not in _NO_RECORDS_OF
    ]
    ordered: list[AnyModel] = []
    while mine:
        ready = [
            model
            for model in mine
            if all(one in ordered or one not in mine for one in _referred(model) if one is not model)
        ]
        ordered += ready
        mine = [model for model in mine if model not in ready]
    return ordered


def _referred(model: AnyModel) -> Iterator[AnyModel]:
    for field in columns_of(model):
        if isinstance(field, models.ForeignKey):
            yield field.related_model


def columns_of(model: AnyModel) -> "list[models.Field[Any, Any]]":
    """The columns that are written, the key and the kitchen apart."""
    left_out = LEFT_OUT.get(model, frozenset())
    return [
        field
        for field in model._meta.concrete_fields
        if not field.primary_key and field.name != "kitchen" and field.name not in left_out
    ]


def rows_of(model: AnyModel, kitchen: Kitchen) -> "models.QuerySet[Any]":
    """All rows of ``kitchen``, in the order in which they were made."""
    return model._default_manager.filter(**{_path_to_kitchen(model): kitchen}).order_by("pk")


def _path_to_kitchen(model: AnyModel) -> str:
    """The look-up by which rows belong to a kitchen: their own column, or that of what they belong to."""
    names = {field.name for field in model._meta.concrete_fields}
    if "kitchen" in names:
        return "kitchen"
    for field in model._meta.concrete_fields:
        if isinstance(field, models.ForeignKey) and not field.null and field.related_model is not User:
            return f"{field.name}__{_path_to_kitchen(field.related_model)}"
    raise TypeError(f"{model.__name__} belongs to no kitchen")


def write_value(value: Any) -> Any:
    """A value as JSON holds it: decimals in fixed notation, times in UTC."""
    if isinstance(value, Decimal):
        return f"{value:f}"
    if isinstance(value, datetime | date):
        return value.isoformat()
    return str(value) if isinstance(value, uuid.UUID) else value


def read_value(field: "models.Field[Any, Any]", value: Any) -> Any:
    """A value of the archive as the column holds it, checked by the column's own rules.

    Raises:
        ValidationError, TypeError, ValueError: it is none.
    """
    if value is None or isinstance(field, models.JSONField):
        return value
    if isinstance(field, models.DateTimeField):
        value = parse_datetime(value)
        if value is None or value.tzinfo is None:
            raise ValueError("not a time with its zone")
    elif isinstance(field, models.DateField):
        value = parse_date(value)
    elif isinstance(field, models.DecimalField) and not isinstance(value, str):
        raise TypeError("a decimal is a string")
    read = field.to_python(value)
    if field.choices and read not in dict(field.flatchoices):
        raise ValueError(f"“{read}” is none of its words")
    # an empty text is one: which may be, the table itself says
    field.run_validators(read)
    return read
