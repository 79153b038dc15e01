"""The canteen's trials, what its guests scored blind, its slicer, and a note of the weather; all made up."""

from typing import Final

#: days ago, what was bought, what was paid.
TOOLS: Final = [(190, "slicer", "189.00")]
#: days ago, the batch, what was noted.
NOTES: Final = [(8, "Cherry-smoked jowl", "Gusty wind off the harbor, the smoker would not hold its air")]
#: name; then batch, piece and what is different of each side.
Side = tuple[str, str, str]
BUTCHERS: Final[tuple[str, list[Side]]] = (
    "Jowl from two butchers",
    [
        ("Jowl for the net menders", "", "Quay butcher, September"),
        ("Jowl, box from Tidewell", "", "Tidewell, the box"),
        ("Cherry-smoked jowl", "A1", "Quay butcher, lighter smoke"),
    ],
)
FOUR_CURES: Final[tuple[str, list[Side]]] = (
    "Lantern belly, four cures",
    [
        ("Lantern belly, four cures", "A", "house dry"),
        ("Lantern belly, four cures", "B", "less salt"),
        ("Lantern belly, four cures", "C", "inject and cover"),
        ("Lantern belly, four cures", "D", "spoons"),
    ],
)
#: Days ago of the tasting of the butchers' jowls; each guest's scores of A, B and C on the five scales in
#: their order, and which one they would have again.
TASTED: Final = 4
Scored = tuple[tuple[int, ...], tuple[int, ...], tuple[int, ...]]
GUESTS: Final[list[tuple[str, Scored, str]]] = [
    ("Ibba", ((7, 7, 6, 8, 7), (6, 5, 6, 5, 7), (8, 8, 7, 8, 7)), "C"),
    ("Tolle", ((6, 8, 7, 7, 8), (6, 6, 6, 6, 7), (7, 8, 7, 7, 8)), "A"),
    ("Renske", ((8, 7, 7, 8, 8), (7, 6, 7, 6, 8), (8, 7, 7, 9, 8)), "C"),
    ("Odo", ((5, 6, 6, 7, 6), (5, 5, 5, 4, 6), (6, 6, 6, 7, 7)), "C"),
    ("Wieb", ((8, 8, 8, 8, 9), (8, 7, 7, 7, 9), (8, 9, 8, 8, 8)), ""),
    ("Fenna", ((6, 6, 5, 7, 7), (6, 6, 6, 6, 7), (7, 7, 6, 7, 7)), "C"),
    ("Jarle", ((7, 8, 7, 8, 8), (6, 7, 6, 6, 8), (7, 7, 7, 8, 8)), "A"),
    ("Maren", ((7, 7, 6, 8, 8), (5, 6, 6, 5, 7), (8, 8, 7, 8, 8)), "C"),
]
