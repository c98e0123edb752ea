"""The law of the gate: what is proven again after what, which words count, what was struck out of sight.

Rules conclude from what stands; here it is said why something is asked again, a run proves what no
meter could, a waiver lapses with the state and the figure it was given for, and a bad reading that was
struck or blanked stays in sight until one at least as hard has taken its place.
"""

import re
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import replace

from careful_coil.core.connect.work import Connecting
from careful_coil.core.identify import Naming
from careful_coil.core.job import Finding, Job, fold
from careful_coil.core.job.alarms import words_of_harm
from careful_coil.core.job.at_connect import LowRun
from careful_coil.core.job.entries import Entry, Waived
from careful_coil.core.job.plate import unreadable
from careful_coil.core.job.voids import FACTS
from careful_coil.core.sheets import SHEETS

Concludes = Callable[[Job], Sequence[Finding]]
SHUT = ("hold", "unproven")
# the fact a line of the gate proves, by its code
FACT_OF: Mapping[str, str] = {
    "leads-proven": "readings",
    "coils-balanced": "coil-ohms",
    "coil-ohms": "coil-ohms",
    "insulation": "insulation",
    "insulation-between": "apart",
    "high-potential": "high-potential",
    "hookup": "joints",
    "line-ohms": "line-ohms",
    "before-power": "checks",
    "low-run": "low-run",
    "direction": "direction",
    "test-run": "runs",
    "earth-bond": "bond",
    "shaft-feel": "shaft",
    "installer": "tags",
}
# lines that nobody sets aside, whatever the rule says: what can hurt, and what is proven by no word
NEVER_WAIVED = re.compile(
    r"insulation.*|frame-fault|coil-.*|coils-.*|hookup|line-ohms|low-run|earth-bond"
    r"|trial-(start|drop-.*|dead-line|smoke|turns|hot|lines)|winding-charged|high-potential|struck.*"
    r"|temporary|start-gear|start-device|leads-proven|supply-hertz|cause"
)
READ = (
    "insulation",
    "earth-bond",
    "low-run",
    "trial-begun",
    "trial-step",
    "trial-start",
    "trial-heard",
    "trial-ended",
    *(s.name for s in SHEETS.values() if s.bad),
    "device-read",
    "winding-ohm",
    "line-ohm",
    "temporary",
    "surge",
)  # kinds whose bad figures are not struck out of sight
BLANKS: Mapping[str, str] = {
    **{s.name: "text" for s in SHEETS.values() if s.bad},
    "temporary": "words",
    "device-fitted": "device",
}  # kinds that a blank takes back, and the field that is blank then
AS_HARD = 0.9  # of the volts of the reading that was struck


def under_law(
    job: Job,
    findings: Sequence[Finding],
    naming: Naming,
    state: Connecting,
    concludes: Concludes,
) -> tuple[list[Finding], dict[str, Waived]]:
    """Return findings as the gate has them, and the waivers that count.

    `concludes` gives the findings of another state of the same job: before a waiver, or unstruck.
    """
    found = [_never(f) for f in by_behaviour(job, findings, naming, state)]
    found = [_again(job, f) for f in found]
    found += [_never(f) for f in out_of_sight(job, found, concludes)]
    return found, waivers(job, found, concludes)


def _never(found: Finding) -> Finding:
    return replace(found, waivable=False) if NEVER_WAIVED.fullmatch(found.code) else found


def _again(job: Job, found: Finding) -> Finding:
    """Return a line that is open because of what was done since, with the deed that opened it."""
    fact = FACT_OF.get(found.code)
    deed = job.deeds.again(fact) if fact and found.verdict == "unproven" else None
    if deed is None or found.subject.startswith("Again"):
        return found
    why = f"{deed.words[0].upper()}{deed.words[1:]} since. {found.why}"
    return replace(found, subject=f"Again: {FACTS[fact or '']}", why=why)


def by_behaviour(
    job: Job, findings: Sequence[Finding], naming: Naming, state: Connecting
) -> list[Finding]:
    """Return findings with what the run itself proves: marks that ohms bear out, a hookup no rule knows."""
    by_code = {f.code: f for f in findings}
    if naming.word == "kicked" and _equal_amps_since(job):
        findings = [_closed(f) for f in findings]
    ran = by_code.get("test-run")
    if ran is None or ran.verdict != "good":
        return list(findings)
    read = [
        f for f in findings if f.code == "trial-amps"
    ]  # of each speed: the worst of them counts
    amps = max(read, key=lambda f: f.verdict != "good", default=None)
    # no plate amps to hold them against: that it starts, runs its minutes and stays cool is all there is
    unread = amps is None and any(unreadable(job.plate.printed(f)) for f in ("amp", "power"))
    known = amps is not None and amps.verdict in ("good", "watch")
    usual = unread or known
    low = by_code.get("low-run")
    three = job.supply is not None and job.supply.phases == 3
    equal = low is not None and low.verdict == "good" and "trial-lines" in by_code
    legible = job.deeds.stands("marks", "leads")  # washed since, they are read again
    behaved = equal if three else usual
    marked = naming.word == "marked" and legible and behaved
    in_band = unread or (amps is not None and amps.verdict == "good")
    owed = naming.word == "owed" and in_band
    owed |= naming.word == "kicked" and not three and usual
    found = []
    for f in findings:
        if f.code == "leads-proven" and f.verdict == "unproven" and marked:
            why = "The ohms agree with the marks, and it ran as it must."
            f = replace(f, verdict="good", subject="Leads as marked", why=why)
        elif f.code == "leads-proven" and f.verdict == "unproven" and owed:
            why = "By their ohms, and it started from rest at rated volts with usual amps."
            if unread:
                why = "By their ohms, and it started from rest at rated volts; no plate amps to judge by."
            f = replace(f, verdict="good", subject="Leads proven by the run", why=why)
        elif f.code == "hookup" and f.verdict == "unproven" and state.outside and known:
            why = "By its run: it started at rated volts, amps in the idle band."
            f = replace(f, verdict="good", subject="Hookup confirmed by the run", why=why)
        found.append(f)
    return found


EQUAL_AMPS = (
    0.10  # of their mean: line amps of a run at reduced volts that count as equal (trade practice)
)


def _equal_amps_since(job: Job) -> bool:
    """Whether a run at reduced volts had three equal amps since the leads were kicked."""
    since = max((t.place for t in job.readings if t.reading.kind == "kick"), default=-1)
    for entry in job.log[since + 1 :]:
        body = entry.said
        stands = isinstance(body, LowRun) and entry.id not in job.struck
        if stands and body.turns == "smooth" and len(body.amp) == 3:
            mean = sum(body.amp) / 3
            if mean > 0 and max(abs(a - mean) for a in body.amp) <= EQUAL_AMPS * mean:
                return True
    return False


def _closed(found: Finding) -> Finding:
    """Return the line of the leads as proven by kicks, the reduced-voltage run closing them."""
    if found.code != "leads-proven":
        return found
    why = "By kicks, and the reduced-voltage run with equal amps closes them."
    return replace(found, verdict="good", subject="Leads proven", why=why)


# --- words ------------------------------------------------------------------------------------------


def initials(text: str) -> str:
    """Return initials as one person's: AB, A.B. and ab are one."""
    return re.sub(r"[^a-z0-9]", "", text.lower())


def waivers(job: Job, findings: Sequence[Finding], concludes: Concludes) -> dict[str, Waived]:
    """Return the waivers that count: by another person, for the state and figure as they are now."""
    kept = {}
    for code, body in (job.waived or {}).items():
        entry = job.waivers[code]
        own = [f for f in findings if f.code == code and f.verdict in SHUT]
        if not own or _self(job, entry, body) or not all(f.waivable for f in own):
            continue
        before = concludes(fold(_until(job.log, entry)))
        if all(any(_same(f, then) for then in before) for f in own):
            kept[code] = body
    return kept | _of_the_run(findings, kept)


def _of_the_run(findings: Sequence[Finding], kept: Mapping[str, Waived]) -> dict[str, Waived]:
    """Return the gate's line of the run as waived where every finding that holds it is."""
    bad = [f for f in findings if f.verdict == "hold" and f.code.startswith("trial-")]
    line = next((f for f in findings if f.code == "test-run" and f.verdict == "hold"), None)
    if line is None or not line.waivable or not bad or not all(f.code in kept for f in bad):
        return {}
    return {"test-run": kept[bad[0].code]}


def _self(job: Job, entry: Entry, body: Waived) -> bool:
    """Whether somebody set a line aside for himself."""
    second = initials(body.second)
    signed = job.released.body if job.released is not None else None
    hands = entry.by or getattr(signed, "signed", "")
    return not second or second == initials(hands)


def _until(log: Sequence[Entry], entry: Entry) -> list[Entry]:
    at = next(k for k, e in enumerate(log) if e.id == entry.id)
    return list(log[:at])


def _same(now: Finding, then: Finding) -> bool:
    """Whether a line is the one that stood at another time, and no worse."""
    if (now.code, now.part, now.verdict) != (then.code, then.part, then.verdict):
        return False
    if now.figure is None or then.figure is None or now.limit is None:
        return (now.subject, now.why) == (then.subject, then.why)
    return now.subject == then.subject and abs(now.figure - now.limit) <= 1.02 * abs(
        then.figure - now.limit
    )


# --- struck and blanked -----------------------------------------------------------------------------


def out_of_sight(job: Job, findings: Sequence[Finding], concludes: Concludes) -> Iterator[Finding]:
    """Yield what was found bad, and is gone only because its reading was struck or blanked."""
    log = unstruck(job.log)
    if log is None:
        return
    now = {(f.code, f.part) for f in findings if f.verdict == "hold"}
    told = set()
    for f in concludes(fold(log)):
        if f.verdict != "hold" or (f.code, f.part) in now or f.code in ("hookup", "test-run"):
            continue
        if (f.code, f.part) not in told:
            told.add((f.code, f.part))
            yield Finding(
                code=f"struck-{f.code}",
                verdict="hold",
                subject=f"Struck, not taken again: {f.subject[0].lower()}{f.subject[1:]}",
                why=f"{f.why} A bad reading stays until one at least as hard has taken its place.",
                station=f.station,
                figure=f.figure,
                limit=f.limit,
                unit=f.unit,
                gate=True,
                waivable=False,
                part=f.part,
            )


def unstruck(log: Sequence[Entry]) -> list[Entry] | None:
    """Return a log in which no reading was struck or blanked; None where none was."""
    kinds = {e.id: e for e in log}
    found, changed = [], False
    for k, entry in enumerate(log):
        body = entry.said
        if body.kind == "struck":
            target = kinds.get(body.target)
            if target is not None and _bad_alone(target) and not _taken_again(target, log):
                changed = True
                continue
        elif _blank(entry) and any(_takes_back(entry, e) for e in log[:k]):
            changed = True
            continue
        found.append(entry)
    return found if changed else None


def _bad_alone(entry: Entry) -> bool:
    """Whether a struck entry is a reading that may be bad by itself; ohms between leads are read again."""
    body = entry.said
    return body.topic in READ or (body.kind == "reading" and body.reading.kind == "frame")


def _blank(entry: Entry) -> bool:
    body, field = entry.said, BLANKS.get(entry.said.topic)
    if body.topic == "capacitor" and body.field == "gone":
        return True
    return field is not None and not str(getattr(body, field)).strip()


def _takes_back(blank: Entry, earlier: Entry) -> bool:
    """Whether a blank is of the same thing that an earlier entry said."""
    if earlier.said.topic != blank.said.topic or _blank(earlier):
        return False
    names = ("field", "name", "of")
    gone = getattr(blank.said, "field", "") == "gone"
    mine, theirs = (
        [getattr(b, n, "") for n in names if not (gone and n == "field")]
        for b in (blank.said, earlier.said)
    )
    return mine == theirs


def _taken_again(struck: Entry, log: Sequence[Entry]) -> bool:
    """Whether a struck step or start of a run has a later one, as hard, in its place."""
    gone = {e.body.target for e in log if e.body.kind == "struck"}
    at = next(k for k, e in enumerate(log) if e.id == struck.id)
    later = [e.body for e in log[at + 1 :] if e.id not in gone]
    body = struck.body
    if body.kind == "trial-step" and not words_of_harm(body.remark):
        volt = max(body.volt)
        return any(
            b.kind == "trial-step" and max(b.volt) >= AS_HARD * volt and len(b.amp) >= len(body.amp)
            for b in later
        )
    if body.kind == "trial-start":
        return any(b.kind == "trial-start" and b.volt >= AS_HARD * body.volt for b in later)
    if body.kind in ("trial-step", "trial-heard", "trial-begun", "trial-ended"):
        return _whole_later([b.kind for b in later])
    return False


def _whole_later(kinds: Collection[str]) -> bool:
    kinds = list(kinds)
    return "trial-begun" in kinds and "trial-ended" in kinds[kinds.index("trial-begun") :]
