"""A motor in section, by what its kind has, in millimetres; where each of its places is pointed at."""

from collections.abc import Mapping
from dataclasses import dataclass

from careful_coil.core.mechanics.places import Shell
from careful_coil.drawing.shapes import Area, Dot, Point, Shape, Stroke

HIGH = 56.0  # of the drawing without words
WIDE = 84.0  # of the drawing at its usual size: shaft end to fan cover
AXIS = 31.0
TOP, LOW = 12.0, 50.0  # of the frame
LEFT, RIGHT = 15.0, 67.0  # the end shields' planes
SHAFT = 3.0  # half of the shaft's thickness
PIN = 2.6  # half of a bearing's box
AT = 5.4  # of a bearing's middle from the axis


@dataclass(frozen=True, slots=True)
class Section:
    """The shapes, and by place the point its leader line ends at."""

    shapes: tuple[Shape, ...]
    targets: Mapping[str, Point]


def draw_section(shell: Shell, tokens: Mapping[str, str], bold: str = "") -> Section:
    """Return a motor in section; `tokens` the colour of a place, `bold` the place that is chosen."""

    def pen(place: str) -> tuple[str, float]:
        return tokens.get(place, "ink"), 0.9 if place == bold else 0.5

    if shell.sealed:
        return _sealed(tokens.get("leads", "ink"), 0.9 if bold == "leads" else 0.5)
    shapes: list[Shape] = []
    targets: dict[str, Point] = {}
    shapes += _stator(shell)
    shapes += _rotor(shell)
    token, width = pen("shaft")
    right = RIGHT + (14.0 if shell.two_ends else 6.0 if shell.fan else 3.0)
    shapes += [
        Area(
            points=_box(2.0, AXIS - SHAFT, right, AXIS + SHAFT),
            token="surface",
        ),
        Stroke(
            points=_closed(_box(2.0, AXIS - SHAFT, right, AXIS + SHAFT)), token=token, width=width
        ),
        Stroke(points=((2.0, AXIS - 1.0), (9.0, AXIS - 1.0)), token=token, width=0.35),  # the key
    ]
    targets["shaft"] = (4.0, AXIS)
    shapes += _shields(shell, pen("shields"))
    targets["shields"] = (LEFT - 2.0, LOW - 5.0)
    for end, x in (("drive", LEFT), ("other", RIGHT)):
        shapes += _bearing(x, end in shell.sleeve, *pen(end))
    targets["drive"] = (LEFT, AXIS - AT)
    targets["other"] = (RIGHT, AXIS + AT)
    token, width = pen("seals")
    for side in (-1, 1):
        y = AXIS + side * SHAFT
        lip = ((LEFT - 5.4, y + side * 2.4), (LEFT - 5.4, y), (LEFT - 3.6, y + side * 2.4))
        shapes.append(Stroke(points=_closed(lip), token=token, width=width))
    targets["seals"] = (LEFT - 5.0, AXIS + SHAFT + 1.6)
    targets["fan"] = (RIGHT + 7.0, AXIS - 13.0)
    if shell.fan:
        shapes += _fan(*pen("fan"))
    shapes += _contacts(shell, pen("brushes"), pen("commutator"), targets)
    if shell.switch:
        token, width = pen("switch")
        x = RIGHT - 8.5
        for side in (-1, 1):
            bar = _box(x, AXIS + side * (SHAFT + 0.4), x + 2.2, AXIS + side * (SHAFT + 5.0))
            shapes.append(Area(points=bar, token=token))
        targets["switch"] = (x + 1.1, AXIS - SHAFT - 4.6)
    shapes += _leads(shell, pen("leads"))
    targets["windings"] = (LEFT + 8.0, LOW - 5.5)
    targets["iron"] = (LEFT + 22.0, LOW - 5.5)
    targets["whole"] = (RIGHT - 4.0, TOP + 1.0)
    if shell.capacitor:
        can = _box(47.0, TOP - 4.6, 61.0, TOP)
        shapes += [Area(points=can, token="iron"), Stroke(points=_closed(can), width=0.4)]
        shapes += [
            Stroke(points=((x, TOP - 2.3), (x + 1.6, TOP - 2.3)), width=0.4) for x in (61.0, 45.4)
        ]
        targets["capacitor"] = (54.0, TOP - 4.6)
    targets["leads"] = (36.0, TOP - 6.2 if shell.box else TOP - 3.0)
    token, _ = pen("earth")
    shapes += [
        Dot(at=(56.0, LOW - 2.4), radius=1.5, token=token),
        Stroke(points=((56.0, LOW - 2.4), (56.0, LOW)), token=token, width=0.7),
    ]
    targets["earth"] = (56.0, LOW - 2.4)
    return Section(tuple(shapes), targets)


def _box(x: float, y: float, right: float, low: float) -> tuple[Point, ...]:
    return ((x, y), (right, y), (right, low), (x, low))


def _closed(points: tuple[Point, ...]) -> tuple[Point, ...]:
    return (*points, points[0])


def _stator(shell: Shell) -> list[Shape]:
    """Return frame, core and winding heads; poles with their coils where it has those."""
    shapes: list[Shape] = [
        Area(points=_box(LEFT + 3, TOP, RIGHT - 3, LOW), token="surface"),
        Stroke(points=_closed(_box(LEFT + 3, TOP, RIGHT - 3, LOW)), width=0.5),
    ]
    ribs = [LEFT + 7 + 5.2 * k for k in range(9)]
    shapes += [Stroke(points=((x, TOP - 1.2), (x, TOP)), width=0.35) for x in ribs if x > 46]
    first, last = LEFT + 10.0, RIGHT - (17.0 if shell.commutator or shell.rings else 11.0)
    for y, low in ((TOP + 2.5, TOP + 8.5), (LOW - 8.5, LOW - 2.5)):
        core = _box(first, y, last, low)
        shapes += [Area(points=core, token="iron"), Stroke(points=_closed(core), width=0.35)]
        for x, out in ((first, -1), (last, 1)):
            tip = (x + out * 3.6, (y + low) / 2)
            head = (
                (x, y + 0.6),
                (x + out * 2.6, y + 1.2),
                tip,
                (x + out * 2.6, low - 1.2),
                (x, low - 0.6),
            )
            shapes += [Area(points=head, token="rotor"), Stroke(points=head, width=0.35)]
        if shell.poles:
            shapes.append(
                Stroke(points=((first, (y + low) / 2), (last, (y + low) / 2)), width=0.35)
            )
    feet = (LEFT + 7.0, RIGHT - 13.0)
    if shell.flange:
        plate = _box(LEFT - 2.2, TOP - 3.0, LEFT + 0.4, LOW + 3.0)
        shapes += [Area(points=plate, token="iron"), Stroke(points=_closed(plate), width=0.5)]
    elif not shell.poles:  # one that is held or built in stands on no feet
        shapes += [Area(points=_box(x, LOW, x + 6.0, LOW + 2.4), token="ink") for x in feet]
    return shapes


def _rotor(shell: Shell) -> list[Shape]:
    first, last = LEFT + 11.0, RIGHT - (18.0 if shell.commutator or shell.rings else 12.0)
    block = _box(first, AXIS - 9.0, last, AXIS + 9.0)
    shapes: list[Shape] = [
        Area(points=block, token="rotor"),
        Stroke(points=_closed(block), width=0.4),
    ]
    if not (shell.commutator or shell.rings):  # a cage: its end rings
        for x in (first - 1.6, last):
            ring = _box(x, AXIS - 8.4, x + 1.6, AXIS + 8.4)
            shapes += [Area(points=ring, token="iron"), Stroke(points=_closed(ring), width=0.35)]
    return shapes


def _shields(shell: Shell, pen: tuple[str, float]) -> list[Shape]:
    token, width = pen
    shapes: list[Shape] = []
    for x, out in ((LEFT, -1), (RIGHT, 1)):
        inner = x - out * 3.0
        for side, edge in ((-1, TOP), (1, LOW)):
            hub = AXIS + side * (AT + PIN + 0.8)
            outline = (
                (inner, edge),
                (x + out * 1.0, edge - side * 4.0),
                (x + out * 1.0, hub),
                (inner, hub),
            )
            shapes.append(Stroke(points=outline, token=token, width=width))
            bolt = (inner + out * 1.2, edge - side * 1.4)
            shapes.append(Dot(at=bolt, radius=0.7, token=token))
    return shapes


def _bearing(x: float, sleeve: bool, token: str, width: float) -> list[Shape]:
    """Return both halves of a bearing in section: a ball between rings, or a bush with its wick."""
    shapes: list[Shape] = []
    for side in (-1, 1):
        y = AXIS + side * AT
        box = _box(x - PIN, y - PIN, x + PIN, y + PIN)
        shapes.append(Area(points=box, token="surface"))
        if sleeve:
            bush = _box(x - PIN, y + side * 0.2, x + PIN, y - side * PIN)
            shapes += [
                Area(points=bush, token="rotor"),
                Stroke(points=_closed(bush), token=token, width=width),
            ]
            wick = ((x - 1.0, y + side * PIN), (x, y + side * 0.4), (x + 1.0, y + side * PIN))
            shapes.append(Stroke(points=wick, token=token, width=width))
        else:
            shapes.append(Stroke(points=_closed(box), token=token, width=width))
            ring = tuple((x + 1.3 * dx, y + 1.3 * dy) for dx, dy in ROUND)
            shapes.append(Stroke(points=ring, token=token, width=width))
    return shapes


ROUND = (
    *((1.0, 0.0), (0.87, 0.5), (0.5, 0.87), (0.0, 1.0), (-0.5, 0.87), (-0.87, 0.5), (-1.0, 0.0)),
    *((-0.87, -0.5), (-0.5, -0.87), (0.0, -1.0), (0.5, -0.87), (0.87, -0.5), (1.0, 0.0)),
)


def _fan(token: str, width: float) -> list[Shape]:
    shapes: list[Shape] = []
    for side in (-1, 1):
        for dx in (0.0, 2.2):
            x, near, far = RIGHT + 5.0 + dx, AXIS + side * (SHAFT + 1.0), AXIS + side * 15.0
            shapes.append(
                Stroke(points=((x, near), (x + 1.8, far)), token=token, width=width + 0.3)
            )
    cover = (
        (RIGHT - 2.0, TOP + 1.0),
        (RIGHT + 12.0, TOP + 1.0),
        (RIGHT + 12.0, LOW - 1.0),
        (RIGHT - 2.0, LOW - 1.0),
    )
    shapes.append(Stroke(points=cover, token=token, width=0.4, dashed=True))
    return shapes


def _contacts(
    shell: Shell,
    brushes: tuple[str, float],
    commutator: tuple[str, float],
    targets: dict[str, Point],
) -> list[Shape]:
    """Return commutator or slip rings, and the brushes on them."""
    shapes: list[Shape] = []
    left = RIGHT - 16.0
    if shell.commutator:
        token, width = commutator
        block = _box(left, AXIS - 6.0, left + 7.0, AXIS + 6.0)
        shapes += [
            Area(points=block, token="rotor"),
            Stroke(points=_closed(block), token=token, width=width),
        ]
        lines = (AXIS - 4.0, AXIS - 2.0, AXIS, AXIS + 2.0, AXIS + 4.0)
        shapes += [
            Stroke(points=((left, y), (left + 7.0, y)), token=token, width=0.3) for y in lines
        ]
        targets["commutator"] = (left + 6.0, AXIS + 3.0)
    elif shell.rings:
        for k in range(3):
            x = left + 2.6 * k
            ring = _box(x, AXIS - 6.0, x + 1.4, AXIS + 6.0)
            shapes += [Area(points=ring, token="rotor"), Stroke(points=_closed(ring), width=0.4)]
    if shell.brushes:
        token, width = brushes
        for side in (-1, 1):
            y = AXIS + side * 6.2
            brush = _box(left + 2.0, y, left + 5.0, y + side * 4.4)
            shapes += [
                Area(points=brush, token="surface"),
                Stroke(points=_closed(brush), token=token, width=width),
            ]
            spring = tuple(
                (left + 3.5 + (0.7 if k % 2 else -0.7), y + side * (4.6 + 0.6 * k))
                for k in range(5)
            )
            shapes.append(Stroke(points=spring, token=token, width=0.35))
        targets["brushes"] = (left + 3.5, AXIS - 9.0)
    return shapes


def _leads(shell: Shell, pen: tuple[str, float]) -> list[Shape]:
    """Return the terminal box with its leads, or a cord."""
    token, width = pen
    if not shell.box:
        cord = (
            (36.0, TOP),
            (36.0, TOP - 3.0),
            (33.0, TOP - 4.4),
            (27.0, TOP - 5.0),
            (20.0, TOP - 4.4),
        )
        return [Stroke(points=cord, token=token, width=1.6)]
    box = _box(29.0, TOP - 6.2, 43.0, TOP)
    shapes: list[Shape] = [
        Area(points=box, token="surface"),
        Stroke(points=_closed(box), token=token, width=width),
    ]
    wires = ("wire:brown", "wire:blue", "ink", "wire:grey")
    for k, wire in enumerate(wires):
        x = 31.6 + 3.0 * k
        shapes.append(
            Stroke(points=((x, TOP), (x + 0.6, TOP - 2.4), (x, TOP - 4.6)), token=wire, width=0.8)
        )
    return shapes


def _sealed(token: str, width: float) -> Section:
    """Return a sealed compressor: a shell with three pins in its side."""
    shell = tuple((41.0 + 22.0 * dx, AXIS + 20.0 * dy) for dx, dy in ROUND)
    shapes: list[Shape] = [Area(points=shell, token="surface"), Stroke(points=shell, width=0.6)]
    shapes.append(Stroke(points=((19.0, AXIS), (63.0, AXIS)), width=0.8))  # the seam
    plug = _box(55.0, AXIS - 16.0, 65.0, AXIS - 5.0)
    shapes += [
        Area(points=plug, token="iron"),
        Stroke(points=_closed(plug), token=token, width=width),
    ]
    shapes += [
        Dot(at=at, radius=1.1, token=token)
        for at in ((58.0, AXIS - 8.0), (62.0, AXIS - 8.0), (60.0, AXIS - 12.0))
    ]
    return Section(tuple(shapes), {"leads": (60.0, AXIS - 10.0)})
