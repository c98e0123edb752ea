"""What a hidden motor shows on a test run: amps, watts, rpm, warmth; what it turns from; its start timed."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from careful_coil.bench.low_run import first_slip, pole_ratio
from careful_coil.core.machine.run_up import IN_SHARE, OUT_SHARE
from careful_coil.core.readings import Loaded
from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import Rotor, default_rotor
from careful_coil.core.winding.steady import Floats, Steady, Supply, solve

DRAG = 0.02  # of the torque at standstill and full volts: bearings and fan at full speed
STICTION = 0.6  # of the drag: what a free shaft needs to begin
IRON = 1.0  # watts of the iron over those of free bearings, at full volts
BRAKE = 0.45  # of the torque at standstill and full volts: what the shop's brake takes
UP_SECONDS = 0.6  # a free healthy motor would take to n_sync on the torque of its standstill
NO_TORQUE = 1e-3  # of the greatest on the way up: figures' own noise
GIVE_UP = 8.0  # seconds without the start device letting go
AIR_C, WARM_K, WARM_MIN = 21.0, 38.0, 22.0

# a commutator motor without load: amps over those at standstill, speed over the synchronous, power factor
SERIES_IDLE, SERIES_SPEED, SERIES_FACTOR = 0.12, 2.4, 0.9
SERIES_STALLS = 0.5  # of its torque that a stiff shaft takes


@dataclass(frozen=True)
class Rig:
    """A hidden motor on the bench: its winding, joints and devices as they are, its supply and rated volts.

    `stiff` times the usual drag, `dead_line` opened while it runs, `tired` of 1: what its capacitors
    have left, `magnetizing` of 1: its reactance over that of an ordinary machine.
    """

    network: Network
    joints: Sequence[Sequence[str]]
    devices: Sequence[Device]
    supply: tuple[int, float, float]
    nominal: float
    poles: int
    halves: Halves
    stiff: float = 1.0
    dead_line: str = ""
    tired: float = 1.0
    magnetizing: float = 1.0

    @property
    def sync_rpm(self) -> float:
        """Return n_sync on this supply."""
        return 120 * self.supply[2] / self.poles / self._ratio

    @cached_property
    def _ratio(self) -> float:
        """Return the poles of the field that carries it, over those of the first."""
        return pole_ratio(self._wired("start", ""), self.halves, self._at_rest)

    def _slip(self, slip: Floats) -> Floats:
        """Return the slip against the first field of one against the field that carries it, its own way round."""
        return first_slip(slip, self._way, self._ratio)

    @property
    def lines(self) -> tuple[str, ...]:
        """Return the lines that are read."""
        return ("L1", "L2", "L3") if self.supply[0] == 3 else ("L1",)

    def step(self, loaded: Loaded = "none") -> tuple[dict[str, float], float, float, str]:
        """Return A of each line, W, rpm and how it turns."""
        phases, volt, hertz = self.supply
        at_rest = self._at_rest
        if at_rest.shorted:
            return dict.fromkeys(self.lines, 99.0), 0.0, 0.0, "none"
        if self._brushed:
            return self._series(volt, loaded)
        slip = np.geomspace(3e-4, 1.0, 160)
        wired = self._wired("run", self.dead_line)
        found = solve(
            wired,
            Supply.of(phases, volt, hertz, hertz),
            self._slip(slip),
            self._rotor,
            self.halves,
        )
        pulls = self.drag + (BRAKE * self.full if loaded == "load" else 0.0)
        spare = self._way * found.torque - pulls * (1 - slip)
        runs = np.nonzero(spare >= 0)[0]
        pull = abs(float(at_rest.torque[0]))
        turns = pull > 0 and pull >= STICTION * self.drag and loaded != "locked"
        shown, k = (found, int(runs[0])) if turns and len(runs) else (at_rest, 0)
        amps = {
            n: float(abs(shown.line_amp[n][k])) if n in shown.line_amp else 0.0 for n in self.lines
        }
        iron = IRON * DRAG * self.full * (volt / self._rated) ** 2
        watt = float(shown.power_in[k]) + iron
        rpm = self.sync_rpm * (1 - float(slip[k])) if shown is found else 0.0
        return amps, watt, rpm, "smooth" if rpm else "none"

    @property
    def _brushed(self) -> bool:
        return any(c.like == "armature" for c in self._wired("run", "").coils)

    def _series(self, volt: float, loaded: Loaded) -> tuple[dict[str, float], float, float, str]:
        """Return the same of a commutator motor, roughly: it runs up until its EMF takes nearly all the volts."""
        still = (
            float(abs(self._at_rest.line_amp["L1"][0])) if "L1" in self._at_rest.line_amp else 0.0
        )
        stuck = loaded == "locked" or self.stiff * DRAG >= SERIES_STALLS or still <= 0
        share = 1.0 if stuck else SERIES_IDLE * (3.0 if loaded == "load" else 1.0)
        amp = still * share
        rpm = 0.0 if stuck else SERIES_SPEED * self.sync_rpm * volt / self._rated
        return {"L1": amp}, SERIES_FACTOR * volt * amp, rpm, "smooth" if rpm else "none"

    def turns_from(self) -> float | None:
        """Return the volts it begins to turn from, torque going with their square; None: it does not."""
        return (
            self._rated * math.sqrt(STICTION * self.drag / self.full)
            if self.full > STICTION * self.drag
            else None
        )

    def start(self) -> tuple[str, float, float]:
        """Return what a start at these volts becomes, the seconds, rpm at which the device let go."""
        phases, volt, hertz = self.supply
        share = np.linspace(0.0, 0.98, 60)  # of n_sync
        slip = 1 - share
        found = solve(
            self._wired("start", ""),
            Supply.of(phases, volt, hertz, hertz),
            self._slip(slip),
            self._rotor,
            self.halves,
        )
        spare = self._way * found.torque - self.drag * np.maximum(share, STICTION)
        healthy = self._full_torque(1.0)
        switched = any(d.switches for d in self.devices)
        until = OUT_SHARE if switched else float(share[-1])
        below = share <= until
        # one winding alone: none at standstill
        none = NO_TORQUE * float(np.abs(found.torque).max())
        if spare[0] <= 0 or healthy <= none:
            return "stalled", GIVE_UP, 0.0
        if np.any(spare[below] <= 0):
            at = float(share[int(np.argmax(spare <= 0))])
            return ("stalled", GIVE_UP, self.sync_rpm * at) if switched else ("turns", 1.0, 0.0)
        seconds = UP_SECONDS * healthy * float(np.trapezoid(1 / spare[below], share[below]))
        return (
            ("dropped out", seconds, self.sync_rpm * until)
            if switched
            else ("turns", 0.1 * seconds, 0.0)
        )

    def back_in(self) -> float:
        """Return the rpm at which the start device comes back in."""
        return self.sync_rpm * IN_SHARE

    @property
    def drag(self) -> float:
        """Return what bearings and fan take at full speed, as torque."""
        return DRAG * self.stiff * self._full_torque(1.0)

    @property
    def full(self) -> float:
        """Return the torque at standstill and rated volts."""
        return self._full_torque(self.tired)

    @property
    def _rated(self) -> float:
        return self.nominal or self.supply[1]

    def _full_torque(self, tired: float) -> float:
        phases, _, hertz = self.supply
        still = self._wired("start", "", tired)
        supply = Supply.of(phases, self._rated, hertz, hertz)
        return abs(float(solve(still, supply, 1.0, self._rotor, self.halves).torque[0]))

    @cached_property
    def _rotor(self) -> Rotor:
        usual = default_rotor(self._wired("run", self.dead_line))
        return replace(usual, xm=self.magnetizing * usual.xm)

    @cached_property
    def _at_rest(self) -> Steady:
        phases, volt, hertz = self.supply
        still = self._wired("start", "")
        return solve(still, Supply.of(phases, volt, hertz, hertz), 1.0, self._rotor, self.halves)

    @property
    def _way(self) -> int:
        return -1 if float(self._at_rest.torque[0]) < 0 else 1

    def _wired(self, moment: Moment, dead_line: str, tired: float | None = None) -> Network:
        kept = [[n for n in j if n != dead_line] for j in self.joints]
        lined = self.network.joined([j for j in kept if len(j) > 1])
        if not self.devices:
            return lined
        devices = tired_of(self.devices, self.tired if tired is None else tired)
        return with_devices(lined, devices, state_at(devices, moment))


def tired_of(devices: Sequence[Device], share: float) -> tuple[Device, ...]:
    """Return devices whose capacitors have so much left, of 1."""
    return tuple(
        replace(d, microfarad=share * d.microfarad, second=share * d.second)
        if d.kind.startswith("capacitor")
        else d
        for d in devices
    )


def warmth(minutes: float) -> float:
    """Return °C of the winding after so many minutes at full volts without load."""
    return AIR_C + WARM_K * (1 - math.exp(-minutes / WARM_MIN))
