"""The complaint's cause: a motor that did not start, or tripped, does not leave before it is found."""

from functools import partial

from careful_coil.core.condition.causes import CAUSES
from careful_coil.core.condition.cures import CURES, cured_by
from careful_coil.core.condition.suspicion import Suspicion
from careful_coil.core.job import Finding, Job

NOT_FOUND_MINUTES = (
    30.0  # of a good run where the cause of a complaint is not found (shop practice)
)
FAILED = "The winding had failed"
RENEWS = ("capacitor", "device", "bearing", "rewound", "lead")  # deeds that cure
TRIPPED = ("trips-later", "cycles")
PUSHED = "A push or tap that starts it is a diagnosis, never a cure."
RESET = "A protector is not reset before it is known why it tripped; an automatic one restarts unannounced."


def cause_findings(
    job: Job, causes: Suspicion | None, longest: float = NOT_FOUND_MINUTES
) -> list[Finding]:
    """Return the gate's line on the cause: of a complaint, and of what happened on the bench itself.

    A complaint's cause is found, or the motor ran long enough without showing it; what smoked or tripped
    on the bench has its cause found, no good run alone lifts it. `longest` minutes this kind may run on the
    bench, where that is less.
    """
    of = partial(Finding, code="cause", station="start-gear", gate=True, waivable=False)
    harm = job.deeds.voiding("cause")
    found = bool(job.gear.cause) and job.deeds.stands("cause", "cause-found")
    cause = CAUSES.get(job.gear.cause)
    title = f"{cause.title}." if cause is not None else f"{job.gear.cause}."
    if harm is not None and not found:
        why = f"{harm.words[0].upper()}{harm.words[1:]}. Find it, mend it; no good run alone lifts it."
        return [of(verdict="unproven", subject="Cause not found", why=why)]
    told = causes.symptoms if causes is not None else ()
    cured = any(
        d.place > job.deeds.first.get("cause", -1) or d.kind in RENEWS
        for d in job.deeds.counted(RENEWS)
    )
    title = f"{title} Cured." if cured else title
    if found and (told or harm is not None):
        return [of(verdict="good", subject="Cause found", why=title)]
    if causes is None or not told:
        return []
    ran = _ran(job)
    by, work = cured_by(job, told)
    if by and ran > 0:
        title = FAILED if "rewound" in CURES[by] and work == "rewound" else CAUSES[by].title
        why = f"{title}: {work}. Ran {ran:g} min since without it."
        return [of(verdict="good", subject="Cause found and cured", why=why)]
    enough = min(NOT_FOUND_MINUTES, longest)
    if ran >= enough:
        why = f"Not found; ran {ran:g} min without showing it. Tell the customer."
        return [of(verdict="good", subject="Cause not found, ran well", why=why)]
    cautions = [
        w
        for w, wanted in ((PUSHED, ("starts-pushed",)), (RESET, TRIPPED))
        if set(wanted) & set(told)
    ]
    (first, odds), (second, less), *_ = causes.odds
    why = f"{first.title} {odds:.0%}, then {second.title[0].lower()}{second.title[1:]} {less:.0%}."
    long = f"Or {enough:g} min of a good run, and the customer is told."
    return [of(verdict="unproven", subject="Cause not found", why=" ".join([why, long, *cautions]))]


def _ran(job: Job) -> float:
    """Return the minutes of the newest whole run on the closed motor that stands, or on its load on site."""
    if job.on_site and job.site.get("ran") and job.deeds.stands("runs", "site-checked:ran"):
        return NOT_FOUND_MINUTES
    on = job.trials.last("on", job.deeds.last("runs"))
    return max((s.minute for s in on.steps if s.minute is not None), default=0.0) if on else 0.0
