"""Cuts of meat: what a cook calls them, and the column of the start values they belong to.

A cut is read from its words, for that is how it stands on a tag and in a record: "jowl, skin on".
"""

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.curing.cure import Product
from dolmetsch.core.reference.heat import Meat, home_rule_for

Skin = Literal["on", "off", ""]
Bone = Literal["in", "out", ""]

#: Words by which a kind of cut is known. The first that is found counts.
KIND_WORDS: Final[dict[str, tuple[str, ...]]] = {
    "poultry": ("poultry", "goose", "duck", "turkey", "chicken", "hen"),
    "jowl": ("jowl",),
    "brisket": ("brisket",),
    "shoulder": ("shoulder", "butt"),
    "loin": ("loin",),
    "belly": ("belly",),
    "leg": ("leg", "ham"),
}
OTHER: Final = "other"
#: Steps after which meat is no whole muscle any more.
MIXED_KINDS: Final = frozenset({"mix", "stuff", "grind"})
_SKIN_WORDS: Final[dict[str, Skin]] = {
    "skin on": "on",
    "rind on": "on",
    "skinless": "off",
    "skin off": "off",
    "rindless": "off",
}
_BONE_WORDS: Final[dict[str, Bone]] = {"bone in": "in", "boneless": "out", "bone out": "out"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A cut as far as its yields go: its kind (``other`` where it is none of the known ones) and form.

    ``skin`` and ``bone`` are empty where nobody said.
    """

    kind: str
    skin: Skin = ""
    bone: Bone = ""
    is_trimmed: bool = False

    @property
    def key(self) -> str:
        """One word for all pieces alike, as records are gathered by: ``belly skin-off trimmed``."""
        parts = [self.kind]
        if self.skin:
            parts.append(f"skin-{self.skin}")
        if self.bone:
            parts.append(f"bone-{self.bone}")
        if self.is_trimmed:
            parts.append("trimmed")
        return " ".join(parts)

    def is_like(self, other: "Cut") -> bool:
        """Whether both may be the same cut: alike as far as both are known."""
        return (
            self.kind == other.kind
            and self.is_trimmed == other.is_trimmed
            and (self.skin == other.skin or not self.skin or not other.skin)
            and (self.bone == other.bone or not self.bone or not other.bone)
        )

    @property
    def column(self) -> str | None:
        """Its column in the table of start values; None where there is none."""
        if self.kind == "belly":
            return "belly_skinless" if self.skin == "off" else "belly_skin_on"
        return None if self.kind == OTHER else self.kind


def read_cut(words: str) -> Cut:
    """The cut that ``words`` name, in any order and case; of an unknown one the form alone."""
    text = " ".join(words.lower().replace("-", " ").replace(",", " ").split())
    singles = set(text.split())
    kind = next((kind for kind, names in KIND_WORDS.items() if singles & set(names)), OTHER)
    skin: Skin = next((form for name, form in _SKIN_WORDS.items() if name in text), "")
    bone: Bone = next((form for name, form in _BONE_WORDS.items() if name in text), "")
    is_trimmed = "trimmed" in singles or "squared" in singles
    return Cut(kind=kind, skin=skin, bone=bone, is_trimmed=is_trimmed)


def cut_of_key(key: str) -> Cut:
    """The cut behind ``Cut.key``."""
    kind, *forms = key.split()
    skin: Skin = "on" if "skin-on" in forms else "off" if "skin-off" in forms else ""
    bone: Bone = "in" if "bone-in" in forms else "out" if "bone-out" in forms else ""
    return Cut(kind=kind, skin=skin, bone=bone, is_trimmed="trimmed" in forms)


def usual_product(cut: Cut, kinds: Iterable[str]) -> Product:
    """What a piece of ``cut`` that went through ``kinds`` of step is most likely cured as, and so its limit.

    Ground and mixed meat is comminuted, whatever it was cut from; belly and jowl are bacon.
    """
    if not MIXED_KINDS.isdisjoint(kinds):
        return "comminuted"
    return "bacon" if cut.kind in ("belly", "jowl") else "whole_muscle"


def safe_inside(words: str, kinds: Iterable[str]) -> Fraction:
    """°F inside that cook what a cut's ``words`` name, gone through ``kinds`` of step (USDA, home rule).

    A cut of no known kind is taken for a whole cut of pork or beef.

    Raises:
        ValueError: no home rule is known for the meat.
    """
    meat: Meat = "poultry" if read_cut(words).kind == "poultry" else "pork"
    rule = home_rule_for(meat, ground=not MIXED_KINDS.isdisjoint(kinds))
    if rule is None:
        raise ValueError(f"there is no home rule for {meat}")
    return rule.fahrenheit
