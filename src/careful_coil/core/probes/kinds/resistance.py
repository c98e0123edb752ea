"""Ohms between two leads, or one lead and several clipped together."""

from careful_coil.core.figures import beside
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show


def _read(typed: Typing) -> Body:
    value = parse(typed.text, Quantity.RESISTANCE)
    if typed.instrument == "typed":
        beside(typed.text, value, typed.neighbours)
    a, b = typed.request.pair
    end = (b, *typed.request.also) if typed.request.also else b
    return typed.reading(between=(a, end), value=show(value))


def _shown(bench: Bench, request: Request) -> Shown:
    a, b, *also = (bench.lead(t) for t in (*request.ends, *request.also))
    network = bench.motor.network.joined([(b, *also)]) if also else bench.motor.network
    if bench.motor.start_device == "capacitor" and bench.passes(a, b, ("start", "auxiliary")):
        return Shown(text="rising", unit="Ω", steady=False)
    return bench.figure(network.ohm_between(a, b), frozenset((a, b)))


PROBE = Probe(
    kind="resistance",
    station="leads",
    prompt="pair to read, arrows change it",
    asks=("ohm", "ohms"),
    unit="Ω",
    read=_read,
    shown=_shown,
)
