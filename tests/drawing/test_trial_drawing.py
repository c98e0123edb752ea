"""The run drawn: points and band where their figures are, the plate's lines, losses carried on to no volts."""

import pytest

from careful_coil.core.trial.expect import Expected
from careful_coil.core.trial.separate import NoLoad, separated
from careful_coil.core.trial.typed import read_step
from careful_coil.drawing.shapes import Dot, Drawing, Stroke, Words
from careful_coil.drawing.trial import draw_losses, draw_trial

STEPS = [
    read_step(f"{v} V {a} A {w} W {n} rpm", 3)
    for v, a, w, n in ((100, "0.7/0.7/0.8", 40, 1480), (400, "2.6/2.6/2.7", 190, 1494))
]
BAND = [
    Expected(volt=v, amp=(0.8 * a, a, 1.3 * a), watt=(0.5 * w, w, 1.5 * w), rpm=(1485, 1492, 1498))
    for v, a, w in ((100, 0.7, 40), (400, 2.6, 190))
]


def dots(drawing: Drawing) -> list[Dot]:
    return [s for s in drawing.shapes if isinstance(s, Dot)]


def words(drawing: Drawing) -> list[str]:
    return [s.text for s in drawing.shapes if isinstance(s, Words)]


def test_every_figure_of_a_step_is_a_point_inside_the_sheet() -> None:
    found = draw_trial(STEPS, BAND, (), 400.0, 120.0, 50.0)
    assert len(dots(found)) == 2 * (3 + 1 + 1)
    assert all(0 <= d.at[0] <= 120 and 0 <= d.at[1] <= 50 for d in dots(found))
    amps = dots(found)[:6]
    assert amps[0].at[1] == pytest.approx(amps[1].at[1])
    assert amps[2].at[1] < amps[0].at[1]  # more amps stand higher
    bands = [s for s in found.shapes if isinstance(s, Stroke) and s.dashed]
    assert len(bands) == 3


def test_an_earlier_run_is_hollow_and_a_run_without_steps_is_empty() -> None:
    before = draw_trial(STEPS, (), STEPS[:1], 400.0, 120.0, 50.0)
    squares = [s for s in before.shapes if isinstance(s, Stroke) and s.token == "quiet"]
    assert len(squares) == 5
    assert not dots(draw_trial((), (), (), 400.0, 120.0, 50.0))


def test_limits_of_the_plate_are_lines_in_their_panels() -> None:
    plain = draw_trial(STEPS, (), (), 400.0, 120.0, 50.0)
    found = draw_trial(STEPS, (), (), 400.0, 120.0, 50.0, {"amp": 6.4, "rpm": 1440})
    assert words(found).count("plate") == 2
    assert "plate" not in words(plain)
    assert "6.4" in words(found)
    line = next(s for s in found.shapes if isinstance(s, Stroke) and s.token == "hold")
    assert all(d.at[1] > line.points[0][1] for d in dots(found)[:6])


def test_losses_meet_no_volts_at_friction_and_windage() -> None:
    steps = [
        NoLoad(
            volt=v, amp=2.6 * v / 400, watt=40 + 60 * (v / 400) ** 2 + 1.5 * (2.6 * v / 400) ** 2
        )
        for v in (100, 200, 300, 400)
    ]
    found = separated(steps, 1.0, 400.0)
    drawn = draw_losses(found, 400.0, 120.0, 40.0)
    assert "40" in words(drawn)
    assert "iron 60" in words(drawn)
    first, *points = dots(drawn)
    assert len(points) == 4
    assert first.at[0] < min(p.at[0] for p in points)
    assert first.at[1] > max(p.at[1] for p in points)
    carried = [
        s for s in drawn.shapes if isinstance(s, Stroke) and s.dashed and s.token == "copper"
    ]
    assert carried[0].points[0] == first.at
