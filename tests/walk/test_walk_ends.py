"""Whole walks that end in ways of their own: a mark proved wrong by a run, a rewind, the customer's no, class II."""

import json

import pytest

from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk.tell import walk


def walked(name: str, **other: object) -> WalkDocument:
    return walk({**cast_motor(name), **other}, 1, Settings())


def at(document: WalkDocument, code: str) -> int:
    """Return where a code was first asked; -1 where it never was."""
    return next((k for k, s in enumerate(document.steps) if s.code.startswith(code)), -1)


def test_two_marks_that_ohms_cannot_tell_are_found_by_the_run_and_put_right_by_kicks() -> None:
    document = walked("nine-wye-wrong")
    assert (document.end, document.right, document.harm) == ("released", True, [])
    bad, apart, kick = at(document, "low-run"), at(document, "cut-"), at(document, "kick-")
    assert 0 < bad < apart < kick
    ran = [s for s in document.steps if s.code == "low-run"]
    assert ["sm" in s.answer for s in ran] == [False, True]


def test_an_open_coil_goes_to_the_customer_and_home_unrepaired_when_he_says_no() -> None:
    document = walked("three-open-coil")
    assert (document.end, document.right) == ("unrepaired", True)
    assert document.holds[0].subject.startswith("A coil is open at B and E")
    assert document.steps[-2].code == "go-ahead"
    assert at(document, "feel") < 0  # nothing is opened or bought before he said so


def test_the_same_coil_rewound_comes_home_with_every_electrical_proof_made_again() -> None:
    document = walked("three-open-rewound")
    assert (document.end, document.right, document.harm) == ("released", True, [])
    after = {s.code for s in document.steps[at(document, "rewind") :]}
    assert {"resistance-A-D", "resistance-B-E", "resistance-C-F", "low-run", "sign"} <= after
    tests = [e["body"] for e in document.job["entries"] if e["body"]["kind"] == "insulation"]
    apart = [t["test_volt"] for t in tests if t["parts"]]
    assert apart == [1000.0] * 3  # each phase a minute, in place of a high-potential test: once
    assert tests[-1]["test_volt"] < 1000.0  # the closed motor has its ordinary volts again


def test_class_two_is_asked_once_and_no_bond_is_measured() -> None:
    document = walked("universal-tacho")
    assert (document.end, document.right) == ("released", True)
    assert at(document, "protection") > 0
    assert at(document, "bond-") < 0
    leads = [*cast_motor("universal-tacho")["leads"]]
    leads += [{"tag": "X", "is": "earth", "colour": "green/yellow", "mark": ""}]
    wrong = walked(
        "universal-tacho", leads=leads, earth_ohm=0.03
    )  # a mark that its own earth lead gives the lie
    assert at(wrong, "bond-frame") > 0 or wrong.end != "released"


def test_a_winding_dead_to_earth_is_neither_dried_nor_run() -> None:
    document = walked("three-earth-fault")
    assert (document.end, document.right) == ("unrepaired", True)
    assert at(document, "dry") < 0


def test_a_shorted_capacitor_is_said_in_a_word_and_renewed() -> None:
    document = walked("cap-shorted")
    assert (document.end, document.right) == ("released", True)
    said = next(s for s in document.steps if s.code == "measure-C1")
    assert "short" in said.answer
    assert any("C1" in h.subject for h in document.holds)


@pytest.mark.parametrize("name", ["six-bare", "shaded-two-leads"])
def test_a_walk_is_plain_json(name: str) -> None:
    document = walked(name)
    assert json.loads(document.model_dump_json(by_alias=True))["end"] == "released"


def test_marks_that_are_not_true_are_found_on_site_before_any_volts() -> None:
    """T4 and T5 are printed on each other's lead: no ohms between the lines show it, one after a joint does."""
    document = walked("site-nine-marks")
    assert (document.end, document.right, document.harm) == ("released", True, [])
    first, again = at(document, "step-E-D"), at(document, "step-D-E")
    apart, marked, volts = at(document, "cut-B"), at(document, "retag-"), at(document, "site-amps")
    assert 0 < first < again < apart < marked < volts


def test_a_visit_puts_no_volts_on_a_motor_that_is_dead_to_earth() -> None:
    document = walked("site-earth-fault")
    assert (document.end, document.right, document.harm) == ("unrepaired", True, [])
    assert at(document, "site-amps") < 0
    assert at(document, "go-ahead") > 0


def test_a_fan_is_run_at_each_speed_with_the_clip_on_that_speeds_lead() -> None:
    document = walked("fan-two-speed-binding")
    high, low = (
        next(s for s in document.steps[k:] if s.code.startswith("trial-step-230"))
        for k in (at(document, "trial-begin-on-high"), at(document, "trial-begin-on-low"))
    )
    assert float(low.answer.split()[0]) < 0.5 * float(high.answer.split()[0])
