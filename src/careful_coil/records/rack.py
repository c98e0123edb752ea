"""The rack out of the records: what is kept of each job at once, what must be judged for it one by one behind."""

import json
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import groupby
from typing import Any

from sqlalchemy import Connection, Engine, select, text, update

from careful_coil.core.settings import Settings
from careful_coil.records.queries import EVERY, FIRST, ONE
from careful_coil.records.rows import read_log
from careful_coil.records.summary import Summary, as_here, by_digest, unjudged
from careful_coil.records.tables import entries, jobs

MOST_AT_ONCE = 500  # ids in one question
NAMED = '"field":"name"'  # in the body of an entry


@dataclass(frozen=True, slots=True)
class OnRack:
    """Jobs for the rack, the most urgent first; `whole` where there are no others."""

    summaries: list[Summary]
    whole: bool


class Rack:
    """What the rack shows of a shop's jobs. Nothing is judged to show it: what must be is judged behind."""

    def __init__(self, engine: Engine, settings: Settings) -> None:
        self._engine = engine
        self._reading = engine.execution_options(reading=True)
        self.settings = settings
        self._seen: dict[str, int] = {}  # by job a hash of its row, as it was given out last
        self._waiting: list[str] | None = (
            None  # to be judged, the next one last; None: to be listed
        )

    def first(self, count: int) -> OnRack:
        """Return the most urgent jobs as they are kept: a shop of very many shows these at once."""
        with self._reading.begin() as c:
            rows = list(c.execute(text(FIRST), {"count": count + 1}))
        found = sorted(self._summaries(rows[:count]), key=lambda s: s.urgency)
        return OnRack(found, len(rows) <= count)

    def every(self) -> list[Summary]:
        """Return all jobs as they are kept, in order of urgency."""
        return sorted(self._summaries(self._rows()), key=lambda s: s.urgency)

    def changed(self) -> list[Summary]:
        """Return the jobs whose rows are not as they were given out last: what others did."""
        fresh = [r for r in self._rows() if self._seen.get(r.id) != _hash(r)]
        if fresh:
            self._waiting = None
        return self._summaries(fresh)

    def judge_by(self, settings: Settings) -> list[Summary]:
        """Take other settings; return the rack as it stands: it is judged anew behind."""
        self.settings, self._waiting = settings, None
        return self.every()

    def forget(self) -> None:
        """Believe no summary any more: all are made anew from the log."""
        with self._engine.begin() as c:
            c.execute(update(jobs).values(summary=None))
        self._waiting = None

    def behind(self) -> Summary | None:
        """Judge the newest job that waits for it; None where none is left. One that cannot be judged is left."""
        if self._waiting is None:
            mine = by_digest(self.settings)
            late = [r for r in self._rows() if not _judged(r, mine)]
            self._waiting = [r.id for r in sorted(late, key=lambda r: r.number)]
        while self._waiting:
            with self._reading.begin() as c:
                row = c.execute(text(ONE), {"job": self._waiting.pop()}).first()
            if row is not None and not _judged(row, by_digest(self.settings)):
                made = self._made(row)
                if made.by:
                    return made
        return None

    def judged(self) -> list[Summary]:
        """Return all jobs, each judged first where it waits for it."""
        rows = self._rows()
        pairs = zip(rows, self._summaries(rows), strict=True)
        told = [s if _fits(row) else self._made(row) for row, s in pairs]
        return sorted(told, key=lambda s: s.urgency)

    def save(self, summary: Summary) -> None:
        """Keep the summary of a job, where nothing was recorded since it was made."""
        with self._engine.begin() as c:
            self.keep(c, summary)

    def keep(self, c: Connection, summary: Summary) -> None:
        """Keep the summary of a job within a transaction; what one wrote oneself is no news."""
        row = c.execute(text(ONE), {"job": summary.id}).first()
        if row is not None and row.last == summary.seq:
            kept = summary.text()
            c.execute(update(jobs).where(jobs.c.id == summary.id).values(summary=kept))
            self._seen[summary.id] = hash((kept, row.last))
            if not summary.by and self._waiting is not None:
                self._waiting.append(summary.id)

    def _rows(self) -> list[Any]:
        with self._reading.begin() as c:
            return list(c.execute(text(EVERY)).all())

    def _summaries(self, rows: Sequence[Any]) -> list[Summary]:
        """Return what is kept of these jobs; one of which nothing is kept goes by its name alone."""
        kept = [Summary.of_text(r.summary) for r in rows]
        kept = [
            s if s is not None and s.id == r.id else None for r, s in zip(rows, kept, strict=True)
        ]
        names = self._names([r.id for r, s in zip(rows, kept, strict=True) if s is None])
        found = []
        for row, summary in zip(rows, kept, strict=True):
            self._seen[row.id] = _hash(row)
            told = summary or unjudged(row.id, row.number, names.get(row.id, ""), row.last)
            found.append(as_here(told, row.number, row.extra))
        return found

    def _names(self, ids: Sequence[str]) -> dict[str, str]:
        """Return what jobs are called, as it was written down last."""
        found: dict[str, str] = {}
        with self._reading.begin() as c:
            for k in range(0, len(ids), MOST_AT_ONCE):
                wanted = (
                    select(entries.c.job_id, entries.c.body)
                    .where(
                        entries.c.job_id.in_(ids[k : k + MOST_AT_ONCE]),
                        entries.c.body.like(f"%{NAMED}%"),
                    )
                    .order_by(entries.c.job_id, entries.c.seq)
                )
                for job, rows in groupby(c.execute(wanted), lambda r: r.job_id):
                    found[job] = name_in(r.body for r in rows)
        return found

    def _made(self, row: Any) -> Summary:
        """Make a summary from the log; nobody waits for a lock while it is judged."""
        from careful_coil.records.summarise import damaged_summary, summarise  # loads every rule

        with self._reading.begin() as c:
            log = read_log(c, row.id)
        try:
            summary = summarise(row.id, row.number, log, self.settings)
        except Exception as error:  # whatever a damaged log does to a rule, the rack goes on
            return damaged_summary(row.id, row.number, log, str(error))
        self.save(summary)
        return as_here(summary, row.number, row.extra)


def _hash(row: Any) -> int:
    return hash((row.summary, row.last))


def _fits(row: Any) -> bool:
    """Whether a row's summary is of its log as it is, and judged."""
    kept = Summary.of_text(row.summary)
    return kept is not None and (kept.id, kept.seq) == (row.id, row.last) and kept.by != ""


def _judged(row: Any, by: str) -> bool:
    """Whether it was judged by these settings besides; the text tells at once where it was not."""
    return f'"by": "{by}"' in (row.summary or "") and _fits(row)


def name_in(bodies: Iterable[str]) -> str:
    """Return what a job is called in the bodies of its log, as it was written down last; empty where nowhere."""
    name = ""
    for body in bodies:
        if NAMED not in body:
            continue
        with suppress(ValueError):  # a damaged one says nothing
            told = json.loads(body)
            if "ticket" in (told.get("kind"), told.get("sheet")):
                name = str(told.get("text", ""))
    return name
