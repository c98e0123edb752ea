"""Hookups for a supply, and where a job's connecting stands."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.connect import Plan, Plate, plan
from careful_coil.core.connect.plans import which_plan
from careful_coil.core.errors import BadValue, CannotConnect
from careful_coil.core.ledger.entry_line import Typed
from careful_coil.core.ledger.take import Taking, taken_each
from careful_coil.core.probes.probe import Request
from careful_coil.core.settings import Settings
from careful_coil.core.ways import plans_of
from tests.core.logs import (
    GROUPS,
    HANDS,
    JOINED,
    LINES,
    METER,
    SIX_LEADS,
    SUPPLY,
    WYE,
    job_of,
    judged,
    leads,
    ohm,
    plate,
    ticket,
    walls,
)

NINE, SIX = "three-phase-9-lead-wye", "three-phase-6-lead"
DUAL = Plate(((230, 230), (460, 460)), 60)
EURO = Plate(((230, 230), (400, 400)), 50)


@pytest.mark.parametrize(
    ("slug", "rated", "supply", "joints"),
    [
        (
            NINE,
            DUAL,
            460,
            [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T7"], ["T5", "T8"], ["T6", "T9"]],
        ),
        (
            NINE,
            DUAL,
            480,
            [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T7"], ["T5", "T8"], ["T6", "T9"]],
        ),
        (
            NINE,
            DUAL,
            240,
            [["L1", "T1", "T7"], ["L2", "T2", "T8"], ["L3", "T3", "T9"], ["T4", "T5", "T6"]],
        ),
        (SIX, EURO, 400, WYE),
        (SIX, EURO, 230, [["L1", "T1", "T6"], ["L2", "T2", "T4"], ["L3", "T3", "T5"]]),
    ],
)
def test_joints_are_those_of_the_standard(
    slug: str, rated: Plate, supply: float, joints: list[list[str]]
) -> None:
    """NEMA MG 1 terminal markings."""
    found = plan(slug, rated, supply)
    assert {frozenset(j) for j in found.joints} == {frozenset(j) for j in joints}


def direct(slug: str) -> list[Plan]:
    """Return the hookups without a special start, lower volts first."""
    return [p for p in plans_of(slug) if p.start == "direct"]


@pytest.mark.parametrize(
    ("slug", "rank", "factor"),
    [(SIX, 1, 2.0), (SIX, 0, 2 / 3), (NINE, 1, 4.0), (NINE, 0, 1.0)],
)
@given(coil=st.floats(0.05, 50.0))
def test_line_ohms_come_from_the_network(slug: str, rank: int, factor: float, coil: float) -> None:
    """Wye 2r, delta ⅔r, nine leads high 4r, low r."""
    lines = direct(slug)[rank].line_ohm(coil)
    assert set(lines) == {"L1-L2", "L1-L3", "L2-L3"}
    assert list(lines.values()) == pytest.approx([factor * coil] * 3, rel=1e-9)


def test_every_lead_of_a_plan_is_in_one_joint() -> None:
    for slug in (SIX, NINE):
        for found in plans_of(slug):
            names = list(itertools.chain(*found.joints))
            assert len(names) == len(set(names))
            assert sum(n.startswith("T") for n in names) == (6 if slug == SIX else 9)


@pytest.mark.parametrize(("volt", "torque"), [(208, "0.82"), (250, "1.18")])
def test_at_the_edge_the_torque_is_said(volt: float, torque: str) -> None:
    found = plan(NINE, DUAL, volt)
    assert any(torque in n for n in found.notes)


def test_a_range_on_the_plate_covers_what_lies_in_it() -> None:
    wide = Plate(((208, 230), (460, 460)), 60)
    assert plan(NINE, wide, 208).notes == ()


def test_another_frequency_is_remarked_with_volts_per_hertz() -> None:
    found = plan(NINE, DUAL, 460, 50)
    assert any("50 Hz on a 60 Hz plate" in n for n in found.notes)


@pytest.mark.parametrize(
    ("rated", "supply", "words"),
    [
        (DUAL, 120, "off the nearest rating"),
        (DUAL, 345, "off the nearest rating"),
        (Plate(((460, 460),)), 460, "one rating"),
        (Plate(((230, 230), (400, 400))), 230, "Look at the plate again"),
        (Plate(((208, 208), (230, 230), (460, 460))), 460, "3 ratings"),
    ],
)
def test_a_supply_it_cannot_take_is_refused_with_the_reason(
    rated: Plate, supply: float, words: str
) -> None:
    with pytest.raises(CannotConnect, match=words):
        plan(NINE, rated, supply)


@given(st.permutations(["L1", "L2", "L3"]))
def test_the_present_hookup_is_known_whichever_line_goes_where(lines: list[str]) -> None:
    swap = dict(zip(("L1", "L2", "L3"), lines, strict=True))
    for found in direct(NINE):
        joints = [tuple(swap.get(n, n) for n in j) for j in found.joints]
        again = which_plan(NINE, joints)
        assert again is not None
        assert again.connection == found.connection


def test_a_mixed_hookup_is_neither() -> None:
    joints = [("L1", "T1", "T7"), ("L2", "T2"), ("L3", "T3"), ("T5", "T8"), ("T6", "T9")]
    assert which_plan(NINE, joints) is None


def verdict(code: str, *bodies: dict[str, object]) -> tuple[str, str]:
    found = next(f for f in judged(*SIX_LEADS, *walls(*GROUPS), *bodies).findings if f.code == code)
    return found.verdict, found.subject


def test_joints_are_counted_and_the_missing_one_comes_next() -> None:
    found = judged(*SIX_LEADS, *HANDS, *walls(*GROUPS), SUPPLY, *JOINED[:2], DEAD)
    assert verdict("hookup", SUPPLY, *JOINED[:2]) == ("unproven", "2 of 4 joints made")
    assert found.next is not None
    assert (found.next.act, set(found.next.ends)) == ("joint", {"T4", "T5", "T6"})


def test_a_joint_the_plan_does_not_have_is_a_hold_that_cannot_be_waived() -> None:
    found = judged(
        *SIX_LEADS, *walls(*GROUPS), SUPPLY, *JOINED, {"kind": "joint", "joint": ["L1", "E"]}
    )
    hookup = next(f for f in found.findings if f.code == "hookup")
    assert hookup.verdict == "hold"
    assert not hookup.waivable
    assert "L1 to E (T5)" in hookup.subject


@pytest.mark.parametrize(
    ("values", "expected"),
    [
        (("5.20", "5.21", "5.20"), "good"),
        (("5.20", "5.20", "5.55"), "hold"),
        (("5.20", "5.20", "open"), "hold"),
        (("5.20", "5.20"), "unproven"),
    ],
)
def test_line_ohms_prove_the_joints(values: tuple[str, ...], expected: str) -> None:
    lines = [dict(row, value=v) for row, v in zip(LINES, values, strict=False)]
    found, _ = verdict("line-ohms", SUPPLY, *JOINED, *lines)
    assert found == expected


def test_the_next_line_pair_says_what_it_must_read() -> None:
    found = judged(*SIX_LEADS, *HANDS, *walls(*GROUPS), SUPPLY, *JOINED, LINES[0])
    assert found.next is not None
    assert (found.next.act, found.next.ends) == ("line", ("L1", "L3"))
    assert "5.2" in found.next.why


FAN = [
    *HANDS,
    *ticket(name="Fan"),
    *plate(phases="3", volt="230/460", hertz="60", amp="18/9"),
    leads(*(f"{t} red T{k}" for k, t in enumerate("ABCDEFGHJ", 1))),
    METER,
    *(ohm(p, "0.51") for p in ("AD", "BE", "CF")),
    *(ohm(p, "1.02") for p in ("GH", "GJ", "HJ")),
    *(ohm(p, "open") for p in ("AB", "AC", "BC", "AG", "BG", "CG")),
    {
        "kind": "found-hookup",
        "joints": [["L1", "A", "G"], ["L2", "B", "H"], ["L3", "C", "J"], ["D", "E", "F"]],
    },
]
DEAD = {"kind": "proved-dead", "volt": 0.0}
FAN_SUPPLY = {"kind": "supply", "volt": 460, "hertz": 60, "phases": 3, "measured": False}


STANDS = {"kind": "stands-so", "joints": FAN[-1]["joints"]}


def test_found_joined_for_another_voltage_is_a_hold_and_names_both() -> None:
    found = judged(*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY, STANDS)
    hookup = next(f for f in found.findings if f.code == "hookup")
    assert hookup.verdict == "hold"
    assert "low volts" in hookup.why
    assert "high volts" in hookup.why


def test_where_the_volts_change_an_unmeasured_supply_and_old_tags_keep_the_gate_shut() -> None:
    gate = {f.code for f in judged(*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY).gate}
    assert {"supply", "voltage-tags"} <= gate
    measured = judged(*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY | {"measured": True})
    assert "supply" not in {f.code for f in measured.gate}


def test_a_joint_says_what_must_come_off_first() -> None:
    fan = [*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY, STANDS]
    asked = judged(*fan).next
    assert asked is not None
    assert asked.act == "dead"
    found = judged(*fan, DEAD)
    assert found.next is not None
    assert found.next.act == "part"
    assert "out of the joint" in found.next.why
    out = {"kind": "parted", "leads": list(found.facts.connecting.by_tag(found.next.ends))}
    after = judged(*fan, DEAD, out)
    assert after.next is not None
    assert after.next.ends != found.next.ends


def test_leads_that_were_read_one_by_one_are_no_longer_joined_as_found() -> None:
    found = judged(*FAN, *walls("AD", "BE", "CF", "GHJ"), FAN_SUPPLY)
    hookup = next(f for f in found.findings if f.code == "hookup")
    assert hookup.verdict == "unproven"
    assert hookup.why.endswith("9 leads loose now.")
    assert found.facts.connecting.now.before == "apart"


def test_marks_that_the_ohms_bear_out_name_the_leads_but_the_run_decides() -> None:
    found = judged(*FAN)
    assert found.facts.naming.word == "marked"
    assert found.facts.naming.names["G"] == "T7"
    proven = next(f for f in found.findings if f.code == "leads-proven")
    assert proven.verdict == "unproven"
    word = {"kind": "attested", "item": "test-run", "words": "three equal amps"}
    ran = judged(*FAN, word)  # no word stands for a run
    assert next(f for f in ran.findings if f.code == "leads-proven").verdict == "unproven"


def test_marks_that_the_ohms_contradict_are_said_and_not_followed() -> None:
    wrong = leads(
        *(f"{t} red T{k}" for k, t in zip((1, 2, 3, 4, 5, 7, 6, 8, 9), "ABCDEFGHJ", strict=True))
    )
    found = judged(*FAN, wrong)
    assert found.facts.naming.word == "guess"
    assert "marks-contradicted" in {f.code for f in found.findings}


def test_all_line_pairs_may_be_typed_in_one_line() -> None:
    found = judged(*SIX_LEADS, *HANDS, *walls(*GROUPS), SUPPLY, *JOINED)
    line = Request(kind="line", ends=("L1", "L2"))
    at = Taking(judged=found, settings=Settings())
    told = taken_each(Typed(line, "5.20/5.21/5.19"), at)
    assert [(b.lines, b.value) for b in told] == [  # type: ignore[union-attr]
        (("L1", "L2"), "5.20 Ω"),
        (("L1", "L3"), "5.21 Ω"),
        (("L2", "L3"), "5.19 Ω"),
    ]
    with pytest.raises(BadValue, match="L1 to L2, L1 to L3, L2 to L3"):
        taken_each(Typed(line, "5.20/5.21"), at)


def test_what_must_be_read_counts_the_test_leads_and_a_wrong_pair_takes_the_next_reading() -> None:
    log = [b | {"lead_ohm": 0.2} if b["kind"] == "meter" else b for b in SIX_LEADS]
    base = (*log, *HANDS, *walls(*GROUPS), SUPPLY, *JOINED)
    step = judged(*base).next
    assert step is not None
    assert "4.81 Ω, 5.01 Ω on the meter with its leads" in step.why
    wrong = judged(
        *base, *(dict(row, value=v) for row, v in zip(LINES, ("5", "5", "9"), strict=True))
    )
    assert wrong.next is not None
    assert (wrong.next.code, wrong.next.act, wrong.next.ends) == ("line-ohms", "line", ("L2", "L3"))


def test_a_motor_of_one_phase_is_not_put_on_three() -> None:
    found = judged(*SIX_LEADS, SUPPLY | {"phases": 1})
    assert found.facts.connecting.plan is None
    assert "phase" in found.facts.connecting.why


def test_unknown_meter_leads_are_allowed_for_on_the_lines() -> None:
    log = [b for b in SIX_LEADS if b["kind"] != "meter"]
    lines = [dict(row, value="5.5") for row in LINES]
    found = judged(*log, *walls(*GROUPS), SUPPLY, *JOINED, *lines)
    state = found.facts.connecting
    assert state.lead_unknown == 0.5
    assert state.expected == pytest.approx(
        dict.fromkeys(("L1-L2", "L1-L3", "L2-L3"), 5.2), rel=0.01
    )
    line = next(f for f in found.findings if f.code == "line-ohms")
    assert (
        line.verdict == "hold"
    )  # two coils in series read what each shows less the leads, never more
    assert job_of(*log).meter.lead_ohm is None
