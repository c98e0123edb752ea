"""Stators drawn: every side in its place and tint, labels apart from 18 to 72 slots, coils unrolled, the wave."""

import itertools
import math
from pathlib import Path

import pytest

from careful_coil.core.rewind.layout import Layout, PoleCoil, single_phase, three_phase
from careful_coil.drawing.core import draw_core
from careful_coil.drawing.gallery import CORE
from careful_coil.drawing.shapes import Dot, Drawing, Stroke, Words
from careful_coil.drawing.stator import (
    SMALL,
    draw_developed,
    draw_star,
    draw_stator,
    draw_wave,
)
from careful_coil.drawing.svg import svg_of

ONE = single_phase(24, 4, [PoleCoil(1, 6, 40), PoleCoil(2, 5, 30)], [PoleCoil(1, 6, 20)])
MANY = [(18, 4), (24, 2), (24, 4), (36, 4), (36, 6), (48, 4), (54, 6), (60, 4), (72, 4), (72, 12)]


def words(drawing: Drawing) -> list[Words]:
    return [s for s in drawing.shapes if isinstance(s, Words)]


def dots(drawing: Drawing) -> list[Dot]:
    return [s for s in drawing.shapes if isinstance(s, Dot)]


def box(w: Words) -> tuple[float, float, float, float]:
    """Return the room of a text: six tenths of its size a letter, as high as it is."""
    wide, high = 0.6 * w.size * len(w.text), w.size
    left = w.at[0] - wide * {-1: 0.0, 0: 0.5, 1: 1.0}[w.anchor]
    return left, w.at[1] - high / 2, left + wide, w.at[1] + high / 2


@pytest.mark.parametrize(("slots", "poles"), MANY)
def test_no_label_lies_on_another(slots: int, poles: int) -> None:
    drawn = draw_stator(three_phase(slots, poles, turns=(28,)), 5)
    numbers = [w for w in words(drawn) if not w.bold or w.text.startswith("coil")]
    for one, two in itertools.combinations(numbers, 2):
        a, b = box(one), box(two)
        apart = a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1]
        assert apart, (one.text, two.text)
    for drawing in (drawn, draw_developed(three_phase(slots, poles), "V")):
        places = [w.at for w in words(drawing)] + [d.at for d in dots(drawing)]
        assert all(0 <= x <= drawing.width and 0 <= y <= drawing.height for x, y in places)
        lines = [w for w in words(drawing) if w.text.isdigit()]
        assert len(lines) <= 24
        assert all(w.size == SMALL for w in lines)


@pytest.mark.parametrize(("slots", "poles"), MANY)
def test_sides_do_not_cover_each_other(slots: int, poles: int) -> None:
    sides = dots(draw_stator(three_phase(slots, poles)))
    assert len(sides) == 2 * slots
    for one, two in itertools.combinations(sides, 2):
        assert math.dist(one.at, two.at) >= one.radius + two.radius - 1e-6


def test_a_coil_is_drawn_out_from_side_to_side() -> None:
    layout = three_phase(36, 4, span=7, turns=(28,))
    drawn = draw_stator(layout, 4)
    told = {w.text for w in words(drawn)}
    assert {"coil 4", "slots 4 and 11", "group 2, phase W", "28 turns"} <= told
    copper = [s for s in drawn.shapes if isinstance(s, Stroke) and s.token == "copper"]
    assert len(copper) == 3
    ends = {copper[0].points[0], copper[0].points[-1]}
    assert ends <= {d.at for d in dots(drawn)}
    assert not [
        s for s in draw_stator(layout).shapes if isinstance(s, Stroke) and s.token == "copper"
    ]


def test_phases_are_told_by_letter_and_tint() -> None:
    drawn = draw_stator(three_phase(24, 4))
    assert {d.token for d in dots(drawn)} == {"phase-1", "phase-2", "phase-3"}
    letters = [w.text for w in words(drawn) if w.text in "UVW"]
    assert {k: letters.count(k) for k in "UVW"} == {"U": 16, "V": 16, "W": 16}
    assert {w.text for w in words(draw_stator(ONE)) if w.text in "MS"} == {"M", "S"}


@pytest.mark.parametrize("layout", [three_phase(36, 4, span=7), three_phase(24, 2), ONE])
def test_coils_unrolled_come_in_again_where_they_go_out(layout: Layout) -> None:
    """Every side of a phase is drawn once; what goes over the edge has its other part at the other edge."""
    phase = layout.phases[0]
    drawn = draw_developed(layout, phase)
    own = [s for s in drawn.shapes if isinstance(s, Stroke) and s.token == "phase-1"]
    upright = [s for s in own if len(s.points) == 2 and s.points[0][0] == s.points[1][0]]
    assert len(upright) == 2 * len(layout.of(phase))
    assert len([s for s in upright if s.dashed]) == len(layout.of(phase))
    assert all(0 <= x <= drawn.width for s in own for x, _ in s.points)


def test_the_wave_is_drawn_in_steps_with_its_sine() -> None:
    drawn = draw_wave(three_phase(36, 4))
    steps = next(s for s in drawn.shapes if isinstance(s, Stroke) and s.token == "ink")
    assert len(steps.points) == 72
    sine = next(s for s in drawn.shapes if isinstance(s, Stroke) and s.token == "copper")
    assert len(sine.points) == 36
    apart = [
        abs(a[1] - (b[1] + c[1]) / 2)
        for a, b, c in zip(sine.points, steps.points[::2], steps.points[1::2], strict=True)
    ]
    assert max(apart) < 4.0
    assert draw_wave(ONE).width == drawn.width


def test_the_star_has_a_ray_for_each_angle() -> None:
    """36 slots of 20° electrical: nine rays with the ones turned round, three a phase."""
    drawn = draw_star(three_phase(36, 4))
    tips = dots(drawn)
    assert len(tips) == 9
    assert sorted(d.token for d in tips) == sorted(["phase-1", "phase-2", "phase-3"] * 3)
    assert {w.text for w in words(drawn)} == {"U", "V", "W"}


def test_the_picture_of_a_core_in_the_handbook_is_current() -> None:
    """Made by the gallery; every datum that is measured is named in it."""
    drawn = draw_core()
    kept = Path(__file__).parents[2] / "docs" / "handbook" / "winding-core.svg"
    assert kept.read_text(encoding="utf-8") == svg_of(drawn, title=CORE)
    told = " ".join(w.text for w in words(drawn))
    for datum in (
        "back iron",
        "slot depth",
        "tooth",
        "bore",
        "core length",
        "end turns",
        "mean turn",
    ):
        assert datum in told
    for one, two in itertools.combinations(words(drawn), 2):
        a, b = box(one), box(two)
        assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], (one.text, two.text)
