"""Causes of a complaint as data: how common each is, what it shows, what would tell it from the rest.

The figures are a bench's experience in round numbers, not measurements.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from careful_coil.core.condition.symptoms import USUAL_WHEN


@dataclass(frozen=True, slots=True, kw_only=True)
class Cause:
    """A cause: prior weight, which phases it can have, P(symptom | cause), what tells it.

    `hand` and `run` P(answer | cause) for the first question, in the order of their answers; `when`
    P(when it happens | cause), in the order of WHEN.
    """

    name: str
    title: str
    prior: float
    shows: Mapping[str, float]
    test: str
    phases: tuple[int, ...] = (1, 3)
    brushed: bool = False
    hand: tuple[float, float, float] = (0.939, 0.06, 0.001)
    run: tuple[float, float, float] = (0.15, 0.45, 0.4)
    when: tuple[float, ...] = USUAL_WHEN


_STANDS = (0.02, 0.08, 0.9)
_RUNS = (0.9, 0.09, 0.01)

CAUSES: dict[str, Cause] = {
    c.name: c
    for c in (
        Cause(
            name="load",
            title="The driven machine is stuck or overloads it",
            prior=0.14,
            shows={
                "hums": 0.6,
                "trips-later": 0.5,
                "hot": 0.4,
                "slow": 0.3,
                "weak": 0.3,
                "smells": 0.2,
                "cycles": 0.3,
            },
            test="Uncouple it: it turns by hand and runs well.",
            run=_RUNS,
            when=(0.35, 0.1, 0.1, 0.43, 0.02),
        ),
        Cause(
            name="bearing-seized",
            title="Bearing seized or rotor rubs",
            prior=0.07,
            shows={
                "hums": 0.8,
                "trips-later": 0.6,
                "hot": 0.5,
                "noisy": 0.5,
                "smells": 0.4,
                "cycles": 0.3,
            },
            test="Turn the shaft by hand, load off.",
            hand=(0.02, 0.28, 0.7),
            run=(0.03, 0.27, 0.7),
            when=(0.7, 0.1, 0.15, 0.04, 0.01),
        ),
        Cause(
            name="bearing-worn",
            title="Bearing dry or worn",
            prior=0.12,
            shows={
                "noisy": 0.8,
                "slow": 0.3,
                "hot": 0.4,
                "vibrates": 0.4,
                "clicks": 0.2,
                "trips-later": 0.2,
                "slow-taps": 0.5,
            },
            test="Feel for roughness and play; listen as it runs down.",
            hand=(0.35, 0.6, 0.05),
            run=(0.3, 0.65, 0.05),
            when=(0.4, 0.25, 0.15, 0.18, 0.02),
        ),
        Cause(
            name="start-capacitor",
            title="Start or run capacitor open or weak",
            prior=0.16,
            shows={
                "hums": 0.85,
                "starts-pushed": 0.8,
                "trips-later": 0.5,
                "weak": 0.3,
                "slow": 0.3,
                "hot": 0.3,
                "no-restart": 0.3,
                "cycles": 0.3,
            },
            test="Discharge it, then measure its µF against the can.",
            phases=(1,),
            run=_STANDS,
            when=(0.7, 0.15, 0.05, 0.07, 0.03),
        ),
        Cause(
            name="switch-open",
            title="Start switch or relay does not close",
            prior=0.12,
            shows={
                "hums": 0.85,
                "starts-pushed": 0.85,
                "trips-later": 0.5,
                "clicks": 0.15,
                "no-restart": 0.3,
                "cycles": 0.3,
            },
            test="Ohms through the switch at rest; look at contacts and weights.",
            phases=(1,),
            run=_STANDS,
            when=(0.7, 0.1, 0.15, 0.03, 0.02),
        ),
        Cause(
            name="switch-stays",
            title="Start switch or relay does not open",
            prior=0.06,
            shows={"noisy": 0.5, "hot": 0.7, "smells": 0.6, "trips-later": 0.7, "slow": 0.2},
            test="Listen for the click as it runs up; watch the amps fall.",
            phases=(1,),
            run=(0.1, 0.85, 0.05),
            when=(0.7, 0.1, 0.1, 0.05, 0.05),
        ),
        Cause(
            name="switch-weak",
            title="Start switch or relay sticks, weak spring, or set for another speed",
            prior=0.05,
            shows={
                "clicks": 0.6,
                "slow": 0.3,
                "hot": 0.4,
                "noisy": 0.4,
                "trips-later": 0.4,
                "hums": 0.15,
                "no-restart": 0.3,
            },
            test="Work the mechanism by hand: it must go over with a snap and come back by itself.",
            phases=(1,),
            run=(0.3, 0.65, 0.05),
            when=(0.4, 0.1, 0.15, 0.2, 0.15),
        ),
        Cause(
            name="thermistor-hot",
            title="Start thermistor still hot",
            prior=0.02,
            shows={"hums": 0.6, "no-restart": 0.9, "starts-pushed": 0.4, "trips-later": 0.3},
            test="Let it cool some minutes, then one start.",
            phases=(1,),
            run=(0.5, 0.1, 0.4),
            when=(0.1, 0.02, 0.85, 0.02, 0.01),
        ),
        Cause(
            name="protector",
            title="Thermal protector weak, or open",
            prior=0.05,
            shows={"trips-later": 0.8, "cycles": 0.6, "dead": 0.3, "no-restart": 0.3},
            test="Ohms through it, cold; amps against the plate when it opens.",
            run=(0.6, 0.15, 0.25),
            when=(0.25, 0.02, 0.65, 0.07, 0.01),
        ),
        Cause(
            name="start-winding",
            title="Start winding open",
            prior=0.05,
            shows={
                "hums": 0.85,
                "starts-pushed": 0.85,
                "smells": 0.3,
                "trips-later": 0.4,
                "no-restart": 0.3,
                "cycles": 0.3,
            },
            test="Ohms of the start winding past switch and capacitor.",
            phases=(1,),
            run=_STANDS,
            when=(0.85, 0.04, 0.08, 0.02, 0.01),
        ),
        Cause(
            name="turn-short",
            title="Shorted turns in a winding",
            prior=0.08,
            shows={
                "hot": 0.7,
                "smells": 0.7,
                "trips-at-once": 0.3,
                "trips-later": 0.5,
                "noisy": 0.4,
                "hums": 0.3,
                "weak": 0.3,
            },
            test="Balance of the coils; amps at low volts without load.",
            run=(0.05, 0.7, 0.25),
            when=(0.55, 0.03, 0.32, 0.08, 0.02),
        ),
        Cause(
            name="to-frame",
            title="Winding to frame",
            prior=0.07,
            shows={"trips-at-once": 0.8, "shock": 0.6, "smells": 0.3, "wet": 0.3},
            test="Insulation tester to the frame, parts disconnected.",
            run=(0.1, 0.2, 0.7),
            when=(0.6, 0.05, 0.3, 0.03, 0.02),
        ),
        Cause(
            name="damp",
            title="Damp winding",
            prior=0.05,
            shows={"wet": 0.75, "shock": 0.5, "trips-at-once": 0.4},
            test="Insulation over the minutes: it does not climb.",
            run=(0.5, 0.2, 0.3),
            when=(0.55, 0.4, 0.02, 0.02, 0.01),
        ),
        Cause(
            name="lost-phase",
            title="A phase is lost: fuse, contactor, cable or a joint",
            prior=0.15,
            shows={
                "hums": 0.8,
                "starts-pushed": 0.4,
                "trips-later": 0.6,
                "hot": 0.5,
                "smells": 0.4,
                "noisy": 0.4,
                "weak": 0.4,
                "no-restart": 0.7,
            },
            test="Volts between all lines at the motor's terminals while it is switched on; ohms line to line.",
            phases=(3,),
            run=(0.02, 0.28, 0.7),
        ),
        Cause(
            name="wrong-hookup",
            title="Joined wrong, or for other volts",
            prior=0.08,
            shows={
                "hot": 0.6,
                "slow": 0.4,
                "weak": 0.6,
                "hums": 0.4,
                "noisy": 0.5,
                "trips-at-once": 0.35,
                "trips-later": 0.5,
                "slow-taps": 0.5,
            },
            test="Joints as found against plate and supply; line ohms.",
            run=(0.15, 0.55, 0.3),
            when=(0.7, 0.03, 0.05, 0.2, 0.02),
        ),
        Cause(
            name="lines-exchanged",
            title="Two lines (or the start winding's ends) exchanged",
            prior=0.04,
            shows={"reversed": 0.97},
            test="Direction from a named end against what the machine wants.",
            run=_RUNS,
            when=(0.96, 0.01, 0.01, 0.01, 0.01),
        ),
        Cause(
            name="volts",
            title="Low or unbalanced volts at the motor",
            prior=0.07,
            shows={
                "slow": 0.6,
                "weak": 0.6,
                "hums": 0.4,
                "hot": 0.6,
                "trips-later": 0.4,
                "clicks": 0.2,
                "slow-taps": 0.4,
            },
            test="Volts at its terminals while it starts.",
            run=(0.45, 0.4, 0.15),
            when=(0.3, 0.06, 0.04, 0.2, 0.4),
        ),
        Cause(
            name="rotor-bars",
            title="Broken rotor bars",
            prior=0.03,
            shows={"slow": 0.6, "weak": 0.7, "vibrates": 0.5, "noisy": 0.5},
            test="Amps swing at slip frequency under load.",
            run=(0.4, 0.55, 0.05),
            when=(0.3, 0.05, 0.1, 0.53, 0.02),
        ),
        Cause(
            name="cooling",
            title="Fan, guard or air ways",
            prior=0.05,
            shows={"hot": 0.9, "trips-later": 0.6, "smells": 0.2},
            test="Look and feel for air; clean it.",
            run=(0.75, 0.24, 0.01),
            when=(0.25, 0.01, 0.5, 0.23, 0.01),
        ),
        Cause(
            name="no-supply",
            title="Nothing arrives: cord, plug, fuse, protector open",
            prior=0.1,
            shows={"dead": 0.95, "clicks": 0.1},
            test="Volts at the plug; ohms through cord and protector, cold.",
            run=(0.02, 0.03, 0.95),
            when=(0.85, 0.04, 0.07, 0.02, 0.02),
        ),
        Cause(
            name="open-winding",
            title="Main winding or a joint open",
            prior=0.06,
            shows={"dead": 0.75, "smells": 0.2, "hums": 0.15, "cycles": 0.2},
            test="Ohms between the leads.",
            run=(0.02, 0.08, 0.9),
        ),
        Cause(
            name="brushes",
            title="Brushes worn, stuck or sprung weakly",
            prior=0.2,
            shows={"sparks": 0.75, "dead": 0.4, "weak": 0.5, "slow": 0.3, "clicks": 0.2},
            test="Length, spring, free fall in the holder.",
            brushed=True,
            run=(0.1, 0.6, 0.3),
        ),
        Cause(
            name="armature",
            title="Armature coil open or shorted",
            prior=0.1,
            shows={"sparks": 0.9, "hot": 0.5, "smells": 0.5, "weak": 0.6, "slow": 0.4},
            test="Bar to bar round the commutator.",
            brushed=True,
            run=(0.05, 0.8, 0.15),
            when=(0.45, 0.03, 0.22, 0.28, 0.02),
        ),
        Cause(
            name="loose",
            title="Loose fan, pulley, mounting or bent shaft",
            prior=0.05,
            shows={"vibrates": 0.85, "noisy": 0.7},
            test="Run it uncoupled, pulley off; feel the shaft with a pointer.",
            run=(0.35, 0.63, 0.02),
        ),
    )
}
