"""Kinds of motors and what each means at the bench.

Starting torque is in multiples of full-load torque (tables with the shaded pole as 100 % exist).
"""

from dataclasses import dataclass
from typing import Literal

KindName = Literal[
    "shaded-pole",
    "split-phase",
    "capacitor-start",
    "permanent-capacitor",
    "capacitor-start-run",
    "universal",
    "dc-magnet",
    "dc-wound",
    "repulsion-start",
    "three-phase",
    "three-phase-magnet",
    "wound-rotor",
    "synchronous",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Kind:
    """A kind: its plain name, how common it is in a shop, and what it means.

    `torque` (low, high) starting torque over full-load torque, None where it depends on the control;
    `phases` of the supply it wants, 0 direct current or either.
    """

    name: KindName
    title: str
    prior: float
    phases: int
    speed: str
    slowing: str
    torque: tuple[float, float] | None
    uses: str
    never: str


_LINE = "follows hertz and poles, not volts"
_NO_SLOW = "cannot be slowed: below its switch speed the start winding cuts in again and burns"

KINDS: dict[str, Kind] = {
    k.name: k
    for k in (
        Kind(
            name="shaded-pole",
            title="Shaded pole",
            prior=0.08,
            phases=1,
            speed=_LINE,
            slowing="by taps or lower volts, with a fan as load",
            torque=(0.4, 0.6),
            uses="small fans",
            never="Its direction is built in: leads do not change it.",
        ),
        Kind(
            name="split-phase",
            title="Split phase",
            prior=0.12,
            phases=1,
            speed=_LINE,
            slowing=_NO_SLOW,
            torque=(1.0, 1.75),
            uses="fans, saws",
            never="Never hold it on the line while it does not turn: the start winding burns in seconds.",
        ),
        Kind(
            name="capacitor-start",
            title="Capacitor start",
            prior=0.18,
            phases=1,
            speed=_LINE,
            slowing=_NO_SLOW,
            torque=(2.0, 4.0),
            uses="compressors, pumps, belts",
            never="Never ramp it up slowly, and never leave the start capacitor in.",
        ),
        Kind(
            name="permanent-capacitor",
            title="Permanent split capacitor",
            prior=0.13,
            phases=1,
            speed=_LINE,
            slowing="by taps or volts, with a fan as load",
            torque=(0.4, 1.0),
            uses="fans, blowers",
            never="Never put line volts between two speed taps.",
        ),
        Kind(
            name="capacitor-start-run",
            title="Capacitor start, capacitor run",
            prior=0.07,
            phases=1,
            speed=_LINE,
            slowing=_NO_SLOW,
            torque=(2.0, 4.0),
            uses="compressors, pumps above about 1 kW",
            never="Never ramp it up slowly, and never leave the start capacitor in.",
        ),
        Kind(
            name="universal",
            title="Universal (series)",
            prior=0.08,
            phases=1,
            speed="follows volts and load; runs on alternating and direct current",
            slowing="by volts",
            torque=None,
            uses="tools, household machines",
            never="Never run it unloaded at full volts: it flies apart.",
        ),
        Kind(
            name="dc-magnet",
            title="Direct current, magnets",
            prior=0.04,
            phases=0,
            speed="follows volts",
            slowing="by volts",
            torque=None,
            uses="treadmills, small drives",
            never="Never put it on alternating current.",
        ),
        Kind(
            name="dc-wound",
            title="Direct current, wound field",
            prior=0.03,
            phases=0,
            speed="follows armature volts; a weaker field makes it faster",
            slowing="by armature volts",
            torque=None,
            uses="hoists, old drives",
            never="Never open the field of a shunt motor while it runs: it runs away.",
        ),
        Kind(
            name="repulsion-start",
            title="Repulsion start",
            prior=0.01,
            phases=1,
            speed=_LINE,
            slowing="cannot be slowed",
            torque=(3.0, 5.0),
            uses="old compressors",
            never="Its brushes carry no line: never feed them.",
        ),
        Kind(
            name="three-phase",
            title="Three-phase induction",
            prior=0.22,
            phases=3,
            speed=_LINE,
            slowing="by a drive",
            torque=(1.0, 2.5),
            uses="everything from pumps to saws",
            never="Never run it on two lines: it hums, and once turned it runs overloaded.",
        ),
        Kind(
            name="three-phase-magnet",
            title="Three-phase, magnets in the rotor",
            prior=0.02,
            phases=3,
            speed="follows the drive's hertz exactly",
            slowing="by its drive",
            torque=None,
            uses="servo and fan drives",
            never="Never straight on the line; turned by hand it makes volts.",
        ),
        Kind(
            name="wound-rotor",
            title="Wound rotor, slip rings",
            prior=0.01,
            phases=3,
            speed=_LINE + "; resistance in the rotor slows it",
            slowing="by rotor resistance or a drive",
            torque=(1.5, 2.5),
            uses="cranes, mills",
            never="Never start it with its rings shorted.",
        ),
        Kind(
            name="synchronous",
            title="Synchronous or reluctance",
            prior=0.01,
            phases=3,
            speed="exactly hertz and poles",
            slowing="by a drive",
            torque=None,
            uses="clocks, textile drives, large compressors",
            never="Never excite it before it is near speed.",
        ),
    )
}


def on_this_supply(kind: Kind, phases: int) -> str:
    """Return whether a kind can run on a supply of 1 or 3 phases, and what is needed if not."""
    if kind.phases == 0:
        return "Needs direct current: a rectifier of its rated volts."
    if kind.phases == phases:
        return (
            "Runs on this supply." if kind.name != "three-phase-magnet" else "Needs its own drive."
        )
    if kind.phases == 3:
        return "Needs three phases: a drive makes them of one."
    return "On two lines, or on line and neutral, whichever have its rated volts."
