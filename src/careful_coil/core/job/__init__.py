"""A job is the sum of its log entries."""

from careful_coil.core.job.entries import AnyBody, Entry
from careful_coil.core.job.finding import Finding, Verdict
from careful_coil.core.job.fold import Job, fold

__all__ = ["AnyBody", "Entry", "Finding", "Job", "Verdict", "fold"]
