"""Drawings, judged without pixels: nothing overlaps, the same coil stands in the same place."""

import itertools
import math

import pytest

from careful_coil.core.connect import plans_of
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.scene import hookup_drawing, winding_now
from careful_coil.drawing.shapes import Dot, Drawing, Flag, Ring, Stroke, Words, coil
from careful_coil.drawing.tokens import DIM, LIGHT, colour_of, wire
from careful_coil.drawing.winding import Look, draw_groups, draw_winding
from tests.core.logs import INSULATED, JOINED, SIX_LEADS, SUPPLY, judged, leads, ohm

HOOKUPS = [
    p
    for slug in ("three-phase-6-lead", "three-phase-9-lead-wye")
    for p in plans_of(slug)
    if p.start == "direct"
]


def winding_of(slug: str, read: bool = True) -> Drawing:
    network = ARRANGEMENTS[slug].network
    looks = {n: Look(tag=t, token="ink") for n, t in zip(network.leads, "ABCDEFGHJ", strict=False)}
    names = frozenset(c.name for c in network.coils) if read else frozenset[str]()
    return draw_winding(network, looks, {c.name: 4.0 for c in network.coils}, names)


def box(words: Words) -> tuple[float, float, float, float]:
    """A generous box of a text: a letter is at most 0.62 of its height wide."""
    wide = 0.62 * words.size * len(words.text)
    left = words.at[0] - {-1: 0.0, 0: wide / 2, 1: wide}[words.anchor]
    return left, words.at[1] - words.size / 2, left + wide, words.at[1] + words.size / 2


def overlap(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


def kinds(drawing: Drawing, kind: type) -> list[object]:
    return [s for s in drawing.shapes if isinstance(s, kind)]


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
@pytest.mark.parametrize("read", [True, False])
def test_every_arrangement_is_drawn_with_all_leads_and_coils(slug: str, read: bool) -> None:
    network, drawing = ARRANGEMENTS[slug].network, winding_of(slug, read)
    strokes = [s for s in drawing.shapes if isinstance(s, Stroke)]
    assert len(kinds(drawing, Ring)) == len(network.leads)
    assert len(strokes) == len(network.coils)
    assert all(s.dashed != read for s in strokes)


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
def test_labels_and_rings_never_overlap(slug: str) -> None:
    drawing = winding_of(slug)
    words = [s for s in drawing.shapes if isinstance(s, Words)]
    rings = [s for s in drawing.shapes if isinstance(s, Ring)]
    for a, b in itertools.combinations(words, 2):
        assert not overlap(box(a), box(b)), (a.text, b.text)
    for w, r in itertools.product(words, rings):
        around = (r.at[0] - r.radius, r.at[1] - r.radius, r.at[0] + r.radius, r.at[1] + r.radius)
        assert not overlap(box(w), around), (w.text, r.text)
    for one, two in itertools.combinations(rings, 2):
        assert math.dist(one.at, two.at) > one.radius + two.radius


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
def test_everything_stays_inside(slug: str) -> None:
    drawing = winding_of(slug)
    for shape in drawing.shapes:
        points = shape.points if isinstance(shape, Stroke) else (shape.at,)
        for x, y in points:
            assert -0.5 <= x <= drawing.width + 0.5
            assert -0.5 <= y <= drawing.height + 0.5


@pytest.mark.parametrize("plan", HOOKUPS, ids=lambda p: f"{p.arrangement} {p.rank}")
def test_a_hookup_shows_every_lead_and_line(plan: object) -> None:
    from careful_coil.core.connect import Plan

    assert isinstance(plan, Plan)
    network = ARRANGEMENTS[plan.arrangement].network
    drawing = draw_hookup(network, plan.joints, {})
    rings = {s.text for s in drawing.shapes if isinstance(s, Ring)}
    flags = [s.text for s in drawing.shapes if isinstance(s, Flag)]
    assert rings == set(network.leads)
    assert flags == ["L1", "L2", "L3"]
    for shape in drawing.shapes:
        for x, y in shape.points if isinstance(shape, Stroke) else (shape.at,):
            assert 0 <= x <= drawing.width
            assert 0 <= y <= drawing.height


@pytest.mark.parametrize("slug", ["three-phase-6-lead", "three-phase-9-lead-wye"])
def test_the_same_lead_stands_in_the_same_place_in_both_hookups(slug: str) -> None:
    places = [
        {
            s.text: s.at
            for s in draw_hookup(ARRANGEMENTS[slug].network, p.joints, {}).shapes
            if isinstance(s, Ring)
        }
        for p in plans_of(slug)
    ]
    assert places[0] == places[1]


def test_a_joint_touches_each_of_its_leads() -> None:
    """From every ring of a joint some stroke of it starts or ends."""
    for plan in HOOKUPS:
        drawing = draw_hookup(ARRANGEMENTS[plan.arrangement].network, plan.joints, {})
        place = {s.text: s.at for s in drawing.shapes if isinstance(s, Ring)}
        ends = [
            p for s in drawing.shapes if isinstance(s, Stroke) for p in (s.points[0], s.points[-1])
        ]
        for joint in plan.joints:
            for lead in joint:
                if lead in place:
                    assert any(math.dist(place[lead], e) < 1e-6 for e in ends), (
                        plan.connection,
                        lead,
                    )


def test_leads_in_no_joint_are_called_insulated() -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network
    drawing = draw_hookup(network, (("L1", "T1"), ("L2", "T2"), ("L3", "T3")), {})
    assert [s.text for s in drawing.shapes if isinstance(s, Words)] == ["insulated"] * 3


def test_what_changes_is_copper_and_nothing_else() -> None:
    fresh = frozenset({frozenset(("T4", "T7"))})
    plan = plans_of("three-phase-9-lead-wye")[-1]
    drawing = draw_hookup(ARRANGEMENTS[plan.arrangement].network, plan.joints, {}, fresh)
    copper = [s for s in drawing.shapes if not isinstance(s, Ring) and s.token == "copper"]
    assert {type(s) for s in copper} == {Stroke, Dot}
    assert len(copper) == 2


def test_a_coil_goes_from_end_to_end() -> None:
    shape = coil((0.0, 0.0), (0.0, 20.0))
    assert shape.points[0] == (0.0, 0.0)
    assert shape.points[-1] == (0.0, 20.0)
    assert max(x for x, _ in shape.points) > 1.0


def test_groups_without_a_winding_are_drawn_as_belonging_together() -> None:
    looks = {t: Look(tag=t, token="ink") for t in "ABCDEF"}
    drawing = draw_groups([("A", "B", "C")], ["D", "E", "F"], looks)
    assert len(kinds(drawing, Ring)) == 6
    assert len(kinds(drawing, Stroke)) == 1


def test_a_suspect_coil_is_marked_and_says_about() -> None:
    log = [
        b
        for b in SIX_LEADS
        if b != ohm("CF", "2.60") and b.get("reading", {}).get("kind") != "kick"
    ]
    drawing = winding_now(judged(*log, ohm("CF", "4.90")))
    marked = [s for s in drawing.shapes if isinstance(s, Words) and s.token == "watch"]
    assert [w.text.startswith("about ") for w in marked] == [True]


def test_an_unread_coil_says_so() -> None:
    drawing = winding_now(
        judged(*SIX_LEADS[:5], leads(*"ABCDEF"), *SIX_LEADS[6:8], *SIX_LEADS[9:12])
    )
    texts = [s.text for s in drawing.shapes if isinstance(s, Words)]
    assert "not read" in texts


def test_a_jobs_hookup_is_drawn_on_its_own_leads() -> None:
    found = judged(*SIX_LEADS, INSULATED, SUPPLY, *JOINED)
    assert found.connecting.plan is not None
    drawing = hookup_drawing(found, found.connecting.plan, None)
    assert drawing is not None
    assert {s.text for s in drawing.shapes if isinstance(s, Ring)} == {f"T{k}" for k in range(1, 7)}


@pytest.mark.parametrize(
    ("typed", "token"),
    [
        ("brown", "wire:brown"),
        (" Grey ", "wire:grey"),
        ("gray", "wire:grey"),
        ("violet", "wire:purple"),
        ("plaid", "ink"),
        ("", "ink"),
    ],
)
def test_wire_colours_are_understood_as_typed(typed: str, token: str) -> None:
    assert wire(typed) == token
    for theme in (LIGHT, DIM):
        assert colour_of(token, theme).startswith("#")


def test_both_themes_have_the_same_tokens() -> None:
    assert set(LIGHT) == set(DIM)
