"""Start gear on the job sheet: cause, capacitors, devices with their readings, work, in lines of words."""

from collections.abc import Iterator

from careful_coil.core.gear.capacitor_rules import measured_of
from careful_coil.core.job.gear import Gear
from careful_coil.core.ledger import Judgement
from careful_coil.core.sheets.gear import DEVICE
from careful_coil.core.values import show_ohm

CODES = ("cause", "capacitor", "start-device", "gear-work")
MOST_TRIED = 6


def gear_lines(judged: Judgement) -> Iterator[str]:
    """Yield what the sheet says of the start gear; nothing where nothing was noted."""
    gear = judged.job.gear
    if gear.empty:
        return
    for f in judged.findings:
        if f.code in CODES:
            yield f"{f.verdict.upper()}: {f.subject}. {f.why}"
    for name, told in gear.capacitors.items():
        measured = "/".join(f"{f:g}" for f in measured_of(gear, name))
        parts = (
            told.get("marking", "no marking"),
            told.get("serves", ""),
            f"measured {measured} µF" if measured else "",
            f"{told['drained']} V DC left on it" if told.get("drained") else "",
            f"bleed {told['bleed']} Ω" if told.get("bleed") else "",
        )
        yield f"{name}: {', '.join(p for p in parts if p)}."
    yield from _readings(gear)
    for tried in gear.tried[-MOST_TRIED:]:
        yield (
            f"Run with {tried.microfarad:g} µF: {tried.rpm:g} rpm, {tried.line_amp:g} A line, "
            f"{tried.aux_amp:g} A start winding, {tried.capacitor_volt:g} V on it."
        )


def _readings(gear: Gear) -> Iterator[str]:
    """Yield each device's readings in a line, the one before it was dressed beside."""
    for name in gear.devices:
        told = []
        for (device, between, when), read in gear.read.items():
            if device != name:
                continue
            before = gear.first.get((device, between, when))
            was = f" (before {_ohm(before.ohm)})" if before is not None else ""
            told.append(f"{between[0]} to {between[1]} {when} {_ohm(read.ohm)}{was}")
        told += DEVICE.lines({f: t for (device, f), t in gear.noted.items() if device == name})
        if told:
            yield f"{name}: {'; '.join(told)}."


def _ohm(ohm: float | None) -> str:
    return "open" if ohm is None else show_ohm(ohm)
