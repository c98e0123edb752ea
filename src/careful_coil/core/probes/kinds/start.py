"""One start at full volts under the stall guard."""

import re

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import NUMBER

WANTED = "what became of it, seconds, rpm if read: dropped out 0.8 s 1120 rpm (or turns, stalled, tripped)"
LONGEST_S = 3600
_TYPED = re.compile(
    rf"(turns|dropped out|out|stalled|tripped)\s+({NUMBER}\s*(?:s|sec|ms)?)(?:\s+({NUMBER})\s*(?:rpm|/min)?)?",
    re.IGNORECASE,
)


def _read(typed: Typing) -> Body:
    found = _TYPED.fullmatch(typed.text.strip())
    if found is None:
        raise BadValue(typed.text, WANTED)
    seconds = figure(found[2], Quantity.TIME, most=LONGEST_S, wanted="seconds, up to 3600")
    rpm = figure(found[3], Quantity.SPEED, most=2e5, wanted=WANTED) if found[3] else None
    return {
        "kind": "trial-start",
        "volt": typed.request.nominal,
        "outcome": {"out": "dropped out"}.get(found[1].lower(), found[1].lower()),
        "seconds": seconds,
        "rpm": rpm,
    }


def _shown(bench: Bench, request: Request) -> Shown:
    """Return what a timed start became, in the words it is typed in."""
    outcome, seconds, rpm = bench.rig(request).start()
    at = f" {rpm:.0f} rpm" if rpm else ""
    return Shown(text=f"{outcome} {seconds * bench.chance.gauss(1, 0.02):.1f} s{at}", unit="")


PROBE = Probe(
    kind="start",
    station="test-run",
    prompt="one start at full volts: out 0.8 (dropped out after 0.8 s; or turns, stalled, tripped), rpm if read",
    asks=("start", "what became of it, seconds"),
    wants=("outcome", "seconds"),
    part="run",
    hooked="sheet",
    read=_read,
    shown=_shown,
)
