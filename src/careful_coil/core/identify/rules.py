"""What Leads must have settled."""

from collections.abc import Iterator, Mapping

from careful_coil.core.identify.extras import EARTH_OHM
from careful_coil.core.identify.models import PROTECTOR_OPEN, role_word
from careful_coil.core.identify.naming import Naming, uses_of
from careful_coil.core.identify.result import Identification
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.readings import Frame, ohm_value
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import START_DEVICES
from careful_coil.core.winding.markings import in_marking

AT_REST = "at rest"  # the posture in which a start contact must be closed
BROKEN_FROM = 0.6  # odds from which a broken coil is a hold


def lead_findings(
    job: Job, found: Identification | None, naming: Naming, open_ohm: float
) -> list[Finding]:
    """Return findings on the leads, worst first within the station."""
    if found is None:
        return [
            Finding(
                code="leads-proven",
                verdict="unproven",
                subject="Leads not tagged",
                why="Count the leads and tag each one before anything is cut.",
                station="leads",
                gate=True,
            )
        ]
    findings, clear = [_proven(job, found, naming)], []
    for s in found.suspects:
        taken = job.readings[s.reading].reading
        pair = " to ".join(getattr(taken, "between", ("?", "?")))
        findings.append(
            Finding(
                code="suspect",
                verdict="watch",
                subject=f"{pair} does not fit",
                why=s.why,
                station="leads",
                figure=_figure(taken),
                unit="Ω",
            )
        )
    if PROTECTOR_OPEN in found.best.notes and found.best.probability >= BROKEN_FROM:
        findings.append(_lead_open(job, found))
    if found.best.broken and found.best.probability >= BROKEN_FROM:
        findings.append(_broken(found) if not _behind_a_switch(job, found) else _path_open(found))
    if naming.against:
        marks = {lead.tag: lead.marking for lead in job.leads}
        told = [
            f"{t} is marked {marks[t]}, the readings make it {mark}"
            for t, mark in right_marks(job, naming).items()
        ]
        findings.append(
            Finding(
                code="marks-contradicted",
                verdict="watch",
                subject=f"Marks and readings differ: {', '.join(naming.against)}",
                why=f"{'; '.join(told)}. Readings win over marks. Look at the print again: type it again, or - "
                "takes it off.",
                station="leads",
            )
        )
    later = job.deeds.last("insulation")  # a tester since then says more than an ohmmeter
    tested = max((t.place for t in job.tested.tests if not t.body.against), default=-1)
    for taken in {
        t.reading.lead: t.reading
        for t in job.readings
        if isinstance(t.reading, Frame) and t.place > max(later, tested)
    }.values():
        ohm = ohm_value(taken.value).value
        if uses_of(job).get(taken.lead) == "earth" and ohm < EARTH_OHM and not taken.lug:
            continue  # that is what it is for
        if ohm < min(job.meter.open_above_ohm, open_ohm):
            findings.append(_frame(taken.lead, ohm))
        else:
            clear.append(taken.lead)
    if clear:
        findings.append(
            Finding(
                code="frame-open",
                verdict="note",
                subject=f"Open to the frame by ohmmeter: {', '.join(sorted(clear))}",
                why="A first look only. The insulation test decides.",
                station="leads",
            )
        )
    return findings


def right_marks(job: Job, naming: Naming) -> dict[str, str]:
    """Return for each lead whose print the readings contradict the mark it must bear, in the marking it has."""
    slug = naming.arrangement.slug if naming.arrangement else ""
    marks = {lead.tag: lead.marking for lead in job.leads}
    return {t: in_marking(slug, naming.names[t], marks[t]) for t in naming.against}


def _figure(reading: object) -> float | None:
    value = getattr(reading, "value", None)
    return float(value) if isinstance(value, int | float) else None


def _proven(job: Job, found: Identification, naming: Naming) -> Finding:
    named = sum(c in ("proven", "convention") for c in found.best.certainty.values())
    total = len(job.leads)
    verdict: Verdict
    if naming.word == "proven":
        verdict, subject, why = "good", "Leads proven", "Every lead is proven or free to choose."
    elif naming.word == "marked":
        verdict, subject = "unproven", "Leads as marked, not proven"
        why = "The ohms agree with the marks. Ohms cannot see exchanged halves: kick tests or the run decide."
    elif naming.word == "kicked":
        verdict, subject = "unproven", "Leads kicked, not closed"
        why = (
            "One kick taken the wrong way round would not show yet: a closing kick, or three equal amps in the "
            "reduced-voltage run."
        )
    elif naming.word == "owed":
        verdict, subject = "unproven", "Leads by their ohms, the run decides"
        why = (
            f"{_windings(found)}. It is proven when it starts from rest at rated volts, with idle amps in "
            "their band."
        )
    else:
        verdict, subject = "unproven", "Leads not proven"
        why = f"{total - named} of {total} names are still guesses."
    if found.status == "contradictory" and verdict != "good":
        subject, why = (
            "Readings contradict each other",
            "No winding fits all of them. Read the suspect again.",
        )
    return Finding(
        code="leads-proven", verdict=verdict, subject=subject, why=why, station="leads", gate=True
    )


def _windings(found: Identification) -> str:
    """Return the windings by tag with their ohms: which has more, which less."""
    tag = {n: t for t, n in found.best.names.items()}
    told = [
        f"{tag.get(a, a)} to {tag.get(b, b)} {show_ohm(ohm)}"
        for (a, b), ohm in _ends(found.best.coil_ohm, tag)
    ]
    return "More ohms is the start winding, less the run: " + ", ".join(told)


def _ends(
    ohms: Mapping[str, float], tag: Mapping[str, str]
) -> Iterator[tuple[tuple[str, str], float]]:
    """Yield the leads each coil lies between, with its ohms."""
    for coil, ohm in ohms.items():
        for a in tag:
            if coil.startswith(f"{a}-") and coil[len(a) + 1 :] in tag:
                yield (a, coil[len(a) + 1 :]), ohm


def _broken(found: Identification) -> Finding:
    tags = " and ".join(found.best.broken)
    return Finding(
        code="coil-open",
        verdict="hold",
        subject=f"A coil is open at {tags}",
        why="The readings around it fit only if that coil is broken: a wire, a joint come off, burnt through. "
        "Look at the end turns and joints before it is condemned.",
        station="leads",
        gate=True,
        waivable=False,
    )


def _behind_a_switch(job: Job, found: Identification) -> bool:
    """Whether an open path may be its start switch, which is not shown to be closed at rest."""
    if {told.get("serves", "") for told in job.gear.capacitors.values()} == {"run"}:
        return False  # its capacitor stays in: there is no switch
    words = {role_word(found.best.names.get(t, "")) for t in found.best.broken}
    slug = found.best.arrangement
    if not words & START_ROLES or slug is None or not slug.startswith("single"):
        return False
    switches = {n for n, kind in job.gear.devices.items() if kind in START_DEVICES}
    closed = any(
        r.ohm is not None and r.name in switches and r.when == AT_REST
        for r in job.gear.read.values()
    )
    return job.plate.phases != 3 and not closed and not job.seen.sealed  # pins lie on the winding


def _lead_open(job: Job, found: Identification) -> Finding:
    """Return that a whole lead reads open: its protector, or a coil; cold and in a welded shell it is for good."""
    common = next((t for t, n in found.best.names.items() if role_word(n) == "common"), "")
    sealed = job.seen.sealed
    return Finding(
        code="coil-open" if sealed else "protector-open",
        verdict="hold",
        subject=f"{common} reads open: a coil, or the protector inside",
        why="Cold it must conduct to both others. In a welded shell nothing can be mended."
        if sealed
        else "Let it cool, reset it, read again; else open it and look at the protector and the joint.",
        station="leads",
        gate=True,
        waivable=False,
    )


START_ROLES = {"start", "aux", "T5", "T6", "T7", "T8"}


def _path_open(found: Identification) -> Finding:
    tags = " and ".join(found.best.broken)
    return Finding(
        code="start-path-open",
        verdict="unproven",
        subject=f"{tags} read open: start switch or winding",
        why="The start winding is read through its switch. Judge that first, or read past it: then the "
        "winding shows.",
        station="leads",
        gate=True,
        waivable=False,
    )


def _frame(tag: str, ohm: float) -> Finding:
    return Finding(
        code="frame-fault",
        verdict="hold",
        subject=f"{tag} conducts to the frame",
        why="A winding that reaches the frame must not be energised.",
        station="leads",
        figure=ohm,
        unit="Ω",
        gate=True,
        waivable=False,
    )
