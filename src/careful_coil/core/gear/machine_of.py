"""The motor of a job as a machine: what its curves need, or what is missing for them."""

from careful_coil.core.errors import CoilError
from careful_coil.core.gear.unknown import locked_of
from careful_coil.core.gear.wiring import wiring_of
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.kind import Weighed
from careful_coil.core.machine.facts import Facts, check_facts
from careful_coil.core.rewind.rules import record_of, start_over_main
from careful_coil.core.ways.way import Plan


def known_motor(
    job: Job, kinds: Weighed, found: Identification | None, naming: Naming
) -> tuple[Plan, Facts] | str:
    """Return the plan and what is known of a job's motor, or in words what is missing."""
    wiring = wiring_of(job, kinds, found, naming)
    if isinstance(wiring, str):
        return wiring
    plate = job.plate
    missing = [
        name
        for name, there in (
            ("volts", plate.volts),
            ("hertz", plate.hertz),
            ("rated speed", plate.rpm),
            ("amps or power", plate.amps or plate.output_w),
        )
        if not there
    ]
    if missing:
        return f"The plate's {', '.join(missing)} must be known first."
    low, high = plate.volts[0]
    locked = locked_of(job.gear)
    facts = Facts(
        kind=wiring.kind,
        volt=(low + high) / 2,
        hertz=plate.hertz or 0.0,
        rpm=plate.rpm or 0.0,
        amp=plate.amps[0] if plate.amps else None,
        watt=plate.output_w,
        coil_ohm=wiring.ohms,
        locked_main=locked.get("main"),
        locked_aux=locked.get("start"),
        turns=start_over_main(record_of(job)),
    )
    try:
        check_facts(facts)
    except CoilError as error:
        return str(error)
    return wiring.plan, facts
