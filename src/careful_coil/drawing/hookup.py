"""Any network or hookup: coils in fixed places, what is joined inside and outside, lines, devices."""

from collections.abc import Iterable, Mapping, Sequence

from careful_coil.core.ways.devices import Device, Moment
from careful_coil.core.ways.states import State, state_at
from careful_coil.core.winding import Network
from careful_coil.drawing import layout, wires
from careful_coil.drawing.devices import box_between, draw_device
from careful_coil.drawing.layout import COIL, LETTER, Element, Place, half_width
from careful_coil.drawing.shapes import Area, Drawing, Flag, Ring, Shape, Stroke, Words, coil
from careful_coil.drawing.winding import Look
from careful_coil.drawing.wires import Net, Router

LINES = ("L1", "L2", "L3", "N")
FLAG = 12.8  # room for a flag above the wires
LEFT = 2.0
APART = 11.9  # between two flags: as far as lanes of a device
IN_A_ROW = 8
# of its height, a letter's room at the right edge: small drawings keep their letters readable
UNSHRUNK = 1.35


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
    state: State | Moment = "rest",
    lines: Mapping[str, str] | None = None,
    alone_words: str = "insulated singly",
) -> Drawing:
    """Return the drawing of a network with joints between leads, lines and devices in a state.

    `fresh` joints are drawn in copper, `wrong` ones as holds; `marks` tokens of coils by name,
    `labels` what is written beside them, `lines` tokens of the lines' own colours,
    `alone_words` what is said of leads in no joint.
    Two drawings of one network have their coils in the same order, and in the same places when each
    is given the other's joints as `beside`; leads in no joint are named below.
    """
    joints = [tuple(j) for j in joints]
    stands = state if isinstance(state, State) else state_at(devices, state)
    elements = layout.elements_of(network, devices, stands, labels)
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
    used = [n for n in LINES if any(net.line == n for net in nets)]  # lines that feed something
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
        shapes += _element(e, grid, (marks or {}).get(e.name, "ink"), stands)
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
    own = lines or {}
    shapes += [Flag(at=(flags[n], head - 3.0), text=n, token=own.get(n, "ink")) for n in used]
    foot = wires.foot_of(grid, tracks)
    alone = [n for n in network.leads if n not in joined] if joints else []
    alone = [looks[n].tag if n in looks else n for n in alone]
    legend = [alone[k : k + IN_A_ROW] for k in range(0, len(alone), IN_A_ROW)]
    for number, row in enumerate(legend):
        word = f"{alone_words}: " if number == 0 else ""
        at = (LEFT + 1.0, foot + 4.5 * number)
        shapes.append(Words(at=at, text=word + ", ".join(row), anchor=-1, size=3.0))
    wide = max(
        [max(_extent(s)) for s in shapes if not isinstance(s, Words)]
        + [s.at[0] + 0.6 * s.size * len(s.text) for s in shapes if isinstance(s, Words)]
        + [_label_at(e, grid)[0] + UNSHRUNK * LETTER * e.letters for e in elements]
    )
    return Drawing(tuple(shapes), wide + 3.0, foot + 4.5 * len(legend))


def _extent(shape: Shape) -> list[float]:
    if isinstance(shape, Stroke | Area):
        return [x for x, _ in shape.points]
    return [shape.at[0] + (max(shape.half, shape.radius) if isinstance(shape, Ring) else 5.5)]


def _rings(
    elements: Sequence[Element], leads: Sequence[str], devices: Sequence[Device]
) -> dict[str, Place]:
    """Return where each lead and terminal is: its upper end, if it has one."""
    found: dict[str, Place] = {}
    names = {*leads, *(t for d in devices for t in d.terminals())}
    for place in sorted(layout.places(elements), key=lambda p: (not p.upper, p.element.row)):
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
    return any(p.channel == 0 and p.upper for p in net.pins)


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
        wanted = [grid.at(p)[0] for p in net.pins if p.channel == 0 and p.upper]
        free = [x for x in wanted if all(abs(x - t) >= APART for t in found.values())]
        found[line] = (
            free[0] if free else layout.nearest_free(wanted[0], list(found.values()), APART)
        )
    return found


def _label_at(e: Element, grid: layout.Grid) -> tuple[float, float]:
    """Return where an element's label begins: right of it, half way down."""
    _, y = grid.at(Place(e, 0))
    return max(grid.at(Place(e, k))[0] for k in range(len(e.ends))) + 4.6, y + COIL / 2


def _element(e: Element, grid: layout.Grid, token: str, state: State) -> list[Shape]:
    places = [grid.at(Place(e, k)) for k in range(len(e.ends))]
    a, b = places[0], next(p for k, p in enumerate(places) if k >= e.tops)
    label = Words(
        at=_label_at(e, grid),
        text=e.label,
        size=LETTER,
        anchor=-1,
        token="quiet" if token == "ink" else token,
    )
    said: list[Shape] = [label] if e.label else []
    if e.kind == "coil":
        return [coil(a, b, token), *said]
    if e.device is not None and e.body is not None:
        return [*draw_device(e.device, e.body, places, state, token), *said]
    return [*box_between(a, b, token), *said]
