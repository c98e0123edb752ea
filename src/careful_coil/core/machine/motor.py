"""A motor joined and fed: winding, devices, and the figures ohms do not tell.

The network is the hookup's own, so that a curve, a run-up and a hookup check speak of one model.
"""

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from careful_coil.core.errors import BadDocument
from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import State
from careful_coil.core.ways.way import Joint, Ohms, Plan, made
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import Rotor
from careful_coil.core.winding.single_phase import START_COILS
from careful_coil.core.winding.steady import Steady, Supply, solve

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Machine:
    """What ohms and joints do not tell of a motor.

    `rotor` and `leakage` (Ω at `hertz`) are those of a main coil, n = 1; a start winding has `turns`
    times its turns and by that squared its leakage. `drag_watt` core loss, friction and windage
    together at rated speed, taken off at the shaft in step with speed.
    """

    rotor: Rotor
    leakage: float
    poles: int
    hertz: float
    turns: float = 1.0
    drag_watt: float = 0.0

    @property
    def sync_rpm(self) -> float:
        """Return n_sync at rated hertz in rpm."""
        return 120.0 * self.hertz / self.poles

    def on(self, network: Network) -> Network:
        """Return a winding with this machine's turns and leakage."""
        coils = []
        for c in network.coils:
            turns = self.turns if c.like in START_COILS else c.turns
            coils.append(replace(c, turns=turns, leakage=self.leakage * turns**2))
        return replace(network, coils=tuple(coils))


@dataclass(frozen=True, kw_only=True)
class Motor:
    """A machine in a hookup on a supply of `volt` between lines at `hertz`; `coil_ohm` in Ω, hot."""

    arrangement: str
    joints: tuple[Joint, ...]
    machine: Machine
    coil_ohm: Ohms
    volt: float
    hertz: float
    variant: str = ""
    devices: tuple[Device, ...] = ()

    @classmethod
    def of_plan(
        cls, plan: Plan, machine: Machine, coil_ohm: Ohms, volt: float, hertz: float | None = None
    ) -> "Motor":
        """Return a motor joined as a plan, by default at the machine's own hertz."""
        return cls(
            arrangement=plan.arrangement,
            variant=plan.variant,
            joints=plan.joints,
            devices=plan.devices,
            machine=machine,
            coil_ohm=coil_ohm,
            volt=volt,
            hertz=hertz or machine.hertz,
        )

    @property
    def phases(self) -> int:
        """Return 1 or 3."""
        return arrangement(self.arrangement).phases

    @property
    def halves(self) -> Halves:
        """Return how halves of a phase couple."""
        return arrangement(self.arrangement).halves

    @property
    def sync_rpm(self) -> float:
        """Return n_sync on this supply in rpm."""
        return self.machine.sync_rpm * self.hertz / self.machine.hertz

    def network(self, state: State | Moment = "run") -> Network:
        """Return the winding with devices in a state, this machine's turns and leakage in it."""
        inside = arrangement(self.arrangement).inside(self.variant)
        return self.machine.on(made(inside, self.joints, self.devices, self.coil_ohm, state))

    def supply(self) -> Supply:
        """Return its supply."""
        return Supply.of(self.phases, self.volt, self.hertz, self.machine.hertz)

    @cached_property
    def standstill(self) -> Steady:
        """Return the steady state at standstill with the start devices in."""
        return solve(self.network("start"), self.supply(), 1.0, self.machine.rotor, self.halves)

    @cached_property
    def way(self) -> int:
        """Return the way it turns from standstill: 1 with the angles of its coils, −1 against them."""
        still = self.standstill
        most = float(np.abs(still.forward).max() ** 2) * self.machine.rotor.r2
        return -1 if still.torque[0] < -1e-9 * most else 1

    def steady(self, slip: ArrayLike, state: State | Moment = "run") -> Steady:
        """Return the steady state at slips against the way it turns, all in one call."""
        slips = np.asarray(slip, dtype=float)
        own = slips if self.way > 0 else 2 - slips
        return solve(self.network(state), self.supply(), own, self.machine.rotor, self.halves)

    def torque_nm(self, steady: Steady) -> Floats:
        """Return the torque in the air gap in N·m, with the way it turns."""
        return np.asarray(self.way * steady.torque / (2 * math.pi * self.sync_rpm / 60))

    def backward_share(self, steady: Steady) -> Floats:
        """Return the field against the way it turns over that with it, of 1."""
        ahead, behind = np.abs(steady.forward[:, 0]), np.abs(steady.backward[:, 0])
        return np.asarray(behind / ahead if self.way > 0 else ahead / behind)

    def drag_nm(self, slip: Floats) -> Floats:
        """Return what core loss, friction and windage take at the shaft in N·m, in step with speed."""
        rated = self.machine.drag_watt / (2 * math.pi * self.machine.sync_rpm / 60)
        return np.asarray(rated * (1 - slip))

    def rated_nm(self, slip: float) -> float:
        """Return the torque at the shaft at a rated slip, in run, in N·m."""
        run = self.steady(slip, "run")
        return float((self.torque_nm(run) - self.drag_nm(np.array([slip])))[0])

    def coils(self, auxiliary: bool) -> tuple[int, ...]:
        """Return the numbers of the start winding's coils, or of the others."""
        inside = arrangement(self.arrangement).inside(self.variant)
        return tuple(k for k, c in enumerate(inside.coils) if (c.like in START_COILS) == auxiliary)

    def with_capacitor(self, name: str, microfarad: float) -> "Motor":
        """Return it with another capacitance in a device. Raises: BadDocument for no such capacitor."""
        if not any(d.name == name and d.kind.startswith("capacitor") for d in self.devices):
            known = ", ".join(d.name for d in self.devices if d.kind.startswith("capacitor"))
            raise BadDocument("capacitor", name, known or "a motor with a capacitor")
        devices = tuple(
            replace(d, microfarad=microfarad) if d.name == name else d for d in self.devices
        )
        return replace(self, devices=devices)
