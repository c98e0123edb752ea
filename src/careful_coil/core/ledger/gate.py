"""What stands before the motor can go: from the bench, from a site, or out of the door as it came."""

from collections.abc import Sequence

from careful_coil.core.job import Finding, Job
from careful_coil.core.job.entries import AnyBody, Struck, Waived
from careful_coil.core.ledger.site_rules import on_list, visit
from careful_coil.core.settings import Settings

WAYS_OUT = {"unrepaired": "returned unrepaired", "scrap": "scrap"}


def way_out(job: Job) -> str:
    """Return how a motor leaves that is not released, in words; empty where it stays or is released."""
    return WAYS_OUT.get(job.let_go.how, "") if job.let_go is not None else ""


def frozen(job: Job, released: bool, bodies: Sequence[AnyBody]) -> str:
    """Return why a released job takes none of these entries, empty where it does.

    It takes nothing but a strike of its own signature: a later complaint is a job of its own.
    """
    if not released or job.released is None:
        return ""
    if all(isinstance(b, Struck) and b.target == job.released.id for b in bodies):
        return ""
    return "Released and frozen. A later complaint: the follow-up job at Release, or strike the signature first."


def counts(waiver: Waived | None, finding: Finding, settings: Settings) -> bool:
    """Whether a waiver lifts a line: never one that can hurt; by the foreman where the shop names one."""
    if waiver is None or not finding.waivable:
        return False
    foreman = settings.foreman.strip().upper()
    return not foreman or waiver.second.strip().upper() == foreman


def before_it_can_go(job: Job, findings: Sequence[Finding], settings: Settings) -> list[Finding]:
    """Return what keeps the gate shut: found bad first, then what is still to do.

    A waiver by name and with a reason lifts a line, but never one that cannot be waived. On site only
    the site's own list and what was found bad stand there, unless the bench has worked on it: then its
    gate stays and the list comes on top. A motor that leaves unrepaired has no gate.
    """
    if way_out(job):
        return []
    waived = job.waived or {}
    own_list = visit(job)
    shut = [
        f
        for f in findings
        if f.verdict in ("hold", "unproven")
        and (f.gate or f.verdict == "hold")
        and not counts(waived.get(f.code), f, settings)
        and (not own_list or f.verdict == "hold" or on_list(f, findings))
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


def gate_list(
    job: Job, findings: Sequence[Finding], settings: Settings
) -> list[tuple[str, Finding, str]]:
    """Return every line of the gate: proven, waived, to do or bad, with who set it aside and why."""
    waived = job.waived or {}
    found = []
    for f in findings:
        if not f.gate and f.verdict != "hold":
            continue
        waiver = waived.get(f.code)
        if f.verdict in ("hold", "unproven") and waiver is not None and counts(waiver, f, settings):
            found.append(("waived", f, f"{waiver.second}: {waiver.reason}"))
        else:
            found.append((f.verdict, f, ""))
    return found
