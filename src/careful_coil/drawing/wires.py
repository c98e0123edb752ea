"""Wires between the ends of elements: horizontal tracks in channels, vertical drops and lanes.

Every net has its own track and every drop its own line, so wires cross only square, and a dot stands
only where a wire branches.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from careful_coil.drawing.layout import COIL, Element, Grid, Place, track_level
from careful_coil.drawing.shapes import Dot, Point, Shape, Stroke


@dataclass(slots=True)
class Net:
    """Ends that are one node: `inner` inside the motor, else a joint; `line` the supply's flag."""

    pins: list[Place]
    inner: bool = False
    line: str = ""
    token: str = "ink"
    tracks: dict[int, int] = field(default_factory=dict)
    lane: tuple[int, int] | None = None  # column, number from the coil outwards
    own: Place | None = None  # the end whose own way up serves as the lane

    def channels(self) -> list[int]:
        """Return the channels it has something in, upper first; a flag is in channel 0."""
        return sorted({p.channel for p in self.pins} | ({0} if self.line else set()))

    def straight(self) -> bool:
        """Whether it only links one element's lower end to the one right below it."""
        if len(self.pins) != 2 or self.line:
            return False
        upper, lower = sorted(self.pins, key=lambda p: p.element.row)
        return (
            upper.element.column == lower.element.column
            and lower.element.row == upper.element.row + 1
            and not upper.upper
            and lower.upper
        )

    def plain(self) -> bool:
        """Whether it is a flag right above one upper end of the first row."""
        return bool(self.line) and len(self.pins) == 1 and self.pins[0].channel == 0


def allot(nets: Sequence[Net], elements: Sequence[Element]) -> tuple[list[int], list[int]]:
    """Give each net its tracks and its lane; return lanes a column and tracks a channel."""
    rows, columns = (1 + max(getattr(e, k) for e in elements) for k in ("row", "column"))
    tracks, lanes = [0] * (rows + 1), [0] * columns
    for net in nets:
        if net.straight() or net.plain():
            continue
        net.own = _own_lane(net)
        for channel in net.channels():
            if net.own is None or channel != net.own.channel:
                net.tracks[channel] = tracks[channel]
                tracks[channel] += 1
        if len(net.channels()) > 1 and net.own is None:
            column = min(p.element.column for p in net.pins)
            net.lane = (column, lanes[column])
            lanes[column] += 1
    return lanes, tracks


def _own_lane(net: Net) -> Place | None:
    """Return the end in row 1 whose own way up the left side reaches the rest of its net."""
    lowest = [p for p in net.pins if p.channel == 1]
    alone = len(lowest) == 1 and net.channels() == [0, 1]
    return lowest[0] if alone and lowest[0].upper and not net.inner else None


class Router:
    """Draws nets on a grid; `rings` the ends that carry a lead, `linked` those tied straight down."""

    def __init__(
        self,
        grid: Grid,
        head: float,
        rings: Iterable[Place],
        nets: Sequence[Net],
        flags: Mapping[str, float],
        flag_y: float,
    ) -> None:
        self._grid, self._head, self._flags, self._flag_y = grid, head, flags, flag_y
        self._rings = set(rings)
        self._linked = {p for n in nets if n.straight() and n.inner for p in n.pins}

    def drawn(self, net: Net) -> list[Shape]:
        """Return the shapes of a net."""
        wide = 0.5 if net.inner else 0.9
        if net.straight():
            a, b = (self._grid.at(p) for p in sorted(net.pins, key=lambda p: p.element.row))
            shapes: list[Shape] = [Stroke(points=(a, b), token=net.token, width=wide)]
            if not net.inner:
                middle = (a[0], (a[1] + b[1]) / 2)
                shapes.append(Dot(at=middle, token=net.token, radius=1.3))
            return shapes
        if net.plain():
            head = (self._flags[net.line], self._flag_y)
            return [Stroke(points=(head, self._grid.at(net.pins[0])), token=net.token, width=wide)]
        return self._tracked(net, wide)

    def _tracked(self, net: Net, wide: float) -> list[Shape]:
        shapes: list[Shape] = []
        levels: dict[int, float] = {}
        meets: dict[int, dict[float, int]] = {}
        for channel, number in net.tracks.items():
            levels[channel] = self._level(channel, number)
            meets[channel] = {}
            for pin in (p for p in net.pins if p.channel == channel):
                way = self._exit(pin, net.inner)
                x = way[-1][0]
                shapes.append(_stroke((*way, (x, levels[channel])), net.token, wide))
                meets[channel][x] = meets[channel].get(x, 0) + 1
        if net.line:
            x = self._flags[net.line]
            shapes.append(_stroke(((x, self._flag_y), (x, levels[0])), net.token, wide))
            meets[0][x] = meets[0].get(x, 0) + 1
        if net.own is not None:
            way = self._exit(net.own, net.inner)
            x = way[-1][0]
            shapes.append(_stroke((*way, (x, levels[0])), net.token, wide))
            meets[0][x] = meets[0].get(x, 0) + 1
        if net.lane is not None:
            x = self._lane(net.lane)
            ends = sorted(levels)
            shapes.append(_stroke(((x, levels[ends[0]]), (x, levels[ends[-1]])), net.token, wide))
            for channel in ends:
                through = channel not in (ends[0], ends[-1])
                meets[channel][x] = meets[channel].get(x, 0) + (2 if through else 1)
        for channel, level in levels.items():
            xs = sorted(meets[channel])
            if len(xs) > 1:
                shapes.append(_stroke(((xs[0], level), (xs[-1], level)), net.token, wide))
            for k, x in enumerate(xs):
                branches = meets[channel][x] + (k > 0) + (k < len(xs) - 1)
                if branches > 2:
                    shapes.append(Dot(at=(x, level), token=net.token, radius=1.2))
        if len(net.pins) == 2 and not net.line and not net.inner:
            shapes.append(Dot(at=_on_the_way(levels, meets), token=net.token, radius=1.2))
        return shapes

    def _level(self, channel: int, number: int) -> float:
        rows = self._grid.tops
        top = self._head if channel == 0 else rows[channel - 1] + COIL
        return track_level(top, channel == 0, number)

    def _lane(self, lane: tuple[int, int]) -> float:
        column, number = lane
        return self._grid.columns[column] - self._grid.half - 7.4 - 2.4 * number

    def _exit(self, pin: Place, inner: bool) -> tuple[Point, ...]:
        """Return the way from an end to where it turns into its channel."""
        x, y = self._grid.at(pin)
        down = not pin.upper
        half = self._grid.half
        if inner and pin in self._rings:
            return ((x, y), (x + half + (1.6 if down else 4.0), y))
        if pin in self._linked or (not down and pin.element.row > 0):
            return ((x, y), (x - half - 4.4, y))
        return ((x, y),)


def _on_the_way(levels: Mapping[int, float], meets: Mapping[int, Mapping[float, int]]) -> Point:
    """Return a point on the longest track, off its middle, where other wires seldom cross."""
    channel = max(levels, key=lambda c: max(meets[c]) - min(meets[c]))
    left, right = min(meets[channel]), max(meets[channel])
    return left + 0.37 * (right - left), levels[channel]


def _stroke(points: Sequence[Point], token: str, wide: float) -> Stroke:
    kept = [points[0]]
    for p in points[1:]:
        if abs(p[0] - kept[-1][0]) + abs(p[1] - kept[-1][1]) > 1e-9:
            kept.append(p)
    return Stroke(points=tuple(kept), token=token, width=wide)


def joints_as_nets(
    elements: Sequence[Element],
    ring_of: Mapping[str, Place],
    joints: Iterable[Sequence[str]],
    lines: Sequence[str],
    tokens: Mapping[frozenset[str], str],
) -> list[Net]:
    """Return a net for each joint with more than one end."""
    nets = []
    for joint in joints:
        names = list(dict.fromkeys(joint))
        pins = [ring_of[n] for n in names if n in ring_of]
        own = [n for n in names if n in lines]
        for line in own or [""]:
            if len(pins) + bool(line) > 1:
                token = tokens.get(frozenset(joint), "ink")
                nets.append(Net(pins=list(pins), line=line, token=token))
    return nets


def foot_of(grid: Grid, tracks: Sequence[int]) -> float:
    """Return the lower edge of the wires."""
    bottom = grid.tops[-1] + COIL
    return track_level(bottom, False, tracks[-1] - 1) + 6.0 if tracks[-1] else bottom + 10.0
