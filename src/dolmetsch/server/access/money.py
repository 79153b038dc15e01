"""Money left out of what is shown to those who are not to see any, by the types of an operation's answer."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Annotated, Any, Final, Self, get_args, get_origin

from django.http import HttpRequest, HttpResponse, HttpResponseBase
from pydantic import BaseModel

from dolmetsch.server.quantities.schemas import MONEY
from dolmetsch.server.quantities.spoken import hide_amounts, show_amounts

#: Where the guard notes on a request what its operation answers, where prices are to be left out.
HIDES: Final = "hides_money_of"
#: Kinds of answers that may hold sentences.
TEXTS: Final = ("application/json", "application/problem", "text/")


@dataclass(frozen=True, slots=True, kw_only=True)
class Shape:
    """What a value in an answer may be: money itself, a record of one of ``models``, or a mapping to
    ``values``. A list is what its items are.
    """

    is_money: bool = False
    models: frozenset[type[BaseModel]] = frozenset()
    values: "Shape | None" = None

    def or_else(self, other: Self) -> "Shape":
        """Of a union of both."""
        values = self.values or other.values
        if self.values and other.values:
            values = self.values.or_else(other.values)
        return Shape(
            is_money=self.is_money or other.is_money, models=self.models | other.models, values=values
        )


def shape_of(annotation: Any) -> Shape:
    """The shape of a type as a schema writes it."""
    origin, inner = get_origin(annotation), get_args(annotation)
    if origin is Annotated:
        return Shape(is_money=True) if MONEY in annotation.__metadata__ else shape_of(inner[0])
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return Shape(models=frozenset({annotation}))
    if origin is dict:
        return Shape(values=shape_of(inner[1]))
    found = Shape()
    for one in inner:
        found = found.or_else(shape_of(one))
    return found


@cache
def field_shape(models: frozenset[type[BaseModel]], name: str) -> Shape:
    """The shape of the field ``name`` of whichever of ``models`` have it."""
    found = Shape()
    for model in models:
        for own, field in model.model_fields.items():
            if name in (own, field.alias):
                shape = Shape(is_money=True) if MONEY in field.metadata else shape_of(field.annotation)
                found = found.or_else(shape)
    return found


def without_money(value: Any, shape: Shape) -> Any:
    """``value``, decoded from JSON, with each amount of money empty."""
    if isinstance(value, list):
        return [without_money(one, shape) for one in value]
    if isinstance(value, dict):
        return {
            name: without_money(one, field_shape(shape.models, name).or_else(shape.values or Shape()))
            for name, one in value.items()
        }
    return "" if shape.is_money and value is not None else value


def hide_money(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: leave money out of what goes to who is not shown any (``access.guard`` says so), in fields
    by their types and in sentences where it was said (``quantities.spoken``).
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        hidden: Shape | None = request.__dict__.get(HIDES)
        kind = response.headers.get("Content-Type", "")
        # streams hold weights and temperatures alone
        if isinstance(response, HttpResponse) and kind.startswith(TEXTS):
            response.content = _answer(response.content, hidden, is_json="json" in kind)
        return response

    return middleware


def _answer(content: bytes, hidden: Shape | None, *, is_json: bool) -> bytes:
    if hidden is None:
        return show_amounts(content)
    if is_json:
        content = json.dumps(without_money(json.loads(content), hidden), ensure_ascii=False).encode()
    return hide_amounts(content)
