"""Repair against a new motor as a balance: a bar for each piece, the heavier side lower."""

from collections.abc import Callable, Sequence

from careful_coil.core.kind.balance import Balance, Piece
from careful_coil.drawing.shapes import Area, Drawing, Shape, Stroke, Words

HIGH = 62.0
BEAM, SWING = 12.0, 5.0
FULL = 30.0  # mm of the heavier stack
PAN = 34.0
WORDS = 26.0  # mm for the words beside a pan
LEAST = 2.4  # mm of a bar that shows
WORD = 4.6  # mm between the words of two bars


def draw_balance(
    found: Balance, threshold: float, money: Callable[[float], str], wide: float
) -> Drawing:
    """Return the balance in so much width, mm; `money` writes an amount."""
    wide = max(wide, 96.0)
    repair = sum(p.amount for p in found.repair)
    new = threshold * max(sum(p.amount for p in found.new), 0.0)
    most = max(repair, new, 1e-9)
    tilt = 0.0 if found.margin is None else max(min((repair - new) / most, 1.0), -1.0) * SWING
    middle = wide / 2
    apart = max(min(26.0, middle - PAN / 2 - WORDS), PAN / 2 + 2.0)
    left, right = middle - apart, middle + apart
    shapes: list[Shape] = [
        Stroke(points=((left, BEAM + tilt), (right, BEAM - tilt)), width=1.0),
        Stroke(points=((middle, BEAM), (middle, HIGH - 4.0)), width=1.0),
        Stroke(points=((middle - 9.0, HIGH - 4.0), (middle + 9.0, HIGH - 4.0)), width=1.0),
    ]
    worth = found.margin is None or found.margin >= 0
    shapes += _side(found.repair, left, BEAM + tilt, FULL / most, money, -1, not worth)
    shares = tuple(p for p in found.new if p.amount or not p.given)
    shapes += _side(shares, right, BEAM - tilt, threshold * FULL / most, money, 1, worth)
    shapes.append(Words(at=(left, 3.4), text="repair", size=3.4, token="ink", bold=True))
    share = f"{100 * threshold:.0f} % of a new one"
    shapes.append(Words(at=(right, 3.4), text=share, size=3.4, token="ink", bold=True))
    return Drawing(tuple(shapes), wide, HIGH)


def _side(
    pieces: Sequence[Piece],
    x: float,
    beam: float,
    scale: float,
    money: Callable[[float], str],
    outward: int,
    heavy: bool,
) -> list[Shape]:
    """Return a pan with its bars from the bottom up, their words outside."""
    pan = beam + FULL + 8.0
    half = PAN / 2
    shapes: list[Shape] = [
        Stroke(points=((x, beam), (x - half, pan)), width=0.4),
        Stroke(points=((x, beam), (x + half, pan)), width=0.4),
        Stroke(points=((x - half - 1.0, pan), (x + half + 1.0, pan)), width=0.9),
    ]
    top, said = pan, pan - 1.0
    for piece in pieces:
        if not piece.given and not piece.amount:
            continue
        high = max(abs(piece.amount) * scale, LEAST) if piece.amount else 0.0
        bar = ((x - 8.0, top - high), (x + 8.0, top - high), (x + 8.0, top), (x - 8.0, top))
        if piece.amount > 0:
            shapes += [
                Area(points=bar, token="rotor" if heavy else "iron"),
                Stroke(points=(*bar, bar[0]), width=0.4),
            ]
            top -= high
        words = f"{piece.title} {money(piece.amount)}"
        at = (x + outward * (half + 2.0), said)
        shapes.append(
            Words(
                at=at,
                text=words,
                size=3.1,
                anchor=-outward,
                token="ink" if piece.amount else "quiet",
            )
        )
        said -= WORD
    return shapes
