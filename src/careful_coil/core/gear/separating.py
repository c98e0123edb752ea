"""The test that separates the likeliest causes: what each test shows of each cause, and what it costs.

Chances are a bench's experience in round numbers, not measurements. The next test is the one whose
expected information is worth most a minute (entropy; MacKay, Information Theory, ch. 2). Whether the
shaft turns by hand and the motor runs uncoupled come before any of them.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.condition.causes import Cause
from careful_coil.core.errors import BadValue

LEAST_GAIN = 0.02  # bits: a test that tells less is not asked for
Odds = Sequence[tuple[Cause, float]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Separating:
    """A test: what is done, minutes, outcomes, P(outcome | cause) where it is not the usual one.

    `powered` it runs the motor; `phases` and `brushed` say on which motors it can be made.
    """

    name: str
    title: str
    minutes: float
    outcomes: tuple[str, ...]
    usual: tuple[float, ...]
    of: Mapping[str, tuple[float, ...]]
    phases: tuple[int, ...] = (1, 3)
    brushed: bool = False
    powered: bool = False

    def chance(self, cause: str, outcome: str) -> float:
        """Return P(outcome | cause)."""
        return self.of.get(cause, self.usual)[self.outcomes.index(outcome)]


TESTS: dict[str, Separating] = {
    t.name: t
    for t in (
        Separating(
            name="capacitor",
            title="Capacitor off, discharged, proved and measured",
            minutes=4,
            outcomes=("right", "low", "open or shorted"),
            usual=(0.95, 0.04, 0.01),
            of={"start-capacitor": (0.04, 0.46, 0.5)},
            phases=(1,),
        ),
        Separating(
            name="switch-at-rest",
            title="Ohms through start switch or relay at rest",
            minutes=3,
            outcomes=("closed", "open"),
            usual=(0.97, 0.03),
            of={"switch-open": (0.06, 0.94)},
            phases=(1,),
        ),
        Separating(
            name="switch-worked",
            title="Switch mechanism worked by hand: does the contact open?",
            minutes=3,
            outcomes=("opens", "drags", "stays"),
            usual=(0.95, 0.02, 0.03),
            of={"switch-stays": (0.3, 0.1, 0.6), "switch-weak": (0.3, 0.6, 0.1)},
            phases=(1,),
        ),
        Separating(
            name="start-winding",
            title="Ohms of the start winding, past switch and capacitor",
            minutes=3,
            outcomes=("right", "open", "low"),
            usual=(0.95, 0.02, 0.03),
            of={"start-winding": (0.03, 0.95, 0.02), "turn-short": (0.6, 0.02, 0.38)},
            phases=(1,),
        ),
        Separating(
            name="windings",
            title="Ohms of the main winding, or line to line",
            minutes=2,
            outcomes=("right", "open", "uneven or low"),
            usual=(0.95, 0.02, 0.03),
            of={
                "open-winding": (0.03, 0.95, 0.02),
                "turn-short": (0.5, 0.02, 0.48),
                "wrong-hookup": (0.45, 0.15, 0.4),
                "lost-phase": (0.7, 0.28, 0.02),
            },
        ),
        Separating(
            name="insulation",
            title="Insulation tester to the frame, parts disconnected",
            minutes=5,
            outcomes=("good", "low", "to frame"),
            usual=(0.93, 0.06, 0.01),
            of={"to-frame": (0.02, 0.18, 0.8), "damp": (0.05, 0.75, 0.2)},
        ),
        Separating(
            name="coast-down",
            title="Spin it by hand, count the seconds to rest",
            minutes=1,
            outcomes=("long", "short"),
            usual=(0.95, 0.05),
            of={"bearing-worn": (0.3, 0.7), "bearing-seized": (0.02, 0.98)},
        ),
        Separating(
            name="volts-at-start",
            title="Volts at its terminals while it starts",
            minutes=5,
            outcomes=("right", "low", "one missing"),
            usual=(0.93, 0.06, 0.01),
            of={"volts": (0.08, 0.87, 0.05), "lost-phase": (0.25, 0.1, 0.65)},
            powered=True,
        ),
        Separating(
            name="arrives",
            title="Volts at the plug; ohms through cord and protector, cold",
            minutes=2,
            outcomes=("arrives", "does not"),
            usual=(0.97, 0.03),
            of={"no-supply": (0.04, 0.96), "protector": (0.7, 0.3)},
        ),
        Separating(
            name="protector",
            title="Protector: ohms cold, then amps against the plate when it opens",
            minutes=6,
            outcomes=("opens over the plate's amps", "opens below them", "open cold"),
            usual=(0.96, 0.02, 0.02),
            of={"protector": (0.12, 0.53, 0.35), "cooling": (0.4, 0.58, 0.02)},
            powered=True,
        ),
        Separating(
            name="cooled",
            title="Minutes to cool, then one start",
            minutes=8,
            outcomes=("starts", "as before"),
            usual=(0.1, 0.9),
            of={"thermistor-hot": (0.96, 0.04), "protector": (0.6, 0.4), "cooling": (0.7, 0.3)},
            powered=True,
        ),
        Separating(
            name="lets-go",
            title="One direct start: the click heard, the amps fall?",
            minutes=3,
            outcomes=("opens", "does not", "in and out"),
            usual=(0.9, 0.05, 0.05),
            of={
                "switch-stays": (0.08, 0.9, 0.02),
                "switch-weak": (0.3, 0.2, 0.5),
                "bearing-worn": (0.65, 0.1, 0.25),
                "volts": (0.5, 0.2, 0.3),
                "load": (0.55, 0.25, 0.2),
                "start-capacitor": (0.4, 0.4, 0.2),
            },
            phases=(1,),
            powered=True,
        ),
        Separating(
            name="three-amps",
            title="Amps of all three lines",
            minutes=4,
            outcomes=("equal", "one at nothing", "one off"),
            usual=(0.95, 0.01, 0.04),
            of={
                "lost-phase": (0.02, 0.95, 0.03),
                "wrong-hookup": (0.3, 0.05, 0.65),
                "turn-short": (0.25, 0.01, 0.74),
                "volts": (0.5, 0.02, 0.48),
            },
            phases=(3,),
            powered=True,
        ),
        Separating(
            name="joints",
            title="Joints as found against plate and supply",
            minutes=5,
            outcomes=("right", "other"),
            usual=(0.97, 0.03),
            of={"wrong-hookup": (0.05, 0.95), "lines-exchanged": (0.3, 0.7)},
        ),
        Separating(
            name="air",
            title="Fan, guard and air ways looked at",
            minutes=1,
            outcomes=("clear", "blocked or broken"),
            usual=(0.94, 0.06),
            of={"cooling": (0.1, 0.9)},
        ),
        Separating(
            name="amps-swing",
            title="Amps under load: steady, or swinging at slip frequency?",
            minutes=6,
            outcomes=("steady", "swinging"),
            usual=(0.95, 0.05),
            of={"rotor-bars": (0.15, 0.85)},
            powered=True,
        ),
        Separating(
            name="pulley-off",
            title="Run uncoupled, pulley off",
            minutes=5,
            outcomes=("quiet", "as before"),
            usual=(0.3, 0.7),
            of={"loose": (0.75, 0.25), "load": (0.9, 0.1), "bearing-worn": (0.1, 0.9)},
            powered=True,
        ),
        Separating(
            name="brushes",
            title="Brush length, spring, free fall in the holder",
            minutes=3,
            outcomes=("right", "short, stuck or weak"),
            usual=(0.93, 0.07),
            of={"brushes": (0.08, 0.92)},
            brushed=True,
        ),
        Separating(
            name="bar-to-bar",
            title="Bar to bar round the commutator",
            minutes=15,
            outcomes=("even", "odd bars"),
            usual=(0.96, 0.04),
            of={"armature": (0.08, 0.92)},
            brushed=True,
        ),
    )
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Ask:
    """A test worth making: how many bits it tells, what each outcome would make the likeliest cause."""

    test: Separating
    bits: float
    would: tuple[tuple[str, float, Cause], ...]  # outcome, how likely, likeliest cause then


def weigh_with_tests(odds: Odds, results: Mapping[str, str]) -> tuple[tuple[Cause, float], ...]:
    """Return causes by odds after test results, name to outcome. Raises: BadValue for one that is none."""
    weights = []
    for cause, chance in odds:
        weight = chance
        for name, outcome in results.items():
            weight *= _of(name, outcome).chance(cause.name, outcome)
        weights.append((cause, weight))
    whole = sum(w for _, w in weights) or 1.0
    return tuple(sorted(((c, w / whole) for c, w in weights), key=lambda x: -x[1]))


def _of(name: str, outcome: str) -> Separating:
    if name not in TESTS:
        raise BadValue(name, ", ".join(TESTS), "No such test.")
    if outcome not in TESTS[name].outcomes:
        raise BadValue(outcome, " or ".join(TESTS[name].outcomes), f"{TESTS[name].title}.")
    return TESTS[name]


def worth_testing(
    odds: Odds, done: Iterable[str], phases: int | None, brushed: bool = False
) -> tuple[Ask, ...]:
    """Return the tests still worth making, best first: bits a minute.

    `phases` None while it is not known; `brushed` whether it has brushes.
    """
    made = set(done)
    found = []
    for test in TESTS.values():
        if test.name in made or (phases is not None and phases not in test.phases):
            continue
        if test.brushed and not brushed:
            continue
        ask = _ask(test, odds)
        if ask.bits >= LEAST_GAIN:
            found.append(ask)
    return tuple(sorted(found, key=lambda a: -a.bits / a.test.minutes))


def _ask(test: Separating, odds: Odds) -> Ask:
    gain, would = _entropy([p for _, p in odds]), []
    for outcome in test.outcomes:
        joint = [(c, p * test.chance(c.name, outcome)) for c, p in odds]
        chance = sum(p for _, p in joint)
        if chance > 0:
            gain -= chance * _entropy([p / chance for _, p in joint])
            would.append((outcome, chance, max(joint, key=lambda x: x[1])[0]))
    return Ask(test=test, bits=gain, would=tuple(would))


def _entropy(chances: Sequence[float]) -> float:
    return -sum(p * math.log2(p) for p in chances if p > 0)
