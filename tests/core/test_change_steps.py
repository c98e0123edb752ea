"""The change from one hookup to another: played through over every pair of sound ones."""

import itertools
from collections import deque
from collections.abc import Sequence

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from careful_coil.core.connect.steps import Step, Ways, change_steps
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.way import LINES, Joint, Plan
from careful_coil.core.winding import ARRANGEMENTS

NINE, SIX, TWELVE = "three-phase-9-lead-wye", "three-phase-6-lead", "three-phase-12-lead"
WINDINGS = [(slug, v) for slug, a in ARRANGEMENTS.items() for v in ("", *a.variants)]


def leads_of(slug: str, variant: str = "") -> tuple[str, ...]:
    return ARRANGEMENTS[slug].inside(variant).leads


def played(
    leads: Sequence[str], present: Sequence[Joint], steps: Sequence[Step]
) -> tuple[set[frozenset[str]], int]:
    """Return the joints in the end and the most leads loose at once; every step must be possible."""
    now = {frozenset(j) for j in present if len(set(j)) > 1}
    covered = set(leads) - {n for j in now for n in j}
    done: set[frozenset[str]] = set()
    most = 0
    for step in steps:
        if step.do == "cut":
            whole, out = frozenset(step.joint), frozenset(step.leads)
            assert whole in now
            assert whole not in done
            now = (now - {whole}) | {p for p in (out, whole - out) if len(p) > 1}
        elif step.do in ("splice", "move-line"):
            new = frozenset(step.joint)
            for j in now:
                assert j <= new or not j & new  # its names were cut out of others first
            now = {j for j in now if not j & new} | {new}
            done.add(new)
            covered -= new
        elif step.do == "insulate":
            assert not any(step.leads[0] in j for j in now)
            covered |= set(step.leads)
        joined = {n for j in now for n in j}
        loose = sum(n not in joined and n not in covered for n in leads)
        assert step.loose_after == loose
        most = max(most, loose)
    return now, most


def pairs(slug: str, variant: str) -> list[tuple[Plan, Plan]]:
    plans = [p for p in plans_of(slug, variant) if p.start == "direct"]
    return list(itertools.permutations(plans, 2))


@pytest.mark.parametrize(("slug", "variant"), WINDINGS)
def test_every_change_ends_right_and_opens_no_finished_joint(slug: str, variant: str) -> None:
    leads = leads_of(slug, variant)
    for before, after in pairs(slug, variant):
        for lines_first in (False, True):
            ways = Ways(lines_first=lines_first)
            steps = change_steps(leads, before.joints, after.joints, after.line_ohm(2.0), ways=ways)
            now, most = played(leads, before.joints, steps)
            assert now == {frozenset(j) for j in after.joints if len(j) > 1}
            assert most <= len(leads)
            if {frozenset(j) for j in before.joints} != {frozenset(j) for j in after.joints}:
                assert steps[0].do == "prepare"
                assert [s.do for s in steps][-2:] == ["check", "retag"]
            assert steps[-1].loose_after == 0


@pytest.mark.parametrize(("slug", "variant"), WINDINGS)
def test_from_nothing_joined_every_lead_ends_joined_or_insulated(slug: str, variant: str) -> None:
    leads = leads_of(slug, variant)
    for plan in plans_of(slug, variant):
        steps = change_steps(leads, (), plan.joints, ways=Ways(bare=leads))
        joined = {n for j in plan.joints for n in j}
        now = {frozenset(s.joint) for s in steps if s.do in ("splice", "move-line")}
        alone = {s.leads[0] for s in steps if s.do == "insulate"}
        assert now == {frozenset(j) for j in plan.joints if len(j) > 1}
        assert alone == set(leads) - joined
        assert steps[-1].loose_after == 0


def least_loose(leads: Sequence[str], present: Sequence[Joint], wanted: Sequence[Joint]) -> int:
    """Return the fewest leads that must be loose at once, by trying every way (no outside bound).

    One move parts a joint in two, makes a wanted joint of what is loose or already
    together, or covers a lead that stays on its own.
    """
    targets = {frozenset(j) for j in wanted if len(set(j)) > 1}
    final = {n for j in targets for n in j}
    start = frozenset(frozenset(j) for j in present if len(set(j)) > 1)
    used = {n for j in start for n in j}
    covered = frozenset(n for n in leads if n not in used)

    def loose(now: frozenset[frozenset[str]], safe: frozenset[str]) -> int:
        joined = {n for j in now for n in j}
        return sum(n not in joined and n not in safe for n in leads)

    for most in range(len(leads) + 1):
        seen = {(start, covered)}
        queue = deque(seen)
        while queue:
            now, safe = queue.popleft()
            if now == frozenset(targets) and loose(now, safe) == 0:
                return most
            moves = []
            for j in now - targets:
                for size in range(1, len(j) // 2 + 1):
                    for out in map(frozenset, itertools.combinations(j, size)):
                        parts = frozenset(p for p in (out, j - out) if len(p) > 1)
                        moves.append(((now - {j}) | parts, safe))
            for t in targets - now:
                if all(j <= t or not j & t for j in now):
                    moves.append((frozenset(j for j in now if not j & t) | {t}, safe - t))
            joined = {n for j in now for n in j}
            spare = frozenset(n for n in leads if n not in joined and n not in final)
            moves.append((now, safe | spare))
            for move in moves:
                if move not in seen and loose(*move) <= most:
                    seen.add(move)
                    queue.append(move)
    raise AssertionError("no way at all")


SMALL = [
    (SIX, "wye", "delta"),
    (SIX, "delta", "wye"),
    (NINE, "low volts: two wyes in parallel", "high volts: halves in series, wye"),
    (NINE, "high volts: halves in series, wye", "low volts: two wyes in parallel"),
]


@pytest.mark.parametrize(("slug", "one", "two"), SMALL)
def test_never_more_leads_loose_than_any_way_needs(slug: str, one: str, two: str) -> None:
    plans = {p.connection: p for p in plans_of(slug) if p.start == "direct"}
    before, after = plans[one].joints, plans[two].joints
    _, most = played(leads_of(slug), before, change_steps(leads_of(slug), before, after))
    assert most == least_loose(leads_of(slug), before, after)


NAMES = ("T1", "T2", "T3", "T4", "T5")


@st.composite
def hookups(draw: st.DrawFn) -> list[Joint]:
    """Any joints of five leads and two lines."""
    at = draw(st.lists(st.integers(0, 4), min_size=7, max_size=7))
    names = (*NAMES, "L1", "L2")
    joints = [
        tuple(n for n, k in zip(names, at, strict=True) if k == number) for number in range(5)
    ]
    return [j for j in joints if len(j) > 1 and set(j) - set(LINES)]


@settings(max_examples=60, deadline=None)
@given(hookups(), hookups())
def test_any_change_of_five_leads_is_as_short_of_loose_leads_as_can_be(
    before: list[Joint], after: list[Joint]
) -> None:
    steps = change_steps(NAMES, before, after)
    now, most = played(NAMES, before, steps)
    assert now == {frozenset(j) for j in after}
    assert most == least_loose(NAMES, before, after)


def test_nothing_to_change_is_one_check() -> None:
    found = plans_of(NINE)[0]
    steps = change_steps(leads_of(NINE), found.joints, found.joints)
    assert [s.do for s in steps] == ["check"]


def test_two_stars_take_their_leads_out_of_the_lines_when_half_is_wanted() -> None:
    slug = "three-phase-part-winding-6-lead"
    half = [("L1", "T1"), ("L2", "T2"), ("L3", "T3")]
    steps = change_steps(leads_of(slug), plans_of(slug)[0].joints, half)
    assert {n for s in steps if s.do == "insulate" for n in s.leads} == {"T7", "T8", "T9"}


def test_on_a_terminal_board_links_move_and_no_lead_is_loose() -> None:
    """Bars across are star, bars down are delta: U1 V1 W1 over W2 U2 V2."""
    delta, wye = (p for p in plans_of(SIX) if p.start == "direct")
    steps = change_steps(leads_of(SIX), wye.joints, delta.joints, ways=Ways(board=True))
    assert {s.do for s in steps} == {"prepare", "move-link", "check", "retag"}
    off = next(s for s in steps if s.do == "move-link" and not s.joint)
    assert set(off.leads) == {"T4", "T5", "T6"}
    on = [set(s.joint) for s in steps if s.do == "move-link" and s.joint]
    assert on == [{"T1", "T6"}, {"T2", "T4"}, {"T3", "T5"}]
    assert all(s.loose_after == 0 for s in steps)


def test_a_joint_is_dressed_in_the_shops_words() -> None:
    ways = Ways(dress=lambda joint: f"Sleeve for {len(joint)}.")
    low, high = (p for p in plans_of(NINE) if p.start == "direct")
    steps = change_steps(leads_of(NINE), low.joints, high.joints, ways=ways)
    assert any(s.text.endswith("Sleeve for 2.") for s in steps if s.do == "splice")


def test_the_order_follows_the_shops_school_where_it_costs_nothing() -> None:
    plan = plans_of(SIX)[-1]
    names = leads_of(SIX)
    for lines_first, first in ((True, "move-line"), (False, "splice")):
        ways = Ways(bare=names, lines_first=lines_first)
        steps = change_steps(names, (), plan.joints, ways=ways)
        assert next(s.do for s in steps if s.do in ("splice", "move-line")) == first
