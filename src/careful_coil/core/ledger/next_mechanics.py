"""What Mechanics asks for next: shaft, bearings, brushes, bars, what must not leave."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from careful_coil.core.condition.suspicion import has_brushes
from careful_coil.core.job import Finding, Job
from careful_coil.core.kind import Weighed
from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_intake import PROTECTION
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.mechanics.bearing_rules import DRY_WICK, ENDS, sleeve_left
from careful_coil.core.mechanics.brush_rules import next_bar, ran_smooth
from careful_coil.core.mechanics.open_rules import parts_left

BAR = "bar {}"
# what is found bad, and the field where it is said to be mended
MEND = {
    "shaft-feel": "feel",
    "bolts-drive": "felt-bolts-drive",
    "bolts-other": "felt-bolts-other",
    "fan": "felt-fan",
    "seals": "felt-seals",
    "brush": "brush-done",
    "bars": "bars-typed",
    "bars-shaft": "bars-shaft",
    "lead-mended": "lead-done",
    "cord": "felt-cord-done",
    "relief": "felt-relief",
}


def mechanics_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what Mechanics asks for, in the order the hands work."""
    job, kinds, findings = c.job, c.kinds, c.findings
    hands = job.hands
    judged = job.seen.sealed or any(f.code == "mechanics" and f.verdict == "good" for f in findings)
    if has_brushes(kinds) and not job.plate.printed("protection"):
        yield PROTECTION
    if not judged:
        felt = bool(hands.felt.get("feel"))
        if not felt:
            why = "Load off, protector open or unplugged: free, rough, binding, rubbing, seized."
            yield _step("feel", "Turn the shaft by hand", "feel", why)
        for end, title in ENDS.items():
            yield from _bearing(job, end, title, findings)
        if felt and not job.deeds.stands("shaft", "felt:feel"):
            why = "Load off, once both bearings are in: free, rough, binding, rubbing, seized."
            yield _step("feel", "Turn the shaft by hand again", "feel", why)
        if has_brushes(kinds) and not hands.brushes:
            why = "Length, spring, seating, and how it sparked."
            yield _step("brushes", "Look at the brushes", "brush-length", why)
    attested = judged and not hands.felt.get("feel")  # somebody's word for all of it
    ran = bool(job.trials.sheets)  # what a run has shown is not looked for any more
    if not (job.seen.sealed or attested or hands.felt.get("fan") or ran):
        why = (
            "Blades whole and fast on the shaft, guard there, air ways clear: without air it burns."
        )
        yield _step("fan", "Look at fan and guard", "felt-fan", why)
    yield from _bars(job, kinds)
    joined = job.found is not None and job.found.joints
    told = hands.felt.get("temporary") or hands.temporary
    if joined and not (attested or ran or told):
        why = "A jumper across a protector, a clip, a joint of tape alone: it was somebody's for a day."
        yield _step("left-on", "Look for what is temporary", "temporary", why)
    for f in findings:
        if f.code in MEND and (f.verdict == "hold" or _to_ease(job, f)):
            yield _step(f"mend-{f.code}", f.subject, MEND[f.code], f.why)
    for f in findings:
        if f.code == "temporary" and f.verdict == "hold":
            name = f.subject.split(":")[0].removeprefix("Temporary ")
            yield _step(f"temporary-{name}", f"Clear {name}", "temporary-cleared", f.why)
    left = parts_left(job)
    if left and judged:
        why = f"{len(left)} to go, the last off first on."
        yield _step(f"back-{left[0].part}", f"Put back: {left[0].part}", "assembly", why)


def _to_ease(job: Job, f: Finding) -> bool:
    """Whether a shaft turns roughly, and nobody has eased it or renewed a bearing for it yet."""
    worked = job.deeds.counted(("shaft", "bearing"))
    return f.code == "shaft-feel" and f.verdict == "watch" and not any(worked)


def _of_bearing(told: Mapping[str, str], found: Finding) -> str:
    """Return the field of a bearing that is asked for: how it runs, of a sleeve its oil, what was done to it."""
    if not told.get("state"):
        return "state"
    if told.get("sort") != "sleeve":
        return "fitted" if told.get("done") == "renewed" and not told.get("fitted") else "done"
    if told.get("wick") in DRY_WICK:
        return "wick"
    left = sleeve_left(told)
    if left:
        untouched = told["state"] != "good" and not told.get("done")
        return "done" if untouched else left[0]
    return "ports" if told.get("ports") and found.verdict == "unproven" else "done"


def _bearing(job: Job, end: str, title: str, findings: Sequence[Finding]) -> Iterator[NextStep]:
    told = job.hands.bearings.get(end, {})
    found = next((f for f in findings if f.code == f"bearing-{end}"), None)
    if not told:
        why = "Its number as read, ? for a worn character; or sleeve where it has no balls."
        yield _step(f"bearing-{end}", f"Bearing, {title.lower()}", f"{end}-number", why)
    elif found is not None and found.verdict in ("hold", "unproven"):
        focus = f"{end}-{_of_bearing(told, found)}"
        unmeasured = not told.get("outside") or ("disagree" in found.why and not told.get("bore"))
        if "measure" in found.why.lower() and unmeasured:
            focus = f"{end}-size"
        outside = ("outside",) if focus.endswith("-size") and not told.get("outside") else ()
        if outside and told.get("number"):
            subject = f"Bearing, {title.lower()}: callipers on its outside"
            step = _step(
                f"bearing-{end}",
                subject,
                focus,
                "mm. It tells whether the number is the one that belongs.",
            )
            yield replace(step, ends=outside)
        else:
            yield _step(f"bearing-{end}", found.subject, focus, found.why)


def _bars(job: Job, kinds: Weighed) -> Iterator[NextStep]:
    hands = job.hands
    bar = next_bar(hands)
    if ran_smooth(job):
        return
    if bar is not None:
        yield NextStep(
            code=f"bar-{bar}",
            act="bar",
            title=f"Bar {bar} to bar {bar % hands.bars + 1}",
            why=f"{len(hands.ohms)} of {hands.bars} read. Four wires, probes pressed, brushes lifted.",
            station="mechanics",
            ends=(BAR.format(bar), BAR.format(bar % hands.bars + 1)),
            focus="bars-typed",
        )
    elif not hands.bars and has_brushes(kinds):
        yield _step("bars", "Count the bars", "bars-count", "Then each bar to the next, all round.")
    elif hands.bars and not hands.felt.get("bars-shaft"):
        why = "Insulation tester at its lowest volts, brushes lifted."
        yield _step("bars-shaft", "Bars to shaft", "bars-shaft", why)


def _step(code: str, title: str, focus: str, why: str) -> NextStep:
    return NextStep(code=code, title=title, why=why, station="mechanics", focus=focus)
