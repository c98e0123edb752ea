"""What an overload relay is set to, and what it may trip at: two figures that are often taken for one."""

from dataclasses import dataclass

ROOMY_FACTOR, ROOMY_RISE_K = 1.15, 40.0  # from here a motor bears more for a while
TRIP, TRIP_ROOMY = 1.15, 1.25  # of the dial (NFPA 70, 430.32)


@dataclass(frozen=True, slots=True, kw_only=True)
class Overload:
    """`dial` A it is set to; `trip` the highest A it may trip at. The local code wins."""

    dial: float
    trip: float


def overload_of(
    amp: float, service_factor: float = 1.0, rise_k: float | None = None, share: float = 1.0
) -> Overload:
    """Return an overload's dial and highest trip.

    Args: plate A of the connection in use > 0, service factor ≥ 1, rated rise in K; `share` of the line amps
    that passes the relay: 0.58 in the phase of a wye-delta starter, half for each half of a winding.
    Source: IEC 60947-4-1 (set to rated current); NFPA 70, 430.32 (highest trip).
    """
    roomy = service_factor >= ROOMY_FACTOR or (rise_k is not None and rise_k <= ROOMY_RISE_K)
    dial = amp * share
    return Overload(dial=dial, trip=dial * (TRIP_ROOMY if roomy else TRIP))
