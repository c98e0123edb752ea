"""Wrong hookups of a job that would show what it does: which hookup is right, and what is complained of."""

from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.condition.symptoms import NO, SYMPTOMS, YES
from careful_coil.core.connect.hookup import Hookup, Supplied
from careful_coil.core.connect.plans import Plate
from careful_coil.core.connect.work import Connecting, coil_ohms
from careful_coil.core.gear.wiring import Wiring, hookup_of
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.ways.way import Plan


def symptoms_told(job: Job, suspicion: Suspicion) -> dict[str, str]:
    """Return yes and no by symptom, those of the complaint too."""
    told = {k: v for k, v in job.seen.symptoms.items() if k in SYMPTOMS and v in (YES, NO)}
    return dict.fromkeys(suspicion.symptoms, YES) | told


def right_hookup(
    job: Job,
    wiring: Wiring | str,
    state: Connecting,
    found: Identification | None,
    naming: Naming,
) -> tuple[Hookup, Plan] | str:
    """Return the hookup the motor should have, or in words why it is not known."""
    if not isinstance(wiring, str):
        return hookup_of(wiring, job), wiring.plan
    if state.plan is None or job.supply is None:
        return wiring if job.plate.phases == 1 else state.why
    plan = state.plan
    hertz = job.plate.hertz_at(job.supply.hertz)
    hookup = Hookup(
        arrangement=plan.arrangement,
        variant=plan.variant,
        joints=plan.joints,
        devices=plan.devices,
        plate=Plate(job.plate.volts_at(hertz), hertz),
        supply=Supplied(phases=job.supply.phases, volt=job.supply.volt, hertz=job.supply.hertz),
        coil_ohm=(coil_ohms(found, naming) if found else None) or 1.0,
        family=plan.family,
        rpm=job.plate.rpm,
    )
    return hookup, plan
