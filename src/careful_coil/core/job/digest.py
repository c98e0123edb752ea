"""The digest of a released job's log: what is signed, told in twelve figures on sheet and tag."""

import hashlib
import json

from careful_coil.core.job.finding import Finding
from careful_coil.core.job.fold import Job

SHOWN, GROUP = 12, 4


def log_digest(job: Job) -> str:
    """Return the SHA-256 of a job's log up to the signature that stands, in hexadecimal; empty where none does.

    Of each entry what it says besides what is usual, its kind with it, as JSON, keys in order, one a line, UTF-8:
    a later version that knows more gives the same.
    """
    if job.released is None:
        return ""
    found = hashlib.sha256()
    for entry in job.log:
        told = entry.model_dump(mode="json", exclude_defaults=True)
        told["kind"] = entry.body.kind
        text = json.dumps(told, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        found.update(f"{text}\n".encode())
        if entry.id == job.released.id:
            return found.hexdigest()
    return ""


def in_short(digest: str) -> str:
    """Return the beginning of a digest as it is read aloud: 3f2a 91bc 77de."""
    return " ".join(digest[k : k + GROUP] for k in range(0, SHOWN, GROUP)).strip()


def not_as_signed(why: str) -> Finding:
    """Return what is found of a job whose log is not the one that was signed."""
    return Finding(
        code="log-digest",
        verdict="hold",
        subject="Not the log that was signed",
        why=why,
        station="release",
        waivable=False,
    )
