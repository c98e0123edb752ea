"""Wrong hookups of a job that would show what it does: which hookup is right, and what is complained of."""

from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.condition.symptoms import NO, SYMPTOMS, YES
from careful_coil.core.connect.hookup import Hookup
from careful_coil.core.connect.work import Connecting
from careful_coil.core.gear.wiring import Wiring, hookup_of
from careful_coil.core.job import Job
from careful_coil.core.ways.way import Plan


def symptoms_told(job: Job, suspicion: Suspicion) -> dict[str, str]:
    """Return yes and no by symptom, those of the complaint too."""
    told = {k: v for k, v in job.seen.symptoms.items() if k in SYMPTOMS and v in (YES, NO)}
    return dict.fromkeys(suspicion.symptoms, YES) | told


def right_hookup(job: Job, wiring: Wiring | str, state: Connecting) -> tuple[Hookup, Plan] | str:
    """Return the hookup the motor should have, or in words why it is not known."""
    if not isinstance(wiring, str):
        return hookup_of(wiring, job), wiring.plan
    if state.plan is None or state.hookup is None:
        return wiring if job.plate.phases == 1 else state.why
    return state.hookup, state.plan
