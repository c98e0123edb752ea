"""The summary of a job out of its log: folded and judged. Loads every rule; the summary itself needs none."""

from dataclasses import replace

from careful_coil.core.job import fold
from careful_coil.core.ledger import Judgement, judge
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.settings import Settings
from careful_coil.records.rows import Log
from careful_coil.records.summary import DAMAGED, Summary, by_digest


def summary_of(id: str, number: int, judged: Judgement, seq: int, settings: Settings) -> Summary:
    """Return the summary of a judged job whose log ends at a row."""
    job = judged.job
    verdicts = {f.verdict for f in judged.findings}
    gone = judged.released or bool(way_out(job))
    if gone:
        mark = ""
    elif "hold" in verdicts:
        mark = "hold"
    elif not judged.gate:
        mark = "good"
    else:
        mark = "watch" if "watch" in verdicts else ""
    words = [str(number), job.name, *job.ticket.values(), *(t for _, t in job.plate.as_printed)]
    return Summary(
        id=id,
        number=number,
        name=job.name,
        state=judged.state,
        pips=judged.pips,
        mark=mark,
        search=" ".join(words).lower(),
        gone=gone,
        seq=seq,
        by=by_digest(settings),
    )


def summarise(id: str, number: int, log: Log, settings: Settings) -> Summary:
    """Fold and judge a log for its summary."""
    found = summary_of(id, number, judge(fold(log.entries), settings), log.seq, settings)
    if not log.damaged:
        return found
    return replace(found, mark="hold", state=f"{DAMAGED}: {log.damaged[0]}")


def damaged_summary(id: str, number: int, log: Log, why: str) -> Summary:
    """Return what the rack shows of a job that cannot be judged; it is not kept."""
    state = f"{DAMAGED}: {log.damaged[0] if log.damaged else why.splitlines()[0][:120]}"
    return Summary(
        id=id,
        number=number,
        name=f"Job {number}",
        state=state,
        pips=(),
        mark="hold",
        search=str(number),
        gone=False,
    )
