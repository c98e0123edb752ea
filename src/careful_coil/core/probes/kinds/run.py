"""A run at reduced volts on a tentative hookup: it proves polarity where kicks cannot."""

import math
import re

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure, figures
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.probes.turning import turning
from careful_coil.core.units import Quantity
from careful_coil.core.values import NUMBER
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.turning import run_shown

WANTED = "volts, three amps and how it turned: 60 V 0.41/0.40/0.41 smooth (or rough, none)"
BENCH_VOLT = 60.0
_TYPED = re.compile(rf"\s*({NUMBER}\s*V?)\s+(\S+(?:\s*A)?)\s+([A-Za-z]+)\s*")


def _read(typed: Typing) -> Body:
    found = _TYPED.fullmatch(typed.text)
    if found is None or not turning(found[3]):
        raise BadValue(typed.text, WANTED)
    return typed.reading(
        lines=typed.request.lines,
        joints=typed.request.joints,
        applied_volt=figure(found[1], Quantity.VOLTAGE, least=0.001, wanted=WANTED),
        amp=figures(found[2], Quantity.CURRENT, counts=(3,), wanted=WANTED),
        turns=turning(found[3]),
    )


def _shown(bench: Bench, request: Request) -> Shown:
    lines, joints = (
        tuple(tuple(bench.lead(t) for t in j) for j in every)
        for every in (request.lines, request.joints)
    )
    halves: Halves = "adjacent" if bench.motor.adjacent_halves else "alternate"
    turns, amps = run_shown(bench.motor.network, lines, joints, halves).likely()
    shown = "/".join(f"{BENCH_VOLT * a:.3g}" if math.isfinite(a) else "99" for a in amps)
    return Shown(text=f"{BENCH_VOLT:g} V {shown} {turns}", unit="")


PROBE = Probe(
    kind="run",
    station="leads",
    prompt="volts, three amps, how it turned: 60 V 0.41/0.40/0.41 smooth",
    asks=("run", "volts, three amps, how it turns"),
    caution="Clamp it, uncouple it, earth the frame. A quarter of rated volts or less, seconds only; prove it "
    "dead before a lead is moved.",
    read=_read,
    shown=_shown,
)
