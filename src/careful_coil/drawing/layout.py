"""Where coils and devices stand: in columns by phase, rows by half; the same in every drawing.

Every end of an element is in a channel: channel r lies above row r, the last one below all rows.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.states import State, off_of, states_of, tripped_of
from careful_coil.core.winding import Network
from careful_coil.drawing.devices import HEIGHT, Body, body_of, state_words

COIL, LETTER = HEIGHT, 3.0
ASIDE = 10.0  # right of a coil's end, where nothing is written beside it
RADIUS = 3.9


@dataclass(frozen=True, slots=True)
class Element:
    """A coil, part or device in its column and row; `ends` its node names, the upper ones first.

    `body` of a device says how many ends are above and how far each stands to the right.
    """

    name: str
    kind: str
    column: int
    row: int
    ends: tuple[str, ...]
    label: str = ""
    device: Device | None = field(default=None, compare=False)
    body: Body | None = field(default=None, compare=False)
    letters: int = 0  # room kept for its label: the same in every state

    @property
    def tops(self) -> int:
        """Return how many ends are above."""
        return self.body.tops if self.body else 1

    @property
    def width(self) -> float:
        """Return how far its last end stands right of its first, in mm."""
        return max(self.body.lanes) if self.body else 0.0


@dataclass(frozen=True, slots=True)
class Place:
    """One end of an element: the first are above, the others below, side by side."""

    element: Element
    number: int

    @property
    def node(self) -> str:
        """Return the node it is an end of."""
        return self.element.ends[self.number]

    @property
    def upper(self) -> bool:
        """Whether it is above its element."""
        return self.number < self.element.tops

    @property
    def channel(self) -> int:
        """Return the channel its wires leave into."""
        return self.element.row + (0 if self.upper else 1)


def elements_of(
    network: Network,
    devices: Sequence[Device],
    state: State,
    labels: Mapping[str, str] | None = None,
) -> list[Element]:
    """Return everything that is drawn: coils by phase, then parts, then devices as they stand.

    `labels` what is written beside a coil, by its name.
    """
    said = labels or {}
    columns: list[tuple[float, float]] = []
    rows: dict[tuple[float, float], int] = {}
    found: list[Element] = []
    for c in network.coils:
        key = (round(c.angle, 6), c.poles)
        if key not in columns:
            columns.append(key)
        row = rows.get(key, 0)
        rows[key] = row + 1
        found.append(
            Element(
                c.name, "coil", columns.index(key), row, (c.start, c.finish), said.get(c.name, "")
            )
        )
    count = len(columns)
    for k, p in enumerate(network.parts):
        found.append(Element(p.name, "part", count + k, 0, (p.start, p.finish), p.kind))
    count += len(network.parts)
    others = (off_of(devices), tripped_of(devices))
    every = [state, *states_of(devices), *(s for s in others if s is not None)]
    for k, d in enumerate(devices):
        body = body_of(d)
        found.append(
            Element(
                d.name,
                d.kind,
                count + k,
                0,
                body.ends,
                device_label(d, state),
                device=d,
                body=body,
                letters=max(len(device_label(d, s)) for s in every),
            )
        )
    return found


def device_label(device: Device, state: State) -> str:
    """Return a device's name, and its figure or what it stands at."""
    if device.second:
        return f"{device.name} {device.microfarad:g}+{device.second:g} µF"
    if device.microfarad:
        return f"{device.name} {device.microfarad:g} µF"
    if device.kind == "resistor":
        return f"{device.name} {show_ohm(device.ohm)}"
    stands = state_words(device, state)
    return f"{device.name} {stands}".rstrip()


def half_width(text: str) -> float:
    """Return half the width of a lead end that carries a text, in mm."""
    return RADIUS if len(text) <= 3 else 0.31 * LETTER * len(text) + 2.0


def places(elements: Sequence[Element]) -> Iterator[Place]:
    """Yield every end of every element."""
    for e in elements:
        for number in range(len(e.ends)):
            yield Place(e, number)


@dataclass(frozen=True, slots=True)
class Grid:
    """Measures in mm: column centres, row tops, channel tops and heights."""

    columns: tuple[float, ...]
    tops: tuple[float, ...]
    half: float

    def at(self, place: Place) -> tuple[float, float]:
        """Return the point of an end."""
        body = place.element.body
        x = self.columns[place.element.column] + (body.lanes[place.number] if body else 0.0)
        y = self.tops[place.element.row] + (0.0 if place.upper else COIL)
        return x, y


def grid(
    elements: Sequence[Element],
    names: Sequence[str],
    lanes: Sequence[int],
    tracks: Sequence[int],
    head: float,
    left: float,
) -> Grid:
    """Return the measures for so many lanes left of each column and tracks in each channel.

    `names` are the texts that lead ends carry.
    """
    half = max((half_width(n) for n in names), default=RADIUS)
    columns: list[float] = []
    x = left
    for column in range(max(e.column for e in elements) + 1):
        own = [e for e in elements if e.column == column]
        x += half + 8.0 + 2.4 * lanes[column]
        columns.append(x)
        label = max(0.62 * LETTER * max(len(e.label), e.letters) for e in own)
        wide = max(e.width for e in own)
        x += max(half + ASIDE, 6.0 + label) + wide
    tops: list[float] = []
    y = head
    for row in range(max(e.row for e in elements) + 1):
        y += channel_height(tracks[row], row == 0)
        tops.append(y)
        y += COIL
    return Grid(tuple(columns), tuple(tops), half)


def channel_height(tracks: int, first: bool = False) -> float:
    """Return the room a channel takes between the ends above and below it."""
    return (5.0 if first else 14.0) + TRACK * max(0, tracks - (0 if first else 1))


TRACK = 3.2


def track_level(top: float, first: bool, number: int) -> float:
    """Return the height of a track in a channel whose upper edge is `top`."""
    return top + (1.0 if first else 7.0) + TRACK * number


def nearest_free(wanted: float, taken: Sequence[float], apart: float) -> float:
    """Return the place nearest to `wanted` that is `apart` from all taken."""
    for step in range(200):
        for sign in (1, -1):
            x = wanted + sign * step * 1.5
            if all(math.fabs(x - t) >= apart for t in taken):
                return x
    return wanted
