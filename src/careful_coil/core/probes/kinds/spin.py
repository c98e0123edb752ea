"""Volts of a pair while the shaft is spun by hand."""

from careful_coil.core.figures import figure
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity


def _read(typed: Typing) -> Body:
    volt = figure(typed.text, Quantity.VOLTAGE, most=1e5)
    return typed.reading(between=typed.request.pair, volt=volt)


def _shown(bench: Bench, request: Request) -> Shown:
    ends = {bench.lead(t) for t in request.ends}
    parts = bench.motor.network.parts
    turned = any(p.kind == "tachometer" and {p.start, p.finish} == ends for p in parts)
    return Shown(text="0.6 V" if turned else "0 V", unit="V")


PROBE = Probe(
    kind="spin",
    station="leads",
    prompt="AC volts while the shaft is spun by hand, 0 for none",
    asks=("spin", "volts"),
    unit="V",
    caution="Supply off and proved dead, load off; by hand only, a motor must not drive it.",
    read=_read,
    shown=_shown,
)
