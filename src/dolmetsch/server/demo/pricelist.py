"""The canteen's price list and ways, all made up: prices over the year, packs fried, how things are made."""

from typing import Any, Final

#: sort, name, kind, then (days ago, source, price, size, slices, solution) as they were seen.
Seen = tuple[int, str, str, str, str, str]
PRICES: Final[list[tuple[str, str, str, list[Seen]]]] = [
    (
        "meat",
        "jowl, skin on",
        "",
        [
            (330, "Quay butcher", "2.49/lb", "", "", ""),
            (262, "Quay butcher", "2.59/lb", "", "", ""),
            (188, "Quay butcher", "2.95/lb", "", "", ""),
            (121, "Tidewell Provisions", "31.80", "12 lb", "", ""),
            (64, "Quay butcher", "2.69/lb", "", "", ""),
            (17, "Quay butcher", "2.79/lb", "", "", ""),
            (3, "Tidewell Provisions", "34.20", "12 lb", "", ""),
        ],
    ),
    (
        "meat",
        "belly, skin on",
        "",
        [
            (300, "Quay butcher", "3.59/lb", "", "", ""),
            (210, "Tidewell Provisions", "3.95/lb", "", "", ""),
            (150, "Quay butcher", "4.15/lb", "", "", ""),
            (70, "Quay butcher", "3.89/lb", "", "", ""),
            (3, "Quay butcher", "3.79/lb", "", "", ""),
        ],
    ),
    (
        "meat",
        "belly, skinless, trimmed",
        "",
        [
            (200, "Tidewell Provisions", "5.05/lb", "", "", ""),
            (3, "Tidewell Provisions", "5.20/lb", "", "", ""),
        ],
    ),
    (
        "meat",
        "shoulder, bone in",
        "",
        [(140, "Harbour market", "1.89/lb", "", "", ""), (3, "Harbour market", "15.92", "8 lb", "", "12")],
    ),
    (
        "meat",
        "loin, boneless",
        "",
        [(160, "Quay butcher", "3.05/lb", "", "", ""), (8, "Quay butcher", "3.19/lb", "", "", "")],
    ),
    (
        "ingredient",
        "coarse salt",
        "",
        [(280, "Harbour market", "1.10/kg", "", "", ""), (40, "Harbour market", "1.20/kg", "", "", "")],
    ),
    ("ingredient", "curing salt no. 1", "", [(280, "Tidewell Provisions", "5.00", "8 oz", "", "")]),
    ("ingredient", "brown sugar", "", [(100, "Harbour market", "2.10/kg", "", "", "")]),
    ("ingredient", "black pepper", "", [(100, "Harbour market", "24.00/kg", "", "", "")]),
    ("ingredient", "crushed juniper", "", [(90, "Harbour market", "31.00/kg", "", "", "")]),
    ("ingredient", "maple syrup", "", [(60, "Harbour market", "9.00", "500 g", "", "")]),
    ("packaging", "bags", "", [(120, "Tidewell Provisions", "18.00", "50 each", "", "")]),
    (
        "fuel",
        "cherry pellets",
        "",
        [
            (240, "Quay ironmonger", "18.00", "20 lb", "", ""),
            (50, "Quay ironmonger", "19.50", "20 lb", "", ""),
        ],
    ),
    ("by_product", "lean trim", "", [(120, "our own", "2.40/lb", "", "", "")]),
    ("by_product", "ends", "", [(120, "our own", "3.00/lb", "", "", "")]),
    (
        "shop_pack",
        "cheap shop bacon",
        "cheap",
        [(170, "Corner shop", "4.10", "16 oz", "18", ""), (5, "Corner shop", "4.30", "16 oz", "18", "10")],
    ),
    (
        "shop_pack",
        "good shop bacon",
        "good",
        [
            (290, "Pier grocer", "5.80", "12 oz", "11", ""),
            (170, "Pier grocer", "5.95", "12 oz", "11", ""),
            (5, "Pier grocer", "6.15", "12 oz", "11", ""),
        ],
    ),
    ("shop_pack", "best shop bacon", "best", [(5, "Smokehouse counter", "9.40", "1 lb", "14", "")]),
]
#: Shop pack, days ago, raw, cooked.
FRYINGS: Final = [
    ("good shop bacon", 60, "112 g", "38 g"),
    ("good shop bacon", 31, "98 g", "34 g"),
    ("good shop bacon", 5, "105 g", "35 g"),
    ("cheap shop bacon", 31, "120 g", "36 g"),
    ("cheap shop bacon", 5, "118 g", "38 g"),
]


def _step(method: str, batch: str = "", pound: str = "", *, days: int = 0, **more: Any) -> dict[str, Any]:
    return {"method": method, "batch_minutes": batch, "pound_minutes": pound, "days": days, **more}


def _use(what: str, group: str, amount: str, per: str = "kg") -> dict[str, str]:
    return {"what": what, "group": group, "amount": amount, "per": per}


_SMOKE: Final = _step(
    "hot_smoke", "24", "0.3", days=1, used=[_use("cherry pellets", "fuel", "6 lb", "batch")]
)
_SLICE: Final = _step(
    "slice", "6", "1.8", days=1, used=[_use("bags", "packaging", "0.9", "lb")], worth="2.20/lb"
)
DRY: Final = "Dry cure, cherry smoke"
BRINE: Final = "Maple brine, cherry smoke"
WAYS: Final[list[dict[str, Any]]] = [
    {
        "name": DRY,
        "portion_slices": "3",
        "slice_weight": "0.06 lb",
        "steps": [
            _step("trim", "6", "0.75", worth="1.10/lb"),
            _step(
                "dry_cure",
                "10",
                "0.5",
                days=8,
                used=[
                    _use("coarse salt", "cure", "2.2 %"),
                    _use("curing salt no. 1", "cure", "0.25 %"),
                    _use("crushed juniper", "cure", "3 g"),
                ],
            ),
            _step("rest", "5", days=1),
            _SMOKE,
            _step("chill", days=1),
            _SLICE,
        ],
    },
    {
        "name": BRINE,
        "portion_slices": "2",
        "slice_weight": "0.07 lb",
        "steps": [
            _step("trim", "6", "0.9", worth="1.10/lb"),
            _step(
                "immersion",
                "12",
                "0.6",
                days=6,
                used=[
                    _use("coarse salt", "cure", "95 g"),
                    _use("curing salt no. 1", "cure", "4 g"),
                    _use("maple syrup", "cure", "40 g"),
                ],
            ),
            _step("rest", "5", days=1),
            _SMOKE,
            _step("chill", days=1),
            _SLICE,
        ],
    },
]
