"""How fast a winding heats when nothing carries the heat away: stalled, or left in at start."""

from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.machine.run_up import RunUp

Metal = Literal["copper", "aluminium"]
# J²/K: A²/mm⁴ that heat by 1 K in a second, the metal warm: density · heat / resistivity
PER_KELVIN: dict[Metal, float] = {"copper": 170.0, "aluminium": 74.0}


def heating_rate(amp_per_mm2: float, metal: Metal = "copper") -> float:
    """Return dT/dt in K/s of a wire at J A/mm² that loses no heat: J²/170 copper, J²/74 aluminium.

    Source: adiabatic heating, dT/dt = resistivity · J² / (density · specific heat), the wire near 65 °C.
    """
    return amp_per_mm2**2 / PER_KELVIN[metal]


def stall_seconds(amp_per_mm2: float, rise_k: float, metal: Metal = "copper") -> float:
    """Return the seconds until a stalled winding has risen by `rise_k`. Raises: ValueOutOfRange."""
    if not (amp_per_mm2 > 0 and rise_k > 0):
        raise ValueOutOfRange(f"{amp_per_mm2:g} A/mm², {rise_k:g} K", "both above nothing")
    return rise_k / heating_rate(amp_per_mm2, metal)


@dataclass(frozen=True, slots=True, kw_only=True)
class StartHeating:
    """What a run-up does to the start winding: its rise in K, K/s while it stands, and how many seconds
    of standing still it may have."""

    rise_k: float
    stalled_k_per_s: float
    stalled_seconds: float


def start_heating(
    found: RunUp, wire_mm2: float, allowed_k: float = 60.0, metal: Metal = "copper"
) -> StartHeating:
    """Return how a run-up heats a start winding of `wire_mm2` mm² (strands in hand together).

    `allowed_k` the rise that is left from where it starts. Raises: ValueOutOfRange for no wire.
    """
    if not wire_mm2 > 0:
        raise ValueOutOfRange(f"{wire_mm2:g} mm²", "a wire above nothing")
    still = float(found.start.aux_amp[0]) / wire_mm2
    heat = float(found.aux_heat[-1]) / wire_mm2**2 / PER_KELVIN[metal]
    rate = heating_rate(still, metal)
    return StartHeating(
        rise_k=heat,
        stalled_k_per_s=rate,
        stalled_seconds=allowed_k / rate if rate > 0 else float("inf"),
    )
