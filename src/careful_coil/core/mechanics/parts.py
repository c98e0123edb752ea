"""Parts that what was found asks for, with their specification."""

from collections.abc import Iterator
from dataclasses import dataclass

from careful_coil.core.job import Job
from careful_coil.core.mechanics.bearing_rules import ENDS, proposal_of
from careful_coil.core.mechanics.lead_rules import WANTS, new_lead
from careful_coil.core.settings import Settings

RENEWED = "renewed"
WORN = ("rough", "dry", "noisy", "loose", "seized")


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """A part to order: what it is, how many, where it goes, why so."""

    words: str
    count: int
    place: str
    why: str


def parts_wanted(job: Job, settings: Settings) -> tuple[Part, ...]:
    """Return the parts that bearings, brushes and leads ask for."""
    return (*_bearings(job, settings), *_brushes(job, settings), *_leads(job, settings))


def _bearings(job: Job, settings: Settings) -> Iterator[Part]:
    """Yield a bearing for each worn end: where both want the same, in one line."""
    wanted: dict[tuple[str, str], list[str]] = {}
    for end, title in ENDS.items():
        told = job.hands.bearings.get(end, {})
        state, sleeve = told.get("state", ""), told.get("sort") == "sleeve"
        if state not in WORN or told.get("done") == RENEWED:
            continue
        if sleeve and state == "dry":
            continue  # it wants oil
        found = None if sleeve else proposal_of(told, job, settings)
        number = "sleeve" if sleeve else told.get("number") or "number"
        words = found.words if found else f"bearing, {number} not known yet"
        why = "; ".join(found.why) if found else "callipers, or a number that can be read"
        if sleeve:
            words, why = (
                "sleeve bearing, by shaft and housing",
                "measured, with its oil hole and wick",
            )
        wanted.setdefault((words, why), []).append(title.lower())
    for (words, why), places in wanted.items():
        yield Part(words=words, count=len(places), place=" and ".join(places), why=why)


def _brushes(job: Job, settings: Settings) -> Iterator[Part]:
    short = [
        name
        for name, told in job.hands.brushes.items()
        if told.get("done") != RENEWED
        and told.get("length")
        and float(told["length"]) < float(told.get("least") or settings.brush_least.value)
    ]
    if short:
        every = len(job.hands.brushes)
        yield Part(
            words="brush, section and grade of the old one",
            count=every,
            place=", ".join(job.hands.brushes),
            why=f"{', '.join(short)} too short: all of a set together",
        )


def _leads(job: Job, settings: Settings) -> Iterator[Part]:
    tags = [
        x.tag
        for x in job.leads
        if x.insulation in WANTS and x.insulation != "cloth" and x.tag not in job.hands.mended
    ]
    new = new_lead(job, settings)
    if tags:
        size = (
            f"{new.mm2:g} mm², {new.celsius} °C"
            if new
            else "size by its amps, class by the winding"
        )
        yield Part(
            words=f"lead wire or sleeve, {size}",
            count=len(tags),
            place=", ".join(tags),
            why="the plate's amps in a housing, the winding's class"
            if new
            else "read the plate's amps",
        )
