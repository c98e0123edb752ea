"""What a job tells of its motor's kind: looks noted, and those the plate and the readings give."""

import re

from careful_coil.core.can_marking import duty_of, serves_of
from careful_coil.core.identify import Identification
from careful_coil.core.identify.extras import TACHOMETER_VOLT
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.plate import not_printed
from careful_coil.core.kind.colours import by_custom, colour_words
from careful_coil.core.kind.kinds import on_this_supply
from careful_coil.core.kind.plate_checks import plate_checks
from careful_coil.core.kind.sign_table import SIGNS
from careful_coil.core.kind.weigh import SETTLED, Weighed, weigh_kinds
from careful_coil.core.readings import Shaft, Spin
from careful_coil.core.settings import Settings

# how a plate's words for its kind begin, the more telling first
PRINTED = (
    (r"CAP\S*[ -]START.*CAP\S*[ -]RUN", "capacitor-start-run"),
    (r"CAP\S*[ -]START", "capacitor-start"),
    (r"CAP\S*[ -]RUN|PERM|PSC", "permanent-capacitor"),
    (r"SPLIT", "split-phase"),
    (r"SHADED", "shaded-pole"),
    (r"REPULSION", "repulsion-start"),
    (r"UNIVERSAL|SERIES", "universal"),
)


def kind_printed(words: str) -> str:
    """Return the kind that a plate's own words name, empty where they name none."""
    return next((k for p, k in PRINTED if re.match(p, words.strip(), re.IGNORECASE)), "")


THREE_EQUAL_ODDS = 0.9
RELAYS = {"relay-current", "relay-voltage", "hot-wire", "ptc", "electronic-switch"}


def looks_of(job: Job, found: Identification | None) -> dict[str, str]:
    """Return every look that counts: given by plate and readings, then as noted, which wins."""
    looks: dict[str, str] = {}
    plate = job.plate
    if plate.phases:
        looks["plate-phases"] = "1 phase" if plate.phases == 1 else "3 phases"
    if plate.rpm and plate.hertz:
        looks["faster-than-two-poles"] = "yes" if plate.rpm > 60 * plate.hertz else "no"
    told = kind_printed(plate.printed("kind"))
    if told:
        looks["plate-kind"] = told
    if plate.microfarad:
        looks["plate-capacitor"] = "yes"
    elif not_printed(plate.printed("capacitor")):
        looks["plate-capacitor"] = "no"
    looks |= _of_start_gear(job) | _of_tests(job)
    if job.leads:
        count = str(len(job.leads))
        known = SIGNS["leads"].answers
        looks["leads"] = count if count in known else "another number"
    if found and _three_equal(found):
        looks["three-equal"] = "yes"
    for sign, answer in job.seen.looks.items():
        if sign in SIGNS and answer in SIGNS[sign].answers:
            looks.pop(sign, None)
            looks[sign] = answer
    return looks


def _of_start_gear(job: Job) -> dict[str, str]:
    """Return what the start gear noted, and the plate's capacitor, show: how many cans, what they serve."""
    gear = job.gear.was or job.gear
    cans = [serves_of(told) for told in gear.capacitors.values()]
    duty = {d for d in cans if d} or {duty_of(job.plate.printed("capacitor"))} - {""}
    found = {}
    if cans:
        found["capacitors"] = "one" if len(cans) == 1 else "two"
    elif gear.devices and not job.plate.microfarad:
        found["capacitors"] = "none"  # the start gear was listed, and no can among it
    if duty <= {"start", "run"} and duty:
        found["capacitor-duty"] = "both" if len(duty) == 2 else min(duty)
    kinds = set(gear.devices.values())
    if kinds & {"speed-switch", "change-over"}:
        found["speed-switch"] = "opens at speed"
    if kinds & RELAYS:
        found["start-device"] = "yes"
    return found


def _of_tests(job: Job) -> dict[str, str]:
    """Return what tests at Leads show: ohms that vary with the shaft, a tachometer spun."""
    found = {}
    turned = {t.reading.value for t in job.readings if isinstance(t.reading, Shaft)}
    if turned:
        found["varies-with-shaft"] = "yes" if "varies" in turned else "no"
    if any(isinstance(t.reading, Spin) and t.reading.volt >= TACHOMETER_VOLT for t in job.readings):
        found["tachometer"] = "yes"
    return found


def _three_equal(found: Identification) -> bool:
    best = found.best
    return (
        best.arrangement == "three-phase-3-lead"
        and best.probability > THREE_EQUAL_ODDS
        and len(best.coil_ohm) == 3
    )


def kind_of(job: Job, found: Identification | None) -> Weighed:
    """Return the kinds of motor by odds."""
    return weigh_kinds(looks_of(job, found))


def _rating(job: Job) -> list[Finding]:
    """Return the rating this supply is held against, where the plate has several."""
    if job.supply is None or len(job.plate.ratings) < 2:
        return []
    rating = job.plate.at(job.supply.volt, job.supply.hertz)
    if rating is None:
        return []
    return [
        Finding(
            code="rating",
            verdict="note",
            subject=f"Held against {rating.words()}",
            why="Of the plate's ratings this is the one of the supply named.",
            station="intake",
        )
    ]


def _colours(job: Job, settings: Settings) -> list[Finding]:
    """Return lead colours to beware of on this motor, and what they are by custom."""
    words = colour_words(job.leads)
    if settings.school("colours") == "leaning" and job.plate.phases == 1:
        words = f"{words} {by_custom(job.leads)}".strip()
    if not words:
        return []
    subject = (
        "Lead colours that look alike" if colour_words(job.leads) else "Lead colours by custom"
    )
    return [Finding(code="colours", verdict="note", subject=subject, why=words, station="intake")]


def kind_findings(job: Job, kinds: Weighed, settings: Settings) -> list[Finding]:
    """Return what the kind means and what contradicts; nothing while nothing was looked at."""
    found = [*plate_checks(job.plate), *_rating(job), *_colours(job, settings)]
    for a, b in kinds.contradictions:
        if not {a, b} & set(job.seen.looks):
            continue  # neither was looked at by eye: plate and start gear are judged at their stations
        found.append(
            Finding(
                code="kind-contradiction",
                verdict="watch",
                subject=f"{SIGNS[a].question} and {SIGNS[b].question[0].lower()}{SIGNS[b].question[1:]}",
                why="No kind of motor shows both as answered: look again.",
                station="intake",
            )
        )
    if not job.seen.looks:
        return found
    best = kinds.odds[0]
    sure = best.probability >= SETTLED
    supply = f" {on_this_supply(best.kind, job.supply.phases)}" if job.supply else ""
    found.append(
        Finding(
            code="kind",
            verdict="note",
            subject=f"{best.kind.title}{'' if sure else ', probably'} ({best.probability:.0%})",
            why=f"Speed {best.kind.speed}. {best.kind.never}{supply}",
            station="intake",
        )
    )
    return found
