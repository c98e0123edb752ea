"""The volts at which the shaft starts turning, on a ramp."""

from careful_coil.core.errors import InstrumentError
from careful_coil.core.figures import figure, kept
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity

WANTED = "volts it starts turning at: 48 V"
ABOVE_NOMINAL = 1.1


def _read(typed: Typing) -> Body:
    volt = figure(typed.text, Quantity.VOLTAGE, most=1e5, wanted=WANTED)
    return {"kind": "trial-heard", "what": "starts-turning", "text": f"{kept(volt)} V"}


def _shown(bench: Bench, request: Request) -> Shown:
    volt = bench.rig(request).turns_from()
    if volt is None or volt > ABOVE_NOMINAL * request.nominal:
        raise InstrumentError("It does not turn at any of these volts: type what you see.")
    return Shown(text=f"{volt * bench.chance.gauss(1, 0.01):.0f} V", unit="V")


PROBE = Probe(
    kind="turning",
    station="test-run",
    prompt="the volts at which the shaft begins to turn: 48 V",
    asks=("turning", "volts it starts turning at"),
    part="run",
    unit="V",
    hooked="sheet",
    read=_read,
    shown=_shown,
)
