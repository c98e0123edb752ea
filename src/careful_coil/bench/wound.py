"""A motor document on the simulated bench: its winding as a network, what is hurt, devices in their place."""

import random
import re
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from careful_coil.bench.simulated import HiddenMotor
from careful_coil.core.ways.devices import Device
from careful_coil.core.winding.arrangements import arrangement
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.extras import EXTRAS, with_extras
from careful_coil.core.winding.network import Capacitor, Coil, Network
from careful_coil.documents.motor import TWO_LEADS, DeviceReal, MotorDocument

OPEN_OHM = 1e12  # of a broken coil: no meter tells it from open
# rings of a shaded pole over the main winding: electrical degrees behind it, turns, ohms
RING_ANGLE, RING_TURNS, RING_OHM = 50.0, 0.4, 2.0
DIRTY_OHM = 6.0  # what a dirty contact adds


def wound(motor: MotorDocument) -> Network:
    """Return the winding with its extras and what is inside in series with it; terminals are nodes."""
    network = _bare(motor)
    chance = random.Random(motor.name)
    spread = motor.spread_percent / 100
    ohm = {}
    for c in network.coils:
        own = motor.ohm.get(c.name, motor.ohm.get(c.like, motor.ohm.get(_kind(c.like), 1.0)))
        ohm[c.name] = own * (1 + chance.uniform(-spread, spread))
    network = network.with_ohm(_hurt(motor, network, ohm))
    turned = {coil_called(network, told) for told in _more(motor, "turned", ())}
    coils = tuple(
        replace(c, start=c.finish, finish=c.start) if c.name in turned else c for c in network.coils
    )
    network = replace(network, coils=coils)
    if not any(c.angle for c in network.coils):
        network = _ringed(network, motor)
    for device in motor.devices:
        if device.inside:
            network = _in_series(network, device)
    return _with_lone(network, motor)


def _bare(motor: MotorDocument) -> Network:
    if motor.arrangement != TWO_LEADS:
        return arrangement(motor.arrangement).inside(motor.inside)
    four = arrangement("single-phase-4-lead").network
    if not {"auxiliary", "start"} & set(motor.ohm):  # a shaded pole: its rings are no winding
        main = (replace(four.coils[0], start="line-1", finish="line-2"),)
        return replace(four, coils=main, leads=("line-1", "line-2"))
    inner = replace(four, leads=("line-1", "line-2"))
    return inner.joined([("line-1", "main-1", "aux-1"), ("line-2", "main-2", "aux-2")])


def _ringed(network: Network, motor: MotorDocument) -> Network:
    """Return a single-phase winding without a start winding with the rings of a shaded pole: shorted turns."""
    if not motor.arrangement.startswith("single-phase"):
        return network
    main = network.coils[0].ohm
    ring = Coil(
        name="rings",
        start="rings",
        finish="rings",
        like="rings",
        ohm=RING_OHM * main,
        angle=RING_ANGLE,
        turns=RING_TURNS,
    )
    return replace(network, coils=(*network.coils, ring))


def _kind(like: str) -> str:
    """Return the other word for a coil's kind, as a document may name it."""
    return {"run": "main", "start": "auxiliary", "main": "run", "auxiliary": "start"}.get(
        like, like
    )


def _more(motor: MotorDocument, name: str, usual: Any) -> Any:
    return (motor.model_extra or {}).get(name, usual)


def _hurt(motor: MotorDocument, network: Network, ohm: Mapping[str, float]) -> dict[str, float]:
    found = dict(ohm)
    for told, share in _more(motor, "hurt", {}).items():
        coil = coil_called(network, told)
        if coil:
            found[coil] = OPEN_OHM if share is None else found[coil] * share
    return found


def coil_called(network: Network, told: str) -> str:
    """Return the coil a document means: by its name, its ends either way round, its kind, one of its leads."""
    ends = {part.strip() for part in re.split(r"[-–](?=[A-Z])|\s+", told) if part.strip()}
    meant = (
        [c.name for c in network.coils if told == c.name],
        [c.name for c in network.coils if ends == {c.start, c.finish}],
        [c.name for c in network.coils if told in (c.like, _kind(c.like))],
        [c.name for c in network.coils if told in (c.start, c.finish)],
    )
    return next((found[0] for found in meant if found), "")


def _in_series(network: Network, device: DeviceReal) -> Network:
    """Return the network with a device between a winding and the lead it starts from."""
    wanted = {device.in_, _kind(device.in_)}
    first = next((c for c in network.coils if c.like in wanted), network.coils[0])
    ohm = first.ohm + (DIRTY_OHM if device.state == "dirty" else 0.0)
    inner = replace(first, start=f"{device.name}.2", ohm=ohm)
    coils = tuple(inner if c is first else c for c in network.coils)
    return replace(network, coils=coils).joined([(first.start, f"{device.name}.1")])


def _with_lone(network: Network, motor: MotorDocument) -> Network:
    """Return the network with extras, earth and empty leads beside the winding."""
    names = [x.is_ for x in motor.leads]
    kinds = [k for k in EXTRAS if f"{k}-1" in names]
    found = with_extras(network, kinds)
    lone = [lead_of(motor)[x.tag] for x in motor.leads if x.is_ in ("earth", "none")]
    leads = (*found.leads, *lone)
    capacitors = found.capacitors
    if "capacitor-1" in names:
        inner = Capacitor(name="inner", start="capacitor-1", finish="capacitor-2", microfarad=20.0)
        capacitors, leads = (*capacitors, inner), (*leads, "capacitor-1", "capacitor-2")
    return replace(found, leads=leads, capacitors=capacitors)


def lead_of(motor: MotorDocument) -> dict[str, str]:
    """Return what each tag really is; leads to nothing are told apart by their tag."""
    return {x.tag: f"none-{x.tag}" if x.is_ == "none" else x.is_ for x in motor.leads}


def acting(device: DeviceReal) -> Device:
    """Return a device as it acts in the state it is in."""
    if device.table and device.state in ("stuck-open", "missing", "stuck-closed", "bridged"):
        return _stuck(device)
    if device.kind in RELAYS and device.state != "good" and device.state != "dirty":
        return _stuck_relay(device)
    if device.state in ("stuck-open", "missing"):
        return Device(name=device.name, kind="resistor", ohm=OPEN_OHM)
    if device.state in ("stuck-closed", "bridged"):
        return Device(name=device.name, kind="link")
    return device.device()


# relays with terminals of their own
RELAYS = ("relay-current", "hot-wire", "relay-voltage")


def _stuck_relay(device: DeviceReal) -> Device:
    """Return a relay whose contact never closes, or never opens, whatever flows; its coil is left."""
    contact, coil = device.device().pulled
    if device.kind == "relay-voltage":
        contact, coil = ("1", "2"), ("5", "2")
    shut = (contact,) if device.state in ("stuck-closed", "bridged") else ()
    series = () if device.kind == "relay-voltage" else (coil,)  # ohms too many to matter
    table = {"on": (*shut, *series)}
    return Device(
        name=device.name, kind="selector", table=table, ends=(*contact, *coil, *device.ends)
    )


def _stuck(device: DeviceReal) -> Device:
    """Return a switch with positions that makes no contact in its last one, or keeps one in all of them."""
    healthy = device.device()
    last = next(p for p in reversed(list(healthy.table)) if healthy.table[p])
    if device.state in ("stuck-open", "missing"):
        lost = healthy.table[last] if device.state == "stuck-open" else None
        table = {
            p: tuple(pair for pair in closed if lost is not None and pair not in lost)
            for p, closed in healthy.table.items()
        }
        ends = tuple(dict.fromkeys(t for c in healthy.table.values() for pair in c for t in pair))
        return replace(healthy, table=table, ends=ends)
    kept = healthy.table[last]
    table = {p: tuple(dict.fromkeys((*c, *kept))) for p, c in healthy.table.items()}
    return replace(healthy, table=table)


def devices_of(motor: MotorDocument, gone: Sequence[str] = ()) -> tuple[Device, ...]:
    """Return every device and capacitor that is still there, as it acts."""
    found = [acting(d) for d in motor.devices if d.name not in gone]
    for c in motor.capacitors:
        if c.name not in gone:
            found.append(Device(name=c.name, kind="link") if c.shorted else c.device())
    return tuple(found)


def halves_of(motor: MotorDocument) -> Halves:
    """Return how halves of a phase lie: as the document says, else as this winding's usually do."""
    usual = "alternate" if motor.arrangement == TWO_LEADS else arrangement(motor.arrangement).halves
    return usual if motor.halves == "alternate" else motor.halves


def hidden_of(
    motor: MotorDocument, network: Network, magnetizing: float, stiff: float = 1.0
) -> HiddenMotor:
    """Return what the simulated meter is put on: a motor's document with its winding as it is now."""
    switched = any(d.inside and d.device().switches for d in motor.devices)
    return HiddenMotor(
        network=network,
        lead_of=lead_of(motor),
        start_device="switch" if switched else "",
        adjacent_halves=halves_of(motor) == "adjacent",
        pole_changing=halves_of(motor) == "pole-changing",
        frame_megohm=motor.insulation.megohm,
        leak_share=motor.insulation.leak_share,
        bond_ohm=motor.earth_ohm,
        bar_ohms=tuple(_more(motor, "bar_ohm", ())),
        poles=motor.poles,
        stiff=stiff,
        magnetizing=float(_more(motor, "magnetizing", magnetizing)),
    )
