"""The low run: every slip that it can show is not called good, the fitting one is named, coverage counted."""

import random
from dataclasses import replace

import pytest

from careful_coil.bench.low_run import run_of
from careful_coil.core.connect.hookup import Hookup
from careful_coil.core.connect.low_run import (
    clamps_judged,
    expected_run,
    fitting_slips,
    judged_run,
    parallel_leads,
)
from careful_coil.core.connect.slips import Likely, likely_slips
from careful_coil.core.connect.what_if import asked, coverage, planned_tests, what_if, worst_first
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_connect import LowRun
from careful_coil.core.probes import PROBES, Typing
from careful_coil.core.probes.probe import Request
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import FOUR, RUN, START, SWITCH
from careful_coil.core.ways.way import Joint, Plan
from tests.core.test_hookup import DELTA9, NINE, SIX, TWELVE, right

AMP = 9.0
HOOKUPS = [
    (SIX, 400),
    (SIX, 230),
    (NINE, 460),
    (NINE, 230),
    (DELTA9, 460),
    (DELTA9, 230),
    (TWELVE, 460),
]


def shown(hookup: Hookup, joints: tuple[Joint, ...], seed: int = 1) -> LowRun:
    """Return what the simulated bench shows of a motor of one ohm coils with these joints."""
    quarter = hookup.supply.volt / 4
    turns, amps, way, _ = run_of(
        hookup.inside().with_ohm({c.name: 2.0 for c in hookup.inside().coils}),
        joints,
        (),
        (3, quarter, hookup.supply.hertz),
        "alternate",
    )
    chance = random.Random(seed)
    read = [a * chance.gauss(1, 0.005) for a in amps.values()]
    return LowRun.model_validate({"volt": quarter, "amp": read, "turns": turns, "way": way})


def clamps(hookup: Hookup, joints: tuple[Joint, ...]) -> dict[str, float]:
    """Return the amps in each lead as a clamp on it shows them."""
    inside = hookup.inside().with_ohm({c.name: 2.0 for c in hookup.inside().coils})
    *_, leads = run_of(inside, joints, (), (3, hookup.supply.volt / 4, 60.0), "alternate")
    return leads


@pytest.mark.parametrize(("slug", "volt"), HOOKUPS)
def test_the_right_hookup_runs_good_and_no_slip_the_run_can_show_is_called_good(
    slug: str, volt: float
) -> None:
    hookup, plan = right(slug, volt)
    good = judged_run(shown(hookup, plan.joints), hookup, plan, None, 10)
    assert good.verdict == "good", good.words
    tried = called_good = named = 0
    for likely in likely_slips(hookup, plan):
        if likely.slip is None or not likely.run_shows:
            continue
        run = shown(hookup, likely.slip.done_to(plan.joints), tried)
        told = judged_run(run, hookup, plan, None, 10)
        tried += 1
        clamped = clamps(hookup, likely.slip.done_to(plan.joints))
        split = all(v == "good" for _, v, _ in clamps_judged(clamped, hookup, plan, 10))
        called_good += told.verdict == "good" and run.way != "ccw" and split
        named += likely.title in {f.title for f in told.fits}
    assert tried > 10
    assert called_good == 0
    assert named >= 0.9 * tried


def test_a_coil_turned_round_is_seen_by_the_run_and_not_by_ohms_and_is_named() -> None:
    hookup, plan = right(NINE, 460)
    slip = next(s for s in likely_slips(hookup, plan) if s.slip and s.slip.kind == "coil-reversed")
    assert not slip.ohms_show
    assert slip.slip is not None
    told = judged_run(shown(hookup, slip.slip.done_to(plan.joints)), hookup, plan, None, 10)
    assert told.verdict == "hold"
    assert slip.title in told.words


@pytest.mark.parametrize(
    ("run", "verdict", "words"),
    [
        ({"volt": 115, "amp": [2, 2, 2], "turns": "smooth"}, "good", "smooth"),
        ({"volt": 115, "amp": [2, 2, 0.01], "turns": "smooth"}, "hold", "No amps in L3"),
        ({"volt": 115, "amp": [0, 0, 0], "turns": "none"}, "hold", "No amps"),
        ({"volt": 115, "amp": [2, 2, 2.6], "turns": "smooth"}, "hold", "from their mean"),
        ({"volt": 115, "amp": [2, 2, 2], "turns": "rough"}, "hold", "turns rough"),
        ({"volt": 115, "amp": [2, 2, 2], "turns": "none"}, "hold", "not at all"),
        ({"volt": 230, "amp": [4, 4, 4], "turns": "smooth"}, "watch", "more than a quarter"),
        ({"volt": 115, "amp": [7, 7, 7], "turns": "smooth"}, "watch", "several times"),
        ({"volt": 115, "amp": [30, 30, 30], "turns": "smooth"}, "watch", "at standstill"),
        ({"volt": 115, "amp": [0.1, 0.1, 0.1], "turns": "smooth"}, "watch", "far too few"),
    ],
)
def test_what_a_low_run_says(run: dict[str, object], verdict: str, words: str) -> None:
    hookup, plan = right(NINE, 460)
    told = judged_run(LowRun.model_validate(run), hookup, plan, AMP, 10)
    assert told.verdict == verdict
    assert words in told.words


def test_what_is_expected_follows_from_the_kind() -> None:
    hookup, plan = right(NINE, 460)
    wanted = expected_run(hookup, plan, AMP)
    assert (wanted.volt, wanted.lines, wanted.seconds) == (115, ("L1", "L2", "L3"), None)
    assert wanted.amp is not None
    assert wanted.amp[0] < 0.25 * 0.25 * AMP < 0.25 * 0.6 * AMP < wanted.amp[1]
    started = plans_of(FOUR, devices=(SWITCH, START))[0]
    single = replace(hookup, arrangement=FOUR, supply=replace(hookup.supply, phases=1, volt=230))
    assert expected_run(single, started, None).seconds == 5
    assert "never a ramp" in expected_run(single, started, None).words
    psc = plans_of(FOUR, devices=(RUN,))[0]
    assert expected_run(single, psc, None).seconds is None
    whole = plans_of("universal-5-lead")[0]
    brushed = replace(single, arrangement="universal-5-lead", joints=whole.joints)
    assert "rpm" in expected_run(brushed, whole, None).words


def test_parallel_leads_share_and_one_at_nothing_is_an_open_half() -> None:
    hookup, plan = right(NINE, 230)
    assert parallel_leads(plan) == (("T1", "T7"), ("T2", "T8"), ("T3", "T9"))
    told = clamps_judged({"T1": 2.0, "T7": 2.1, "T2": 2.0, "T8": 0.0, "T3": 2.0}, hookup, plan, 10)
    assert [(group, verdict) for group, verdict, _ in told] == [
        (("T1", "T7"), "good"),
        (("T2", "T8"), "hold"),
    ]
    assert "missing star" in told[1][2]
    apart = clamps_judged({"T1": 2.0, "T7": 2.9}, hookup, plan, 10)
    assert apart[0][1] == "hold"


@pytest.mark.parametrize(("slug", "volt"), [(NINE, 230), (DELTA9, 230), (TWELVE, 230)])
def test_leads_of_a_right_hookup_share_as_its_network_says(slug: str, volt: float) -> None:
    """A delta's corner carries √3 times what its neighbours do: that is right there."""
    hookup, plan = right(slug, volt)
    read = clamps(hookup, plan.joints)
    told = clamps_judged(read, hookup, plan, 10)
    assert len(told) == 3
    assert {verdict for _, verdict, _ in told} == {"good"}
    if slug == DELTA9:
        assert read["T1"] / read["T6"] == pytest.approx(3**0.5, rel=1e-6)


@pytest.mark.parametrize(("slug", "volt"), HOOKUPS)
def test_the_planned_tests_cover_every_slip_and_their_share_is_counted(
    slug: str, volt: float
) -> None:
    hookup, plan = right(slug, volt)
    slips = likely_slips(hookup, plan)
    ohms, count = coverage(slips, ("ohms",))
    every, _ = coverage(slips, ("ohms", "run"))
    assert 0 < ohms < count
    assert every == count
    worst = worst_first(slips)
    amps = [max(s.amps.values(), default=0.0) for s in worst if not s.short]
    assert amps == sorted(amps, reverse=True)


def test_only_tests_the_bench_allows_are_planned() -> None:
    assert planned_tests(("battery", "three-phase"), 3) == ("ohms", "run", "kick")
    assert planned_tests(("variable-ac",), 3) == ("ohms",)
    assert planned_tests(("variable-ac", "battery"), 1) == ("ohms", "run", "kick")


def likely(hookup: Hookup, plan: Plan) -> list[Likely]:
    return list(likely_slips(hookup, plan))


@pytest.mark.parametrize(
    ("text", "verdict", "ohms"),
    [("T4 T8", "dangerous", True), ("turn T5", "dangerous", False), ("out T9", "wrong", True)],
)
def test_what_if_says_what_it_would_do(text: str, verdict: str, ohms: bool) -> None:
    hookup, plan = right(NINE, 460)
    title, joints = asked(plan, text)
    found = what_if(hookup, plan, joints)
    assert title
    assert found.verdict in (verdict, "wrong")
    assert found.ohms_show == ohms
    assert found.run_shows


def test_what_if_of_the_right_joints_changes_nothing() -> None:
    hookup, plan = right(NINE, 460)
    found = what_if(hookup, plan, plan.joints)
    assert (found.verdict, found.ohms_show, found.run_shows) == ("sound", False, False)
    assert found.heat == pytest.approx(1.0)
    assert all(a == pytest.approx(1.0) for a in found.amps.values() if a is not None)


def test_the_other_voltages_joints_are_tried_too() -> None:
    hookup, plan = right(NINE, 460)
    title, joints = asked(plan, "other")
    assert "two wyes in parallel" in title
    found = what_if(hookup, plan, joints)
    assert found.verdict == "dangerous"
    assert found.heat == pytest.approx(4.0, rel=1e-6)  # twice the volts on each coil


@pytest.mark.parametrize(
    "text", ["", "T4", "T4 T4", "turn", "turn T99", "turn T7", "swap T1 T2", "out"]
)
def test_what_cannot_be_tried_is_refused_with_what_can(text: str) -> None:
    _, plan = right(NINE, 460)
    with pytest.raises(BadValue, match=r"T4 T7|both ends"):
        asked(plan, text)


def test_fitting_slips_take_the_pattern_not_the_level() -> None:
    hookup, plan = right(NINE, 460)
    slip = next(s for s in likely(hookup, plan) if s.slip and s.slip.kind == "coil-reversed")
    assert slip.slip is not None
    run = shown(hookup, slip.slip.done_to(plan.joints))
    for scale in (0.5, 1.0, 3.0):
        fits = fitting_slips([scale * a for a in run.amp], run.turns, hookup, plan)
        assert slip.title in {f.title for f in fits}


def test_a_look_at_low_volts_that_only_hums_is_one_that_did_not_turn() -> None:
    request = Request(kind="low-run", ends=("L1",), supply=(1, 29.0, 50.0))
    read = PROBES["low-run"].read(Typing(text="3.2 hums", request=request))
    assert (read["turns"], read["amp"], read["volt"]) == ("none", (3.2,), 29.0)
