"""Ohms that prove a joint just made, while a change is under way."""

from careful_coil.core.probes.kinds.line import on_joints
from careful_coil.core.probes.probe import Body, Probe, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show


def _read(typed: Typing) -> Body:
    value = show(parse(typed.text, Quantity.RESISTANCE))
    return {"kind": "step-ohm", "between": typed.request.pair, "value": value}


PROBE = Probe(
    kind="step",
    station="connect",
    prompt="proves the joint just made",
    asks=("ohm", "ohms"),
    part="hookup",
    hooked="hookup",
    unit="Ω",
    read=_read,
    shown=on_joints,
)
