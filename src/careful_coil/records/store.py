"""Appending to the log and reading it back; every call is one transaction, and reads hold nobody up."""

import json
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Engine, func, insert, select, update

from careful_coil.core.errors import RecordsOvertaken, RecordsRefused, WouldChange
from careful_coil.core.job import Entry, fold
from careful_coil.core.job.digest import log_digest
from careful_coil.core.settings import Settings
from careful_coil.documents.job import JobDocument
from careful_coil.records.incoming import changes_of, follow_up_of
from careful_coil.records.rack import Rack, name_in
from careful_coil.records.rows import Log, canonical, read_log, rows_of
from careful_coil.records.summary import ELSEWHERE, Summary, unjudged
from careful_coil.records.tables import entries, jobs

_JOB_KEYS = frozenset({"format", "version", "id", "number", "entries"})
SIGNING = ("released", "let-go", "waived")  # what nobody does over entries he has not seen
FIRST_NUMBER, LAST_NUMBER = 1, 999_999
NEW_FROM = 101  # a new shop counts from here
MOST_AT_ONCE = 500  # ids in one question
DIGEST = "digest"  # of a signed log, beside it in the document


@dataclass(frozen=True, slots=True)
class Imported:
    """What an import did: the job, entries added, and the number it asked for where it got another."""

    id: str
    number: int
    added: int
    wanted: int
    follows: int = 0  # the number of the released job it follows


@dataclass(frozen=True, slots=True)
class Appended:
    """What an append did: entries of others that came in between, in order, and the last row's number."""

    missed: tuple[Entry, ...]
    seq: int


@dataclass(frozen=True, slots=True)
class News:
    """What others changed: the rack where anything was, and what came to the job that is open."""

    summaries: tuple[Summary, ...]
    log: Log


class Store:
    """A shop's log. Raises RecordsRefused where a row would break it."""

    def __init__(self, engine: Engine, settings: Settings) -> None:
        self._engine = engine
        self._reading = engine.execution_options(reading=True)
        self.rack = Rack(engine, settings)
        self._version = -1

    @property
    def settings(self) -> Settings:
        """What it is judged by."""
        return self.rack.settings

    # --- rack -----------------------------------------------------------------------------------

    def summaries(self) -> list[Summary]:
        """Return all jobs for the rack, judged first where one is not as its log is."""
        return self.rack.judged()

    def rebuild(self) -> list[Summary]:
        """Make every summary anew from the log."""
        self.rack.forget()
        return self.rack.judged()

    # --- log ------------------------------------------------------------------------------------

    def log_of(self, job: str) -> Log:
        """Return a job's log, and what of it is damaged."""
        with self._reading.begin() as c:
            return read_log(c, job)

    def entries_of(self, job: str) -> list[Entry]:
        """Return a job's log in order."""
        return self.log_of(job).entries

    def news(self, job: str, seq: int) -> News | None:
        """Return what others changed since this was asked last; None where nothing was.

        SQLite counts what other connections commit; a server would notify instead.
        """
        with self._reading.connect() as c:
            version = int(c.exec_driver_sql("PRAGMA data_version").scalar() or 0)
        known, self._version = self._version, version
        if version == known or known < 0:
            return None
        with self._reading.begin() as c:
            log = read_log(c, job, seq) if job else Log()
        return News(tuple(self.rack.changed()), log)

    def open_job(self, job: str, first: Sequence[Entry]) -> int:
        """Start a job with its first entries; return the number the shop gives it."""
        with self._engine.begin() as c:
            number = self._next_number(c)
            c.execute(insert(jobs).values(id=job, number=number, extra="{}"))
            self._write(c, job, first, 0)
        return number

    def append(
        self,
        job: str,
        fresh: Sequence[Entry],
        seen: int | None = None,
        own: Collection[str] = (),
    ) -> Appended:
        """Append entries, all or none; when this returns they are on disk.

        `seen` the last row the writer had seen, `own` ids of what he wrote since. Raises: RecordsOvertaken
        with what came in between where a signature would stand over it, or the job was released meanwhile.
        """
        with self._engine.begin() as c:
            last = self._last(c, job)
            missed: tuple[Entry, ...] = ()
            if seen is not None and last > seen:
                missed = tuple(e for e in read_log(c, job, seen).entries if e.id not in own)
            why = self._refused(c, job, fresh, missed)
            if why:
                raise RecordsOvertaken(why, job, missed, last)
            self._write(c, job, fresh, last)
            self._signed_here(c, job, fresh)
        return Appended(missed, last + len(fresh))

    def _signed_here(self, c: Connection, job: str, fresh: Sequence[Entry]) -> None:
        """Forget that a job came in signed once that signature is struck: the next one is given here."""
        struck = {e.body.target for e in fresh if e.body.kind == "struck"}
        if not struck:
            return
        extra = json.loads(c.execute(select(jobs.c.extra).where(jobs.c.id == job)).scalar_one())
        if extra.get(ELSEWHERE) in struck:
            del extra[ELSEWHERE]
            c.execute(update(jobs).where(jobs.c.id == job).values(extra=canonical(extra)))

    def _refused(
        self, c: Connection, job: str, fresh: Sequence[Entry], missed: Sequence[Entry]
    ) -> str:
        """Return why entries are not taken: a signature over what was not seen, a job that is frozen or damaged."""
        signs = any(e.body.kind in SIGNING for e in fresh)
        if signs and missed:
            who = ", ".join(dict.fromkeys(e.by or "somebody" for e in missed))
            return (
                f"Not signed: {who} recorded {len(missed)} more since you looked. It is shown now: "
                "look at it, then sign."
            )
        released = c.execute(
            select(entries.c.id)
            .where(entries.c.job_id == job, entries.c.body.like('%"kind":"released"%'))
            .limit(1)
        ).first()
        if not (signs or released):
            return ""
        log = read_log(c, job)
        if log.damaged and signs:
            return f"Not signed: its log is damaged ({log.damaged[0]}). Restore it from a backup first."
        if released is None:
            return ""
        from careful_coil.core.ledger import judge  # every rule: loaded where a job is released
        from careful_coil.core.ledger.gate import frozen

        judged = judge(fold(log.entries), self.settings)
        return frozen(judged.job, judged.released, [e.body for e in fresh])

    def take_in(self, document: JobDocument, accept: bool = False) -> Imported:
        """Import a job document by entry id: whole or not at all; twice adds nothing.

        Raises: WouldChange with what it would do to a job that is here, unless that is accepted. What comes
        to a job that is released here becomes a job that follows it.
        """
        with self._engine.begin() as c:
            row = c.execute(select(jobs.c.number).where(jobs.c.id == document.id)).first()
            fresh = self._not_here(c, document)
            if row is None:
                return self._first(c, document)
            number = int(row.number)
            if not fresh:
                return Imported(document.id, number, 0, document.number)
            from careful_coil.core.ledger import judge

            here = read_log(c, document.id).entries
            judged = judge(fold(here), self.settings)
            if not accept:
                where = (
                    "released here, so a follow-up job would get"
                    if judged.released
                    else "would get"
                )
                raise WouldChange(f"Job {number} {where} {changes_of(fresh)}.")
            if judged.released:
                job, log = follow_up_of(document.id, number, here, fresh)
                if not log:
                    raise RecordsRefused(f"Job {number} is released here: nothing of it was taken.")
                follows = self._next_number(c)
                c.execute(insert(jobs).values(id=job, number=follows, extra="{}"))
                self._write(c, job, log, 0)
                return Imported(job, follows, len(log), document.number, follows=number)
            self._write(c, document.id, fresh, self._last(c, document.id))
        return Imported(document.id, number, len(fresh), document.number)

    def _not_here(self, c: Connection, document: JobDocument) -> list[Entry]:
        """Return the entries of a document that are not here. Raises: RecordsRefused where one is another job's."""
        ids = [e.id for e in document.entries]
        known: dict[str, str] = {}
        for k in range(0, len(ids), MOST_AT_ONCE):
            wanted = select(entries.c.id, entries.c.job_id).where(
                entries.c.id.in_(ids[k : k + MOST_AT_ONCE])
            )
            known |= {r.id: r.job_id for r in c.execute(wanted)}
        stray = next((i for i, j in known.items() if j != document.id), None)
        if stray is not None:
            raise RecordsRefused(
                f"Entry {stray} of the document is part of another job here. Nothing was imported."
            )
        return [e for e in document.entries if e.id not in known]

    def _first(self, c: Connection, document: JobDocument) -> Imported:
        """Take in a job that is not here: under its number where that is free, signed elsewhere where it is signed."""
        altered = document.altered(fold(document.entries)) if document.tells_digest else ""
        if altered:
            raise RecordsRefused(
                f"Its log is not the one that was signed: {altered} Nothing was imported."
            )
        taken = c.execute(select(jobs.c.id).where(jobs.c.number == document.number)).first()
        own = not taken and FIRST_NUMBER <= document.number <= LAST_NUMBER
        number = document.number if own else self._next_number(c)
        extra = document.model_dump(mode="json", exclude=set(_JOB_KEYS))
        signed = [e.id for e in document.entries if e.body.kind == "released"]
        if signed:
            extra[ELSEWHERE] = signed[-1]
        c.execute(insert(jobs).values(id=document.id, number=number, extra=canonical(extra)))
        rows = self._write(c, document.id, document.entries, 0)
        name = name_in(row["body"] for row in rows)
        self.rack.keep(c, unjudged(document.id, number, name, len(rows)))
        return Imported(document.id, number, len(document.entries), document.number)

    def give_out(self, job: str) -> JobDocument:
        """Return a job as a document, unknown keys and all. Raises: RecordsRefused."""
        with self._reading.begin() as c:
            row = c.execute(select(jobs.c.number, jobs.c.extra).where(jobs.c.id == job)).first()
            if row is None:
                raise RecordsRefused(f"There is no job {job} in this shop.")
            log = read_log(c, job)
        if log.damaged:
            raise RecordsRefused(
                f"Job {row.number} is damaged and was not written: {log.damaged[0]}. Other jobs are whole."
            )
        extra = json.loads(row.extra)
        extra.pop(ELSEWHERE, None)
        extra.pop(DIGEST, None)
        digest = log_digest(fold(log.entries))
        extra |= {DIGEST: digest} if digest else {}
        extra["attachments"] = _attachments(log.entries, extra.get("attachments", []))
        return JobDocument(id=job, number=row.number, entries=tuple(log.entries), **extra)

    def _last(self, c: Connection, job: str) -> int:
        found = c.execute(select(func.max(entries.c.seq)).where(entries.c.job_id == job)).scalar()
        return int(found or 0)

    def _write(
        self, c: Connection, job: str, fresh: Sequence[Entry], last: int
    ) -> list[dict[str, Any]]:
        rows = list(rows_of(job, fresh, last))
        if rows:
            c.execute(insert(entries), rows)
        return rows

    def _next_number(self, c: Connection) -> int:
        """Return the next number of this shop's own range, whatever came in from elsewhere."""
        highest = c.execute(
            select(func.max(jobs.c.number)).where(jobs.c.number <= LAST_NUMBER)
        ).scalar()
        number = max(int(highest or 0) + 1, NEW_FROM)
        if number <= LAST_NUMBER:
            return number
        used = set(c.execute(select(jobs.c.number)).scalars())
        return next(n for n in range(NEW_FROM, LAST_NUMBER + 1) if n not in used)


def _attachments(log: Sequence[Entry], known: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Return a job's files by name and digest: those it came with and the photographs in its log."""
    found = {a["sha256"]: a for a in known}
    for entry in log:
        if entry.body.kind == "picture":
            body = entry.body
            found.setdefault(body.sha256, {"name": body.name, "sha256": body.sha256})
    return list(found.values())
