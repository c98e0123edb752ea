"""What hurt or rewound windings are asked for besides the plain tests: ohms again, a high-potential test."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.condition.coils import read_since
from careful_coil.core.condition.traces import compare
from careful_coil.core.condition.wall import HELD_VOLT, NEAR_HELD, Wall, held_at, made_since, stands
from careful_coil.core.errors import CoilError
from careful_coil.core.identify import Identification
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.deeds import Deed
from careful_coil.core.readings import Resistance

DC_OVER_AC = 1.7  # IEEE 95: DC volts that stand for an AC test
TWICE, MORE, LEAST = 2.0, 1000.0, 1500.0  # IEC 60034-1: 2 U + 1000 V, at least 1500 V

_of = partial(Finding, station="insulation", gate=True, waivable=False)


def again_findings(job: Job, found: Identification | None, wall: Wall) -> Iterator[Finding]:
    """Yield what is asked for again of a winding that was hurt, mended at a lead, or rewound."""
    harm = job.deeds.voiding("coil-ohms")
    if harm is not None and harm.kind == "harm" and not read_since(job, found, harm.place):
        yield _ohms(harm, "Every coil, or all pairs of lines: a hurt winding shows there first.")
    elif harm is not None and harm.kind == "harm":
        yield _of(
            code="coil-ohms",
            verdict="good",
            subject="Ohms of every coil read again",
            why=f"Since {harm.words}.",
        )
    for deed in job.deeds.counted(("lead",)):
        if deed.part and not _lead_read(job, deed):
            yield _ohms(deed, "The winding of that lead, through the new joint.")
    if any(job.deeds.counted(("rewound",))):
        yield _high_potential(job, wall)


def _ohms(deed: Deed, why: str) -> Finding:
    return _of(
        code="coil-ohms",
        verdict="unproven",
        subject="Again: ohms of every coil" if not deed.part else "Again: ohms of a mended lead",
        why=f"{deed.words[0].upper()}{deed.words[1:]}. {why}",
        part=deed.part,
    )


def _lead_read(job: Job, deed: Deed) -> bool:
    """Whether current passed through a mended lead since, alone or in its joints."""
    tag = deed.part.partition(":")[2]
    read = [t for t in job.readings if isinstance(t.reading, Resistance) and t.place > deed.place]
    if any(tag in (e if isinstance(e, tuple) else (e,)) for t in read for e in t.reading.between):  # type: ignore[union-attr]
        return True
    own = [o for o in job.tested.ohms if o.place > deed.place]
    if any(tag in (e if isinstance(e, tuple) else (e,)) for o in own for e in o.body.between):
        return True
    lines = [f"line-ohm:{pair}" for pair in job.line_ohms or {}]
    return bool(lines) and all(job.deeds.stamps.get(n, -1) > deed.place for n in lines)


def _high_potential(job: Job, wall: Wall) -> Finding:
    """Return the line of the test a rewound winding has once, by any of its routes."""
    of = partial(_of, code="high-potential", source="IEC 60034-1; IEEE 95 for DC")
    volt = max(TWICE * (wall.volt or 0.0) + MORE, LEAST)
    since = job.deeds.last("high-potential")
    highest = max(
        (v for s in job.tested.steps if s.place > since for v, _ in s.body.steps), default=0.0
    )
    tests = [t.body for t in made_since(job, "apart") if stands(t.body, wall) == "good"]
    held = held_at(tests, wall.groups)
    if max(highest, held) >= NEAR_HELD * DC_OVER_AC * volt:
        return of(
            verdict="good",
            subject="High-potential test passed",
            why=f"{max(highest, held):g} V DC; {DC_OVER_AC:g} × {volt:g} V is wanted, once.",
        )
    if held >= NEAR_HELD * HELD_VOLT:
        surge = " Surge traces alike." if _surged(job, since) else ""
        return of(
            verdict="good",
            subject="High-potential test not made",
            why=f"{held:g} V DC held a minute, and balanced idle amps, stand in its place.{surge}",
        )
    return of(
        verdict="unproven",
        subject="High-potential test not made",
        why=f"Once after a rewind: {volt:g} V AC, or {DC_OVER_AC * volt:.0f} V DC; where the shop has neither, "
        f"{HELD_VOLT:g} V DC to the frame for a minute.",
    )


def _surged(job: Job, since: int) -> bool:
    for surge in job.tested.surges:
        if surge.place > since:
            try:
                return compare(surge.body.traces).odd == ""
            except CoilError:
                continue
    return False
