"""Curves over speed: torque, amps, capacitor and start-winding volts; the field's path; phasors."""

import cmath
import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.machine.motor import Motor
from careful_coil.core.ways.devices import Moment
from careful_coil.core.ways.states import State
from careful_coil.core.winding.steady import Steady

Floats = NDArray[np.float64]
POINTS = 400
LINE_SHARE, CIRCLE_SHARE = 0.02, 0.98  # of the long axis: called a line, a circle


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Curve:
    """One state of a motor over speed, shape (points,): rpm rising from standstill.

    `torque` in the air gap, `drag` taken at the shaft, N·m; amps and volts rms. `main` is the largest of
    the main coils', `aux` of the start winding's; `aux_volt` the start winding's, end to end of the
    coil that has most.
    """

    state: str
    rpm: Floats
    slip: Floats
    torque: Floats
    drag: Floats
    line_amp: Floats
    main_amp: Floats
    aux_amp: Floats
    aux_volt: Floats
    capacitor_volt: Mapping[str, Floats]
    power_in: Floats
    steady: Steady

    @property
    def shaft(self) -> Floats:
        """Return the torque at the shaft in N·m."""
        return self.torque - self.drag

    def at(self, rpm: float, values: Floats) -> float:
        """Return a value of the curve at a speed."""
        return float(np.interp(rpm, self.rpm, values))


def curve(motor: Motor, state: State | Moment = "run", points: int = POINTS) -> Curve:
    """Return one state of a motor from standstill to n_sync, in one solution."""
    slip = np.linspace(1.0, 0.0, points)
    found = motor.steady(slip, state)
    amps, volts = np.abs(found.coil_amp), np.abs(found.coil_volt)
    main, aux = list(motor.coils(False)), list(motor.coils(True))
    none = np.zeros(points)
    return Curve(
        state=state if isinstance(state, str) else state.name,
        rpm=(1 - slip) * motor.sync_rpm,
        slip=slip,
        torque=motor.torque_nm(found),
        drag=motor.drag_nm(slip),
        line_amp=np.max([np.abs(a) for a in found.line_amp.values()], axis=0),
        main_amp=amps[:, main].max(axis=1),
        aux_amp=amps[:, aux].max(axis=1) if aux else none,
        aux_volt=volts[:, aux].max(axis=1) if aux else none,
        capacitor_volt={n: np.abs(v) for n, v in found.capacitor_volt.items()},
        power_in=found.power_in,
        steady=found,
    )


def start_curves(motor: Motor, points: int = POINTS) -> tuple[Curve, Curve]:
    """Return the curves with the start devices in and out."""
    return curve(motor, "start", points), curve(motor, "run", points)


@dataclass(frozen=True, slots=True)
class FieldPath:
    """The path of the field's tip in one period: `long` and `short` half axes, `tilt` in degrees.

    `turn` 1 forward, −1 backward, 0 along a line; `shape` line, ellipse or circle. In units of turns
    times amps, peak.
    """

    long: float
    short: float
    tilt: float
    turn: int
    shape: str

    def points(self, count: int = 72) -> Floats:
        """Return the path, shape (count + 1, 2), closed."""
        at = np.linspace(0, 2 * math.pi, count + 1)
        way = (
            self.long * np.cos(at) + 1j * (self.turn or 1) * self.short * np.sin(at)
        ) * cmath.exp(1j * math.radians(self.tilt))
        return np.stack([way.real, way.imag], axis=1)


def field_path(forward: complex, backward: complex) -> FieldPath:
    """Return the path of a field of these two waves.

    The tip Σ n_k·i_k(t)·e^(jθ_k) is (F_f·e^(jωt) + F_b*·e^(−jωt))/√2, rms F: an ellipse with half axes
    |F_f| + |F_b| and ||F_f| − |F_b|| (rotating fields; Fitzgerald, Kingsley and Umans, ch. 4).
    """
    ahead, behind = abs(forward), abs(backward)
    long, short = ahead + behind, abs(ahead - behind)
    peak = 1 / math.sqrt(2)
    tilt = (
        math.degrees(cmath.phase(forward) - cmath.phase(backward)) / 2 if behind and ahead else 0.0
    )
    share = short / long if long > 0 else 0.0
    shape = "line" if share < LINE_SHARE else "circle" if share > CIRCLE_SHARE else "ellipse"
    turn = 0 if shape == "line" else 1 if ahead > behind else -1
    return FieldPath(peak * long, peak * short, tilt, turn, shape)


def field_of(steady: Steady, at: int = 0) -> FieldPath:
    """Return the path of the first field at one of the solved slips."""
    return field_path(complex(steady.forward[at, 0]), complex(steady.backward[at, 0]))


LEAST_START = 0.005  # of full load: less does not turn a shaft


def starts_words(times: float) -> str:
    """Return a starting torque in multiples of full load, in words; nothing, or backwards, is no start."""
    if times < LEAST_START:
        return (
            "does not start" if times > -LEAST_START else "does not start: it pulls the other way"
        )
    return f"starts with {times:.2f} times full load"


def apart_words(amps: Mapping[str, complex]) -> str:
    """Return how far the currents of both windings stand apart, in words; empty where there is one winding.

    Torque goes with the sine of the angle: 90° between them turns hardest.
    """
    if not {"main", "start"} <= set(amps) or not abs(amps["main"]) * abs(amps["start"]) > 0:
        return ""
    turn = math.degrees(cmath.phase(amps["start"] / amps["main"]))
    who = "the start winding ahead" if turn > 0 else "the start winding behind"
    return f"The two currents stand {abs(turn):.0f}° apart, {who}; 90° turns hardest."


def phasors(motor: Motor, steady: Steady, at: int = 0) -> dict[str, complex]:
    """Return rms amps by what carries them: lines, main, start; the volts of L1 point to 0°.

    Coils of one winding in parallel or series are told by the one that carries most.
    """
    found = {n: complex(a[at]) for n, a in steady.line_amp.items() if abs(a[at]) > 0}
    for name, auxiliary in (("main", False), ("start", True)):
        own = motor.coils(auxiliary)
        if own and motor.phases == 1:
            amps = [complex(steady.coil_amp[at, k]) for k in own]
            found[name] = max(amps, key=abs)
    return found
