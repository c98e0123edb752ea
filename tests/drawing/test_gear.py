"""Start gear in pictures: amps and volts over speed, a decay, kinds side by side, a run-up."""

import itertools

import pytest

from careful_coil.core.gear.turned import compared
from careful_coil.core.gear.what_if import Asked, picture
from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import Facts
from careful_coil.core.ways import plans_of
from careful_coil.core.ways.usual import FOUR, RUN, START, SWITCH
from careful_coil.drawing.gear import draw_decay, draw_kinds, draw_run_up
from careful_coil.drawing.over_speed import amp_lines, draw_over_speed, volt_lines
from careful_coil.drawing.shapes import Dot, Stroke, Words
from tests.core.test_what_if import MOTORS


@pytest.mark.parametrize("switch", [0.75, None])
def test_amps_and_volts_over_speed_keep_their_names_apart(switch: float | None) -> None:
    """Names stand at the right, above each other and inside; a run capacitor's volts are there."""
    plate = Facts(kind="capacitor-start-run", volt=230, hertz=50, rpm=1440, amp=7.8, watt=1100)
    motor = estimate(plans_of(FOUR, devices=(SWITCH, START, RUN))[0], plate).motor
    start, run = start_curves(motor)
    assert [name for name, *_ in volt_lines(start, run)] == ["start", "C1", "C2"]
    for lines, unit in ((amp_lines(start, run), "A"), (volt_lines(start, run), "V")):
        drawn = draw_over_speed(start, lines, unit, switch, (120.0, 44.0))
        names = [
            s
            for s in drawn.shapes
            if isinstance(s, Words) and s.text in ("line", "main", "start", "C1", "C2")
        ]
        assert len(names) == 3
        heights = sorted(s.at[1] for s in names)
        assert all(b - a >= 3.9 for a, b in itertools.pairwise(heights))
        assert heights[0] > 0
        assert heights[-1] <= 44.0 - 12.0
        for shape in drawn.shapes:
            if isinstance(shape, Stroke):
                assert all(-0.01 <= x <= 120.01 and -0.01 <= y <= 44.01 for x, y in shape.points)


def test_a_decay_meets_the_safe_volts_when_the_closed_form_does() -> None:
    """227 µF marked 250 V through 20 kΩ: 30 V after 11.2 s (V = V0·e^(−t/RC)); the dot rides on the curve."""
    drawn = draw_decay(227, 250, 20_000, 30, now=5.0)
    texts = [s.text for s in drawn.shapes if isinstance(s, Words)]
    assert {"354 V", "30 V", "11.2 s"} <= set(texts)
    (dot,) = [s for s in drawn.shapes if isinstance(s, Dot)]
    curve = max((s for s in drawn.shapes if isinstance(s, Stroke)), key=lambda s: len(s.points))
    near = min(curve.points, key=lambda p: abs(p[0] - dot.at[0]))
    assert abs(near[1] - dot.at[1]) < 1.5
    long = draw_decay(2000, 400, 20_000, 30)
    assert "2.0 min" in [s.text for s in long.shapes if isinstance(s, Words)]


def test_kinds_stand_side_by_side_and_this_motor_among_them() -> None:
    rows = compared()
    drawn = draw_kinds(rows, ("Capacitor start", 2.7))
    assert {r[0] for r in rows} <= {s.text for s in drawn.shapes if isinstance(s, Words)}
    (dot,) = [s for s in drawn.shapes if isinstance(s, Dot)]
    weak, strong = (draw_kinds(rows, ("Capacitor start", v)) for v in (2.1, 3.9))
    at = [next(s.at[0] for s in d.shapes if isinstance(s, Dot)) for d in (weak, drawn, strong)]
    assert at == sorted(at)
    assert dot.at[0] == at[1]
    assert not [s for s in draw_kinds(rows).shapes if isinstance(s, Dot)]


@pytest.mark.parametrize("load", [0.1, 1.6, 2.5, 20.0])
def test_a_run_up_is_drawn_with_its_switchings(load: float) -> None:
    motor, facts = MOTORS["capacitor-start"]
    seen = picture(motor, facts.slip, Asked(load=load))
    drawn = draw_run_up(seen.up, motor.sync_rpm, (120.0, 40.0))
    dots = [s for s in drawn.shapes if isinstance(s, Dot)]
    assert len(dots) <= len(seen.up.switchings)
    assert (seen.up.outcome == "up") <= bool(dots)
    for shape in drawn.shapes:
        if isinstance(shape, Stroke):
            assert all(-0.01 <= x <= 120.01 and -0.01 <= y <= 40.01 for x, y in shape.points)
