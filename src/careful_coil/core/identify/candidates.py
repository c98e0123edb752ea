"""Placements told as candidates: roles, extras, groups, coil ohms, how sure each name is."""

from collections.abc import Collection, Sequence
from dataclasses import replace

import numpy as np

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.extras import EARTH_OHM, Told, kind_of_extra
from careful_coil.core.identify.fit import COIL_SPREAD
from careful_coil.core.identify.models import LONE, SENSOR, Model, role_word
from careful_coil.core.identify.result import Candidate, Certainty
from careful_coil.core.identify.tables import Tables, tables
from careful_coil.core.identify.weigh import Weighed
from careful_coil.core.identify.worlds import Namings, best_names
from careful_coil.core.winding.network import Network

THREE = 3  # phases, of which each lead shows two at once
LEFT_OUT_BELOW = 0.001
AT_LEAST, AT_MOST = 5, 20
CLAIMED = 3  # candidates whose names are looked at
LEAST_LEADER = 0.9  # odds of the likeliest winding from which something of it is proven
FORBID_FROM = 0.05
Groups = tuple[tuple[str, ...], ...]


def candidates_of(
    weighed: Sequence[Weighed],
    share: Sequence[float],
    stand: Namings,
    evidence: Evidence,
) -> tuple[Candidate, ...]:
    merged: dict[tuple[str, tuple[str, ...]], tuple[Weighed, float]] = {}
    for w, s in zip(weighed, share, strict=True):
        words = tuple(_word(w.model.network.leads[r]) for r in w.roles) if w.model else ()
        key = (w.model.slug + w.model.variant + w.model.broken if w.model else "", words)
        if w.model is not None and w.model.missing:
            key = (f"{w.model.slug}, short", ())
        first, sum_so_far = merged.get(key, (w, 0.0))
        merged[key] = (first, sum_so_far + s)
    rows = sorted(merged.values(), key=lambda r: (-r[1], r[0].roles))
    rows = [r for k, r in enumerate(rows) if k < AT_LEAST or r[1] >= LEFT_OUT_BELOW][:AT_MOST]
    found = tuple(
        _candidate(w, s, stand if k < CLAIMED and s >= FORBID_FROM else None, evidence)
        for k, (w, s) in enumerate(rows)
    )
    leads = sum(c.probability for c in found if c.arrangement == found[0].arrangement)
    # nothing of a winding that may be another; a lead beside it is proven by its own test
    return found if leads >= LEAST_LEADER else tuple(unclaimed(c, c.extras) for c in found)


def _candidate(
    w: Weighed, probability: float, stand: Namings | None, evidence: Evidence
) -> Candidate:
    """Return a placement as a candidate; without `stand` nothing is claimed of its names."""
    tags = evidence.tags
    if w.model is None:
        return Candidate(
            arrangement=None,
            probability=probability,
            groups=groups_read(evidence),
            notes=("No winding this version knows fits these readings.",),
        )
    network = w.model.network
    if w.model.missing:
        return Candidate(
            arrangement=None,
            probability=probability,
            groups=groups_read(evidence),
            notes=w.model.notes,
        )
    worlds = stand.worlds if stand else ()
    own = [x for x in worlds if x.placed.model is w.model and x.placed.roles == w.roles]
    if stand is not None and own:
        world, names = best_names(own, evidence.printed)
        sure = stand.certainties(world, names)
    else:
        names = tuple(network.leads[r] for r in w.roles)
        sure = tuple("open" for _ in tags)
    network = _as_named(w.model, w.roles, names)
    by_tag = dict(zip(tags, names, strict=True))
    groups = [tuple(t for t in tags if by_tag[t] in g) for g in network.groups()]
    ohms = _coil_ohms(w, network, names, evidence)
    tested = {t: _extra_of(n, by_tag, ohms, evidence) for t, n in by_tag.items() if _extra(n)}
    told = {t: x.kind for t, x in tested.items()}
    open_ends = _of_broken(w.model)
    dead = {t for t, r in zip(tags, w.roles, strict=True) if w.model.network.leads[r] in open_ends}
    notes: tuple[str, ...] = (*w.model.notes,)
    notes += (w.model.arrangement.note,) if w.model.arrangement.note else ()
    if w.variant.rising or w.variant.opens or w.variant.bled:
        notes += (f"{w.variant.name.capitalize()}.",)
    certainty = dict(zip(tags, sure, strict=True))
    certainty |= {
        t: "proven" if x.sure and certainty[t] in ("proven", "convention") else "leaning"
        for t, x in tested.items()
    }
    certainty |= dict.fromkeys(dead, "open")
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
        shown_ohm={
            k: v
            for k, v in _coil_ohms(w, network, names, evidence, bare=True).items()
            if not k.startswith(SENSOR)
        },
        notes=notes,
        broken=tuple(t for t in tags if t in dead),
        unread=unread_coils(network, names, evidence),
        order=_speed_order(by_tag),
    )


def _of_broken(model: Model) -> set[str]:
    """Return the leads of a coil that stands open: nothing tells which end is which."""
    coil = next((c for c in model.core.coils if c.name == model.broken), None)
    return {coil.start, coil.finish} if coil else set()


def unread_coils(network: Network, names: Sequence[str], evidence: Evidence) -> tuple[str, ...]:
    """Return the coils that no ohms have passed, `names` the leads by tag.

    Of three phases behind three leads two readings show none by itself: all three are wanted.
    """
    read = {(o.a, o.b) for o in evidence.ohms if o.conducts}
    three = len(network.coils) == len(network.leads) == THREE > len(read)
    if three and all(c.like == "coil" for c in network.coils):
        return tuple(c.name for c in network.coils)
    passed = np.zeros(len(network.coils), dtype=bool)
    for o in evidence.ohms:
        if o.conducts:
            passed |= np.abs(network.shares(names[o.a], names[o.b])) > 1e-9
    return tuple(c.name for c, p in zip(network.coils, passed, strict=True) if not p)


def _word(lead: str) -> str:
    """Return a lead's role, all that is beside the winding in one word."""
    return SENSOR if _extra(lead) else role_word(lead)


def _extra(name: str) -> bool:
    return role_word(name).split("-")[0] in (SENSOR, LONE)


def _extra_of(
    name: str, by_tag: dict[str, str], ohms: dict[str, float], evidence: Evidence
) -> Told:
    """Return what a lead beside the winding belongs to, and whether its own test has shown it."""
    pair, said = role_word(name), dict(evidence.uses)
    ends = {k for k, t in enumerate(evidence.tags) if role_word(by_tag[t]) == pair}
    if not pair.startswith(SENSOR):
        at = next(k for k, t in enumerate(evidence.tags) if by_tag[t] == name)
        return _lone_lead(at, said.get(at, ""), evidence)
    volts = [v for a, b, v in evidence.spins if {a, b} == ends]
    return kind_of_extra(
        ohms.get(pair),
        volts[-1] if volts else None,
        said=next((said[k] for k in sorted(ends) if k in said), ""),
        rising=any({o.a, o.b} == ends and o.state == "rising" for o in evidence.ohms),
        wires=len(ends),
    )


def _lone_lead(at: int, said: str, evidence: Evidence) -> Told:
    """Return what a lead is that conducts to no other: earth, a contact that closes, or nothing."""
    tag, frame = evidence.tags[at], dict(evidence.frame)
    if any(at in (a, b) and v in ("closes", "changes") for a, b, v in evidence.switches):
        return Told("switch", True)
    if said == "earth":  # said or by its colour: a broken coil's end on the frame is none
        on = tag in frame and frame[tag] < EARTH_OHM
        return Told("earth", on and tag in evidence.lugs_off)
    if said:
        return Told(said, False)
    return Told(LONE, tag in frame and frame[tag] >= evidence.meter.open_above_ohm)


def _speed_order(by_tag: dict[str, str]) -> tuple[str, ...]:
    """Return the tags of speed taps from high to low, where there are any."""
    names = {n: t for t, n in by_tag.items()}
    taps = ("high", "medium", "tap-1", "tap-2", "tap-3", "low")
    return tuple(names[n] for n in taps if n in names) if "run" in names else ()


def unclaimed(c: Candidate, keep: Collection[str] = ()) -> Candidate:
    """Return a candidate without claims: nothing of it is proven but the tags to `keep`."""
    sure: dict[str, Certainty] = {
        t: "leaning" if s in ("proven", "convention") and t not in keep else s
        for t, s in c.certainty.items()
    }
    return replace(c, certainty=sure)


def groups_read(evidence: Evidence) -> Groups:
    """Return the leads that conduct to each other as read, whatever the winding is."""
    group = {k: {k} for k in range(len(evidence.tags))}
    for o in evidence.ohms:
        if o.conducts:
            joined = group[o.a] | group[o.b]
            for k in joined:
                group[k] = joined
    found = {min(g): g for g in group.values() if len(g) > 1}
    return tuple(tuple(evidence.tags[k] for k in sorted(found[m])) for m in sorted(found))


def _as_named(model: Model, roles: Sequence[int], names: Sequence[str]) -> Network:
    """Return a winding that has one phase open or weak with that phase where the names have it."""
    if not (model.broken or model.weak):
        return model.network
    named = {model.network.leads[r]: n for r, n in zip(roles, names, strict=True)}
    own = {frozenset((c.start, c.finish)): c.name for c in model.core.coils}
    coils = []
    for c in model.network.coils:
        start, finish = named.get(c.start, c.start), named.get(c.finish, c.finish)
        name = own.get(frozenset((start, finish)), c.name)
        coils.append(replace(c, name=name, start=start, finish=finish))
    return replace(model.network, coils=tuple(coils))


def _coil_ohms(
    w: Weighed, network: Network, names: Sequence[str], evidence: Evidence, *, bare: bool = False
) -> dict[str, float]:
    """Return each coil's ohms: the kind's figure, drawn towards what was read through that coil.

    `bare`: as the meter shows them, nothing taken off for the test leads.
    """
    if w.model is None or w.fit is None or not w.fitted:
        return {}
    table = tables(w.model.network)
    kind = [table.kinds.index(c.like) for c in network.coils]
    lead = w.fit.lead_ohm
    guess = w.fit.ohm[kind] + (lead if bare else 0.0)
    known = [bool(_kind_read(table, w, evidence)[k]) for k in kind]
    good = [evidence.ohms[k] for n, k in enumerate(w.fitted) if n not in w.fit.dropped]
    share = np.array([network.shares(names[o.a], names[o.b]) ** 2 for o in good])
    many = np.array([sum(c.like == d.like for d in network.coils) > 1 for c in network.coils])
    for n in w.fit.odd:
        o = evidence.ohms[w.fitted[n]]
        many &= np.abs(network.shares(names[o.a], names[o.b])) < 1e-9  # these coils stand alone
    loose = np.where(many, COIL_SPREAD * guess, 10 * guess)
    sigma = np.array([o.sigma for o in good])
    read = np.array([o.ohm for o in good]) - (0.0 if bare else lead)
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
