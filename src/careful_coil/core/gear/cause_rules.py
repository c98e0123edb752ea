"""The complaint's cause: a motor that did not start, or tripped, does not leave before it is found."""

from functools import partial

from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.job import Finding, Job

# complaints of the start gear's kind; the others stand at Intake as a first suspicion
OF_START = (
    "hums",
    "starts-pushed",
    "trips-later",
    "clicks",
    "cycles",
    "no-restart",
    "reversed",
)
TRIPPED = ("trips-later", "cycles")
PUSHED = "A push or tap that starts it is a diagnosis, never a cure."
RESET = "A protector is not reset before it is known why it tripped; an automatic one restarts unannounced."


def cause_findings(job: Job, causes: Suspicion | None) -> list[Finding]:
    """Return the gate's line on the cause of a single-phase motor's complaint."""
    if causes is None or job.plate.phases == 3:
        return []
    told = [s for s in causes.symptoms if s in OF_START]
    if not told:
        return []
    of = partial(Finding, code="cause", station="start-gear", gate=True)
    word = (job.attested or {}).get("start-gear")
    if word is not None:
        return [of(verdict="good", subject="Cause found", why=word.words)]
    cause = CAUSES.get(job.gear.cause)
    if cause is not None:
        return [of(verdict="good", subject="Cause found", why=f"{cause.title}.")]
    (first, odds), (second, less), *_ = causes.odds
    cautions = [
        w
        for w, wanted in ((PUSHED, ("starts-pushed",)), (RESET, TRIPPED))
        if set(wanted) & set(told)
    ]
    why = f"{first.title} {odds:.0%}, then {second.title[0].lower()}{second.title[1:]} {less:.0%}."
    return [of(verdict="unproven", subject="Cause not found", why=" ".join([why, *cautions]))]
