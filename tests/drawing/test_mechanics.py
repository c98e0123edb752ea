"""The ring of a commutator and the section of a bearing: what is drawn, where, in which colour."""

import math

import pytest

from careful_coil.drawing.bearing import draw_bearing
from careful_coil.drawing.commutator import LIKE, RADIUS, draw_bars
from careful_coil.drawing.shapes import Drawing, Stroke, Words


def texts(drawing: Drawing) -> dict[str, Words]:
    return {s.text: s for s in drawing.shapes if isinstance(s, Words)}


def strokes(drawing: Drawing, *tokens: str) -> list[Stroke]:
    return [s for s in drawing.shapes if isinstance(s, Stroke) and s.token in tokens]


def inside(drawing: Drawing) -> bool:
    points = [p for s in drawing.shapes if isinstance(s, Stroke) for p in s.points]
    points += [s.at for s in drawing.shapes if isinstance(s, Words)]
    return all(0 <= x <= drawing.width and 0 <= y <= drawing.height for x, y in points)


def test_each_reading_is_a_stroke_between_its_bars_as_long_as_its_ohms() -> None:
    drawn = draw_bars(4, {1: 0.2, 2: 0.2, 3: 0.1, 4: 0.2}, (0.2,) * 4)
    reads = [s for s in strokes(drawn, "good", "hold", "watch") if len(s.points) == 2]
    middle = drawn.width / 2
    far = [math.dist((middle, middle), s.points[1]) for s in reads]
    assert far[0] == pytest.approx(RADIUS + LIKE)
    assert far[2] - RADIUS - 1 == pytest.approx((far[0] - RADIUS - 1) / 2)
    assert [s.token for s in reads] == ["good", "good", "hold", "good"]
    ways = [math.degrees(math.atan2(*(b - middle for b in s.points[1]))) % 360 for s in reads]
    assert ways == pytest.approx([135, 45, 315, 225])  # on with the clock from the top right


def test_open_and_unread_bars_are_told_apart() -> None:
    drawn = draw_bars(24, {9: None, 10: 0.2}, (), (9, 10))
    assert len(strokes(drawn, "hold")) >= 3  # two bars, the reading and its head
    assert len([s for s in strokes(drawn, "good") if len(s.points) == 2]) == 1
    assert texts(drawn)["9"].bold
    assert "8" not in texts(drawn)
    assert inside(drawn)


@pytest.mark.parametrize("count", [6, 12, 24, 48, 100, 240])
def test_rings_of_any_size_stay_in_their_room(count: int) -> None:
    drawn = draw_bars(count, dict.fromkeys(range(1, count + 1), 0.2))
    assert inside(drawn)
    assert len(texts(drawn)) <= 20


def test_a_bearing_shows_what_is_said_and_what_was_measured() -> None:
    drawn = draw_bearing((20.0, 47.0, 14.0), {"bore": 20.02, "width": 15.1}, closed=True)
    told = texts(drawn)
    assert {"bore 20", "outside 47", "width 14", "measured 20.02", "measured 15.1"} <= set(told)
    assert told["measured 15.1"].token == "hold"
    assert told["measured 20.02"].token == "quiet"
    assert len(strokes(drawn, "copper")) == 2
    assert not strokes(draw_bearing((20.0, 47.0, 14.0), {}), "copper")
    assert inside(drawn)


@pytest.mark.parametrize(
    "size", [(3.0, 7.0, 2.0), (100.0, 215.0, 47.0), (10.0, 35.0, 17.0), (100.0, 125.0, 13.0)]
)
def test_thin_and_wide_ones_stay_in_their_room(size: tuple[float, float, float]) -> None:
    assert inside(draw_bearing(size, {}))
    names = dict(zip(("bore", "outside", "width"), size, strict=True))
    assert inside(draw_bearing(None, names))
