"""Ohms from the earth lead or stud to bare metal."""

from careful_coil.core.errors import BadValue
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse


def _read(typed: Typing) -> Body:
    value = parse(typed.text, Quantity.RESISTANCE)
    if value.number is None or value.qualifier is not None:
        raise BadValue(typed.text, "ohms in figures, for example 0.03")
    place = typed.request.ends[-1]
    return {"kind": "earth-bond", "ohm": value.value, "place": place, "step_ohm": value.step}


def _shown(bench: Bench, request: Request) -> Shown:
    return Shown(text=f"{bench.motor.bond_ohm + bench.chance.gauss(0, 5e-4):.3f}", unit="Ω")


PROBE = Probe(
    kind="bond",
    station="insulation",
    prompt="earth lead or stud to bare frame",
    asks=("bond", "ohms"),
    part="earth",
    unit="Ω",
    read=_read,
    shown=_shown,
)
