"""Any network or hookup: coils in fixed places, what is joined inside and outside, lines, devices."""

from collections.abc import Iterable, Mapping, Sequence

from careful_coil.core.ways.devices import Device
from careful_coil.core.winding import Network
from careful_coil.drawing import layout, wires
from careful_coil.drawing.layout import COIL, LETTER, Element, Place, half_width
from careful_coil.drawing.shapes import Drawing, Flag, Ring, Shape, Stroke, Words, coil
from careful_coil.drawing.winding import Look
from careful_coil.drawing.wires import Net, Router

LINES = ("L1", "L2", "L3", "N")
FLAG = 12.8  # room for a flag above the wires
LEFT = 2.0
IN_A_ROW = 8


def draw_hookup(
    network: Network,
    joints: Iterable[Sequence[str]],
    looks: Mapping[str, Look],
    fresh: frozenset[frozenset[str]] = frozenset(),
    devices: Sequence[Device] = (),
    marks: Mapping[str, str] | None = None,
    wrong: frozenset[frozenset[str]] = frozenset(),
    labels: Mapping[str, str] | None = None,
    beside: Iterable[Sequence[str]] = (),
) -> Drawing:
    """Return the drawing of a network with joints between leads, lines and devices.

    `fresh` joints are drawn in copper, `wrong` ones as holds; `marks` tokens of coils by name,
    `labels` what is written beside them.
    Two drawings of one network have their coils in the same order, and in the same places when each
    is given the other's joints as `beside`; leads in no joint are named below.
    """
    joints = [tuple(j) for j in joints]
    elements = layout.elements_of(network, devices, labels)
    ring_of = _rings(elements, network.leads, devices)
    tokens = dict.fromkeys(fresh, "copper") | dict.fromkeys(wrong, "hold")
    nets = _inner(elements, ring_of)
    nets += wires.joints_as_nets(elements, ring_of, joints, LINES, tokens)
    others = _inner(elements, ring_of)
    others += wires.joints_as_nets(elements, ring_of, beside, LINES, {})
    lanes, tracks = (
        [max(pair) for pair in zip(one, two, strict=True)]
        for one, two in zip(wires.allot(nets, elements), wires.allot(others, elements), strict=True)
    )
    used = [n for n in LINES if any(n in j for j in joints)]
    head = FLAG if used else 2.0
    texts = [looks[n].tag if n in looks else n for n in network.leads]
    loose_flags = _loose(nets)
    room = max(len(loose_flags), len(_loose(others)))
    grid = layout.grid(elements, texts, lanes, tracks, head, LEFT + 13.0 * room)
    flags = _flags(used, nets, grid, loose_flags)
    router = Router(grid, head, ring_of.values(), nets, flags, head - 3.0)
    shapes: list[Shape] = []
    for net in nets:
        shapes += router.drawn(net)
    for e in elements:
        shapes += _element(e, grid, (marks or {}).get(e.name, "ink"))
    joined = {n for j in joints if len(set(j)) > 1 for n in j}
    for lead in network.leads:
        if lead in ring_of:
            look = looks.get(lead, Look(tag=lead, token="ink"))
            shapes.append(
                Ring(
                    at=grid.at(ring_of[lead]),
                    text=look.tag,
                    token=look.token,
                    tracer=look.tracer,
                    radius=layout.RADIUS,
                    half=half_width(look.tag),
                )
            )
    shapes += [Flag(at=(flags[n], head - 3.0), text=n) for n in used]
    foot = wires.foot_of(grid, tracks)
    alone = [n for n in network.leads if n not in joined] if joints else []
    legend = [alone[k : k + IN_A_ROW] for k in range(0, len(alone), IN_A_ROW)]
    for number, row in enumerate(legend):
        word = "insulated singly: " if number == 0 else ""
        at = (LEFT + 1.0, foot + 4.5 * number)
        shapes.append(Words(at=at, text=word + ", ".join(row), anchor=-1, size=3.0))
    wide = max(
        [max(_extent(s)) for s in shapes if not isinstance(s, Words)]
        + [s.at[0] + 0.6 * s.size * len(s.text) for s in shapes if isinstance(s, Words)]
    )
    return Drawing(tuple(shapes), wide + 3.0, foot + 4.5 * len(legend))


def _extent(shape: Shape) -> list[float]:
    if isinstance(shape, Stroke):
        return [x for x, _ in shape.points]
    return [shape.at[0] + (max(shape.half, shape.radius) if isinstance(shape, Ring) else 5.5)]


def _rings(
    elements: Sequence[Element], leads: Sequence[str], devices: Sequence[Device]
) -> dict[str, Place]:
    """Return where each lead and terminal is: its upper end, if it has one."""
    found: dict[str, Place] = {}
    names = {*leads, *(t for d in devices for t in d.terminals())}
    for place in sorted(layout.places(elements), key=lambda p: (p.number > 0, p.element.row)):
        if place.node in names:
            found.setdefault(place.node, place)
    return found


def _inner(elements: Sequence[Element], ring_of: Mapping[str, Place]) -> list[Net]:
    """Return what is joined inside the motor."""
    ends: dict[str, list[Place]] = {}
    for place in layout.places(elements):
        ends.setdefault(place.node, []).append(place)
    return [Net(pins=pins, inner=True) for pins in ends.values() if len(pins) > 1]


def _above(net: Net) -> bool:
    return any(p.channel == 0 and p.number == 0 for p in net.pins)


def _loose(nets: Sequence[Net]) -> list[str]:
    """Return the lines that feed no end of the first row from above."""
    lines = dict.fromkeys(net.line for net in nets if net.line)
    return [n for n in lines if not any(net.line == n and _above(net) for net in nets)]


def _flags(
    used: Sequence[str], nets: Sequence[Net], grid: layout.Grid, loose: Sequence[str]
) -> dict[str, float]:
    """Return the place of each line's flag: above an end it feeds, else at the left."""
    found: dict[str, float] = {}
    for line in used:
        if line in loose:
            found[line] = LEFT + 6.0 + 13.0 * loose.index(line)
            continue
        net = next(n for n in nets if n.line == line and _above(n))
        wanted = [grid.at(p)[0] for p in net.pins if p.channel == 0 and p.number == 0]
        free = [x for x in wanted if all(abs(x - t) >= 12.0 for t in found.values())]
        found[line] = (
            free[0] if free else layout.nearest_free(wanted[0], list(found.values()), 12.0)
        )
    return found


def _element(e: Element, grid: layout.Grid, token: str) -> list[Shape]:
    a, b = grid.at(Place(e, 0)), grid.at(Place(e, 1))
    label = Words(
        at=(a[0] + 4.6 + 9.0 * max(0, len(e.ends) - 2), a[1] + COIL / 2),
        text=e.label,
        size=LETTER,
        anchor=-1,
        token="quiet" if token == "ink" else token,
    )
    said: list[Shape] = [label] if e.label else []
    if e.kind == "coil":
        return [coil(a, b, token), *said]
    return [*_symbol(e, a, b, grid, token), *said]


def _symbol(
    e: Element, a: tuple[float, float], b: tuple[float, float], grid: layout.Grid, token: str
) -> list[Shape]:
    x, top, bottom = a[0], a[1] + COIL / 2 - 1.6, a[1] + COIL / 2 + 1.6

    def stroke(*points: tuple[float, float], width: float = 0.5) -> Stroke:
        return Stroke(points=points, token=token, width=width)

    if e.kind.startswith("capacitor") and len(e.ends) == 2:
        return [
            stroke(a, (x, top)),
            stroke((x - 3.6, top), (x + 3.6, top), width=0.9),
            stroke((x - 3.6, bottom), (x + 3.6, bottom), width=0.9),
            stroke((x, bottom), b),
        ]
    if e.kind in ("speed-switch", "link", "protector"):
        blade = (x, bottom + 2.4) if e.kind == "link" else (x + 3.0, top - 1.4)
        return [
            stroke(a, (x, top - 2.4)),
            stroke((x, bottom + 2.4), blade if e.kind != "link" else (x, top - 2.4), width=0.9),
            stroke((x, bottom + 2.4), b),
        ]
    wide = 3.4 + 9.0 * (len(e.ends) - 2)
    box = ((x - 3.4, top - 4), (x + wide, top - 4), (x + wide, bottom + 4), (x - 3.4, bottom + 4))
    shapes: list[Shape] = [stroke(a, (x, top - 4)), stroke(*box, box[0])]
    for number in range(1, len(e.ends)):
        end = grid.at(Place(e, number))
        shapes.append(stroke((end[0], bottom + 4), end))
    return shapes
