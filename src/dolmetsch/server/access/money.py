"""Prices left out of what is shown to those who are not to see them."""

import json
import re
from collections.abc import Callable
from typing import Any, Final

from django.http import HttpRequest, HttpResponse, HttpResponseBase

#: Fields that hold money, in the answers of operations that are not about money alone.
_MONEY: Final = frozenset(
    {
        *("per_lb", "per_kg", "cost", "price", "paid", "spent", "worth_back", "money", "saved_per_lb"),
        *("saved_per_kg", "saved_per_portion", "saved_on_batch", "cost_per_slice", "slice_cost"),
        *("labour_rate", "left_cost", "portion_cost", "earned_per_hour", "worth", "charged"),
        *("carried", "carried_then", "loss_account", "income", "portion"),
    }
)
#: Money within words: "$3.49", "CHF 3.49", "3.49/lb", "3.49 a pound".
_IN_WORDS: Final = re.compile(
    r"[−-]?(?:[$€£¥]|\b[A-Z]{3} )\s?\d[\d,]*(?:\.\d+)?"
    r"|\b\d+(?:\.\d+)?\s?/\s?(?:lb|kg|oz|g)\b"
    r"|\b\d+\.\d\d (?:a|each|per) (?:pound|kilogram|piece|slice)\b"
)
HIDDEN: Final = "…"


def hide_money(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: leave prices out of JSON that goes to who is not shown any (``access.guard`` says so)."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        kind = response.headers.get("Content-Type", "")
        is_hidden = request.__dict__.get("hides_money", False)
        if is_hidden and isinstance(response, HttpResponse) and "json" in kind:
            response.content = json.dumps(_without(json.loads(response.content)), ensure_ascii=False).encode()
        return response

    return middleware


def _without(value: Any, name: str = "") -> Any:
    if isinstance(value, dict):
        return {key: _without(one, key) for key, one in value.items()}
    if isinstance(value, list):
        return [_without(one, name) for one in value]
    if isinstance(value, str):
        return "" if name in _MONEY else _IN_WORDS.sub(HIDDEN, value)
    return value
