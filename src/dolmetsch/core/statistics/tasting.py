"""A blind tasting: who scored which plate how, and whether the plates differ by more than chance.

Tasters differ in how high they score, so plates are compared within each taster alone. If the plates did not
differ, every taster's scores could as well lie on the plates in any other order: the difference found is held
against those of all such orders (a randomization test in blocks, Edgington and Onghena, *Randomization
Tests*, 4th ed., 5): for two plates of every order, for more of every order where they are few, else of so
many drawn by a fixed seed, counting the found one among them so that it stays valid (Phipson and Smyth 2010).
Equal scores stay equal. Pairs are held to one level together by Holm's method (1979).
"""

import random
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, permutations, product
from math import ceil, factorial, fsum, sqrt
from typing import Final

from dolmetsch.core.statistics.difference import MORE_THAN_CHANCE
from dolmetsch.core.statistics.spread import FEWEST, variance_of
from dolmetsch.core.statistics.student import t_quantile

SCALES: Final = ("salt", "smoke", "sweetness", "texture", "color")
LEAST_SCORE, MOST_SCORE = 1, 9
#: So many orders are all gone through; of more, this many are drawn.
MOST_ORDERS: Final = 5_000
DRAWN: Final = 4_999
#: Sums that differ by less are one and the same; pairs are summed in whole numbers of it.
_SAME: Final = 1e-6
#: One-sided quantiles of 5 % in two tails, and of a chance of 80 % to see what is there.
_Z_LEVEL, _Z_POWER = 1.959964, 0.841621
#: Beyond so many more tastings the plates are as good as alike.
MOST_MORE: Final = 200

#: What a taster gave each plate, by the plate's letter.
Scores = Mapping[str, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlateScore:
    """A plate's mean, and its 80 % range with what tasters differ by taken out; None below three tasters."""

    plate: str
    mean: float
    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PairResult:
    """Two plates: how much the first is ahead, how often chance does it, how many more it needs.

    ``chance`` is of the pair among all pairs together (Holm); ``wins``, ``ties``, ``losses`` count tasters.
    ``more``: further tastings after which a difference like the one found is seen eight times in ten; None
    where it is settled, and where ``MOST_MORE`` would not do.
    """

    first: str
    second: str
    ahead: float
    chance: float
    wins: int
    ties: int
    losses: int
    more: int | None

    @property
    def is_more_than_chance(self) -> bool:
        """Whether the first is ahead by more than chance."""
        return self.chance < MORE_THAN_CHANCE


@dataclass(frozen=True, slots=True, kw_only=True)
class TastingResult:
    """All plates, the higher first, and all pairs of them in that order.

    ``chance``: how often plates that do not differ lie as far apart; None without tasters.
    """

    plates: tuple[PlateScore, ...]
    pairs: tuple[PairResult, ...]
    tasters: int
    chance: float | None


def compute_tasting(tasters: Sequence[Scores], *, seed: int = 1) -> TastingResult:
    """The result of tasters who scored the same plates, at least two.

    Raises:
        ValueError: the tasters scored different plates, or fewer than two.
    """
    if not tasters:
        return TastingResult(plates=(), pairs=(), tasters=0, chance=None)
    names = sorted(tasters[0])
    if len(names) < 2 or any(sorted(one) != names for one in tasters):
        raise ValueError("every taster scores the same plates, two at least")
    plates = sorted(
        (_score_plate(name, tasters) for name in names), key=lambda plate: (-plate.mean, plate.plate)
    )
    pairs = list(combinations([plate.plate for plate in plates], 2))
    raw = [compute_pair_chance([one[first] - one[second] for one in tasters]) for first, second in pairs]
    held = _hold_together(raw)
    return TastingResult(
        plates=tuple(plates),
        pairs=tuple(
            _judge_pair(tasters, first, second, chance)
            for (first, second), chance in zip(pairs, held, strict=True)
        ),
        tasters=len(tasters),
        chance=compute_chance([[one[name] for name in names] for one in tasters], seed=seed),
    )


def _score_plate(name: str, tasters: Sequence[Scores]) -> PlateScore:
    count = len(tasters)
    mean = fsum(one[name] for one in tasters) / count
    # what a taster scores above the others on every plate says nothing of this one
    apart = [one[name] - fsum(one.values()) / len(one) for one in tasters]
    variance = variance_of(apart)
    if variance is None or count < FEWEST:
        return PlateScore(plate=name, mean=mean, low=None, high=None)
    reach = t_quantile(0.9, count - 1) * sqrt(variance / count)
    return PlateScore(plate=name, mean=mean, low=mean - reach, high=mean + reach)


def compute_chance(rows: Sequence[Sequence[float]], *, seed: int = 1) -> float:
    """How often plates that do not differ lie as far apart: ``rows`` are tasters, their scores by plate.

    The statistic is Σ (sum of a plate)², which orders as the variance between plates does.
    """
    if len(rows[0]) == 2:
        return compute_pair_chance([first - second for first, second in rows])
    found = _apart(rows)
    orders = factorial(len(rows[0])) ** len(rows)
    if orders <= MOST_ORDERS:
        tried = [_apart(shuffled) for shuffled in product(*(list(permutations(row)) for row in rows))]
        return sum(one >= found - _SAME for one in tried) / len(tried)
    return _part_as_far(found, _draw(rows, seed))


def _draw(rows: Sequence[Sequence[float]], seed: int) -> Iterator[float]:
    draw = random.Random(seed)  # noqa: S311
    mixed = [list(row) for row in rows]
    for _ in range(DRAWN):
        for row in mixed:
            draw.shuffle(row)
        yield _apart(mixed)


def _part_as_far(found: float, drawn: Iterator[float]) -> float:
    return (1 + sum(one >= found - _SAME for one in drawn)) / (DRAWN + 1)


def _apart(rows: Sequence[Sequence[float]]) -> float:
    return fsum(fsum(column) ** 2 for column in zip(*rows, strict=True))


def compute_pair_chance(ahead: Sequence[float]) -> float:
    """How often two plates that do not differ lie as far apart, ``ahead`` being each taster's difference.

    Exact: the sums of all 2ⁿ choices of signs, counted by their value as they are added taster by taster.
    """
    steps = [round(one / _SAME) for one in ahead]
    counts = {0: 1}
    for step in steps:
        following: dict[int, int] = defaultdict(int)
        for value, count in counts.items():
            following[value + step] += count
            following[value - step] += count
        counts = following
    found = abs(sum(steps))
    as_far = sum(count for value, count in counts.items() if abs(value) >= found)
    return as_far / sum(counts.values())


def _hold_together(chances: Sequence[float]) -> list[float]:
    """Holm's adjusted chances, in the order given."""
    order = sorted(range(len(chances)), key=lambda at: chances[at])
    held, least = [0.0] * len(chances), 0.0
    for rank, at in enumerate(order):
        least = max(least, min(1.0, (len(chances) - rank) * chances[at]))
        held[at] = least
    return held


def _judge_pair(tasters: Sequence[Scores], first: str, second: str, chance: float) -> PairResult:
    ahead = [one[first] - one[second] for one in tasters]
    mean = fsum(ahead) / len(ahead)
    return PairResult(
        first=first,
        second=second,
        ahead=mean,
        chance=chance,
        wins=sum(one > _SAME for one in ahead),
        ties=sum(abs(one) <= _SAME for one in ahead),
        losses=sum(one < -_SAME for one in ahead),
        more=None if chance < MORE_THAN_CHANCE else count_more(mean, variance_of(ahead), len(ahead)),
    )


def count_more(ahead: float, variance: float | None, count: int) -> int | None:
    """Further tastings until a mean difference like ``ahead`` is seen eight times in ten at the 5 % level.

    n = ((z(0.975) + z(0.8)) · s ÷ d)² + z(0.975)² ÷ 2 (Guenther 1981: the spread is estimated too), less
    those there are; at least one. None where there is no difference to see, or over ``MOST_MORE`` are needed.
    """
    if variance is None or abs(ahead) <= _SAME:
        return None
    wanted = ceil((_Z_LEVEL + _Z_POWER) ** 2 * variance / ahead**2 + _Z_LEVEL**2 / 2)
    more = max(1, wanted - count)
    return more if more <= MOST_MORE else None
