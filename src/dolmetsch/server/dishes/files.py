"""Dishes as a file to take away, and back in: every dish's latest version as it was typed."""

import json
from typing import Any, Final

from pydantic import ValidationError

from dolmetsch.server.dishes import schemas
from dolmetsch.server.dishes.costing import list_dishes
from dolmetsch.server.dishes.queries import read_dishes
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError
from dolmetsch.server.tables.reading import read_records
from dolmetsch.server.tables.writing import Row, TableForm, Tables, write_tables

FORMAT: Final = "dolmetsch-dishes/1"
PART_HEADS: Final = (
    *("dish", "part", "from", "amount", "cooked", "yield, %", "cost as typed"),
    *("for plates", "menu price", "tax, %", "tax in price"),
)
COST_HEADS: Final = (
    *("dish", "version", "a plate costs", "menu price", "food cost, %", "leaves", "plates in 30 days"),
)
_YES: Final = ("yes", "true", "1", "x")
MOST_DISHES: Final = 1000


def write_dishes(kitchen: Kitchen, form: TableForm) -> bytes:
    """All dishes of ``kitchen``."""
    inputs = [schemas.DishIn.model_validate(dish.input) for dish in list_dishes(kitchen)]
    if form == "json":
        document = {"format": FORMAT, "dishes": [one.model_dump(mode="json") for one in inputs]}
        return (json.dumps(document, ensure_ascii=False, indent=1) + "\n").encode()
    costs: list[Row] = [
        [one.name, one.version, one.cost, one.price, one.food_cost, one.leaves, one.plates]
        for one in read_dishes(kitchen).dishes
    ]
    parts: list[Row] = [
        [
            *(one.name, part.name, part.sort, part.amount, "yes" if part.is_cooked else ""),
            *(part.kept, part.cost, one.plates, one.price, one.tax, "yes" if one.is_tax_in else ""),
        ]
        for one in inputs
        for part in one.parts
    ]
    tables: Tables = [("Dishes", [list(PART_HEADS), *parts]), ("Costs", [list(COST_HEADS), *costs])]
    return write_tables(tables, form)


def read_file(name: str, content: bytes) -> list[schemas.DishIn]:
    """The dishes of a file: a document, or a table of parts with the heads of ours.

    Raises:
        DomainError: bad_document, with the path; bad_file, too_large.
    """
    if content.lstrip().startswith((b"{", b"[")):
        return _read_document(content)
    return _read_table(name, content)


def _read_table(name: str, content: bytes) -> list[schemas.DishIn]:
    """Rows of one dish are its parts, in order; what is of the dish itself is read from its first row."""
    dishes: dict[str, dict[str, Any]] = {}
    first: dict[str, int] = {}
    for number, texts in read_records(name, content):
        if "dish" not in texts or "part" not in texts:
            raise _refuse(f"“{name}” has no columns “dish” and “part”: {', '.join(PART_HEADS)}.")
        row = {head: texts.get(head, "") for head in PART_HEADS}
        first.setdefault(row["dish"], number)
        dish = dishes.setdefault(
            row["dish"],
            {
                "name": row["dish"],
                "plates": row["for plates"],
                "price": row["menu price"],
                "tax": row["tax, %"],
                "is_tax_in": row["tax in price"].casefold() in _YES,
                "parts": [],
            },
        )
        dish["parts"].append(
            {
                "sort": row["from"] or "own",
                "name": row["part"],
                "amount": row["amount"],
                "is_cooked": row["cooked"].casefold() in _YES,
                "kept": row["yield, %"],
                "cost": row["cost as typed"],
            }
        )
    return [_read_dish(one, f"row {first[dish]}") for dish, one in dishes.items()]


def _read_document(content: bytes) -> list[schemas.DishIn]:
    try:
        document: Any = json.loads(content)
    except ValueError as error:
        raise _refuse(f"This is no JSON: {error}.") from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise _refuse(f"This is no document of dishes: its format is not “{FORMAT}”.")
    dishes = document.get("dishes")
    if not isinstance(dishes, list) or len(dishes) > MOST_DISHES:
        raise _refuse(f"“dishes” is to be a list of at most {MOST_DISHES}.")
    return [_read_dish(one, f"dishes[{index}]") for index, one in enumerate(dishes)]


def _read_dish(content: object, where: str) -> schemas.DishIn:
    try:
        return schemas.DishIn.model_validate(content)
    except ValidationError as error:
        fault = error.errors()[0]
        path = ".".join(str(part) for part in fault["loc"])
        raise _refuse(f"{where}, {path}: {fault['msg']}.") from error


def _refuse(said: str) -> DomainError:
    return DomainError("bad_document", 422, "Not imported", said)
