"""What Start gear must have settled: capacitors, devices, work begun, and the gate's line of the whole."""

from collections.abc import Iterator
from functools import partial

from careful_coil.core.gear.capacitor_rules import capacitor_findings
from careful_coil.core.gear.device_rules import device_findings
from careful_coil.core.gear.work import left_of, steps_of
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.settings import Settings

UNDONE = "Switch, relay and capacitors: tested, and by whom."


def gear_findings(job: Job, settings: Settings, without: bool = False) -> list[Finding]:
    """Return findings on capacitors, devices and work on them, and the gate's line of the whole.

    `without` whether its kind has no start gear; what is noted is judged all the same.
    """
    gear = job.gear
    fitted = gear.capacitors or gear.devices or gear.steps
    if (without or job.plate.phases == 3) and not fitted:
        return []  # tests of a complaint's cause alone make no start gear
    found = [
        *capacitor_findings(gear, settings),
        *device_findings(gear, settings, job.plate),
        *_work(gear),
    ]
    of = partial(Finding, code="start-gear", station="start-gear", gate=True)
    word = (job.attested or {}).get("start-gear")
    names = [*gear.capacitors, *gear.devices]
    if word is not None:
        found.append(of(verdict="good", subject="Start gear judged", why=word.words))
    elif names and all(f.verdict in ("good", "watch") for f in found):
        found.append(of(verdict="good", subject="Start gear judged", why=f"{', '.join(names)}."))
    else:
        left = [f.subject for f in found if f.verdict not in ("good", "watch")]
        why = f"{'; '.join(left)}." if left else UNDONE
        found.append(of(verdict="unproven", subject="Start gear not judged", why=why))
    return found


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
