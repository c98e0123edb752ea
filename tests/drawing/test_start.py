"""Pictures of a start: torque over speed, currents, the field's path."""

import math

import pytest

from careful_coil.core.machine.curves import FieldPath, field_of, field_path, phasors, start_curves
from careful_coil.core.machine.run_up import Load
from careful_coil.drawing.shapes import Drawing, Stroke, Words
from careful_coil.drawing.start import CIRCLE, draw_field, draw_phasors, draw_torque
from tests.core.test_machine import PSC, START_CAN

RATED = 0.82  # N·m
CURVES = start_curves(START_CAN)


def strokes(drawing: Drawing, token: str) -> list[Stroke]:
    return [s for s in drawing.shapes if isinstance(s, Stroke) and s.token == token]


def words(drawing: Drawing) -> list[str]:
    return [s.text for s in drawing.shapes if isinstance(s, Words)]


@pytest.mark.parametrize(
    "drawing",
    [
        draw_torque(CURVES, RATED, 0.75, Load(inertia=1, torque=0.6)),
        draw_torque(start_curves(PSC), RATED),
        draw_phasors(phasors(START_CAN, START_CAN.standstill)),
        draw_field(field_of(START_CAN.standstill)),
        draw_field(field_path(1 + 1j, 1 - 1j)),
    ],
)
def test_everything_stays_inside_its_frame(drawing: Drawing) -> None:
    for shape in drawing.shapes:
        for x, y in shape.points if isinstance(shape, Stroke) else (shape.at,):
            assert -0.01 <= x <= drawing.width + 0.01
            assert -0.01 <= y <= drawing.height + 0.01


def test_what_counts_is_solid_up_to_the_switch_and_beyond() -> None:
    drawing = draw_torque(CURVES, RATED, 0.75)
    solid = [s.points for s in strokes(drawing, "ink") if s.width == 0.7]
    dashed = [s.points for s in strokes(drawing, "quiet")]
    assert (len(solid), len(dashed)) == (2, 2)
    (switch,) = strokes(drawing, "copper")
    x = switch.points[0][0]
    assert solid[0][-1][0] == pytest.approx(x, abs=0.7)
    assert solid[1][0][0] == pytest.approx(x, abs=0.7)
    assert "% of 1800 rpm" in words(drawing)
    alone = draw_torque(start_curves(PSC), RATED)
    assert len([s for s in strokes(alone, "ink") if s.width == 0.7]) == 1


def test_heights_are_multiples_of_full_load() -> None:
    drawing = draw_torque(CURVES, RATED, 0.75)
    figures = {s.text: s.at[1] for s in drawing.shapes if isinstance(s, Words) and s.anchor == 1}
    one = figures["0"] - figures["1"]
    first = next(s.points[0] for s in strokes(drawing, "ink") if s.width == 0.7)
    wanted = CURVES[0].shaft[0] / RATED
    assert (figures["0"] - first[1]) / one == pytest.approx(wanted, rel=1e-6)


def test_arrows_point_as_the_currents_do() -> None:
    amps = phasors(START_CAN, START_CAN.standstill)
    drawing = draw_phasors(amps)
    (shaft, _) = strokes(drawing, "copper")
    (x0, y0), (x1, y1) = shaft.points
    angle = math.atan2(y0 - y1, x1 - x0)
    assert angle == pytest.approx(math.atan2(amps["start"].imag, amps["start"].real))
    apart = abs(
        math.degrees(
            math.remainder(angle - math.atan2(amps["main"].imag, amps["main"].real), 2 * math.pi)
        )
    )
    assert f"{apart:.0f}° apart" in words(drawing)
    assert words(draw_phasors({"L1": 1 + 0j, "L2": -1 + 0j}))[1:] == ["L1", "L2"]


def test_the_field_is_said_in_words() -> None:
    assert "100% of a circle" in words(draw_field(field_path(2 + 0j, 0j)))
    assert "a line: no turning field" in words(draw_field(field_path(1 + 0j, 1 + 0j)))
    assert words(draw_field(FieldPath(0.0, 0.0, 0.0, 0, "line")))
    half = draw_field(field_path(3 + 0j, 1 + 0j))
    path = max(strokes(half, "ink"), key=lambda s: len(s.points)).points
    wide = max(x for x, _ in path) - min(x for x, _ in path)
    high = max(y for _, y in path) - min(y for _, y in path)
    assert (wide, high) == (pytest.approx(2 * CIRCLE), pytest.approx(CIRCLE, rel=1e-3))
