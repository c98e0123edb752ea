"""The winding as now understood: each group with its coils, ohms and tags; unread parts dashed."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.values import show_ohm_to
from careful_coil.core.winding import Coil, Network
from careful_coil.drawing.shapes import Dot, Drawing, Ring, Shape, Stroke, Words, coil, moved

ROW, WIDE = 15.0, 62.0
STAR_REACH = 22.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """How a lead end looks: its tag, the token of its wire, its tracer."""

    tag: str
    token: str
    tracer: str = ""


def draw_winding(
    network: Network,
    looks: Mapping[str, Look],
    coil_ohm: Mapping[str, float],
    read: frozenset[str],
    doubtful: frozenset[str] = frozenset(),
    step: float | None = None,
    inferred: frozenset[str] = frozenset(),
    opened: frozenset[str] = frozenset(),
    columns: int = 1,
) -> Drawing:
    """Return the drawing of a network, its parts below each other or in `columns`.

    `looks` by lead name; `coil_ohm` in Ω by coil name; `read` the coils some reading has passed;
    `doubtful` coils that a suspect reading passes; `step` the meter's resolution in Ω;
    `inferred` coils no reading passes alone while other windings still fit: dashed, with a ?;
    `opened` coils that stand open.
    """
    drawn = []
    for group in network.groups():
        part = _part(
            network,
            sorted(group, key=network.leads.index),
            looks,
            coil_ohm,
            read,
            doubtful,
            step,
            inferred,
            opened,
        )
        drawn.append(part)
    return in_columns(drawn, columns)


def in_columns(parts: Sequence[Drawing], columns: int) -> Drawing:
    """Return drawings side by side, so many in a row, then the next row."""
    shapes: list[Shape] = []
    y = wide = 0.0
    for first in range(0, len(parts), columns):
        x = 0.0
        for part in parts[first : first + columns]:
            shapes += moved(part.shapes, x, y)
            x += part.width
        wide = max(wide, x)
        y += max(p.height for p in parts[first : first + columns])
    return Drawing(tuple(shapes), wide or WIDE, y)


def plain_part(network: Network, leads: frozenset[str]) -> bool:
    """Whether a connected part is a pair, a chain or a star of three: what is drawn here by its ohms."""
    coils = [c for c in network.coils if c.start in leads or c.finish in leads]
    ends = [n for c in coils for n in (c.start, c.finish)]
    if any(n not in leads for n in ends):
        return len(leads) == 3 == len(coils)
    return len(coils) == len(leads) - 1 and all(ends.count(n) <= 2 for n in leads)


def draw_groups(
    groups: Sequence[Sequence[str]], lone: Sequence[str], looks: Mapping[str, Look]
) -> Drawing:
    """Return groups of tags that belong together where no winding is known yet."""
    shapes: list[Shape] = []
    y = ROW / 2
    for group in groups:
        reach = max(len(group) - 1, 1) * 11.0
        shapes.append(Stroke(points=((6.0, y), (6.0 + reach, y)), token="unproven", dashed=True))
        for k, tag in enumerate(group):
            shapes.append(_ring((6.0 + 11.0 * k, y), looks[tag]))
        y += ROW
    for k, tag in enumerate(lone):
        if k and k % 5 == 0:
            y += 10.0
        shapes.append(_ring((6.0 + 11.0 * (k % 5), y), looks[tag]))
    return Drawing(tuple(shapes), WIDE, y + ROW / 2)


def _part(
    network: Network,
    leads: Sequence[str],
    looks: Mapping[str, Look],
    coil_ohm: Mapping[str, float],
    read: frozenset[str],
    doubtful: frozenset[str],
    step: float | None,
    inferred: frozenset[str],
    opened: frozenset[str],
) -> Drawing:
    coils = [c for c in network.coils if c.start in leads or c.finish in leads]
    inner = {n for c in coils for n in (c.start, c.finish)} - set(leads)
    place = _star(leads, coils) if inner else _chain(leads, coils)
    shapes: list[Shape] = []
    for c in coils:
        seen, guess = c.name in read, c.name in inferred
        token = "watch" if c.name in doubtful else "ink" if seen and not guess else "unproven"
        if c.name in opened:
            token, seen = "hold", False
        ends = sorted((place[c.start], place[c.finish]))  # humps always on the same side
        shapes.append(coil(ends[0], ends[1], token, dashed=guess or not seen))
        ohm = coil_ohm.get(c.name)
        text = show_ohm_to(ohm, step) if ohm is not None and seen else "not read"
        text = "open" if c.name in opened else f"{text}?" if guess and seen else text
        text = f"about {text}" if c.name in doubtful and ohm is not None else text
        shapes.append(_label(place[c.start], place[c.finish], text, token))
    shapes += [Dot(at=place[n]) for n in sorted(inner)]
    shapes += [_ring(place[n], looks[n]) for n in leads]
    return Drawing(tuple(shapes), WIDE, 2 * STAR_REACH + 10.0 if inner else ROW)


def _ring(at: tuple[float, float], look: Look) -> Ring:
    return Ring(at=at, text=look.tag, token=look.token, tracer=look.tracer)


def _chain(leads: Sequence[str], coils: Sequence[Coil]) -> dict[str, tuple[float, float]]:
    """Leads of a chain from left to right, an end first."""
    ends = [(c.start, c.finish) for c in coils]
    count = {n: sum(n in e for e in ends) for n in leads}
    order = [min(leads, key=lambda n: (count[n], leads.index(n)))]
    while len(order) < len(leads):
        order.append(next(n for e in ends for n in e if order[-1] in e and n not in order))
    step = (WIDE - 12.0) / max(len(leads) - 1, 1)
    return {n: (6.0 + step * k, ROW / 2) for k, n in enumerate(order)}


def _star(leads: Sequence[str], coils: Sequence[Coil]) -> dict[str, tuple[float, float]]:
    """A star with its first lead up, the others below left and right."""
    centre = (WIDE / 2, STAR_REACH + 5.0)
    spots = [(0.0, -1.0), (-0.866, 0.62), (0.866, 0.62)]
    place = {
        n: (centre[0] + STAR_REACH * x, centre[1] + STAR_REACH * y)
        for n, (x, y) in zip(leads, spots, strict=False)
    }
    for c in coils:
        for node in (c.start, c.finish):
            place.setdefault(node, centre)
    return place


def _label(a: tuple[float, float], b: tuple[float, float], text: str, token: str) -> Words:
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    tone = "quiet" if token == "ink" else token
    if a[1] == b[1]:
        return Words(at=(middle[0], middle[1] + 4.6), text=text, token=tone)
    if a[0] == b[0]:
        return Words(at=(middle[0] + 5.5, middle[1]), text=text, anchor=-1, token=tone)
    side = 1 if a[0] > b[0] else -1
    if min(a[0], b[0]) < WIDE / 2 and side < 0:
        return Words(at=(middle[0] - 5.0, middle[1] - 3.6), text=text, anchor=1, token=tone)
    return Words(at=(middle[0] + 5.0, middle[1] - 3.6), text=text, anchor=-1, token=tone)
