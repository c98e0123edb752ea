"""The shop's records: one folder, an append-only log, a summary row a job that can be rebuilt."""

from careful_coil.records.summary import Summary
from careful_coil.records.thread import RecordsThread

__all__ = ["RecordsThread", "Summary"]
