"""What Start gear saw, folded from its entries."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from careful_coil.core.job.at_start_gear import (
    DeviceFitted,
    DeviceRead,
    GearStep,
    RunTried,
    WindingLocked,
)
from careful_coil.core.job.body import put_text
from careful_coil.core.sheets.gear import CAPACITOR, DEVICE

Place = tuple[str, tuple[str, str], str]  # device, terminals, posture


@dataclass(frozen=True, slots=True, kw_only=True)
class Gear:
    """Test outcomes by name; capacitors and devices by name, in the order met; newest readings by place.

    `replaced` what was noted of a part before it was renewed, by name: the old one's, kept beside the new.

    `first` the first reading of a place that was read again (a contact before it was dressed); `noted`
    things of devices by name and field; `steps` those done by piece of work, in the order done.
    """

    tests: Mapping[str, str] = field(default_factory=dict)
    cause: str = ""  # of the complaint, as found
    capacitors: Mapping[str, Mapping[str, str]] = field(default_factory=dict)
    devices: Mapping[str, str] = field(default_factory=dict)
    read: Mapping[Place, DeviceRead] = field(default_factory=dict)
    first: Mapping[Place, DeviceRead] = field(default_factory=dict)
    noted: Mapping[tuple[str, str], str] = field(default_factory=dict)
    locked: Mapping[str, WindingLocked] = field(default_factory=dict)
    tried: tuple[RunTried, ...] = ()
    steps: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    replaced: Mapping[str, Mapping[str, str]] = field(default_factory=dict)
    was: "Gear | None" = None  # as it was found, before anything was renewed

    @property
    def empty(self) -> bool:
        """Whether nothing was noted."""
        return not (self.tests or self.capacitors or self.devices or self.steps)


def notice_gear(gear: Gear, body: Any) -> Gear:
    """Return what is known after one more entry."""
    if body.topic == "cause-tested":
        return replace(gear, tests=put_text(gear.tests, body.field, body.text))
    if body.topic == "cause-found":
        return replace(gear, cause=body.text)
    if body.topic == "capacitor":
        known = dict(gear.capacitors)
        if body.field == "gone":
            known.pop(body.of, None)
        elif body.field == "renewed" and body.text:
            old = known.get(body.of, {})
            known[body.of] = {k: v for k, v in old.items() if k in CAPACITOR.renews} | {
                "renewed": body.text
            }
            return replace(
                gear,
                was=gear.was or gear,
                capacitors=known,
                replaced={**gear.replaced, body.of: old} if old else gear.replaced,
            )
        elif body.field == "marking" and _another(known.get(body.of, {}), body.text):
            old = known[body.of]  # measured under another marking: this is another one
            known[body.of] = {k: v for k, v in old.items() if k in CAPACITOR.renews} | {
                "marking": body.text
            }
            return replace(
                gear,
                was=gear.was or gear,
                capacitors=known,
                replaced={**gear.replaced, body.of: old},
            )
        else:
            known[body.of] = put_text(known.get(body.of, {}), body.field, body.text)
        return replace(gear, capacitors=known)
    if isinstance(body, DeviceFitted):
        return _fitted(gear, body)
    if isinstance(body, DeviceRead):
        place = body.name, body.between, body.when
        first = gear.first
        if place in gear.read and place not in first:
            first = {**first, place: gear.read[place]}
        return replace(gear, read={**gear.read, place: body}, first=first)
    if body.topic == "device-noted" and body.field == "renewed" and body.text:
        return _renewed(gear, body)
    if body.topic == "device-noted":
        noted = {k: v for k, v in gear.noted.items() if k != (body.of, body.field) or body.text}
        if body.text:
            noted[body.of, body.field] = body.text
        return replace(gear, noted=noted)
    if isinstance(body, WindingLocked):
        return replace(gear, locked={**gear.locked, body.winding: body})
    if isinstance(body, RunTried):
        return replace(gear, tried=(*gear.tried, body))
    if isinstance(body, GearStep):
        done = tuple(s for s in gear.steps.get(body.work, ()) if s != body.step)
        done = (*done, body.step) if body.done else done
        kept = {w: s for w, s in gear.steps.items() if w != body.work}
        return replace(gear, steps={**kept, body.work: done} if done else kept)
    return gear


def _another(old: Mapping[str, str], marking: str) -> bool:
    """Whether a marking is of another capacitor: the one before was measured under its own."""
    before = old.get("marking", "")
    return bool(marking and before and before != marking and old.get("microfarad"))


def _renewed(gear: Gear, body: Any) -> Gear:
    """Return what is known once a device was renewed: it is read and looked at anew."""
    name = body.of
    old = {f: t for (n, f), t in gear.noted.items() if n == name}
    old |= {"device": gear.devices.get(name, "")}
    old |= {
        f"{'-'.join(between)} {when}": "open" if r.ohm is None else f"{r.ohm:g} Ω"
        for (n, between, when), r in gear.read.items()
        if n == name
    }
    kept = {(n, f): t for (n, f), t in gear.noted.items() if n != name or f in DEVICE.renews}
    return replace(
        gear,
        was=gear.was or gear,
        read={p: r for p, r in gear.read.items() if p[0] != name},
        first={p: r for p, r in gear.first.items() if p[0] != name},
        noted={**kept, (name, "renewed"): body.text},
        replaced={**gear.replaced, name: old},
    )


def _fitted(gear: Gear, body: DeviceFitted) -> Gear:
    """Return what is known with a device: another of the same name has its own readings and notes."""
    before = gear.devices.get(body.name)
    if before == body.device:
        return gear
    kept = (
        {**gear.replaced, body.name: {"device": before}}
        if before and body.device
        else gear.replaced
    )
    return replace(
        gear,
        devices=put_text(gear.devices, body.name, body.device),
        read={p: r for p, r in gear.read.items() if p[0] != body.name},
        first={p: r for p, r in gear.first.items() if p[0] != body.name},
        noted={k: v for k, v in gear.noted.items() if k[0] != body.name},
        replaced=kept,
    )
