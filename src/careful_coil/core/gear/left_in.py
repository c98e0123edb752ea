"""A start capacitor that came joined with nothing in its path that takes it out of circuit."""

from collections.abc import Iterator, Sequence

from careful_coil.core.can_marking import serves_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.readings import Switch
from careful_coil.core.ways.devices import START_DEVICES


def left_in_findings(job: Job) -> Iterator[Finding]:
    """Yield each start capacitor that stood in for good as it came, until it is joined anew with its switch."""
    found = job.found.joints if job.found is not None else ()
    if not found or _opens(job):
        return
    now = job.joined.standing(found)
    for name, told in job.gear.capacitors.items():
        known = told.get("drained") or told.get("microfarad")
        if serves_of(told) != "start" or not known or not _bare(job, name, found):
            continue
        if _stands(name, now) and not _bare(job, name, now):
            continue  # joined anew, with what takes it out
        yield Finding(
            code="capacitor-left-in",
            part=f"capacitor:{name}",
            station="start-gear",
            verdict="hold",
            subject=f"Capacitor {name}: stayed in as it came",
            why="A start capacitor with no switch or relay in its path: made for seconds, it bursts, and the "
            "start winding burns. Join it through its start switch.",
            gate=True,
            waivable=False,
        )


def _opens(job: Job) -> bool:
    """Whether the start path opens when the mechanism inside is worked: then the switch lies in the motor."""
    switches = (t.reading for t in job.readings if isinstance(t.reading, Switch))
    return any(r.value == "opens" for r in switches)


def _stands(name: str, joints: Sequence[Sequence[str]]) -> bool:
    return any(n.startswith(f"{name}.") for j in joints for n in j)


def _bare(job: Job, name: str, joints: Sequence[Sequence[str]]) -> bool:
    """Whether a capacitor stands in joints with no start device at either of its ends."""
    own = [j for j in joints if any(n.startswith(f"{name}.") for n in j)]
    beside = {n.partition(".")[0] for j in own for n in j if "." in n} - {name}
    return bool(own) and not any(job.gear.devices.get(n) in START_DEVICES for n in beside)
