"""Volts on the true hookup: what it draws, whether it turns, and what it does to the motor."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property

import numpy as np

from careful_coil.bench.low_run import first_slip, pole_ratio, several_speeds
from careful_coil.bench.wound import halves_of, wound
from careful_coil.core.errors import CoilError
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import state_at, with_devices
from careful_coil.core.winding.network import Coil, Network
from careful_coil.core.winding.rotor import Rotor, default_rotor
from careful_coil.core.winding.steady import Floats, Steady, Supply, solve
from careful_coil.documents.motor import MotorDocument
from careful_coil.walk.truth.plated import figures, middle_microfarad, printed

IDLE_SHARE = {3: 0.42, 1: 0.68}  # of plate amps without load: middle of what small motors take
OVER = 1.3  # of a coil's rated volts: it is cooked
IDLE_SLIP = 0.006
UNCALIBRATED = 0.6
AMPS_ALIKE = 0.1  # of their mean: lines of a sound hookup
ALIKE = 0.04  # of the amps wanted: figures that serve as well
MAIN = ("coil", "main", "run", "field", "field-1")


class Power:
    """The winding under volts: rated volts of a coil and magnetizing of this motor, from its plate."""

    def __init__(self, motor: MotorDocument) -> None:
        self._motor = motor
        self._volts = figures(motor.plate.text, "volt")
        self._amps = figures(motor.plate.text, "amp")
        self._hertz = (figures(motor.plate.text, "hertz") or (50.0,))[-1]

    @cached_property
    def coil_volt(self) -> float | None:
        """Return the rated volts of a main coil, None where the plate does not tell."""
        found = self._usual
        return found[1] if found is not None else None

    @cached_property
    def _usual(self) -> tuple[Network, float, float, float] | None:
        """Return a healthy hookup, its coil volts, line volts and plate amps."""
        motor = self._motor
        if not self._volts:
            return None
        bare = wound(whole(motor))
        if motor.arrangement.startswith("three"):
            plans = [p for p in plans_of(motor.arrangement, motor.inside) if p.start == "direct"]
            plans = [p for p in plans if p.speed in ("", "high")]
            if "12" in motor.arrangement:  # either family may be meant: wye, as most are
                plans = [p for p in plans if p.family == "wye"]
            if not plans:
                return None
            ranked = {p.rank: p for p in reversed(plans)}
            several = len(self._volts) > 1
            plan = ranked[min(ranked)] if several else ranked[max(ranked)]
            volt = self._volts[0]
            amp = max(self._amps, default=0.0)  # of the lower volts; of several speeds the fastest
            return bare.joined(plan.joints), volt / plan.factor, volt, amp
        mains = [c for c in bare.coils if c.like in MAIN and not c.like.startswith("field")]
        if not mains:
            return None
        volt, amp = self._volts[-1], min(self._amps, default=0.0)
        network = self._running(bare) or _alone(bare, mains)
        return network, volt / len(mains), volt, amp

    def _running(self, bare: Network) -> Network | None:
        """Return a single-phase hookup as it runs, its devices in it; None where no plan places them."""
        motor = self._motor
        if any(d.inside and d.device().switches for d in motor.devices):
            return None  # the start winding is out: its mains alone are left
        healthy = [d.device() for d in motor.devices] + [
            c.device() for c in whole(motor).capacitors
        ]
        try:
            plans = plans_of(motor.arrangement, motor.inside, healthy)
        except CoilError:
            return None
        if not plans:
            return None
        plan = max(plans, key=lambda p: (p.factor, p.speed in ("", "high"), not p.reversed))
        wired = bare.joined(plan.joints)
        return with_devices(wired, plan.devices, state_at(plan.devices, "run"))

    @cached_property
    def magnetizing(self) -> float:
        """Return its magnetizing reactance over an ordinary machine's, by the plate's amps."""
        found = self._usual
        if found is None or not found[3]:
            return UNCALIBRATED
        network, _, volt, amp = found
        phases = 3 if self._motor.arrangement.startswith("three") else 1
        wanted = IDLE_SHARE[phases] * amp
        supply = Supply.of(phases, volt, self._hertz, self._hertz)
        usual = default_rotor(wound(whole(self._motor)))
        halves = halves_of(self._motor)
        drawn: dict[float, float] = {}
        for share in np.geomspace(0.05, 8.0, 80).tolist():
            rotor = replace(usual, xm=share * usual.xm)
            run = solve(network, supply, self._idle(network, supply, rotor), rotor, halves)
            drawn[share] = abs(float(abs(run.line_amp["L1"][0])) / wanted - 1)
        # with a run capacitor two figures may fit: an ordinary machine's is meant
        near = [s for s, off in drawn.items() if off <= min(drawn.values()) + ALIKE]
        return min(near, key=lambda s: abs(math.log(s / UNCALIBRATED)))

    def _idle(self, network: Network, supply: Supply, rotor: Rotor) -> Floats:
        """Return the slip of a free shaft against the first field, whichever field carries it."""
        halves, slip = halves_of(self._motor), np.array([IDLE_SLIP])
        if not several_speeds(network, halves):
            return slip
        still = solve(network, supply, np.array([1.0]), rotor, halves)
        way = -1 if float(still.torque[0]) < 0 else 1
        return first_slip(slip, way, pole_ratio(network, halves, still))

    def _under(
        self,
        network: Network,
        joints: Sequence[Sequence[str]],
        devices: Sequence[Device],
        supply: tuple[int, float, float],
        moment: Moment,
    ) -> tuple[Network, Steady]:
        """Return what is joined and how it stands under these volts."""
        phases, volt, hertz = supply
        wired = network.joined(joints)
        if devices:
            wired = with_devices(wired, devices, state_at(devices, moment))
        fed, rotor = Supply.of(phases, volt, hertz, hertz), default_rotor(wired)
        slip = self._idle(wired, fed, rotor) if moment == "run" else np.array([1.0])
        return wired, solve(wired, fed, slip, rotor, halves_of(self._motor))

    def misjoined(
        self,
        network: Network,
        joints: Sequence[Sequence[str]],
        devices: Sequence[Device],
        supply: tuple[int, float, float],
    ) -> bool:
        """Whether the joints give its main coils other volts than theirs, as a hookup for other volts does."""
        if self.coil_volt is None or not any("L1" in j for j in joints):
            return False
        wired, found = self._under(network, joints, devices, supply, "run")
        if found.shorted:
            return True
        coils = zip(wired.coils, found.coil_volt[0], strict=True)
        most = max((abs(v) for c, v in coils if c.like in MAIN), default=self.coil_volt)
        return not bool(1 / OVER < most / self.coil_volt < OVER)

    def sound(
        self,
        network: Network,
        joints: Sequence[Sequence[str]],
        devices: Sequence[Device],
        supply: tuple[int, float, float],
    ) -> bool:
        """Whether it stands joined to its lines as it must: its coils at their volts, its lines alike."""
        if not any("L1" in j for j in joints) or self.misjoined(network, joints, devices, supply):
            return False
        _, found = self._under(network, joints, devices, supply, "run")
        amps = [abs(a[0]) for a in found.line_amp.values()]
        middle = sum(amps) / len(amps)
        return bool(supply[0] == 1 or max(abs(a - middle) for a in amps) <= AMPS_ALIKE * middle)

    def harm(
        self,
        network: Network,
        joints: Sequence[Sequence[str]],
        devices: Sequence[Device],
        supply: tuple[int, float, float],
        moment: Moment,
    ) -> tuple[str, str]:
        """Return what these volts do to the motor and the coil they cook, empty where they do nothing."""
        wired, found = self._under(network, joints, devices, supply, moment)
        volt = supply[1]
        if found.shorted:
            return f"{' and '.join(found.shorted)} shorted at {volt:g} V", ""
        if self.coil_volt is None:
            return "", ""
        for coil, own in zip(wired.coils, found.coil_volt[0], strict=True):
            if coil.like in MAIN and abs(own) > OVER * self.coil_volt:
                return f"{coil.name} sees {abs(own):.0f} V of {self.coil_volt:.0f}", coil.name
        return "", ""


def _alone(bare: Network, mains: Sequence[Coil]) -> Network:
    """Return the main winding alone across the line, its halves in series."""
    alone = replace(bare, coils=tuple(mains), joints=(), parts=(), capacitors=())
    ends = [(c.start, c.finish) for c in mains]
    joints = [("L1", ends[0][0]), ("L2", ends[-1][1])]
    joints += [(a[1], b[0]) for a, b in itertools.pairwise(ends)]
    return alone.joined(joints)


def whole(motor: MotorDocument) -> MotorDocument:
    """Return the motor with its winding whole and nothing inside: what its plate was made for."""
    told = {k: v for k, v in motor.model_dump(by_alias=True).items() if k not in ("hurt", "turned")}
    rated = middle_microfarad(printed(motor.plate.text, "capacitor"))
    if len(told["capacitors"]) == 1 and rated:
        told["capacitors"] = [{**told["capacitors"][0], "microfarad": rated, "shorted": False}]
    told["devices"] = [d for d in told["devices"] if not d["inside"]]
    return MotorDocument.model_validate(told)
