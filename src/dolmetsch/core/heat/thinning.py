"""Fewer points of a long curve, or readings of an old log, none of its highs, lows and crossings lost."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Final

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


#: Of old readings so many seconds are looked at together.
BUCKET_SECONDS: Final = 300


def choose_kept(readings: Sequence[tuple[float, Mapping[str, float]]], *, marks: Iterable[float]) -> set[int]:
    """Which of old ``readings``, in order of time (seconds, values by probe), are kept.

    Of every five minutes the first and the last, each probe's lowest and highest, and both ends of every
    step in which a probe crosses one of ``marks``: so no minimum, maximum or crossing is lost, and no gap
    made that was not there.
    """
    kept: set[int] = set()
    buckets: dict[int, list[int]] = {}
    for index, (at, _) in enumerate(readings):
        buckets.setdefault(int(at // BUCKET_SECONDS), []).append(index)
    for bucket in buckets.values():
        kept |= {bucket[0], bucket[-1]}
        for probe in {name for index in bucket for name in readings[index][1]}:
            having = [index for index in bucket if probe in readings[index][1]]
            kept.add(min(having, key=lambda index: readings[index][1][probe]))
            kept.add(max(having, key=lambda index: readings[index][1][probe]))
    limits = sorted(marks)
    last: dict[str, int] = {}
    for index, (_, values) in enumerate(readings):
        for probe, value in values.items():
            before = last.get(probe)
            if before is not None:
                low, high = sorted((readings[before][1][probe], value))
                if low < high and any(low <= mark <= high for mark in limits):
                    kept |= {before, index}
            last[probe] = index
    return kept
