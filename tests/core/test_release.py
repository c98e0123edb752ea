"""The gate: what nobody sets aside, the foreman, other ways out, work on site; no path lets an open hold go."""

from typing import Any

import pytest
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule

from careful_coil.core.condition.earlier import earlier_of
from careful_coil.core.errors import BadValue
from careful_coil.core.job.follow_up import follow_up
from careful_coil.core.ledger.gate import gate_list, way_out
from careful_coil.core.ledger.leaving import read_let_go, read_signature, read_waiver
from careful_coil.core.settings import Settings
from careful_coil.core.trial.meaning import pair_words
from tests.core.logs import LINES, RAN, SUPPLY, entries, judged, ohm, plate, ticket
from tests.core.played import Body
from tests.core.test_ledger import READY
from tests.core.test_trial import END, GOOD, begun, step

SIGNED = {"kind": "released", "signed": "AB"}


def waive(code: str, second: str = "CD") -> Body:
    return {"kind": "waived", "code": code, "reason": "seen", "second": second}


NEVER = [
    (
        "insulation",
        {"kind": "insulation", "megohm": 0.3, "at_c": 20, "test_volt": 500, "parts": ["A", "D"]},
    ),
    ("earth-bond", {"kind": "earth-bond", "ohm": 0.9, "place": "frame"}),
    ("temporary", {"kind": "temporary", "name": "T1", "words": "clip lead"}),
    ("hookup", {"kind": "joint", "joint": ["L1", "E"]}),
    ("line-ohms", {"kind": "line-ohm", "lines": ["L1", "L2"], "value": "9.9"}),
]


@pytest.mark.parametrize(("code", "bad"), NEVER, ids=[c for c, _ in NEVER])
def test_what_can_hurt_is_set_aside_by_nobody(code: str, bad: Body) -> None:
    found = judged(*READY, bad, waive(code), waive("open-again"), SIGNED)
    assert code in {f.code for f in found.gate}
    assert not found.released


def test_a_line_that_may_is_set_aside_and_stands_in_the_list_with_who_and_why() -> None:
    log = [b for b in READY if b.get("item") != "mechanics"]
    open_one = judged(*log)
    assert "mechanics" in {f.code for f in open_one.gate}
    done = judged(*log, waive("mechanics"))
    assert "mechanics" not in {f.code for f in done.gate}
    told = {f.code: (state, by) for state, f, by in gate_list(done.job, done.findings, Settings())}
    assert told["mechanics"] == ("waived", "CD: seen")
    assert told["insulation"][0] == "good"


def test_where_the_shop_names_a_foreman_only_the_foreman_sets_aside() -> None:
    log = [b for b in READY if b.get("item") != "mechanics"]
    own = Settings().changed({"foreman": "EF"})
    assert "mechanics" in {f.code for f in judged(*log, waive("mechanics"), settings=own).gate}
    by_foreman = judged(*log, waive("mechanics", "ef"), settings=own)
    assert "mechanics" not in {f.code for f in by_foreman.gate}
    assert Settings().changed(own.told()) == own


@pytest.mark.parametrize(
    ("how", "words"), [("unrepaired", "returned unrepaired"), ("scrap", "scrap")]
)
def test_another_way_out_has_no_gate_and_is_no_release(how: str, words: str) -> None:
    bad = NEVER[0][1]
    found = judged(*READY, bad, {"kind": "let-go", "how": how, "reason": "too costly"}, SIGNED)
    assert way_out(found.job) == words
    assert not found.released
    assert found.state == f"{words}: do not connect"
    assert found.next is None
    back = judged(*READY, bad, {"kind": "let-go", "how": how}, {"kind": "let-go", "how": ""})
    assert back.gate


UNRUN = READY[: -len(RAN)]
BY_SITE = [
    {"kind": "site-checked", "item": i, "words": words}
    for i, words in (
        ("phase-order", "L1 L2 L3"),
        ("amps", "6.1/6.2/6.1 A"),
        ("volts", "398/399/400 V"),
    )
]
ON_SITE = {"kind": "on-site"}


def test_a_visit_has_its_own_list_and_what_is_bad() -> None:
    visit = [*ticket(name="Mill"), *plate(phases="3", volt="400", hertz="50", amp="6.4")]
    codes = {f.code for f in judged(*visit, ON_SITE).gate}
    assert {"site-phase-order", "site-amps", "site-volts", "site-bond", "site-ohms"} <= codes
    assert not codes & {"mechanics", "test-run", "earth-bond", "leads-proven"}
    bad = judged(*visit, ON_SITE, *BY_SITE, NEVER[2][1])
    assert "temporary" in {f.code for f in bad.gate}


def test_moved_on_site_nothing_is_dropped_once_the_bench_has_worked_on_it() -> None:
    half = [b for b in READY if b.get("item") != "mechanics"]
    assert {f.code for f in judged(*half, ON_SITE, *BY_SITE).gate} == {"mechanics"}
    assert not judged(*READY, ON_SITE, *BY_SITE).gate
    alone = {f.code for f in judged(*READY, ON_SITE).gate}
    assert alone == {"site-phase-order", "site-amps", "site-volts"}


def test_a_follow_up_carries_the_motor_and_not_what_was_done_to_it() -> None:
    log = entries(*READY, {"kind": "struck", "target": "e1"})
    bodies = follow_up("job-1", 214, log)
    kinds = [b.topic for b in bodies]
    assert kinds[0] == "follows-up"
    assert set(kinds) <= {"follows-up", "ticket", "plate", "leads"}
    assert "leads" in kinds
    again = judged(*(b.model_dump() for b in bodies))
    assert again.job.follows is not None
    assert (again.job.follows.number, again.released) == (214, False)


POOL: list[Body] = [
    *(bad for _, bad in NEVER),
    *(
        waive(code)
        for code in (
            "insulation",
            "earth-bond",
            "temporary",
            "hookup",
            "mechanics",
            "test-run",
            "open-again",
        )
    ),
    {"kind": "temporary", "name": "T1", "words": "clip lead", "cleared": "taken off"},
    {"kind": "work", "what": "varnished"},
    {"kind": "covers"},
    {"kind": "covers", "on": False},
    {"kind": "earth-bond", "ohm": 0.03, "place": "frame"},
    {"kind": "attested", "item": "test-run", "words": "equal amps"},
    {"kind": "let-go", "how": "scrap", "reason": "burnt"},
    {"kind": "let-go", "how": ""},
    {"kind": "on-site"},
    {"kind": "on-site", "on": False},
    {"kind": "trial-begun", "covers": "off"},
    {"kind": "trial-start", "volt": 400, "outcome": "stalled", "seconds": 4},
    {"kind": "trial-begun", "covers": "on"},
    {"kind": "trial-begun", "load": "locked"},
    {"kind": "trial-step", "volt": [400], "amp": [2.6, 2.6, 2.6], "rpm": 1494},
    {"kind": "trial-step", "volt": [400], "amp": [2.6, 2.6, 0.0]},
    {"kind": "trial-heard", "what": "smoke", "text": "end bell"},
    {"kind": "site-checked", "item": "amps", "words": "6.1/0.0/6.1 A"},
    {"kind": "trial-ended"},
    {"kind": "parted", "leads": ["A"]},
    {"kind": "joint", "joint": ["L1", "A"]},
    {"kind": "supply-read", "line": [400, 200, 210]},
    SUPPLY,
    *LINES,
    ohm("AD", "9.9"),
    SIGNED,
]


class Paths(RuleBasedStateMachine):
    """Any entries in any order, strikes too."""

    def __init__(self) -> None:
        super().__init__()
        self.log: list[Body] = []

    @initialize(ready=st.booleans())
    def begin(self, ready: bool) -> None:
        self.log = list(READY) if ready else list(READY[: len(READY) // 2])

    @rule(body=st.sampled_from(POOL))
    def enter(self, body: Body) -> None:
        self.log.append(body)

    @rule(back=st.integers(1, 12))
    def strike(self, back: int) -> None:
        target = f"e{max(len(self.log) - back + 1, 1)}"
        self.log.append({"kind": "struck", "target": target})

    @rule()
    def sign(self) -> None:
        self.log.append(SIGNED)

    @invariant()
    def nothing_leaves_with_a_hold_open(self) -> None:
        if not self.log or self.log[-1]["kind"] not in ("released", "waived", "struck", "let-go"):
            return
        found = judged(*self.log)
        if not found.released:
            return
        waived: dict[str, Any] = found.job.waived or {}
        for f in found.findings:
            if f.verdict == "hold":
                assert f.waivable
                assert f.code in waived
        assert not found.gate


TestPaths = Paths.TestCase
TestPaths.settings = hypothesis_settings(max_examples=25, stateful_step_count=14, deadline=None)


OPEN = [b for b in READY if b.get("item") != "mechanics"]


def test_a_waiver_is_typed_as_code_initials_and_reason() -> None:
    found = judged(*OPEN)
    body = read_waiver("mechanics CD oiled, runs free", found, "AB", Settings())
    assert (body.code, body.second, body.reason) == ("mechanics", "CD", "oiled, runs free")
    own = Settings().changed({"foreman": "EF"})
    assert read_waiver("mechanics ef oiled", found, "AB", own).second == "ef"


@pytest.mark.parametrize(
    ("text", "words", "foreman"),
    [
        ("", "a code", ""),
        ("mechanics", "a code", ""),
        ("mechanics CD", "a code", ""),
        ("nothing CD oiled", r"a code \(mechanics\)", ""),
        (f"mechanics {'C' * 41} oiled", "a code", ""),
        ("mechanics ab oiled", "second person", ""),
        ("mechanics CD oiled", "EF: this shop's foreman", "EF"),
    ],
)
def test_a_waiver_that_cannot_stand_says_why(text: str, words: str, foreman: str) -> None:
    own = Settings().changed({"foreman": foreman}) if foreman else Settings()
    with pytest.raises(BadValue, match=words):
        read_waiver(text, judged(*OPEN), "AB", own)


def test_what_can_hurt_cannot_even_be_typed_as_set_aside() -> None:
    for code, bad in NEVER:
        with pytest.raises(BadValue, match="never waived"):
            read_waiver(f"{code} CD seen", judged(*READY, bad), "AB", Settings())


def test_another_way_out_and_the_signature_are_read() -> None:
    assert read_let_go("Scrap core burnt").model_dump()["reason"] == "core burnt"
    assert read_let_go("").how == ""
    for text in ("scrap", "sold cheap"):
        with pytest.raises(BadValue, match="unrepaired or scrap"):
            read_let_go(text)
    assert read_signature("AB", judged(*READY)).signed == "AB"
    gone = judged(*READY, {"kind": "let-go", "how": "scrap", "reason": "burnt"})
    for text, found, words in (
        ("AB", judged(*OPEN), "bearings and shaft not judged"),
        ("AB", gone, "let go unrepaired"),
        ("", judged(*READY), "initials"),
        ("A" * 41, judged(*READY), "at most 40"),
    ):
        with pytest.raises(BadValue, match=words):
            read_signature(text, found)


def test_a_later_run_stands_beside_the_last_of_this_motors_earlier_job() -> None:
    found = judged(*UNRUN, *begun(), GOOD, END)
    kept = earlier_of(
        206, found.job, found.facts.identification, found.facts.naming, found.facts.wall, Settings()
    ).model_dump()
    assert len(kept["run"]) == 1
    later = judged(*UNRUN, kept, *begun(), step("400 V 2.6/2.6/2.7 A 260 W 1490 rpm"), END)
    words = list(pair_words(later.job, later.facts.start_way))
    assert words[0] == "Between them: the time since job 206."
    assert "watt: 190 → 260 W, +37 %: more than two readings of one thing differ." in words
    alone = judged(*UNRUN, *begun(), GOOD, END)
    assert list(pair_words(alone.job, alone.facts.start_way)) == []
    both = judged(*UNRUN, kept, *begun(), GOOD, END, *begun("on"), GOOD, END)
    assert next(iter(pair_words(both.job, both.facts.start_way))) == "Between them: covers put on."
