"""The Salt Lantern Canteen's latest five batches, as the entries its cooks made, day by day.

Days count back from today. Everything is made up: the canteen, Harrow Quay, the cooks, the prices.
"""

from typing import Any, Final

#: (days ago, hour, minute), cook, what was recorded. ``start`` begins a batch; ``corrects`` names the
#: position, within the batch, of the entry that was wrong.
Recorded = tuple[tuple[int, int, int], str, dict[str, Any]]


def used_line(what: str, group: str, amount: str, price: str) -> dict[str, str]:
    """Something used in a step."""
    return {"what": what, "group": group, "amount": amount, "price": price}


def weigh_entry(kind: str, weights: dict[str, str], **more: Any) -> dict[str, Any]:
    """Pieces weighed on under their marks."""
    lines = [{"mark": mark, "weight": weight} for mark, weight in weights.items()]
    return {"content": {"act": "weigh", "kind": kind, "weights": lines, **more}}


def piece_line(mark: str, weight: str, slices: str = "") -> dict[str, str]:
    """A piece that stays."""
    return {"mark": mark, "weight": weight, "slices": slices}


def cut_off_line(name: str, material: str, weight: str, worth: str = "nothing") -> dict[str, str]:
    """Something cut off, with its worth."""
    if worth in ("nothing", "as_main"):
        return {"name": name, "material": material, "weight": weight, "worth": worth}
    return {"name": name, "material": material, "weight": weight, "worth": "price", "price": worth}


def split_entry(kind: str, piece: str, *parts: dict[str, str], **more: Any) -> dict[str, Any]:
    """One piece becoming many."""
    pieces = [part for part in parts if "mark" in part]
    cut_off = [part for part in parts if "name" in part]
    return {
        "content": {
            "act": "split",
            "kind": kind,
            "piece": piece,
            "pieces": pieces,
            "cut_off": cut_off,
            **more,
        }
    }


def terms_entries(
    name: str, paid: str, weight: str, *, slices: str, portion: dict[str, str], fry: str = ""
) -> list[dict[str, Any]]:
    """A shop pack and the portion."""
    return [_pack(name, paid, weight, slices=slices, fry=fry), {"content": {"act": "portion", **portion}}]


def _pack(name: str, paid: str, weight: str, *, slices: str = "", fry: str = "") -> dict[str, Any]:
    pack = {"name": name, "paid": paid, "weight": weight, "slices": slices, "fry": fry}
    return {"content": {"act": "shop_pack", **pack}}


JOWL: Final[list[Recorded]] = [
    (
        (17, 8, 10),
        "maren",
        {
            "start": "Cherry-smoked jowl",
            "bought": {
                "cut": "jowl, skin on",
                "label_weight": "24.3 lb",
                "own_weight": "24 lb",
                "price_basis": "per_lb",
                "price": "2.79",
                "extras": [{"what": "harbour cart", "cost": "2.00"}],
                "bought_from": "Quay butcher",
            },
        },
    ),
    *(
        ((17, 8, 15), "maren", terms)
        for terms in terms_entries(
            "good shop bacon", "6.15", "12 oz", slices="11", portion={"slices": "3"}, fry="34"
        )
    ),
    (
        (17, 9, 5),
        "maren",
        split_entry(
            "trim",
            "lot",
            piece_line("A", "7.1 lb"),
            piece_line("B", "6.9 lb"),
            piece_line("C", "6 lb 12 oz"),
            cut_off_line("skin", "skin", "1.05 lb"),
            cut_off_line("lean trim", "lean", "1.3 lb", "2.40/lb"),
            cut_off_line("fat", "fat", "0.65 lb", "0.80/lb"),
            minutes="24",
        ),
    ),
    (
        (9, 8, 30),
        "odo",
        weigh_entry(
            "cure",
            {"A": "6.8 lb", "B": "6.6 lb", "C": "6.45 lb"},
            minutes="20",
            used=[
                used_line("coarse salt", "cure", "228 g", "1.20/kg"),
                used_line("curing salt no. 1", "cure", "23.5 g", "5.00 for 8 oz"),
                used_line("crushed juniper", "cure", "27 g", "31.00/kg"),
            ],
        ),
    ),
    ((8, 7, 50), "maren", weigh_entry("rest", {"A": "6.74 lb", "B": "6.53 lb", "C": "6.39 lb"})),
    (
        (8, 15, 40),
        "odo",
        weigh_entry(
            "smoke",
            {"A": "5.9 lb", "B": "5.27 lb", "C": "5.6 lb"},
            minutes="30",
            used=[used_line("cherry pellets", "fuel", "6 lb", "19.50 for 20 lb")],
        ),
    ),
    (
        (8, 15, 55),
        "odo",
        {
            **weigh_entry(
                "smoke",
                {"A": "5.9 lb", "B": "5.72 lb", "C": "5.6 lb"},
                minutes="30",
                used=[used_line("cherry pellets", "fuel", "6 lb", "19.50 for 20 lb")],
            ),
            "corrects": 7,
            "reason": "B read as 5.27, weighed again",
        },
    ),
    ((7, 8, 20), "maren", weigh_entry("chill", {"A": "5.81 lb", "B": "5.64 lb", "C": "5.52 lb"})),
    *(
        (
            (7, 9, 5 + 14 * turn),
            "maren",
            split_entry(
                "slice",
                mark,
                piece_line(f"{mark}1", weight, slices),
                cut_off_line("ends", "ends", ends, "3.00/lb"),
                minutes="12",
                used=[used_line("bags", "packaging", "5 bags", "18.00 for 50 each")],
            ),
        )
        for turn, (mark, weight, slices, ends) in enumerate(
            [
                ("A", "5.15 lb", "88", "0.6 lb"),
                ("B", "4.95 lb", "85", "0.63 lb"),
                ("C", "4.8 lb", "83", "0.66 lb"),
            ]
        )
    ),
    ((7, 10, 20), "odo", {"content": {"act": "fry", "kept": "42.5"}}),
    ((7, 10, 30), "maren", _pack("cheap shop bacon", "4.30", "16 oz", slices="18", fry="31")),
    ((7, 10, 35), "maren", _pack("best shop bacon", "9.40", "1 lb", slices="14", fry="40")),
]

GOOSE: Final[list[Recorded]] = [
    (
        (6, 10, 0),
        "odo",
        {
            "start": "Bay goose breast",
            "bought": {
                "cut": "goose breast, boneless",
                "label_weight": "3.42 kg",
                "own_weight": "3.38 kg",
                "price_basis": "per_kg",
                "price": "14.60",
            },
        },
    ),
    *(
        ((6, 10, 4), "odo", terms)
        for terms in terms_entries(
            "smokehouse counter", "6.20", "6 oz", slices="", portion={"weight": "2 oz"}
        )
    ),
    (
        (6, 10, 40),
        "odo",
        split_entry(
            "trim",
            "lot",
            piece_line("A", "1.64 kg"),
            piece_line("B", "1.52 kg"),
            cut_off_line("fat", "fat", "120 g", "4.00/kg"),
            cut_off_line("sinew", "waste", "60 g"),
            minutes="14",
        ),
    ),
    (
        (3, 9, 10),
        "maren",
        weigh_entry(
            "cure",
            {"A": "1.58 kg", "B": "1.46 kg"},
            minutes="12",
            used=[
                used_line("fine salt", "cure", "79 g", "0.90/kg"),
                used_line("curing salt no. 1", "cure", "7.9 g", "5.00 for 8 oz"),
                used_line("bay and orange peel", "cure", "", "1.10"),
            ],
        ),
    ),
    (
        (2, 16, 20),
        "maren",
        weigh_entry(
            "smoke",
            {"A": "1.37 kg", "B": "1.25 kg"},
            minutes="24",
            used=[used_line("apple wood", "fuel", "1.5 lb", "6.00 for 5 lb")],
        ),
    ),
    ((1, 8, 0), "odo", weigh_entry("chill", {"A": "1.35 kg", "B": "1.23 kg"})),
    (
        (0, 0, 20),
        "odo",
        split_entry(
            "slice",
            "A",
            piece_line("A1", "1.24 kg"),
            cut_off_line("ends", "ends", "90 g", "as_main"),
            minutes="15",
        ),
    ),
]

LOIN: Final[list[Recorded]] = [
    (
        (8, 11, 20),
        "maren",
        {
            "start": "Brined loin, maple and mustard",
            "bought": {
                "cut": "loin, boneless",
                "label_weight": "9 lb 10 oz",
                "price_basis": "pack",
                "price": "30.70",
            },
        },
    ),
    (
        (8, 11, 25),
        "maren",
        {
            "content": {
                "act": "shop_pack",
                "name": "cheap shop bacon",
                "paid": "4.60",
                "weight": "10 oz",
                "slices": "8",
            }
        },
    ),
    (
        (8, 11, 50),
        "maren",
        split_entry(
            "trim",
            "lot",
            piece_line("A", "4 lb 9 oz"),
            piece_line("B", "4 lb 6 oz"),
            cut_off_line("lean trim", "lean", "5 oz", "2.40/lb"),
            cut_off_line("silver skin", "waste", "3 oz"),
            minutes="16",
        ),
    ),
    (
        (2, 10, 30),
        "odo",
        weigh_entry(
            "cure",
            {"A": "4 lb 11.5 oz", "B": "4 lb 8 oz"},
            minutes="18",
            used=[
                used_line("brine salt", "cure", "410 g", "1.20/kg"),
                used_line("curing salt no. 1", "cure", "17 g", "5.00 for 8 oz"),
                used_line("maple syrup", "cure", "180 g", "9.00 for 500 g"),
            ],
        ),
    ),
    ((1, 9, 30), "odo", weigh_entry("rest", {"A": "4 lb 10.5 oz", "B": "4 lb 7 oz"})),
]

LAMB: Final[list[Recorded]] = [
    (
        (1, 14, 0),
        "odo",
        {
            "start": "Rosemary lamb belly",
            "bought": {
                "cut": "breast of lamb, bone in",
                "label_weight": "11.6 lb",
                "own_weight": "11.5 lb",
                "price_basis": "per_lb",
                "price": "3.10",
            },
        },
    ),
    (
        (1, 14, 45),
        "odo",
        split_entry(
            "trim",
            "lot",
            piece_line("A", "3.9 lb"),
            piece_line("B", "3.75 lb"),
            cut_off_line("rib bones", "bone", "2.35 lb", "0.60/lb"),
            cut_off_line("lean trim", "lean", "0.8 lb", "as_main"),
            cut_off_line("fat", "fat", "0.5 lb"),
            minutes="32",
        ),
    ),
]

SAUSAGE: Final[list[Recorded]] = [
    (
        (5, 9, 0),
        "maren",
        {
            "start": "Two-meat quay sausage",
            "bought": {
                "cut": "smoked jowl and shoulder",
                "source": {"batch": "J-01", "piece": "C1", "weight": "2 lb"},
            },
        },
    ),
    (
        (5, 9, 5),
        "maren",
        {
            "content": {
                "act": "bought",
                "cut": "shoulder, boneless",
                "own_weight": "4.2 lb",
                "price_basis": "per_lb",
                "price": "2.35",
            }
        },
    ),
    ((5, 9, 10), "maren", _pack("deli counter", "8.90", "8 oz")),
    (
        (5, 9, 50),
        "maren",
        {
            "content": {
                "act": "merge",
                "kind": "mix",
                "pieces": ["lot", "lot 2"],
                "into": {"mark": "MIX", "weight": "6.1 lb"},
                "minutes": "25",
                "used": [
                    used_line("fine salt", "cure", "48 g", "0.90/kg"),
                    used_line("fennel and garlic", "cure", "", "1.60"),
                ],
            }
        },
    ),
    (
        (5, 10, 40),
        "odo",
        split_entry(
            "stuff",
            "MIX",
            piece_line("P", "2.1 lb"),
            piece_line("Q", "2 lb"),
            piece_line("R", "1.9 lb"),
            minutes="30",
            used=[used_line("casings", "packaging", "3", "14.00 for 20 each")],
        ),
    ),
    (
        (3, 8, 30),
        "maren",
        weigh_entry("ferment", {"P": "2.04 lb", "Q": "1.95 lb", "R": "1.84 lb"}, minutes="5"),
    ),
    (
        (2, 8, 10),
        "odo",
        {
            "content": {
                "act": "discard",
                "kind": "discard",
                "pieces": ["R"],
                "charge": "batch",
                "why": "the casing split",
            }
        },
    ),
    ((0, 2, 10), "maren", weigh_entry("hang", {"P": "1.83 lb", "Q": "1.74 lb"}, minutes="5")),
]

BATCHES: Final = (JOWL, LOIN, GOOSE, LAMB, SAUSAGE)
