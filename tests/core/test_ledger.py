"""The ledger: the gate, the order of what comes next, what may be set aside and what never."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.job import fold
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from tests.core.logs import (
    INSULATED,
    LAST,
    READY,
    SIX_LEADS,
    codes,
    entries,
    job_of,
    judged,
    leads,
    ohm,
    plate,
    ticket,
    without,
)


def test_a_motor_with_everything_proven_may_be_signed() -> None:
    found = judged(*READY)
    assert found.gate == ()
    assert found.next is not None
    assert found.next.act == "sign"
    assert found.state == "ready to sign"
    assert set(found.pips) == {"done", ""}


@pytest.mark.parametrize(
    ("drop", "code"),
    [
        (lambda b: b.get("field") == "volt", "plate-known"),
        (lambda b: b["kind"] == "insulation", "insulation"),
        (lambda b: b["kind"] == "supply", "supply"),
        (lambda b: b.get("joint") == ["L2", "B"], "hookup"),
        (lambda b: b.get("lines") == ["L1", "L3"], "line-ohms"),
        (lambda b: b.get("item") == "mechanics", "mechanics"),
        (lambda b: b["kind"] == "trial-begun", "test-run"),
        (lambda b: b["kind"] == "earth-bond", "earth-bond"),
        (lambda b: b.get("reading", {}).get("kind") == "kick", "leads-proven"),
    ],
)
def test_each_open_question_alone_keeps_the_gate_shut(drop: object, code: str) -> None:
    found = judged(*without(READY, drop))  # type: ignore[arg-type]
    assert code in {f.code for f in found.gate}
    assert found.next is not None
    assert found.next.act != "sign"


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ({"kind": "earth-bond", "ohm": 0.4}, "earth-bond"),
        ({"kind": "insulation", "megohm": 0.3, "at_c": 20}, "insulation"),
        (
            {"kind": "reading", "reading": {"kind": "frame", "lead": "A", "value": "40"}},
            "frame-fault",
        ),
        ({"kind": "joint", "joint": ["A", "E"]}, "hookup"),
    ],
)
def test_what_can_hurt_is_a_hold_and_no_waiver_lifts_it(body: dict[str, object], code: str) -> None:
    waiver = {"kind": "waived", "code": code, "reason": "customer waits", "second": "CD"}
    found = judged(*READY, body, waiver)
    assert code in {f.code for f in found.gate}
    assert found.gate[0].verdict == "hold"


def test_a_waiver_by_a_second_person_lifts_what_may_be_set_aside() -> None:
    log = without(READY, lambda b: b.get("item") == "mechanics")
    waiver = {"kind": "waived", "code": "mechanics", "reason": "sealed unit", "second": "CD"}
    assert {f.code for f in judged(*log).gate} == {"mechanics"}
    assert judged(*log, waiver).gate == ()


def test_found_bad_stands_before_to_do() -> None:
    found = judged(*SIX_LEADS, {"kind": "insulation", "megohm": 0.3, "at_c": 20})
    verdicts = [f.verdict for f in found.gate]
    assert verdicts[0] == "hold"
    assert verdicts == sorted(verdicts, key=lambda v: v != "hold")


def test_a_new_job_asks_for_its_name_then_its_plate_then_its_leads() -> None:
    order = []
    log: list[dict[str, object]] = []
    answers = {
        "name": ticket(name="Mill"),
        "complaint": ticket(complaint="nothing"),
        "work-place": [{"kind": "on-site", "on": False}],
        "plate-phases": plate(phases="3"),
        "plate-volt": plate(volt="230/400"),
        "plate-hertz": plate(hertz="50"),
        "plate-amp": plate(amp="11/6.4"),
        "tag": [leads(*"ABCDEF")],
        "found-hookup": [{"kind": "found-hookup", "joints": []}],
    }
    for _ in answers:
        step = judged(*log).next
        assert step is not None
        order.append(step.code)
        log += answers[step.code]
    assert order == list(answers)
    step = judged(*log).next
    assert step is not None
    assert (step.act, step.station) == ("resistance", "leads")


def test_a_motor_that_may_hide_a_capacitor_is_proved_dead_first() -> None:
    log = [*ticket(name="Mixer"), *plate(phases="1", volt="230", hertz="50"), leads("A", "B", "C")]
    step = judged(*log).next
    assert step is not None
    assert step.act == "dead"
    apart = {"kind": "found-hookup", "joints": []}
    after = judged(*log, {"kind": "proved-dead", "volt": 0.4}, apart).next
    assert after is not None
    assert after.act == "resistance"


def test_not_here_brings_the_next_best_and_says_what_stays_open() -> None:
    job = job_of(*SIX_LEADS)
    first = judge(job, Settings()).next
    assert first is not None
    second = judge(job, Settings(), {first.code})
    assert second.next is not None
    assert second.next.code != first.code
    assert [s.code for s in second.skipped] == [first.code]


def test_everything_can_be_put_off_but_the_gate_stays_shut() -> None:
    job, put_off = job_of(*SIX_LEADS), set()
    for _ in range(60):
        found = judge(job, Settings(), put_off)
        if found.next is None:
            break
        put_off.add(found.next.code)
    assert found.next is None
    assert found.gate


def test_a_suspect_is_asked_for_again_before_anything_else() -> None:
    log = without(
        SIX_LEADS, lambda b: b.get("reading", {}).get("kind") == "kick" or b == ohm("CF", "2.60")
    )
    found = judged(*log, ohm("CF", "4.90"))
    assert found.next is not None
    assert set(found.next.ends) == {"C", "F"}
    assert "suspect" in codes("watch", found)
    assert "leads-proven" in {f.code for f in found.gate}


def test_a_single_phase_motor_also_needs_its_start_gear_judged() -> None:
    one = judged(*plate(phases="1"), leads("A", "B", "C"))
    three = judged(*plate(phases="3"), leads("A", "B", "C"))
    assert "start-gear" in {f.code for f in one.gate}
    assert "start-gear" not in {f.code for f in three.gate}


def test_a_hookup_no_rule_knows_is_proven_by_its_run_and_by_no_word() -> None:
    log = [
        *plate(phases="1", volt="230", hertz="50"),
        leads("A", "B", "C"),
        {"kind": "meter", "accuracy_percent": 0.5, "resolution_ohm": 0.01, "lead_ohm": 0.0},
        ohm("BC", "3.39"),
        ohm("AB", "8.74"),
        ohm("AC", "5.35"),
        *(
            {"kind": "reading", "reading": {"kind": "switch", "between": list(p), "value": "opens"}}
            for p in ("AB", "BC")
        ),
        {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1, "measured": True},
    ]
    found = judged(*log)
    assert found.facts.naming.word == "proven"
    assert found.facts.connecting.outside
    assert "hookup" in {f.code for f in found.gate}
    word = {"kind": "attested", "item": "hookup", "words": "run on the line"}
    assert "hookup" in {f.code for f in judged(*log, word).gate}
    ran = [
        {"kind": "covers"},
        {"kind": "trial-begun", "covers": "on"},
        {"kind": "trial-start", "volt": 230, "outcome": "dropped out", "seconds": 0.8},
        {"kind": "trial-step", "volt": [230], "amp": [3.4], "minute": 10, "turns": "smooth"},
        {"kind": "trial-ended"},
    ]
    shown = {f.code: f for f in judged(*log, *plate(amp="5"), *ran).findings}
    assert (shown["hookup"].verdict, shown["hookup"].subject) == (
        "good",
        "Hookup confirmed by the run",
    )


@pytest.mark.parametrize(
    "after",
    [
        {"kind": "work", "what": "varnished"},
        {"kind": "earth-bond", "ohm": 0.4},
        {"kind": "struck", "target": "e8"},
        {"kind": "covers", "on": False},
    ],
)
def test_what_is_found_open_after_the_signature_opens_the_job_again(
    after: dict[str, object],
) -> None:
    found = judged(*READY, {"kind": "released", "signed": "AB"}, after)
    assert not found.released
    assert "open-again" in {f.code for f in found.gate}
    assert found.next is not None
    assert found.next.act != "sign"


def test_released_is_the_end_of_it() -> None:
    found = judged(*READY, {"kind": "released", "signed": "AB"})
    assert found.next is None
    assert found.state == "released"
    assert set(found.pips) == {"done", ""}


@given(st.integers(0, len(READY)))
def test_any_beginning_of_a_job_is_judged(length: int) -> None:
    found = judge(fold(entries(*READY[:length])), Settings())
    assert len(found.pips) == 9
    assert found.next is not None
    assert (found.gate == ()) == (length == len(READY))


def test_every_gate_finding_has_words_and_a_station() -> None:
    for log in ([], SIX_LEADS, [*SIX_LEADS, INSULATED], [*READY, *LAST]):
        for f in judged(*log).findings:
            assert f.subject
            assert f.why
            assert f.station in (
                "intake",
                "leads",
                "insulation",
                "start-gear",
                "mechanics",
                "connect",
                "test-run",
                "release",
            )


def test_the_frame_is_looked_at_by_ohmmeter_before_the_tester_where_the_shop_says_so() -> None:
    frames = [
        {"kind": "reading", "reading": {"kind": "frame", "lead": t, "value": "open"}} for t in "ABC"
    ]
    own = Settings().changed({"schools": {"frame-test": "ohmmeter first"}})
    asked = [judged(*SIX_LEADS, *frames[:k], settings=own).next for k in range(4)]
    assert [s.code if s else "" for s in asked] == [
        "frame-A",
        "frame-B",
        "frame-C",
        "ready-insulation",
    ]
    first = judged(*SIX_LEADS).next
    assert first is not None
    assert first.code == "ready-insulation"


def test_a_green_lead_on_the_frame_is_asked_with_its_lug_off_and_holds_nothing() -> None:
    told = [{"tag": t, "colour": "green" if t == "E" else "white"} for t in "ABCDE"]
    on = {"kind": "reading", "reading": {"kind": "frame", "lead": "E", "value": "0.03"}}
    log = [*ticket(name="Mixer"), *plate(phases="1", volt="230", hertz="50")]
    log += [{"kind": "leads", "leads": told}, {"kind": "found-hookup", "joints": []}]
    found = judged(*log, {"kind": "proved-dead", "volt": 0.1}, on)
    assert "frame-fault" not in {f.code for f in found.findings}
    assert found.next is not None
    assert (found.next.code, found.next.sense) == ("frame-E", ("lug off",))
    off = {"kind": "reading", "reading": {**on["reading"], "lug": "off", "value": "0.2"}}  # type: ignore[dict-item]
    still = judged(*log, {"kind": "proved-dead", "volt": 0.1}, on, off)
    assert "frame-fault" in {f.code for f in still.findings}
