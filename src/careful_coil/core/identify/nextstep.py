"""The reading that settles most: expected information, over the placements that still stand."""

import math
from collections.abc import Callable, Iterable, Sequence
from itertools import combinations
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.candidates import unread_coils
from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.extras import odds_of_extra
from careful_coil.core.identify.models import SENSOR, Model, role_word
from careful_coil.core.identify.owed import NO_MECHANISM
from careful_coil.core.identify.polarity import ODDS, expected, kick_pairs
from careful_coil.core.identify.result import NextReading
from careful_coil.core.identify.tables import tables
from careful_coil.core.identify.weigh import Weighed
from careful_coil.core.identify.worlds import Sorted, World
from careful_coil.core.values import show_ohm, show_percent

LEAST_BITS = 0.02
LEAST_SPIN_BITS = 0.3  # below this a pair is no tachometer by its ohms
CLIP_SAVED, CLIP_MORE = 0.12, 0.04  # of a reading's work
SAME_OHM = 0.04  # figures this close are one outcome at the bench
CONSIDERED = 12000  # heaviest placements; with more, the lighter ones hardly move the odds
_OPEN, _RISING = -1e9, -2e9


def entropy(odds: Iterable[float]) -> float:
    """Return the entropy in bits of odds that add up to one."""
    return -sum(p * math.log2(p) for p in odds if p > 0)


def effort(leads: Sequence[int], clips: Sequence[int]) -> float:
    """Return the work of a reading over one with both clips moved; `clips` the leads they are on now.

    More leads in one clip cost a little each.
    """
    kept = min(len(set(leads) & set(clips)), 2)
    return 1.0 - CLIP_SAVED * kept + CLIP_MORE * max(len(leads) - 2, 0)


def next_ohms(
    weighed: Sequence[Weighed], share: Sequence[float], evidence: Evidence
) -> NextReading | None:
    """Return the pair of leads whose ohms settle most, or None when none is worth its minute."""
    known = [(w, s) for w, s in zip(weighed, share, strict=True) if w.model][:CONSIDERED]
    count = len(evidence.tags)
    read = {(o.a, o.b) for o in evidence.ohms if o.state not in ("unsteady", "beep")}
    pairs = [
        (a, b)
        for a, b in combinations(range(count), 2)
        if (a, b) not in read and not evidence.waits("resistance", a, b)
    ]
    if not known or not pairs:
        return None
    weight = np.array([s for _, s in known])
    weight = weight / weight.sum()
    shown = _predictions([w for w, _ in known], pairs)
    best, best_gain, best_worth, best_odds = None, 0.0, 0.0, []
    for k, pair in enumerate(pairs):
        odds = _outcomes(shown[:, k], weight)
        gain = entropy(p for _, p in odds)
        worth = gain / effort(pair, evidence.leanings.clips)
        if worth > best_worth + 1e-9:
            best, best_gain, best_worth, best_odds = pair, gain, worth, odds
    if best is None or best_gain < LEAST_BITS:
        return None
    a, b = (evidence.tags[k] for k in best)
    return NextReading(
        kind="resistance",
        between=(a, b),
        gain_bits=round(float(best_gain), 3),
        why=_why(a, b, best_odds, any(o.state == "value" for o in evidence.ohms)),
    )


def _predictions(known: Sequence[Weighed], pairs: Sequence[tuple[int, int]]) -> NDArray[np.float64]:
    """Return what each placement shows for each pair: log ohms, or the marks for open, rising."""
    a, b = np.array([p[0] for p in pairs]), np.array([p[1] for p in pairs])
    shown = np.full((len(known), len(pairs)), _OPEN)
    alike: dict[tuple[int, bool], list[int]] = {}
    for k, w in enumerate(known):
        alike.setdefault((id(w.model), w.variant.rising), []).append(k)
    for rows in alike.values():
        first = known[rows[0]]
        if first.model is None:
            continue
        table = tables(first.model.network)
        roles = np.array([known[k].roles for k in rows])
        ohm = np.array([w.fit.ohm for w in (known[k] for k in rows) if w.fit is not None])
        one, two = roles[:, a], roles[:, b]
        figure = np.einsum("pqk,pk->pq", table.slope[one, two], ohm)
        conducts = table.conduct[one, two]
        own = np.where(conducts, np.log(np.where(conducts, figure, 1.0)), _OPEN)
        if first.variant.rising:
            own[table.start[one, two]] = _RISING
        shown[rows] = own
    return shown


def _outcomes(shown: NDArray[np.float64], weight: NDArray[np.float64]) -> list[tuple[float, float]]:
    """Return the outcomes a person would tell apart, with their odds, likeliest first."""
    order = np.argsort(shown, kind="stable")
    found: list[list[float]] = []
    for k in order:
        if not found or shown[k] - found[-1][0] > SAME_OHM:
            found.append([shown[k], 0.0])
        found[-1][1] += weight[k]
    return sorted(((v, p) for v, p in found), key=lambda o: -o[1])


def _say(shown: float) -> str:
    if shown == _OPEN:
        return "open"
    return "rising" if shown == _RISING else f"about {show_ohm(math.exp(shown))}"


def _why(a: str, b: str, odds: Sequence[tuple[float, float]], read: bool) -> str:
    if not read:  # nothing is known of its ohms yet
        return (
            f"First reading: it shows whether {a} and {b} belong together, and what a coil reads."
        )
    first, second = _say(odds[0][0]), _say(odds[1][0])
    likely, other = (show_percent(p) for _, p in odds[:2])
    if "open" in (first, second):
        return f"It settles whether {a} and {b} belong together: {first} ({likely}), or {second}."
    return f"It decides between {first} ({likely}) and {second} ({other})."


def next_unread_coil(best: Weighed, evidence: Evidence) -> NextReading | None:
    """Return a pair through a coil that no reading has passed: a broken one would not have shown."""
    if best.model is None:
        return None
    network = best.model.network
    lead_of = [network.leads[r] for r in best.roles]
    unread = unread_coils(network, lead_of, evidence)
    wanted = np.array([c.name in unread for c in network.coils])
    if not wanted.any():
        return None
    read = {(o.a, o.b) for o in evidence.ohms}
    for a, b in combinations(range(len(evidence.tags)), 2):
        fresh = (np.abs(network.shares(lead_of[a], lead_of[b])) > 1e-9) & wanted
        if fresh.any() and (a, b) not in read and not evidence.waits("resistance", a, b):
            return NextReading(
                kind="resistance",
                between=(evidence.tags[a], evidence.tags[b]),
                gain_bits=LEAST_BITS,
                why="No reading has passed one coil of this pair yet: if it is broken, this shows it.",
            )
    return None


def next_switch(worlds: Sequence[World], evidence: Evidence) -> NextReading | None:
    """Return the pair to watch while the start mechanism is worked by hand."""

    def opens(w: World, a: int, b: int) -> bool:
        if w.placed.model is None or not w.placed.variant.opens:
            return False
        return bool(tables(w.placed.model.network).start[w.roles[a], w.roles[b]])

    why = "Work the start mechanism by hand: the path that opens holds the start winding."
    return _next_pair(
        "switch", worlds, {(a, b) for a, b, _ in evidence.switches}, opens, why, evidence
    )


def next_shaft(worlds: Sequence[World], evidence: Evidence) -> NextReading | None:
    """Return the pair to watch while the shaft is turned."""

    def varies(w: World, a: int, b: int) -> bool:
        if w.placed.model is None:
            return False
        return bool(tables(w.placed.model.network).armature[w.roles[a], w.roles[b]])

    why = "Turn the shaft slowly while you read: the pair that varies is the armature under its brushes."
    return _next_pair(
        "shaft", worlds, {(a, b) for a, b, _ in evidence.shafts}, varies, why, evidence
    )


def _next_pair(
    kind: Literal["switch", "shaft"],
    worlds: Sequence[World],
    done: set[tuple[int, int]],
    shows: Callable[[World, int, int], bool],
    why: str,
    evidence: Evidence,
) -> NextReading | None:
    """Return the pair whose test parts most of the worlds."""
    total = sum(w.weight for w in worlds)
    best, best_gain = None, LEAST_BITS
    least = NO_MECHANISM if kind == "switch" else 1e-9
    worlds = [w for w in worlds if w.placed.model and _can_show(kind, w.placed.model)]
    for a, b in combinations(range(len(evidence.tags)), 2):
        if (a, b) in done or not total or evidence.waits(kind, a, b):
            continue
        share = sum(w.weight for w in worlds if shows(w, a, b)) / total
        gain = entropy((share, 1 - share)) if least <= share < 1 else 0.0
        if gain > best_gain + 1e-9:
            best, best_gain = (evidence.tags[a], evidence.tags[b]), gain
    if best is None:
        return None
    return NextReading(kind=kind, between=best, gain_bits=round(float(best_gain), 3), why=why)


def _can_show(kind: str, model: Model) -> bool:
    """Whether a winding has what a test of the mechanism or of the shaft can show at all."""
    table = tables(model.network)
    return bool((table.start if kind == "switch" else table.armature).any())


def next_spin(best: Weighed, evidence: Evidence) -> NextReading | None:
    """Return a pair beside the winding that may be a tachometer: spun by hand it would give volts."""
    if best.model is None or best.fit is None:
        return None
    leads = best.model.network.leads
    done = {(a, b) for a, b, _ in evidence.spins}
    for k, kind in enumerate(tables(best.model.network).kinds):
        ends = [n for n, r in enumerate(best.roles) if role_word(leads[r]) == kind]
        if not kind.startswith(SENSOR) or len(ends) != 2 or tuple(ends) in done:
            continue
        if evidence.waits("spin", *ends):
            continue
        odds = odds_of_extra(float(best.fit.ohm[k]))["tachometer"]
        gain = entropy((odds, 1 - odds))
        if gain >= LEAST_SPIN_BITS:
            a, b = (evidence.tags[n] for n in ends)
            return NextReading(
                kind="spin",
                between=(a, b),
                gain_bits=round(gain, 3),
                why=f"{a} to {b} is beside the winding. Spin the shaft by hand, meter on AC volts: a "
                "tachometer gives some, a sensor or heater none.",
            )
    return None


def next_kick(worlds: Sequence[World], evidence: Evidence) -> NextReading | None:
    """Return the battery kick that parts most of the worlds."""
    same = Sorted.of(worlds)
    if same is None:
        return None
    roles, way = same.roles, same.coupling
    table = np.array([expected(same.model.network, halves) for halves in same.couplings])
    done = {k.leads for k in evidence.kicks}
    own = -(ODDS * np.log2(ODDS)).sum(axis=1)
    best, best_gain = None, LEAST_BITS
    for kick in kick_pairs(same.model, worlds[0].placed.roles):
        if kick in done or evidence.waits("kick", *kick):
            continue
        a, b, c, d = kick
        shown = table[way, roles[:, a], roles[:, b], roles[:, c], roles[:, d]]
        # marks are no reason not to ask; where they stand against a test they are one to ask
        each = (np.bincount(shown, w, len(ODDS)) for w in (same.weight, same.marked))
        gain = max(entropy((share @ ODDS).tolist()) - float(share @ own) for share in each)
        if gain > best_gain + 1e-9:
            best, best_gain = kick, gain
    if best is None:
        return None
    one, two, three, four = (evidence.tags[k] for k in best)
    first = "" if evidence.kicks else "First touch the meter to the battery: it must go up. "
    return NextReading(
        kind="kick",
        source=(one, two),
        sense=(three, four),
        gain_bits=round(float(best_gain), 3),
        why=(
            f"{first}Battery + on {one}, – on {two}; meter + on {three}, – on {four}; watch which way it "
            "kicks at make. It tells the sense of the coils, which ohms cannot."
        ),
    )
