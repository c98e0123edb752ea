"""The hookups of single-phase and universal windings, built by rule; the network proves each.

The direction of the tables is counter-clockwise seen from the end opposite the drive (NEMA MG 1
part 2). A start winding's own switch may sit inside the motor: then no device is named.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace

from careful_coil.core.errors import CannotPlace
from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.start_circuit import (
    Outline,
    crossing_of,
    device_notes,
    ends_of,
    placed,
    throws_of,
)
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.single_phase import tap_names

Joints = tuple[Joint, ...]
Devices = tuple[Device, ...]
RUN_CAPACITOR = Device(name="C1", kind="capacitor-run", microfarad=20.0)
SWITCH_INSIDE = "switch-inside"  # common, run and start whose start switch is joined inside
OUTSIDE = ("protector", "contactor", "link", "resistor")  # of a motor of two leads, in its line
_START = "The start winding may stay on the line for seconds only."
_TURN_END = "Direction: turn the stator or the rotor end for end; leads cannot change it."
_OPEN = "Direction is changed only by opening the motor, unless both windings are equal."
_EQUAL = "Reversed so only where both windings are equal: compare their ohms."
_MAKERS = "C1 stands for this motor's own run capacitor: the maker's µF and volts."
_SPEED_OF = {2: "two", 3: "", 4: "four", 5: "five"}
_COUNT = {name: count for count, name in _SPEED_OF.items()} | {"in-main": 3}


def single_phase(slug: str, variant: str = "", devices: Sequence[Device] = ()) -> tuple[Plan, ...]:
    """Return every hookup of a single-phase arrangement, forward first; () if it is none.

    `devices` stand in the start path; where a capacitor must and none is named, one of 20 µF does.
    """
    builder: Callable[[str, str, Devices], tuple[Plan, ...]] | None = {
        "single-phase-2-lead": _two_leads,
        "single-phase-3-lead": _common_run_start,
        "single-phase-4-lead": _main_and_auxiliary,
        "single-phase-speed-taps": _speed_taps,
        "single-phase-two-speed-coil": _two_speed_coil,
        "single-phase-dual-voltage-6-lead": _dual_six,
        "single-phase-dual-voltage-8-lead": _dual_eight,
        "universal-4-lead": _universal_four,
        "universal-5-lead": _universal_five,
    }.get(slug)
    return builder(slug, variant, tuple(devices)) if builder else ()


def _both(forward: Plan, backward: Plan | None) -> tuple[Plan, ...]:
    if backward is None:
        return (forward,)
    return forward, replace(backward, reversed=True, turning=forward.turning)


def _devised(plan: Plan, outline: Outline, devices: Devices) -> Plan:
    """Return a plan with the joints of its outline and its devices' remarks."""
    return replace(
        plan,
        joints=placed(outline, devices),
        devices=devices,
        notes=(*plan.notes, *device_notes(devices)),
    )


def _two_leads(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    """Return its only hookup; what belongs to its start circuit is inside and joined there."""
    outside = tuple(d for d in devices if d.kind in OUTSIDE)
    plan = Plan(
        arrangement=slug,
        connection="across the line, its start circuit inside",
        joints=(),
        turning="opening",
        notes=("Direction is changed only by opening the motor.",),
    )
    return (_devised(plan, Outline(main=("line-1",), back=("line-2",)), outside),)


def _common_run_start(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    thrown = next((d for d in devices if d.kind == "reversing-switch" and throws_of(d)), None)
    inside = variant == SWITCH_INSIDE and not devices
    notes = (_OPEN,) if devices or inside else (_OPEN, _MAKERS)
    devices = devices or (() if inside else (RUN_CAPACITOR,))
    plan = Plan(
        arrangement=slug,
        variant=variant,
        connection="run and start to the line, the switch inside"
        if inside
        else "run to the line, start through its devices",
        joints=(),
        turning="opening",
        notes=notes,
    )
    if thrown is not None:
        return _both(*_thrown(plan, thrown, devices))

    def way(first: str, second: str) -> Plan:
        return _devised(plan, Outline(main=(first,), start=(second,), back=("common",)), devices)

    if any(d.switches or d.kind == "capacitor-start" for d in devices):
        return (way("run", "start"),)  # a winding that is taken out cannot stand in for the other
    return _both(way("run", "start"), way("start", "run"))


def _thrown(plan: Plan, switch: Device, devices: Devices) -> tuple[Plan, Plan]:
    """Return both ways of a switch that puts the line on one end of the run capacitor or the other."""
    made = throws_of(switch)
    runs = [d for d in devices if d.kind == "capacitor-run"]
    if made is None or len(made.throws) != 2 or len(devices) != 1 + len(runs) or not runs:
        raise CannotPlace(
            f"{switch.name} reverses a motor of two equal windings with a run capacitor between "
            "their leads, and nothing else."
        )

    def way(first: str, second: str) -> Plan:
        near, far = (
            [lead, switch.at(t)] for lead, t in zip((first, second), made.throws, strict=True)
        )
        for d in runs:
            near.append(d.at("1"))
            far.append(d.at("2"))
        joints = (("L1", switch.at(made.common)), tuple(near), tuple(far), ("L2", "common"))
        return replace(plan, joints=joints, devices=devices, turning="outside", notes=(_EQUAL,))

    return way("run", "start"), way("start", "run")


def _main_and_auxiliary(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    plan = Plan(
        arrangement=slug,
        connection="main across the line, start winding through its devices",
        joints=(),
        turning="outside",
        notes=() if devices else (_START,),
    )

    def way(near: str, far: str) -> Plan:
        outline = Outline(main=("main-1",), start=(near,), back=("main-2",), back_start=(far,))
        return _devised(plan, outline, devices)

    return _both(way("aux-1", "aux-2"), way("aux-2", "aux-1"))


def _selected(devices: Devices, taps: Joint) -> Joint:
    """Return the speeds that are a hookup of their own: with a selector the first stands for all."""
    return taps[:1] if any(d.kind == "selector" and throws_of(d) for d in devices) else taps


def _speed_taps(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    assumed = () if devices else (_MAKERS,)
    devices = devices or (RUN_CAPACITOR,)
    taps = tap_names(_COUNT[variant])
    own_pair = variant == "in-main"
    selected = _selected(devices, taps)
    found = []
    for tap in selected:
        if own_pair:
            outline = Outline(
                main=(tap,),
                start=("aux-1",),
                back=("run",),
                back_start=("aux-2",),
                taps=taps,
                tapped="main",
            )
        else:
            outline = Outline(
                line="L2",
                back_line="L1",
                main=("run",),
                start=("start",),
                back=(tap,),
                taps=taps,
                tapped="back",
            )
        plan = Plan(
            arrangement=slug,
            variant=variant,
            connection=f"{tap} speed: one tap to the line, the others insulated singly"
            if selected is taps
            else "speeds by the selector",
            joints=(),
            speed=tap if selected is taps else "",
            turning="outside" if own_pair else "opening",
            notes=assumed if own_pair else (_OPEN, *assumed),
        )
        found.append(_devised(plan, outline, devices))
    return tuple(found)


def _two_speed_coil(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    taps = ("high", "low")
    selected = _selected(devices, taps)
    return tuple(
        _devised(
            Plan(
                arrangement=slug,
                connection=f"{tap} speed" if selected is taps else "speeds by the selector",
                joints=(),
                speed=tap if selected is taps else "",
                turning="no",
                notes=(_TURN_END,),
            ),
            Outline(main=(tap,), back=("common",), taps=taps, tapped="main"),
            devices,
        )
        for tap in selected
    )


def _t(*numbers: int) -> Joint:
    return tuple(f"T{n}" for n in numbers)


def _exchanged(joints: Joints, *pairs: tuple[str, str]) -> Joints:
    other = dict(pairs) | {b: a for a, b in pairs}
    return tuple(tuple(other.get(n, n) for n in j) for j in joints)


def _dual(
    plan: Plan, outline: Outline, devices: Devices, *pairs: tuple[str, str]
) -> Sequence[Plan]:
    forward = _devised(replace(plan, turning="outside"), outline, devices)
    return _both(forward, replace(forward, joints=_exchanged(forward.joints, *pairs)))


_SERIES, _PARALLEL = "high volts: mains in series", "low volts: mains in parallel"


def _dual_six(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    swap = ("T5", "T8")
    plan = Plan(arrangement=slug, variant=variant, connection=_PARALLEL, joints=())
    start = Outline(main=_t(1), start=_t(8), back=_t(4), back_start=_t(5))
    if variant == "single-voltage":
        one = replace(plan, connection="main and start across the line")
        return (*_dual(one, start, devices, swap),)
    low = replace(start, main=_t(1, 3), back_start=_t(2, 5))
    high = replace(start, near=_t(2), rest=(_t(2, 3),))
    return (
        *_dual(plan, low, devices, swap),
        *_dual(replace(plan, connection=_SERIES, factor=2.0), high, devices, swap),
    )


def _dual_eight(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    plan = Plan(arrangement=slug, variant=variant, connection=_PARALLEL, joints=())
    low = Outline(main=_t(1, 3), start=_t(6, 8), back=_t(4), back_start=_t(2, 5, 7))
    high = Outline(main=_t(1), start=_t(8), back=_t(4), back_start=_t(5), rest=(_t(2, 3), _t(6, 7)))
    return (
        *_dual(plan, low, devices, ("T5", "T8"), ("T6", "T7")),
        *_dual(replace(plan, connection=_SERIES, factor=2.0), high, devices, ("T5", "T8")),
    )


_LOOSE = "Never unloaded at full volts: it flies apart. First run at a quarter of its volts."


def _series(
    slug: str,
    devices: Devices,
    name: str,
    field: tuple[str, str],
    speed: str = "",
    against: bool = False,
) -> tuple[Plan, ...]:
    """Field from `field[0]` to `field[1]`; `against` that way runs against the whole field's.

    A switch in the line and one that crosses the armature's leads can be placed.
    """
    crossing = next((d for d in devices if crossing_of(d)), None)
    outline = Outline(main=(field[0],), back=("*",))
    around = placed(outline, [d for d in devices if d is not crossing])

    def way(near: str, far: str) -> Plan:
        joints: Joints = ((field[1], near),)
        end = far
        if crossing is not None:
            a, b, c, d = (crossing.at(t) for t in ends_of(crossing))
            joints, end = ((field[1], a), (c, near), (d, far)), b
        around_it = tuple(tuple(end if n == "*" else n for n in j) for j in around)
        return Plan(
            arrangement=slug,
            connection=name,
            joints=(*around_it[:1], *joints, *around_it[1:]),
            devices=devices,
            speed=speed,
            turning="outside",
            notes=(_LOOSE,),
        )

    ways = way("armature-1", "armature-2"), way("armature-2", "armature-1")
    return _both(*(reversed(ways) if against else ways))


def _universal_four(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    return _series(slug, devices, "field and armature in series", ("field-1", "field-2"))


def _universal_five(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    """From the middle the halves lie opposite: from one outer end to the other also reverses."""
    first, second = ("field-1", "field-tap"), ("field-2", "field-tap")
    return (
        *_series(slug, devices, "whole field and armature", ("field-1", "field-2"), "low"),
        *_series(slug, devices, "first part of the field and armature", first, "high"),
        *_series(slug, devices, "second part of the field and armature", second, "medium", True),
    )
