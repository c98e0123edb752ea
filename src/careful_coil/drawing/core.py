"""What is measured of a core, in millimetres of the drawing: a piece of it from the bore, and along the shaft."""

from careful_coil.drawing.shapes import Drawing, Point, Shape, Stroke, Words

SMALL = 3.1
WIDE, HIGH = 164.0, 67.0


def draw_core() -> Drawing:
    """Return two slots with their teeth from the bore out, and the core along the shaft with its end turns."""
    top, root, bore = 8.0, 24.0, 46.0  # outside, bottom of the slots, bore
    shapes: list[Shape] = [
        Stroke(points=((8, top), (86, top)), width=0.6),
        Stroke(points=_teeth(root, bore), width=0.6),
        *_measure((30, top), (30, root), "back iron", (32, 16)),
        *_measure((24, root), (24, bore), "slot depth", (26, 35)),
        *_measure((44, bore + 3), (56, bore + 3), "tooth", (50, bore + 7)),
        Words(at=(47, 62), text="bore, across the whole", size=SMALL),
    ]
    left, right = 108.0, 144.0
    shapes += [
        Stroke(points=((left, 14), (right, 14), (right, 40), (left, 40), (left, 14)), width=0.6),
        _ends(left, -1),
        _ends(right, 1),
        *_measure((left, 46), (right, 46), "core length", (126, 50)),
        *_measure((right, 8), (right + 10, 8), "end turns", (149, 4)),
        Words(at=(126, 27), text="seen along the shaft", size=SMALL),
        Words(at=(126, 58), text="mean turn: one turn's length", size=SMALL),
        Words(at=(126, 62.5), text="through both slots", size=SMALL),
    ]
    return Drawing(tuple(shapes), WIDE, HIGH)


def _teeth(root: float, bore: float) -> tuple[Point, ...]:
    corners = ((8, bore), (20, bore), (20, root), (44, root), (44, bore), (56, bore))
    return (*corners, (56, root), (80, root), (80, bore), (86, bore))


def _ends(edge: float, way: int) -> Stroke:
    """Return the end turns beyond one end of the core."""
    return Stroke(
        points=(
            (edge, 18),
            (edge + way * 6, 17),
            (edge + way * 10, 20),
            (edge + way * 10, 34),
            (edge + way * 6, 37),
            (edge, 36),
        ),
        token="copper",
        width=0.8,
    )


def _measure(one: Point, two: Point, words: str, at: Point) -> list[Shape]:
    upright = one[0] == two[0]
    across = 1.4

    def tick(p: Point) -> Stroke:
        a = (p[0] - across, p[1]) if upright else (p[0], p[1] - across)
        b = (p[0] + across, p[1]) if upright else (p[0], p[1] + across)
        return Stroke(points=(a, b), token="copper", width=0.35)

    return [
        Stroke(points=(one, two), token="copper", width=0.35),
        tick(one),
        tick(two),
        Words(at=at, text=words, anchor=-1 if upright else 0, size=SMALL, token="ink"),
    ]
