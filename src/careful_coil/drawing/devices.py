"""Devices in a hookup: contacts shown closed or open as they stand, coils, heaters, capacitors.

A device has its ends above and below like a coil; what works between two ends has a lane of its own.
A switch of several positions is drawn as a fan: the way that is closed in ink, the others dotted.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from careful_coil.core.ways.devices import CAPACITORS, Contact, Device, Moment
from careful_coil.core.ways.states import State, position_words
from careful_coil.drawing.shapes import Dot, Point, Shape, Stroke, Words

LANE = 12.0  # between two lanes of a device, mm
HEIGHT = 22.0  # from upper to lower ends: as long as a coil
SMALL = 2.5
_FANS = ("selector", "reversing-switch")


@dataclass(frozen=True, slots=True)
class Link:
    """What works between two terminals: contact, coil, heater, ptc, resistor, capacitor."""

    above: str
    below: str
    kind: str


@dataclass(frozen=True, slots=True)
class Body:
    """How a device stands: its ends upper first, how many of them are above, the lane of each, links."""

    ends: tuple[str, ...]
    tops: int
    lanes: tuple[float, ...]
    links: tuple[Link, ...]
    fan: bool = False


def body_of(device: Device) -> Body:
    """Return how a device is drawn."""
    fan = device.kind in _FANS and not _poles_only(device)
    links = _fan_links(device) if fan else tuple(_links(device))
    tops = list(dict.fromkeys(link.above for link in links))
    bottoms = list(dict.fromkeys(link.below for link in links if link.below not in tops))
    lane: dict[str, float] = {}
    if fan:
        lane = _fan_lanes(links, tops, bottoms)
        bottoms.sort(key=lambda t: lane[t])
    else:
        for number, link in enumerate(links):
            lane.setdefault(link.above, float(number))
            lane.setdefault(link.below, float(number))
    if device.three:  # 1 to 3 by the contact, from there to 2 by the heater
        tops, bottoms = [device.at("1")], [device.at("3"), device.at("2")]
        lane = {tops[0]: 0.0, bottoms[0]: 0.0, bottoms[1]: 1.0}
    rest = [t for t in device.terminals() if t not in (*tops, *bottoms)]
    wide = max(lane.values(), default=0.0)
    for number, t in enumerate(rest, 1):
        lane[t] = wide + number
    ends = (*tops, *bottoms, *rest)
    return Body(ends, len(tops), tuple(LANE * lane[t] for t in ends), links, fan)


def _fan_lanes(links: Sequence[Link], tops: list[str], bottoms: list[str]) -> dict[str, float]:
    """Return the lanes of a fan: throws side by side under their own hub, so that no ways cross."""
    own = {t: [link.below for link in links if link.above == t] for t in tops}
    if sum(len(o) for o in own.values()) > len(bottoms):  # a crossing: each hub reaches each throw
        return {t: float(k) for row in (tops, bottoms) for k, t in enumerate(row)}
    lane = {t: float(k) for k, t in enumerate(b for o in own.values() for b in o)}
    return lane | {t: sum(lane[b] for b in o) / len(o) for t, o in own.items()}


def _poles_only(device: Device) -> bool:
    pairs = {pair for closed in device.table.values() for pair in closed}
    ends = [t for pair in pairs for t in pair]
    return len(ends) == len(set(ends))


def _links(device: Device) -> Iterator[Link]:
    if device.kind in CAPACITORS:
        first, *others = device.terminals()
        yield from (Link(first, t, "capacitor") for t in others)
        return
    closed: dict[Contact, None] = {}
    moments: tuple[Moment, ...] = ("rest", "start", "run")
    for moment in moments:
        for position in device.table or ("",):
            closed |= dict.fromkeys(device.contacts(moment, position))
    works = {"protector": "heater", "hot-wire": "heater", "ptc": "ptc", "resistor": "resistor"}
    parts = [Link(p.start, p.finish, works.get(p.kind, "coil")) for p in device.parts("start", 1.0)]
    contacts = [Link(a, b, "contact") for a, b in closed]
    if device.kind == "protector" and not device.three:
        yield Link(device.at("1"), device.at("2"), "protector")
    elif device.kind in ("relay-current", "hot-wire"):
        yield from (*parts, *contacts)
    else:
        yield from (*contacts, *parts)


def _fan_links(device: Device) -> tuple[Link, ...]:
    """Return every way of a switch, from a common or first-named end to the other."""
    pairs = list(dict.fromkeys(p for closed in device.table.values() for p in closed))
    count = {t: sum(t in p for p in pairs) for p in pairs for t in p}
    tops: dict[str, None] = {}
    found = []
    for a, b in pairs:
        above, below = (b, a) if b in tops or (a not in tops and count[b] > count[a]) else (a, b)
        tops[above] = None
        found.append(Link(device.at(above), device.at(below), "contact"))
    return tuple(found)


def closed_pairs(device: Device, state: State) -> frozenset[frozenset[str]]:
    """Return the pairs of terminals that a device's contacts join in a state."""
    return frozenset(
        frozenset(pair) for pair in device.contacts(state.moment, state.position(device))
    )


def state_words(device: Device, state: State) -> str:
    """Return what a device stands at, in a word; empty where it has no contacts to tell of."""
    if device.kind == "contactor":
        return "in" if device.contacts(state.moment, state.position(device)) else "open"
    if device.table:
        return position_words(device).get(state.position(device), "open").replace("on", "in")
    if device.kind == "protector":
        return "open" if state.moment == "tripped" else ""
    if device.kind in ("link", "ptc", "resistor") or device.kind in CAPACITORS:
        return "hot" if device.kind == "ptc" and state.moment == "run" else ""
    if not any(device.contacts(m) for m in ("rest", "start", "run")):
        return ""
    return "closed" if device.contacts(state.moment, state.position(device)) else "open"


def draw_device(
    device: Device, body: Body, places: Sequence[Point], state: State, token: str = "ink"
) -> list[Shape]:
    """Return the shapes of a device whose ends stand at `places`."""
    at = dict(zip(body.ends, places, strict=True))
    closed = closed_pairs(device, state)
    shapes: list[Shape] = []
    used: dict[str, float] = {}
    for link in body.links:
        a, b = at[link.above], at[link.below]
        shut = frozenset((link.above, link.below)) in closed or link.kind == "protector"
        if body.fan:
            shapes += _way(a, b, shut, token)
            continue
        x = _lane_of(link, at, used, device)
        shapes += _lane(link, a, b, x, shut, state, token)
    if len(body.ends) > 2 or body.fan:
        shapes += _names(device, body, at, token)
    return shapes


def _lane_of(link: Link, at: dict[str, Point], used: dict[str, float], device: Device) -> float:
    """Return the x of a link: under its own end, the one the other links do not use yet."""
    if device.three and link.kind == "heater":
        return at[link.below][0]
    for end in (link.above, link.below):
        x = at[end][0]
        if x not in used.values():
            used[f"{link.above} {link.below}"] = x
            return x
    return at[link.below][0]


def _line(*points: Point, token: str, width: float = 0.5, dashed: bool = False) -> Stroke:
    return Stroke(points=points, token=token, width=width, dashed=dashed)


def _lane(
    link: Link, a: Point, b: Point, x: float, shut: bool, state: State, token: str
) -> list[Shape]:
    """Return what works in a lane, with the ways from its ends into it."""
    top, bottom = a[1], b[1]
    if a[1] == b[1]:  # both below: a heater between them
        y = a[1] - 6.0
        middle = (a[0] + b[0]) / 2
        ends = (_line((a[0], y), (middle - 2.4, y), token=token),)
        return [
            *ends,
            *_box((middle, y), 2.4, 1.2, token),
            _line((middle + 2.4, y), (b[0], y), b, token=token),
        ]
    shapes: list[Shape] = []
    if a[0] != x:
        shapes += [
            _line((a[0], top + 4), (x, top + 4), token=token),
            Dot(at=(a[0], top + 4), token=token, radius=0.7),
        ]
        shapes.append(_line((x, top + 4), (x, top + 7), token=token))
    else:
        shapes.append(_line(a, (x, top + 7), token=token))
    if b[0] != x:
        shapes += [
            _line((x, bottom - 4), (b[0], bottom - 4), token=token),
            Dot(at=(b[0], bottom - 4), token=token, radius=0.7),
        ]
        shapes.append(_line((x, bottom - 7), (x, bottom - 4), token=token))
    else:
        shapes.append(_line((x, bottom - 7), b, token=token))
    return [*shapes, *_symbol(link.kind, x, top + 7, bottom - 7, shut, state, token)]


def _symbol(
    kind: str, x: float, top: float, bottom: float, shut: bool, state: State, token: str
) -> list[Shape]:
    middle = (top + bottom) / 2
    if kind == "capacitor":
        plates = [middle - 1.6, middle + 1.6]
        return [
            _line((x, top), (x, plates[0]), token=token),
            *(_line((x - 3.6, y), (x + 3.6, y), token=token, width=0.8) for y in plates),
            _line((x, plates[1]), (x, bottom), token=token),
        ]
    if kind == "contact":
        return _contact(x, top, bottom, shut, token)
    if kind == "protector":
        low = middle - 0.4
        shapes = _contact(x, top, low, shut and state.moment != "tripped", token)
        ends = ((x, low), (x, low + 0.8)), ((x, low + 3.6), (x, bottom))
        shapes += _box((x, low + 2.2), 1.4, 1.4, token)
        return shapes + [_line(*way, token=token) for way in ends]
    shapes = [*_box((x, middle), 2.0, 3.6, token), _line((x, top), (x, middle - 3.6), token=token)]
    shapes.append(_line((x, middle + 3.6), (x, bottom), token=token))
    if kind == "coil":
        shapes.append(_line((x - 2.0, middle + 2.2), (x + 2.0, middle - 2.2), token=token))
    if kind == "ptc":
        shapes.append(
            _line(
                (x - 3.6, middle + 3.0),
                (x - 2.6, middle + 3.0),
                (x + 3.4, middle - 3.0),
                token=token,
            )
        )
    return shapes


def _contact(x: float, top: float, bottom: float, shut: bool, token: str) -> list[Shape]:
    """Return a contact: two points and a blade, lying on both or lifted to the right."""
    if shut:
        blade = _line((x, bottom), (x, top), token=token, width=0.8)
    else:
        blade = _line((x, bottom), (x + 3.2, top + 0.8), token=token, width=0.8)
    return [
        blade,
        Dot(at=(x, top), token=token, radius=0.8),
        Dot(at=(x, bottom), token=token, radius=0.8),
    ]


def _way(a: Point, b: Point, shut: bool, token: str) -> list[Shape]:
    """Return one way of a fan: the hub below the upper end, the throw above the lower one."""
    hub, throw = (a[0], a[1] + 6), (b[0], b[1] - 6)
    shapes: list[Shape] = [
        _line(
            hub,
            throw,
            token=token if shut else "quiet",
            width=0.8 if shut else 0.3,
            dashed=not shut,
        ),
        Dot(at=throw, token=token, radius=0.8),
        Dot(at=hub, token=token, radius=0.8),
    ]
    return shapes


def _box(middle: Point, half: float, high: float, token: str) -> tuple[Stroke, ...]:
    x, y = middle
    corners = (
        (x - half, y - high),
        (x + half, y - high),
        (x + half, y + high),
        (x - half, y + high),
    )
    return (_line(*corners, corners[0], token=token),)


def box_between(a: Point, b: Point, token: str = "ink") -> list[Shape]:
    """Return a plain resistive part between an upper and a lower end."""
    x, middle = a[0], (a[1] + b[1]) / 2
    return [
        _line(a, (x, middle - 4.6), token=token),
        *_box((x, middle), 3.4, 4.6, token),
        _line((x, middle + 4.6), b, token=token),
    ]


def _names(device: Device, body: Body, at: dict[str, Point], token: str) -> list[Shape]:
    """Return terminal names beside the ends, inside the body, and the ends' own ways into a fan."""
    shapes: list[Shape] = []
    for number, end in enumerate(body.ends):
        x, y = at[end]
        down = 1 if number < body.tops else -1
        if body.fan:
            shapes.append(_line((x, y), (x, y + 6 * down), token=token))
        word = end.removeprefix(f"{device.name}.")
        shapes.append(
            Words(at=(x + 1.0, y + 1.4 * down), text=word, size=SMALL, anchor=-1, token="quiet")
        )
    return shapes
