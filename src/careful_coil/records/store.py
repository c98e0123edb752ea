"""Appending to the log and reading it back; every call is one transaction."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Engine, func, insert, select, update

from careful_coil.core.errors import RecordsRefused
from careful_coil.core.job import Entry
from careful_coil.core.settings import Settings
from careful_coil.documents.job import JobDocument
from careful_coil.records.summary import Summary, summarise
from careful_coil.records.tables import entries, jobs

_ENTRY_KEYS = frozenset(Entry.model_fields)
_JOB_KEYS = frozenset({"format", "version", "id", "number", "entries"})


@dataclass(frozen=True, slots=True)
class Imported:
    """What an import did: the job, entries added, and the number it asked for where it got another."""

    id: str
    number: int
    added: int
    wanted: int


class Store:
    """A shop's log. Raises RecordsRefused where a row would break it."""

    def __init__(self, engine: Engine, settings: Settings) -> None:
        self._engine = engine
        self._settings = settings

    def summaries(self) -> list[Summary]:
        """Return all jobs for the rack; one that is missing or of another version is made from the log."""
        with self._engine.begin() as c:
            rows = c.execute(select(jobs.c.id, jobs.c.number, jobs.c.summary)).all()
            found = []
            for row in rows:
                kept = Summary.of_text(row.summary)
                found.append(kept or self._rebuild(c, row.id, row.number))
        return sorted(found, key=lambda s: s.urgency)

    def rebuild(self) -> list[Summary]:
        """Make every summary anew from the log."""
        with self._engine.begin() as c:
            c.execute(update(jobs).values(summary=None))
        return self.summaries()

    def judge_by(self, settings: Settings) -> list[Summary]:
        """Take other settings; every summary is made anew."""
        self._settings = settings
        return self.rebuild()

    def entries_of(self, job: str) -> list[Entry]:
        """Return a job's log in order."""
        with self._engine.begin() as c:
            return self._entries(c, job)

    def open_job(self, job: str, first: Sequence[Entry]) -> int:
        """Start a job with its first entries; return the number the shop gives it."""
        with self._engine.begin() as c:
            number = self._next_number(c)
            c.execute(insert(jobs).values(id=job, number=number, extra="{}"))
            for entry in first:
                self._append(c, job, entry)
        return number

    def append(self, job: str, entry: Entry) -> None:
        """Append an entry; when this returns it is on disk."""
        with self._engine.begin() as c:
            self._append(c, job, entry)

    def save_summary(self, summary: Summary) -> None:
        """Keep the summary of a job."""
        with self._engine.begin() as c:
            c.execute(update(jobs).where(jobs.c.id == summary.id).values(summary=summary.text()))

    def take_in(self, document: JobDocument) -> Imported:
        """Import a job document by entry id: whole or not at all; twice adds nothing."""
        with self._engine.begin() as c:
            number = c.execute(
                select(jobs.c.number).where(jobs.c.id == document.id)
            ).scalar_one_or_none()
            if number is None:
                taken = c.execute(select(jobs.c.id).where(jobs.c.number == document.number)).first()
                number = self._next_number(c) if taken else document.number
                extra = document.model_dump(mode="json", exclude=set(_JOB_KEYS))
                c.execute(
                    insert(jobs).values(id=document.id, number=number, extra=_canonical(extra))
                )
            known = {
                r.id: r.job_id
                for r in c.execute(
                    select(entries.c.id, entries.c.job_id).where(
                        entries.c.id.in_([e.id for e in document.entries])
                    )
                )
            }
            stray = next((i for i, j in known.items() if j != document.id), None)
            if stray is not None:
                raise RecordsRefused(
                    f"Entry {stray} of the document is part of another job here. Nothing was imported."
                )
            fresh = [e for e in document.entries if e.id not in known]
            for entry in fresh:
                self._append(c, document.id, entry)
            if fresh:
                c.execute(update(jobs).where(jobs.c.id == document.id).values(summary=None))
        return Imported(document.id, int(number), len(fresh), document.number)

    def give_out(self, job: str) -> JobDocument:
        """Return a job as a document, unknown keys and all. Raises: RecordsRefused."""
        with self._engine.begin() as c:
            row = c.execute(select(jobs.c.number, jobs.c.extra).where(jobs.c.id == job)).first()
            if row is None:
                raise RecordsRefused(f"There is no job {job} in this shop.")
            log, extra = tuple(self._entries(c, job)), json.loads(row.extra)
            extra["attachments"] = _attachments(log, extra.get("attachments", []))
            return JobDocument(id=job, number=row.number, entries=log, **extra)

    def _entries(self, c: Connection, job: str) -> list[Entry]:
        rows = c.execute(select(entries).where(entries.c.job_id == job).order_by(entries.c.seq))
        return [_entry(row) for row in rows]

    def _append(self, c: Connection, job: str, entry: Entry) -> None:
        last = c.execute(select(func.max(entries.c.seq)).where(entries.c.job_id == job)).scalar()
        whole = entry.model_dump(mode="json")
        c.execute(
            insert(entries).values(
                id=entry.id,
                job_id=job,
                seq=(last or 0) + 1,
                at=entry.at,
                by=entry.by,
                station=entry.station,
                body=_canonical(whole["body"]),
                extra=_canonical({k: v for k, v in whole.items() if k not in _ENTRY_KEYS}),
            )
        )

    def _next_number(self, c: Connection) -> int:
        return int(c.execute(select(func.max(jobs.c.number))).scalar() or 100) + 1

    def _rebuild(self, c: Connection, job: str, number: int) -> Summary:
        summary = summarise(job, number, self._entries(c, job), self._settings)
        c.execute(update(jobs).where(jobs.c.id == job).values(summary=summary.text()))
        return summary


def _attachments(log: Sequence[Entry], known: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Return a job's files by name and digest: those it came with and the photographs in its log."""
    found = {a["sha256"]: a for a in known}
    for entry in log:
        if entry.body.kind == "picture":
            body = entry.body
            found.setdefault(body.sha256, {"name": body.name, "sha256": body.sha256})
    return list(found.values())


def _canonical(value: Any) -> str:
    return json.dumps(value, sort_keys=True, ensure_ascii=False, separators=(",", ":"))


def _entry(row: Any) -> Entry:
    return Entry.model_validate(
        {
            "id": row.id,
            "at": row.at,
            "by": row.by,
            "station": row.station,
            "body": json.loads(row.body),
            **json.loads(row.extra),
        }
    )
