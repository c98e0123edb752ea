"""Ohms from one bar of a commutator to the next."""

import math
import re

from careful_coil.core.errors import BadValue, InstrumentError
from careful_coil.core.probes.probe import Bench, Body, Probe, Request, Shown, Typing
from careful_coil.core.readings import ohm_value

MOST_BARS = 240
WANTED = "ohms from each bar to the next, such as 0.21 0.22 open 0.21"
COARSEST = 100.0  # Ω of a last figure
NOISE_SHARE = 1e-3


def read_bars(text: str, first: int) -> Body:
    """Return ohms from bar `first` on, each to the next, typed in a line or pasted. Raises: BadValue."""
    pieces = re.split(r"[\s;]+", text.strip())
    if not pieces or not pieces[0] or len(pieces) > MOST_BARS:
        raise BadValue(text, WANTED)
    ohms: list[float | None] = []
    step = 0.0
    for piece in pieces:
        value = ohm_value(piece)
        if (value.number is None and value.value != float("inf")) or value.value < 0:
            raise BadValue(piece, WANTED)
        ohms.append(None if value.value == float("inf") else value.value)
        step = max(step, value.step if value.number is not None else 0.0)
    return {"kind": "bars-read", "first": first, "ohms": ohms, "step_ohm": min(step, COARSEST)}


def _read(typed: Typing) -> Body:
    return read_bars(typed.text, int(typed.request.ends[0].removeprefix("bar ")))


def _shown(bench: Bench, request: Request) -> Shown:
    """Return the ohms from a bar to the next, by four wires: a tenth of a milliohm shows."""
    bars = bench.motor.bar_ohms
    number = request.ends[0].removeprefix("bar ")
    if not number.isdecimal() or not 0 < int(number) <= len(bars):
        raise InstrumentError(f"The simulated motor has no {request.ends[0]}.")
    ohm = bars[int(number) - 1] * bench.gain * bench.chance.gauss(1, NOISE_SHARE)
    return Shown(text=f"{ohm:.4f}" if math.isfinite(ohm) else "open", unit="Ω")


PROBE = Probe(
    kind="bar",
    station="mechanics",
    prompt="four wires on two neighbours, brushes lifted",
    asks=("ohm", "ohms"),
    part="commutator",
    unit="Ω",
    read=_read,
    shown=_shown,
)
