"""What was measured of a town, as its part of docs/scale.md."""

import os
from collections.abc import Iterable
from typing import Any, Final

from benchmarks.town.people import ALARMS_EVERY, HEARD_EVERY, HOURS, PAUSES, PROBES

#: Pages and tables that are shown one by one.
SHOWN: Final = 10
Sizes = list[tuple[Any, ...]]
Measured = dict[str, tuple[float, float]]


def describe_rows(kitchens: int, batches: int, *, readings: str, seconds: float, sizes: Sizes) -> str:
    """How much there is."""
    rows = {str(name): int(count or 0) for name, count, *_ in sizes}
    cores = os.cpu_count()
    return f"""Written by `./dolmetsch bench --town` on {cores} cores; records on the disk, every commit too.
{kitchens} kitchens of {batches} batches, copied by `./dolmetsch many` in {seconds / 60:.0f} minutes:
**{sum(rows.values()):,} rows**, of them {rows["batches_batch"]:,} batches, {rows["batches_entry"]:,} entries,
{rows["larder_pack"]:,} packs and {rows["fires_probereading"]:,} readings, as the record store estimates them.
Each kitchen has {readings} after they are thinned.
"""


def describe_pages(kitchens: int, few: Measured, many: Measured) -> str:
    """Each page and write of a kitchen alone and in the town."""
    ratios = sorted(((many[name][0] / few[name][0], name) for name in few if name in many), reverse=True)
    within = sum(ratio <= 1.3 for ratio, _ in ratios)
    lost = _rows(
        f"| `{name}` | {few[name][0]:.1f} | {many[name][0]:.1f} "
        f"| {few[name][1]:.1f} | {many[name][1]:.1f} | {ratio:.2f} |"
        for ratio, name in ratios[:SHOWN]
    )
    middle = ratios[len(ratios) // 2][0]
    return f"""**As quick as with little**: {len(ratios)} pages, books, plans and writes, each asked when
nothing is kept, in a kitchen that is alone and in one of {kitchens}, both beside the empty endpoint of the
same minute. By their medians **{within} of {len(ratios)} are within 1.3 times**; the median of all is
{middle:.2f} times. The {SHOWN} that lost most, in times the empty endpoint:

| page or write | alone | of {kitchens} | alone, 95 % | of {kitchens}, 95 % | many by few |
|---|---|---|---|---|---|
{lost}
"""


def describe_sizes(kitchens: int, batches: int, sizes: Sizes) -> str:
    """What it takes on the disk."""
    total = sum(data + index for _, _, data, index in sizes)
    rows = _rows(
        f"| {name} | {count:,} | {data / 1e6:,.0f} | {index / 1e6:,.0f} "
        f"| {(data + index) / kitchens / 1e6:.2f} |"
        for name, count, data, index in sizes[:SHOWN]
    )
    each = f"**{total / kitchens / 1e6:.0f} MB a kitchen**"
    return f"""**Sizes**: {total / 1e9:.1f} GB, {each}: the growth a year of one that makes {batches} batches.

| table | rows | data, MB | indexes, MB | MB a kitchen |
|---|---|---|---|---|
{rows}
"""


def describe_archive(found: dict[str, float]) -> str:
    """A kitchen out and in again."""
    out, back = f"{found['out_memory']:.0f} MB of memory", f"{found['in_memory']:.0f} MB"
    return f"""**A kitchen to a file and back**: out in {found["out"]:.0f} s ({found["size"]:.1f} MB of ZIP,
at most {out}), into an empty kitchen in {found["in"]:.0f} s ({back}).
"""


def describe_changes(changes: list[tuple[str, float, float]]) -> str:
    """Tables changed beside writers."""
    rows = _rows(f"| {name} | {took:.1f} | {gap:.1f} |" for name, took, gap in changes)
    return f"""**Tables changed beside four writers**, as Django's migrations change them:

| change | took, s | longest without a record, s |
|---|---|---|
{rows}
"""


def describe_people(people: list[dict[str, Any]]) -> str:
    """People at once, by how many and what they did."""
    lines = []
    for one in people:
        empty = one["times"]["empty endpoint"][1]
        lines += [
            f"| {one['people']} | {kind} | {count} | {half:.0f} | {most:.0f} | {most / empty:.1f} |"
            for kind, (half, most, count) in one["times"].items()
        ]
        refused = ", ".join(f"{count} × {word}" for word, count in one["refused"].items()) or "none"
        lines.append(f"| {one['people']} | all: {one['acts']:.0f} a second, refused: {refused} | | | | |")
    fire, page = PAUSES["watches a fire"], PAUSES["plans"]
    return f"""**People at once**, in a hundred kitchens of the town. In each a fire burns that was begun
{HOURS} hours ago and is heard every {HEARD_EVERY} seconds by {PROBES} probes. A quarter of the people weigh
every {PAUSES["weighs"]:.0f} seconds or so, with a stream of the scale open; a quarter watch the fire, whose
screen renews itself every {fire:.0f}; the others turn a page of plans or books every {page:.0f}; and every
screen asks for alarms every {ALARMS_EVERY:.0f}. The load is made on the same machine.

| people | who | times | median, ms | 95 %, ms | 95 %, times empty |
|---|---|---|---|---|---|
{_rows(lines)}
"""


def _rows(lines: Iterable[str]) -> str:
    return "\n".join(lines)
