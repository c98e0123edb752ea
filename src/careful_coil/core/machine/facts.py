"""What a shop knows of a motor before it is taken for a machine: plate, ohms, readings; and usual figures."""

from dataclasses import dataclass
from typing import Literal

from careful_coil.core.errors import BadDocument
from careful_coil.core.machine.power import CODE_LETTERS, locked_rotor_amps, volt_amperes
from careful_coil.core.units import HORSEPOWER_W
from careful_coil.core.ways.way import Ohms
from careful_coil.core.winding.speed import poles_of, slip_of

Kind = Literal["three-phase", "split-phase", "capacitor-start", "capacitor-start-run", "psc"]
USUAL_LOCKED = 6.0  # times rated amps; 5 to 8 is common (trade practice)
LARGEST_SLIP = 0.5


@dataclass(frozen=True, slots=True)
class Metered:
    """A reading at known volts: line V, line A, total W; W may be missing."""

    volt: float
    amp: float
    watt: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Facts:
    """What is known. `watt` is at the shaft; `coil_ohm` in Ω at `coil_c` °C, by name or one for all.

    `no_load` at rated hertz without load; `locked` rotor held, start devices in; `locked_main` and
    `locked_aux` one winding alone, rotor held, straight on the supply of the reading. `hot_c` the
    winding's temperature at rated load; `turns` the start winding's effective turns over the main's, where
    somebody counted them.
    """

    kind: Kind
    volt: float
    hertz: float
    rpm: float
    amp: float | None = None
    watt: float | None = None
    letter: str = ""
    coil_ohm: Ohms | None = None
    coil_c: float = 25.0
    hot_c: float | None = None
    no_load: Metered | None = None
    locked: Metered | None = None
    locked_main: Metered | None = None
    locked_aux: Metered | None = None
    turns: float | None = None

    @property
    def phases(self) -> int:
        """Return 1 or 3."""
        return 3 if self.kind == "three-phase" else 1

    @property
    def poles(self) -> int:
        """Return the poles the rated speed tells."""
        return poles_of(self.hertz, self.rpm)

    @property
    def slip(self) -> float:
        """Return the rated slip, of 1."""
        return slip_of(self.hertz, self.rpm)

    def letter_amps(self) -> tuple[float, float] | None:
        """Return the band of locked amps its code letter tells, None without letter or power."""
        if not self.letter or self.watt is None:
            return None
        low, high = locked_rotor_amps(
            self.letter, self.watt / float(HORSEPOWER_W), self.volt, self.phases
        )
        if high == float("inf"):
            high = 1.25 * low
        return max(low, 0.9 * high), high


def check_facts(facts: Facts) -> None:
    """Refuse facts no machine can be made of. Raises: BadDocument, ValueOutOfRange for the speed."""
    for name in ("volt", "hertz", "rpm"):
        if not getattr(facts, name) > 0:
            raise BadDocument(name, f"{getattr(facts, name):g}", "a figure above nothing")
    for name in ("amp", "watt"):
        value = getattr(facts, name)
        if value is not None and not value > 0:
            raise BadDocument(name, f"{value:g}", "a figure above nothing")
    if facts.amp is None and facts.watt is None:
        raise BadDocument(
            "plate", "neither amps nor power", "rated amps, power at the shaft, or both"
        )
    if not 0 < facts.slip < LARGEST_SLIP:
        raise BadDocument(
            "rpm",
            f"{facts.rpm:g} rpm, slip {facts.slip:.1%}",
            f"a rated speed below n_sync of {120 * facts.hertz / facts.poles:g} rpm: an induction motor slips",
        )
    if facts.turns is not None and not 0.05 < facts.turns < 20:
        raise BadDocument("turns", f"{facts.turns:g}", "start over main, 0.05 to 20")
    if facts.letter and facts.letter.strip().upper() not in CODE_LETTERS:
        raise BadDocument("letter", facts.letter, "a code letter A to V, without I, O and Q")
    if facts.amp is not None and facts.watt is not None:
        share = facts.watt / volt_amperes(facts.volt, facts.amp, facts.phases)
        if share >= 1:
            raise BadDocument(
                "plate",
                f"{facts.watt:g} W at the shaft of {share:.0%} of its volt-amperes",
                "power below volts times amps: look at unit, volts and amps again",
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class UsualMachine:
    """Usual figures per unit of rated volts over amps, with their spread as a factor.

    `ohm` a main phase's, `leakage` stator and rotor together, `rotor` r₂, `magnetizing` x_m, `drag` core
    loss, friction and windage over shaft power, `turns` start over main.
    """

    ohm: float
    leakage: float
    rotor: float
    magnetizing: float
    drag: float
    turns: float = 1.0


# three-phase: usual per-unit figures of machines up to some tens of kW (Fitzgerald, Kingsley and Umans,
# ch. 6); single-phase: from worked fractional-horsepower motors (the same, ch. 9; Veinott 1959);
# turns by kind: Veinott 1959, split phase below 1, capacitor motors 1 to 1.7
USUAL: dict[Kind, UsualMachine] = {
    "three-phase": UsualMachine(ohm=0.03, leakage=0.18, rotor=0.03, magnetizing=2.2, drag=0.03),
    "split-phase": UsualMachine(
        ohm=0.07, leakage=0.17, rotor=0.12, magnetizing=2.2, drag=0.12, turns=0.8
    ),
    "capacitor-start": UsualMachine(
        ohm=0.06, leakage=0.16, rotor=0.11, magnetizing=2.2, drag=0.10, turns=1.2
    ),
    "capacitor-start-run": UsualMachine(
        ohm=0.05, leakage=0.15, rotor=0.10, magnetizing=2.0, drag=0.06, turns=1.3
    ),
    "psc": UsualMachine(ohm=0.07, leakage=0.16, rotor=0.11, magnetizing=2.0, drag=0.08, turns=1.4),
}
# starting torque over full-load torque, low and high (trade practice)
USUAL_START: dict[Kind, tuple[float, float]] = {
    "split-phase": (1.0, 1.75),
    "psc": (0.4, 1.0),
    "capacitor-start": (2.0, 4.0),
    "capacitor-start-run": (2.0, 4.0),
}
STATOR_SHARE = 0.4  # of the leakage: NEMA design B (IEEE 112, ratio X1/X2 of 0.67)
USUAL_HOT_C = 75.0  # running temperature where none is known (IEEE 112, class A and E)
USUAL_SHAFT_SHARE: dict[Kind, float] = {  # shaft power over volt-amperes at rated load: usual
    "three-phase": 0.65,
    "split-phase": 0.40,
    "capacitor-start": 0.42,
    "capacitor-start-run": 0.62,
    "psc": 0.60,
}
