"""The records of a cook: probes, readings and phases. Immutable, without rules."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Final, Literal

from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.reference.heat import Meat
from dolmetsch.core.reference.nitrite import CURED_PPM

PhaseKind = Literal["cook", "cold_smoke", "hold", "rest", "cool"]
Role = Literal["inside", "air"]

#: A probe's last value counts for so long; two moments further apart have a gap between them.
STALE_SECONDS: Final = 600


@dataclass(frozen=True, slots=True, kw_only=True)
class Probe:
    """A probe: inside a ``piece`` at ``where``, or in the air."""

    id: str
    role: Role = "inside"
    piece: str = ""
    where: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """What probes read ``at`` one time, in °F by probe id; a probe that is missing read nothing."""

    at: Fraction
    values: Mapping[str, Fraction]


@dataclass(frozen=True, slots=True, kw_only=True)
class InstantReading:
    """A hand-held reading of one ``piece`` at ``where`` (its thick end; empty: not said)."""

    at: Fraction
    piece: str
    fahrenheit: Fraction
    where: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Phase:
    """A part of the cook; ``end`` None: still open."""

    kind: PhaseKind
    start: Fraction
    end: Fraction | None = None

    def holds(self, at: Fraction) -> bool:
        """Whether ``at`` lies in it, both ends included."""
        return self.start <= at and (self.end is None or at <= self.end)


@dataclass(frozen=True, slots=True, kw_only=True)
class CookLog:
    """A cook as recorded: ``readings`` in order of time, ``instant`` in any order.

    ``phases`` None: not recorded. ``nitrite_ppm`` None: not known. ``pull_at`` None: no inside temperature is
    aimed at. ``named``: the pieces that lie in the fire, where the log names them.
    """

    unit: TemperatureUnit
    probes: tuple[Probe, ...]
    readings: tuple[Reading, ...]
    instant: tuple[InstantReading, ...] = ()
    phases: tuple[Phase, ...] | None = None
    meat: Meat = "other"
    ground: bool = False
    pull_at: Fraction | None = None
    nitrite_ppm: Fraction | None = None
    named: tuple[str, ...] | None = None

    @property
    def pieces(self) -> tuple[str, ...]:
        """All pieces in the fire, in order: as named, else those of the inside probes, then those that only
        readings by hand name.
        """
        if self.named is not None:
            return self.named
        probed = [probe.piece for probe in self.inside if probe.piece]
        return tuple(dict.fromkeys([*probed, *(one.piece for one in self.instant)]))

    @property
    def inside(self) -> tuple[Probe, ...]:
        """The probes that are in meat, in their order."""
        return tuple(probe for probe in self.probes if probe.role == "inside")

    @property
    def air(self) -> tuple[Probe, ...]:
        """The probes that are in the air, in their order."""
        return tuple(probe for probe in self.probes if probe.role == "air")

    @property
    def is_cured(self) -> bool:
        """Whether there is nitrite enough to cool, and to warm, by the rules for cured meat."""
        return self.nitrite_ppm is not None and self.nitrite_ppm >= CURED_PPM

    def list_phases(self, *kinds: PhaseKind) -> list[Phase]:
        """Phases of these kinds; where none at all are recorded, one cook from first to last moment."""
        phases = self.phases
        if phases is None:
            times = [*(one.at for one in self.readings[:1]), *(one.at for one in self.readings[-1:])]
            times += [one.at for one in self.instant]
            phases = (Phase(kind="cook", start=min(times), end=max(times)),) if times else ()
        return [phase for phase in phases if not kinds or phase.kind in kinds]

    def cut_at(self, until: Fraction) -> "CookLog":
        """The log as it was known at ``until``: what is later is left out, phases end there."""
        phases = None
        if self.phases is not None:
            begun = [phase for phase in self.phases if phase.start <= until]
            ends = [until if phase.end is None else min(phase.end, until) for phase in begun]
            phases = tuple(replace(phase, end=end) for phase, end in zip(begun, ends, strict=True))
        return replace(
            self,
            readings=tuple(one for one in self.readings if one.at <= until),
            instant=tuple(one for one in self.instant if one.at <= until),
            phases=phases,
        )
