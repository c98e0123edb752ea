"""Which readings do not fit the rest, what was expected, and which to take again."""

import math
from collections.abc import Sequence

import numpy as np

from careful_coil.core.identify.evidence import Evidence, Ohms
from careful_coil.core.identify.fit import COIL_SPREAD, slip_of
from careful_coil.core.identify.nextstep import entropy
from careful_coil.core.identify.polarity import missed_kicks
from careful_coil.core.identify.result import NextReading, Suspect
from careful_coil.core.identify.tables import tables
from careful_coil.core.identify.weigh import Weighed
from careful_coil.core.identify.worlds import World
from careful_coil.core.values import show_ohm, show_percent

SUSPECT_FROM = 0.80
AGAIN_FROM = 0.2  # odds of being wrong from which a reading is asked for again


def suspects_of(
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


def wrong_kicks(stand: Sequence[World], evidence: Evidence) -> tuple[Suspect, ...]:
    """Return the kicks that the likeliest naming says are wrong, with every other explanation."""
    best = stand[0] if stand else None
    model = best.placed.model if best is not None else None
    if best is None or model is None or not evidence.kicks:
        return ()
    found = []
    for k in missed_kicks(model.network, best.coupling, best.roles, evidence.kicks):
        one, two, three, four = (evidence.tags[n] for n in k.leads)
        found.append(
            Suspect(
                reading=k.reading,
                expected_ohm=None,
                why=f"Kick {one} {two}, watched on {three} {four}, went {k.value.replace('-', ' ')}: the other "
                "kicks say otherwise. Battery or meter the wrong way round, a clip on the wrong lead, or one of "
                "the others is wrong. Touch the meter to the battery, it must go up; then take it again.",
            )
        )
    return tuple(found)


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


def take_again(
    weighed: Sequence[Weighed], share: Sequence[float], evidence: Evidence
) -> NextReading | None:
    """Return a reading taken once that may well be wrong: a second take settles it cheaply."""
    wrong = _odds_wrong(weighed, share, evidence)
    once = [k for k, o in enumerate(evidence.ohms) if len(o.takes) == 1]
    dead = _of_broken(weighed[0], evidence) if share[0] >= AGAIN_FROM else None
    if dead is not None:
        return dead
    worst = max(once, key=lambda k: wrong[k], default=None)
    if worst is None or wrong[worst] < AGAIN_FROM:
        return None
    o = evidence.ohms[worst]
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    odds = show_percent(wrong[worst])
    return NextReading(
        kind="resistance",
        between=(a, b),
        gain_bits=round(entropy((wrong[worst], 1 - wrong[worst])), 3),
        why=f"{a} to {b} is a bad clip ({odds}), or a coil of its own. Clean it, read it again.",
    )


def _of_broken(best: Weighed, evidence: Evidence) -> NextReading | None:
    """Return an open reading, taken once, that alone says that a coil is broken."""
    if best.model is None or not best.model.broken:
        return None
    whole = np.isfinite(best.model.core.resistance())
    inside = len(best.model.core.leads)
    table = tables(best.model.network)
    telling = [
        o
        for o in evidence.ohms
        if o.state == "open"
        and max(best.roles[o.a], best.roles[o.b]) < inside
        and whole[best.roles[o.a], best.roles[o.b]]
        and not table.conduct[best.roles[o.a], best.roles[o.b]]
    ]
    if len(telling) != 1 or telling[0].again > 1:
        return None  # two readings that one broken coil explains, or one read again
    a, b = evidence.tags[telling[0].a], evidence.tags[telling[0].b]
    return NextReading(
        kind="resistance",
        between=(a, b),
        gain_bits=0.5,
        why=f"{a} to {b} is a broken coil, or a clip that did not bite. Bite both clips in, read it again.",
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
    middle = (expected[0] + expected[1]) / 2
    if slip_of(o.ohm, middle):
        meant = o.ohm / 10 ** slip_of(o.ohm, middle)
        return (
            f"{pair}, {span}. Was it {show_ohm(meant)}? A slipped point, a prefix or the meter's range. "
            "Both are kept: read it again, or strike it and type it again."
        )
    if o.ohm > expected[1]:
        return f"{pair}, {span}. Too high: a dirty clip or a loose crimp. Clean it, read again."
    return f"{pair}, {span}. Too low: bare leads touching or a clip on the wrong lead. Read again."


def _cause_open(o: Ohms, evidence: Evidence) -> str:
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    return f"{a} to {b} reads open, but the rest says they belong together. Bite the clip in, read again."


def _cause_stray(o: Ohms, evidence: Evidence) -> str:
    a, b = evidence.tags[o.a], evidence.tags[o.b]
    return f"{a} to {b} conducts, but the rest says they do not belong together. Part the bare ends, read again."


def most_doubtful(best: Weighed, evidence: Evidence) -> NextReading | None:
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
