"""Devices of a job judged: each reading, actuator and contact plate apart, the speed at which it lets go."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import partial

from careful_coil.core.can_marking import serves_of
from careful_coil.core.errors import CoilError
from careful_coil.core.gear.names import KINDS, title_of
from careful_coil.core.gear.table import (
    FACTS,
    OPEN,
    Expected,
    Verdict,
    expected_of,
    judged,
    limited,
)
from careful_coil.core.gear.wiring import noted_device
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.gear import Gear
from careful_coil.core.job.plate import Nameplate
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.gear import DEVICE
from careful_coil.core.values import show_ohm
from careful_coil.core.ways.devices import POSITIONED, Device
from careful_coil.core.winding.speed import poles_of

# what of a device is looked at: of a speed switch its mechanism and plate; closed contacts of a protector
# say nothing of a jumper, which reads the same
LOOKED_AT = {
    "speed-switch": ("actuator", "plate"),
    "change-over": ("actuator", "plate"),
    "protector": ("across",),
    "electronic-switch": ("across",),
}
LOOKED_TITLES = {
    "mechanism on the shaft": "actuator",
    "contact plate": "plate",
    "what lies across it": "across",
}
POSITIONS = "its positions"  # of a switch worked by hand: not known yet
EARLY, LATE = 5.0, 5.0  # % of n_sync outside the band that is a watch, not a hold
ORDER = ("hold", "unproven", "watch", "good")


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """One thing of a device: what, verdict, why; `expected` where it is a reading of ohms."""

    what: str
    verdict: Verdict
    why: str
    expected: Expected | None = None


def fitted(gear: Gear, name: str) -> Device:
    """Return a device of the job by name."""
    return noted_device(gear, name)


def told_of(
    gear: Gear, name: str, settings: Settings, plate: Nameplate | None = None
) -> list[Told]:
    """Return what is known of a device, in the order it is asked for; unproven what is not known yet."""
    device = fitted(gear, name)
    if device.kind in POSITIONED and not device.table:
        why = "write down which contacts its positions close: 0: off; 1: L-H; 2: L-M"
        return [Told(what=POSITIONS, verdict="unproven", why=why)]
    kind = gear.devices[name]
    expected = (
        FACTS[kind].expected
        if kind == "change-over"
        else expected_of(device, _starts_by_capacitor(gear))
    )
    dress = settings.school("contacts") == "dress"
    found = [_reading(gear, name, e, dress) for e in limited(expected, settings)]
    found += [_looked(gear, name, what) for what in LOOKED_AT.get(kind, ())]
    for what in ("out", "back"):
        text = gear.noted.get((name, what), "")
        if text:
            found.append(_let_go(what, text, gear.noted.get((name, "out"), ""), settings, plate))
    return found


def _starts_by_capacitor(gear: Gear) -> bool:
    """Whether a start capacitor is among the job's."""
    return any(serves_of(told) == "start" for told in gear.capacitors.values())


def _reading(gear: Gear, name: str, e: Expected, dress: bool) -> Told:
    place = name, e.between, e.when
    read = gear.read.get(place)
    what = f"{e.between[0]} to {e.between[1]}, {e.when}"
    if read is None:
        return Told(what=what, verdict="unproven", why="not read", expected=e)
    verdict, why = judged(e, OPEN if read.ohm is None else read.ohm, read.left_open, dress)
    first = gear.first.get(place)
    if first is not None and first.ohm != read.ohm:
        why += f"; {_ohm(first.ohm)} before"
    return Told(what=what, verdict=verdict, why=why, expected=e)


def _ohm(ohm: float | None) -> str:
    return "open" if ohm is None else show_ohm(ohm)


def _looked(gear: Gear, name: str, what: str) -> Told:
    title = next(t for t, w in LOOKED_TITLES.items() if w == what)
    seen = gear.noted.get((name, what), "")
    means = DEVICE.field(what).means(seen)
    if means is None or means.verdict not in ("good", "watch", "hold"):
        return Told(what=title, verdict="unproven", why="not looked at")
    why = means.why if means.verdict == "good" else f"{seen}: {means.why}"
    return Told(what=title, verdict=means.verdict, why=why)


def _let_go(what: str, text: str, out: str, settings: Settings, plate: Nameplate | None) -> Told:
    """Return how the speed or time at which it opens, or recloses, is judged."""
    title = "opens" if what == "out" else "recloses"
    figure, unit = speed_or_time(text)
    if unit == "s":
        watch, hold = settings.switch_out_watch, settings.switch_out_hold
        over = hold if figure > hold.value else watch if figure > watch.value else None
        verdict: Verdict = "good" if over is None else "hold" if over is hold else "watch"
        limit = (over or watch).value
        why = f"{figure:g} s, {limit:g} s at most" + (
            "" if over is None else ": it cooks the winding"
        )
        by_speed = settings.school("drop-out") == "speed"
        why += "; its speed decides, where a tachometer reads it" if by_speed else ""
        return Told(what=title, verdict=verdict, why=why)
    sync = sync_rpm(plate)
    if sync is None:
        return Told(
            what=title,
            verdict="unproven",
            why=f"{figure:g} rpm: the plate's hertz and rpm are wanted",
        )
    share = 100 * figure / sync
    words = f"{figure:g} rpm, {share:.0f} % of {sync:g}"
    if what == "out" and settings.school("drop-out") == "time":
        words += " (this shop times it: say the seconds too)"
    low, high = settings.switch_out_from.value, settings.switch_out_to.value
    if what == "back":
        before = speed_or_time(out)[0] if out else 0.0
        if before and figure >= before:
            return Told(
                what=title,
                verdict="hold",
                why=f"{words}: it must reclose below the speed it opens at",
            )
        late = share > high
        return Told(
            what=title,
            verdict="hold" if late else "good",
            why=f"{words}: under load it recloses" if late else f"{words}: below any loaded speed",
        )
    if low <= share <= high:
        return Told(what=title, verdict="good", why=f"{words}, within {low:g} to {high:g} %")
    near = low - EARLY <= share <= high + LATE
    side = "early: weak run-up, chatter" if share < low else "late: the start winding cooks"
    return Told(
        what=title,
        verdict="watch" if near else "hold",
        why=f"{words}, {low:g} to {high:g} % wanted; {side}",
    )


def speed_or_time(text: str) -> tuple[float, str]:
    """Return a kept figure and its unit, rpm or s; 0 for what a log holds besides."""
    number, _, unit = text.partition(" ")
    try:
        return float(number), unit or "rpm"
    except ValueError:
        return 0.0, "rpm"


def sync_rpm(plate: Nameplate | None) -> float | None:
    """Return n_sync by the plate, None where it does not tell."""
    if plate is None or not plate.hertz or not plate.rpm:
        return None
    try:
        return 120 * plate.hertz / poles_of(plate.hertz, plate.rpm)
    except CoilError:
        return None


def device_findings(job: Job, settings: Settings) -> Iterator[Finding]:
    """Yield what each device holds up."""
    gear, plate = job.gear, job.plate
    for name, kind in gear.devices.items():
        title = title_of(kind)
        of = partial(
            Finding, code="start-device", part=f"device:{name}", station="start-gear", gate=True
        )
        told = told_of(gear, name, settings, plate)
        if not told:
            yield of(
                verdict="note",
                subject=f"{title} {name}",
                why="Its readings are its maker's: a timed start shows whether it opens.",
            )
            continue
        told = [_stale(job, name, t) for t in told]
        worst = min(told, key=lambda t: ORDER.index(t.verdict))
        word = {"good": "reads right", "watch": "is tired", "hold": "is bad"}.get(
            worst.verdict, "not judged"
        )
        yield of(
            verdict=worst.verdict,
            subject=f"{title} {name} {word}",
            why=f"{worst.what[0].upper()}{worst.what[1:]}: {worst.why}.{_beside(gear, name)}",
            source="trade practice; the maker's figures win",
        )


def _stale(job: Job, name: str, told: Told) -> Told:
    """Return what was told of a device; unproven again where something done since asks for it anew."""
    part = f"device:{name}"
    deed = job.deeds.voiding("device", part)
    if deed is None or told.verdict not in ("good", "watch"):
        return told
    if told.expected is not None:
        e = told.expected
        stamp = f"device-read:{name}:{'-'.join(e.between)}:{e.when}"
    elif told.what in LOOKED_TITLES:
        stamp = f"device-noted:{name}:{LOOKED_TITLES[told.what]}"
    else:
        return told
    if job.deeds.stamps.get(stamp, -1) > deed.place:
        return told
    return replace(told, verdict="unproven", why=f"again: {deed.words} since")


def _beside(gear: Gear, name: str) -> str:
    """Return the old one beside the new, empty where it was not renewed."""
    old, by = gear.replaced.get(name), gear.noted.get((name, "renewed"), "")
    if old is None:
        return ""
    told = ", ".join(f"{k} {v}" for k, v in old.items() if v and k != "device")
    was = title_of(old["device"]).lower() if old.get("device") in KINDS else ""
    other = f", {was}" if was and old["device"] != gear.devices.get(name) else ""
    return f" Renewed{f' by {by}' if by else ''}; the old one{other}: {told or 'not read'}."
