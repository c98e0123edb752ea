"""Earth bond: stud or lead to bare metal of the frame and each end bell, again after the covers."""

from functools import partial

from careful_coil.core.identify.naming import no_earth
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.at_insulation import BOND_PLACES, BondPlace, EarthBond
from careful_coil.core.job.tested import Logged
from careful_coil.core.settings import Limit, Settings
from careful_coil.core.values import show_ohm

NO_EARTH = ": no earth"  # how the line of a motor ends that nothing of is earthed


def newest_bonds(job: Job) -> dict[str, Logged[EarthBond]]:
    """Return the newest reading of each place."""
    return {b.body.place: b for b in job.tested.bonds}


def places_left(job: Job) -> tuple[BondPlace, ...]:
    """Return the places still to read: after the covers are on, all of them again."""
    if no_earth(job):
        return ()
    newest, since = newest_bonds(job), job.deeds.last("bond")
    places = BOND_PLACES[:1] if job.seen.sealed else BOND_PLACES  # a welded shell is one piece
    return tuple(p for p in places if p not in newest or newest[p].place < since)


def limit_of(body: EarthBond, settings: Settings) -> Limit:
    """Return the limit a reading is held against."""
    return settings.earth_bond_cord if body.cord else settings.earth_bond


def too_coarse(body: EarthBond, settings: Settings) -> str:
    """Return why a reading proves nothing, or nothing: leads not nulled, steps too wide."""
    limit = limit_of(body, settings).value
    if body.step_ohm is not None and body.step_ohm > limit / 2:
        return f"One step of this meter is {show_ohm(body.step_ohm)}. A milliohm meter would tell."
    if body.ohm > limit and body.wires == 2 and not body.nulled:
        return "The test leads may be in it. Null them, or use four wires, and read again."
    return ""


def bond_finding(job: Job, settings: Settings) -> Finding:
    """Return the gate line of the earth bond; never waived, never judged by colour."""
    newest = newest_bonds(job)
    left = places_left(job)
    # a place not to be read again counts before one that is; of each the worst
    worst = max(
        newest.values(),
        key=lambda b: (
            b.body.place not in left and b.body.ohm > limit_of(b.body, settings).value,
            b.body.ohm / limit_of(b.body, settings).value,
        ),
        default=None,
    )
    limit = limit_of(worst.body, settings) if worst else settings.earth_bond
    of = partial(
        Finding,
        code="earth-bond",
        station="release",
        figure=worst.body.ohm if worst else None,
        limit=limit.value,
        unit="Ω",
        source=limit.source,
        gate=True,
        waivable=False,
    )
    if no_earth(job):
        return of(
            verdict="good",
            subject=f"Class {job.plate.protection}{NO_EARTH}",
            limit=None,
            source="IEC 61140",
            why="Its mark was seen. Nothing of it is earthed; the insulation is tested to every metal one touches.",
        )
    if worst is None:
        return of(
            verdict="unproven",
            subject="Earth bond not measured",
            why="Stud or green lead to bare metal of frame and end bells. The colour proves nothing.",
        )
    told = f"{worst.body.place.capitalize()} {show_ohm(worst.body.ohm)}; at most {limit.value:g} Ω."
    coarse = next((c for b in newest.values() if (c := too_coarse(b.body, settings))), "")
    if coarse:
        return of(verdict="unproven", subject="Earth bond not proven", why=f"{told} {coarse}")
    if worst.body.ohm > limit.value and worst.body.place not in left:
        return of(
            verdict="hold",
            subject="Earth bond failed",
            why=f"{told} Clean to bare metal, tighten, read again.",
        )
    if job.tested.covers < 0 and not left and not job.seen.sealed:
        return of(
            verdict="unproven",
            subject="Earth bond not measured after the covers",
            why=f"{told} Good so far; once the covers are on it is read again.",
        )
    if left:
        again = " after the covers" if any(p in newest for p in left) else ""
        return of(
            verdict="unproven",
            subject=f"Earth bond not measured{again or ' everywhere'}",
            why=f"{told} Still to read{again}: {', '.join(left)}.",
        )
    return of(verdict="good", subject="Earth bond good", why=told)
