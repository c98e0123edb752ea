"""What a motor can be turned into, and what not: kinds are made for each other, winding, switch, capacitor.

Where a figure decides it is worked out on the motor's own network; the rest is trade practice.
"""

import math
from dataclasses import dataclass, replace
from typing import Literal

from careful_coil.core.errors import CoilError
from careful_coil.core.kind.kinds import KINDS, KindName
from careful_coil.core.machine.curves import LEAST_START, start_curves
from careful_coil.core.machine.motor import Motor

Word = Literal["yes", "with care", "no"]
STEINMETZ_PER_KW = 70.0  # µF a kW on 230 V 50 Hz, a delta of 230 V on one phase (trade practice)
THIRD = 0.7  # of rated power left on one phase (trade practice)


@dataclass(frozen=True, slots=True, kw_only=True)
class Turn:
    """One thing a motor might be turned into: in words, whether it can, why."""

    into: str
    word: Word
    why: str


_SPEED = "Turned down by volts or a control"
_OTHER_HERTZ = "Run on other hertz"
_THIN = "its start winding is thin wire for seconds; left in circuit it is over its density within a minute"
_TABLE: dict[KindName, tuple[Turn, ...]] = {
    "split-phase": (
        Turn(
            into="Capacitor start",
            word="no",
            why="its start winding has few turns of thin wire, laid for resistance: a capacitor finds the wrong "
            "reactance, and its amps and the switch's contact are not made for it",
        ),
        Turn(into="Permanent capacitor", word="no", why=_THIN),
        Turn(
            into="Reversible from outside",
            word="yes",
            why="both ends of the start winding led out: they are exchanged from standstill only",
        ),
        Turn(
            into=_SPEED,
            word="no",
            why="below switch speed the start winding cuts in again and burns",
        ),
    ),
    "capacitor-start": (
        Turn(
            into="Split phase (capacitor left out)",
            word="no",
            why="without it the currents are nearly in step: it hums",
        ),
        Turn(into="Permanent capacitor", word="no", why=_THIN),
        Turn(
            into="Capacitor start, capacitor run",
            word="with care",
            why="only where its maker has that version of the same winding: start winding's density in run, "
            "volts on the run capacitor and the relay decide",
        ),
        Turn(
            into="Electronic switch for the mechanical one",
            word="yes",
            why="with what stands on its contact compared first; see Fitting",
        ),
        Turn(
            into=_SPEED,
            word="no",
            why="below switch speed the start winding cuts in again and burns",
        ),
    ),
    "permanent-capacitor": (
        Turn(
            into="Capacitor start, capacitor run",
            word="with care",
            why="a start capacitor with a voltage relay or thermistor beside the run capacitor gives it more "
            "torque, where its maker allows; the shaft and the load must bear it",
        ),
        Turn(into="Split phase", word="no", why="without its capacitor it does not start"),
        Turn(
            into="Capacitor start (run capacitor left out)",
            word="no",
            why="its main alone was never laid for the whole load: amps, noise and heat go up",
        ),
        Turn(
            into=_SPEED,
            word="with care",
            why="with a fan as load, by taps or volts; with any other load it stalls and burns",
        ),
    ),
    "capacitor-start-run": (
        Turn(
            into="Permanent capacitor (start circuit left out)",
            word="with care",
            why="it then starts as weakly as the curve below shows: a fan at most",
        ),
        Turn(
            into="Capacitor start (run capacitor left out)",
            word="with care",
            why="for a time and part of its load only: amps and noise go up, power factor down",
        ),
        Turn(
            into=_SPEED,
            word="no",
            why="below switch-over the start capacitor cuts in again and bursts",
        ),
    ),
    "shaded-pole": (
        Turn(
            into="Any other kind",
            word="no",
            why="there is no start winding to feed: replace it where more torque is wanted",
        ),
        Turn(
            into="The other direction",
            word="with care",
            why="by turning stator or rotor end for end, where the housing lets it",
        ),
        Turn(into=_SPEED, word="yes", why="by taps or lower volts, with a fan as load"),
    ),
    "universal": (
        Turn(
            into="Induction motor",
            word="no",
            why="wound rotor and brushes: it goes by volts and load, not by hertz",
        ),
        Turn(
            into="Driven by an induction motor's control",
            word="no",
            why="and the other way round: a control made for brush motors cannot slow an induction motor",
        ),
        Turn(
            into="The other direction",
            word="with care",
            why="field against armature, where its brushes stand neutral; else it sparks",
        ),
    ),
    "three-phase": (
        Turn(
            into="On one phase with a capacitor",
            word="with care",
            why=f"where its delta volts are the line's: about {STEINMETZ_PER_KW:g} µF a kW at 230 V 50 Hz, a run "
            f"capacitor; some {THIRD:.0%} of its power, a third of its starting torque. A drive does it better",
        ),
        Turn(
            into="On a drive",
            word="with care",
            why="old insulation may not bear its pulses; slow, its fan no longer cools it",
        ),
        Turn(
            into="Single-phase kind",
            word="no",
            why="three equal windings are no main and start; only as another winding",
        ),
    ),
}


def turns_of(kind: str, motor: Motor | None = None) -> tuple[Turn, ...]:
    """Return what a kind of motor can be turned into; figures of the motor itself where it is known."""
    name = "permanent-capacitor" if kind == "psc" else kind
    table = next((rows for k, rows in _TABLE.items() if k == name), ())
    found = [replace(t, why=_worked(t, motor)) if motor is not None else t for t in table]
    if table and name not in ("universal",):
        found.append(
            Turn(
                into=_OTHER_HERTZ,
                word="with care",
                why="volts in step with hertz, speed follows; "
                + (
                    "µF and switching speed change with it: 60 Hz from 50 wants about 0.7 times the µF"
                    if name not in ("three-phase", "shaded-pole")
                    else "power in step with hertz at most"
                ),
            )
        )
    return tuple(found)


def _worked(turn: Turn, motor: Motor | None) -> str:
    """Return why, with this motor's own figures where the network tells them."""
    if motor is None or "left out" not in turn.into:
        return turn.why
    try:
        share = without(
            motor, "capacitor-run" if "run capacitor" in turn.into else "capacitor-start"
        )
    except CoilError:
        return turn.why
    if not LEAST_START < share < math.inf:
        return f"{turn.why}. Worked out here: it would not start"
    return f"{turn.why}. Worked out here: {share:.2f} times the starting torque it has now"


def without(motor: Motor, kind: str) -> float:
    """Return the starting torque over today's with the capacitors of a kind taken out.

    A start capacitor that lies alone in the start path is bridged (split phase), one beside a run
    capacitor and any run capacitor is left open.
    """
    today = float(start_curves(motor, 2)[0].torque[0])
    alone = kind == "capacitor-start" and not any(
        d.kind in ("capacitor-run", "capacitor-dual") for d in motor.devices
    )
    changed = motor
    for d in motor.devices:
        if d.kind == kind:
            changed = changed.with_capacitor(d.name, BRIDGED if alone else GONE)
    then = float(motor.way * changed.way * start_curves(changed, 2)[0].torque[0])
    return then / today if abs(today) > 0 else math.inf


BRIDGED, GONE = 1e6, 1e-3  # µF: next to nothing of reactance, next to nothing of current


def compared() -> tuple[tuple[str, float, float], ...]:
    """Return kinds with their usual starting torque in multiples of full load, the weakest first."""
    rows = [
        (k.title, *k.torque) for k in KINDS.values() if k.torque is not None and k.name in _COMPARED
    ]
    return tuple(sorted(rows, key=lambda r: (r[1], r[2])))


_COMPARED = (
    "shaded-pole",
    "split-phase",
    "permanent-capacitor",
    "capacitor-start",
    "capacitor-start-run",
    "three-phase",
)
