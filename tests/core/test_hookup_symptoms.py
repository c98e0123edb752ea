"""Wrong hookups ranked by what they would show, worked out by the network."""

import pytest

from careful_coil.core.condition.symptoms import SYMPTOMS
from careful_coil.core.connect import Hookup, Plan
from careful_coil.core.connect.check import right_plan
from careful_coil.core.connect.explain import DEVICE_SLIPS, SlipKind
from careful_coil.core.connect.hookup import start_and_run
from careful_coil.core.gear.hookup_symptoms import (
    COMMON,
    Shown,
    hookups_that_show,
    symptoms_of,
)
from tests.core.kits import motors

MOTORS = motors()


def motor(name: str) -> tuple[Hookup, Plan]:
    hookup = next(h for n, h in MOTORS.items() if n.startswith(name))
    right, _ = right_plan(hookup)
    assert right is not None
    return hookup, right


def ranked(name: str, *symptoms: str) -> tuple[Shown, ...]:
    return hookups_that_show(dict.fromkeys(symptoms, "yes"), *motor(name))


@pytest.mark.parametrize(
    ("name", "symptoms", "words"),
    [
        ("centrifugal switch, start capacitor", ("hums", "starts-pushed"), "is not in its joint"),
        ("centrifugal switch, start capacitor", ("hot", "smells"), "S1 is bridged"),
        ("centrifugal switch, split phase", ("reversed",), "is reversed"),
        ("current relay, start", ("hums", "starts-pushed"), "is not in its joint"),
        ("voltage relay, start capacitor", ("hot", "smells", "trips-later"), "K1"),
        ("star and delta:", ("hot", "weak"), "are exchanged"),
        ("star and delta:", ("reversed",), "are exchanged"),
        ("contactor: delta", ("hums",), "is not in its joint"),
        ("universal, reversing", ("dead",), "is not in its joint"),
        ("both ways, switch", ("trips-at-once",), "Q2"),
    ],
)
def test_the_slip_that_shows_it_comes_first(
    name: str, symptoms: tuple[str, ...], words: str
) -> None:
    found = ranked(name, *symptoms)
    told = [s.text() for s in found[0].slips]
    assert any(words in t for t in told), [(s.title, s.odds) for s in found[:3]]
    assert told[0] == found[0].title
    assert all(found[0].shows.get(s, 0) >= 0.35 for s in symptoms)
    assert sum(s.odds for s in found) == pytest.approx(1)
    assert [s.odds for s in found] == sorted((s.odds for s in found), reverse=True)


def test_a_symptom_denied_turns_the_order_round() -> None:
    """It smells and is hot; then it turns out that it hums and does not start."""
    stays = ranked("centrifugal switch, start capacitor", "hot", "smells")[0]
    assert "hums" not in stays.shows
    stands = ranked("centrifugal switch, start capacitor", "hot", "smells", "hums")[0]
    assert "hums" in stands.shows
    told = {"hums": "yes", "reversed": "no"}
    assert (
        "reversed"
        not in hookups_that_show(told, *motor("centrifugal switch, split phase"))[0].shows
    )


@pytest.mark.parametrize(
    "name", ["centrifugal switch, both", "star and delta:", "run capacitor, line"]
)
def test_the_right_hookup_shows_nothing(name: str) -> None:
    hookup, right = motor(name)
    good = start_and_run(hookup.of_plan(right), right.field)
    assert symptoms_of(hookup, good, good) == {}


def test_everything_told_is_a_symptom_and_every_slip_has_its_odds() -> None:
    for name in ("centrifugal switch, both", "voltage relay, three", "part winding, nine"):
        for shown in ranked(name, "hums"):
            assert set(shown.shows) <= set(SYMPTOMS)
            assert all(0 < chance < 1 for chance in shown.shows.values())
    lead_slips: tuple[SlipKind, ...] = (
        "coil-reversed",
        "coils-exchanged",
        "leads-exchanged",
        "lead-left-out",
        "joint-open",
    )
    assert set(COMMON) == {*DEVICE_SLIPS, *lead_slips}
