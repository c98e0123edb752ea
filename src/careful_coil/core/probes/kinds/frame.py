"""Ohms from a lead to the bare frame."""

from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse, show

OPEN_ABOVE_OHM = 2e6
LUG_OFF = "lug off"  # what an earth lead is held against: its own lug is off the frame


def _read(typed: Typing) -> Body:
    value = show(parse(typed.text, Quantity.RESISTANCE))
    lug = {"lug": "off"} if LUG_OFF in typed.request.sense else {}
    return typed.reading(lead=typed.request.ends[0], value=value, **lug)


def _shown(bench: Bench, request: Request) -> Shown:
    ohm = bench.motor.frame_megohm * 1e6
    return Shown(text="open" if ohm > OPEN_ABOVE_OHM else f"{ohm:.0f}", unit="Ω")


PROBE = Probe(
    kind="frame",
    station="leads",
    prompt="lead to the bare frame",
    asks=("ohm", "ohms to the frame"),
    part="lead:{0}",
    unit="Ω",
    read=_read,
    shown=_shown,
)
