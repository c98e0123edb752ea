"""What each station lets be recorded, and when not: why, and what makes it so. By the kind of entry."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from careful_coil.core.connect.dead import AtBench, lapsed
from careful_coil.core.connect.work import fit_key, out_key
from careful_coil.core.gear.work import left_of, steps_of
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.settings import Settings
from careful_coil.core.trial.begin import why_no_volts

INITIALS = "Your initials first, at the foot of the rack: it is logged under them."


@dataclass(frozen=True, slots=True)
class Asking:
    """Who asks to record something, when, of which job, by whose settings."""

    judged: Judgement
    bench: AtBench
    settings: Settings


Admits = Callable[[Asking, Any], str]


def signed(asking: Asking, _: Any) -> str:
    """It is logged under somebody's initials."""
    return "" if asking.bench.who else INITIALS


def dead(asking: Asking, _: Any) -> str:
    """Hands go in: the proof of no volts must hold."""
    why = lapsed(asking.judged.job, asking.bench, asking.settings)
    return f"{why} Prove it dead first." if why else ""


def fitted(asking: Asking, body: Any) -> str:
    """A device is fitted or taken out by hand; other ticks are looks."""
    return (
        dead(asking, body) if body.done and body.step.startswith((fit_key(""), out_key(""))) else ""
    )


def no_holds(asking: Asking, body: Any) -> str:
    """A sheet is signed, and begun only where nothing was found that no volts go on before."""
    return signed(asking, body) or why_no_volts(asking.judged.findings)


def powered(asking: Asking, body: Any) -> str:
    """A step of work that puts volts on is signed, and comes after all before it."""
    steps = steps_of(body.work)
    step = next((s for s in steps if s.name == body.step), None)
    if not body.done or step is None or not step.powered:
        return ""
    if not asking.bench.who:
        return INITIALS
    left = left_of(body.work, asking.judged.job.gear.steps.get(body.work, ()))
    before = [s for s in left if steps.index(s) < steps.index(step)]
    return f"Before any volts: {before[0].words}" if before else ""


LEADS: Mapping[str, Admits] = {"proved-dead": signed}
INSULATION: Mapping[str, Admits] = {"test-ready": signed}
CONNECT: Mapping[str, Admits] = {
    "joint": dead,
    "parted": dead,
    "insulated": dead,
    "step-ticked": fitted,
}
GEAR: Mapping[str, Admits] = {"gear-step": powered}
TRIAL: Mapping[str, Admits] = {"trial-begun": no_holds}
