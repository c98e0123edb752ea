"""Rows of the log as entries and back; a row that is damaged is told and left out, the rest is read."""

import json
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any

from pydantic import ValidationError

from careful_coil.core.job import Entry
from careful_coil.records.queries import LOG

if TYPE_CHECKING:
    from sqlalchemy import Connection

_ENTRY_KEYS = frozenset(Entry.model_fields)


@dataclass(frozen=True, slots=True)
class Log:
    """A job's entries in order, the number of the last row, and what of it could not be read."""

    entries: list[Entry] = field(default_factory=list)
    seq: int = 0
    damaged: tuple[str, ...] = ()


def read_log(c: "Connection", job: str, after: int = 0) -> Log:
    """Return the log of a job, or what of it comes after a row."""
    from sqlalchemy import text  # a first look reads rows without it

    return log_of(c.execute(text(LOG), {"job": job, "after": after}), after)


def log_of(rows: Iterable[Any], after: int = 0) -> Log:
    """Return rows as a log, those that are damaged told."""
    found: list[Entry] = []
    damaged: list[str] = []
    seq = after
    for row in rows:
        seq = int(row.seq)
        try:
            found.append(entry_of(row))
        except (ValueError, TypeError, ValidationError) as error:
            damaged.append(f"entry {row.seq} of {str(row.at)[:10]} by {row.by}: {_first(error)}")
    return Log(found, seq, tuple(damaged))


def entry_of(row: Any) -> Entry:
    """Return a row as an entry. Raises: ValueError where it is none."""
    extra = json.loads(row.extra)
    told = {"id": row.id, "at": row.at, "by": row.by, "station": row.station}
    return Entry.model_validate({**extra, **told, "body": json.loads(row.body)})


def rows_of(job: str, log: Sequence[Entry], seq: int) -> Iterator[dict[str, Any]]:
    """Yield the rows of entries that come after a row."""
    for number, entry in enumerate(log, seq + 1):
        whole = entry.model_dump(mode="json")
        yield {
            "id": entry.id,
            "job_id": job,
            "seq": number,
            "at": entry.at,
            "by": entry.by,
            "station": entry.station,
            "body": canonical(whole["body"]),
            "extra": canonical({k: v for k, v in whole.items() if k not in _ENTRY_KEYS}),
        }


def canonical(value: Any) -> str:
    """Return JSON as it is kept."""
    return json.dumps(value, sort_keys=True, ensure_ascii=False, separators=(",", ":"))


def _first(error: Exception) -> str:
    return str(error).strip().splitlines()[0][:120] or type(error).__name__
