"""Running up against a load: seconds to switch-over, chattering, a stall, what the start winding heats.

J·dω/dt = T(n) − T_load(n), the torque read off the curves of the state the start device stands in,
solved with SciPy's Runge–Kutta between the moments at which it switches.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.machine.curves import Curve, start_curves
from careful_coil.core.machine.motor import Motor

Floats = NDArray[np.float64]
Watched = Literal["speed", "volts", "amps", "heat", "none"]
Outcome = Literal["up", "stall", "hangs", "chatters", "still rising"]
OUT_SHARE, IN_SHARE = 0.75, 0.45  # of n_sync: trade practice, out at 70–80 %, in well below
PTC_SECONDS = 0.7  # at standstill amps until a start thermistor is hot: usual, the maker's wins
CHATTER, MOST_SWITCHES = 3, 6  # out, in and out again is chattering; so many are worked out
STEADY_SHARE = 2e-4  # of n_sync a second: no longer rising
TURNS_SHARE = 0.01  # of n_sync: it turns


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """What the shaft drives: `inertia` kg·m² with the rotor's own, `friction` N·m at any speed,
    `torque` N·m at n_sync times (n/n_sync)^`power` besides (2 a fan, 0 a compressor or belt), and the
    load curve `points`, shares of n_sync with N·m, rising, straight between them."""

    inertia: float
    friction: float = 0.0
    torque: float = 0.0
    power: float = 2.0
    points: tuple[tuple[float, float], ...] = ()

    def at(self, share: float) -> float:
        """Return the load in N·m at a share of n_sync."""
        drawn = 0.0
        if self.points:
            speeds, torques = ([p[k] for p in self.points] for k in (0, 1))
            drawn = float(np.interp(share, speeds, torques))
        return self.friction + drawn + self.torque * math.pow(max(share, 0.0), self.power)


@dataclass(frozen=True, slots=True, kw_only=True)
class Gear:
    """What takes the start winding out: it watches speed (shares of n_sync), the start winding's volts,
    the main winding's amps, or its own heat (A²·s); out beyond `out`, back in at `back`, 0 never."""

    watches: Watched = "speed"
    out: float = OUT_SHARE
    back: float = IN_SHARE

    @classmethod
    def thermistor(cls, motor: Motor, seconds: float = PTC_SECONDS) -> "Gear":
        """Return a start thermistor that is hot after so many seconds of this motor's standstill amps."""
        still = start_curves(motor, 2)[0].aux_amp[0]
        return cls(watches="heat", out=float(still**2 * seconds), back=0.0)


NO_GEAR = Gear(watches="none", out=math.inf, back=0.0)


@dataclass(frozen=True, slots=True)
class Switching:
    """A moment at which the start device went out or came back in."""

    seconds: float
    rpm: float
    out: bool


@dataclass(frozen=True, kw_only=True, eq=False)
class RunUp:
    """A run-up: times in s, speeds in rpm, whether the start winding is in, A²·s of the start winding.

    `outcome` up, stall (never turns), hangs (turns, but below switch-over with the start winding in),
    chatters (out and in again and again), still rising at the end of the time given.
    """

    seconds: Floats
    rpm: Floats
    start_in: NDArray[np.bool_]
    aux_heat: Floats
    switchings: tuple[Switching, ...]
    outcome: Outcome
    start: Curve
    run: Curve

    @property
    def switch_over(self) -> float | None:
        """Return the seconds until the start winding went out for good, None where it did not."""
        if not self.switchings or not self.switchings[-1].out or self.outcome == "chatters":
            return None
        return self.switchings[-1].seconds

    @cached_property
    def line_amp(self) -> Floats:
        """Return the line's amps over time."""
        amps = [np.interp(self.rpm, c.rpm, c.line_amp) for c in (self.run, self.start)]
        return np.where(self.start_in, amps[1], amps[0])


def run_up(motor: Motor, load: Load, gear: Gear | None = None, seconds: float = 10.0) -> RunUp:
    """Return how a motor comes up from standstill.

    Raises: ValueOutOfRange for no inertia, no time, a load that drives, and a curve that runs back.
    """
    if not load.inertia > 0:
        raise ValueOutOfRange(f"{load.inertia:g} kg·m²", "an inertia above nothing")
    if not 0 < seconds <= 3600:
        raise ValueOutOfRange(f"{seconds:g} s", "a time above nothing, at most an hour")
    if min(load.friction, load.torque, *(y for _, y in load.points)) < 0:
        raise ValueOutOfRange("a load below nothing", "friction and torque of nothing or more")
    if list(load.points) != sorted(set(load.points)):
        raise ValueOutOfRange("a load curve that runs back", "points with rising speeds")
    return _Rise(motor, load, gear or Gear(), seconds).done()


class _Rise:
    def __init__(self, motor: Motor, load: Load, gear: Gear, seconds: float) -> None:
        self._load, self._gear, self._end = load, gear, seconds
        self._curves = start_curves(motor)
        self._sync = motor.sync_rpm
        start = self._curves[0]
        self._step = float(start.rpm[1] - start.rpm[0])
        self._shaft = [c.shaft for c in self._curves]
        self._aux = [c.aux_amp**2 for c in self._curves]
        watched = {"volts": "aux_volt", "amps": "main_amp"}.get(gear.watches)
        self._seen = [getattr(c, watched) if watched else c.rpm / self._sync for c in self._curves]

    def _read(self, values: Floats, rpm: float) -> float:
        """Return a curve's value at a speed: points lie evenly."""
        at = rpm / self._step
        k = min(max(int(at), 0), len(values) - 2)
        share = at - k
        return float(values[k] * (1 - share) + values[k + 1] * share)

    def _slope(self, state: int) -> Callable[[float, Floats], list[float]]:
        shaft, aux = self._shaft[state], self._aux[state]
        per = 60 / (2 * math.pi) / self._load.inertia

        def slope(_: float, at: Floats) -> list[float]:
            rpm = float(at[0])
            drive, held = self._read(shaft, rpm), self._load.at(rpm / self._sync)
            if rpm <= 0 and drive <= held:
                return [
                    0.0,
                    self._read(aux, 0.0),
                ]  # friction and load only hold, they never drive back
            return [(drive - held) * per, self._read(aux, max(rpm, 0.0))]

        return slope

    def _event(self, state: int) -> Callable[[float, Floats], float]:
        """Return what crosses zero when the start device switches; amps fall where others rise."""
        gear, seen = self._gear, self._seen[state]
        falling = gear.watches == "amps"

        def apart(_: float, at: Floats) -> float:
            if gear.watches == "heat":
                return float(at[1]) - gear.out
            value = self._read(seen, float(at[0]))
            limit = gear.out if state == 0 else gear.back
            return limit - value if falling else value - limit

        apart.terminal = True  # type: ignore[attr-defined]
        apart.direction = 1 if state == 0 else -1  # type: ignore[attr-defined]
        return apart

    def _watching(self, state: int) -> bool:
        limit = self._gear.out if state == 0 else self._gear.back
        return self._gear.watches != "none" and 0 < limit < math.inf

    def done(self) -> RunUp:
        """Return the whole run-up."""
        pieces, switchings, state = [], [], 0
        for times, values, switched in self._pieces():
            pieces.append((times, values, state))
            if switched:
                state = 1 - state
                now = float(times[-1])
                switchings.append(Switching(now, float(values[0, -1]), state == 1))
        seconds = np.concatenate([t for t, _, _ in pieces])
        rpm = np.concatenate([v[0] for _, v, _ in pieces])
        return RunUp(
            seconds=seconds,
            rpm=rpm,
            start_in=np.concatenate([np.full(len(t), s == 0) for t, _, s in pieces]),
            aux_heat=np.concatenate([v[1] for _, v, _ in pieces]),
            switchings=tuple(switchings),
            outcome=self._outcome(float(rpm[-1]), state, switchings),
            start=self._curves[0],
            run=self._curves[1],
        )

    def _pieces(self) -> Iterator[tuple[Floats, Floats, bool]]:
        """Yield times, values and whether it switched at the end, piece by piece."""
        from scipy.integrate import solve_ivp  # loaded when first used

        at, when, state = np.zeros(2), 0.0, 0
        for _ in range(MOST_SWITCHES + 1):
            events = [self._event(state)] if self._watching(state) else None
            if events and events[0](when, at) * events[0].direction > 0:  # type: ignore[attr-defined]
                found_t, found_y, switched = np.array([when]), at[:, None], True
            else:
                found = solve_ivp(
                    self._slope(state),
                    (when, self._end),
                    at,
                    method="LSODA",  # a light rotor on a strong motor is stiff
                    events=events,
                    max_step=self._end / 40,
                    rtol=1e-5,
                    atol=(1e-3 * self._sync / 1000, 1e-6),
                )
                found_t, found_y, switched = found.t, found.y, found.status == 1
            yield found_t, found_y, switched
            if not switched:
                return
            at, when, state = found_y[:, -1].copy(), float(found_t[-1]), 1 - state

    def _outcome(self, rpm: float, state: int, switchings: list[Switching]) -> Outcome:
        if len(switchings) >= CHATTER:
            return "chatters"
        slope = self._slope(state)(0.0, np.array([rpm, 0.0]))[0]
        if abs(slope) > STEADY_SHARE * self._sync:
            return "still rising" if slope > 0 else "stall"
        if rpm < TURNS_SHARE * self._sync:
            return "stall"
        return "hangs" if state == 0 and self._gear.watches != "none" else "up"
