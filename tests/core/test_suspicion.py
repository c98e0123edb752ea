"""From a complaint to a first suspicion."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.condition.burn import BURNS
from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.condition.checklist import ITEMS
from careful_coil.core.condition.seen_rules import BURN
from careful_coil.core.condition.suspicion import (
    FOUND,
    suspicion_of,
    symptoms_in,
    weigh_causes,
)
from careful_coil.core.condition.symptoms import SYMPTOMS
from careful_coil.core.kind import weigh_kinds
from tests.core.logs import job_of, judged, plate, ticket

SINGLE, THREE, BRUSHED = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


@pytest.mark.parametrize(
    ("complaint", "symptoms"),
    [
        ("Hums, starts if pushed.", ("hums", "starts-pushed")),
        ("It is dead", ("dead",)),
        ("trips at once", ("trips-at-once",)),
        ("Trips after ten minutes and gets hot", ("trips-later", "hot")),
        ("turns the wrong way since the new plug", ("reversed",)),
        ("sparks a lot, smells", ("smells", "sparks")),
        ("stood in the flood", ("wet",)),
        ("new bearings please", ()),
        ("photographed on arrival", ()),
    ],
)
def test_the_customers_words_are_read(complaint: str, symptoms: tuple[str, ...]) -> None:
    assert symptoms_in(complaint) == symptoms


CASES: dict[str, tuple[list[str], dict[str, str], tuple[float, float, float], set[str]]] = {
    "pump stuck": (["hums"], {"by-hand": "free", "uncoupled": "runs well"}, SINGLE, {"load"}),
    "seized": (["hums", "smells"], {"by-hand": "seized"}, THREE, {"bearing-seized"}),
    "start gear": (
        ["hums", "starts-pushed"],
        {"by-hand": "free", "uncoupled": "does not start"},
        SINGLE,
        {"start-capacitor", "switch-open", "start-winding"},
    ),
    "two lines": (
        ["hums", "trips-later"],
        {"by-hand": "free", "uncoupled": "does not start"},
        THREE,
        {"lost-phase"},
    ),
    "reversed": (["reversed"], {}, THREE, {"lines-exchanged"}),
    "no volts": (["dead"], {"by-hand": "free"}, SINGLE, {"no-supply"}),
    "flood": (["wet", "shock"], {}, THREE, {"damp", "to-frame"}),
    "brushes": (["sparks", "weak"], {}, BRUSHED, {"brushes", "armature"}),
    "dust": (["hot"], {"by-hand": "free", "uncoupled": "runs well"}, THREE, {"cooling", "load"}),
    "bearing": (["noisy"], {"by-hand": "stiff"}, THREE, {"bearing-worn"}),
    "pulley": (
        ["vibrates", "noisy"],
        {"by-hand": "free", "uncoupled": "runs well"},
        THREE,
        {"loose", "bearing-worn"},
    ),
}


@pytest.mark.parametrize("case", CASES.values(), ids=list(CASES))
def test_the_first_suspicion_is_the_benchs(case: Any) -> None:
    symptoms, answers, shares, expected = case
    odds = weigh_causes(dict.fromkeys(symptoms, "yes"), answers, [], shares)
    assert odds[0][0].name in expected
    assert sum(p for _, p in odds) == pytest.approx(1.0)
    assert sum(p for c, p in odds if c.name in expected) > 0.5


def test_what_is_found_and_what_it_speaks_for_are_known_by_name() -> None:
    for (item, answer), causes in FOUND.items():
        known = BURNS if item == BURN else ITEMS[item].wrong
        assert answer in known
        assert set(causes) <= set(CAUSES)
    for cause in CAUSES.values():
        assert set(cause.shows) <= set(SYMPTOMS)


def test_what_was_found_shifts_the_odds() -> None:
    def odds(*found: tuple[str, str]) -> dict[str, float]:
        told = weigh_causes({"hums": "yes"}, {}, found, SINGLE)
        return {c.name: p for c, p in told}

    assert odds(("capacitor", "vented"))["start-capacitor"] > 2 * odds()["start-capacitor"]
    assert odds(("contacts", "welded"))["switch-open"] < 0.1 * odds()["switch-open"]


@given(
    st.dictionaries(st.sampled_from(list(SYMPTOMS)), st.sampled_from(["yes", "no"]), max_size=5),
    st.randoms(use_true_random=False),
)
def test_the_order_of_what_is_said_does_not_matter(told: dict[str, str], rng: Any) -> None:
    shuffled = list(told.items())
    rng.shuffle(shuffled)
    one = {c.name: p for c, p in weigh_causes(told, {}, [], (0.5, 0.4, 0.1))}
    two = {c.name: p for c, p in weigh_causes(dict(shuffled), {}, [], (0.5, 0.4, 0.1))}
    assert one == pytest.approx(two)


@pytest.mark.parametrize("cause", CAUSES.values(), ids=list(CAUSES))
def test_a_symptom_a_cause_shows_makes_it_likelier(cause: Any) -> None:
    shares = BRUSHED if cause.brushed else THREE if 3 in cause.phases else SINGLE
    usual = max(cause.shows, key=lambda s: cause.shows[s])

    def chance(told: dict[str, str]) -> float:
        return {c.name: p for c, p in weigh_causes(told, {}, [], shares)}[cause.name]

    assert chance({usual: "yes"}) > chance({usual: "no"})


def test_the_first_question_is_always_whether_it_turns_by_hand_and_runs_uncoupled() -> None:
    log = [*ticket(complaint="hums"), *plate(phases="3")]
    symptom = {"kind": "symptom", "symptom": "by-hand", "answer": "free"}
    runs = {"kind": "symptom", "symptom": "uncoupled", "answer": "does not start"}

    def asked(*more: dict[str, Any]) -> tuple[str, str]:
        found = suspicion_of(job_of(*log, *more), weigh_kinds({}))
        assert found is not None
        return found.key, found.ask

    assert asked()[0] == "by-hand"
    assert asked(symptom)[0] == "uncoupled"
    assert asked(symptom, runs) == ("", CAUSES["lost-phase"].test)
    looked = {"kind": "condition", "item": "by-hand", "answer": "seized"}
    assert asked(looked) == ("", CAUSES["bearing-seized"].test)


def test_a_symptom_denied_counts_against_what_the_complaint_says() -> None:
    denied = {"kind": "symptom", "symptom": "hums", "answer": "no"}
    found = suspicion_of(job_of(*ticket(complaint="hums, hot"), denied), weigh_kinds({}))
    assert found is not None
    assert found.symptoms == ("hot",)


def test_no_complaint_no_suspicion() -> None:
    assert suspicion_of(job_of(*ticket(complaint="new bearings please")), weigh_kinds({})) is None
    found = judged(*ticket(complaint="hums"), *plate(phases="3"))
    (told,) = [f for f in found.findings if f.code == "suspicion"]
    assert told.verdict == "note"
    assert "turn by hand" in told.why
