"""What each station has to say of a job: its rules, what it asks for next, what it lets be recorded."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import chain

from careful_coil.core.condition.rules import condition_findings
from careful_coil.core.condition.seen_rules import seen_findings
from careful_coil.core.condition.suspicion import suspicion_findings
from careful_coil.core.connect.as_found import as_found_findings
from careful_coil.core.connect.plate_ohms import plate_ohm_findings
from careful_coil.core.connect.rules import connect_findings
from careful_coil.core.connect.standard import diagram_findings
from careful_coil.core.gear.rules import gear_findings
from careful_coil.core.identify.rules import lead_findings
from careful_coil.core.job import AnyBody, Finding
from careful_coil.core.job.fold import FOLDS, Fold
from careful_coil.core.job.promise import promise_findings
from careful_coil.core.job.rules import intake_findings
from careful_coil.core.kind.rules import kind_findings
from careful_coil.core.kind.worth import worth_findings
from careful_coil.core.ledger import admission
from careful_coil.core.ledger.admission import Admits, Asking
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.gate import frozen
from careful_coil.core.ledger.next_connect import connect_steps
from careful_coil.core.ledger.next_gear import gear_steps
from careful_coil.core.ledger.next_intake import intake_steps
from careful_coil.core.ledger.next_leads import lead_steps
from careful_coil.core.ledger.next_mechanics import mechanics_steps
from careful_coil.core.ledger.next_release import release_steps
from careful_coil.core.ledger.next_trial import trial_steps
from careful_coil.core.ledger.next_wall import insulation_steps
from careful_coil.core.ledger.site_rules import site_findings
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.rules import mechanics_findings
from careful_coil.core.rewind.rules import winding_findings
from careful_coil.core.stations import Station
from careful_coil.core.trial.rules import trial_findings

Rules = Callable[[Facts], Iterable[Finding]]
Steps = Callable[[Facts], Iterable[NextStep]]


def _none(_: Facts) -> Iterator[NextStep]:
    return iter(())


@dataclass(frozen=True, slots=True, kw_only=True)
class AtStation:
    """One station: its part of a job, its rules, its next steps in order, which kinds it lets be recorded."""

    name: Station
    rules: Rules
    fold: Fold | None = None
    steps: Steps = _none
    admits: Mapping[str, Admits] = field(default_factory=dict)


def _intake(c: Facts) -> Iterator[Finding]:
    return chain(
        intake_findings(c.job),
        promise_findings(c.job, c.bench.now),
        kind_findings(c.job, c.kinds, c.settings),
        as_found_findings(c.job, c.as_found),
        diagram_findings(c.job),
        seen_findings(c.job, c.kinds, c.settings),
        suspicion_findings(c.suspicion),
        worth_findings(c.job, c.settings),
    )


def _connect(c: Facts) -> Iterator[Finding]:
    extras = c.identification.best.sensors if c.identification else ()
    return chain(
        plate_ohm_findings(c.job, c.identification, c.naming, c.settings),
        connect_findings(c.job, c.connecting, c.settings, extras),
    )


# in the order in which their findings of one weight are listed
EVERY: tuple[AtStation, ...] = (
    AtStation(name="intake", rules=_intake, steps=intake_steps),
    AtStation(
        name="leads",
        rules=lambda c: lead_findings(
            c.job, c.identification, c.naming, c.settings.frame_ohm.value
        ),
        steps=lead_steps,
        admits=admission.LEADS,
    ),
    AtStation(
        name="insulation",
        fold=FOLDS["insulation"],
        rules=lambda c: condition_findings(c.job, c.identification, c.naming, c.wall, c.settings),
        steps=insulation_steps,
        admits=admission.INSULATION,
    ),
    AtStation(
        name="connect",
        fold=FOLDS["connect"],
        rules=_connect,
        steps=connect_steps,
        admits=admission.CONNECT,
    ),
    AtStation(
        name="start-gear",
        fold=FOLDS["start-gear"],
        rules=lambda c: gear_findings(c.job, c.settings, c.kinds),
        steps=gear_steps,
        admits=admission.GEAR,
    ),
    AtStation(
        name="mechanics",
        fold=FOLDS["mechanics"],
        rules=lambda c: mechanics_findings(c.job, c.kinds, c.settings),
        steps=mechanics_steps,
    ),
    AtStation(
        name="winding",
        rules=lambda c: winding_findings(c.job, c.winding, c.kinds, c.settings),
    ),
    AtStation(
        name="test-run",
        fold=FOLDS["test-run"],
        rules=lambda c: trial_findings(c.job, c.start_way, c.settings, c.connecting),
        steps=trial_steps,
        admits=admission.TRIAL,
    ),
    AtStation(
        name="release",
        rules=lambda c: site_findings(c.job, c.connecting, c.settings),
        steps=release_steps,
    ),
)


def why_not(asking: Asking, bodies: Sequence[AnyBody]) -> str:
    """Return why these may not be recorded now and what is wanted first; empty where they may.

    A released job takes nothing but a strike of its signature; else each entry is asked of its station.
    """
    judged = asking.judged
    words = frozen(judged.job, judged.released, bodies)
    if words:
        return words
    for body in bodies:
        for station in EVERY:
            admits = station.admits.get(body.topic)
            words = admits(asking, body) if admits is not None else ""
            if words:
                return words
    return ""
