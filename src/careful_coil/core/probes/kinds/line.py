"""Ohms between two lines of the finished hookup."""

from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show


def _read(typed: Typing) -> Body:
    value = show(parse(typed.text, Quantity.RESISTANCE))
    return {"kind": "line-ohm", "lines": typed.request.pair, "value": value}


def on_joints(bench: Bench, request: Request) -> Shown:
    """Return the ohms between two places of the hookup as it is."""
    network = bench.hooked(request)
    ends = [bench.place(e) for e in request.ends]
    if any(e not in network.nodes() for e in ends):
        return Shown(text="open", unit="Ω")
    return bench.figure(network.ohm_between(ends[0], ends[1]))


PROBE = Probe(
    kind="line",
    station="connect",
    prompt="between the lines, proves the joints",
    asks=("ohm", "ohms"),
    part="hookup",
    unit="Ω",
    hooked="hookup",
    read=_read,
    shown=on_joints,
)
