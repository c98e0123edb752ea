"""What Start gear must have settled: capacitors, devices, work begun, and the gate's line of the whole."""

import re
from collections.abc import Iterator
from functools import partial

from careful_coil.core.can_marking import serves_of
from careful_coil.core.condition.suspicion import has_brushes
from careful_coil.core.gear.capacitor_rules import capacitor_findings
from careful_coil.core.gear.device_rules import device_findings
from careful_coil.core.gear.left_in import left_in_findings
from careful_coil.core.gear.work import left_of, steps_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.kind import Weighed
from careful_coil.core.settings import Settings
from careful_coil.core.ways.devices import START_DEVICES

UNDONE = "Switch, relay and capacitors: tested, and by whom."


def gear_findings(job: Job, settings: Settings, kinds: Weighed) -> list[Finding]:
    """Return findings on capacitors, devices and work on them, and the gate's line of the whole.

    A kind that has no start gear asks for none; what is noted is judged all the same.
    """
    gear = job.gear
    fitted = gear.capacitors or gear.devices or gear.steps
    if (has_brushes(kinds) or job.plate.phases == 3) and not fitted:
        return []  # tests of a complaint's cause alone make no start gear
    kind = surely(kinds, gear)
    found = [
        *capacitor_findings(job, settings, kind),
        *device_findings(job, settings),
        *_work(gear),
        *_bypassed(job),
        *left_in_findings(job),
    ]
    missing = [] if job.plate.phases == 3 else missing_parts(job, kind)
    of = partial(Finding, code="start-gear", station="start-gear", gate=True, waivable=False)
    names = [*gear.capacitors, *gear.devices]
    bare = kind in WITHOUT
    if missing and (names or job.seen.no_gear):
        found.append(
            of(
                verdict="unproven",
                subject=f"No {missing[0]} noted",
                why="A motor of this kind has one; one that is only assumed proves nothing.",
            )
        )
    elif (names or bare) and all(f.verdict in ("good", "watch", "note") for f in found):
        why = f"{', '.join(names)}." if names else "This kind has none."
        found.append(of(verdict="good", subject="Start gear judged", why=why))
    else:
        left = [f.subject for f in found if f.verdict not in ("good", "watch")]
        why = f"{'; '.join(left)}." if left else UNDONE
        found.append(of(verdict="unproven", subject="Start gear not judged", why=why))
    return found


SURE = 0.5  # odds from which a kind decides which parts are asked for
STARTERS = "start capacitor"
SWITCH = "start switch or relay"
# parts a kind must have, by the name of the kind
MUST_HAVE: dict[str, tuple[str, ...]] = {
    "split-phase": (SWITCH,),
    "capacitor-start": (STARTERS, SWITCH),
    "permanent-capacitor": ("run capacitor",),
    "capacitor-start-run": (STARTERS, "run capacitor", SWITCH),
}
WITHOUT = ("shaded-pole",)
BYPASS = re.compile(r"by-?pass|bridged|jumper|shorted out|linked out", re.IGNORECASE)


def surely(kinds: Weighed, gear: Gear) -> str:
    """Return the kind of motor where it is likelier than all others together, else nothing.

    A start device that is noted speaks against kinds that have none, whatever the looks say.
    """
    best = max(kinds.odds, key=lambda o: o.probability, default=None)
    if best is None or best.probability < SURE:
        return ""
    started = any(k in START_DEVICES for k in gear.devices.values())
    return "" if started and SWITCH not in MUST_HAVE.get(best.kind.name, ()) else best.kind.name


def missing_parts(job: Job, kind: str) -> list[str]:
    """Return the parts this motor must have and nobody has noted: by its kind, else by its capacitors."""
    serves = [serves_of(told) for told in job.gear.capacitors.values()]
    if "start" in serves:
        kind = "capacitor-start" if "run" not in serves else "capacitor-start-run"
    switched = any(k in START_DEVICES or k == "change-over" for k in job.gear.devices.values())
    has = {
        STARTERS: "start" in serves,
        "run capacitor": bool(set(serves) & {"run", ""}),
        SWITCH: switched,
    }
    return [part for part in MUST_HAVE.get(kind, ()) if not has[part]]


def _bypassed(job: Job) -> Iterator[Finding]:
    """Yield a start device that somebody has put out of action."""
    for name, change in job.hands.changed.items():
        if BYPASS.search(change.words) and re.search(r"switch|relay|protector", change.words, re.I):
            yield Finding(
                code="start-device",
                part=f"changed:{name}",
                verdict="hold",
                subject=f"By-passed: {change.words}",
                why="The start winding stays in and burns, or nothing trips. Take the by-pass off.",
                station="start-gear",
                gate=True,
                waivable=False,
            )


def _work(gear: Gear) -> Iterator[Finding]:
    """Yield work that was begun and is not done: nothing leaves half fitted."""
    for work, done in gear.steps.items():
        steps = steps_of(work)
        if not steps:
            continue
        left = left_of(work, done)
        title = f"{work[0].upper()}{work[1:]}"
        of = partial(Finding, code="gear-work", station="start-gear", gate=True, waivable=False)
        if left:
            yield of(
                verdict="unproven",
                subject=f"{title} not finished",
                why=f"{len(steps) - len(left)} of {len(steps)} steps done. Next: {left[0].words}",
            )
        else:
            yield of(verdict="good", subject=f"{title} done", why=f"{len(steps)} steps.")
