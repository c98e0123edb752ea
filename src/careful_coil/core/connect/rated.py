"""The plate's volts of the connection in use: what volts at the terminals are held against."""

from careful_coil.core.connect.plans import Plate, rating_of
from careful_coil.core.connect.work import Connecting
from careful_coil.core.job import Job


def rated_volts(job: Job, state: Connecting) -> tuple[float, float] | None:
    """Return the plate's volts, from and to, that its connection is made for; None while nobody can say.

    By the hookup where it is known, else the plate's volts nearest to the supply. Source: NEMA MG 1 12.44;
    IEC 60034-1, zones A and B: ±10 % of the rated volts, not of the supply's name.
    """
    supply = job.supply
    if supply is None:
        return None
    hertz = job.plate.hertz_at(supply.hertz)
    volts = job.plate.volts_at(hertz)
    own = rating_of(state.plan, Plate(volts, hertz)) if state.plan is not None and volts else None
    low, high = own or min(
        volts, key=lambda v: abs(sum(v) / 2 - supply.volt), default=(supply.volt,) * 2
    )
    ratio = supply.hertz / hertz  # volts per hertz: at other hertz its volts go along, or stay
    return min(low, low * ratio), max(high, high * ratio)


def off_rated(volt: float, rated: tuple[float, float]) -> float:
    """Return how far volts lie outside what the plate has, a share of it; 0 within."""
    low, high = rated
    return volt / low - 1 if volt < low else volt / high - 1 if volt > high else 0.0
