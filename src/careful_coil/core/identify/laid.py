"""Models laid on groupings: what tests and what conducts say of every placement, and which are worth a fit."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.blocks import P_FALSE_OPEN, P_STRAY
from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.exchanged import MAY_BE_EXCHANGED, one_of_each
from careful_coil.core.identify.extras import TACHOMETER_VOLT
from careful_coil.core.identify.fit import LOG_RANGE
from careful_coil.core.identify.models import Model
from careful_coil.core.identify.screen import OCCAM, log_widths, rough_fit
from careful_coil.core.identify.tables import Floats, Tables, tables

P_BEEP_SILENT = 0.02
P_ODD_TEST = 0.005  # a switch test that shows what it should not
P_EARTHED = 1e-5  # a lead that is earthed by its own lug alone, and is no earth lead
P_POSTS = 0.05  # a pair of its own that climbs: the posts of a built-in capacitor
P_INTERLOCK = 0.5  # of contacts between leads that go nowhere, those that close at speed
MOST_CONFLICTS, UNHEARD_OF = 3, 60.0  # a placement that so many readings flatly contradict is none
BEHIND = 60.0  # nats by what conducts and what does not, from which figures cannot make up
CAREFULLY = 16.0  # placements this many nats behind by a rough fit are not fitted with care


@dataclass(frozen=True, slots=True)
class Variant:
    """What stands in the start path, and how likely it is to."""

    name: str
    prior: float
    rising: bool = False
    opens: bool = False
    bled: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Laid:
    """A model laid on groupings: placements, what tests and groups say of each, and a rough weight."""

    model: Model
    variant: Variant
    rows: NDArray[np.int64]
    log: Floats
    conflict: NDArray[np.bool_]
    fitted: NDArray[np.bool_]
    odd: NDArray[np.int64]
    rough: Floats
    pairs: NDArray[np.bool_]  # where two conflicts may be two readings exchanged


def lay(
    model: Model,
    rows: NDArray[np.int64],
    variant: Variant,
    prior: float,
    evidence: Evidence,
) -> Laid:
    """Return a model laid on groupings, its `rough` weight as high as figures that fit could make it."""
    table = tables(model.network)
    log, conflict = np.full(len(rows), prior), np.zeros((len(rows), len(evidence.ohms)), dtype=bool)
    fitted = np.zeros_like(conflict)
    for k, o in enumerate(evidence.ohms):
        a, b = rows[:, o.a], rows[:, o.b]
        conducts = table.conduct[a, b]
        climbs = conducts & table.start[a, b] & variant.rising
        gain, wrong, fits = _judge(o, conducts, climbs, table.beside[a, b])
        log += gain
        conflict[:, k], fitted[:, k] = wrong, fits
    gain, odd = _tests(table, rows, variant, evidence)
    log += gain - UNHEARD_OF * (conflict.sum(axis=1) >= MOST_CONFLICTS)
    pairs = (conflict.sum(axis=1) == 2) & one_of_each(conflict, evidence)
    best = log - fitted @ log_widths(evidence) - OCCAM * fitted.any(axis=1)
    return Laid(
        model=model,
        variant=variant,
        rows=rows,
        log=log,
        conflict=conflict,
        fitted=fitted,
        odd=odd,
        rough=best + MAY_BE_EXCHANGED * pairs,
        pairs=pairs,
    )


def screened(laid: Sequence[Laid], evidence: Evidence) -> list[Laid]:
    """Return them with rough weights of their figures, the most promising first.

    Placements that no figures could bring near the best so far are not fitted at all.
    """
    found = list(laid)
    best, seen = -math.inf, dict[tuple[int, bytes], Floats]()
    for k in sorted(range(len(laid)), key=lambda k: -float(laid[k].rough.max())):
        x = laid[k]
        least = max(best - CAREFULLY, float(x.rough.max()) - BEHIND)
        near = np.flatnonzero(x.rough >= least)
        rough = x.rough - CAREFULLY
        if len(near):
            key = id(x.model), near.tobytes() + x.fitted[near].tobytes()
            if key not in seen:  # what lies in the start path seldom changes what fits
                table = tables(x.model.network)
                seen[key] = rough_fit(table, x.rows[near], x.fitted[near], evidence)
            rough[near] = x.log[near] + seen[key] + MAY_BE_EXCHANGED * x.pairs[near]
            best = max(best, float(rough[near].max()))
        found[k] = replace(x, rough=rough)
    return found


def _tests(
    table: Tables, rows: NDArray[np.int64], variant: Variant, evidence: Evidence
) -> tuple[Floats, NDArray[np.int64]]:
    """Return the log likelihood of bunched readings and tests by placement, and how many are odd."""
    log, odd = np.zeros(len(rows)), np.zeros(len(rows), dtype=np.int64)

    def count(right: NDArray[np.bool_], p_odd: float) -> None:
        nonlocal odd
        log[:] += np.where(right, math.log(1 - p_odd), math.log(p_odd))
        odd = odd + (~right).astype(np.int64)

    for lead, many, state in evidence.bunched:
        joined = table.conduct[rows[:, [lead]], rows[:, list(many)]].any(axis=1)
        p_odd = P_FALSE_OPEN if state == "open" else P_STRAY
        count(joined != (state == "open"), p_odd)
    for one, two, value in evidence.switches:
        a, b = rows[:, one], rows[:, two]
        if value in (
            "closes",
            "changes",
        ):  # a contact of its own that closes at speed: no start switch
            log += np.log(np.where(table.lone[a] & table.lone[b], P_INTERLOCK, P_ODD_TEST))
            continue
        count((table.start[a, b] & variant.opens) == (value == "opens"), P_ODD_TEST)
    for one, two, volt in evidence.spins:
        if volt >= TACHOMETER_VOLT:  # none of a cage motor's windings gives any
            count(table.beside[rows[:, one], rows[:, two]], P_ODD_TEST)
    for tag in evidence.lugs_off:
        count(table.lone[rows[:, evidence.tags.index(tag)]], P_EARTHED)
    for one, two, value in evidence.shafts:
        varies = table.armature[rows[:, one], rows[:, two]]
        count(varies == (value == "varies"), P_ODD_TEST)
    return log, odd


def _judge(
    o: Ohms, conducts: NDArray[np.bool_], climbs: NDArray[np.bool_], beside: NDArray[np.bool_]
) -> tuple[Floats, NDArray[np.bool_], NDArray[np.bool_]]:
    """Return the log likelihood by placement, where it conflicts, where its figure is to be fitted."""
    nothing = np.zeros(len(conducts), dtype=bool)
    if o.state == "open":
        return np.where(conducts, o.again * math.log(P_FALSE_OPEN), 0.0), conducts, nothing
    if o.state == "rising":
        posts = np.where(beside, math.log(P_POSTS), math.log(P_STRAY))
        return np.where(climbs, math.log(0.95), posts), ~climbs & ~beside, nothing
    if o.state == "value":
        plain = conducts & ~climbs
        broad = -math.log(o.size * LOG_RANGE)
        return np.where(plain, 0.0, math.log(P_STRAY) + broad), ~plain, plain
    if o.state == "beep":
        return np.where(conducts & ~climbs, 0.0, math.log(P_BEEP_SILENT)), ~conducts, nothing
    return np.zeros(len(conducts)), nothing, nothing
