"""A fire under a controller: it lags, overshoots and swings, and burns low unless fed. °C, seconds."""

from dataclasses import dataclass
from math import pi, sin
from random import Random


@dataclass(frozen=True, slots=True, kw_only=True)
class FireKind:
    """How a cooker behaves: how slowly it follows, how far and how often it swings, noise, weather."""

    lag_seconds: float = 420.0
    swing: float = 4.0
    swing_seconds: float = 1500.0
    noise: float = 0.8
    outside: float = 12.0


@dataclass(slots=True)
class Fire:
    """The air of a cooker, ``air`` °C, led to ``goal``; ``strength`` 1 is a good fire, 0 one that is out."""

    kind: FireKind
    random: Random
    air: float
    goal: float
    strength: float = 1.0
    door_open: bool = False
    wind: float = 0.0
    seconds: float = 0.0
    gust: float = 0.0

    def burn(self, seconds: float) -> float:
        """Go on for so long; gives the air."""
        self.seconds += seconds
        swing = self.kind.swing * sin(2 * pi * self.seconds / self.kind.swing_seconds)
        reachable = self.kind.outside + (self.goal - self.kind.outside) * self.strength
        drawn = reachable + swing * self.strength - 12.0 * self.wind
        lag = self.kind.lag_seconds
        if self.door_open:
            drawn, lag = self.kind.outside + (reachable - self.kind.outside) * 0.35, 90.0
        # gusts come and go over minutes
        self.gust += -self.gust * min(1.0, seconds / 240) + self.random.gauss(0, self.kind.noise) * min(
            1.0, seconds / 60
        )
        self.air += (drawn + self.gust - self.air) * min(1.0, seconds / lag)
        return self.air
