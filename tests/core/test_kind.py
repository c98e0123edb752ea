"""Kinds of motors from their signs: a table of made-up motors, traps among them."""

import itertools
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue
from careful_coil.core.kind import KINDS, SIGNS, on_this_supply, weigh_kinds

OPENS, NONE = "opens at speed", "none"
SLOTS, POLES, SOLID = "winding in slots", "coils on laminated poles", "coils on solid poles"
SMALL, MIDDLE, LARGE = "under 100 W", "100 W to 1 kW", "above 1 kW"
GONE = "none or gone"
UVW, UZ, T9 = "U V W", "U and Z, or U and V without W", "T1 to T9 or T12"

# the motor, its kind, its signs as name=answer
MOTORS: dict[str, tuple[str, dict[str, str]]] = {
    "bathroom fan": (
        "shaded-pole",
        {"shading-rings": "yes", "cage": "yes", "leads": "2", "size": SMALL},
    ),
    "display fridge fan": (
        "shaded-pole",
        {"stator": POLES, "brushes": "no", "size": SMALL, "leads": "2"},
    ),
    "oven fan": ("shaded-pole", {"shading-rings": "yes", "plate-phases": "1 phase", "marks": GONE}),
    "bandsaw": (
        "split-phase",
        {"speed-switch": OPENS, "capacitors": NONE, "thick-and-thin": "yes", "size": MIDDLE},
    ),
    "grinder": (
        "split-phase",
        {"capacitors": NONE, "speed-switch": OPENS, "plate-phases": "1 phase"},
    ),
    "furnace blower": (
        "split-phase",
        {"thick-and-thin": "yes", "capacitors": NONE, "leads": "4", "size": MIDDLE},
    ),
    "dough mixer": (
        "capacitor-start",
        {"capacitors": "one", "speed-switch": OPENS, "size": MIDDLE},
    ),
    "compressor": (
        "capacitor-start",
        {"capacitors": "one", "speed-switch": OPENS, "thick-and-thin": "yes"},
    ),
    "well pump": (
        "capacitor-start",
        {"speed-switch": OPENS, "capacitors": "one", "plate-phases": "1 phase"},
    ),
    "glasshouse fan": (
        "permanent-capacitor",
        {"capacitors": "one", "speed-switch": NONE, "plate-capacitor": "yes", "start-device": "no"},
    ),
    "gate drive": (
        "permanent-capacitor",
        {"equal-windings": "yes", "capacitors": "one", "leads": "3"},
    ),
    "fan with taps": (
        "permanent-capacitor",
        {"leads": "5", "capacitors": "one", "speed-switch": NONE, "brushes": "no"},
    ),
    "hidden can": (
        "permanent-capacitor",
        {
            "plate-capacitor": "yes",
            "speed-switch": NONE,
            "leads": "3",
            "capacitor-terminals": "yes",
            "start-device": "no",
        },
    ),
    "log splitter": ("capacitor-start-run", {"capacitors": "two", "size": LARGE}),
    "car-wash pump": (
        "capacitor-start-run",
        {"capacitors": "two", "plate-capacitor": "yes", "leads": "6"},
    ),
    "air compressor": (
        "capacitor-start-run",
        {"capacitors": "two", "speed-switch": OPENS, "plate-phases": "1 phase"},
    ),
    "washer drum": ("universal", {"brushes": "yes", "tachometer": "yes", "stator": POLES}),
    "router": (
        "universal",
        {"brushes": "yes", "faster-than-two-poles": "yes", "varies-with-shaft": "yes"},
    ),
    "mixer, kitchen": (
        "universal",
        {"varies-with-shaft": "yes", "plate-phases": "AC and DC", "stator": POLES},
    ),
    "treadmill": ("dc-magnet", {"brushes": "yes", "stator": "magnets", "leads": "2"}),
    "scooter": (
        "dc-magnet",
        {"brushes": "yes", "cogs": "yes", "plate-phases": "direct current", "leads": "2"},
    ),
    "lathe, old": (
        "dc-wound",
        {"brushes": "yes", "high-ohm-field": "yes", "plate-phases": "direct current"},
    ),
    "hoist": ("dc-wound", {"brushes": "yes", "stator": SOLID, "marks": "A and F, S, D or E"}),
    "farm compressor": (
        "repulsion-start",
        {"brushes": "yes", "brushes-shorted": "yes", "stator": SLOTS},
    ),
    "school lathe": ("three-phase", {"three-equal": "yes", "capacitors": NONE, "cage": "yes"}),
    "theatre fan": ("three-phase", {"leads": "9", "marks": T9, "plate-phases": "3 phases"}),
    "mill pump": ("three-phase", {"leads": "12", "cage": "yes", "size": LARGE}),
    "six and U V W": (
        "three-phase",
        {"leads": "6", "marks": UVW, "slip-rings": NONE, "cage": "yes"},
    ),
    "washer, drive-fed": (
        "three-phase",
        {"three-equal": "yes", "cage": "yes", "cogs": "no", "brushes": "no"},
    ),
    "servo": ("three-phase-magnet", {"three-equal": "yes", "cogs": "yes", "leads": "3"}),
    "fan drive": ("three-phase-magnet", {"cogs": "yes", "plate-phases": "3 phases", "cage": "no"}),
    "crane": ("wound-rotor", {"slip-rings": "three", "leads": "6", "size": LARGE}),
    "saw mill": (
        "wound-rotor",
        {"slip-rings": "three", "plate-phases": "3 phases", "brushes": "no"},
    ),
    "textile drive": (
        "synchronous",
        {"no-slip": "yes", "slip-rings": "two", "plate-phases": "3 phases"},
    ),
    "record player": ("synchronous", {"no-slip": "yes", "cage": "no", "slip-rings": "two"}),
}


@pytest.mark.parametrize("name", sorted(MOTORS))
def test_each_motor_is_told_by_its_signs(name: str) -> None:
    kind, looks = MOTORS[name]
    found = weigh_kinds(looks)
    assert found.odds[0].kind.name == kind
    assert found.odds[0].probability > 0.6
    assert found.contradictions == ()
    assert sum(o.probability for o in found.odds) == pytest.approx(1)


def test_the_table_covers_every_kind() -> None:
    assert len(MOTORS) >= 30
    assert {kind for kind, _ in MOTORS.values()} == set(KINDS)


@pytest.mark.parametrize("name", sorted(MOTORS))
def test_more_evidence_never_makes_the_right_kind_less_likely(name: str) -> None:
    kind, looks = MOTORS[name]
    order = list(looks)
    for ways in itertools.islice(itertools.permutations(order), 24):
        before = weigh_kinds({}).odds
        last = next(o.probability for o in before if o.kind.name == kind)
        for count in range(1, len(ways) + 1):
            now = weigh_kinds({n: looks[n] for n in ways[:count]}).odds
            here = next(o.probability for o in now if o.kind.name == kind)
            assert here >= last * 0.999, (ways[:count], last, here)
            last = here


@given(st.sampled_from(sorted(MOTORS)), st.randoms(use_true_random=False))
def test_the_order_of_looks_changes_nothing(name: str, chance: random.Random) -> None:
    _, looks = MOTORS[name]
    mixed = list(looks.items())
    chance.shuffle(mixed)
    one, two = weigh_kinds(looks), weigh_kinds(dict(mixed))
    assert [o.kind.name for o in one.odds] == [o.kind.name for o in two.odds]
    assert [o.probability for o in one.odds] == pytest.approx([o.probability for o in two.odds])


def test_six_terminals_alone_stay_undecided() -> None:
    found = weigh_kinds({"leads": "6"})
    assert found.odds[0].probability < 0.5
    assert not found.settled
    assert found.next is not None
    named = {o.kind.name for o in found.odds[:4]}
    assert {"three-phase", "capacitor-start"} <= named


def test_a_switch_that_closes_at_speed_is_no_start_switch() -> None:
    closing = weigh_kinds({"speed-switch": "closes at speed"})
    chance = {o.kind.name: o.probability for o in closing.odds}
    opening = {o.kind.name: o.probability for o in weigh_kinds({"speed-switch": OPENS}).odds}
    assert opening["split-phase"] > 3 * chance["split-phase"]


def test_looks_that_no_kind_shows_together_are_named() -> None:
    found = weigh_kinds({"leads": "3", "brushes": "yes", "shading-rings": "yes"})
    assert ("brushes", "shading-rings") in found.contradictions
    assert not found.settled


def test_near_synchronous_speed_on_two_lines_proves_neither() -> None:
    """A three-phase motor that hums and starts when turned: a lost phase is possible."""
    found = weigh_kinds({"starts-when-turned": "yes", "capacitors": "none"})
    chance = {o.kind.name: o.probability for o in found.odds}
    assert chance["three-phase"] > 0.15


def test_each_look_says_what_it_speaks_for() -> None:
    found = weigh_kinds({"brushes": "yes", "tachometer": "yes"})
    brushes = found.reasons[0]
    assert set(brushes.speaks_for) == {"universal", "dc-magnet", "dc-wound", "repulsion-start"}
    assert brushes.bits > found.reasons[1].bits > 0


def test_the_next_look_settles_more_than_any_other_and_stays_outside_a_closed_motor() -> None:
    found = weigh_kinds({"brushes": "yes"}, opened=True)
    assert found.next is not None
    assert found.next.sign.name == "stator"
    shut = weigh_kinds({"brushes": "yes"}, opened=False)
    assert shut.next is not None
    assert not shut.next.sign.open
    assert shut.next.gain_bits < found.next.gain_bits


def test_when_all_is_known_nothing_is_asked() -> None:
    every = {n: s.answers[-1] for n, s in SIGNS.items()}
    assert weigh_kinds(every).next is None


@pytest.mark.parametrize("name", sorted(SIGNS))
def test_the_chances_of_a_sign_add_up(name: str) -> None:
    sign = SIGNS[name]
    for kind in KINDS:
        assert sum(sign.chance[a][kind] for a in sign.answers) == pytest.approx(1)
        assert all(0 < sign.chance[a][kind] < 1 for a in sign.answers)


@pytest.mark.parametrize(
    ("looks", "words"),
    [
        ({"ears": "yes"}, "brushes"),
        ({"brushes": "perhaps"}, "yes or no"),
        ({"leads": "7"}, "2 or 3"),
    ],
)
def test_signs_that_are_none_are_refused(looks: dict[str, str], words: str) -> None:
    with pytest.raises(BadValue, match=words):
        weigh_kinds(looks)


@pytest.mark.parametrize(
    ("kind", "phases", "words"),
    [
        ("three-phase", 1, "drive"),
        ("capacitor-start", 1, "Runs"),
        ("capacitor-start", 3, "two lines"),
        ("dc-magnet", 1, "rectifier"),
        ("three-phase-magnet", 3, "own drive"),
    ],
)
def test_whether_it_runs_on_the_supply(kind: str, phases: int, words: str) -> None:
    assert words in on_this_supply(KINDS[kind], phases)
