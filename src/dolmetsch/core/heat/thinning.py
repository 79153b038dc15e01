"""Fewer points of a long curve, none of its highs and lows lost."""

from collections.abc import Sequence

#: Times and values, in order of time.
Curve = Sequence[tuple[float, float]]


def thin(curve: Curve, *, most: int) -> list[tuple[float, float]]:
    """About ``most`` points of ``curve``, which is in order of time: its first and last, and of each of so
    many equal stretches of time the lowest and the highest, so that no peak, dip or crossing is lost.

    A stretch in which nothing was read stays empty: a gap stays a gap.
    """
    if len(curve) <= most:
        return list(curve)
    start, end = curve[0][0], curve[-1][0]
    stretches = max(1, most // 2)
    wide = (end - start) / stretches or 1.0
    kept = {0, len(curve) - 1}
    lowest: dict[int, int] = {}
    highest: dict[int, int] = {}
    for index, (at, value) in enumerate(curve):
        stretch = min(int((at - start) / wide), stretches - 1)
        if stretch not in lowest or value < curve[lowest[stretch]][1]:
            lowest[stretch] = index
        if stretch not in highest or value > curve[highest[stretch]][1]:
            highest[stretch] = index
    kept.update(lowest.values(), highest.values())
    return [curve[index] for index in sorted(kept)]
