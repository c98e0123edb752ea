"""Insulation of the leads and the cord: what a bad one wants, what was done, size and class of a new one."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

from careful_coil.core.condition.wall import THERMAL, class_told
from careful_coil.core.job import Finding, Job, Verdict
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.mechanics import FELT
from careful_coil.core.shop_lists import size_for

# what a state of a lead's insulation wants, and which repair does not do
WANTS: dict[str, tuple[str, tuple[str, ...]]] = {
    "cloth": ("bend it once: if it cracks, sleeve it", ()),
    "stiff": ("sleeve it, or renew it: it cracks at the next bend", ()),
    "cracked": ("sleeve it over its whole length, or renew it", ("spliced",)),
    "frayed": ("sleeve it, splice it inside the box, or renew it", ()),
    "bare": ("splice it inside the box, or renew it", ()),
    "burnt": ("renew it back to sound wire", ("sleeved",)),
}
RENEWED = "leads renewed"
AGED = ("cloth", "stiff")  # sound as long as nobody bends them
SCHOOL, NEW = "cord", "new"


def _wrong(field: str, word: str) -> str:
    """Return what is wrong in an answer: nothing in a good one, else what it means or the bench's own words."""
    means = FELT.field(field).means(word)
    return word if means is None else means.why


@dataclass(frozen=True, slots=True)
class NewLead:
    """What a new lead must be: mm² of copper for the amps it carries, °C for the insulation class."""

    mm2: float
    celsius: int
    amp: float


LEAD_CLASS = "F"  # of a new lead where nobody says the winding's: it must not be the weakest


def new_lead(job: Job, settings: Settings) -> NewLead | None:
    """Return what a new lead must be; None while the plate's amps are not known, or beyond the table."""
    amp = max(job.plate.amps, default=0.0)
    size = size_for(settings.lists, amp) if amp > 0 else None
    return NewLead(size.mm2, THERMAL[class_told(job) or LEAD_CLASS], amp) if size else None


def lead_findings(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield what was done to leads, and where it does not do; the cord and its relief."""
    of = partial(Finding, station="mechanics", waivable=False)
    by_tag = {x.tag: x.insulation for x in job.leads}
    for tag, state in by_tag.items():
        if (
            state in WANTS
            and RENEWED not in job.work
            and not (tag in job.hands.mended and job.hands.mended[tag].how)
        ):
            wants = WANTS[state][0]
            yield of(
                code="seen-leads",
                part=f"lead:{tag}",
                verdict="watch" if state in AGED else "hold",
                subject=f"Lead {tag}: insulation {state}",
                why=f"{wants[0].upper()}{wants[1:]}.",
                gate=True,
            )
    for tag, mend in job.hands.mended.items():
        state = by_tag.get(tag, "")
        wants, wrong = WANTS.get(state, ("", ()))
        bad = mend.how in wrong
        yield of(
            code="lead-mended",
            verdict="hold" if bad else "good",
            subject=f"Lead {tag} {mend.how}",
            why=f"It was {state}: {wants}."
            if bad
            else (mend.words or f"It was {state or 'mended'}."),
            gate=bad,
        )
    yield from _cord(job, settings)


def _cord(job: Job, settings: Settings) -> Iterator[Finding]:
    felt = job.hands.felt
    cord, done, relief = (felt.get(f, "") for f in ("cord", "cord-done", "relief"))
    of = partial(Finding, code="cord", station="mechanics")
    if cord and cord != "none":
        if done == "renewed":
            yield of(
                verdict="good",
                subject="Cord renewed",
                why="No joint that can be pulled.",
                gate=True,
            )
        elif done == "spliced":
            own = settings.school(SCHOOL)
            why = (
                "Only inside a box with relief; this shop renews."
                if own == NEW
                else "Inside a box, with relief."
            )
            verdict: Verdict = "watch" if own == NEW else "good"
            yield of(verdict=verdict, subject="Cord spliced", why=why, gate=True)
        elif _wrong("cord", cord):
            why = f"{_wrong('cord', cord).capitalize()}. Renew it, or splice it inside a box with relief."
            yield of(verdict="hold", subject=f"Cord {cord}", why=why, gate=True)
        else:
            yield of(
                verdict="good",
                subject="Cord good",
                why="Bent along its length, ends looked at.",
                gate=True,
            )
    if relief:
        what = _wrong("relief", relief)
        yield Finding(
            code="relief",
            verdict="hold" if what else "good",
            subject=f"Strain relief {relief}",
            why=f"{what[0].upper()}{what[1:]}." if what else "It bears the pull, not the joints.",
            station="mechanics",
            gate=True,
        )
