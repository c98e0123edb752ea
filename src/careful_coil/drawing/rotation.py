"""Which way it turns, drawn from both ends: an arrow round the shaft as one sees it from there."""

import math
from collections.abc import Iterator

from careful_coil.drawing.shapes import Dot, Drawing, Shape, Stroke, Words

RADIUS, APART = 11.0, 46.0
GAP = 50.0  # degrees of the circle left open for the arrow's head


def draw_rotation(at_drive: str, from_end: str = "") -> Drawing:
    """Return both views of a direction, cw or ccw at the drive end; the end one looks from in copper."""
    shapes: list[Shape] = []
    other = {"cw": "ccw", "ccw": "cw"}[at_drive]
    for k, (end, words, turns) in enumerate(
        (
            ("drive-end", "seen from the drive end", at_drive),
            ("opposite", "seen from the opposite end", other),
        )
    ):
        x = 22.0 + APART * k
        token = "copper" if end == from_end else "ink"
        shapes += arrow((x, 15.0), turns, token)
        shapes.append(Words(at=(x, 31.0), text=words, size=3.1, token=token, bold=end == from_end))
    return Drawing(tuple(shapes), 22.0 + APART + 24.0, 35.0)


def arrow(
    centre: tuple[float, float], turns: str, token: str, radius: float = RADIUS
) -> Iterator[Shape]:
    """Yield a shaft with an arrow round it; y runs down, so cw is rising angle."""
    x, y = centre
    way = 1 if turns == "cw" else -1
    steps = 36
    angles = [
        math.radians(-90 + way * (GAP / 2 + (360 - GAP) * k / steps)) for k in range(steps + 1)
    ]
    points = [(x + radius * math.cos(a), y + radius * math.sin(a)) for a in angles]
    yield Stroke(points=tuple(points), token=token, width=0.9)
    end = angles[-1]
    tip = points[-1]
    ahead = (-way * math.sin(end), way * math.cos(end))
    out = (math.cos(end), math.sin(end))
    for side in (1, -1):
        back = (
            tip[0] - 3.4 * ahead[0] + 2.0 * side * out[0],
            tip[1] - 3.4 * ahead[1] + 2.0 * side * out[1],
        )
        yield Stroke(points=(tip, back), token=token, width=0.9)
    yield Dot(at=centre, radius=3.0, token="quiet")
