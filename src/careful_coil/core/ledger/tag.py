"""What stands on the motor's tag: its volts and direction once released, else DO NOT CONNECT and why."""

from careful_coil.core.connect.rotation import reversible, turns_words
from careful_coil.core.job.digest import in_short, log_digest
from careful_coil.core.job.entries import Released
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.ledger.judgement import Judgement


def tag_words(number: int, judged: Judgement, day: str) -> tuple[str, list[str]]:
    """Return what stands large on the tag, and the lines below it."""
    job, supply = judged.job, judged.job.supply
    first = f"Job {number}: {job.name}"
    if way_out(job):
        reason = job.let_go.reason if job.let_go else ""
        return "DO NOT CONNECT", [first, f"{way_out(job).capitalize()}: {reason}", day]
    if not judged.released:
        left = f"{len(judged.gate)} lines of the gate are open" if judged.gate else "not signed yet"
        return "DO NOT CONNECT", [first, f"In work: {left}.", day]
    volts = f"{supply.volt:g} V {supply.hertz:g} Hz" if supply else "see the sheet"
    plan = judged.facts.connecting.plan
    body = job.released.body if job.released is not None else None
    signed = body.signed if isinstance(body, Released) else ""
    lines = [first, judged.facts.connection.capitalize() if plan else "Hookup: see the sheet"]
    if set(job.plate.assumed) & {"volts", "hertz"}:
        lines.append("Ratings not from the plate: by the supply it ran on.")
    lines.append(f"Turns {turns_words(job, judged.facts.connecting.view)}.")
    back = reversible(judged.facts.connecting)
    if back:
        lines.append(f"{back}.")
    amps = next((line for line in judged.facts.commission if line.name == "overload"), None)
    lines.append(f"{amps.words}." if amps else "At the machine: amps against the plate.")
    lines.append(f"Released {day}, {signed}. Log {in_short(log_digest(job))}.")
    return volts, lines
