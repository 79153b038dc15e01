"""The records of a hanging piece: weighings, cuts, the chamber's air, pH. Immutable."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from fractions import Fraction
from math import prod

from dolmetsch.core.numbers.temperature import TemperatureUnit


@dataclass(frozen=True, slots=True, kw_only=True)
class HookWeighing:
    """What hung weighed so much ``at`` a time."""

    at: Fraction
    grams: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A part was cut off and the rest hung back: its weight ``before`` and ``after``."""

    at: Fraction
    before: Fraction
    after: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class ChamberReading:
    """The chamber's air: °F, and humidity from 0 to 1; None where it was not read."""

    at: Fraction
    fahrenheit: Fraction | None
    humidity: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PhReading:
    """The pH at a time."""

    at: Fraction
    ph: Fraction


@dataclass(frozen=True, slots=True, kw_only=True)
class Ferment:
    """A fermentation from ``start`` on, at ``fahrenheit``; None: only the chamber knows."""

    start: Fraction
    fahrenheit: Fraction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class DryingLog:
    """A piece as it was hung and followed.

    Attributes:
        green: its weight in grams when it was hung, at ``hung_at``.
        target_loss: the part of the green weight it is to lose, between 0 and 1.
        weighings: in order of time; the other lists are in order too.
        scale_grams: the scale's resolution.
        until: the time at which it is looked at; None: after its last record.
    """

    unit: TemperatureUnit
    green: Fraction
    hung_at: Fraction
    target_loss: Fraction
    weighings: tuple[HookWeighing, ...]
    scale_grams: Fraction = Fraction(1)
    cuts: tuple[Cut, ...] = ()
    chamber: tuple[ChamberReading, ...] = ()
    ph: tuple[PhReading, ...] = ()
    ferment: Ferment | None = None
    until: Fraction | None = None

    def cut_at(self, until: Fraction) -> "DryingLog":
        """The log as it was known at ``until``: what is later is left out."""
        has_begun = self.ferment is not None and self.ferment.start <= until
        return replace(
            self,
            weighings=tuple(one for one in self.weighings if one.at <= until),
            cuts=tuple(one for one in self.cuts if one.at <= until),
            chamber=tuple(one for one in self.chamber if one.at <= until),
            ph=tuple(one for one in self.ph if one.at <= until),
            ferment=self.ferment if has_begun else None,
            until=until,
        )

    def green_at(self, at: Fraction) -> Fraction:
        """What that much of the piece as hung ``at`` a time weighed green; a cut at that time is over."""
        return self.green * kept_by(cut for cut in self.cuts if cut.at <= at)

    def loss_at(self, weighing: HookWeighing) -> Fraction:
        """The part of its green weight that what hung had lost."""
        return 1 - weighing.grams / self.green_at(weighing.at)


def kept_by(cuts: Iterable[Cut]) -> Fraction:
    """The part of a piece that ``cuts`` left on the hook."""
    return prod((cut.after / cut.before for cut in cuts), start=Fraction(1))
