"""What Intake must have on record."""

from careful_coil.core.job.finding import Finding
from careful_coil.core.job.fold import Job
from careful_coil.core.job.plate import readable, unreadable

WANTED = {"phases": "phases", "volts": "volts", "hertz": "hertz", "amps": "amps"}
MUST = ("phases", "volts", "hertz")


def intake_findings(job: Job) -> list[Finding]:
    """Return findings on ticket, plate and earlier remarks."""
    missing = [word for name, word in WANTED.items() if not getattr(job.plate, name)]
    must = [WANTED[m] for m in MUST if not getattr(job.plate, m)]
    found = [
        Finding(
            code="plate-known",
            verdict="unproven" if must else "good",
            subject="Nameplate not complete" if must else "Nameplate read",
            why=(
                f"Not from the plate: {', '.join(job.plate.assumed)}, by its leads and the supply it ran on."
                if job.plate.assumed
                else f"Missing: {', '.join(missing)}."
                if missing
                else "Phases, volts, hertz and amps are known."
            ),
            station="intake",
            gate=True,
        )
    ]
    for field, text in job.plate.as_printed:
        if unreadable(text):
            found.append(
                Finding(
                    code=f"plate-{field}",
                    verdict="note",
                    subject=f"Plate, {field}: unreadable",
                    why="Noted as it is; what its limits need is asked for another way.",
                    station="intake",
                )
            )
        elif text.strip() and not readable(field, text):
            found.append(
                Finding(
                    code=f"plate-{field}",
                    verdict="watch",
                    subject=f"Plate, {field}: “{text}” cannot be read",
                    why="Type it as printed, for example 230/460 V, 5.8/2.9 A, 60 Hz.",
                    station="intake",
                )
            )
    found += [
        Finding(code="sum", verdict="note", subject=f"Sum: {name}", why=words, station="intake")
        for name, words in job.sums
    ]
    found += [
        Finding(
            code="left-out",
            verdict="watch",
            subject="A reading is left out",
            why=r,
            station="leads",
        )
        for r in job.remarks
    ]
    found += [
        Finding(
            code="exchanged", verdict="note", subject="Two tags exchanged", why=w, station="leads"
        )
        for w in job.exchanged
    ]
    return found
