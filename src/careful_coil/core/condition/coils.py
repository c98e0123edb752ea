"""The coils' ohms for balance and record: the newest good readings, at one temperature."""

from dataclasses import dataclass

from careful_coil.core.condition.phases import Path, coils_from
from careful_coil.core.condition.temperature import resistance_at
from careful_coil.core.condition.wall import Wall
from careful_coil.core.errors import CoilError
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job
from careful_coil.core.job.at_insulation import WindingOhm
from careful_coil.core.readings import LEAD_OHM_HIGHEST, End, Resistance
from careful_coil.core.settings import Settings
from careful_coil.core.winding.network import Network

CONTACT_OHM = 0.01  # what two clips may add from one time to the next
TWO_WIRE_FROM = 1.0  # Ω; below it a two-wire meter is not enough


def by_iec(settings: Settings) -> bool:
    """Whether this shop reckons copper with IEC's constant, 235 in place of 234.5."""
    return settings.school("copper-constant") == "235"


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """Coil ohms by name in Ω at `at_c` °C (None: as read, at one temperature nobody wrote down).

    `doubt_ohm` what the meter leaves open; `wires` 2 or 4; `how` in words; `untold` coils the readings
    cannot tell apart; `missing` coils without a figure; `through_lines` whether coils were worked out
    from readings on joined leads; `from_leads` they were read to find the leads.
    """

    ohm: dict[str, float]
    at_c: float | None
    doubt_ohm: float
    wires: int
    how: str
    untold: tuple[str, ...] = ()
    missing: tuple[str, ...] = ()
    through_lines: bool = False
    off_percent: float = 0.0
    from_leads: bool = False
    contradicted: bool = False  # no winding fits all of them, or which one it is is still a guess


def reference_c(settings: Settings) -> float:
    """Return the temperature this shop brings ohms to."""
    return float(settings.school("reference").split()[0])


def measured(
    job: Job, found: Identification | None, naming: Naming, wall: Wall, settings: Settings
) -> Measured | None:
    """Return the coils' ohms: readings made for the balance before those made to find the leads.

    What was read before a rewind, or through joints that have changed since, does not count.
    None while the winding is not known.
    """
    if found is None or naming.network is None:
        return None
    since, joined = job.deeds.last("coil-ohms"), job.deeds.last("line-ohms")
    own = [
        x.body
        for x in job.tested.ohms
        if x.place > max(since, _mended(job, x.body))
        and (x.body.connected != "made" or x.place > joined)
    ]
    if own:
        solved = _own(job, naming, naming.network, own, wall, settings)
        if solved is not None:
            return solved
    unread = [k for k in found.best.coil_ohm if k in found.best.unread]
    old = not read_since(job, found, since)
    missing = [c.name for c in naming.network.coils if old or c.name not in found.best.coil_ohm]
    return Measured(
        ohm=dict(found.best.coil_ohm),
        at_c=None,
        doubt_ohm=(job.meter.resolution_ohm or 0.0),
        wires=2,
        how="as read at Leads",
        from_leads=True,
        contradicted=found.status == "contradictory" or not naming.known,
        missing=(*unread, *missing),
    )


def _mended(job: Job, body: WindingOhm) -> int:
    """Return the place after which these leads' ohms are read again."""
    ends = [(e,) if isinstance(e, str) else e for e in body.between]
    return max(job.deeds.last("coil-ohms", f"lead:{t}") for end in ends for t in end)


def read_since(job: Job, found: Identification | None, since: int) -> bool:
    """Whether current passed through each separate winding, or each pair of lines, after a place."""
    if since < 0:
        return True
    lines = [f"line-ohm:{pair}" for pair in job.line_ohms or {}]
    pairs = 1 if job.plate.phases == 1 else 3
    if len(lines) >= pairs and all(job.deeds.stamps[n] > since for n in lines):
        return True
    if found is None:
        return False
    passed = [
        set(t.reading.pair() or ())
        for t in job.readings
        if isinstance(t.reading, Resistance) and t.place > since
    ]
    passed += [
        {t for e in o.body.between for t in ((e,) if isinstance(e, str) else e)}
        for o in job.tested.ohms
        if o.place > since
    ]
    groups = [
        set(g) for g in found.best.groups if len(g) > 1 and not set(g) & set(found.best.extras)
    ]
    return all(any(len(p & g) > 1 for p in passed) for g in groups)


def _own(
    job: Job,
    naming: Naming,
    network: Network,
    bodies: list[WindingOhm],
    wall: Wall,
    settings: Settings,
) -> Measured | None:
    """Return coils worked out from readings made for it; None where they do not reach all coils."""
    newest: dict[frozenset[frozenset[str]], WindingOhm] = {}
    how = bodies[-1].connected  # readings of one state are worked out together
    for body in bodies:
        if body.connected == how:
            newest[frozenset(frozenset(_names(e, naming)) for e in body.between)] = body
    kept = list(newest.values())
    warm = all(b.at_c is not None for b in kept)
    reference = reference_c(settings)
    read: list[Path] = []
    for body in kept:
        ohm = body.value - (0.0 if body.wires == 4 else body.lead_ohm or 0.0)
        if ohm <= 0:
            continue
        try:
            at = ohm
            if warm:
                at = resistance_at(ohm, body.at_c or 0.0, reference, wall.metal, by_iec(settings))
        except CoilError:
            continue
        ends = [_names(e, naming) for e in body.between]
        clipped = tuple(e for e in ends if len(e) > 1)
        read.append(Path(a=ends[0][0], b=ends[1][0], ohm=at, clipped=clipped))
    if not read:
        return None
    try:
        solved = coils_from(network.joined(_joints(job, naming, how)), read)
    except CoilError:
        return None
    wires = min(b.wires for b in kept)
    steps = [b.step_ohm or 0.0 for b in kept]
    unknown = any(b.wires == 2 and b.lead_ohm is None for b in kept)
    return Measured(
        ohm=solved.ohm,
        at_c=reference if warm else None,
        doubt_ohm=max(steps) + (LEAD_OHM_HIGHEST if unknown and how != "apart" else 0.0),
        wires=wires,
        how=f"{'four' if wires == 4 else 'two'}-wire"
        + {
            "apart": "",
            "made": ", through the lines as joined",
            "found": ", through the lines as found",
        }[how],
        untold=solved.untold,
        through_lines=how != "apart",
        off_percent=solved.off_percent,
    )


def _names(end: End, naming: Naming) -> tuple[str, ...]:
    tags = (end,) if isinstance(end, str) else end
    return tuple(naming.names.get(t, t) for t in tags)


def _joints(job: Job, naming: Naming, how: str) -> list[tuple[str, ...]]:
    if how == "apart":
        return []
    joints = job.joints if how == "made" else (job.found.joints if job.found else ())
    return [tuple(naming.names.get(n, n) for n in j) for j in joints]
