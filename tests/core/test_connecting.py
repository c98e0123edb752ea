"""Connect played through: every plan reachable, every step right, interrupted anywhere, proved on the way."""

import math
from typing import Any

import pytest

from careful_coil.core.connect.dead import AtBench, lapsed
from careful_coil.core.connect.other_phases import other_phases
from careful_coil.core.connect.plans import Plate, Wish, plan
from careful_coil.core.connect.proof import left_to_check, offer, read_on_the_way
from careful_coil.core.connect.work import Connecting, Gear, connecting
from careful_coil.core.errors import CannotConnect
from careful_coil.core.identify import Naming
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.way import Plan
from careful_coil.core.winding import ARRANGEMENTS
from tests.core.logs import METER, job_of, judged, plate, walls
from tests.core.played import Body, steps_of
from tests.core.test_connect import DEAD, FAN, FAN_SUPPLY, STANDS

WINDINGS = [(slug, v) for slug, a in ARRANGEMENTS.items() for v in ("", *a.variants)]


def wish(field: str, text: str) -> Body:
    return {"kind": "wished", "field": field, "text": text}


def state_of(
    slug: str,
    variant: str,
    volts: str,
    supply: float,
    *more: Body,
    settings: Settings | None = None,
) -> Connecting:
    """Return the connecting of a motor whose leads are tagged by their own names."""
    arr = ARRANGEMENTS[slug]
    names = arr.inside(variant).leads
    job = job_of(
        *plate(phases=str(arr.phases), volt=volts, hertz="50"),
        {"kind": "leads", "leads": [{"tag": n} for n in names]},
        METER,
        {"kind": "supply", "volt": supply, "hertz": 50, "phases": arr.phases},
        *more,
    )
    named = Naming(word="proven", names={n: n for n in names}, arrangement=arr, variant=variant)
    devices = next((p.devices for p in plans_of(slug, variant)), ())
    return connecting(job, None, named, gear=Gear(devices=devices), settings=settings)


def wishes_for(p: Plan) -> list[Body]:
    told = {"start": p.start, "speed": p.speed}
    found = [wish(f, t) for f, t in told.items() if t and t != "direct"]
    return [*found, wish("exchanged", "yes")] if p.reversed else found


@pytest.mark.parametrize(("slug", "variant"), WINDINGS)
def test_every_plan_of_every_winding_can_be_reached(slug: str, variant: str) -> None:
    plans = plans_of(slug, variant)
    factors = sorted({round(p.factor, 6) for p in plans})
    volts = "/".join(f"{100 * f / factors[0]:.1f}" for f in factors)
    for p in plans:
        if p.reversed and p.turning == "opening":
            continue  # only where both windings read alike: see below
        supply = 100 * p.factor / factors[0]
        state = state_of(slug, variant, volts, supply, *wishes_for(p))
        assert state.plan is not None, (p.connection, state.why)
        assert state.plan.connection == p.connection
        assert {frozenset(j) for j in state.plan.joints} == {frozenset(j) for j in p.joints}
        assert state.plan.start == p.start


def test_the_other_direction_exchanges_two_lines_or_one_winding() -> None:
    six = "three-phase-6-lead"
    asked = [wish("rotation", "ccw"), wish("seen-from", "drive-end")]
    state = state_of(six, "", "230/400", 400, *asked)
    assert state.plan is not None
    assert ("L1", "T2") in state.plan.joints
    back = state_of(six, "", "230/400", 400, *asked, wish("exchanged", "yes"))
    assert back.plan is not None
    assert ("L1", "T1") in back.plan.joints
    dual = "single-phase-dual-voltage-6-lead"
    turned = state_of(dual, "", "115/230", 230, wish("exchanged", "yes"))
    plain = state_of(dual, "", "115/230", 230)
    assert turned.plan is not None
    assert plain.plan is not None
    moved = {n for j in plain.plan.joints for n in j if j not in turned.plan.joints} - {"L1", "L2"}
    assert {"T5", "T8"} <= moved


def test_a_part_winding_start_is_clipped_on_the_bench_and_leaves_the_box_lead_by_lead() -> None:
    """Three leads for each contactor; 4-5-6 the only joint that is made."""
    state = state_of("three-phase-9-lead-wye", "", "230/460", 230, wish("start", "part-winding"))
    assert state.starter is not None
    joints = [s for s in state.steps if s.joint]
    assert [s.do for s in joints] == ["splice", "move-line", "move-line", "move-line"]
    assert [set(s.joint) for s in joints[:1]] == [{"T4", "T5", "T6"}]
    assert all("no crimp" in s.text and s.text.endswith("to K2.") for s in joints[1:])
    assert state.drawn is not None
    assert [d.name for d in state.drawn.devices] == ["K1", "K2"]
    assert any("K2 comes in only while K1 is in" in n for n in state.plan.notes if state.plan)
    assert state_of("three-phase-9-lead-wye", "", "230/460", 230).starter is None


def test_two_equal_windings_reverse_at_the_capacitor_and_others_do_not() -> None:
    plate_230 = Plate(((230, 230),), 50)
    equal = plan("single-phase-3-lead", plate_230, 230, 50, Wish(reverse=True, equal=True))
    assert any("L1" in j and "start" in j for j in equal.joints)
    with pytest.raises(CannotConnect, match="opening the motor"):
        plan("single-phase-3-lead", plate_230, 230, 50, Wish(reverse=True))


def change_log() -> list[Body]:
    return [*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY | {"measured": True}, STANDS]


def test_the_change_is_played_to_its_end_and_every_reading_on_the_way_is_right() -> None:
    log, truth = change_log(), 0
    for found in steps_of(log):
        state = found.facts.connecting
        o = offer(found.job, state)
        if o is not None and o.ohm > 0:
            log.append(
                {"kind": "step-ohm", "between": list(state.by_tag(o.between)), "value": o.ohm}
            )
            truth += 1
            last = read_on_the_way(judged(*log).job, state, Settings())[-1]
            assert last.right
    found = judged(*log)
    assert found.facts.connecting.joined
    assert not found.facts.connecting.now.loose
    assert truth >= 3
    assert {frozenset(j) for j in found.facts.connecting.now.joints} == {
        frozenset(j)
        for j in (
            ("L1", "T1"),
            ("L2", "T2"),
            ("L3", "T3"),
            ("T4", "T7"),
            ("T5", "T8"),
            ("T6", "T9"),
        )
    }
    assert found.next is not None
    assert (found.next.act, found.next.ends) == ("line", ("L1", "L2"))


def test_interrupted_after_any_step_the_job_knows_what_is_joined_and_what_is_loose() -> None:
    log = change_log()
    before = len(log)
    states = list(steps_of(log))
    now = {frozenset(j) for j in states[0].facts.connecting.now.joints}
    for k in range(len(log) - before):
        body = log[before + k]
        found = judged(*log[: before + k + 1])
        named = {
            found.facts.connecting.names.get(n, n) for n in body.get("joint", body.get("leads", ()))
        }
        if body["kind"] in ("parted", "joint"):
            now = {p for p in (j - named for j in now) if len(p) > 1}
            now |= {frozenset(named)} if body["kind"] == "joint" else set()
        assert {frozenset(j) for j in found.facts.connecting.now.joints} == now
        joined = {n for j in now for n in j}
        assert (
            set(found.facts.connecting.now.loose)
            == set(found.facts.connecting.names.values()) - joined
        )
        # the steps left are what was left before, less the one done
        assert len(found.facts.connecting.steps) <= len(states[k].facts.connecting.steps)


def test_a_wrong_reading_on_the_way_holds_until_a_right_one_and_sends_back() -> None:
    log = change_log()
    for found in steps_of(log):
        if offer(found.job, found.facts.connecting) is not None and log[-1]["kind"] == "joint":
            break
    o = offer(found.job, found.facts.connecting)
    assert o is not None
    between = list(found.facts.connecting.by_tag(o.between))
    wrong = {"kind": "step-ohm", "between": between, "value": "open"}
    held = judged(*log, wrong)
    assert held.next is not None
    assert held.next.code == "step-ohm"
    finding = next(f for f in held.findings if f.code == "step-ohm")
    assert (finding.verdict, finding.waivable) == ("hold", False)
    right = judged(*log, wrong, wrong | {"value": o.ohm})
    assert not [f for f in right.findings if f.code == "step-ohm"]


def test_a_leftover_that_differs_sends_back_to_the_last_unproved_joint() -> None:
    log = change_log()
    for _ in steps_of(log):
        if log[-1]["kind"] == "joint":
            break
    found = judged(*log, {"kind": "step-ticked", "step": "leftover differs"})
    finding = next(f for f in found.findings if f.code == "leftover")
    made = found.facts.connecting.now.made[-1]
    assert found.facts.connecting.said(made) in finding.why
    assert not finding.waivable


def done_log() -> list[Body]:
    log = change_log()
    list(steps_of(log))
    pairs = (("L1", "L2"), ("L1", "L3"), ("L2", "L3"))
    return [*log, *({"kind": "line-ohm", "lines": list(p), "value": "2.04"} for p in pairs)]


def test_before_power_each_thing_is_seen_and_lapses_with_the_next_cut() -> None:
    log = done_log()
    found = judged(*log)
    assert found.next is not None
    assert found.next.code == "before-power"
    names = [c.name for c in left_to_check(found.job, found.facts.connecting, extras=True)]
    assert names == ["count", "earth", "sensors", "pinch"]
    two = judged(*log, *plate(protection="II"))  # nothing of it is earthed
    assert "earth" not in {c.name for c in left_to_check(two.job, two.facts.connecting, False)}
    log += [{"kind": "step-ticked", "step": n} for n in ("count", "earth", "pinch")]
    after = judged(*log)
    assert after.next is not None
    assert (after.next.act, after.next.code) == ("low-run", "low-run")
    cut = judged(*log, {"kind": "parted", "leads": ["A"]})
    assert [c.name for c in left_to_check(cut.job, cut.facts.connecting, extras=False)] == [
        "count",
        "earth",
        "pinch",
    ]
    assert not cut.job.line_ohms  # what they proved is gone with the joint


GOOD_RUN = {"kind": "low-run", "volt": 115, "amp": [2.0, 2.05, 1.98], "turns": "smooth"}


def proved_log(*more: Body) -> list[Body]:
    ticks = [{"kind": "step-ticked", "step": n} for n in ("count", "earth", "pinch")]
    return [*done_log(), *ticks, *more]


def test_a_good_low_run_proves_it_and_the_tags_and_the_installer_come_last() -> None:
    tags = [
        {"kind": "voltage-tag", "place": p, "words": "230 V"} for p in ("lead box", "control end")
    ]
    found = judged(*proved_log(*tags, GOOD_RUN))
    by_code = {f.code: f for f in found.findings}
    assert by_code["low-run"].verdict == "good"
    assert (by_code["voltage-tags"].verdict, by_code["voltage-tags"].waivable) == ("hold", False)
    assert found.next is not None
    assert found.next.code == "voltage-tags"
    changed = [dict(t, words="460 V") for t in tags]
    after = judged(*proved_log(*tags, GOOD_RUN, *changed))
    assert {f.code: f for f in after.findings}["voltage-tags"].verdict == "good"
    assert after.next is not None
    assert after.next.code == "installer"
    names = ("amps", "overload", "fuse", "contactor", "cable", "transformer")
    told = [{"kind": "installer", "item": n} for n in names]
    waived = {"kind": "installer", "item": "drive", "state": "waived", "words": "none there"}
    last = judged(*proved_log(*tags, GOOD_RUN, *changed, *told, waived))
    assert {f.code: f for f in last.findings}["installer"].verdict == "good"


def test_the_installers_list_has_old_and_new_amps_and_the_overload() -> None:
    """9 A at 460 V where it was 18 A; 115 % without a service factor."""
    found = judged(*done_log())
    installer = next(f for f in found.findings if f.code == "installer")
    assert "Amps 9 A at 460 V (was 18 A)" in installer.why
    assert "Overload dial at 9 A" in installer.why
    assert "Cable at least 0.75 mm²" not in installer.why
    assert "Cable at least 1 mm² for 9 A" in installer.why


@pytest.mark.parametrize(
    ("seen", "verdict"),
    [
        ({"turns": "cw", "seen_from": "drive-end"}, "good"),
        ({"turns": "ccw", "seen_from": "opposite"}, "good"),
        ({"turns": "cw", "seen_from": "opposite"}, "hold"),
    ],
)
def test_the_direction_is_held_against_what_is_wanted_from_whichever_end(
    seen: dict[str, Any], verdict: str
) -> None:
    asked = [wish("rotation", "cw"), wish("seen-from", "drive-end")]
    log = proved_log(*asked, GOOD_RUN, {"kind": "turn-seen", **seen})
    found = {f.code: f for f in judged(*log).findings}["direction"]
    assert found.verdict == verdict
    if verdict == "hold":
        assert "Exchange L1 and L2: red T1 to L2, red T2 to L1" in found.why
        turned = judged(*log, wish("exchanged", "yes"), DEAD)
        assert turned.next is not None
        assert turned.next.act == "part"
        assert {"L1", "L2"} >= {n for n in turned.next.ends if n.startswith("L")}


def test_proof_of_no_volts_lapses_by_time_hands_and_power() -> None:
    job, s = judged(*FAN, DEAD).job, Settings()
    at = job.dead_proved.at if job.dead_proved else ""
    hour = at.replace("T08:", "T09:")
    assert lapsed(job, AtBench(at, "AB"), s) == ""
    assert "60 min ago" in lapsed(job, AtBench(hour, "AB"), s)
    assert "other hands" in lapsed(job, AtBench(at, "CD"), s)
    for years in ("2019", "2025"):  # a clock set back, an entry dated ahead of it
        assert "ahead of this one" in lapsed(job, AtBench(years + at[4:], "AB"), s)
    assert "Not proved" in lapsed(judged(*FAN).job, AtBench(), s)
    after = judged(*FAN, DEAD, GOOD_RUN).job
    assert "since it last had volts" in lapsed(after, AtBench(at, "AB"), s)
    log = change_log()
    stale = judge(job_of(*log, DEAD), s, bench=AtBench(hour, "AB"))
    assert stale.next is not None
    assert stale.next.act == "dead"


def test_marks_and_a_known_hookup_are_enough_for_a_plan_but_not_for_proof() -> None:
    marked = [b for b in FAN if b["kind"] != "reading"]
    found = judged(*marked, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY)
    state = found.facts.connecting
    assert state.by_marks
    assert state.now.before == "as found"
    assert state.plan is not None
    assert state.plan.connection.startswith("high volts")
    codes = {f.code: f.verdict for f in found.findings}
    assert codes["by-marks"] == "watch"
    assert codes["hookup"] == "hold"
    assert codes["leads-proven"] != "good"


def test_a_supply_that_was_read_is_named_and_held_against_what_was_said() -> None:
    def finding(code: str, **read: Any) -> Any:
        log = [*FAN, FAN_SUPPLY, {"kind": "supply-read", **read}]
        return next((f for f in judged(*log).findings if f.code == code), None)

    star = {"line": [460, 462, 458], "neutral": [266, 265, 266]}
    assert finding("supply", **star).verdict == "good"
    assert "star" in finding("supply", **star).why
    assert finding("supply-unbalance", **star).verdict == "good"
    other = {"line": [401, 400, 402], "neutral": [231, 232, 231]}
    assert "Measured volts" in finding("supply", **other).subject
    wide = {"line": [470, 460, 445]}
    assert finding("supply-unbalance", **wide).verdict == "watch"
    assert finding("supply-unbalance", **wide).figure == pytest.approx(2.91, abs=0.01)
    assert "feeds a dead line" in finding("supply-unbalance", **wide, running=True).why
    lost = {"line": [460, 230, 230], "neutral": [266, 266, 0]}
    assert finding("supply-unbalance", **lost).subject == "L3 is lost"
    assert not finding("supply-unbalance", **lost).waivable
    assert "unbalance" not in finding("supply-unbalance", **lost).subject


def test_a_lead_of_a_lines_colour_that_does_not_belong_to_it_is_told() -> None:
    own = Settings().changed({"schools": {"supply-colours": "red yellow blue"}})
    found = judged(*FAN, FAN_SUPPLY, settings=own)
    clash = next(f for f in found.findings if f.code == "colour-clash")
    assert "T2 is red as L1 is" in clash.why
    assert "T1 is red" not in clash.why


def test_on_a_terminal_board_the_links_move() -> None:
    six = "three-phase-6-lead"
    wye = {
        "kind": "stands-so",
        "joints": [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5", "T6"]],
    }
    state = state_of(six, "", "230/400", 230, wish("terminals", "board"), wye)
    assert {s.do for s in state.steps} == {"prepare", "move-link", "check", "retag"}
    assert math.isclose(sum(s.loose_after for s in state.steps), 0)


def test_a_joint_is_dressed_by_the_shops_own_lists() -> None:
    sized = {
        "kind": "leads",
        "leads": [
            {"tag": t, "marking": f"T{k}", "size": "4 mm²"} for k, t in enumerate("ABCDEFGHJ", 1)
        ],
    }
    found = judged(*change_log(), sized, wish("cable-mm2", "2.5"), DEAD)
    texts = [s.text for s in found.facts.connecting.steps if s.do in ("splice", "move-line")]
    assert any("8 mm² together: middle closed crimp, strip 10 mm" in t for t in texts)
    gauge = {**sized, "leads": [dict(lead, size="12 AWG") for lead in sized["leads"]]}  # type: ignore[attr-defined]
    thick = judged(*change_log(), gauge, DEAD)
    assert any("6.62 mm² together" in s.text for s in thick.facts.connecting.steps)  # 2 × 3.31 mm²


@pytest.mark.parametrize(
    ("volt", "told"),
    [
        ("230", "line and neutral (231 V)"),
        ("400", "two of its lines (400 V)"),
        ("115", "whichever"),
    ],
)
def test_a_single_phase_motor_is_told_which_volts_of_three_phases_are_its_own(
    volt: str, told: str
) -> None:
    """400 V between lines are 400/√3 = 231 V to neutral."""
    job = job_of(
        *plate(phases="1", volt=volt, hertz="50"),
        {"kind": "supply", "volt": 400, "hertz": 50, "phases": 3},
    )
    assert told in other_phases(job)
