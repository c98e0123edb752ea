"""What voids what, over random logs: a fact that is void at the end keeps the gate shut; proven anew it opens.

The table here is written down again from the law, by hand: it is what the program's own table is held to.
"""

from collections.abc import Sequence

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from careful_coil.core.job import fold
from careful_coil.core.job.voids import FACTS, VOIDS
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.settings import Settings
from careful_coil.documents.job import read_job
from tests.core.test_gear_rules import GOOD_CAN
from tests.gate.careful import (
    COVERS_OFF,
    COVERS_ON,
    IDLE,
    SIGNED,
    Body,
    bearing,
    bonds,
    checked,
    document,
    felt,
    insulated,
    joint,
    line,
    sheet,
    step,
    three_low,
    three_phase,
    three_read,
    three_run,
)

LINES = [line(p, "5.20") for p in ("L1-L2", "L1-L3", "L2-L3")]
OUT: Body = {"kind": "part-off", "part": "rotor"}
SMOKE: Body = {"kind": "trial-heard", "what": "smoke", "text": "from the end bell"}

# what hands and volts did → what must be proven again
DEEDS: dict[str, tuple[list[Body], set[str]]] = {
    "a joint remade": (
        [{"kind": "parted", "leads": ["A"]}, joint("L1", "A")],
        {"line-ohms", "insulation", "checks", "low-run", "runs"},
    ),
    "a lead sleeved": (
        [{"kind": "lead-mended", "tag": "B", "how": "sleeved"}],
        {"insulation", "ohms-B", "runs"},
    ),
    "washed": ([{"kind": "work", "what": "cleaned"}], {"insulation", "runs"}),
    "dried": (
        [{"kind": "drying", "act": "begin"}, {"kind": "drying", "act": "end"}],
        {"insulation", "runs"},
    ),
    "varnished": (
        [{"kind": "work", "what": "varnished"}],
        {"shaft", "bond", "insulation", "runs"},
    ),
    "a bearing renewed": (
        bearing("drive", done="renewed", fitted="6205-2Z"),
        {"shaft", "runs"},
    ),
    "the rotor out": ([OUT, OUT | {"back": True}], {"shaft", "insulation", "runs"}),
    "covers off and on": ([COVERS_OFF, COVERS_ON], {"bond", "insulation", "runs"}),
    "stood": (
        [{"kind": "sum", "name": "x", "inputs": {}, "words": "", "wait": 45}],
        {"insulation", "shaft", "runs"},
    ),
    "smoke": (
        sheet(step(400.0, IDLE, minute=1.0), SMOKE),
        {"cause", "insulation", "ohms", "runs"},
    ),
}
# what proves it
PROOFS: dict[str, tuple[list[Body], set[str]]] = {
    "line ohms": (LINES, {"line-ohms", "ohms-B", "ohms"}),
    "checks": (checked(), {"checks"}),
    "low run": (three_low(), {"low-run"}),
    "felt": (felt(feel="free"), {"shaft"}),
    "insulation": (insulated("ABCDEF"), {"insulation"}),
    "bonds": (bonds(), {"bond"}),
    "run": (three_run(30.0), {"runs"}),
    "cause": ([{"kind": "cause-found", "cause": "turn-short"}], {"cause"}),
}
AGAIN = [b for name in PROOFS for b in PROOFS[name][0]]
MANY = settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))


def judged(bodies: Sequence[Body]) -> Judgement:
    return judge(fold(read_job(document(bodies)).entries), Settings())


def void_after(names: Sequence[str]) -> set[str]:
    """Return what is void after these, one after the other."""
    void: set[str] = set()
    for name in names:
        if name in DEEDS:
            void |= DEEDS[name][1]
        else:
            void -= PROOFS[name][1]
    return void


def log_of(names: Sequence[str]) -> list[Body]:
    done = [b for n in names for b in (DEEDS.get(n) or PROOFS[n])[0]]
    return [*three_phase()[:-1], *done]


@given(st.lists(st.sampled_from([*DEEDS, *PROOFS]), max_size=7))
@MANY
def test_what_is_void_at_the_end_keeps_the_gate_shut(names: list[str]) -> None:
    found = judged([*log_of(names), SIGNED])
    void = void_after(names)
    if void:
        assert not found.released, (names, void)
        assert found.gate
    worked = any(n in ("varnished", "a bearing renewed") for n in names)
    if not void and "smoke" not in names and not worked:
        assert found.released, (names, [(f.code, f.why) for f in found.gate])


@given(st.lists(st.sampled_from([*DEEDS]), max_size=4))
@MANY
def test_everything_proven_anew_opens_it_again(names: list[str]) -> None:
    found = judged([*log_of(names), *AGAIN, SIGNED])
    assert found.released, (names, [(f.code, f.subject, f.why) for f in found.gate])


@pytest.mark.parametrize("deed", DEEDS)
def test_the_gate_says_again_and_why(deed: str) -> None:
    gate = judged(log_of([deed])).gate
    again = [f for f in gate if f.subject.startswith("Again")]
    assert again, [(f.code, f.subject) for f in gate]
    assert all(f.verdict == "unproven" and f.why for f in gate if f.code != "trial-smoke")


@given(
    st.sampled_from(sorted(set(DEEDS) - {"stood"})), st.sampled_from(["insulation", "bonds", "run"])
)
@MANY
def test_a_proof_older_by_the_clock_counts_for_nothing_wherever_it_came_in(
    deed: str, proof: str
) -> None:
    facts = DEEDS[deed][1] & PROOFS[proof][1]
    if not facts:
        return
    rest = [b for n in PROOFS if n != proof for b in PROOFS[n][0]]
    old = [b | {"at": "2026-03-01T08:30:30Z"} for b in PROOFS[proof][0]]
    found = judged([*log_of([deed]), *rest, *old, SIGNED])
    assert not found.released, (deed, proof)


@given(st.sampled_from(sorted(PROOFS)), st.booleans())
@MANY
def test_a_struck_proof_proves_nothing(proof: str, after: bool) -> None:
    """Strikes take proofs away and give none back: the last proof of a voided fact, struck, leaves it void."""
    fact = PROOFS[proof][1]
    deeds = [d for d in DEEDS if DEEDS[d][1] & fact]
    bodies = [b | {"id": f"p{k}"} for k, b in enumerate(PROOFS[proof][0])]
    rest = [b for n in PROOFS if n != proof for b in PROOFS[n][0]]
    strikes: list[Body] = [
        {"kind": "struck", "target": f"p{k}", "reason": "mistake"} for k in range(len(bodies))
    ]
    told = [*bodies, *rest, *strikes] if after else [*bodies, *strikes, *rest]
    found = judged([*log_of(deeds[:1]), *told, SIGNED])
    others = set().union(*(PROOFS[n][1] for n in PROOFS if n != proof))
    if deeds and DEEDS[deeds[0]][1] & fact - others:
        assert not found.released


def test_the_table_is_whole() -> None:
    for name, row in VOIDS.items():
        assert row.again, name
        assert {*row.again, *row.own} <= set(FACTS), name
        assert row.words
    for deed, facts in (("joint", "line-ohms"), ("rewound", "readings"), ("covers", "bond")):
        assert facts in VOIDS[deed].again


def test_rewound_everything_electrical_is_asked_anew() -> None:
    found = judged([*three_phase()[:-1], {"kind": "work", "what": "rewound"}])
    assert found.job.readings == ()
    assert found.job.joints == ()
    codes = {f.code for f in found.gate}
    assert {"leads-proven", "insulation", "high-potential", "hookup", "test-run"} <= codes
    kept = judged([*three_phase()[:-1], {"kind": "work", "what": "rewound"}, *three_read("1.31")])
    assert "leads-proven" not in {f.code for f in kept.gate}


def test_two_kicks_and_three_equal_amps_prove_what_a_closing_kick_would() -> None:
    log = [*three_phase()]
    closing = next(
        k for k in range(len(log) - 1, -1, -1) if log[k].get("reading", {}).get("kind") == "kick"
    )
    two = judged([b for k, b in enumerate(log) if k != closing])
    assert two.facts.naming.word == "kicked"
    assert two.released
    unequal = [
        {**b, "amp": [0.9, 0.9, 0.6]} if b.get("kind") == "low-run" else b
        for k, b in enumerate(log)
        if k != closing
    ]
    assert "leads-proven" in {f.code for f in judged(unequal).gate}


@pytest.mark.parametrize(("days", "verdict"), [(45, "good"), (400, "unproven")])
def test_a_capacitor_that_stood_for_a_year_is_measured_again(days: int, verdict: str) -> None:
    """Its oxide goes and it dries: µF that were right a year ago prove nothing (shop practice)."""
    waited: Body = {"kind": "sum", "name": "x", "inputs": {}, "words": "", "wait": days}
    (line,) = (f for f in judged([*GOOD_CAN, waited]).findings if f.code == "capacitor")
    assert line.verdict == verdict
