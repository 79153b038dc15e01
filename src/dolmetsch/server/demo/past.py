"""The canteen's finished batches of the months before: weights drawn from a fixed seed, to its scale."""

import random
from typing import Any, Final

from dolmetsch.server.demo.canteen import (
    Recorded,
    cut_off_line,
    piece_line,
    split_entry,
    terms_entries,
    used_line,
    weigh_entry,
)

#: days ago, name, cut, pounds as purchased, price a pound, whom it was bought from.
BATCHES: Final = [
    (318, "Winter jowl", "hog jowl, skin on", 22.4, "2.49", "Quay butcher"),
    (296, "First belly", "pork belly, skin on", 11.6, "3.59", "Quay butcher"),
    (255, "Jowl for the harbour fair", "hog jowl, skin on", 25.1, "2.59", "Quay butcher"),
    (206, "Spring belly", "pork belly, skin on", 12.2, "3.95", "Tidewell Provisions"),
    (184, "Long-table jowl", "hog jowl, skin on", 23.7, "2.95", "Quay butcher"),
    (146, "Midsummer belly", "pork belly, skin on", 10.9, "4.15", "Quay butcher"),
    (116, "Jowl, box from Tidewell", "hog jowl, skin on", 24.0, "2.65", "Tidewell Provisions"),
    (66, "Autumn belly", "pork belly, skin on", 11.3, "3.89", "Tidewell Provisions"),
    (60, "Jowl for the net menders", "hog jowl, skin on", 21.8, "2.69", "Quay butcher"),
]
#: What this kitchen keeps of a step, and how that scatters; its smoker is gentler than most.
_KEEPS: Final = {
    "hog jowl, skin on": {"trim": 0.862, "slice": 0.886},
    "pork belly, skin on": {"trim": 0.847, "slice": 0.902},
}
_STEPS: Final = {
    "cure": (0.953, 0.012),
    "rest": (0.991, 0.003),
    "smoke": (0.884, 0.018),
    "chill": (0.985, 0.004),
}
_ROLLED: Final = {"trim": 0.03, "slice": 0.022}


def past_story(number: int) -> list[Recorded]:
    """The entries of past batch ``number``, as its cooks made them."""
    days, name, cut, pounds, price, source = BATCHES[number]
    draw = random.Random(1000 + number)  # noqa: S311
    keeps = _KEEPS[cut]
    story: list[Recorded] = [
        (
            (days, 8, 10),
            "maren",
            {
                "start": name,
                "bought": {
                    "cut": cut,
                    "own_weight": f"{pounds:.1f} lb",
                    "price_basis": "per_lb",
                    "price": price,
                    "bought_from": source,
                },
            },
        )
    ]
    terms = terms_entries("good shop bacon", "5.95", "12 oz", slices="11", portion={"slices": "3"})
    story += [((days, 8, 15), "maren", entry) for entry in terms]
    kept = pounds * _near(draw, keeps["trim"], _ROLLED["trim"])
    off = pounds - kept - 0.1
    marks = ["A", "B"] if pounds < 15 else ["A", "B", "C"]
    shares = [kept / len(marks) * (1 + (index - (len(marks) - 1) / 2) * 0.04) for index in range(len(marks))]
    trimmed = [piece_line(mark, _lb(share)) for mark, share in zip(marks, shares, strict=True)]
    lean = cut_off_line("lean trim", "lean", _lb(off * 0.45), "2.40/lb")
    skin = cut_off_line("skin", "skin", _lb(off * 0.5))
    minutes = str(round(6 + 0.75 * pounds + draw.uniform(-3, 3)))
    story.append(((days, 9, 5), "maren", split_entry("trim", "lot", *trimmed, lean, skin, minutes=minutes)))
    weights = dict(zip(marks, shares, strict=True))
    for kind, ago in (("cure", 8), ("rest", 9), ("smoke", 10), ("chill", 11)):
        middle, scatter = _STEPS[kind]
        ratio = _near(draw, middle, scatter)
        weights = {mark: weight * ratio for mark, weight in weights.items()}
        more = _more(kind, sum(weights.values()), draw)
        entry = weigh_entry(kind, {mark: _lb(weight) for mark, weight in weights.items()}, **more)
        story.append(((days - ago, 10, 0), "odo", entry))
    for index, (mark, weight) in enumerate(weights.items()):
        sliced = weight * _near(draw, keeps["slice"], _ROLLED["slice"])
        entry = split_entry(
            "slice",
            mark,
            piece_line(f"{mark}1", _lb(sliced), str(round(sliced / 0.06))),
            cut_off_line("ends", "ends", _lb(weight - sliced - 0.03), "2.20/lb"),
            minutes=str(round(2 + 1.8 * weight)),
            used=[used_line("bags", "packaging", f"{max(1, round(0.9 * weight))} bags", "18.00 for 50 each")],
        )
        story.append(((days - 12, 9, 5 + 12 * index), "maren", entry))
    return story


def _near(draw: random.Random, middle: float, scatter: float) -> float:
    return middle + draw.gauss(0, scatter)


def _lb(pounds: float) -> str:
    """As the canteen's scale of 5 g shows it."""
    grams = max(round(pounds * 453.59237 / 5), 1) * 5
    return f"{grams} g"


def _more(kind: str, pounds: float, draw: random.Random) -> dict[str, Any]:
    """What a step used and how long it took."""
    if kind == "cure":
        kilos = pounds * 0.45359237
        return {
            "minutes": str(round(10 + 0.5 * pounds + draw.uniform(-2, 2))),
            "used": [
                used_line("coarse salt", "cure", f"{round(22 * kilos)} g", "1.10/kg"),
                used_line("curing salt no. 1", "cure", f"{round(2.5 * kilos)} g", "5.00 for 8 oz"),
                used_line("crushed juniper", "cure", f"{round(3 * kilos)} g", "31.00/kg"),
            ],
        }
    if kind == "smoke":
        pellets = f"{draw.choice(['5.5', '6', '6.5'])} lb"
        minutes = str(round(24 + 0.3 * pounds + draw.uniform(-3, 3)))
        return {"minutes": minutes, "used": [used_line("cherry pellets", "fuel", pellets, "18.00 for 20 lb")]}
    return {"minutes": "5"} if kind == "rest" else {}
