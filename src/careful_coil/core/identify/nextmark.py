"""Where every lead is marked: the fewest readings that pass every coil and would show exchanged marks."""

from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.marks import windings_of
from careful_coil.core.identify.models import PRIOR
from careful_coil.core.identify.result import NextReading
from careful_coil.core.identify.tables import tables
from careful_coil.core.readings import LEAD_OHM_HIGHEST
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.network import Network

Floats = NDArray[np.float64]
MARKED_BITS = 0.3
INSIDE = (("three-phase-3-lead", "delta"), ("three-phase-two-speed-6-lead", "constant-power"))


def next_marked(evidence: Evidence) -> NextReading | None:
    """Return the next of those readings; None where the marks do not mean a winding, or it is done."""
    alive = list(_alive(evidence))
    if not alive:
        return None
    read = {(o.a, o.b) for o in evidence.ohms if o.state not in ("unsteady", "beep")}
    _, network, number = alive[0]
    for one, two in plan_of(network):
        a, b = sorted((number[one], number[two]))
        if (a, b) not in read and not evidence.waits("resistance", a, b):
            return _reading(evidence, a, b, "passes a coil that no reading has passed")
    for a, b in combinations(sorted(number.values()), 2):
        told = {_conducts(n, m, a, b) for _, n, m in alive}
        if len(told) > 1 and (a, b) not in read and not evidence.waits("resistance", a, b):
            return _reading(evidence, a, b, "tells which winding the marks mean")
    return None


def borne_out(evidence: Evidence) -> bool:
    """Whether the marks mean one winding, and the readings agree with it as far as ohms can show."""
    return len({slug for slug, _, _ in _alive(evidence)}) == 1 and next_marked(evidence) is None


def _reading(evidence: Evidence, a: int, b: int, why: str) -> NextReading:
    one, two = evidence.tags[a], evidence.tags[b]
    marks = dict(evidence.marks)
    return NextReading(
        kind="resistance",
        between=(one, two),
        gain_bits=MARKED_BITS,
        why=f"By the marks {marks[a]} to {marks[b]} {why}: two marks exchanged would show.",
    )


def _alive(evidence: Evidence) -> Iterator[tuple[str, Network, dict[str, int]]]:
    """Yield the windings that carry these marks and fit what is read, the commonest first."""
    beside = {k for k, _ in evidence.uses}
    marks = {evidence.tags[k]: mark for k, mark in evidence.marks if k not in beside}
    if len(marks) + len(beside) < len(evidence.tags):
        return
    place = {t: k for k, t in enumerate(evidence.tags)}
    found = sorted((f for f in windings_of(marks) if f[:2] in PRIOR or f[:2] in INSIDE), key=_rare)
    right = [f for f in found if evidence.phases in (None, ARRANGEMENTS[f[0]].phases)]
    for slug, variant, names in right:
        network = ARRANGEMENTS[slug].inside(variant)
        if _fits(network, names, evidence):
            yield slug, network, {n: place[t] for t, n in names.items()}


def _rare(found: tuple[str, str, dict[str, str]]) -> float:
    return -PRIOR.get(found[:2], 0.0)


def _conducts(network: Network, number: dict[str, int], a: int, b: int) -> bool:
    lead = {k: n for n, k in number.items()}
    return bool(np.isfinite(network.ohm_between(lead[a], lead[b])))


def _fits(network: Network, names: dict[str, str], evidence: Evidence) -> bool:
    """Whether every reading is as these names have it: open or not, and in figures."""
    pairs: list[tuple[str, str]] = []
    read: list[float] = []
    for o in evidence.ohms:
        if not {evidence.tags[o.a], evidence.tags[o.b]} <= set(names):
            continue
        one, two = (names[evidence.tags[k]] for k in (o.a, o.b))
        joined = bool(np.isfinite(network.ohm_between(one, two)))
        if o.state in ("open", "value", "beep") and joined == (o.state == "open"):
            return False
        if o.state == "value":
            pairs.append((one, two))
            read.append(o.ohm)
    lead = evidence.meter.lead_ohm
    return _figures(network, pairs, read, LEAD_OHM_HIGHEST if lead is None else 0.0, lead or 0.0)


def _figures(
    network: Network,
    pairs: Sequence[tuple[str, str]],
    read: Sequence[float],
    loose: float,
    lead: float,
) -> bool:
    """Whether some ohms of the coils, and of test leads up to `loose`, give what was read."""
    if not pairs:
        return True
    return fits_ohms(network, pairs, np.maximum(np.array(read) - lead, 1e-4), loose)


_UNLIKE = (
    1.0,
    2.3,
    0.37,
    0.29,
    0.23,
    0.19,
)  # ohms of unlike coils, for what exchanged marks would show
TELLS = 0.04  # of its figure: a reading this far off is seen at the bench, like coils allowed for


@lru_cache(maxsize=128)
def plan_of(network: Network) -> tuple[tuple[str, str], ...]:
    """Return the fewest pairs of leads to read where all are marked, in order.

    Together they pass every coil, and show any two marks exchanged that ohms can show: taken one by
    one, each the pair that adds most.
    """
    coils = [frozenset(_passed(network, a, b)) for a, b in combinations(network.leads, 2)]
    pairs = list(combinations(network.leads, 2))
    swaps = [frozenset(s) for s in combinations(network.leads, 2)]
    whole = {s for s in swaps if _shown(network, s, pairs)}
    chosen: list[tuple[str, str]] = []
    passed: set[int] = set()
    while True:
        best, gain = None, 0.0
        for k, pair in enumerate(pairs):
            if pair in chosen or not coils[k]:
                continue
            fresh = coils[k] - passed
            worth = 10.0 * len(fresh) - 0.1 * len(coils[k])
            if fresh and worth > gain:
                best, gain = pair, worth
        if best is None:
            break
        chosen.append(best)
        passed |= coils[pairs.index(best)]
    shown = {s for s in whole if _shown(network, s, chosen)}
    while shown != whole:
        left = whole - shown
        more = [
            ({s for s in left if _shown(network, s, [*chosen, p])}, p)
            for p in pairs
            if p not in chosen
        ]
        found, pair = max(more, key=lambda m: len(m[0]))
        if not found:
            break
        chosen.append(pair)
        shown |= found
    return tuple(chosen)


def _passed(network: Network, a: str, b: str) -> list[int]:
    """Return the coils whose ohms a pair shows at all."""
    return [int(k) for k in np.flatnonzero(np.abs(network.shares(a, b)) > 1e-9)]


def _shown(network: Network, swap: frozenset[str], pairs: Sequence[tuple[str, str]]) -> bool:
    """Whether readings of these pairs cannot be had with two marks exchanged, whatever the coils' ohms."""
    one, two = sorted(swap)
    other = {one: two, two: one}
    kinds = list(dict.fromkeys(c.like for c in network.coils))
    true = dict(zip(kinds, (_UNLIKE[k % len(_UNLIKE)] for k in range(len(kinds))), strict=True))
    own, moved = [], []
    for a, b in pairs:
        as_named, as_is = (
            np.abs(network.shares(x, y)) > 1e-9
            for x, y in ((a, b), (other.get(a, a), other.get(b, b)))
        )
        if as_named.any() != as_is.any():
            return True
        if as_named.any():
            own.append((a, b))
            share = network.shares(other.get(a, a), other.get(b, b)) ** 2
            moved.append(sum(s * true[c.like] for s, c in zip(share, network.coils, strict=True)))
    return bool(own) and not fits_ohms(network, own, np.array(moved))


def fits_ohms(
    network: Network, pairs: Sequence[tuple[str, str]], read: Floats, loose: float = 0.0
) -> bool:
    """Whether some ohms of the kinds of coil give these readings in Ω, within what the bench can see.

    `loose` the most ohms that test leads may add to all of them.
    """
    table = tables(network)
    place = {n: k for k, n in enumerate(network.leads)}
    slope = np.array([table.slope[place[a], place[b]] for a, b in pairs])
    matrix = np.column_stack([slope, np.ones(len(pairs))]) if loose else slope
    return adds_up(matrix / read[:, None], TELLS * max(len(read), 2) ** 0.5)


def adds_up(matrix: Floats, most: float) -> bool:
    """Whether columns, none taken less than nothing, add up to ones within `most`.

    The best of all ways without a negative one is least squares over some of the columns: they are few.
    """
    wanted, columns = np.ones(len(matrix)), matrix.shape[1]
    for count in range(columns, 0, -1):
        for kept in combinations(range(columns), count):
            part = matrix[:, kept]
            taken, *_ = np.linalg.lstsq(part, wanted, rcond=None)
            near = np.linalg.norm(part @ taken - wanted) <= most
            if near and (taken >= 0).all():
                return True
            if count == columns and not near:
                return False  # fewer columns come no nearer
    return False
