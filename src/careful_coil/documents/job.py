"""`careful-coil/job` version 1: a whole job, its log in order."""

from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field

from careful_coil.core.errors import BadDocument
from careful_coil.core.job import Entry, Job
from careful_coil.core.job.digest import in_short, log_digest
from careful_coil.documents.base import Document, check_format, read_model

FORMAT = "careful-coil/job"
MOST_ENTRIES = 20000


class Attachment(Document):
    """A file that belongs to the job, by name and digest."""

    model_config = ConfigDict(frozen=True, extra="allow")
    name: Annotated[str, Field(min_length=1, max_length=200)]
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class JobDocument(Document):
    """A job; unknown extra keys are kept and handed on."""

    model_config = ConfigDict(frozen=True, extra="allow")
    format: Literal["careful-coil/job"] = "careful-coil/job"
    version: Literal[1] = 1
    id: Annotated[str, Field(min_length=1, max_length=64)]
    number: Annotated[int, Field(ge=1, le=10**9)]
    entries: Annotated[tuple[Entry, ...], Field(max_length=MOST_ENTRIES)]
    attachments: tuple[Attachment, ...] = ()

    @property
    def tells_digest(self) -> bool:
        """Whether it says what its log was when it was signed."""
        return isinstance((self.model_extra or {}).get("digest"), str)

    def altered(self, job: Job) -> str:
        """Return why its log is not the one that was signed, empty where it is, or nothing tells."""
        told = (self.model_extra or {}).get("digest")
        own = log_digest(job)
        if not isinstance(told, str) or not own or told == own:
            return ""
        return f"Signed was {in_short(told)}, this log is {in_short(own)}."


def _entry(place: int, told: Any) -> Entry:
    if not isinstance(told, dict):
        raise BadDocument(f"entries.{place}", repr(told)[:40], "an entry")
    try:
        return read_model(Entry, told)
    except BadDocument as error:
        raise BadDocument(f"entries.{place}.{error.where}", error.read, error.accepted) from None


def read_job(found: dict[str, Any]) -> JobDocument:
    """Return a job document. Raises: BadDocument, also for an entry id that stands twice."""
    check_format(found, FORMAT)
    told = found.get("entries")
    if isinstance(told, list):  # one by one: the first that is wrong ends it
        found = found | {"entries": [_entry(k, e) for k, e in enumerate(told[: MOST_ENTRIES + 1])]}
    document = read_model(JobDocument, found)
    seen: set[str] = set()
    for place, entry in enumerate(document.entries):
        if entry.id in seen:
            raise BadDocument(f"entries.{place}.id", entry.id, "each entry once")
        seen.add(entry.id)
    return document
