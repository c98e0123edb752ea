"""From readings to an answer: candidates, certainty, suspects, the next reading."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np

from careful_coil.core.identify.cover import Cover, cover
from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.extras import kind_of_extra
from careful_coil.core.identify.fit import COIL_SPREAD
from careful_coil.core.identify.models import LONE, SENSOR, role_word
from careful_coil.core.identify.nextstep import (
    entropy,
    next_group,
    next_kick,
    next_ohms,
    next_switch,
    next_unread_coil,
)
from careful_coil.core.identify.result import (
    Candidate,
    Certainty,
    Identification,
    NextReading,
    Status,
    Suspect,
)
from careful_coil.core.identify.weigh import Tables, Weighed, tables, weigh
from careful_coil.core.identify.worlds import (
    LIGHTEST,
    Namings,
    World,
    best_names,
    few_enough,
    standing,
    worlds_of,
)
from careful_coil.core.values import show_ohm
from careful_coil.core.winding.arrangements import ARRANGEMENTS

SURE = 0.95
LISTED = 0.97  # of all groupings that must stand in the list before windings are laid on them
LIKELY, MOST_LAID = 1e-4, 80  # and no more than so many as likely as this
LEFT_OUT_BELOW = 0.001
AT_LEAST, AT_MOST = 5, 20
CLAIMED = 3  # candidates whose names are looked at
FORBID_FROM = 0.05
SUSPECT_FROM = 0.80
AGAIN_FROM = 0.2  # odds of being wrong from which a reading is asked for again
Groups = tuple[tuple[str, ...], ...]


@lru_cache(maxsize=64)
def identify(evidence: Evidence) -> Identification:
    """Return what the readings say about the leads, and what to read next.

    The order of readings of different pairs never matters. Source: trade facts on unknown leads;
    open formats, identification.
    """
    groups = cover(evidence)
    likely = sum(leaf.odds >= LIKELY for leaf in groups.leaves)
    leaves = groups.leaves if groups.listed >= LISTED and likely <= MOST_LAID else ()
    if not leaves and groups.leaves:
        return _early(groups, evidence)
    weighed = weigh(evidence, leaves)
    share = _shares([w.log_weight for w in weighed])
    heavy = [w for w, s in zip(weighed, share, strict=True) if s >= LIGHTEST]
    refined = few_enough(heavy)
    worlds = worlds_of(heavy, evidence) if refined else []
    if refined:
        by_placement: dict[int, float] = {}
        for w in worlds:
            by_placement[id(w.placed)] = by_placement.get(id(w.placed), 0.0) + w.weight
        heavy.sort(key=lambda w: (-by_placement[id(w)], w.roles))
        weighed, share = heavy, [by_placement[id(w)] for w in heavy]
    stand = standing(worlds)
    candidates = _candidates(weighed, share, Namings.of(stand), evidence)
    best = weighed[0]
    suspects = _suspects(weighed, share, evidence)
    flawless = sum(s for w, s in zip(weighed, share, strict=True) if not w.flaws)
    status = _status(candidates, flawless, refined, evidence)
    if status == "contradictory":
        candidates = tuple(_unclaimed(c) for c in candidates)
    return Identification(
        status=status,
        candidates=candidates,
        suspects=suspects,
        next=_next(weighed, share, stand, suspects, evidence),
        never_energise=_never(candidates),
        notes=_notes(candidates, best, evidence),
        read_groups=_groups_read(evidence),
    )


def _early(groups: Cover, evidence: Evidence) -> Identification:
    """Return what can be said while far too many groupings still stand: the odds of the groups."""
    tags = evidence.tags
    candidates = tuple(
        Candidate(
            arrangement=None,
            probability=leaf.odds,
            groups=tuple(tuple(tags[k] for k in g) for g in leaf.groups if len(g) > 1),
        )
        for leaf in groups.leaves[:AT_MOST]
    )
    return Identification(
        status="unsettled",
        candidates=candidates,
        suspects=(),
        next=next_group(groups, evidence),
        never_energise=(),
        notes=evidence.notes,
        read_groups=_groups_read(evidence),
    )


def _shares(logs: Sequence[float]) -> list[float]:
    array = np.array(logs)
    odds = np.exp(array - array.max())
    return [float(x) for x in odds / odds.sum()]


def _candidates(
    weighed: Sequence[Weighed],
    share: Sequence[float],
    stand: Namings,
    evidence: Evidence,
) -> tuple[Candidate, ...]:
    merged: dict[tuple[str, tuple[str, ...]], tuple[Weighed, float]] = {}
    for w, s in zip(weighed, share, strict=True):
        words = tuple(_word(w.model.network.leads[r]) for r in w.roles) if w.model else ()
        key = (w.model.slug + w.model.variant if w.model else "", words)
        first, sum_so_far = merged.get(key, (w, 0.0))
        merged[key] = (first, sum_so_far + s)
    rows = sorted(merged.values(), key=lambda r: (-r[1], r[0].roles))
    rows = [r for k, r in enumerate(rows) if k < AT_LEAST or r[1] >= LEFT_OUT_BELOW][:AT_MOST]
    return tuple(
        _candidate(w, s, stand if k < CLAIMED and s >= FORBID_FROM else None, evidence)
        for k, (w, s) in enumerate(rows)
    )


def _candidate(
    w: Weighed, probability: float, stand: Namings | None, evidence: Evidence
) -> Candidate:
    """Return a placement as a candidate; without `stand` nothing is claimed of its names."""
    tags = evidence.tags
    if w.model is None:
        return Candidate(
            arrangement=None,
            probability=probability,
            groups=_groups_read(evidence),
            notes=("No winding this version knows fits these readings.",),
        )
    network = w.model.network
    worlds = stand.worlds if stand else ()
    own = [x for x in worlds if x.placed.model is w.model and x.placed.roles == w.roles]
    if stand is not None and own:
        world, names = best_names(own)
        sure = stand.certainties(world, names)
    else:
        names = tuple(network.leads[r] for r in w.roles)
        sure = tuple("open" for _ in tags)
    by_tag = dict(zip(tags, names, strict=True))
    groups = [tuple(t for t in tags if by_tag[t] in g) for g in network.groups()]
    ohms = _coil_ohms(w, names, evidence)
    told = {t: _extra_of(n, by_tag, ohms, evidence) for t, n in by_tag.items() if _extra(n)}
    notes: tuple[str, ...] = (*w.model.notes,)
    notes += (w.model.arrangement.note,) if w.model.arrangement.note else ()
    if w.variant.rising or w.variant.opens:
        notes += (f"{w.variant.name.capitalize()}.",)
    certainty = dict(zip(tags, sure, strict=True))
    certainty |= dict.fromkeys(told, "leaning")
    return Candidate(
        arrangement=w.model.slug,
        variant=w.model.variant,
        probability=probability,
        groups=tuple(sorted((g for g in groups if len(g) > 1), key=lambda g: tags.index(g[0]))),
        names={t: n for t, n in by_tag.items() if t not in told},
        roles={t: told.get(t) or role_word(n) for t, n in by_tag.items()},
        extras=told,
        certainty=certainty,
        coil_ohm={k: v for k, v in ohms.items() if not k.startswith(SENSOR)},
        notes=notes,
        order=_speed_order(by_tag),
    )


def _word(lead: str) -> str:
    """Return a lead's role, all that is beside the winding in one word."""
    return SENSOR if _extra(lead) else role_word(lead)


def _extra(name: str) -> bool:
    return role_word(name).split("-")[0] in (SENSOR, LONE)


def _extra_of(name: str, by_tag: dict[str, str], ohms: dict[str, float], evidence: Evidence) -> str:
    """Return what a lead beside the winding most likely belongs to."""
    pair = role_word(name)
    if not pair.startswith(SENSOR):
        return LONE
    ends = {k for k, t in enumerate(evidence.tags) if role_word(by_tag[t]) == pair}
    volts = [v for a, b, v in evidence.spins if {a, b} == ends]
    return kind_of_extra(ohms.get(pair), volts[-1] if volts else None).kind


def _speed_order(by_tag: dict[str, str]) -> tuple[str, ...]:
    """Return the tags of speed taps from high to low, where there are any."""
    names = {n: t for t, n in by_tag.items()}
    taps = ("high", "medium", "tap-1", "tap-2", "tap-3", "low")
    return tuple(names[n] for n in taps if n in names) if "run" in names else ()


def _unclaimed(c: Candidate) -> Candidate:
    """Return a candidate without claims: while readings contradict each other nothing is proven."""
    sure = {t: "leaning" if s in ("proven", "convention") else s for t, s in c.certainty.items()}
    return replace(c, certainty=sure)


def _groups_read(evidence: Evidence) -> Groups:
    """Return the leads that conduct to each other as read, whatever the winding is."""
    group = {k: {k} for k in range(len(evidence.tags))}
    for o in evidence.ohms:
        if o.conducts:
            joined = group[o.a] | group[o.b]
            for k in joined:
                group[k] = joined
    found = {min(g): g for g in group.values() if len(g) > 1}
    return tuple(tuple(evidence.tags[k] for k in sorted(found[m])) for m in sorted(found))


def _coil_ohms(w: Weighed, names: Sequence[str], evidence: Evidence) -> dict[str, float]:
    """Return each coil's ohms: the kind's figure, drawn towards what was read through that coil."""
    if w.model is None or w.fit is None or not w.fitted:
        return {}
    network = w.model.network
    table = tables(network)
    kind = [table.kinds.index(c.like) for c in network.coils]
    guess = w.fit.ohm[kind]
    known = [bool(_kind_read(table, w, evidence)[k]) for k in kind]
    good = [evidence.ohms[k] for n, k in enumerate(w.fitted) if n not in w.fit.dropped]
    share = np.array([network.shares(names[o.a], names[o.b]) ** 2 for o in good])
    many = np.array([sum(c.like == d.like for d in network.coils) > 1 for c in network.coils])
    for n in w.fit.odd:
        o = evidence.ohms[w.fitted[n]]
        many &= np.abs(network.shares(names[o.a], names[o.b])) < 1e-9  # these coils stand alone
    loose = np.where(many, COIL_SPREAD * guess, 10 * guess)
    sigma = np.array([o.sigma for o in good])
    read = np.array([o.ohm for o in good]) - w.fit.lead_ohm
    matrix = np.vstack([share / sigma[:, None], np.diag(1 / loose)])
    ohm, *_ = np.linalg.lstsq(matrix, np.concatenate([read / sigma, guess / loose]), rcond=None)
    return {
        c.name: round(float(max(x, 0.0)), 5)
        for c, x, ok in zip(network.coils, ohm, known, strict=True)
        if ok
    }


def _kind_read(table: Tables, w: Weighed, evidence: Evidence) -> np.ndarray:
    seen = np.zeros(len(table.kinds))
    for k in w.fitted:
        o = evidence.ohms[k]
        seen += table.slope[w.roles[o.a], w.roles[o.b]]
    return seen > 0


def _suspects(
    weighed: Sequence[Weighed], share: Sequence[float], evidence: Evidence
) -> tuple[Suspect, ...]:
    """Return the readings that are wrong whatever the winding is, as far as can be told."""
    best = weighed[0]
    wrong = _odds_wrong(weighed, share, evidence)
    suspects = []
    for k, o in enumerate(evidence.ohms):
        if o.state != "unsteady" and wrong[k] < SUSPECT_FROM:
            continue
        expected = _expected(best, o, evidence)
        suspects.append(
            Suspect(
                reading=o.takes[-1], expected_ohm=expected, why=_cause(best, k, expected, evidence)
            )
        )
    return tuple(sorted(suspects, key=lambda s: s.reading))


def _odds_wrong(
    weighed: Sequence[Weighed], share: Sequence[float], evidence: Evidence
) -> list[float]:
    """Return for each observation the odds that it is wrong."""
    wrong = [0.0] * len(evidence.ohms)
    for w, s in zip(weighed, share, strict=True):
        for k in w.conflicts:
            wrong[k] += s
        if w.fit is not None:
            for place, k in enumerate(w.fitted):
                wrong[k] += s * w.fit.bad[place]
    return wrong


def _again(
    weighed: Sequence[Weighed], share: Sequence[float], evidence: Evidence
) -> NextReading | None:
    """Return a reading taken once that may well be wrong: a second take settles it cheaply."""
    wrong = _odds_wrong(weighed, share, evidence)
    once = [k for k, o in enumerate(evidence.ohms) if len(o.takes) == 1]
    worst = max(once, key=lambda k: wrong[k], default=None)
    if worst is None or wrong[worst] < AGAIN_FROM:
        return None
    o = evidence.ohms[worst]
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    odds = f"{wrong[worst]:.0%}".replace("%", " %")
    return NextReading(
        kind="resistance",
        between=(a, b),
        gain_bits=round(entropy((wrong[worst], 1 - wrong[worst])), 3),
        why=f"{a} to {b} is a bad clip ({odds}), or a coil of its own. Clean it, read it again.",
    )


def _cause(best: Weighed, k: int, expected: tuple[float, float] | None, evidence: Evidence) -> str:
    o = evidence.ohms[k]
    if o.state == "unsteady":
        return "It was unsteady. Clean the clip and read it again."
    if k in best.conflicts:
        return _cause_open(o, evidence) if o.state == "open" else _cause_stray(o, evidence)
    return _cause_figure(o, expected, evidence)


def _expected(best: Weighed, o: Ohms, evidence: Evidence) -> tuple[float, float] | None:
    """Return the range in Ω, as the meter would show it, that the rest says; None when open."""
    if best.model is None or best.fit is None or not best.fitted:
        return None
    table = tables(best.model.network)
    a, b = best.roles[o.a], best.roles[o.b]
    if not table.conduct[a, b]:
        return None
    ohm = float(table.slope[a, b] @ best.fit.ohm)
    share = evidence.meter.accuracy_percent / 100 / 3
    sigma = math.hypot(
        share * ohm + 0.5 * (evidence.meter.resolution_ohm or 0.01),
        COIL_SPREAD * float(np.sqrt(table.spread[a, b] ** 2 @ best.fit.ohm**2)),
    )
    lead = best.fit.lead_ohm
    return (
        float(f"{max(ohm - 3 * sigma, 0.0) + lead:.4g}"),
        float(f"{ohm + 3 * sigma + lead:.4g}"),
    )


def _cause_figure(o: Ohms, expected: tuple[float, float] | None, evidence: Evidence) -> str:
    pair = f"{evidence.tags[o.a]} to {evidence.tags[o.b]} reads {show_ohm(o.ohm)}"
    if expected is None:
        return f"{pair} and does not fit the rest. Read it again."
    span = f"{show_ohm(expected[0])} to {show_ohm(expected[1])} expected"
    if o.ohm > expected[1]:
        return f"{pair}, {span}. Too high: a dirty clip or a loose crimp. Clean it, read again."
    return f"{pair}, {span}. Too low: bare leads touching or a clip on the wrong lead. Read again."


def _cause_open(o: Ohms, evidence: Evidence) -> str:
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    return f"{a} to {b} reads open, but the rest says they belong together. Bite the clip in, read again."


def _cause_stray(o: Ohms, evidence: Evidence) -> str:
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    return f"{a} to {b} conducts, but the rest says they do not belong together. Part the bare ends, read again."


def _status(
    candidates: Sequence[Candidate], flawless: float, refined: bool, evidence: Evidence
) -> Status:
    first = candidates[0]
    if first.arrangement is not None and flawless < FORBID_FROM:
        return "contradictory"
    if first.arrangement is None:
        return "narrowed" if _all_groups_read(evidence) else "unsettled"
    same_kind = sum(c.probability for c in candidates if c.arrangement == first.arrangement)
    same_groups = sum(c.probability for c in candidates if c.groups == first.groups)
    named = all(c in ("proven", "convention") for c in first.certainty.values())
    if named and refined and same_kind >= SURE and same_groups >= SURE:
        return "settled"
    return "narrowed" if same_groups >= SURE else "unsettled"


def _all_groups_read(evidence: Evidence) -> bool:
    """Whether any two groups as read have an open reading between them, lone leads too."""
    groups = [set(g) for g in _groups_read(evidence)]
    lone = [{t} for t in evidence.tags if not any(t in g for g in groups)]
    parted = {
        frozenset((evidence.tags[o.a], evidence.tags[o.b]))
        for o in evidence.ohms
        if o.state == "open"
    }
    every = groups + lone
    return all(
        any(frozenset((a, b)) in parted for a in one for b in two)
        for k, one in enumerate(every)
        for two in every[k + 1 :]
    )


def _next(
    weighed: Sequence[Weighed],
    share: Sequence[float],
    stand: Sequence[World],
    suspects: Sequence[Suspect],
    evidence: Evidence,
) -> NextReading | None:
    if suspects:
        o = next(o for o in evidence.ohms if suspects[0].reading in o.takes)
        return NextReading(
            kind="resistance",
            between=(evidence.tags[o.a], evidence.tags[o.b]),
            gain_bits=1.0,
            why=suspects[0].why,
        )
    doubtful = _most_doubtful(weighed[0], evidence)
    if doubtful is not None:
        return doubtful
    again = _again(weighed, share, evidence)
    if again is not None:
        return again
    ohms = next_ohms(weighed, share, evidence)
    if ohms is not None or not stand or len(evidence.tags) < 2:
        return ohms or _any_unread(weighed, evidence)
    unread = next_unread_coil(weighed[0], evidence)
    return unread or next_switch(stand, evidence) or next_kick(stand, evidence)


def _most_doubtful(best: Weighed, evidence: Evidence) -> NextReading | None:
    """Where the readings contradict each other and none stands out: the likeliest to be off."""
    if best.fit is None or best.fit.clean or not best.fitted:
        return None
    bad = dict(zip(best.fitted, best.fit.bad, strict=True))
    o = evidence.ohms[max(best.fitted, key=lambda k: (round(bad[k], 6), -k))]
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    return NextReading(
        kind="resistance",
        between=(a, b),
        gain_bits=1.0,
        why=f"The readings contradict each other; {a} to {b} is likeliest off. Clean the clips, read it again.",
    )


def _any_unread(weighed: Sequence[Weighed], evidence: Evidence) -> NextReading | None:
    """Without an arrangement to ask, the pair that would join or part two groups."""
    if any(w.model is not None for w in weighed) or _all_groups_read(evidence):
        return None
    read = {(o.a, o.b) for o in evidence.ohms}
    where = {t: k for k, g in enumerate(_groups_read(evidence)) for t in g}
    for a, one in enumerate(evidence.tags):
        for b, two in enumerate(evidence.tags[a + 1 :], a + 1):
            apart = one not in where or where[one] != where.get(two)
            if apart and (a, b) not in read:
                return NextReading(
                    kind="resistance",
                    between=(one, two),
                    gain_bits=0.5,
                    why=f"It settles whether {one} and {two} belong together.",
                )
    return None


def _never(candidates: Sequence[Candidate]) -> tuple[tuple[str, str], ...]:
    """Return every pair that some candidate worth a thought says must not see line voltage."""
    found: set[tuple[str, str]] = set()
    for c in candidates:
        if c.arrangement is None or c.probability < FORBID_FROM:
            continue
        tag = {name: t for t, name in c.names.items()}
        for one, two in ARRANGEMENTS[c.arrangement].never:
            if one not in tag or two not in tag:
                continue
            start = {"start"} & {one, two} and {one, two} != {"run", "start"}
            if start and c.certainty[tag["start"]] != "proven":
                continue  # until the start is known this might be the run winding
            a, b = sorted((tag[one], tag[two]), key=list(c.roles).index)
            found.add((a, b))
        pairs = [g for g in c.groups if len(g) == 2 and g[0] in c.extras]
        found |= {(g[0], g[1]) for g in pairs}
    return tuple(sorted(found))


def _notes(candidates: Sequence[Candidate], best: Weighed, evidence: Evidence) -> tuple[str, ...]:
    notes = list(evidence.notes)
    if best.model is None and len(evidence.tags) > 1:
        notes.append("No winding this version knows fits; the groups stand as read.")
    sure: set[Certainty] = set(candidates[0].certainty.values())
    if best.model is not None and best.model.phases == 3 and "open" in sure:
        notes.append("Ohms cannot see which end of a coil is the start, nor which phase it is.")
    for n in best.fit.odd if best.fit else ():
        o = evidence.ohms[best.fitted[n]]
        a, b = evidence.tags[o.a], evidence.tags[o.b]
        notes.append(
            f"{a} to {b} reads {show_ohm(o.ohm)} again and again: that coil differs from its like."
        )
    if "leaning" in sure and best.model is not None and best.model.phases == 1:
        notes.append("Which winding is the start is a guess by ohms, not proof.")
    return tuple(notes)
