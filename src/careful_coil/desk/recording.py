"""What is recorded of a job: admitted, signed, on its way to disk, judged anew. Loads what entries are made of."""

import uuid
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING

from careful_coil.core.job import AnyBody, Entry
from careful_coil.core.job.entries import Struck
from careful_coil.core.job.meter_words import meter_before
from careful_coil.core.ledger import admission
from careful_coil.core.ledger.at_stations import why_not
from careful_coil.core.stations import Station
from careful_coil.desk.asking import Failed
from careful_coil.desk.at_field import giver
from careful_coil.desk.open_job import OpenJob

if TYPE_CHECKING:
    from careful_coil.desk.session import Session
    from careful_coil.records.store import Appended

NO_JOB = "Open a job first: Ctrl+N new, Ctrl+K find."


def record(
    session: "Session",
    bodies: Sequence[AnyBody],
    station: Station,
    failed: Failed | None,
    into: OpenJob | None,
) -> None:
    """Append entries to the open job, or `into` another; `failed` gets the reason why none was recorded."""
    s = session
    job = into or s.open
    if job is not None and s.open is not None and s.open.id == job.id:
        job = s.open  # it was opened again since
    words = NO_JOB
    if job is not None:
        asking = admission.Asking(job.judged, s.at_bench, s.settings)
        words = why_not(asking, bodies) or s.signing.why_not(bodies)
    if job is None or words:
        s.told.emit(words, "watch")
        if job is not None and job is s.open:  # the fields show what is on record again
            job.not_here.discard("dead-again")
            s.judge_anew()
        return failed(words) if failed is not None else None
    meter = meter_before(job.judged.job, s.settings.lists.all_meters(), bodies)
    entries = [entry_of(s, b, station) for b in (*meter, *s.signing.as_signed(bodies))]
    s.entered.emit()
    _append(s, job, entries, failed or giver())


def waits_for_initials(
    session: "Session",
    bodies: Sequence[AnyBody],
    station: Station,
    failed: Failed | None,
    into: OpenJob | None,
) -> bool:
    """Hold an entry back and ask who is at the bench, once; leads alone are anybody's."""
    s = session
    job = into or s.open
    if s.who or not s.asks_who or job is None or job.judged.job.loose:
        return False
    back = failed or giver()
    s.held.append(lambda: record(s, bodies, station, back, into or job))
    s.who_wanted.emit()
    return True


def _append(session: "Session", job: OpenJob, entries: list[Entry], back: Failed | None) -> None:
    """Send entries to disk; the open job is judged anew once they are there."""
    s, record = session, job.record
    record.flying |= {e.id for e in entries}
    s.flying += 1

    def done(appended: "Appended") -> None:
        s.flying -= 1
        missed = record.take([*appended.missed, *entries], appended.seq) - len(entries)
        if missed:
            s.beside.say(appended.missed)
        now = s.open
        if now is not None and now.id == job.id:
            if now.record is not record:  # it was opened again meanwhile
                now.record.flying |= {e.id for e in entries}
                now.record.take([*appended.missed, *entries], appended.seq)
            s.picked = None
            s.judge_anew()
        s.landed.emit(True)

    def refused(words: str) -> None:
        s.flying -= 1
        record.flying -= {e.id for e in entries}
        if back is not None:
            back(words)
        s.landed.emit(False)

    s.ask(lambda store: store.append(job.id, entries, record.seq, record.flying), done, refused)


def strike(session: "Session", wanted: Callable[[Entry], bool], nothing: str) -> None:
    """Strike the newest of one's own entries that counts and is wanted; say `nothing` where there is none."""
    job = session.open
    gone = job.judged.job.struck if job else frozenset[str]()
    for entry in reversed(job.entries if job else []):
        own = job is not None and entry.id not in job.record.others  # nobody undoes another's hand
        if own and wanted(entry) and entry.id not in gone:
            session.told.emit(f"Struck: {entry.body.kind}. Ctrl+Shift+Z takes it back.", "note")
            session.record(Struck(target=entry.id, reason="undone"), station=entry.station)
            return
    session.told.emit(nothing, "note")


def entry_of(session: "Session", body: AnyBody, station: Station) -> Entry:
    """Return an entry of now, by who is at the bench."""
    now = session.now()
    return Entry(id=str(uuid.uuid4()), at=now, by=session.who, station=station, body=body)
