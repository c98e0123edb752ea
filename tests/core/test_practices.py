"""Where practitioners differ the shop's choice is acted on: each changes a word or a verdict."""

import pytest

from careful_coil.core.can_marking import read_marking
from careful_coil.core.gear.capacitor_rules import apart_of
from careful_coil.core.gear.judge import judge_capacitor
from careful_coil.core.settings import Settings
from tests.core.test_connecting import state_of, wish


def chosen(name: str, choice: str) -> Settings:
    return Settings().changed({"schools": {name: choice}})


@pytest.mark.parametrize(
    ("choice", "words"), [("crimp", ""), ("wire connector", "tug"), ("solder", "solder")]
)
def test_a_joint_is_made_as_the_shop_makes_it(choice: str, words: str) -> None:
    state = state_of("three-phase-6-lead", "", "230/400", 400, settings=chosen("joint", choice))
    made = [s.text for s in state.steps if s.joint]
    assert made
    assert all(words in text for text in made)
    assert any("solder" in text or "tug" in text for text in made) == bool(words)


@pytest.mark.parametrize("choice", ["two seconds", "four seconds"])
def test_the_second_half_comes_in_after_the_shops_seconds(choice: str) -> None:
    started = [wish("start", "part-winding")]
    shop = chosen("part-winding", choice)
    state = state_of("three-phase-9-lead-wye", "", "230/460", 230, *started, settings=shop)
    assert state.plan is not None
    assert f"Set here: K2 after {choice}." in state.plan.notes


def test_one_figure_on_a_start_capacitor_takes_the_shops_window() -> None:
    marking = read_marking("100 µF 250 V")
    verdicts = [
        judge_capacitor(
            marking, 93.0, "", "start", None, apart_of(chosen("start-window", c))
        ).verdict
        for c in ("as marked", "minus 10 plus 20")
    ]
    assert verdicts[0] != "good"
    assert verdicts[1] == "good"
    ranged = read_marking("88-108 µF 250 V")  # what the can prints stands, whatever the shop takes
    wider = apart_of(chosen("start-window", "minus 10 plus 20"))
    assert judge_capacitor(ranged, 84.0, "", "start", None, wider).verdict != "good"
