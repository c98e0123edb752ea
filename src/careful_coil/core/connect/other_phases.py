"""A motor on a supply of other phases than its own: what it does there, and what would run it."""

from careful_coil.core.job import Job

# what is said of a motor on a supply of other phases than its own, by the supply's
OTHER_PHASES = {
    1: "Three phases on a single-phase supply: it will not start on this, hum and burn. A drive with a "
    "single-phase input gives it all it has.",
    3: "A single-phase motor on a three-phase supply: name {0} as its single-phase supply.",
}
NEAR = 0.10  # of 1: a supply that is a motor's own (NEMA MG 1: ±10 %)
STEINMETZ = 70.0  # µF per kW at 230 V 50 Hz, in delta (Steinmetz circuit; usual shop figure)


def other_phases(job: Job) -> str:
    """Return what is said of a motor whose supply has other phases than it."""
    if job.supply is None:
        return ""
    words = OTHER_PHASES[job.supply.phases].format(_of_three(job))
    return f"{words} {_with_capacitor(job)}".strip()


def _of_three(job: Job) -> str:
    """Return which of a three-phase supply's voltages are a single-phase motor's: by the plate, where it tells."""
    volt = job.supply.volt if job.supply is not None else 0.0
    pairs = {
        f"two of its lines ({volt:g} V)": volt,
        f"line and neutral ({volt / 3**0.5:.0f} V)": volt / 3**0.5,
    }
    rated = [v for span in job.plate.volts for v in span]
    fits = [words for words, own in pairs.items() if any(abs(own / v - 1) <= NEAR for v in rated)]
    return " or ".join(fits) or "two of its lines, or line and neutral, whichever have its volts,"


def _with_capacitor(job: Job) -> str:
    """Return what a run capacitor would make of a three-phase motor on one phase; empty where nobody can say."""
    supply, watt = job.supply, job.plate.power_w
    if supply is None or supply.phases != 1 or not watt:
        return ""
    farad = STEINMETZ * watt / 1000 * (230 / supply.volt) ** 2 * 50 / supply.hertz
    return (
        f"Or in delta with a run capacitor of {farad:.2g} µF, where its delta has {supply.volt:g} V: a third of "
        "its starting torque and seven tenths of its power are left."
    )
