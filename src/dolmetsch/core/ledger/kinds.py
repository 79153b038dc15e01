"""Kinds of step: which words mean one kind, and after which a piece is ready to be served."""

from collections.abc import Iterable
from typing import Final

#: After these a piece is ready to be served.
FINISHING: Final = frozenset({"slice", "pull", "dice", "pack"})
#: Weighed again and again while they go on: no weighing of them is the last by itself.
ONGOING: Final = frozenset({"dry", "age", "ferment"})
#: Words of the bench, and the kind of a method's step they are.
_SAME: Final = {"pump": "cure", "hang": "dry", "dry-age": "age", "steam": "cook"}


def method_kind(kind: str) -> str:
    """The kind that steps of methods have, however the bench spells it: "Dry age" is age, hang is dry."""
    plain = "-".join(kind.casefold().replace("-", " ").split())
    return _SAME.get(plain, plain)


def method_kinds(kinds: Iterable[str]) -> set[str]:
    """The kinds of methods' steps among ``kinds``."""
    return {method_kind(kind) for kind in kinds}
