"""From readings to an answer: candidates, certainty, suspects, the next reading."""

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

from careful_coil.core.identify.candidates import (
    AT_MOST,
    FORBID_FROM,
    candidates_of,
    groups_read,
    unclaimed,
)
from careful_coil.core.identify.cover import Cover, cover
from careful_coil.core.identify.evidence import Evidence, KickTest
from careful_coil.core.identify.nextgroup import next_group
from careful_coil.core.identify.nextmark import borne_out, next_marked
from careful_coil.core.identify.nextrun import next_run
from careful_coil.core.identify.nextseries import next_series
from careful_coil.core.identify.nextstep import (
    next_kick,
    next_ohms,
    next_shaft,
    next_spin,
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
from careful_coil.core.identify.suspects import most_doubtful, suspects_of, take_again, wrong_kicks
from careful_coil.core.identify.weigh import Weighed, weigh
from careful_coil.core.identify.worlds import (
    LIGHTEST,
    Namings,
    World,
    few_enough,
    shares,
    standing,
    worlds_of,
)
from careful_coil.core.values import show_ohm
from careful_coil.core.winding.arrangements import ARRANGEMENTS

SURE = 0.95
ODD_OPEN = 0.7  # of sheets with an open pair that must conduct, those that hold but for it
LEADS_FROM = 0.5  # odds from which named windings that forbid a pair lead together
LISTED = 0.97  # of all groupings that must stand in the list before windings are laid on them
LIKELY, MOST_LAID = 1e-4, 80  # and no more than so many as likely as this


@lru_cache(maxsize=256)
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
    bare = dict(zip(map(id, weighed), shares([w.log_weight for w in weighed]), strict=True))
    weighed.sort(key=lambda w: (-(w.log_weight + w.marks), w.roles))
    share = shares([w.log_weight + w.marks for w in weighed])
    heavy = [w for w in weighed if bare[id(w)] >= LIGHTEST]
    refined = few_enough(heavy)
    worlds = worlds_of(heavy, evidence) if refined else []
    if refined:
        by_placement: dict[int, float] = {}
        for w in worlds:
            by_placement[id(w.placed)] = by_placement.get(id(w.placed), 0.0) + w.weight
        heavy.sort(key=lambda w: (-by_placement[id(w)], w.roles))
        weighed, share = heavy, [by_placement[id(w)] for w in heavy]
    stand = standing(worlds)
    candidates = candidates_of(weighed, share, Namings.of(stand), evidence)
    best = weighed[0]
    suspects = (*suspects_of(weighed, share, evidence), *wrong_kicks(stand, evidence))
    flawless = sum(bare[id(w)] for w in weighed if not w.flaws)
    status = _status(candidates, flawless, refined, evidence)
    to_close = status == "narrowed" and _but_for_a_kick(weighed, share, stand, refined, evidence)
    if status == "contradictory":
        candidates = tuple(unclaimed(c) for c in candidates)
        if any(evidence.ohms[k].state == "open" for k in best.conflicts):
            candidates = tuple(replace(c, probability=ODD_OPEN * c.probability) for c in candidates)
    return Identification(
        status=status,
        candidates=candidates,
        suspects=suspects,
        next=_next(weighed, share, stand, suspects, evidence),
        never_energise=_never(candidates),
        notes=_notes(candidates, best, evidence),
        to_close=to_close,
        read_groups=groups_read(evidence),
    )


def _but_for_a_kick(
    weighed: Sequence[Weighed],
    share: Sequence[float],
    stand: Sequence[World],
    refined: bool,
    evidence: Evidence,
) -> bool:
    """Whether it would be settled if every kick were certain to be the right way round."""
    if not stand or not (evidence.kicks or evidence.serieses):
        return False
    every = [w for w in stand if w.misses <= stand[0].misses]
    candidates = candidates_of(weighed, share, Namings.of(every), evidence)
    return _status(candidates, 1.0, refined, evidence) == "settled"


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
        next=next_marked(evidence) or next_group(groups, evidence),
        never_energise=(),
        notes=evidence.notes,
        read_groups=groups_read(evidence),
    )


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
    read = any(o.conducts for o in evidence.ohms)  # two leads have their names without a reading
    named = read and all(c in ("proven", "convention") for c in first.certainty.values())
    if named and refined and same_kind >= SURE and same_groups >= SURE:
        return "settled"
    return "narrowed" if same_groups >= SURE else "unsettled"


def _all_groups_read(evidence: Evidence) -> bool:
    """Whether any two groups as read have an open reading between them, lone leads too."""
    groups = [set(g) for g in groups_read(evidence)]
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
    for suspect in suspects:
        kick = next((k for k in evidence.kicks if k.reading == suspect.reading), None)
        if kick is not None:
            if kick.takes < 2 and not evidence.waits("kick", *kick.leads):
                return _kick_again(kick, suspect, evidence)
            continue
        o = next(o for o in evidence.ohms if suspect.reading in o.takes)
        if evidence.waits("resistance", o.a, o.b):
            continue
        return NextReading(
            kind="resistance",
            between=(evidence.tags[o.a], evidence.tags[o.b]),
            gain_bits=1.0,
            why=suspect.why,
        )
    again = take_again(weighed, share, evidence)
    if again is not None and again.code not in evidence.leanings.put_off:
        return again
    doubtful = most_doubtful(weighed[0], evidence)
    if doubtful is not None and doubtful.code not in evidence.leanings.put_off:
        return doubtful
    ohms = next_marked(evidence)
    first = weighed[0].model.slug if weighed[0].model else ""
    kind = sum(s for w, s in zip(weighed, share, strict=True) if w.model and w.model.slug == first)
    if ohms is None and (kind < SURE or not borne_out(evidence)):
        ohms = next_ohms(weighed, share, evidence)
    if ohms is not None or len(evidence.tags) < 2:
        return ohms or _any_unread(weighed, evidence)
    unread = None if _no_winding(weighed[0]) else next_unread_coil(weighed[0], evidence)
    if unread is not None or not stand:
        return unread or _any_unread(weighed, evidence)
    if _no_winding(weighed[0]):
        return None
    tests = [t for t in (next_switch(stand, evidence), next_shaft(stand, evidence)) if t]
    if tests:
        return max(tests, key=lambda t: t.gain_bits)
    no_battery = any(code.startswith("kick-") for code in evidence.leanings.put_off)
    sense = next_series if no_battery else next_kick
    last = sense(stand, evidence) or next_run(stand, evidence)
    return last or next_spin(weighed[0], evidence)


def _no_winding(best: Weighed) -> bool:
    """Whether the likeliest is no winding known, or one with a lead that was not counted."""
    return best.model is None or bool(best.model.missing)


def _kick_again(kick: KickTest, suspect: Suspect, evidence: Evidence) -> NextReading:
    source, sense = (tuple(evidence.tags[k] for k in pair) for pair in (kick.source, kick.sense))
    return NextReading(
        kind="kick",
        source=(source[0], source[1]),
        sense=(sense[0], sense[1]),
        gain_bits=1.0,
        why=suspect.why,
    )


def _any_unread(weighed: Sequence[Weighed], evidence: Evidence) -> NextReading | None:
    """Without an arrangement to ask, the pair that would join or part two groups."""
    if any(w.model is not None for w in weighed) or _all_groups_read(evidence):
        return None
    read = {(o.a, o.b) for o in evidence.ohms}
    where = {t: k for k, g in enumerate(groups_read(evidence)) for t in g}
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
    """Return every pair that must not see line voltage: by a candidate worth a thought, or by most.

    A start to common only where the start is known: else it might be the run winding.
    """
    odds: dict[tuple[str, str], float] = {}
    worth: set[tuple[str, str]] = set()
    for c in candidates:
        for pair in _forbidden(c):
            odds[pair] = odds.get(pair, 0.0) + c.probability
            if c.probability >= FORBID_FROM:
                worth.add(pair)
    return tuple(sorted(worth | {p for p, together in odds.items() if together >= LEADS_FROM}))


def _forbidden(c: Candidate) -> set[tuple[str, str]]:
    """Return the pairs that one candidate forbids."""
    if c.arrangement is None:
        return set()
    tag = {name: t for t, name in c.names.items()}
    found: set[tuple[str, str]] = set()
    for one, two in ARRANGEMENTS[c.arrangement].never:
        start = {"start"} & {one, two} and {one, two} != {"run", "start"}
        if one not in tag or two not in tag or (start and c.certainty[tag["start"]] != "proven"):
            continue
        a, b = sorted((tag[one], tag[two]), key=list(c.roles).index)
        found.add((a, b))
    return found | {(g[0], g[1]) for g in c.groups if len(g) == 2 and g[0] in c.extras}


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
