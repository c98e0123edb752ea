"""A hookup as made: what was joined to what, on what motor, for which supply."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from careful_coil.core.connect.plans import Plate
from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import State
from careful_coil.core.ways.way import Joint, Ohms, Plan, line_ohms, made
from careful_coil.core.winding.arrangements import Arrangement, arrangement
from careful_coil.core.winding.coupling import fields
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.speed import slip_of
from careful_coil.core.winding.steady import Steady, Supply, solve

NOTHING = 1e-9  # of the largest: no current, no field
RUN_SLIP = 0.03  # where no rpm is known


@dataclass(frozen=True, slots=True, kw_only=True)
class Supplied:
    """What it is to run on: phases 1 or 3, V between lines, Hz."""

    phases: int
    volt: float
    hertz: float = 60.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Hookup:
    """Joints of lead, line and terminal names on a motor of an arrangement.

    `coil_ohm` one figure, or by coil name, in Ω; `family` wye or delta where both can be;
    `rpm` rated.
    """

    arrangement: str
    joints: tuple[Joint, ...]
    plate: Plate
    supply: Supplied
    variant: str = ""
    coil_ohm: Ohms = 1.0
    family: str = ""
    rpm: float | None = None
    devices: tuple[Device, ...] = ()
    neutral: bool = False  # L2 is a neutral

    @property
    def known(self) -> Arrangement:
        """Return its arrangement. Raises: NotKnownYet."""
        return arrangement(self.arrangement)

    def inside(self) -> Network:
        """Return the winding without joints. Raises: NotKnownYet."""
        return self.known.inside(self.variant)

    def bare(self) -> Network:
        """Return the winding with its joints alone, no device doing anything."""
        return self.inside().joined(self.joints)

    def lines(self) -> tuple[str, ...]:
        """Return the lines this supply has, N being a second name of L2."""
        return ("L1", "L2", "L3") if self.supply.phases == 3 else ("L1", "L2", "N")

    def live_lines(self) -> tuple[str, ...]:
        """Return the lines readings are taken between: N only where it is used beside L2."""
        used = {n for j in self.joints for n in j}
        return tuple(n for n in self.lines() if n != "N" or {"N", "L2"} <= used)

    def run_slip(self) -> float:
        """Return the slip at rated rpm, or a usual one."""
        if not self.rpm or self.rpm >= 60 * self.plate.hertz:
            return RUN_SLIP
        found = slip_of(self.plate.hertz, self.rpm)
        return found if 0 < found < 0.5 else RUN_SLIP

    def device(self, name: str) -> Device:
        """Return a device by name."""
        return next(d for d in self.devices if d.name == name)

    @property
    def commutator(self) -> bool:
        """Whether the rotor is wound and fed by brushes, not a cage."""
        return any(c.like == "armature" for c in self.inside().coils)

    def of_plan(self, plan: Plan) -> "Hookup":
        """Return the same motor and supply joined as a plan."""
        return replace(self, joints=plan.joints, devices=plan.devices, variant=plan.variant)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Answer:
    """What a hookup does in one state: line ohms Ω, coil volts V, line amps A, fields at one slip.

    `turn` 1 forward, -1 backward, 0 neither, for the working field; `steady` everything else,
    `network` what was solved.
    """

    line_ohm: dict[str, float]
    coil_volt: dict[str, float]
    coil_amp: dict[str, complex]
    line_amp: dict[str, float]
    forward: float
    backward: float
    turn: int
    steady: Steady
    network: Network

    @property
    def shorted(self) -> tuple[str, ...]:
        """Return the lines that are joined to each other."""
        return self.steady.shorted


def answer(
    hookup: Hookup, state: State | Moment = "start", slip: float = 1.0, field: int = 0
) -> Answer:
    """Return what a hookup does in a state, or the first of a moment, at a slip of the field `field`."""
    inside = hookup.inside()
    network = made(inside, hookup.joints, hookup.devices, hookup.coil_ohm, state)
    volt = Supply.of(
        hookup.supply.phases, hookup.supply.volt, hookup.supply.hertz, hookup.plate.hertz
    )
    found = solve(
        network,
        volt,
        _first_field_slip(network, hookup, slip, field),
        default_rotor(network, caged=not hookup.commutator),
        hookup.known.halves,
    )
    names = [c.name for c in inside.coils]
    ahead, behind = (float(abs(f[0, field])) for f in (found.forward, found.backward))
    amp = {name: complex(a) for name, a in zip(names, found.coil_amp[0], strict=True)}
    turn = _series_turn(network, amp)
    if turn is None:
        apart = ahead - behind
        turn = (
            0 if abs(apart) <= 1e-6 * max(ahead, behind, NOTHING) else int(math.copysign(1, apart))
        )
    return Answer(
        line_ohm=line_ohms(network, hookup.live_lines()),
        coil_volt={n: float(abs(v)) for n, v in zip(names, found.coil_volt[0], strict=True)},
        coil_amp=amp,
        line_amp={n: float(abs(a[0])) for n, a in found.line_amp.items()},
        forward=ahead,
        backward=behind,
        turn=turn,
        steady=found,
        network=network,
    )


def start_and_run(
    hookup: Hookup,
    field: int = 0,
    states: tuple[State | Moment, State | Moment] = ("start", "run"),
) -> tuple[Answer, Answer]:
    """Return what a hookup does at standstill, and running the way it then turns."""
    start = answer(hookup, states[0], 1.0, field)
    slip = hookup.run_slip()
    return start, answer(hookup, states[1], 2 - slip if start.turn < 0 else slip, field)


def _first_field_slip(network: Network, hookup: Hookup, slip: float, field: int) -> float:
    """Return the slip of the first field when that of `field` is `slip`."""
    if field == 0:
        return slip
    poles = fields(network.coils, hookup.known.halves).poles
    return float(1 - (1 - slip) / poles[field])


def _series_turn(network: Network, amp: Mapping[str, complex]) -> int | None:
    """Return the direction of a commutator motor: field current times armature current."""
    armature = [c for c in network.coils if c.like == "armature"]
    if not armature:
        return None
    brush = amp[armature[0].name]
    pull = sum(
        (amp[c.name] * brush.conjugate()).real * c.turns
        for c in network.coils
        if c.like != "armature"
    )
    largest: float = max(abs(a) for a in amp.values()) ** 2
    return 0 if abs(pull) <= NOTHING * max(largest, NOTHING) else int(math.copysign(1, pull))
