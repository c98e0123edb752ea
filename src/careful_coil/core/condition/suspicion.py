"""From the complaint to a first suspicion: causes by odds, and what would part the first two.

The first question on any complaint is whether it turns by hand and runs uncoupled: a seized pump looks
like a dead motor.
"""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache

from careful_coil.core.condition.causes import CAUSES, Cause
from careful_coil.core.condition.symptoms import (
    BY_HAND,
    HAND_ANSWERS,
    NO,
    REST,
    RUN_ANSWERS,
    SYMPTOMS,
    UNCOUPLED,
    WHEN,
    WHEN_KEY,
    YES,
    when_in,
)
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed

BRUSHED = ("universal", "dc-magnet", "dc-wound", "repulsion-start")
LIKELY = 0.6  # odds of a kind with brushes, from which it is taken for one
THREE = ("three-phase", "three-phase-magnet", "wound-rotor", "synchronous")
NO_COMPLAINT = ("nothing", "none", "no", "-")  # asked, and nothing is complained of
SILENT = 0.75  # how much of a symptom's absence is worth when the customer did not name it
HAND_OF = {"stiff": "stiff", "rough": "stiff", "rubs": "stiff", "seized": "seized"}
FELT_AS = {
    "free": "free",
    "rough": "stiff",
    "binding": "stiff",
    "rubbing": "stiff",
    "seized": "seized",
}  # what Mechanics says of the shaft
# what the checklist found is evidence of a cause: (item, answer): {cause: factor}
FOUND: dict[tuple[str, str], dict[str, float]] = {
    ("capacitor", "bulged"): {"start-capacitor": 8},
    ("capacitor", "vented"): {"start-capacitor": 10},
    ("contacts", "pitted"): {"switch-open": 2, "switch-stays": 1.5},
    ("contacts", "burnt"): {"switch-open": 4, "switch-stays": 3},
    ("contacts", "welded"): {"switch-stays": 20, "switch-open": 0.02},
    ("weights", "stuck"): {"switch-stays": 6, "switch-open": 3, "switch-weak": 6},
    ("weights", "weak spring"): {"switch-weak": 10},
    ("weights", "spring broken"): {"switch-weak": 4, "switch-open": 6, "switch-stays": 6},
    ("windings", "burnt"): {"turn-short": 6, "open-winding": 2},
    ("windings", "wet"): {"damp": 10, "to-frame": 2},
    ("fan", "broken"): {"cooling": 8},
    ("fan", "blocked"): {"cooling": 8},
    ("brushes", "short"): {"brushes": 8},
    ("brushes", "stuck"): {"brushes": 8},
    ("commutator", "burnt bars"): {"armature": 8},
    ("drive-end bearing", "rough"): {"bearing-worn": 4},
    ("other bearing", "rough"): {"bearing-worn": 4},
    ("burn picture", "two-phases"): {"lost-phase": 25},
    ("burn picture", "one-phase"): {"lost-phase": 25},
    ("burn picture", "spot"): {"turn-short": 10, "to-frame": 4},
    ("burn picture", "start"): {"switch-stays": 15},
    ("burn picture", "ends"): {"cooling": 12},
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspicion:
    """Causes by odds; what is asked first or next, and why; symptoms that count."""

    odds: tuple[tuple[Cause, float], ...]
    ask: str
    answers: tuple[str, ...]
    key: str  # what an answer is logged under; empty where a test must be made
    symptoms: tuple[str, ...]
    when: str = ""  # when it happens, where that is known


@lru_cache(maxsize=256)
def symptoms_in(complaint: str) -> tuple[str, ...]:
    """Return the symptoms a complaint names in the customer's words."""
    if complaint.strip().lower() in NO_COMPLAINT:
        return ()
    when, rest = when_in(complaint)
    words = rest if when in ("cold", "warm") else complaint.lower()  # "when hot" does not say hot
    found = []
    for name, (_, parts) in SYMPTOMS.items():
        if any(re.search(rf"(?<!\w){re.escape(p)}", words) for p in parts):
            found.append(name)
    if "trips-at-once" in found and "trips-later" in found:
        found.remove("trips-later")
    return tuple(found)


def suspicion_of(job: Job, kinds: Weighed) -> Suspicion | None:
    """Return the first suspicion of a job; None while nothing is complained of."""
    told = dict.fromkeys(symptoms_in(job.ticket.get("complaint", "")), YES)
    told |= {k: v for k, v in job.seen.symptoms.items() if k in SYMPTOMS}
    named = tuple(k for k, v in told.items() if v == YES)
    answers = {k: job.seen.symptoms.get(k, "") for k in (BY_HAND, UNCOUPLED)}
    turned = job.seen.condition.get(BY_HAND)
    felt = FELT_AS.get(job.hands.felt.get("feel", ""))
    if felt:  # at Mechanics, load off: it outweighs what was said at the counter
        answers[BY_HAND] = felt
    elif not answers[BY_HAND] and turned is not None:
        answers[BY_HAND] = HAND_OF.get(turned.text, "")
    if not named and not (
        set(answers.values()) & {"stiff", "seized", "runs badly", "does not start"}
    ):
        return None
    when = job.seen.symptoms.get(WHEN_KEY, "") or when_in(job.ticket.get("complaint", ""))[0]
    facts = [(k, b.text) for k, b in job.seen.condition.items()]
    facts += _worn_bearings(job)
    odds = weigh_causes(told, answers, facts, _phases(job, kinds), when)
    ask: tuple[str, tuple[str, ...], str] = (odds[0][0].test, (), "")
    if not answers[BY_HAND]:
        ask = ("Uncoupled from its load: does the shaft turn by hand?", HAND_ANSWERS, BY_HAND)
    elif not answers[UNCOUPLED] and answers[BY_HAND] != "seized":
        ask = ("Uncoupled from its load: does it run?", RUN_ANSWERS, UNCOUPLED)
    return Suspicion(odds=odds, ask=ask[0], answers=ask[1], key=ask[2], symptoms=named, when=when)


def has_brushes(kinds: Weighed) -> bool:
    """Return whether it is likely a motor with brushes and a commutator."""
    return kinds.chance(BRUSHED) >= LIKELY


def _worn_bearings(job: Job) -> list[tuple[str, str]]:
    """Return what Mechanics says of worn bearings, in the checklist's words, unless it has said so itself."""
    items = {"drive": "drive-end bearing", "other": "other bearing"}
    return [
        (items[end], "rough")
        for end, told in job.hands.bearings.items()
        if told.get("state", "good") not in ("good", "seized")
        and items[end] not in job.seen.condition
    ]


def suspicion_findings(found: Suspicion | None) -> list[Finding]:
    """Return the first suspicion as a note; it is a leaning until a test has shown it."""
    if found is None:
        return []
    (first, odds), (second, less), *_ = found.odds
    return [
        Finding(
            code="suspicion",
            verdict="note",
            subject=f"First suspicion: {first.title[0].lower()}{first.title[1:]} ({odds:.0%})",
            why=f"Then: {second.title[0].lower()}{second.title[1:]} ({less:.0%}). {found.ask}",
            station="intake",
        )
    ]


def weigh_causes(
    symptoms: Mapping[str, str],
    answers: Mapping[str, str],
    found: Iterable[tuple[str, str]],
    shares: tuple[float, float, float],
    when: str = "",
) -> tuple[tuple[Cause, float], ...]:
    """Return causes with their odds, likeliest first; `when` it happens, a name of WHEN or nothing.

    `symptoms` yes or no by name; `answers` to the first questions; `found` items of the checklist
    with what was wrong; `shares` how likely it is single-phase, three-phase, brushed (of 1).
    """
    weights = []
    facts = tuple(found)
    for cause in CAUSES.values():
        fits = _share(cause, shares)
        weight = cause.prior * fits
        for name in SYMPTOMS:
            chance = cause.shows.get(name, REST)
            said = symptoms.get(name)
            if said == YES:
                weight *= chance
            elif said == NO:
                weight *= 1 - chance
            elif any(v == YES for v in symptoms.values()):
                weight *= 1 - SILENT * chance
        weight *= _answer(cause.hand, HAND_ANSWERS, answers.get(BY_HAND, ""))
        weight *= _answer(cause.run, RUN_ANSWERS, answers.get(UNCOUPLED, ""))
        if when in WHEN:
            weight *= cause.when[list(WHEN).index(when)]
        for fact in facts:
            weight *= FOUND.get(fact, {}).get(cause.name, 1.0)
        weights.append((cause, weight))
    total = sum(w for _, w in weights) or 1.0
    return tuple(sorted(((c, w / total) for c, w in weights), key=lambda x: -x[1]))


def _share(cause: Cause, shares: tuple[float, float, float]) -> float:
    """Return how likely it is that the motor is one that can have this cause."""
    single, three, brushed = shares
    if cause.brushed:
        return brushed
    every = {1, 3} <= set(cause.phases)
    return (1 in cause.phases) * single + (3 in cause.phases) * three + every * brushed


def _answer(chances: tuple[float, float, float], answers: tuple[str, ...], said: str) -> float:
    """Return P(answer | cause); 1 where it was not asked or not tried."""
    known = dict(zip(answers, chances, strict=False))
    return known.get(said, 1.0)


def _phases(job: Job, kinds: Weighed) -> tuple[float, float, float]:
    """Return how likely the motor is single-phase, three-phase, brushed, of 1."""
    odds: dict[str, float] = {o.kind.name: o.probability for o in kinds.odds}
    brushed = sum(odds[k] for k in BRUSHED)
    three = sum(odds[k] for k in THREE)
    if job.plate.phases == 3:
        three, brushed = 1.0, 0.0
    if job.plate.phases == 1:
        three = 0.0
        brushed = min(brushed, 1.0)
    return max(1.0 - three - brushed, 0.0), three, brushed
