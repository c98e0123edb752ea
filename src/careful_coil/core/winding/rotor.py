"""The rotor branch: what the air gap and the cage put in series with every coil.

Reactances and R₂ are those of the coil n = 1, in Ω at rated hertz; for three equal phases they are
two thirds of the usual per-phase figures (double revolving field; Fitzgerald, Kingsley and Umans,
Electric Machinery, ch. 9).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.winding.network import Coil, Network

# Default machine over the ohms of one whole phase, from usual per-unit figures of small motors:
# stator resistance 0.03, leakage 0.08 a side, rotor resistance 0.03, magnetizing 2.
LEAKAGE, ROTOR_LEAKAGE, ROTOR_OHM, MAGNETIZING = 2.7, 2.7, 1.0, 67.0
NO_CAGE = 0.1  # magnetizing reactance with the rotor out, over that with it in


@dataclass(frozen=True, slots=True, kw_only=True)
class Rotor:
    """`xm` magnetizing, `r2` and `x2` cage, in Ω for n = 1; `caged` False: no rotor in the bore."""

    xm: float
    r2: float
    x2: float
    caged: bool = True

    def impedance(self, slip: NDArray[np.float64], ratio: float = 1.0) -> NDArray[np.complex128]:
        """Return Z = jX_m ∥ (R₂/s + jX₂) in Ω, for slips of any shape; `ratio` hertz over rated."""
        admittance = np.asarray(1 / (1j * self.xm * ratio) + 0 * slip, dtype=complex)
        if self.caged:
            admittance = admittance + slip / (self.r2 + 1j * slip * self.x2 * ratio)
        return np.asarray(1 / admittance)


def default_rotor(network: Network, caged: bool = True) -> Rotor:
    """Return an ordinary rotor for a winding, scaled to its ohms and turns.

    Taken from the coils at the first angle: their ohms in series over their turns squared.
    """
    first = network.coils[0].angle
    ohm = sum(c.ohm for c in network.coils if c.angle == first)
    turns = sum(abs(c.turns) for c in network.coils if c.angle == first)
    phases = len({c.angle % 180 for c in network.coils})
    base = ohm / turns**2 * (2 / max(phases, 2))
    xm = MAGNETIZING * base * (1.0 if caged else NO_CAGE)
    return Rotor(xm=xm, r2=ROTOR_OHM * base, x2=ROTOR_LEAKAGE * base, caged=caged)


def default_leakage(coils: tuple[Coil, ...]) -> tuple[float, ...]:
    """Return an ordinary leakage reactance in Ω for each coil that names none.

    By turns squared from the first winding's coils: a start winding of thin wire has more ohms and
    no more leakage.
    """
    first = coils[0].angle
    main = [c.ohm / c.turns**2 for c in coils if c.angle == first]
    each = LEAKAGE * sum(main) / len(main)
    return tuple(each * c.turns**2 if c.leakage is None else c.leakage for c in coils)
