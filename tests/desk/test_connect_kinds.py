"""Connect by keys for other kinds of motor: two voltages, wye-delta, brushes, start gear; the bench's lists."""

import itertools

from careful_coil.desk.connect.change import ChangePart
from careful_coil.desk.connect.proof import ProofPart
from careful_coil.desk.connect.what_if import WhatIfPart
from careful_coil.desk.keeping import change_settings
from tests.desk.driver import Bench, Key
from tests.desk.hands import log, part, typed
from tests.desk.test_connect import connect, joints, new_motor, play


def test_a_single_phase_motor_of_two_voltages_is_reversed(bench: Bench) -> None:
    """Marks and joints as found name it: start exchanged against the main, not both."""
    page = new_motor(
        bench,
        "T1 T2 T3 T4 T5 T8",
        joints("L1 T1;T2 T3 T8;L2 T4 T5"),
        phases="1",
        volt="115/230",
        hertz="60",
        amp="14/7",
    )
    typed(bench, "supply", "230")
    assert bench.judged.facts.connecting.plan is not None, bench.judged.facts.connecting.why
    assert bench.judged.facts.connecting.joined
    page.open_part("proof")
    proof = page.parts["proof"]
    assert isinstance(proof, ProofPart)
    assert "T5 and T8" in proof.how.words
    proof.turn.setFocus()
    bench.key(Key.Key_Return)
    page.open_part("change")
    play(bench)
    now = {frozenset(j) for j in bench.judged.facts.connecting.now.joints}
    assert {frozenset(("T2", "T3", "T5")), frozenset(("L2", "T4", "T8"))} <= now


def test_a_wye_start_delta_run_motor_has_both_stages(bench: Bench) -> None:
    page = new_motor(
        bench,
        "T1 T2 T3 T4 T5 T6",
        joints("L1 T1;L2 T2;L3 T3;T4 T5 T6"),
        phases="3",
        volt="400/690",
        hertz="50",
        amp="15/8.7",
    )
    typed(bench, "supply", "400")
    typed(bench, "wish-start", "wye-delta")
    plan = bench.judged.facts.connecting.plan
    assert plan is not None
    assert [s.name for s in plan.stages] == ["star", "delta"]
    words = page.parts["wanted"].words.words  # type: ignore[attr-defined]
    assert "a third of delta's" in words
    typed(bench, "supply", "690")
    assert bench.judged.facts.connecting.plan is None
    assert "wye-delta start needs the supply at 400 V" in bench.judged.facts.connecting.why


def test_a_five_lead_universal_motor_runs_all_six_ways(bench: Bench) -> None:
    bench.open("sander")
    readings = {
        "AD": "3.40",
        "BC": "1.18",
        "BE": "1.92",
        "CE": "3.10",
        **dict.fromkeys(("AB", "AC", "AE", "DB", "DC", "DE"), "open"),
    }
    log(
        bench,
        *(
            {
                "kind": "reading",
                "reading": {"kind": "resistance", "between": list(p), "value": v},
            }
            for p, v in readings.items()
        ),
        {"kind": "reading", "reading": {"kind": "shaft", "between": ["A", "D"], "value": "varies"}},
    )
    bench.ctrl(Key.Key_7)
    typed(bench, "supply", "230")
    typed(bench, "wish-seen-from", "drive-end")
    made = set()
    for speed, way in itertools.product(("high", "medium", "low"), ("cw", "ccw")):
        typed(bench, "wish-speed", speed)
        typed(bench, "wish-rotation", way)
        plan = bench.judged.facts.connecting.plan
        assert plan is not None, bench.judged.facts.connecting.why
        assert (plan.speed, plan.reversed) == (speed, way == "ccw")
        play(bench)
        assert bench.judged.facts.connecting.joined
        made.add(frozenset(frozenset(j) for j in bench.judged.facts.connecting.now.joints))
    assert len(made) == 6


def test_a_two_capacitor_motors_switch_is_replaced(bench: Bench) -> None:
    """The old switch comes out, the electronic one goes in its place, before any joint is made."""
    connect(bench, "chandlery")
    typed(bench, "supply", "230")
    told = {"kind": "device-fitted", "name": "S1", "device": ""}
    fitted = {"kind": "device-fitted", "name": "E1", "device": "electronic-switch"}
    run = [
        {"kind": "capacitor", "name": "C2", "field": "marking", "text": "30 µF 450 V"},
        {"kind": "capacitor", "name": "C2", "field": "serves", "text": "run"},
    ]
    inside = bench.judged.facts.connecting.plan
    assert inside is not None
    assert [d.name for d in inside.devices] == [
        "C1"
    ]  # its path opened: the contact is joined inside
    log(bench, {"kind": "proved-dead", "volt": 0})
    log(bench, {"kind": "step-ticked", "step": "fit S1"})  # here it is a part of its own
    was = bench.judged.facts.connecting.plan
    assert was is not None
    stands = {"kind": "stands-so", "joints": [list(j) for j in by_tag(bench, was.joints)]}
    log(bench, stands)
    assert bench.judged.facts.connecting.joined
    log(bench, told, fitted, *run)
    again = {"kind": "resistance", "between": ["C", "D"], "value": "4.31"}
    log(bench, {"kind": "reading", "reading": again})  # its old contact was dirty: read anew
    part(bench, ChangePart)
    state = bench.judged.facts.connecting
    assert state.plan is not None, state.why
    assert {d.name for d in state.plan.devices} == {"C1", "C2", "E1"}
    shown = [row[1] for row in bench.page.change.steps.step_rows() if row[0] != "good"]  # type: ignore[attr-defined]
    assert shown[0] == "Take out S1"
    assert {"Fit E1", "Fit C2"} <= set(shown)


def by_tag(bench: Bench, joined: tuple[tuple[str, ...], ...]) -> list[tuple[str, ...]]:
    return [bench.judged.facts.connecting.by_tag(j) for j in joined]


def test_the_bench_lists_are_changed_in_the_settings_and_counted_at_once(bench: Bench) -> None:
    connect(bench)
    change_settings(bench.window.session, {"bench": "variable-ac"})
    bench.settle()
    tried = part(bench, WhatIfPart)
    bench.settle(lambda: bool(tried.roll.slips))
    assert "low run" not in tried.covered.words
