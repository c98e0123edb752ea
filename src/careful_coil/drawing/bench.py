"""What stands on the bench, drawn: supply posts, a tester's clips, the earth bond, a run as it is wired, a load."""

import math
from collections.abc import Mapping, Sequence

from careful_coil.drawing.rotation import arrow
from careful_coil.drawing.shapes import Area, Dot, Drawing, Point, Shape, Stroke, Words, scaled

SMALL = 3.1
ROW = 6.4  # between two leads or lines
FRAME_WIDE, FRAME_HIGH = 34.0, 26.0
POSTS = 0.72  # of their size: the cells below stay in sight


def box(x: float, y: float, wide: float, high: float) -> tuple[Point, ...]:
    """Return a closed rectangle."""
    return ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high), (x, y))


def earth_sign(at: Point, token: str = "ink") -> list[Shape]:
    """Return a line down to three bars."""
    x, y = at
    bars = ((4.0, 3.4), (2.6, 4.8), (1.2, 6.2))
    found: list[Shape] = [Stroke(points=((x, y), (x, y + 3.4)), token=token)]
    found += [
        Stroke(points=((x - half, y + down), (x + half, y + down)), token=token, width=0.7)
        for half, down in bars
    ]
    return found


def draw_posts(
    phases: int,
    line: Sequence[float] | None,
    neutral: Sequence[float] | None,
    asked: bool,
) -> Drawing:
    """Return the posts of a supply with the volts between them; `asked` while the volts are still to be read."""
    if phases == 1:
        left, right = (14.0, 16.0), (70.0, 16.0)
        shapes: list[Shape] = _reading(left, right, "", asked and not line)
        shapes += _post(left, "L") + _post(right, "N")
        return scaled(Drawing(tuple(shapes), 84.0, 32.0), POSTS)
    top, low_left, low_right, middle = (48.0, 9.0), (12.0, 54.0), (84.0, 54.0), (48.0, 39.0)
    posts = {"L1": top, "L2": low_right, "L3": low_left}
    shapes = []
    for k, (a, b) in enumerate((("L1", "L2"), ("L2", "L3"), ("L3", "L1"))):
        words = f"{line[k]:g} V" if line else ""
        shapes += _reading(posts[a], posts[b], words, asked and not line)
    for k, name in enumerate(posts):
        words = f"{neutral[k]:g} V" if neutral else ""
        shapes += _reading(posts[name], middle, words, asked and not neutral)
    for name, at in posts.items():
        shapes += _post(at, name)
    shapes += _post(middle, "N")
    return scaled(Drawing(tuple(shapes), 96.0, 60.0), POSTS)


def _post(at: Point, name: str) -> list[Shape]:
    ring = tuple(
        (at[0] + 4.6 * math.cos(k * math.pi / 12), at[1] + 4.6 * math.sin(k * math.pi / 12))
        for k in range(25)
    )
    return [
        Area(points=ring, token="surface"),
        Stroke(points=ring, width=0.7),
        Words(at=at, text=name, size=3.6, token="ink", bold=True),
    ]


def _reading(a: Point, b: Point, words: str, asked: bool) -> list[Shape]:
    """Return a line between two posts with its volts on it, dashed while they are not read."""
    token = "copper" if asked else "ink"
    shapes: list[Shape] = [Stroke(points=(a, b), token=token, width=0.6, dashed=not words)]
    if words:
        x, y = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
        half = 1.05 * len(words) + 1.4
        under = box(x - half, y - 2.6, 2 * half, 5.2)
        shapes += [
            Area(points=under, token="ground"),
            Words(at=(x, y), text=words, size=3.4, token="ink", bold=True),
        ]
    return shapes


def draw_clips(joined: Sequence[str], earthed: Sequence[str], volt: float) -> Drawing:
    """Return a tester at a winding: `joined` leads on its clip, the frame and `earthed` leads on earth."""
    rows = max(len(joined) + len(earthed), 2)
    tall = max(rows * ROW + 2.0, FRAME_HIGH)
    high = tall + 10.0
    left, frame = 46.0, 58.0
    top = (high - tall) / 2
    shapes: list[Shape] = _tester((6.0, high / 2 - 9.0), f"{volt:g} V DC" if volt else "test volts")
    shapes.append(Area(points=box(frame, top, FRAME_WIDE, tall)[:4], token="surface"))
    shapes.append(Stroke(points=box(frame, top, FRAME_WIDE, tall), width=0.7))
    shapes.append(Words(at=(frame + FRAME_WIDE / 2, top - 2.6), text="frame", size=SMALL))
    names = [*joined, *earthed]
    first = high / 2 - (len(names) - 1) * ROW / 2
    ends = {n: (left, first + k * ROW) for k, n in enumerate(names)}
    for name, at in ends.items():
        shapes.append(Stroke(points=((at[0] + 3.0, at[1]), (frame + 6.0, at[1])), width=0.6))
        shapes.append(Words(at=at, text=name, size=3.4, token="ink", bold=True))
    if joined:
        bar = 36.0
        ys = [ends[n][1] for n in joined]
        shapes += [
            Stroke(points=((bar, y), (left - 3.4, y)), token="copper", width=0.8) for y in ys
        ]
        run = ((bar, min(ys)), (bar, max(ys)))
        shapes += [Stroke(points=run, token="copper", width=0.8)] if len(ys) > 1 else []
        middle = sum(ys) / len(ys)
        clip = ((24.0, high / 2 - 4.0), (30.0, high / 2 - 4.0), (30.0, middle), (bar, middle))
        shapes += [
            Stroke(points=clip, token="copper", width=0.9),
            Dot(at=(bar, middle), token="copper"),
        ]
    low = top + tall
    shapes.append(
        Stroke(
            points=(
                (24.0, high / 2 + 4.0),
                (30.0, high / 2 + 4.0),
                (30.0, low + 3.0),
                (frame + 8.0, low + 3.0),
                (frame + 8.0, low),
            ),
            token="note",
            width=0.8,
        )
    )
    shapes += earth_sign((frame + 20.0, low))
    for name in earthed:
        y = ends[name][1]
        shapes.append(
            Stroke(points=((left - 3.4, y), (41.0, y), (41.0, low + 3.0)), token="note", width=0.8)
        )
        shapes.append(Dot(at=(41.0, low + 3.0), token="note"))
    return Drawing(tuple(shapes), frame + FRAME_WIDE + 4.0, max(high, low + 9.0))


def _tester(at: Point, words: str) -> list[Shape]:
    x, y = at
    return [
        Area(points=box(x, y, 18.0, 18.0)[:4], token="surface"),
        Stroke(points=box(x, y, 18.0, 18.0), width=0.7),
        Words(at=(x + 9.0, y + 6.5), text="MΩ", size=4.2, token="ink", bold=True),
        Words(at=(x + 9.0, y - 2.4), text=words, size=SMALL),
    ]


def draw_bond(places: Mapping[str, str], next: str) -> Drawing:
    """Return the motor with its earth stud, each place of the bond with its words; `next` where the clip goes."""
    frame = (30.0, 12.0)
    shapes: list[Shape] = [
        Area(points=box(*frame, 50.0, 26.0)[:4], token="surface"),
        Stroke(points=box(*frame, 50.0, 26.0), width=0.7),
    ]
    for x in (22.0, 80.0):
        bell = box(x, 15.0, 8.0, 20.0)
        shapes += [Area(points=bell[:4], token="iron"), Stroke(points=bell, width=0.6)]
    shapes.append(Stroke(points=box(14.0, 23.4, 8.0, 3.2), width=0.6))
    stud = (55.0, 34.0)
    shapes += [Dot(at=stud, radius=1.6), *earth_sign((stud[0], stud[1] + 1.6))]
    at = {"frame": (40.0, 12.0), "drive end bell": (26.0, 15.0), "other end bell": (84.0, 15.0)}
    words_at = {"frame": (48.0, 4.0), "drive end bell": (10.0, 4.0), "other end bell": (86.0, 4.0)}
    for place, words in places.items():
        token = "copper" if place == next else "good" if words else "quiet"
        tip = at[place]
        if place == next:
            around = (
                (stud[0] + 1.6, stud[1]),
                (stud[0] + 10.0, stud[1]),
                (stud[0] + 10.0, 8.0),
                (tip[0], 8.0),
                tip,
            )
            shapes.append(Stroke(points=around, token="copper", width=0.8))
        shapes.append(Dot(at=tip, radius=1.3, token=token))
        shapes.append(
            Words(
                at=words_at[place], text=words or place, size=SMALL, token=token, bold=place == next
            )
        )
    return Drawing(tuple(shapes), 100.0, 44.0)


def draw_run(lines: Mapping[str, str], covers: str, guarded: bool, load: str) -> Drawing:
    """Return the bench as it is wired: each line by its leads, switch and ammeter in it, the motor earthed.

    `covers` off or on; `load` what is on its shaft.
    """
    high = max(len(lines) * ROW + 16.0, 36.0)
    first = high / 2 - (len(lines) - 1) * ROW / 2
    shapes: list[Shape] = []
    for k, (name, leads) in enumerate(lines.items()):
        y = first + k * ROW
        shapes += [
            Words(at=(7.0, y), text=name, size=3.6, token="ink", bold=True),
            Stroke(points=((11.0, y), (18.0, y)), width=0.7),
            Stroke(points=((18.0, y), (24.0, y - 2.6)), width=0.7),
            Dot(at=(18.0, y), radius=0.7),
            Dot(at=(25.0, y), radius=0.7),
            Stroke(points=((25.0, y), (33.0, y)), width=0.7),
            *_dial((36.0, y), "A"),
            Stroke(points=((39.0, y), (70.0, y)), width=0.7),
            Words(at=(54.0, y - 2.0), text=leads, size=SMALL, token="ink"),
        ]
    shapes.append(Words(at=(21.5, first - 6.0), text="bench switch", size=SMALL))
    top = (high - FRAME_HIGH) / 2
    body = box(70.0, top, FRAME_WIDE, FRAME_HIGH)
    shapes += [Area(points=body[:4], token="surface"), Stroke(points=body, width=0.7)]
    if covers == "off":
        shapes.append(
            Stroke(points=box(74.0, top + 4.0, FRAME_WIDE - 8.0, FRAME_HIGH - 8.0), dashed=True)
        )
    shapes.append(
        Words(at=(87.0, top - 2.6), text=f"covers {covers}" if covers else "motor", size=SMALL)
    )
    shaft = box(104.0, high / 2 - 1.6, 10.0, 3.2)
    shapes += [Area(points=shaft[:4], token="surface"), Stroke(points=shaft, width=0.6)]
    if guarded:
        shapes.append(
            Stroke(points=box(105.0, high / 2 - 9.0, 12.0, 18.0), token="note", dashed=True)
        )
        shapes.append(Words(at=(111.0, high / 2 - 11.4), text="guard", size=SMALL))
    shapes.append(Words(at=(111.0, high / 2 + 12.0), text=load, size=SMALL))
    shapes += earth_sign((80.0, top + FRAME_HIGH))
    return Drawing(tuple(shapes), 122.0, high + 8.0)


def _dial(at: Point, name: str) -> list[Shape]:
    ring = tuple(
        (at[0] + 3.0 * math.cos(k * math.pi / 12), at[1] + 3.0 * math.sin(k * math.pi / 12))
        for k in range(25)
    )
    return [
        Area(points=ring, token="surface"),
        Stroke(points=ring, width=0.6),
        Words(at=at, text=name, size=SMALL, token="ink", bold=True),
    ]


def draw_load(turns: str, seen_from: str) -> Drawing:
    """Return the load on the shaft, seen from the named end: an arrow round it the way it is to turn.

    `turns` cw or ccw as seen from there, empty: nobody said, both ways dashed.
    """
    centre = (34.0, 24.0)
    shapes: list[Shape] = []
    for reach, width in ((9.0, 0.8), (3.0, 0.7)):
        ring = tuple(
            (
                centre[0] + reach * math.cos(k * math.pi / 18),
                centre[1] + reach * math.sin(k * math.pi / 18),
            )
            for k in range(37)
        )
        shapes += [Area(points=ring, token="surface"), Stroke(points=ring, width=width)]
    for k in range(5):  # a pulley's arms
        turn = math.radians(90 + 72 * k)
        arm = tuple(
            (centre[0] + r * math.cos(turn), centre[1] + r * math.sin(turn)) for r in (3.0, 9.0)
        )
        shapes.append(Stroke(points=arm, width=0.5))
    shapes.append(
        Stroke(
            points=((centre[0] - 0.9, centre[1] - 3.0), (centre[0] + 0.9, centre[1] - 3.0)),
            width=1.0,
        )
    )
    if turns:
        shapes += arrow(centre, turns, "copper", 15.0)
    else:
        for way in ("cw", "ccw"):
            shapes += arrow(centre, way, "quiet", 13.0 if way == "cw" else 16.0)
    said = {"drive-end": "seen from the drive end", "opposite": "seen from the opposite end"}
    words = said.get(seen_from, "seen from which end?")
    shapes.append(
        Words(at=(centre[0], 44.0), text=words, size=SMALL, token="ink", bold=bool(turns))
    )
    return Drawing(tuple(shapes), 68.0, 48.0)
