"""The joints as they stand: found, entered, made and cut; by tag in the log, by lead name here."""

from collections.abc import Mapping
from dataclasses import dataclass

from careful_coil.core.errors import CoilError
from careful_coil.core.job import Job
from careful_coil.core.readings import Resistance, ohm_value
from careful_coil.core.ways.way import Joint

APART_OHM = 0.3  # more than this between two leads of one joint: they are not joined


@dataclass(frozen=True, slots=True, kw_only=True)
class Present:
    """Joints by lead name, leads that are loose, and what `before` the first act is known from.

    `before` is "as found", "as entered" or "apart": the leads were read one by one, so that nothing
    was joined any more. `made` the joints made here.
    """

    joints: tuple[Joint, ...]
    made: tuple[Joint, ...]
    loose: tuple[str, ...]
    before: str


def present_of(job: Job, names: Mapping[str, str]) -> Present:
    """Return the joints as they stand, `names` the lead name of each tag."""
    start, word = _start(job)
    done = job.joined

    def named(joints: tuple[tuple[str, ...], ...]) -> tuple[Joint, ...]:
        return tuple(tuple(names.get(n, n) for n in j) for j in joints)

    standing = done.standing(start)
    used = {n for j in standing for n in j} | set(done.covered)
    if word != "apart" and not done.acts:  # leads in no joint as found were insulated
        used |= set(job.tags)
    elif word != "apart":
        cut = {n for act in done.acts for n in act.names}
        used |= set(job.tags) - cut - {n for j in start for n in j}
    return Present(
        joints=named(standing),
        made=named(done.made),
        loose=tuple(names[t] for t in job.tags if t in names and t not in used),
        before=word,
    )


def standing_before(job: Job, names: Mapping[str, str], acts: int) -> tuple[Joint, ...]:
    """Return the joints as they stood after so many acts."""
    start, _ = _start(job)
    early = job.joined.after(acts)
    return tuple(tuple(names.get(n, n) for n in j) for j in early.standing(start))


def stand_joined(job: Job) -> tuple[tuple[str, ...], ...]:
    """Return the leads that are joined to each other now, by tag, or to a device; lines left out."""
    start, _ = _start(job)
    own = (tuple(n for n in j if n in job.tags or "." in n) for j in job.joined.standing(start))
    return tuple(j for j in own if len(j) > 1)


def _start(job: Job) -> tuple[tuple[tuple[str, ...], ...], str]:
    """Return the joints before the first act, and where they are known from."""
    if job.joined.start is not None:
        return job.joined.start, "as entered"
    found = job.found.joints if job.found else ()
    if not found or read_apart(job):
        return (), "apart"
    return found, "as found"


def read_apart(job: Job) -> bool:
    """Whether some reading shows two leads of one joint as found no longer joined."""
    together = [set(j) for j in job.found.joints] if job.found else []
    for taken in job.readings:
        pair = taken.reading.pair() if isinstance(taken.reading, Resistance) else None
        if pair is None or not any(set(pair) <= j for j in together):
            continue
        try:
            ohm = ohm_value(taken.reading.value).value  # type: ignore[union-attr]
        except CoilError:
            continue
        if ohm - (job.meter.lead_ohm or 0.0) > APART_OHM:
            return True
    return False
