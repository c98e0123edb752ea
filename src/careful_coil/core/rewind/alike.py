"""Motors like this one: earlier records of the shop with near core, slots, poles and volts."""

from collections.abc import Iterable
from dataclasses import dataclass

from careful_coil.core.job import Job
from careful_coil.core.rewind.record import Record
from careful_coil.core.rewind.rules import plate_of, record_of

NEAR = 0.15  # share by which core and bore may differ
VOLT_NEAR = 0.2
MOST = 6
SHOWN = ("slots", "poles", "span", "turns", "wire", "circuits", "connection", "main", "start")


@dataclass(frozen=True, slots=True, kw_only=True)
class Alike:
    """An earlier motor: its number and name, how near it is (0 the same), its winding in a line."""

    number: int
    name: str
    apart: float
    words: str


def alike(job: Job, others: Iterable[tuple[int, Job]]) -> tuple[Alike, ...]:
    """Return the records that are near this one's, the nearest first; slots, poles and phases must agree.

    What is not known of either counts as a third of what may be apart.
    """
    own = record_of(job)
    if not own.told.get("slots") or not own.told.get("poles"):
        return ()
    found = []
    for number, other in others:
        record = record_of(other)
        if (record.phases, *_core(record)) != (own.phases, *_core(own)):
            continue
        apart = _apart(job, own, other, record)
        if apart is not None:
            told = ", ".join(f"{f} {record.told[f]}" for f in SHOWN if record.told.get(f))
            found.append(Alike(number=number, name=other.name, apart=apart, words=told))
    return tuple(sorted(found, key=lambda a: (a.apart, a.number))[:MOST])


def _core(record: Record) -> tuple[str, str]:
    return record.told.get("slots", ""), record.told.get("poles", "")


def _apart(job: Job, own: Record, other_job: Job, other: Record) -> float | None:
    """Return how far two motors of the same slots and poles are apart; None where one datum is too far."""
    whole = 0.0
    volts = plate_of(job).volt, plate_of(other_job).volt
    pairs = [(own.figure(f), other.figure(f), NEAR) for f in ("core", "bore")]
    pairs.append((*volts, VOLT_NEAR))
    for one, two, near in pairs:
        if one is None or two is None:
            whole += near / 3
            continue
        off = abs(two / one - 1)
        if off > near:
            return None
        whole += off
    return whole
