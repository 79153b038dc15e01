"""A slab of meat warmed by conduction from a wet surface: why it lags, stalls, and warms on after it is out.

Heat goes through the slab by its diffusivity. At the surface air brings h·(A − T) and evaporation takes
w·h·(p(T) − p_air)/γ away (Lewis relation), w being how wet the surface is: it falls as the slab dries, so
that the stall ends, and is nearly nothing where it is wrapped. All in °C, s, m, W, Pa and kg.
"""

from dataclasses import dataclass, field
from math import exp
from typing import Final

#: Lean meat: heat diffusivity (m²/s) and conductivity (W/m·K); literature values.
DIFFUSIVITY, CONDUCTIVITY = 1.35e-7, 0.46
#: Pascals a kelvin: what makes heat and vapor comparable (psychrometric constant).
_GAMMA: Final = 66.0
#: Joules to evaporate a kilogram of water.
_LATENT: Final = 2.4e6
_NODES: Final = 11
_STEP_SECONDS: Final = 15.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """What a piece is like: ``thickness`` (m), how well air reaches it, how wet it is, how fast it dries."""

    thickness: float = 0.05
    heat_transfer: float = 14.0
    wetness: float = 0.14
    drying_kg: float = 2.5


@dataclass(slots=True)
class Slab:
    """A piece in the fire: temperatures from one surface to the middle, and the water it lost (kg/m²)."""

    cut: Cut
    celsius: list[float] = field(default_factory=list)
    lost: float = 0.0
    is_wrapped: bool = False
    in_ice: bool = False

    @classmethod
    def at(cls, celsius: float, cut: Cut) -> "Slab":
        """A piece of one temperature throughout."""
        return cls(cut=cut, celsius=[celsius] * _NODES)

    @property
    def middle(self) -> float:
        """The temperature in the middle."""
        return self.celsius[-1]

    def read_at(self, depth: float) -> float:
        """The temperature at a part of the way from the surface (0) to the middle (1)."""
        place = depth * (_NODES - 1)
        below = min(int(place), _NODES - 2)
        part = place - below
        return self.celsius[below] * (1 - part) + self.celsius[below + 1] * part

    def warm(self, seconds: float, *, air: float, vapor: float = 3500.0) -> None:
        """Go on for so long in ``air`` (°C) that holds so much ``vapor`` (Pa)."""
        spacing = self.cut.thickness / 2 / (_NODES - 1)
        most = 0.4 * spacing * spacing / DIFFUSIVITY
        steps = max(1, int(seconds / min(most, _STEP_SECONDS)) + 1)
        for _ in range(steps):
            self._step(seconds / steps, spacing, air, vapor)

    def _step(self, seconds: float, spacing: float, air: float, vapor: float) -> None:
        old = self.celsius
        part = DIFFUSIVITY * seconds / (spacing * spacing)
        heat = self._surface_heat(seconds, air, vapor)
        # the surface holds half a layer; the middle is a mirror
        surface = old[0] + 2 * part * (old[1] - old[0]) + 2 * part * spacing / CONDUCTIVITY * heat
        new = [surface]
        new += [
            here + part * (before - 2 * here + after)
            for before, here, after in zip(old, old[1:], old[2:], strict=False)
        ]
        new.append(old[-1] + 2 * part * (old[-2] - old[-1]))
        self.celsius = new

    def _surface_heat(self, seconds: float, air: float, vapor: float) -> float:
        """Watts a square meter into the surface; what evaporates is counted as lost."""
        if self.in_ice:
            return 250.0 * (0.0 - self.celsius[0])
        transfer = self.cut.heat_transfer * (0.7 if self.is_wrapped else 1.0)
        brought = transfer * (air - self.celsius[0])
        wet = self.cut.wetness * exp(-self.lost / self.cut.drying_kg) * (0.03 if self.is_wrapped else 1.0)
        taken = max(0.0, wet * transfer * (vapor_pressure(self.celsius[0]) - vapor) / _GAMMA)
        self.lost += taken / _LATENT * seconds
        return brought - taken


def vapor_pressure(celsius: float) -> float:
    """Pascals over water (Magnus formula)."""
    return 610.94 * exp(17.625 * celsius / (celsius + 243.04))
