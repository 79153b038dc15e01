"""Which changes of tables this program knows, and what to do with records that have seen others."""

import re
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.telling import TroubleError

#: The last program whose tables were made in many steps; since then each feature makes its own in one.
BEFORE: Final = "0.1.0 as of November 28, 2026 (commit ee56ce9)"
_NAMED: Final = re.compile(r"\('(\w+)', '(\d{4}_\w+)'\)")


def list_steps() -> dict[str, set[str]]:
    """Every change of tables, as ``app.name``, with those of before that it stands for."""
    steps = {}
    for path in (paths.ROOT / "src/dolmetsch/server").glob("*/migrations/0*.py"):
        app = path.parent.parent.name
        found = re.search(r"replaces = \[(.*?)\]", path.read_text(), re.DOTALL)
        stands_for = _NAMED.findall(found.group(1)) if found else []
        steps[f"{app}.{path.stem}"] = {f"{of}.{name}" for of, name in stands_for}
    return steps


def refuse_other_editions(seen: list[str]) -> None:
    """Refuse records that have ``seen`` changes of tables unknown here, or a part of those of before.

    Raises:
        TroubleError: saying which program to use.
    """
    steps = list_steps()
    known = set(steps).union(*steps.values())
    own = {name.partition(".")[0] for name in known}
    for name in seen:
        if name.partition(".")[0] in own and name not in known:
            said = f"These records are of a newer Dolmetsch ({name}). Update this one first."
            raise TroubleError(said)
    for name, stands_for in steps.items():
        missing = sorted(stands_for.difference(seen))
        if name not in seen and missing and stands_for.intersection(seen):
            raise TroubleError(
                f"These records are of an older Dolmetsch (they lack {missing[0]}). "
                f"Start Dolmetsch {BEFORE} over them once, then this one; nothing was changed."
            )
