"""What a capacitor must be: a running one by the field it makes, a start one by current and torque.

Both are searched for on the network of the motor itself; the closed forms for a start capacitor, from
locked-rotor readings of each winding, stand beside them.
"""

import cmath
import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.errors import CannotConnect, ValueOutOfRange
from careful_coil.core.machine.motor import Motor

# usual film and electrolytic values a shop has at hand, µF
RUN_SHELF = (1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 7.5, 8.0, 10.0, 12.5, 15.0, 17.5, 20.0, 25.0, 30.0,
             35.0, 40.0, 45.0, 50.0, 55.0, 60.0, 70.0, 80.0, 100.0)  # fmt: skip
SEARCH = (0.02, 50.0)  # times the capacitance that stands against the start winding's ohms at rest
TOO_MUCH = 1.0 + 1e-9
GRID = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Tried:
    """One capacitance at rated slip: backward field over forward, A, V, N·m at the shaft."""

    microfarad: float
    backward: float
    aux_amp: float
    line_amp: float
    capacitor_volt: float
    torque: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RunningCapacitor:
    """The running capacitance: `best` the least backward field, `chosen` the most the caps leave of it.

    `capped` what stopped it: amps, volts or nothing; `shelf` values a shop has, from small upward to
    the chosen one, each tried.
    """

    best: Tried
    chosen: Tried
    capped: str
    shelf: tuple[Tried, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class StartCapacitor:
    """The two starting figures in µF, the volts on the capacitor at standstill with each, N·m."""

    quadrature: float
    most_torque: float
    quadrature_volt: float
    most_torque_volt: float
    quadrature_torque: float
    most_torque_torque: float


def running_capacitor(
    motor: Motor,
    name: str,
    slip: float,
    most_amp: float = math.inf,
    most_volt: float = math.inf,
) -> RunningCapacitor:
    """Return the running µF of the capacitor `name` at a slip, on the joints as they are (fastest tap).

    `most_amp` what the start winding may carry for good (its wire times the density allowed),
    `most_volt` what the capacitor may. Raises: CannotConnect where no capacitance keeps within them.
    """
    from scipy.optimize import minimize_scalar  # loaded when first used

    low, high = (math.log(x) for x in _range(motor, "run"))

    def shown(log: float) -> Tried:
        return _tried(motor, name, math.exp(log), slip)

    def over(at: Tried) -> float:
        return max(at.aux_amp / most_amp, at.capacitor_volt / most_volt) - 1

    found = minimize_scalar(
        lambda x: shown(x).backward, bounds=(low, high), method="bounded", options={"xatol": 1e-6}
    )
    best = chosen = shown(float(found.x))
    capped = ""
    if over(best) > 0:
        capped = "amps" if best.aux_amp / most_amp > best.capacitor_volt / most_volt else "volts"
        chosen = _within(shown, over, np.linspace(low, math.log(best.microfarad), GRID))
    most = chosen.microfarad * TOO_MUCH
    shelf = tuple(_tried(motor, name, c, slip) for c in RUN_SHELF if c <= most)
    return RunningCapacitor(best=best, chosen=chosen, capped=capped, shelf=shelf)


def _within(
    shown: Callable[[float], Tried], over: Callable[[Tried], float], grid: NDArray[np.float64]
) -> Tried:
    """Return the largest of these capacitances, by logarithm, that keeps within the caps, to the edge."""
    from scipy.optimize import brentq  # loaded when first used

    fits = [k for k, x in enumerate(grid) if over(shown(float(x))) <= 0]
    if not fits:
        at = shown(float(grid[0]))
        raise CannotConnect(
            "No run capacitor keeps start winding and capacitor within their limits: with "
            f"{at.microfarad:.2g} µF {at.aux_amp:.3g} A flow and {at.capacitor_volt:.0f} V stand on it. "
            "Look at the winding and the capacitor's volts."
        )
    k = fits[-1]
    if k + 1 == len(grid):
        return shown(float(grid[k]))
    edge = float(brentq(lambda x: over(shown(x)), grid[k], grid[k + 1], xtol=1e-6))
    return shown(edge)


def _tried(motor: Motor, name: str, microfarad: float, slip: float) -> Tried:
    at = motor.with_capacitor(name, microfarad)
    run = at.steady(slip, "run")
    volts = [abs(v[0]) for n, v in run.capacitor_volt.items() if n.split(".")[0] == name]
    return Tried(
        microfarad=microfarad,
        backward=float(at.backward_share(run)[0]),
        aux_amp=float(max(abs(run.coil_amp[0, k]) for k in at.coils(True))),
        line_amp=float(max(abs(a[0]) for a in run.line_amp.values())),
        capacitor_volt=float(max(volts)),
        torque=float((at.torque_nm(run) - at.drag_nm(np.array([slip])))[0]),
    )


def start_capacitor(motor: Motor, name: str) -> StartCapacitor:
    """Return the start µF that puts the currents 90° apart and that gives most torque, by search.

    Raises: CannotConnect where no capacitance puts the currents 90° apart.
    """
    from scipy.optimize import brentq, minimize_scalar  # loaded when first used

    low, high = (math.log(x) for x in _range(motor, "start"))

    def angle(log: float) -> float:
        still = motor.with_capacitor(name, math.exp(log)).steady(1.0, "start")
        main, aux = (still.coil_amp[0, motor.coils(a)[0]] for a in (False, True))
        apart = cmath.phase(complex(aux) / complex(main))
        return abs(math.remainder(apart, 2 * math.pi)) - math.pi / 2

    def torque(log: float) -> float:
        at = motor.with_capacitor(name, math.exp(log))
        return -abs(float(at.torque_nm(at.steady(1.0, "start"))[0]))

    grid = np.linspace(low, high, GRID)
    angles = [angle(x) for x in grid]
    crossing = next((k for k in range(1, len(grid)) if angles[k - 1] * angles[k] <= 0), None)
    if crossing is None:
        raise CannotConnect("No capacitance puts these windings' currents 90° apart at standstill.")
    square = float(brentq(angle, grid[crossing - 1], grid[crossing], xtol=1e-9))
    peak = int(np.argmin([torque(x) for x in grid]))
    ends = grid[max(peak - 1, 0)], grid[min(peak + 1, len(grid) - 1)]
    most = float(minimize_scalar(torque, bounds=ends, method="bounded", options={"xatol": 1e-8}).x)
    volts = []
    for x in (square, most):
        still = motor.with_capacitor(name, math.exp(x)).steady(1.0, "start")
        volts.append(float(abs(still.capacitor_volt[name][0])))
    return StartCapacitor(
        quadrature=math.exp(square),
        most_torque=math.exp(most),
        quadrature_volt=volts[0],
        most_torque_volt=volts[1],
        quadrature_torque=-torque(square),
        most_torque_torque=-torque(most),
    )


def _range(motor: Motor, moment: str) -> tuple[float, float]:
    """Return the µF between which a search makes sense: about the start winding's own impedance."""
    coils = motor.coils(True)
    if not coils:
        raise CannotConnect("This winding has no start winding for a capacitor.")
    machine = motor.machine
    reactance = machine.turns**2 * (machine.leakage + machine.rotor.x2)
    if moment == "run":
        reactance = machine.turns**2 * machine.rotor.xm
    unit = 1e6 / (2 * math.pi * motor.hertz * reactance)
    return SEARCH[0] * unit, SEARCH[1] * unit


def impedance(volt: float, amp: float, watt: float | None = None, ohm: float = 0.0) -> complex:
    """Return a winding's impedance R + jX in Ω from a locked-rotor reading; without watts R is `ohm`.

    Z = V/I, R = W/I², X = √(Z² − R²). Raises: ValueOutOfRange where R comes out above Z.
    """
    z = volt / amp
    r = ohm if watt is None else watt / amp**2
    if r > z:
        raise ValueOutOfRange(
            f"R {r:.4g} Ω of Z {z:.4g} Ω", "watts (or ohms) that leave R below V/I", "Locked rotor."
        )
    return complex(r, math.sqrt(z**2 - r**2))


def start_microfarad(main: complex, aux: complex, hertz: float) -> tuple[float, float]:
    """Return the start µF from the locked impedances in Ω of both windings: 90° apart, most torque.

    Xc = Xa + Ra·Rm/Xm and Xc = Xa + Ra·Rm/(|Zm| + Xm) (Fitzgerald, Kingsley and Umans, ch. 9, for the
    first; the second makes |Im|·|Ia|·sin the largest). Raises: ValueOutOfRange for a main without X.
    """
    if not main.imag > 0:
        raise ValueOutOfRange(
            f"Xm {main.imag:.4g} Ω", "a main winding with reactance", "Locked rotor."
        )
    square = aux.imag + aux.real * main.real / main.imag
    most = aux.imag + aux.real * main.real / (abs(main) + main.imag)
    return tuple(1e6 / (2 * math.pi * hertz * x) for x in (square, most))  # type: ignore[return-value]
