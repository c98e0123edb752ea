"""What must be seen or signed at Release, and what stands before the motor can go."""

from collections.abc import Sequence

from careful_coil.core.job import Finding, Job


def before_it_can_go(job: Job, findings: Sequence[Finding]) -> list[Finding]:
    """Return what keeps the gate shut: found bad first, then what is still to do.

    A waiver by name and with a reason lifts a line, but never one that cannot be waived.
    """
    waived = job.waived or {}
    shut = [
        f
        for f in findings
        if f.verdict in ("hold", "unproven")
        and (f.gate or f.verdict == "hold")
        and not (f.code in waived and f.waivable)
    ]
    if shut and job.released is not None:
        shut.append(
            Finding(
                code="open-again",
                verdict="hold",
                subject="Signed, and open again",
                why="Something was found or struck after the signature: it must not go, or must come back.",
                station="release",
                gate=True,
                waivable=False,
            )
        )
    return sorted(shut, key=lambda f: f.verdict != "hold")
