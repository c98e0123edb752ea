"""The figures of this very motor, fitted to what a shop knows of it.

Unknown figures start from usual ones and are pulled back to them softly; what is known is met tightly:
weighted least squares on logarithms (maximum a posteriori; MacKay, Information Theory, ch. 28), by
SciPy. The network is that of the hookup itself, at rest and in run.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.machine.facts import (
    STATOR_SHARE,
    USUAL,
    USUAL_HOT_C,
    USUAL_LOCKED,
    USUAL_SHAFT_SHARE,
    USUAL_START,
    Facts,
    Metered,
    UsualMachine,
    check_facts,
)
from careful_coil.core.machine.motor import Machine, Motor
from careful_coil.core.machine.power import volt_amperes
from careful_coil.core.values import show_figure
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.network import ohms_share
from careful_coil.core.winding.rotor import Rotor
from careful_coil.core.winding.single_phase import START_COILS

Floats = NDArray[np.float64]
RATED, READ, BAND, WEAK = 0.001, 0.01, 0.03, 0.15  # relative spread: plate, reading, letter, usual
COUNTED = 0.01  # of turns that somebody counted
SPREAD = {  # natural logarithm's, of usual figures
    "leakage": 0.35,
    "rotor": 0.5,
    "magnetizing": 0.4,
    "drag": 0.7,
    "turns": 0.2,
    "ohm": 0.4,
    "aux_ohm": 0.6,
}
STRAIGHT = 0.2
OFF_PERCENT = 2.0  # a fit further off than this is said to contradict the plate
NO_LOAD_SLIPS = np.concatenate([[0.0], np.geomspace(5e-4, 0.1, 15)])


@dataclass(frozen=True, slots=True)
class Assumed:
    """A figure nobody gave: its name, value, unit and where it comes from."""

    name: str
    value: float
    unit: str
    why: str


@dataclass(frozen=True, slots=True)
class Met:
    """A known figure and what the fitted motor shows."""

    name: str
    wanted: float
    got: float
    unit: str

    @property
    def off_percent(self) -> float:
        """Return how far the fit is off, in %."""
        return 100 * (self.got / self.wanted - 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """The fitted motor, what of it is assumed, how it meets what is known, and remarks."""

    motor: Motor
    assumed: tuple[Assumed, ...]
    met: tuple[Met, ...]
    notes: tuple[str, ...] = ()

    @property
    def machine(self) -> Machine:
        """Return its figures."""
        return self.motor.machine


def estimate(plan: Plan, facts: Facts) -> Estimate:
    """Return the motor of a plan whose figures fit the facts.

    `facts.volt` are those of this plan's rating. Raises: BadDocument, ValueOutOfRange for facts no
    machine can be made of.
    """
    check_facts(facts)
    return _Fit(plan, facts).done()


class _Fit:
    def __init__(self, plan: Plan, facts: Facts) -> None:
        self._plan, self._facts = plan, facts
        self._usual: UsualMachine = USUAL[facts.kind]
        inside = arrangement(plan.arrangement).inside(plan.variant)
        self._aux = [c.name for c in inside.coils if c.like in START_COILS]
        self._main = [c.name for c in inside.coils if c.like not in START_COILS]
        self._first = inside.coils[0].angle
        self._inside = inside
        share = USUAL_SHAFT_SHARE[facts.kind]
        self._amp = facts.amp or (facts.watt or 0.0) / share / volt_amperes(
            facts.volt, 1.0, facts.phases
        )
        self._watt = facts.watt or share * volt_amperes(facts.volt, self._amp, facts.phases)
        self._hot = USUAL_HOT_C if facts.hot_c is None else facts.hot_c
        self._base = self._coil_base()
        self._ohms = self._hot_ohms()
        self._names = ["leakage", "rotor", "magnetizing", "drag"]
        if self._aux:
            self._names.append("turns")
        self._free = {
            "ohm": [n for n in self._main if n not in self._ohms],
            "aux_ohm": [n for n in self._aux if n not in self._ohms],
        }
        self._names += [name for name, coils in self._free.items() if coils]
        self._centre = np.log([self._usual_of(n) for n in self._names])
        counted = {"turns": COUNTED} if facts.turns is not None else {}
        self._spreads = [counted.get(n, SPREAD[n]) for n in self._names]

    def _coil_base(self) -> float:
        """Return the ohms of each coil with which the rated amps would flow: the unit of all figures."""
        network = self._plan.network(1.0, "run")
        lines = [n for n in self._plan.lines() if n in network.nodes()]
        line = network.ohm_between(lines[0], lines[1])
        if not 0 < line < math.inf:
            line = 1.0
        if self._facts.phases == 3:
            return self._facts.volt / math.sqrt(3) / self._amp / (line / 2)
        return self._facts.volt / self._amp / line

    def _hot_ohms(self) -> dict[str, float]:
        """Return the ohms that are known, by coil, warm; a map may name coils or kinds of coil."""
        given = self._facts.coil_ohm
        if given is None:
            return {}
        share = ohms_share(self._facts.coil_c, self._hot)
        found = {}
        for c in self._inside.coils:
            ohm = given.get(c.name, given.get(c.like)) if isinstance(given, Mapping) else given
            if ohm is not None:
                found[c.name] = float(ohm) * share
        return found

    def _usual_of(self, name: str) -> float:
        if name == "aux_ohm":
            return 2.5 * self._usual.ohm
        if name == "turns" and self._facts.turns is not None:
            return self._facts.turns
        return float(getattr(self._usual, name))

    def _figures(self, at: Floats) -> dict[str, float]:
        return dict(zip(self._names, np.exp(at).tolist(), strict=True))

    def _motor(self, at: Floats) -> Motor:
        """Return the motor of these figures."""
        of = self._figures(at)
        coils = sum(abs(c.turns) for c in self._inside.coils if c.angle == self._first)
        phases = 3 if self._facts.phases == 3 else 2
        unit = self._base / coils * 2 / phases  # of the rotor's figures, for n = 1
        stator = STATOR_SHARE * of["leakage"] * self._base
        rotor = Rotor(
            xm=of["magnetizing"] * unit,
            r2=of["rotor"] * unit,
            x2=(1 - STATOR_SHARE) * of["leakage"] * unit,
        )
        machine = Machine(
            rotor=rotor,
            leakage=stator,
            poles=self._facts.poles,
            hertz=self._facts.hertz,
            turns=of.get("turns", 1.0),
            drag_watt=of["drag"] * self._watt,
        )
        ohms = dict(self._ohms)
        for name, free in self._free.items():
            ohms |= dict.fromkeys(free, of.get(name, 0.0) * self._base)
        return Motor.of_plan(self._plan, machine, ohms, self._facts.volt)

    @property
    def _leans(self) -> bool:
        """Whether the start winding leans on the starting torque usual for its kind: nothing else tells."""
        return bool(self._aux) and self._facts.locked_aux is None

    def _shown(self, motor: Motor) -> list[tuple[str, float, float, float, str]]:
        """Return for each thing known: name, wanted, shown, relative spread, unit."""
        facts = self._facts
        run = motor.steady(facts.slip, "run")
        speed = 1 - facts.slip
        omega = 2 * math.pi * motor.sync_rpm / 60 * speed
        shaft = float((motor.torque_nm(run) - motor.drag_nm(np.array([facts.slip])))[0]) * omega
        amp = max(float(abs(a[0])) for a in run.line_amp.values())
        tight = RATED if facts.amp is not None else WEAK
        found = [("rated amps", self._amp, amp, tight, "A")]
        tight = RATED if facts.watt is not None else WEAK
        found.append(("rated power", self._watt, shaft, tight, "W"))
        found += self._locked(motor)
        if self._leans:
            low, high = USUAL_START[facts.kind]
            wanted = math.sqrt(low * high) * self._watt / omega
            torque = float(motor.torque_nm(motor.standstill)[0])
            found.append(("starting torque", wanted, torque, math.log(high / low) / 2, "N·m"))
        if facts.no_load is not None:
            found += self._no_load(motor, facts.no_load)
        for test, own, name in (
            (facts.locked_main, self._main, "main winding, locked"),
            (facts.locked_aux, self._aux, "start winding, locked"),
        ):
            if test is not None and own:
                found += self._one_winding(motor, test, own, name)
        return found

    def _locked(self, motor: Motor) -> list[tuple[str, float, float, float, str]]:
        facts = self._facts
        test = facts.locked
        still = motor.standstill
        amp = max(float(abs(a[0])) for a in still.line_amp.values())
        if test is not None:
            share = test.volt / motor.volt  # no iron fills up in this model: amps go with volts
            found = [("locked amps", test.amp, amp * share, READ, "A")]
            if test.watt is not None:
                watt = float(still.power_in[0]) * share**2
                found.append(("locked watts", test.watt, watt, READ, "W"))
            return found
        band = facts.letter_amps()
        if band is not None:
            return [("locked amps by the letter", math.sqrt(band[0] * band[1]), amp, BAND, "A")]
        return [("locked amps", USUAL_LOCKED * self._amp, amp, WEAK, "A")]

    def _no_load(self, motor: Motor, test: Metered) -> list[tuple[str, float, float, float, str]]:
        at = replace(motor, volt=test.volt)
        run = at.steady(NO_LOAD_SLIPS, "run")
        left = at.torque_nm(run) - at.drag_nm(NO_LOAD_SLIPS)
        amps = np.max([np.abs(a) for a in run.line_amp.values()], axis=0)
        above = int(np.argmax(left > 0)) if (left > 0).any() else len(left) - 1
        k = max(above, 1)
        share = float(np.clip(-left[k - 1] / (left[k] - left[k - 1] or 1.0), 0.0, 1.0))
        amp, watt = (float(v[k - 1] + share * (v[k] - v[k - 1])) for v in (amps, run.power_in))
        found = [("no-load amps", test.amp, amp, READ, "A")]
        if test.watt is not None:
            found.append(("no-load watts", test.watt, watt, 2 * READ, "W"))
        return found

    def _one_winding(
        self, motor: Motor, test: Metered, coils: list[str], name: str
    ) -> list[tuple[str, float, float, float, str]]:
        """Return what a winding alone on the supply shows, rotor held: halves in parallel, no taps."""
        joints: list[Joint] = []
        used: set[str] = set()
        for c in self._inside.coils:
            if c.name in coils and not used & {c.start, c.finish}:
                used |= {c.start, c.finish}
                joints += [("L1", c.start), ("L2", c.finish)]
        alone = replace(motor, joints=tuple(joints), devices=(), volt=test.volt)
        still = alone.steady(1.0, "start")
        found = [(f"{name} amps", test.amp, float(abs(still.line_amp["L1"][0])), READ, "A")]
        if test.watt is not None:
            found.append((f"{name} watts", test.watt, float(still.power_in[0]), READ, "W"))
        return found

    def _off(self, at: Floats) -> Floats:
        """Return all residuals: what is known, and how far figures are from usual ones."""
        shown = self._shown(self._motor(at))
        known = [_apart(got, wanted) / spread for _, wanted, got, spread, _ in shown]
        pulls = (at - self._centre) / np.array(self._spreads)
        return np.concatenate([known, pulls])

    def done(self) -> Estimate:
        """Return the fitted motor."""
        from scipy.optimize import least_squares  # loaded when first used

        wide = np.log(50.0)
        found = least_squares(
            self._off,
            self._centre,
            bounds=(self._centre - wide, self._centre + wide),
            x_scale=self._spreads,
            ftol=1e-7,
            xtol=1e-7,
            max_nfev=80,
        )
        motor = self._motor(found.x)
        shown = self._shown(motor)
        met = tuple(
            Met(name, wanted, got, unit)
            for name, wanted, got, spread, unit in shown
            if spread < WEAK
        )
        return Estimate(
            motor=motor,
            assumed=tuple(self._assumed(self._figures(found.x))),
            met=met,
            notes=self._notes(met),
        )

    def _notes(self, met: tuple[Met, ...]) -> tuple[str, ...]:
        off = [m for m in met if abs(m.off_percent) > OFF_PERCENT and "letter" not in m.name]
        if not off:
            return ()
        told = ", ".join(
            f"{m.name} {show_figure(m.got)} for {show_figure(m.wanted)} {m.unit}" for m in off
        )
        return (f"No ordinary motor meets all of it: {told}. Look at plate and readings again.",)

    def _assumed(self, of: dict[str, float]) -> list[Assumed]:
        facts, found = self._facts, []
        if facts.amp is None:
            found.append(Assumed("rated amps", self._amp, "A", "usual efficiency and power factor"))
        if facts.watt is None:
            found.append(
                Assumed("rated power", self._watt, "W", "usual efficiency and power factor")
            )
        for name, title in (("ohm", "main ohms"), ("aux_ohm", "start ohms")):
            if self._free[name]:
                why = "usual for this kind: no ohms were given"
                found.append(Assumed(title, of[name] * self._base, "Ω", why))
        if self._ohms and facts.hot_c is None:
            found.append(Assumed("winding at load", self._hot, "°C", "IEEE 112, class A and E"))
        if facts.locked is None and facts.letter_amps() is None:
            found.append(
                Assumed(
                    "locked amps", USUAL_LOCKED, "× rated", "5 to 8 is common; no letter, no test"
                )
            )
        found.append(
            Assumed("stator's share of leakage", STATOR_SHARE, "", "IEEE 112, NEMA design B")
        )
        if facts.no_load is None:
            found.append(
                Assumed(
                    "core loss and friction", of["drag"] * self._watt, "W", "usual; no no-load test"
                )
            )
            found.append(
                Assumed(
                    "magnetizing reactance",
                    of["magnetizing"],
                    "per unit",
                    "usual, within the plate",
                )
            )
        if self._leans:
            low, high = USUAL_START[facts.kind]
            why = "full load, usual for its kind; no test of the start winding alone"
            found.append(Assumed("starting torque about", math.sqrt(low * high), "×", why))
            if facts.turns is None:
                found.append(
                    Assumed(
                        "start winding's turns", of["turns"], "× main", "usual; no test of it alone"
                    )
                )
        return found


def _apart(got: float, wanted: float) -> float:
    """Return the logarithm of a share, straight on below a fifth, where a fit may pass nothing."""
    share = got / wanted
    return math.log(max(share, STRAIGHT)) + min(share - STRAIGHT, 0.0) / STRAIGHT
