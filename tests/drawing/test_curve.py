"""Curves of tests, drying campaigns and traces: inside their frame, figures where they belong."""

import itertools
import math

import pytest

from careful_coil.core.condition.absorption import fit_curve
from careful_coil.drawing.curve import draw_drying, draw_test, draw_traces
from careful_coil.drawing.shapes import Dot, Drawing, Stroke, Words
from tests.drawing.test_drawing import box, overlap

TEST = [
    (15.0, 200.0),
    (30.0, 330.0),
    (60.0, 520.0),
    (120.0, 780.0),
    (300.0, 1200.0),
    (600.0, 1500.0),
]


def inside(drawing: Drawing) -> None:
    for shape in drawing.shapes:
        points = shape.points if isinstance(shape, Stroke) else (shape.at,)  # type: ignore[union-attr]
        for x, y in points:
            assert -0.5 <= x <= drawing.width + 0.5
            assert -0.5 <= y <= drawing.height + 0.5


def named(drawing: Drawing, text: str) -> Words:
    return next(s for s in drawing.shapes if isinstance(s, Words) and s.text == text)


@pytest.mark.parametrize("wide", [70.0, 150.0])
@pytest.mark.parametrize("scale", [1e-3, 1.0, 1e4])
def test_a_test_of_any_size_stays_inside_with_a_dot_a_reading(wide: float, scale: float) -> None:
    told = [(s, m * scale) for s, m in TEST]
    earlier = [("2023", told), ("B E", told[:3]), ("C F", told[:3])]
    drawing = draw_test(told, fit_curve(told), earlier, wide, 60.0)
    inside(drawing)
    assert sum(isinstance(s, Dot) for s in drawing.shapes) == len(TEST)


def test_time_and_insulation_are_logarithmic() -> None:
    dots = [s for s in draw_test(TEST).shapes if isinstance(s, Dot)]
    a, b, c = dots[0], dots[1], dots[2]  # 15, 30, 60 s: equal steps
    assert b.at[0] - a.at[0] == pytest.approx(c.at[0] - b.at[0])
    assert a.at[1] > b.at[1] > c.at[1]
    minute = named(draw_test(TEST), "1 min")
    assert minute.at[0] == pytest.approx(c.at[0])


def test_names_of_earlier_curves_do_not_lie_on_each_other() -> None:
    short = TEST[:3]
    drawing = draw_test(
        TEST, None, [("2019", TEST), ("2023", TEST), ("B E", short), ("C F", short)]
    )
    names = [named(drawing, n) for n in ("2019", "2023", "B E", "C F")]
    for one, two in itertools.combinations(names, 2):
        assert not overlap(box(one), box(two))


def test_the_fit_goes_on_dashed_where_nothing_is_read_yet_and_kinks_are_marked() -> None:
    begun = TEST[:4]
    curve = fit_curve(begun)
    dashed = [s for s in draw_test(begun, curve).shapes if isinstance(s, Stroke) and s.dashed]
    assert dashed
    told = [(10.0 * k, (100 + 10 * k) * (0.5 if k > 20 else 1.0)) for k in range(1, 61)]
    drawing = draw_test(told, fit_curve(told))
    assert any(isinstance(s, Words) and s.text == "fall 210 s" for s in drawing.shapes)


def test_an_empty_frame_teaches_the_axes() -> None:
    drawing = draw_test([])
    inside(drawing)
    assert named(drawing, "15 s")
    assert named(drawing, "MΩ as read")


@pytest.mark.parametrize("hours", [0.0, 3.0, 50.0, 400.0])
def test_a_drying_campaign_shows_its_minimum(hours: float) -> None:
    told = [(hours * k / 5, 0.3 + k, 60.0) for k in range(6)]
    drawing = draw_drying(told, 5.0)
    inside(drawing)
    assert named(drawing, "at least 5 MΩ").token == "hold"
    assert len([s for s in drawing.shapes if isinstance(s, Words) and s.text.endswith("°")]) == 6


def test_traces_lie_over_each_other_with_their_names() -> None:
    ring = [math.cos(k / 5) for k in range(60)]
    drawing = draw_traces([("A", ring), ("B", ring), ("C", [0.5 * v for v in ring])], "C")
    inside(drawing)
    lines = [s for s in drawing.shapes if isinstance(s, Stroke) and len(s.points) == 60]
    assert lines[0].points == lines[1].points
    assert {s.token for s in lines} == {"ink", "quiet", "watch"}
