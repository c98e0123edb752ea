"""The weight of every placement, given the evidence; numbers a shop may see are named here."""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.fit import LOG_RANGE, Fit, fit
from careful_coil.core.identify.placements import placements
from careful_coil.core.winding.arrangements import ARRANGEMENTS, Arrangement
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.symmetry import dc_symmetries

Floats = NDArray[np.float64]

# How often a shop meets each; a leaning, which readings overrule.
PRIOR = {
    "three-phase-3-lead": 0.30,
    "single-phase-3-lead": 0.50,
    "single-phase-two-speed-coil": 0.20,
    "three-phase-6-lead": 0.92,
    "single-phase-dual-voltage-6-lead": 0.05,
    "three-phase-part-winding-6-lead": 0.03,
    "three-phase-9-lead-wye": 0.7,
    "three-phase-9-lead-delta": 0.3,
}
P_UNKNOWN = 1e-3  # a winding that none of the arrangements describes
P_FALSE_OPEN = 0.003  # a clip that touches nothing
P_STRAY = 0.001  # leads that touch, a clip on the wrong one
P_BEEP_SILENT = 0.02
P_ODD_TEST = 0.005  # a switch test that shows what it should not
P_START_HIGHER = 0.85  # the start winding is usually the thinner wire
P_TAIL_SMALLER = 0.80  # the larger section of a tapped coil is usually the main one
BEEP_BELOW_OHM = 50.0
CAREFULLY = 25.0  # placements this many nats behind by groups alone are not fitted


@dataclass(frozen=True, slots=True)
class Variant:
    """What stands in the start path, and how likely it is to."""

    name: str
    prior: float
    rising: bool = False
    opens: bool = False


_PLAIN = (Variant("plain", 1.0),)
_START = (
    Variant("plain", 0.45),
    Variant("switch in the start path", 0.35, opens=True),
    Variant("capacitor in the start path", 0.20, rising=True),
)


@dataclass(frozen=True, slots=True)
class Weighed:
    """A placement with its log weight. `arrangement` None: none of those known."""

    arrangement: Arrangement | None
    roles: tuple[int, ...]
    variant: Variant
    log_weight: float
    fit: Fit | None = None
    fitted: tuple[int, ...] = ()  # which observations the fit covers
    conflicts: tuple[int, ...] = ()  # observations that contradict the groups flatly
    odd_tests: int = 0

    @property
    def flaws(self) -> int:
        """How many readings it must call wrong."""
        dropped = len(self.fit.dropped) if self.fit else 0
        unclean = bool(self.fit and not self.fit.clean and not self.fit.dropped)
        return len(self.conflicts) + self.odd_tests + dropped + unclean


@dataclass(frozen=True, slots=True)
class Tables:
    """What a network shows between any two of its leads; all shapes (leads, leads, …)."""

    kinds: tuple[str, ...]
    conduct: NDArray[np.bool_]
    slope: Floats  # (leads, leads, kinds)
    spread: Floats
    start: NDArray[np.bool_]  # the path passes the start winding


@cache
def tables(network: Network) -> Tables:
    """Return what the network predicts, per 1 Ω of each kind of coil."""
    kinds = tuple(dict.fromkeys(c.like for c in network.coils))
    count = len(network.leads)
    many = {k: sum(c.like == k for c in network.coils) > 1 for k in kinds}
    slope, spread = np.zeros((count, count, len(kinds))), np.zeros((count, count, len(kinds)))
    start = np.zeros((count, count), dtype=bool)
    for a in range(count):
        for b in range(count):
            share = network.shares(network.leads[a], network.leads[b]) if a != b else None
            if share is None:
                continue
            for k, kind in enumerate(kinds):
                of = np.array(
                    [s for s, c in zip(share, network.coils, strict=True) if c.like == kind]
                )
                slope[a, b, k] = float(np.sum(of**2))
                spread[a, b, k] = float(np.sqrt(np.sum(of**4))) if many[kind] else 0.0
                start[a, b] |= kind == "start" and slope[a, b, k] > 1e-9
    conduct = np.isfinite(network.resistance())
    return Tables(kinds, conduct, slope, spread, start)


def weigh(evidence: Evidence) -> list[Weighed]:
    """Return every placement worth keeping, heaviest first, the unknown winding among them."""
    found: list[Weighed] = [_unknown(evidence)]
    for slug, odds in PRIOR.items():
        arr = ARRANGEMENTS[slug]
        rows = placements(arr.network, len(evidence.tags), evidence.ohms)
        if not len(rows):
            continue
        labels = _label_count(arr.network)
        variants = _START if tables(arr.network).start.any() else _PLAIN
        for variant in variants:
            prior = math.log(odds * variant.prior) - math.log(labels)
            found += _weigh_rows(arr, rows, variant, prior, evidence)
    return sorted(found, key=lambda w: (-w.log_weight, w.roles))


def _label_count(network: Network) -> int:
    """How many placements the arrangement has before anything is read."""
    return math.factorial(len(network.leads)) // len(dc_symmetries(network))


def _weigh_rows(
    arr: Arrangement, rows: NDArray[np.int64], variant: Variant, prior: float, evidence: Evidence
) -> list[Weighed]:
    table = tables(arr.network)
    log, conflict = np.full(len(rows), prior), np.zeros((len(rows), len(evidence.ohms)), dtype=bool)
    fitted = np.zeros_like(conflict)
    for k, o in enumerate(evidence.ohms):
        a, b = rows[:, o.a], rows[:, o.b]
        conducts = table.conduct[a, b]
        climbs = conducts & table.start[a, b] & variant.rising
        gain, wrong, fits = _judge(o, conducts, climbs)
        log += gain
        conflict[:, k], fitted[:, k] = wrong, fits
    odd = np.zeros(len(rows), dtype=np.int64)
    for one, two, value in evidence.switches:
        opens = table.start[rows[:, one], rows[:, two]] & variant.opens
        right = opens == (value == "opens")
        log += np.where(right, math.log(1 - P_ODD_TEST), math.log(P_ODD_TEST))
        odd = odd + (~right).astype(np.int64)
    keep = np.flatnonzero(log >= log.max() - CAREFULLY)
    fits_of = _fits(table, rows[keep], fitted[keep], evidence)
    where: dict[bytes, tuple[int, ...]] = {}

    def places(mask: NDArray[np.bool_]) -> tuple[int, ...]:
        key = mask.tobytes()
        if key not in where:
            where[key] = tuple(int(k) for k in np.flatnonzero(mask))
        return where[key]

    return [
        Weighed(
            arrangement=arr,
            roles=tuple(rows[p].tolist()),
            variant=variant,
            log_weight=float(log[p]) + f.log_evidence + _leaning(table, f),
            fit=f,
            fitted=places(fitted[p]),
            conflicts=places(conflict[p]),
            odd_tests=int(odd[p].item()),
        )
        for p, f in zip(keep, fits_of, strict=True)
    ]


def _judge(
    o: Ohms, conducts: NDArray[np.bool_], climbs: NDArray[np.bool_]
) -> tuple[Floats, NDArray[np.bool_], NDArray[np.bool_]]:
    """Return the log likelihood by placement, where it conflicts, where its figure is to be fitted."""
    nothing = np.zeros(len(conducts), dtype=bool)
    if o.state == "open":
        return np.where(conducts, math.log(P_FALSE_OPEN), 0.0), conducts, nothing
    if o.state == "rising":
        likely = np.where(climbs, math.log(0.95), math.log(P_STRAY))
        return likely, ~climbs, nothing
    if o.state == "value":
        plain = conducts & ~climbs
        broad = -math.log(max(o.ohm, 1e-6) * LOG_RANGE)
        return np.where(plain, 0.0, math.log(P_STRAY) + broad), ~plain, plain
    if o.state == "beep":
        return np.where(conducts & ~climbs, 0.0, math.log(P_BEEP_SILENT)), ~conducts, nothing
    return np.zeros(len(conducts)), nothing, nothing


def _fits(
    table: Tables, rows: NDArray[np.int64], fitted: NDArray[np.bool_], evidence: Evidence
) -> list[Fit]:
    """Fit each placement; those that predict the same readings by the same sums share one fit."""
    a, b = (np.array([getattr(o, end) for o in evidence.ohms], dtype=int) for end in "ab")
    slope = np.round(table.slope[rows[:, a], rows[:, b]], 9)
    spread = np.round(table.spread[rows[:, a], rows[:, b]], 9)
    done: dict[bytes, Fit] = {}
    found = []
    for use, own, loose in zip(fitted, slope, spread, strict=True):
        key = use.tobytes() + own[use].tobytes() + loose[use].tobytes()
        if key not in done:
            chosen = [evidence.ohms[k] for k in np.flatnonzero(use)]
            done[key] = fit(own[use], loose[use], chosen, evidence.meter.lead_ohm)
        found.append(done[key])
    return found


def _leaning(table: Tables, f: Fit) -> float:
    """Trade habit about which winding has more ohms: a leaning in the weight, never a proof."""
    for low, high, share in (("run", "start", P_START_HIGHER), ("tail", "main", P_TAIL_SMALLER)):
        if low in table.kinds and high in table.kinds:
            ratio = f.ohm[table.kinds.index(high)] / f.ohm[table.kinds.index(low)]
            slant = math.tanh(4.0 * math.log(ratio))  # equal windings lean neither way
            return math.log(0.5 + (share - 0.5) * slant)
    return 0.0


def _unknown(evidence: Evidence) -> Weighed:
    """The winding nobody drew: any groups, any ohms, each reading at its broad odds."""
    log = math.log(P_UNKNOWN)
    for o in evidence.ohms:
        if o.state == "value":
            log += math.log(0.4) - math.log(max(o.ohm, 1e-6) * LOG_RANGE)
        elif o.state in ("open", "rising", "beep"):
            log += math.log({"open": 0.6, "rising": 0.05, "beep": 0.35}[o.state])
    log += math.log(0.25) * len(evidence.switches)
    return Weighed(None, tuple(range(len(evidence.tags))), _PLAIN[0], log)
