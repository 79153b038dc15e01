"""A part of a page of docs that a benchmark writes."""

from pathlib import Path


def put_part(path: Path, head: str, part: str, *, before: str) -> None:
    """Write ``part``, which begins with its ``head``, anew; where there is none yet, ``before`` another."""
    above, _, rest = path.read_text().partition(f"{head}\n")
    if rest:
        _, _, below = rest.partition("\n## ")
        path.write_text(f"{above}{part}\n## {below}")
    else:
        above, _, below = above.partition(before)
        path.write_text(f"{above}{part}\n{before}{below}")
