"""A stator in millimetres: round with its coil sides, developed with its coils, its field's wave, its star."""

import cmath
import itertools
import math
from collections.abc import Sequence

import numpy as np

from careful_coil.core.rewind.layout import MAIN, PHASES, START, LaidCoil, Layout, mmf
from careful_coil.drawing.shapes import Dot, Drawing, Point, Shape, Stroke, Words

BORE = 27.0  # radius of the round picture's bore
SMALL, LETTER = 3.1, 1.9  # mm of a figure; least radius of a side that has its letter
NAMED = (1, 2, 3, 4, 6, 8, 9, 12, 18, 24)
MOST_NAMED = 24
TINT = {name: k % 3 + 1 for k, name in enumerate((*PHASES, MAIN, START))}
LETTERS = {MAIN: "M", START: "S"}
ARC = 24
APART = 6.0  # mm between two slot numbers in a line


def draw_stator(layout: Layout, chosen: int | None = None) -> Drawing:
    """Return a stator seen from one end: slots round the bore, a dot for each coil side in its phase's tint.

    The side where a coil starts lies at the bore, the one where it finishes behind it; `chosen` the
    number of a coil that is drawn out, its words in the middle.
    """
    pitch = 2 * math.pi / layout.slots
    dot = min(3.0, BORE * pitch * 0.47)
    inner, outer = BORE + dot + 1.0, BORE + 3.2 * dot + 1.2
    rim = outer + dot + 1.5
    middle = rim + 6.5

    def at(radius: float, slot: float) -> Point:
        way = (slot - 1) * pitch - math.pi / 2
        return middle + radius * math.cos(way), middle + radius * math.sin(way)

    shapes: list[Shape] = [
        _circle(middle, BORE, "quiet", 0.35),
        _circle(middle, rim, "quiet", 0.35),
    ]
    every = next(n for n in NAMED if layout.slots / n <= MOST_NAMED)
    for slot in range(1, layout.slots + 1, every):
        shapes.append(Words(at=at(rim + 3.2, slot), text=str(slot), size=SMALL))
    for slot, coils in layout.sides.items():
        for c in coils:
            radius = inner if c.start == slot else outer
            shapes += _side(at(radius, slot), c, dot)
    own = next((c for c in layout.coils if c.number == chosen), None)
    if own is not None:
        shapes += _drawn_out(
            layout, own, middle, (at(inner, own.start), at(outer, own.finish)), dot
        )
    return Drawing(tuple(shapes), 2 * middle, 2 * middle)


def _side(at: Point, coil: LaidCoil, dot: float) -> list[Shape]:
    tint = TINT[coil.phase]
    rim = tuple(
        (at[0] + dot * math.cos(k * math.pi / 12), at[1] + dot * math.sin(k * math.pi / 12))
        for k in range(25)
    )
    found: list[Shape] = [
        Dot(at=at, radius=dot, token=f"phase-{tint}"),
        Stroke(points=rim, token="quiet", width=0.25),  # the light one is seen on the paper too
    ]
    if dot >= LETTER:
        letter = LETTERS.get(coil.phase, coil.phase)
        found.append(Words(at=at, text=letter, size=SMALL, token=f"on-phase-{tint}", bold=True))
    return found


def _drawn_out(
    layout: Layout, coil: LaidCoil, middle: float, ends: tuple[Point, Point], dot: float
) -> list[Shape]:
    """Return a coil as a curve through the bore, its sides ringed, its words in the middle."""
    one, two = ends
    pull = 0.45

    def between(t: float) -> Point:
        """Bend the way from side to side towards the middle."""
        x = (1 - t) ** 2 * one[0] + 2 * t * (1 - t) * _pulled(0) + t**2 * two[0]
        y = (1 - t) ** 2 * one[1] + 2 * t * (1 - t) * _pulled(1) + t**2 * two[1]
        return x, y

    def _pulled(axis: int) -> float:
        return pull * middle + (1 - pull) * (one[axis] + two[axis]) / 2

    shapes: list[Shape] = [
        Stroke(points=tuple(between(k / ARC) for k in range(ARC + 1)), token="copper", width=0.8)
    ]
    for end in ends:
        points = tuple(
            (
                end[0] + (dot + 0.5) * math.cos(2 * math.pi * k / ARC),
                end[1] + (dot + 0.5) * math.sin(2 * math.pi * k / ARC),
            )
            for k in range(ARC + 1)
        )
        shapes.append(Stroke(points=points, token="copper", width=0.7))
    lines = (
        (f"coil {coil.number}", True),
        (f"slots {coil.start} and {coil.finish}", False),
        (f"group {coil.group}, {_called(coil.phase)}", False),
        (f"{coil.turns:g} turns" if coil.turns != 1 else "", False),
    )
    # words stand on the side of the bore that the curve leaves free
    away = -1 if (one[1] + two[1]) / 2 > middle else 1
    top = middle + away * 6.0 - 6.0
    for k, (text, bold) in enumerate(lines):
        if text:
            place = (middle, top + 4.4 * k)
            shapes.append(Words(at=place, text=text, size=SMALL, token="ink", bold=bold))
    return shapes


def _called(phase: str) -> str:
    return phase if phase in (MAIN, START) else f"phase {phase}"


def draw_developed(
    layout: Layout, phase: str, wide: float = 120.0, chosen: int | None = None
) -> Drawing:
    """Return the stator unrolled: slots as upright lines, the coils of one phase as diamonds.

    The side where a coil starts is drawn through, the one where it finishes dashed; what goes over the
    edge comes in at the other side.
    """
    left, top, high, head = 5.0, 4.0, 22.0, 12.0
    step = (wide - 2 * left) / layout.slots
    floor = top + head + high
    low = floor + head

    def x(slot: float) -> float:
        return left + (slot - 0.5) * step

    shapes: list[Shape] = []
    for slot in range(1, layout.slots + 1):
        line = ((x(slot), top + head), (x(slot), floor))
        shapes.append(Stroke(points=line, token="hairline", width=0.25))
    every = next((n for n in NAMED if n * step >= APART), NAMED[-1])
    for slot in range(1, layout.slots + 1, every):
        shapes.append(Words(at=(x(slot), low + 4.0), text=str(slot), size=SMALL))
    tint = f"phase-{TINT[phase]}"
    widest = max(((c.finish - c.start) % layout.slots for c in layout.of(phase)), default=1)
    for c in layout.of(phase):
        token = "copper" if c.number == chosen else tint
        wide_by = 0.9 if c.number == chosen else 0.5
        far = c.finish if c.finish > c.start else c.finish + layout.slots
        reach = (
            head * (far - c.start) / widest
        )  # coils that lie in each other do so at their ends too
        for shift in (0, -layout.slots):
            if far + shift < 1 or c.start + shift > layout.slots:
                continue
            shapes += _diamond(
                (x(c.start + shift), x(far + shift)),
                (top + head - reach, top + head, floor, floor + reach),
                (left - 0.49 * step, wide - left + 0.49 * step),
                token,
                wide_by,
            )
    return Drawing(tuple(shapes), wide, low + 8.0)


def _diamond(
    sides: tuple[float, float],
    rows: tuple[float, float, float, float],
    edge: tuple[float, float],
    token: str,
    width: float,
) -> list[Shape]:
    """Return one coil, cut at the edges of the sheet."""
    (a, b), (top, upper, lower, low) = sides, rows
    middle = (a + b) / 2
    ways: tuple[tuple[tuple[Point, ...], bool], ...] = (
        (((a, upper), (a, lower)), False),
        (((b, upper), (b, lower)), True),
        (((a, upper), (middle, top), (b, upper)), False),
        (((a, lower), (middle, low), (b, lower)), False),
    )
    found: list[Shape] = []
    for way, dashed in ways:
        kept = _cut(way, edge)
        if len(kept) > 1:
            found.append(Stroke(points=kept, token=token, width=width, dashed=dashed))
    return found


def _cut(way: Sequence[Point], edge: tuple[float, float]) -> tuple[Point, ...]:
    """Return a way inside the edges: where it crosses one, up to there."""
    found: list[Point] = []
    for (ax, ay), (bx, by) in itertools.pairwise(way):
        if ax == bx:
            first, last = (0.0, 1.0) if edge[0] < ax < edge[1] else (1.0, 0.0)
        else:
            crossed = sorted((e - ax) / (bx - ax) for e in edge)
            first, last = max(crossed[0], 0.0), min(crossed[1], 1.0)
        if first < last:
            found += [(ax + t * (bx - ax), ay + t * (by - ay)) for t in (first, last)]
    return tuple(dict.fromkeys(found))


def draw_wave(layout: Layout, size: tuple[float, float] = (120.0, 34.0)) -> Drawing:
    """Return the field's steps round the bore at the moment when the first phase is at its peak."""
    amps = [1.0, *[-0.5] * (len(layout.phases) - 1)]
    if layout.phases == (MAIN,) or layout.phases == (MAIN, START):
        amps = [1.0, 0.0][: len(layout.phases)]
    wave = mmf(layout, amps)
    wide, high = size
    left, middle = 5.0, high / 2 - 2.0
    largest = float(abs(wave).max()) or 1.0
    step = (wide - 2 * left) / layout.slots
    points: list[Point] = []
    for k, value in enumerate(wave):
        y = middle - float(value) / largest * (middle - 2.0)
        points += [(left + k * step, y), (left + (k + 1) * step, y)]
    turn = math.pi * layout.poles / layout.slots * np.arange(layout.slots)
    field = complex(wave @ np.exp(-1j * turn)) * 2 / layout.slots / largest * (middle - 2.0)
    smooth = tuple(
        (left + (k + 0.5) * step, middle - (field * cmath.exp(1j * float(t))).real)
        for k, t in enumerate(turn)
    )
    shapes: list[Shape] = [
        Stroke(points=((left, middle), (wide - left, middle)), token="hairline", width=0.25),
        Stroke(points=smooth, token="copper", width=0.5),
        Stroke(points=tuple(points), token="ink", width=0.5),
        Words(at=(left, high - 3.0), text="slot 1", anchor=-1, size=SMALL),
        Words(at=(wide - left, high - 3.0), text=f"slot {layout.slots}", anchor=1, size=SMALL),
    ]
    return Drawing(tuple(shapes), wide, high)


def draw_star(layout: Layout, radius: float = 22.0) -> Drawing:
    """Return the star of slots: each coil side's vector by its electrical angle, in its phase's tint."""
    middle = radius + 6.0
    shapes: list[Shape] = []
    seen: dict[tuple[int, str], int] = {}
    for c in layout.coils:
        turn = round((layout.degrees * (c.start - 1) + (0 if c.sense > 0 else 180)) % 360, 3)
        key = (round(turn * 1000), c.phase)
        seen[key] = seen.get(key, 0) + 1
        if seen[key] > 1:
            continue
        way = math.radians(turn) - math.pi / 2
        end = (middle + radius * math.cos(way), middle + radius * math.sin(way))
        token = f"phase-{TINT[c.phase]}"
        shapes.append(Stroke(points=((middle, middle), end), token=token, width=0.7))
        shapes.append(Dot(at=end, radius=1.0, token=token))
    for name in layout.phases:
        whole = sum(
            c.sense * cmath.exp(1j * math.radians(layout.degrees * (c.start - 1)))
            for c in layout.of(name)
        )
        if abs(whole) > 1e-9:
            way = cmath.phase(whole) - math.pi / 2
            far = radius + 3.6
            place = (middle + far * math.cos(way), middle + far * math.sin(way))
            letter = LETTERS.get(name, name)
            shapes.append(Words(at=place, text=letter, size=SMALL, token="ink", bold=True))
    return Drawing(tuple(shapes), 2 * middle, 2 * middle)


def _circle(middle: float, radius: float, token: str, width: float) -> Stroke:
    points = tuple(
        (
            middle + radius * math.cos(2 * math.pi * k / 90),
            middle + radius * math.sin(2 * math.pi * k / 90),
        )
        for k in range(91)
    )
    return Stroke(points=points, token=token, width=width)
