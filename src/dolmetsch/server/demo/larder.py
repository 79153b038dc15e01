"""The canteen's larder: packs of cherry jowl and of an old belly, breakfasts, rolls, the store cupboard."""

from typing import Any, Final

JOWL: Final = "Cherry jowl"
BELLY: Final = "Autumn belly"
FREEZER, FRIDGE = "Freezer", "Fridge 1"

#: Days ago, batch by its name, packs: how many, piece, product, form, weight, slices, store.
PACKINGS: Final[list[tuple[int, str, list[tuple[int, str, str, str, str, str, str]]]]] = [
    (
        54,
        "Autumn belly",
        [
            (3, "A1", BELLY, "slices", "0.55 lb", "9", FREEZER),
            (2, "B1", BELLY, "slices", "0.55 lb", "9", FREEZER),
        ],
    ),
    (
        7,
        "Cherry-smoked jowl",
        [
            (2, "A1", JOWL, "slices", "0.58 lb", "10", FRIDGE),
            (4, "A1", JOWL, "slices", "0.59 lb", "10", FREEZER),
            (8, "B1", JOWL, "slices", "0.58 lb", "10", FREEZER),
            (4, "C1", JOWL, "slices", "0.58 lb", "10", FREEZER),
            (1, "C1", "Jowl ends and pieces", "ends", "0.45 lb", "7", FREEZER),
        ],
    ),
]
#: Days ago, hour, cook, batch by its name, pack, what happened to it.
TAKINGS: Final[list[tuple[int, int, str, str, str, dict[str, Any]]]] = [
    (40, 8, "maren", "Autumn belly", "P1", {"fate": "eaten"}),
    (31, 8, "odo", "Autumn belly", "P2", {"fate": "given", "why": "to the net menders"}),
    (22, 19, "maren", "Autumn belly", "P3", {"fate": "discarded", "why": "thawed and forgotten"}),
    (6, 8, "maren", "Cherry-smoked jowl", "P1", {"fate": "eaten", "slices": "6"}),
    (5, 8, "odo", "Cherry-smoked jowl", "P1", {"fate": "eaten", "slices": "4"}),
    (4, 18, "maren", "Cherry-smoked jowl", "P18", {"fate": "sold", "income": "6.50"}),
    (2, 8, "maren", "Cherry-smoked jowl", "P2", {"fate": "eaten", "slices": "4"}),
]
#: Days ago, batch by its name, pack, store it was put into; empty: opened.
MOVES: Final[list[tuple[int, str, str, str]]] = [
    (6, "Cherry-smoked jowl", "P1", ""),
    (5, "Cherry-smoked jowl", "P3", FRIDGE),
    (3, "Cherry-smoked jowl", "P2", ""),
    (3, "Cherry-smoked jowl", "P4", FRIDGE),
]


def _part(sort: str, name: str, amount: str, **more: Any) -> dict[str, Any]:
    return {"sort": sort, "name": name, "amount": amount, **more}


AIMS: Final = {"low": "28", "high": "35", "threshold": "5"}
DISHES: Final[list[dict[str, Any]]] = [
    {
        "name": "Rye loaf",
        "plates": "14",
        "words": "Baked in the morning; a plate is a slice.",
        "parts": [_part("price", "rye flour", "650 g"), _part("own", "sour, salt, oven", "", cost="0.90")],
    },
    {
        "name": "Harbor roll",
        "price": "9.50",
        "parts": [
            _part("larder", JOWL, "3 slices"),
            _part("dish", "Rye loaf", "2"),
            _part("price", "leaves", "35 g", kept="80"),
            _part("own", "mustard dressing", "a spoon", cost="0.22"),
        ],
    },
    {
        "name": "Jowl and eggs",
        "price": "7.80",
        "parts": [
            _part("larder", JOWL, "4 slices"),
            _part("price", "eggs", "2 each"),
            _part("dish", "Rye loaf", "1"),
        ],
    },
]
#: A meal plan: what is served on the first Saturday so many days ahead, made how and from what.
PLAN_DAYS: Final = 12
PLAN: Final[dict[str, Any]] = {
    "name": "Saturday's sixty",
    "at": "19:00",
    "wants": [{"sort": "dish", "name": "Harbor roll", "amount": "60"}],
    "makes": [
        {"way": "Dry cure, cherry smoke", "meat": "jowl, skin on", "pack": "6 lb", "piece": "3 lb"},
    ],
    "hours_a_day": "5",
}
#: What the dishes are made of: name, days ago, price, size.
PRICES: Final = [
    ("rye flour", 30, "1.80/kg", ""),
    ("leaves", 12, "11.00/kg", ""),
    ("leaves", 2, "14.00/kg", ""),
    ("eggs", 20, "4.20", "12 each"),
]
#: Days ago, hour, dish, plates.
PLATES: Final = [
    (5, 13, "Harbor roll", 2),
    (4, 13, "Jowl and eggs", 1),
    (3, 13, "Harbor roll", 2),
    (1, 13, "Harbor roll", 3),
]
#: Days ago, what, bought or counted, how much.
STOCK: Final = [
    (60, "coarse salt", "bought", "5 kg"),
    (60, "curing salt no. 1", "bought", "16 oz"),
    (50, "cherry pellets", "bought", "40 lb"),
    (18, "curing salt no. 1", "counted", "60 g"),
    (18, "bags", "counted", "42"),
]
