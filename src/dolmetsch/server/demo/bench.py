"""The bench of the canteen: stores, recipes, a belly cured four ways, the days between. All made up."""

from typing import Any, Final

from dolmetsch.server.demo.canteen import Recorded, cut_off_line, piece_line, split_entry, terms_entries

#: name, sort, levels, slots.
STORES: Final = (
    ("Fridge 1", "fridge", 3, 2),
    ("Fridge 2", "fridge", 3, 2),
    ("Smoker", "smoker", 2, 2),
    ("Chamber", "chamber", 2, 3),
    ("Freezer", "freezer", 3, 2),
)


def _ingredient(name: str, amount: str, spoon: str = "", stage: int = 1) -> dict[str, Any]:
    return {"name": name, "amount": amount, "spoon": spoon, "stage": stage}


_SALT: Final = _ingredient("coarse salt", "2.5 %", "dense_flake")
HOUSE: Final[dict[str, Any]] = {
    "name": "House dry, juniper",
    "school": "measured",
    "salt": _SALT,
    "sugar": _ingredient("brown sugar", "1 %", "brown_sugar"),
    "agent": "no_1",
    "target": "150",
    "extras": [_ingredient("crushed juniper", "0.3 %"), _ingredient("black pepper", "0.5 %", "black_pepper")],
}
LESS_SALT: Final[dict[str, Any]] = {
    **HOUSE,
    "name": "Less salt, maple",
    "salt": {**_SALT, "amount": "2.0 %"},
    "sugar": _ingredient("maple syrup", "1.5 %", "syrup"),
    "extras": [],
}
COVERED: Final[dict[str, Any]] = {
    "name": "Quay inject and cover",
    "school": "inject_cover",
    "salt": {**_SALT, "amount": "2.2 %"},
    "sugar": _ingredient("brown sugar", "1 %", "brown_sugar"),
    "agent": "no_1",
    "target": "110",
    "water": "80 %",
    "pump": "10 %",
    "hot_part": "20 %",
}
BRINE_RECIPE: Final[dict[str, Any]] = {
    **COVERED,
    "name": "Maple brine",
    "school": "brine",
    "sugar": _ingredient("maple syrup", "1.5 %", "syrup"),
    "water": "100 %",
    "pump": "",
}
BY_SPOON: Final[dict[str, Any]] = {
    "name": "Grandmother's spoon",
    "school": "spoon",
    "salt": _ingredient("coarse salt", "2 tsp/lb", "dense_flake"),
    "sugar": _ingredient("brown sugar", "1 tsp/lb", "brown_sugar"),
    "agent": "no_1",
    "agent_amount": "1 tsp for 5 lb",
}
RECIPES: Final = (HOUSE, LESS_SALT, COVERED, BRINE_RECIPE, BY_SPOON)

BELLY: Final[list[Recorded]] = [
    (
        (5, 8, 0),
        "maren",
        {
            "start": "Lantern belly, four cures",
            "bought": {
                "cut": "belly, skin on",
                "label_weight": "20.6 lb",
                "own_weight": "20.4 lb",
                "price_basis": "per_lb",
                "price": "3.79",
            },
        },
    ),
    *(
        ((5, 8, 5), "maren", terms)
        for terms in terms_entries(
            "good shop bacon", "6.15", "12 oz", slices="11", portion={"slices": "3"}, fry="34"
        )
    ),
    (
        (5, 8, 40),
        "maren",
        split_entry(
            "trim",
            "lot",
            piece_line("A", "4.4 lb"),
            piece_line("B", "4.3 lb"),
            piece_line("C", "4.6 lb"),
            piece_line("D", "4.1 lb"),
            cut_off_line("skin", "skin", "1.9 lb"),
            cut_off_line("lean trim", "lean", "0.7 lb", "2.40/lb"),
            cut_off_line("fat", "fat", "0.3 lb", "0.80/lb"),
            minutes="28",
        ),
    ),
]

#: The belly's pieces: recipe, thickness, and place.
CURED: Final = (
    ("A", HOUSE, "1.4 in", ("Fridge 1", 1, 1)),
    ("B", LESS_SALT, "1.4 in", ("Fridge 1", 1, 2)),
    ("C", COVERED, "1.5 in", ("Fridge 1", 3, 1)),
    ("D", BY_SPOON, "1.3 in", ("Fridge 1", 2, 1)),
)
#: Pieces of the other batches: code, mark, size (length, width, thickness), skin, place.
FACTS: Final = (
    ("B-01", "A", ("14 in", "9 in", "1.6 in"), "off", ("Fridge 2", 1, 1)),
    ("B-01", "B", ("13 in", "9 in", "1.5 in"), "off", ("Fridge 2", 1, 2)),
    ("L-01", "A", ("", "", "2.8 in"), "", ("Fridge 2", 2, 1)),
    ("L-01", "B", ("", "", "2.7 in"), "", ("Fridge 2", 2, 2)),
    ("S-01", "P", ("", "", ""), "", ("Chamber", 1, 1)),
    ("S-01", "Q", ("", "", ""), "", ("Chamber", 1, 2)),
)
#: Code, days and hours ago, cook, mark, text.
NOTES: Final = (
    ("B-02", 4, 2, "maren", "C", "Took 190 g by the needle, a little ran out at the thin end."),
    ("B-02", 2, 1, "odo", "A", "Firm at the edges, still soft in the middle. Smells of juniper."),
    ("L-01", 1, 1, "odo", "", "Fried a sliver: just right, the maple comes through."),
)

#: Sausages of S-01 that hang: mark and green weight; what was noted of each, hours after it was hung.
HUNG: Final = (("P", "2.04 lb"), ("Q", "1.95 lb"))
HOOK_NOTES: Final = (
    (0, "ferment", {"temp": "72"}),
    (0, "ph", {"ph": "5.7"}),
    (20, "ph", {"ph": "5.4"}),
    (30, "ph", {"ph": "5.1"}),
    (36, "air", {"temp": "57", "humidity": "78"}),
    (60, "air", {"temp": "55", "humidity": "76"}),
)
