"""Dishes as a file to take away, and back in: every dish's latest version as it was typed."""

import json
from typing import Any, Final

from pydantic import ValidationError

from dolmetsch.server.batches.exchange.papers.tables import Row, TableForm, Tables, write_csv, write_xlsx
from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import list_dishes
from dolmetsch.server.dishes.queries import read_dishes
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError

FORMAT: Final = "dolmetsch-dishes/1"
DISH_HEADS: Final = (
    "dish",
    "version",
    "a plate costs",
    "menu price",
    "food cost, %",
    "leaves",
    "plates in 30 days",
)
PART_HEADS: Final = ("dish", "part", "from", "amount", "yield, %", "cost as typed")
MOST_DISHES: Final = 1000


def write_dishes(kitchen: Kitchen, form: TableForm) -> bytes:
    """All dishes of ``kitchen``."""
    inputs = [schemas.DishIn.model_validate(dish.input) for dish in list_dishes(kitchen)]
    if form == "json":
        document = {"format": FORMAT, "dishes": [one.model_dump(mode="json") for one in inputs]}
        return (json.dumps(document, ensure_ascii=False, indent=1) + "\n").encode()
    dishes: list[Row] = [
        [one.name, one.version, one.cost, one.price, one.food_cost, one.leaves, one.plates]
        for one in read_dishes(kitchen).dishes
    ]
    parts: list[Row] = [
        [one.name, part.name, part.sort, part.amount, part.kept, part.cost]
        for one in inputs
        for part in one.parts
    ]
    tables: Tables = [("Dishes", [list(DISH_HEADS), *dishes]), ("Parts", [list(PART_HEADS), *parts])]
    return write_csv(tables) if form == "csv" else write_xlsx(tables)


def read_document(text: str) -> list[schemas.DishIn]:
    """The dishes of a document.

    Raises:
        DomainError: bad_document, with the place.
    """
    try:
        document: Any = json.loads(text)
    except ValueError as error:
        raise _refuse(f"This is no JSON: {error}.") from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise _refuse(f"This is no document of dishes: its format is not “{FORMAT}”.")
    dishes = document.get("dishes")
    if not isinstance(dishes, list) or len(dishes) > MOST_DISHES:
        raise _refuse(f"“dishes” is to be a list of at most {MOST_DISHES}.")
    found = []
    for index, one in enumerate(dishes):
        try:
            found.append(schemas.DishIn.model_validate(one))
        except ValidationError as error:
            fault = error.errors()[0]
            place = ".".join(str(part) for part in fault["loc"])
            raise _refuse(f"dishes[{index}].{place}: {fault['msg']}.") from error
    return found


def _refuse(said: str) -> DomainError:
    return DomainError("bad_document", 422, "Not imported", said)
