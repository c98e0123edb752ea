"""What a pair beside the winding can be, by its ohms: a leaning until a test shows it.

Usual cold ohms: contacts near zero; PTC thermistors 20–250 Ω a piece, mostly three in series
(IEC 60034-11); platinum 100 Ω at 0 °C (IEC 60751) and the 10 Ω and 1000 Ω types; heaters tens to
hundreds of ohms; tachometers tens to a few hundred.
"""

import math
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.identify.fit import LOG_RANGE

# kind: how common, and its ohms in ranges (from, to) with the share of each
KINDS: dict[str, tuple[float, tuple[tuple[float, float, float], ...]]] = {
    "thermostat": (0.40, ((0.001, 0.6, 1.0),)),
    "thermistor": (0.25, ((20.0, 250.0, 0.35), (60.0, 750.0, 0.65))),
    "rtd": (0.12, ((99.0, 118.0, 0.85), (9.5, 11.8, 0.07), (990.0, 1180.0, 0.08))),
    "heater": (0.13, ((20.0, 600.0, 0.8), (8.0, 2000.0, 0.2))),
    "tachometer": (0.10, ((20.0, 500.0, 0.9), (10.0, 1500.0, 0.1))),
}
WIRE_OHM = (0.001, 3.0)  # Ω of a sensor wire, at the shop and up a long cable
LEAST_CONTACT = 0.002  # Ω: a contact may read nothing
EDGE = 0.003  # share of a kind that reads outside its ranges
USES = (
    "thermostat",
    "thermistor",
    "rtd",
    "tachometer",
    "heater",
    "brake",
    "earth",
    "protector",
    "capacitor",
)
EARTH_COLOURS = ("green", "bare")
EARTH_OHM = 1.0  # Ω from an earth lead to the frame it is on
SURE_KIND = 0.97  # odds by ohms alone from which a pair is what they say
SAID_RANGES = {"brake": (1.0, 5000.0), "protector": (0.0, 0.6), "capacitor": (0.0, 0.0)}  # Ω, cold
TACHOMETER_VOLT = 0.05  # a tachometer spun by hand gives at least this


@dataclass(frozen=True, slots=True)
class Told:
    """A kind of extra, and whether its own test has shown it."""

    kind: str
    sure: bool


def sensor_odds(ohm: float, of: Literal["pair", "element", "wire"] = "pair") -> float:
    """Return the log of how much likelier a sensor is to read this than any pair at all.

    `of` a pair of its own, the element of a sensor with three wires, or the second wire to its end.
    """
    ohm = max(ohm, LEAST_CONTACT)
    if of == "pair":
        density = sum(share * _density(kind, ohm) for kind, (share, _) in KINDS.items())
    elif of == "element":
        density = _density("rtd", ohm)
    else:
        low, high = WIRE_OHM
        density = EDGE / LOG_RANGE + (1 - EDGE) * (low <= ohm <= high) / math.log(high / low)
    return math.log(density * LOG_RANGE)


def _density(kind: str, ohm: float) -> float:
    """Return the density in the logarithm of a kind's ohms."""
    found = EDGE / LOG_RANGE
    for low, high, share in KINDS[kind][1]:
        if low <= ohm <= high:
            found += (1 - EDGE) * share / math.log(high / low)
    return found


def odds_of_extra(ohm: float | None, volt_spun: float | None = None) -> dict[str, float]:
    """Return the odds of what a pair beside the winding is, adding up to one; `ohm` None: not read.

    `volt_spun` volts seen while the shaft was spun, 0 for none.
    """
    ohm = None if ohm is None else max(ohm, LEAST_CONTACT)
    odds = {
        kind: share * (_density(kind, ohm) if ohm is not None else 1.0)
        for kind, (share, _) in KINDS.items()
    }
    if volt_spun is not None:
        gives = volt_spun >= TACHOMETER_VOLT
        for kind in odds:
            odds[kind] *= 0.95 if (kind == "tachometer") == gives else 0.02
    whole = sum(odds.values())
    return {kind: share / whole for kind, share in odds.items()}


def kind_of_extra(
    ohm: float | None,
    volt_spun: float | None = None,
    said: str = "",
    rising: bool = False,
    wires: int = 2,
) -> Told:
    """Return what it is, by its own test: spun, charged, its ohms, or those with what was `said` of it."""
    if wires == 3:
        return Told("rtd", ohm is not None and _in_range("rtd", ohm))
    if rising:
        return Told("capacitor", True)
    if volt_spun is not None and volt_spun >= TACHOMETER_VOLT:
        return Told("tachometer", True)
    odds = odds_of_extra(ohm, volt_spun)
    if said:
        return Told(said, ohm is not None and _in_range(said, ohm) and odds.get(said, 1.0) > 0.01)
    best = max(odds, key=lambda k: odds[k])
    return Told(best, ohm is not None and odds[best] >= SURE_KIND)


def _in_range(kind: str, ohm: float) -> bool:
    """Whether a kind can read so many Ω cold."""
    if kind in SAID_RANGES:
        low, high = SAID_RANGES[kind]
        return low <= ohm <= high
    return any(low <= max(ohm, LEAST_CONTACT) <= high for low, high, _ in KINDS[kind][1])


def earthy(colour: str, tracer: str = "") -> bool:
    """Whether a lead has the colour of an earth lead: green, green and yellow, bare."""
    return any(c in EARTH_COLOURS for c in (colour.lower(), tracer.lower())) and {
        colour.lower(),
        tracer.lower(),
    } <= {*EARTH_COLOURS, "yellow", ""}
