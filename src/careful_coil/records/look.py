"""A first look at a shop on this disk: its most urgent jobs and the log of the first, before the records are open.

The library that keeps the records takes longer to load than a job to be shown. Nothing is written here.
"""

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from types import SimpleNamespace
from typing import Any

from careful_coil.core.errors import RecordsRefused
from careful_coil.records.folder import DATABASE, VERSION, version_in
from careful_coil.records.queries import FIRST, LOG
from careful_coil.records.rows import Log, log_of
from careful_coil.records.summary import Summary, as_here

WAIT_S = 0.5  # for a writer, before the records are asked instead


@dataclass(frozen=True, slots=True)
class Look:
    """What is seen: jobs in order of urgency, and the log of the first of them."""

    summaries: list[Summary]
    log: Log


def look(folder: Path, count: int) -> Look | None:
    """Return what a shop shows first; None where the records must tell: none there, another version, damage."""
    try:
        if version_in(folder) != VERSION or not (folder / DATABASE).exists():
            return None
        with closing(sqlite3.connect(folder / DATABASE, timeout=WAIT_S)) as c:
            c.execute("PRAGMA query_only=ON")
            c.row_factory = _named
            rows = c.execute(FIRST, {"count": count}).fetchall()
            kept = [(Summary.of_text(r.summary), r) for r in rows]
            if not kept or any(s is None or s.id != r.id for s, r in kept):
                return None
            found = sorted(
                (as_here(s, r.number, r.extra) for s, r in kept if s is not None),
                key=lambda s: s.urgency,
            )
            return Look(found, log_of(c.execute(LOG, {"job": found[0].id, "after": 0})))
    except (sqlite3.Error, OSError, RecordsRefused):
        return None


def _named(cursor: sqlite3.Cursor, row: tuple[Any, ...]) -> SimpleNamespace:
    """Return a row by the names of its columns."""
    return SimpleNamespace(**dict(zip((d[0] for d in cursor.description), row, strict=True)))
