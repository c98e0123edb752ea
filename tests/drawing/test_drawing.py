"""Drawings, judged without pixels: nothing overlaps, the same coil stands in the same place."""

import itertools
import math
from pathlib import Path
from xml.etree import ElementTree

import pytest

from careful_coil.core.connect import Plan
from careful_coil.core.job.at_intake import PlugSeen
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.devices import Moment
from careful_coil.core.ways.states import State
from careful_coil.core.ways.usual import USUAL
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.drawing.gallery import write_gallery
from careful_coil.drawing.hookup import draw_hookup
from careful_coil.drawing.plug import draw_plug
from careful_coil.drawing.scene import hookup_drawing, winding_now
from careful_coil.drawing.shapes import Dot, Drawing, Flag, Ring, Stroke, Words, coil
from careful_coil.drawing.svg import svg_of
from careful_coil.drawing.tokens import DIM, LIGHT, colour_of, wire
from careful_coil.drawing.winding import Look, draw_groups, draw_winding, plain_part
from tests.core.logs import INSULATED, JOINED, SIX_LEADS, SUPPLY, judged, leads, ohm

READ_FROM_OUTSIDE = sorted(
    slug
    for slug, known in ARRANGEMENTS.items()
    if all(plain_part(known.network, g) for g in known.network.groups())
)
HOOKUPS = [
    p
    for slug, known in sorted(ARRANGEMENTS.items())
    for variant in ("", *known.variants)
    for p in plans_of(slug, variant)
]
HOOKUPS += [
    next(p for p in plans_of(slug, variant, devices) if not p.reversed)
    for slug, variant, devices in USUAL.values()
]
NAMES = [
    " ".join(
        [p.arrangement, p.variant, p.connection, str(p.reversed), *(d.kind for d in p.devices)]
    )
    for p in HOOKUPS
]


def hookup_of(plan: Plan, state: State | Moment = "rest") -> Drawing:
    inside = ARRANGEMENTS[plan.arrangement].inside(plan.variant)
    return draw_hookup(inside, plan.joints, {}, devices=plan.devices, state=state)


def winding_of(slug: str, read: bool = True) -> Drawing:
    network = ARRANGEMENTS[slug].network
    looks = {
        n: Look(tag=t, token="ink") for n, t in zip(network.leads, "ABCDEFGHJKLM", strict=False)
    }
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


@pytest.mark.parametrize("slug", READ_FROM_OUTSIDE)
@pytest.mark.parametrize("read", [True, False])
def test_every_arrangement_is_drawn_with_all_leads_and_coils(slug: str, read: bool) -> None:
    network, drawing = ARRANGEMENTS[slug].network, winding_of(slug, read)
    strokes = [s for s in drawing.shapes if isinstance(s, Stroke)]
    assert len(kinds(drawing, Ring)) == len(network.leads)
    assert len(strokes) == len(network.coils)
    assert all(s.dashed != read for s in strokes)


@pytest.mark.parametrize("slug", READ_FROM_OUTSIDE)
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


@pytest.mark.parametrize("slug", READ_FROM_OUTSIDE)
def test_everything_stays_inside(slug: str) -> None:
    drawing = winding_of(slug)
    for shape in drawing.shapes:
        points = shape.points if isinstance(shape, Stroke) else (shape.at,)
        for x, y in points:
            assert -0.5 <= x <= drawing.width + 0.5
            assert -0.5 <= y <= drawing.height + 0.5


@pytest.mark.parametrize("plan", HOOKUPS, ids=NAMES)
def test_a_hookup_shows_every_lead_and_line_inside_its_frame(plan: Plan) -> None:
    inside, drawing = ARRANGEMENTS[plan.arrangement].inside(plan.variant), hookup_of(plan)
    rings = sorted(s.text for s in drawing.shapes if isinstance(s, Ring))
    flags = [s.text for s in drawing.shapes if isinstance(s, Flag)]
    assert rings == sorted(inside.leads)
    assert flags == [n for n in ("L1", "L2", "L3") if any(n in j for j in plan.joints)]
    for shape in drawing.shapes:
        for x, y in shape.points if isinstance(shape, Stroke) else (shape.at,):
            assert 0 <= x <= drawing.width
            assert 0 <= y <= drawing.height


def frame(s: Ring | Flag) -> tuple[float, float, float, float]:
    if isinstance(s, Flag):
        return s.at[0] - 5.5, s.at[1] - 9, s.at[0] + 5.5, s.at[1]
    half = max(s.half, s.radius)
    return s.at[0] - half, s.at[1] - s.radius, s.at[0] + half, s.at[1] + s.radius


@pytest.mark.parametrize("plan", HOOKUPS, ids=NAMES)
def test_in_a_hookup_nothing_lies_on_anything_else(plan: Plan) -> None:
    """Rings, flags and words stand clear; wires run square and never along each other."""
    drawing = hookup_of(plan)
    solid = [frame(s) for s in drawing.shapes if isinstance(s, Ring | Flag)]
    words = [box(s) for s in drawing.shapes if isinstance(s, Words)]
    for a, b in itertools.combinations(solid + words, 2):
        assert not overlap(a, b)
    wires = [s for s in drawing.shapes if isinstance(s, Stroke) and len(s.points) < 6]
    runs = []
    for k, wire_ in enumerate(wires):
        for (x0, y0), (x1, y1) in itertools.pairwise(wire_.points):
            if x0 == x1 or y0 == y1:
                runs.append((k, min(x0, x1), min(y0, y1), max(x0, x1), max(y0, y1)))
    for (k, *one), (m, *two) in itertools.combinations(runs, 2):
        if k == m:
            continue
        both = (max(one[0], two[0]), max(one[1], two[1]), min(one[2], two[2]), min(one[3], two[3]))
        along = max(both[2] - both[0], both[3] - both[1])
        meet = both[0] <= both[2] + 1e-9 and both[1] <= both[3] + 1e-9
        assert not (meet and along > 0.3), (one, two)
    for text in words:
        for _, *run in runs:
            assert not overlap(text, (run[0] - 0.2, run[1] - 0.2, run[2] + 0.2, run[3] + 0.2))


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
def test_coils_keep_their_order_in_every_hookup(slug: str) -> None:
    """Two drawings of one motor can be laid side by side: columns and rows are the same."""
    known = ARRANGEMENTS[slug]
    for variant in ("", *known.variants):
        orders = set()
        for plan in plans_of(slug, variant):
            rings = [s for s in hookup_of(plan).shapes if isinstance(s, Ring)]
            across = tuple(s.text for s in sorted(rings, key=lambda s: (round(s.at[1]), s.at[0])))
            orders.add(across)
        assert len(orders) == 1


@pytest.mark.parametrize("slug", sorted(ARRANGEMENTS))
def test_two_hookups_side_by_side_have_their_coils_in_the_same_places(slug: str) -> None:
    first, *others = [p for p in plans_of(slug) if p.start == "direct"]
    for other in others:
        inside = ARRANGEMENTS[slug].network
        places = [
            {s.text: s.at for s in drawing.shapes if isinstance(s, Ring)}
            for drawing in (
                draw_hookup(inside, p.joints, {}, devices=p.devices, beside=q.joints)
                for p, q in ((first, other), (other, first))
            )
        ]
        assert places[0] == places[1]


def test_a_dot_stands_where_a_wire_branches_and_once_on_a_joint_of_two() -> None:
    """Where main, start and tap meet inside; where the line feeds run and capacitor; the splice."""
    plan = plans_of("single-phase-speed-taps", "two")[0]
    assert len(kinds(hookup_of(plan), Dot)) == 3
    series = plans_of("three-phase-9-lead-wye")[-1]
    assert len(kinds(hookup_of(series), Dot)) == 4  # three joints and the star


@pytest.mark.parametrize("plan", HOOKUPS, ids=NAMES)
def test_wires_join_what_the_plan_joins(plan: Plan) -> None:
    """Followed along the drawing: ends that touch, dots and coils left out, are the joints."""
    drawing = hookup_of(plan)
    place = {s.text: s.at for s in drawing.shapes if isinstance(s, Ring | Flag)}
    heavy = [s.points for s in drawing.shapes if isinstance(s, Stroke) and s.width == 0.9]
    wires = [w for w in heavy if len(w) < 6]

    def touches(point: tuple[float, float], way: tuple[tuple[float, float], ...]) -> bool:
        return any(
            min(a[0], b[0]) - 1e-6 <= point[0] <= max(a[0], b[0]) + 1e-6
            and min(a[1], b[1]) - 1e-6 <= point[1] <= max(a[1], b[1]) + 1e-6
            for a, b in itertools.pairwise(way)
        )

    def meet(one: tuple[tuple[float, float], ...], two: tuple[tuple[float, float], ...]) -> bool:
        return any(touches(p, two) for p in (one[0], one[-1])) or any(
            touches(p, one) for p in (two[0], two[-1])
        )

    for joint in plan.joints:
        names = [n for n in joint if n in place]
        if len(names) < 2:
            continue
        reached = [w for w in wires if touches(place[names[0]], w)]
        grown = True
        while grown:
            more = [w for w in wires if w not in reached and any(meet(w, r) for r in reached)]
            grown, reached = bool(more), reached + more
        for name in names:
            assert any(touches(place[name], w) for w in reached), (plan.connection, name)


def test_leads_in_no_joint_are_called_insulated() -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network
    drawing = draw_hookup(network, (("L1", "T1"), ("L2", "T2"), ("L3", "T3")), {})
    texts = [s.text for s in drawing.shapes if isinstance(s, Words)]
    assert texts == ["insulated singly: T4, T5, T6"]


def test_what_changes_is_copper_and_nothing_else() -> None:
    fresh = frozenset({frozenset(("T4", "T7"))})
    plan = plans_of("three-phase-9-lead-wye")[-1]
    drawing = draw_hookup(ARRANGEMENTS[plan.arrangement].network, plan.joints, {}, fresh)
    copper = [s for s in drawing.shapes if not isinstance(s, Ring) and s.token == "copper"]
    assert {type(s) for s in copper} == {Stroke, Dot}
    assert len(copper) == 2


def test_what_is_suspect_or_wrong_is_marked() -> None:
    plan = plans_of("three-phase-9-lead-wye")[-1]
    drawing = draw_hookup(
        ARRANGEMENTS[plan.arrangement].network,
        plan.joints,
        {},
        marks={"T1-T4": "watch"},
        wrong=frozenset({frozenset(("T5", "T8"))}),
        labels={"T1-T4": "4.9 Ω"},
    )
    tokens = [s.token for s in drawing.shapes if isinstance(s, Stroke)]
    assert (tokens.count("watch"), tokens.count("hold")) == (1, 1)
    assert [s.text for s in drawing.shapes if isinstance(s, Words)] == ["4.9 Ω"]


def test_the_gallery_is_written_as_svg(tmp_path: Path) -> None:
    count = write_gallery(tmp_path)
    files = sorted(tmp_path.iterdir())
    assert len(files) == count > 80
    for file in files:
        root = ElementTree.parse(file).getroot()
        assert root.tag.endswith("svg")
        assert root.find("{http://www.w3.org/2000/svg}title") is not None
    joined = svg_of(hookup_of(HOOKUPS[0]), DIM)
    assert "NaN" not in joined
    assert DIM["ground"] in joined


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
    assert found.facts.connecting.plan is not None
    drawing = hookup_drawing(found, found.facts.connecting.plan)
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


def test_a_plug_is_mirrored_from_the_wires_with_its_numbers() -> None:
    plug = PlugSeen(rows=(3, 2), pins=("A", "B", "empty", "dummy", "?"))
    looks = {"A": Look(tag="A", token="wire:red"), "B": Look(tag="B", token="ink")}
    face, wires = (draw_plug(plug, looks, wires=w) for w in (False, True))
    assert (face.width, face.height) == (wires.width, wires.height)

    def places(drawing: Drawing) -> dict[str, float]:
        rings = {s.text: s.at[0] for s in drawing.shapes if isinstance(s, Ring)}
        return rings | {s.text: s.at[0] for s in drawing.shapes if isinstance(s, Words) and s.text}

    on_face, from_wires = places(face), places(wires)
    for name in ("A", "B", "1", "2", "3", "4", "5", "?"):
        assert on_face[name] + from_wires[name] == pytest.approx(face.width)
    assert on_face["A"] < on_face["B"]
    dashed = [s for s in face.shapes if isinstance(s, Stroke) and s.dashed]
    assert len(dashed) == 2  # the empty one and the one not looked at


def test_a_joint_of_lines_alone_is_no_reason_to_fail() -> None:
    network = ARRANGEMENTS["three-phase-6-lead"].network
    drawn = draw_hookup(network, [("L1", "L3"), ("L2", "T2"), ("L1", "X9")], {})
    assert [s.text for s in drawn.shapes if isinstance(s, Flag)] == ["L2"]
