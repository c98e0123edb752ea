"""The speed at which the start device is heard to reclose on run-down."""

from careful_coil.core.figures import figure, kept
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity

WANTED = "rpm at which it reclosed: 620 rpm"


def _read(typed: Typing) -> Body:
    rpm = figure(typed.text, Quantity.SPEED, most=1e5, wanted=WANTED)
    return {"kind": "trial-heard", "what": "drop-in", "text": f"{kept(rpm)} rpm"}


def _shown(bench: Bench, request: Request) -> Shown:
    rpm = bench.rig(request).back_in() * bench.chance.gauss(1, 0.02)
    return Shown(text=f"{rpm:.0f} rpm", unit="rpm")


PROBE = Probe(
    kind="drop-in",
    station="test-run",
    prompt="rpm at which the start device is heard on run-down: 620 rpm",
    asks=("heard", "rpm at which it recloses"),
    part="run",
    wants=("rpm",),
    hooked="sheet",
    read=_read,
    shown=_shown,
)
