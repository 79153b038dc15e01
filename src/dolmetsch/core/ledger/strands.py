"""Where a piece comes from: for each lot in it, what it was on the way, and how it was heated."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Final, Literal

Heat = Literal["hot", "cold"]
#: Kinds of step that may heat, as a batch document names them.
HEATED_KINDS: Final = frozenset({"smoke", "cook", "steam"})
#: Cut and brought together again and again, a piece has ever more of them: from here on they are summed up.
MOST_STRANDS: Final = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Heated:
    """A smoke, a cook or a steaming. ``heat``: None where nobody said whether it was a cold one.

    ``inside_fahrenheit`` is the highest temperature inside, where it was read.
    """

    kind: str
    heat: Heat | None = None
    inside_fahrenheit: Fraction | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Strand:
    """One lot in a piece: the ``marks`` it had, from the lot's own to the piece's, and what heated it."""

    lot: str
    marks: frozenset[str]
    heats: tuple[Heated, ...] = ()

    def then(self, *, mark: str | None = None, heated: Heated | None = None) -> "Strand":
        """The strand as it goes on: under another mark, through something that heats, or both."""
        return Strand(
            lot=self.lot,
            marks=self.marks if mark is None or mark in self.marks else self.marks | {mark},
            heats=self.heats if heated is None else (*self.heats, heated),
        )


def strands_together(strands: Iterable[Strand]) -> tuple[Strand, ...]:
    """What came together: strands alike as one; of too many, one for each lot, heated by what all were."""
    alike: dict[tuple[str, tuple[Heated, ...]], Strand] = {}
    for one in strands:
        key = (one.lot, one.heats)
        alike[key] = replace(one, marks=one.marks | alike[key].marks) if key in alike else one
    if len(alike) <= MOST_STRANDS:
        return tuple(alike.values())
    lots: dict[str, Strand] = {}
    for one in alike.values():
        other = lots.setdefault(one.lot, one)
        heats = tuple(heated for heated in one.heats if heated in other.heats)
        lots[one.lot] = Strand(lot=one.lot, marks=one.marks | other.marks, heats=heats)
    return tuple(lots.values())


def is_heated_kind(kind: str) -> bool:
    """Whether a step of ``kind`` may heat the meat."""
    return kind.strip().casefold() in HEATED_KINDS
