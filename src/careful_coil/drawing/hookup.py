"""A three-phase hookup: three columns of coils with fixed places, joints drawn between them."""

from collections.abc import Iterable, Mapping, Sequence

from careful_coil.core.winding import Network
from careful_coil.drawing.shapes import Dot, Drawing, Flag, Point, Ring, Shape, Stroke, Words, coil
from careful_coil.drawing.winding import Look

COLUMN, LEFT, TOP = 27.0, 16.0, 16.0
COIL, GAP, FOOT = 22.0, 14.0, 10.0
LINES = ("L1", "L2", "L3")


def draw_hookup(
    network: Network,
    joints: Iterable[Sequence[str]],
    looks: Mapping[str, Look],
    fresh: frozenset[frozenset[str]] = frozenset(),
) -> Drawing:
    """Return the hookup of a three-phase network; `fresh` joints are drawn in copper.

    Coils always stand in the same place: phase k in column k, T1–T6 above, T7–T9 below.
    """
    place = _places(network)
    inner = {n for c in network.coils for n in (c.start, c.finish)} - set(network.leads)
    bottom = TOP + 2 * COIL + GAP if inner else max(y for _, y in place.values())
    shapes: list[Shape] = []
    for c in network.coils:
        near = place.get(c.start) or place[c.finish]
        foot = (near[0], bottom)  # an inner star's coil ends on the bar below its own lead
        shapes.append(coil(place.get(c.start, foot), place.get(c.finish, foot)))
    if inner:
        shapes += _bar([(LEFT + COLUMN * k, bottom) for k in range(3)], "ink")
    joined: set[str] = set()
    for joint in joints:
        joined |= set(joint)
        token = "copper" if frozenset(joint) in fresh else "ink"
        shapes += _joint(joint, place, bottom, token)
    for lead in network.leads:
        look = looks.get(lead, Look(tag=lead, token="ink"))
        shapes.append(
            Ring(at=place[lead], text=lead, token=look.token, tracer=look.tracer, radius=3.9)
        )
        if lead not in joined:
            x, y = place[lead]
            shapes.append(Words(at=(x + 5.0, y), text="insulated", anchor=-1, size=3.0))
    used = [n for n in LINES if n in joined]
    shapes += [Flag(at=(LEFT + COLUMN * LINES.index(n), TOP - 6.5), text=n) for n in used]
    lowest = max(y for s in shapes if isinstance(s, Stroke) for _, y in s.points)
    return Drawing(tuple(shapes), LEFT + 2 * COLUMN + 20.0, max(lowest, bottom + 4.0) + 2.0)


def _places(network: Network) -> dict[str, Point]:
    """Fixed places: a lead's number tells its column and its height."""
    heights = {0: TOP, 1: TOP + COIL, 2: TOP + COIL + GAP, 3: TOP + 2 * COIL + GAP}
    place: dict[str, Point] = {}
    for lead in network.leads:
        number = int(lead[1:]) - 1
        place[lead] = (LEFT + COLUMN * (number % 3), heights[number // 3])
    return place


def _joint(
    joint: Sequence[str], place: Mapping[str, Point], bottom: float, token: str
) -> list[Shape]:
    lines = [n for n in joint if n in LINES]
    leads = [n for n in joint if n in place]
    points = [place[n] for n in leads]
    shapes: list[Shape] = []
    for line in lines:
        x = LEFT + COLUMN * LINES.index(line)
        head = (x, TOP - 6.5)
        for point in points:
            shapes += _from_line(head, point, bottom, token)
    if lines:
        return shapes
    columns = {p[0] for p in points}
    if len(columns) == 1 and len(points) == 2:
        middle = (points[0][0], (points[0][1] + points[1][1]) / 2)
        return [
            Stroke(points=tuple(points), token=token, width=0.9),
            Dot(at=middle, token=token, radius=1.3),
        ]
    return _star_below(points, token)


def _from_line(head: Point, point: Point, bottom: float, token: str) -> list[Shape]:
    x, y = head
    if point[0] == x and point[1] == TOP:
        return [Stroke(points=(head, point), token=token)]
    dot = Dot(at=(x, y + 1.2), token=token)
    lane = x - 8.0
    way: tuple[Point, ...]
    if point[0] == x:
        # the lower half of the same phase: down a lane on the left
        way = ((x, y + 1.2), (lane, y + 1.2), (lane, point[1]), point)
    else:
        # a finish of another phase: the lane passes below the coils, the wrapping one lowest
        foot = bottom + (FOOT if point[0] > x else FOOT / 2)
        way = ((x, y + 1.2), (lane, y + 1.2), (lane, foot), (point[0], foot), point)
    return [Stroke(points=way, token=token), dot]


def _star_below(points: Sequence[Point], token: str) -> list[Shape]:
    """A joint of leads in several columns: a bar below them."""
    level = max(p[1] for p in points) + 5.5
    shapes: list[Shape] = []
    for x, y in points:
        shapes.append(Stroke(points=((x, y), (x, level)), token=token, width=0.9))
    return shapes + _bar([(x, level) for x, _ in points], token)


def _bar(points: Sequence[Point], token: str) -> list[Shape]:
    ordered = sorted(points)
    shapes: list[Shape] = [Stroke(points=(ordered[0], ordered[-1]), token=token, width=0.7)]
    return shapes + [Dot(at=p, token=token, radius=1.2) for p in ordered]
