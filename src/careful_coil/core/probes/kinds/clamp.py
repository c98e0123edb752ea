"""Amps in one lead of several in parallel, by a clamp."""

from careful_coil.core.figures import figure
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity

WANTED = "amps, for example 3.1"
MOST_AMP, NOISE_SHARE = 20000, 1e-3


def _read(typed: Typing) -> Body:
    amp = figure(typed.text, Quantity.CURRENT, most=MOST_AMP, wanted=WANTED)
    return {"kind": "lead-clamped", "lead": typed.request.ends[0], "amp": amp}


def _shown(bench: Bench, request: Request) -> Shown:
    *_, leads = bench.ran(request)
    amp = leads.get(bench.place(request.ends[0]), 0.0)
    return Shown(text=f"{amp * bench.chance.gauss(1, NOISE_SHARE):.3g}", unit="A")


PROBE = Probe(
    kind="clamp",
    station="connect",
    prompt="amps in this lead alone, at low volts",
    asks=("amp", "amps"),
    part="lead:{0}",
    unit="A",
    hooked="hookup",
    read=_read,
    shown=_shown,
)
