"""Reduced-voltage test run of the finished hookup: a quarter of the volts or less."""

import re

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, figures
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.probes.turning import turning
from careful_coil.core.units import Quantity
from careful_coil.core.values import NUMBER

WANTED = (
    "volts, amps of each line, how it turned, which way at the drive end if seen: "
    "115 V 3.1/3.2/3.1 smooth cw (or rough, none; ccw)"
)
MOST, NOISE_SHARE = 20000, 1e-3
HUMS = ("hum", "hums")  # at so few volts: it does not turn
_TYPED = re.compile(
    rf"\s*(?:({NUMBER}\s*V?)\s+(?=\d))?(\S+?(?:\s*A)?)\s+([A-Za-z]+)(?:\s+(cw|ccw))?\s*",
    re.IGNORECASE,
)


def _read(typed: Typing) -> Body:
    found = _TYPED.fullmatch(typed.text)
    turns = "none" if found and found[3].lower() in HUMS else turning(found[3]) if found else ""
    if found is None or not turns:
        raise BadValue(typed.text, WANTED)
    lines = typed.request.amps
    return {
        "kind": "low-run",
        "volt": figure(found[1], Quantity.VOLTAGE, least=0.001, most=MOST, wanted=WANTED)
        if found[1]
        else typed.request.supply[1],
        "amp": figures(found[2], Quantity.CURRENT, counts=(lines,), most=MOST, wanted=WANTED),
        "turns": turns,
        "way": (found[4] or "").lower(),
    }


def _shown(bench: Bench, request: Request) -> Shown:
    """Return volts, amps of the lines, how it turns and which way at the drive end."""
    turns, amps, way, _ = bench.ran(request)
    shown = "/".join(f"{a * bench.chance.gauss(1, NOISE_SHARE):.3g}" for a in amps.values())
    return Shown(text=f"{request.supply[1]:.0f} V {shown} {turns} {way}".rstrip(), unit="")


PROBE = Probe(
    kind="low-run",
    station="connect",
    prompt="amps, how it turned, which way: 3.1/3.2/3.1 smooth cw; 98 V before them where it was other volts",
    asks=("run", "amps of each line, how it turns, which way"),
    wants=("amp", "turns", "way"),
    part="hookup",
    hooked="hookup",
    read=_read,
    shown=_shown,
)
