"""A capacitor judged: by its looks first, then by what it measures against what is printed on it."""

from dataclasses import dataclass
from typing import Literal

from careful_coil.core.can_marking import Kind, Marking, duty_of
from careful_coil.core.sheets.gear import CAPACITOR

Verdict = Literal["good", "watch", "hold", "unproven"]
Apart = tuple[float, float, float]  # % a start capacitor may be under and over, a run capacitor off
START_BELOW, START_ABOVE = 0.0, 20.0  # % of a single figure on a start capacitor (shop default)
RUN_APART = 5.0  # % on a run capacitor (shop default; 6 and 10 are printed too)
METER_APART = 0.01  # of 1: what a capacitance meter leaves open
FADING_SHARE = 0.8  # of the least allowed: below it a start capacitor no longer starts a load
WORST_LOSS = {"start": 0.15, "run": 0.005}  # W a VA on alternating current, usual upper ends


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """What is thought of a capacitor: verdict, why, the µF allowed, what to do."""

    verdict: Verdict
    why: str
    low: float
    high: float
    do: str = ""


def judge_capacitor(
    marking: Marking,
    microfarad: float | None,
    looks: str = "sound",
    kind: Kind = "",
    loss: float | None = None,
    apart: Apart = (START_BELOW, START_ABOVE, RUN_APART),
) -> Judged:
    """Return what is thought of a capacitor.

    `kind` where it serves, if the marking does not tell; `microfarad` None while it is not measured;
    `loss` watts over volt-amperes where read; `apart` % a start capacitor may be below and above a
    single figure, % a run capacitor may be off.
    """
    serves = kind or marking.kind
    below, above = (apart[2], apart[2]) if serves == "run" else apart[:2]
    below = below if serves else max(below, apart[2])  # a run capacitor's, while nobody has said
    low, high = marking.allowed(below, above)

    def found(verdict: Verdict, why: str, do: str = "") -> Judged:
        return Judged(verdict=verdict, why=why, low=low, high=high, do=do)

    if marking.kind == "dc":
        return found("hold", "made for direct current: it bursts on alternating current", REPLACE)
    if marking.kind and kind and marking.kind != kind:
        return found("hold", MISPLACED[kind], REPLACE)
    seen = CAPACITOR.field("looks").means(looks)
    if seen is not None and seen.verdict == "hold":
        return found("hold", seen.why, REPLACE)
    if microfarad is None:
        return found("unproven", "not measured", "discharge it, prove it, measure it")
    span = f"{low:.4g} to {high:.4g} µF"
    if microfarad < low * (1 - METER_APART):
        short = microfarad < FADING_SHARE * low
        why = f"{microfarad:.4g} µF, {span} wanted"
        if short or serves == "run":
            return found("hold", why, REPLACE)
        return found("watch", f"{why}: it fades", "replace it while the motor is open")
    if microfarad > high * (1 + METER_APART):
        return found(
            "hold", f"{microfarad:.4g} µF, {span} wanted: not the part, or failing", REPLACE
        )
    most = WORST_LOSS.get(serves)
    if loss is not None and most is not None and loss > most:
        return found("hold", f"loses {loss:.1%} of its volt-amperes, {most:.1%} at most", REPLACE)
    if not serves:
        return found("unproven", f"{microfarad:.4g} µF is right for {span}", "say where it serves")
    if kind and not marking.kind and duty_of(marking.text) not in ("", kind):
        return found(
            "watch",
            f"{microfarad:.4g} µF, within {span}, but by its volts {MISPLACED[kind]}",
            REPLACE,
        )
    return found("good", f"{microfarad:.4g} µF, within {span}")


REPLACE = "replace it: find one on the shelf"
MISPLACED: dict[str, str] = {
    "run": "a start capacitor where one stays in: made for seconds, it bursts",
    "start": "a run capacitor where a start capacitor belongs: good for it, seldom enough µF",
}
