"""Where the words of a drawing stand round it, and the lines that lead to what they speak of, in millimetres.

What stands left, right, above and below keeps to its own strip, and every line stays between the strips:
no line crosses words, however the drawing looks.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from careful_coil.drawing.shapes import Point

ROW = 9.4  # of a title and a line of words
GAP = 2.0


@dataclass(frozen=True, slots=True)
class Callout:
    """Words of a place: the upper left corner of their box, its width, and the line to the place."""

    name: str
    x: float
    y: float
    wide: float
    line: tuple[Point, Point]


def callouts(
    targets: Mapping[str, Point],
    sides: Mapping[str, str],
    wide: float,
    high: float,
    beside: float,
    row: float = ROW,
) -> list[Callout]:
    """Return the callouts of places by side (left, right, above, below) in a room of `wide` by `high`.

    `beside` is the width of the words at the left and at the right.
    """
    found: list[Callout] = []
    for side in ("left", "right"):
        names = [n for n in targets if sides.get(n) == side]
        names.sort(key=lambda n: targets[n][1])
        found += _column(names, targets, side, wide, (row + GAP, high - row - GAP), beside, row)
    for side in ("above", "below"):
        names = sorted((n for n in targets if sides.get(n) == side), key=lambda n: targets[n][0])
        found += _line(names, targets, side, wide, high, beside, row)
    return found


def _column(
    names: Sequence[str],
    targets: Mapping[str, Point],
    side: str,
    wide: float,
    within: tuple[float, float],
    beside: float,
    row: float,
) -> list[Callout]:
    """Return words one below the other, each as near to the height of its place as there is room."""
    tops = [targets[n][1] - row / 2 for n in names]
    for k, top in enumerate(tops):
        least = within[0] if k == 0 else tops[k - 1] + row
        tops[k] = max(top, least)
    for k in reversed(range(len(tops))):
        most = within[1] - row if k == len(tops) - 1 else tops[k + 1] - row
        tops[k] = min(tops[k], most)
    x = 0.0 if side == "left" else wide - beside
    inner = beside if side == "left" else wide - beside - GAP
    return [
        Callout(n, x, top, beside, ((inner, top + row * 0.27), targets[n]))
        for n, top in zip(names, tops, strict=True)
    ]


def _line(
    names: Sequence[str],
    targets: Mapping[str, Point],
    side: str,
    wide: float,
    high: float,
    beside: float,
    row: float,
) -> list[Callout]:
    """Return words side by side above or below, as near to being over their places as there is room."""
    if not names:
        return []
    first, last = beside + GAP, wide - beside - GAP
    each = min((last - first) / len(names), beside)
    lefts = [targets[n][0] - each / 2 for n in names]
    for k, left in enumerate(lefts):
        lefts[k] = max(left, first if k == 0 else lefts[k - 1] + each)
    for k in reversed(range(len(lefts))):
        lefts[k] = min(lefts[k], last - each if k == len(lefts) - 1 else lefts[k + 1] - each)
    y = 0.0 if side == "above" else high - row
    edge = row + 0.6 if side == "above" else high - row - 0.6
    found = []
    for name, left in zip(names, lefts, strict=True):
        at = min(max(targets[name][0], left + 2.0), left + each - 2.0)
        found.append(Callout(name, left, y, each, ((at, edge), targets[name])))
    return found
