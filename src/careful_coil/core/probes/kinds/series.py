"""Series test: low AC on one coil, a second tied to it, volts read across both."""

import re

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import NUMBER
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.kick import coupled

WANTED = "volts put on, then volts read: 12 V 23.1"
APPLIED_VOLT = 12.0  # of the bench's small transformer
_TYPED = re.compile(rf"\s*({NUMBER}\s*V?)\s+({NUMBER}\s*V?)\s*", re.IGNORECASE)


def _read(typed: Typing) -> Body:
    found = _TYPED.fullmatch(typed.text)
    if found is None:
        raise BadValue(typed.text, WANTED)
    applied = figure(found[1], Quantity.VOLTAGE, least=0.001, wanted=WANTED)
    read = figure(found[2], Quantity.VOLTAGE, wanted=WANTED)
    (a, b), (c, d) = typed.request.ends, typed.request.sense
    return typed.reading(source=(a, b), tie=(b, c), across=(a, d), applied_volt=applied, value=read)


def _shown(bench: Bench, request: Request) -> Shown:
    network = bench.motor.network
    a, b, c, d = (bench.lead(t) for t in (*request.ends, *request.sense))
    halves: Halves = "adjacent" if bench.motor.adjacent_halves else "alternate"
    led = network.kick_ratio((a, b), (c, d), coupled(network, halves))
    return Shown(text=f"{APPLIED_VOLT:g} V {APPLIED_VOLT * abs(1 + led):.2f}", unit="V")


PROBE = Probe(
    kind="series",
    station="leads",
    prompt=f"{WANTED[0].lower()}{WANTED[1:]}",
    asks=("series", "volts put on, volts read"),
    caution="Low volts from an isolating transformer, through a fuse; seconds only, rotor out or still.",
    read=_read,
    shown=_shown,
)
