"""Capacitors of a job judged: marking, looks, what they measured section by section, discharged and proved."""

import math
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from functools import partial

from careful_coil.core.can_marking import Kind, Marking, duty_of, read_marking, serves_of
from careful_coil.core.errors import CoilError
from careful_coil.core.gear.judge import Apart, Judged, judge_capacitor
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.settings import Settings

MOST_MICROFARAD = 1e6
FARAD_APART = 0.2  # of the plate's or the old one's: more is another part (shop default)
VOLT_SHARE = 0.9  # of the plate's lowest volts: a capacitor for less is another motor's
# of the same for one that stays in: in quadrature with the start winding it sees 1.2 to 1.9 times the line
# (Veinott, Theory and Design of Small Induction Motors, on permanent-split motors)
RUN_VOLT_SHARE = 1.2
RUN_VOLTS = (250.0, 370.0, 400.0, 440.0, 450.0, 500.0)  # as run capacitors are sold
WIDER_BELOW = 10.0  # %, under one figure where the shop takes −10 +20 %
ALIKE = 1.2  # of the µF of another: the same size
WORST = ("hold", "unproven", "watch", "good")


def apart_of(settings: Settings) -> Apart:
    """Return what a shop allows, in %: a start capacitor under and over one figure, a run capacitor off."""
    below = settings.start_microfarad_below.value
    wider = settings.school("start-window") != "as marked"
    return (
        max(below, WIDER_BELOW) if wider else below,
        settings.start_microfarad_above.value,
        settings.run_microfarad_apart.value,
    )


# what a meter shows that finds no µF, and what it means
DEAD = {
    "shorted": "the meter reads a short through it: it puts full volts on the start winding",
    "open": "the meter finds no µF: it is open, the motor hums",
}


def capacitor_of(gear: Gear, name: str, settings: Settings) -> tuple[Marking | None, Judged | None]:
    """Return a capacitor's marking and what is thought of it; None where there is no marking yet.

    Of a can with several sections the worst counts.
    """
    told = gear.capacitors.get(name, {})
    try:
        marking = read_marking(told.get("marking", ""))
    except CoilError:
        return None, None
    dead = DEAD.get(told.get("microfarad", ""))
    if dead is not None:
        return marking, Judged(
            verdict="hold", why=dead, low=marking.low, high=marking.high, do="replace it"
        )
    if len(marking.sections) > 1:
        return marking, _sections(gear, name, marking, settings)
    measured = measured_of(gear, name)
    return marking, _judged(gear, name, marking, measured[0] if measured else None, settings)


def _judged(
    gear: Gear, name: str, marking: Marking, microfarad: float | None, settings: Settings
) -> Judged:
    told = gear.capacitors.get(name, {})
    # as said; else by what is printed: words, class, volts with µF. Else it is asked
    serves: Kind = told.get("serves", "") or duty_of(told.get("marking", ""))  # type: ignore[assignment]
    return judge_capacitor(
        marking,
        microfarad,
        told.get("looks", ""),
        serves if serves in ("start", "run") else "",
        loss_of(gear, name),
        apart_of(settings),
    )


def _sections(gear: Gear, name: str, marking: Marking, settings: Settings) -> Judged:
    measured = measured_of(gear, name)
    if measured and len(measured) != len(marking.sections):
        measured = ()
    found = []
    for k, farad in enumerate(marking.sections):
        own = replace(marking, low=farad, high=farad, sections=())
        got = _judged(gear, name, own, measured[k] if measured else None, settings)
        found.append(replace(got, why=f"common to section {k + 1} ({farad:g} µF): {got.why}"))
    worst = min(found, key=lambda j: WORST.index(j.verdict))
    if worst.verdict == "unproven":
        return replace(
            worst, why="its sections are not measured apart: 34.6/4.9, in the order printed"
        )
    return worst if worst.verdict != "good" else replace(worst, why="; ".join(j.why for j in found))


def capacitor_findings(job: Job, settings: Settings, kind: str = "") -> Iterator[Finding]:
    """Yield what each capacitor holds up; `kind` of the motor where it is known."""
    gear = job.gear
    for name in gear.capacitors:
        marking, thought = capacitor_of(gear, name, settings)
        of = partial(
            Finding, code="capacitor", part=f"capacitor:{name}", station="start-gear", gate=True
        )
        if marking is None or thought is None:
            yield of(
                verdict="unproven",
                subject=f"Capacitor {name}: no marking read",
                why="Write down what is printed on it, or work its µF out from the winding.",
            )
            continue
        wrong = wrong_part(job, name, marking, kind, settings)
        handled = gear.capacitors[name].get("drained") or gear.capacitors[name].get("microfarad")
        if wrong and handled:  # until it is discharged it is not proven anyway
            yield of(
                verdict="hold",
                subject=f"Capacitor {name}: wrong one",
                why=f"{wrong} Fit one from the shelf.{_beside(gear, name)}",
                waivable=False,
            )
            continue
        since = job.deeds.last("capacitor", f"capacitor:{name}")
        stale = since >= 0 and job.deeds.stamps.get(f"capacitor:{name}:microfarad", -1) <= since
        if thought.verdict in ("good", "watch") and stale:
            yield of(
                verdict="unproven",
                subject=f"Again: measure capacitor {name}",
                why=f"{job.deeds.voiding('capacitor', f'capacitor:{name}').words.capitalize()} since.",  # type: ignore[union-attr]
            )
            continue
        if thought.verdict in ("good", "watch") and not gear.capacitors[name].get("drained"):
            yield of(
                verdict="unproven",
                subject=f"Capacitor {name} not proved discharged",
                why="Through a resistor, then volts by the meter, shown on a live source before and after.",
            )
            continue
        word = {"good": "right", "watch": "fades", "hold": "bad"}.get(thought.verdict, "not judged")
        do = f"{thought.do[0].upper()}{thought.do[1:]}." if thought.do else ""
        measured = measured_of(gear, name)
        yield of(
            verdict=thought.verdict,
            subject=f"Capacitor {name} {word}",
            why=f"{thought.why[0].upper()}{thought.why[1:]}. {do}{_beside(gear, name)}".rstrip(),
            unit="µF",
            figure=measured[0] if len(measured) == 1 else None,
            limit=thought.low,
            source="its own marking; the shop's tolerance where it gives one figure",
            waivable=thought.verdict != "hold",
        )


def _beside(gear: Gear, name: str) -> str:
    """Return the old one beside the new, empty where it was not renewed."""
    old, by = gear.replaced.get(name), gear.capacitors.get(name, {}).get("renewed", "")
    if old is None or not by:
        return ""
    told = ", ".join(f"{k} {v}" for k, v in old.items() if k in ("marking", "microfarad", "looks"))
    return f" Renewed by {by}; the old one: {told or 'not read'}."


def wrong_part(job: Job, name: str, marking: Marking, kind: str, settings: Settings) -> str:
    """Return why a capacitor is not the one this motor needs, by its kind, plate, volts and the old one's."""
    told = job.gear.capacitors.get(name, {})
    serves = told.get("serves", "") or marking.kind
    if kind == "permanent-capacitor" and serves == "start":
        return "A start capacitor in a motor whose capacitor stays in: made for seconds, it bursts."
    rated = min((low for low, _ in job.plate.volts), default=0.0)
    share = RUN_VOLT_SHARE if serves == "run" and not marking.ranged else VOLT_SHARE
    if marking.volt and rated and marking.volt < share * rated:
        more = "the winding puts more on it than the line: " if share > 1 else ""
        return f"{name} is marked {marking.volt:g} V; {more}this motor needs {share * rated:.0f} V or more."
    told_by = _wanted(job, name)
    if told_by is None:
        return ""
    source, least, most, volt = told_by
    if marking.high < least * (1 - FARAD_APART) or marking.low > most * (1 + FARAD_APART):
        own = f"{marking.low:g}" if not marking.ranged else f"{marking.low:g} to {marking.high:g}"
        wanted = f"{least:g}" if most <= least else f"{least:g} to {most:g}"
        return f"{name} is marked {own} µF; {wanted} µF by {source}."
    if volt and marking.volt and marking.volt < volt:
        return f"{name} is marked {marking.volt:g} V; {source} wants {volt:g} V."
    return ""


def to_fit(job: Job, name: str) -> str:
    """Return what to fit in its place, as it would be printed: by the plate, else as the old one; empty unknown."""
    told_by = _wanted(job, name)
    own: Marking | None = None
    with suppress(CoilError):
        own = read_marking(job.gear.capacitors.get(name, {}).get("marking", ""))
    if told_by is None and own is None:
        return ""
    low, high = (told_by[1], told_by[2]) if told_by is not None else (own.low, own.high)  # type: ignore[union-attr]
    volts = [own.volt if own is not None else 0.0, told_by[3] if told_by is not None else 0.0]
    rated = min((v for v, _ in job.plate.volts), default=0.0)
    serves = job.gear.capacitors.get(name, {}).get("serves", "")
    stays = own is not None and (serves or own.kind) == "run"
    usual = [v for v in RUN_VOLTS if v >= RUN_VOLT_SHARE * rated] if stays else []
    if usual and max(volts) < RUN_VOLT_SHARE * rated:
        volts.append(usual[0])
    farad = f"{low:g}" if high <= low else f"{low:g}-{high:g}"
    return f"{farad} µF {max(volts):g} V" if max(volts) else f"{farad} µF"


def renewed_as(job: Job, name: str) -> str:
    """Return what was asked for in place of one that was renewed and whose print is not noted yet, else nothing."""
    fresh = name in job.gear.replaced and not job.gear.capacitors.get(name, {}).get("marking")
    return to_fit(job, name) if fresh else ""


def serves_as(job: Job, name: str) -> str:
    """Return what one renewed as it was asked for serves: what the old one did, where that was of its size."""
    told = job.gear.replaced.get(name, {})
    wanted = _wanted(job, name)
    try:
        old = read_marking(told.get("marking", ""))
    except CoilError:
        return ""
    alike = wanted is not None and wanted[1] <= ALIKE * old.high and old.low <= ALIKE * wanted[2]
    return serves_of(told) if alike else ""


def _wanted(job: Job, name: str) -> tuple[str, float, float, float] | None:
    """Return what says how many µF belong there (from, to) and V at least: the plate, else the old one."""
    old: Marking | None = None
    with suppress(CoilError):
        old = read_marking(job.gear.replaced.get(name, {}).get("marking", ""))
    plate: Marking | None = None
    with suppress(CoilError):
        plate = read_marking(job.plate.printed("capacitor"))
    if plate is not None and len(job.gear.capacitors) < 2:
        return "the plate", plate.low, plate.high, plate.volt
    if old is not None:
        return "the old one", old.low, old.high, old.volt
    return None


def measured_of(gear: Gear, name: str) -> tuple[float, ...]:
    """Return the µF measured, one a section; empty where there is none, or a log holds no figure."""
    text = gear.capacitors.get(name, {}).get("microfarad", "")
    try:
        values = tuple(float(t) for t in text.split("/"))
    except ValueError:
        return ()
    return values if all(0 < v < MOST_MICROFARAD for v in values) else ()


def loss_of(gear: Gear, name: str) -> float | None:
    """Return W over volt-amperes, of 1; None where it is not known."""
    text = gear.capacitors.get(name, {}).get("loss", "")
    try:
        share = float(text.removesuffix("%")) / 100
    except ValueError:
        return None
    return share if 0 <= share < 1 else None


def bleed_of(gear: Gear, name: str) -> float | None:
    """Return the ohms of the bleed resistor fitted; None where there is none."""
    value = _figure(gear, name, "bleed")
    return value if value is not None and 0 < value < math.inf else None


def _figure(gear: Gear, name: str, field: str) -> float | None:
    try:
        return float(gear.capacitors.get(name, {}).get(field, ""))
    except ValueError:
        return None
