"""Ratings that nobody can read any more, taken from the leads and from the supply it is said to run on."""

from dataclasses import replace
from typing import Any

from careful_coil.core.identify.naming import Naming
from careful_coil.core.job import Job
from careful_coil.core.job.plate import unreadable


def with_assumed(job: Job, naming: Naming) -> Job:
    """Return a job whose plate has, where it is said to be unreadable, the phases its leads show and the
    volts and hertz of the supply named; `assumed` says which these are."""
    plate, supply, found = job.plate, job.supply, dict[str, Any]()
    lost = {f for f in ("phases", "volt", "hertz") if unreadable(plate.printed(f))}
    if "phases" in lost and plate.phases is None:
        if naming.arrangement is not None:
            found["phases"] = naming.arrangement.phases
        elif supply is not None:
            found["phases"] = supply.phases
    if supply is not None and "volt" in lost and not plate.volts:
        found["volts"] = ((supply.volt, supply.volt),)
    if supply is not None and "hertz" in lost and plate.hertz is None:
        found["hertz"] = supply.hertz
    if not found:
        return job
    return replace(job, plate=replace(plate, **found, assumed=tuple(found)))
