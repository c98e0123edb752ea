"""The hookups of single-phase and universal windings, built by rule; the network proves each.

The direction of the tables is counter-clockwise seen from the end opposite the drive (NEMA MG 1
part 2). A start winding's own switch may sit inside the motor: then no device is named.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace

from careful_coil.core.errors import CannotConnect
from careful_coil.core.ways.devices import CAPACITORS, Device
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.single_phase import tap_names

Joints = tuple[Joint, ...]
Devices = tuple[Device, ...]
RUN_CAPACITOR = Device(name="C1", kind="capacitor-run", microfarad=20.0)
_START = "The start winding may stay on the line for seconds only."
_TURN_END = "Direction: turn the stator or the rotor end for end; leads cannot change it."
_OPEN = "Direction is changed only by opening the motor, unless both windings are equal."
_MAKERS = "C1 stands for this motor's own run capacitor: the maker's µF and volts."
_SPEED_OF = {2: "two", 3: "", 4: "four", 5: "five"}
_COUNT = {name: count for count, name in _SPEED_OF.items()} | {"in-main": 3}


def single_phase(slug: str, variant: str = "", devices: Sequence[Device] = ()) -> tuple[Plan, ...]:
    """Return every hookup of a single-phase arrangement, forward first; () if it is none.

    `devices` stand in the start path; where a capacitor must and none is named, one of 20 µF does.
    """
    builder: Callable[[str, str, Devices], tuple[Plan, ...]] | None = {
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


def in_path(near: Joint, far: Joint, devices: Devices) -> tuple[Joints, Devices]:
    """Return the joints of a start path: `near` end joint, devices, `far` end joint.

    Switches come first, in series; then the capacitors, in parallel with each other; a run capacitor
    bridges switch and start capacitor. Raises: CannotConnect for devices it cannot place.
    """
    switches = [d for d in devices if d.switches]
    odd = [d for d in devices if d not in switches and d.kind not in CAPACITORS]
    if odd or any(d.kind == "capacitor-dual" or len(d.terminals()) > 2 for d in devices):
        raise CannotConnect(
            "The start path of a plan takes two-terminal switches and capacitors. "
            f"Join {', '.join(d.name for d in devices)} by the maker's diagram and check the hookup."
        )
    starts = [d for d in devices if d.kind == "capacitor-start"]
    runs = [d for d in devices if d.kind == "capacitor-run"]
    chain = [*switches, *starts[:1]]
    inner: list[list[str]] = [list(near)]
    for d in chain:
        a, b = d.terminals()
        inner[-1].append(a)
        inner.append([b])
    inner[-1] = [*far, *inner[-1]] if len(inner) > 1 else [*inner[-1], *far]
    if starts[1:]:
        before = next(j for j in inner if starts[0].terminals()[0] in j)
        for d in starts[1:]:
            before.append(d.terminals()[0])
            inner[-1].append(d.terminals()[1])
    if runs and not chain:
        inner = [list(near), list(far)]
    for d in runs:
        inner[0].append(d.terminals()[0])
        inner[-1].append(d.terminals()[1])
    return tuple(tuple(j) for j in inner), devices


def _both(forward: Plan, backward: Plan | None) -> tuple[Plan, ...]:
    if backward is None:
        return (forward,)
    return forward, replace(backward, reversed=True, turning=forward.turning)


def _common_run_start(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    notes = (_OPEN,) if devices else (_OPEN, _MAKERS)
    devices = devices or (RUN_CAPACITOR,)

    def way(first: str, second: str) -> Plan:
        joints, placed = in_path(("L1", first), (second,), devices)
        return Plan(
            arrangement=slug,
            connection="run to the line, start through its devices",
            joints=(*joints, ("L2", "common")),
            devices=placed,
            turning="opening",
            notes=notes,
        )

    return _both(way("run", "start"), way("start", "run"))


def _main_and_auxiliary(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    def way(near: str, far: str) -> Plan:
        joints, placed = in_path(("L1", "main-1"), (near,), devices)
        if not devices:
            joints = (("L1", "main-1", near),)
        return Plan(
            arrangement=slug,
            connection="main across the line, start winding through its devices",
            joints=(*joints, ("L2", "main-2", far)),
            devices=placed,
            turning="outside",
            notes=() if devices else (_START,),
        )

    return _both(way("aux-1", "aux-2"), way("aux-2", "aux-1"))


def _speed_taps(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    assumed = () if devices else (_MAKERS,)
    devices = devices or (RUN_CAPACITOR,)
    taps = tap_names(_COUNT[variant])
    own_pair = variant == "in-main"
    found = []
    for tap in taps:
        if own_pair:
            joints, placed = in_path(("L1", tap), ("aux-1",), devices)
            rest: Joints = (("L2", "run", "aux-2"),)
        else:
            joints, placed = in_path(("L2", "run"), ("start",), devices)
            rest = (("L1", tap),)
        found.append(
            Plan(
                arrangement=slug,
                variant=variant,
                connection=f"{tap} speed: one tap to the line, the others insulated singly",
                joints=(*rest, *joints),
                devices=placed,
                speed=tap,
                turning="outside" if own_pair else "opening",
                notes=assumed if own_pair else (_OPEN, *assumed),
            )
        )
    return tuple(found)


def _two_speed_coil(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    return tuple(
        Plan(
            arrangement=slug,
            connection=f"{speed} speed",
            joints=(("L1", lead), ("L2", "common")),
            speed=speed,
            turning="no",
            notes=(_TURN_END,),
        )
        for speed, lead in (("high", "high"), ("low", "low"))
    )


def _t(*numbers: int) -> Joint:
    return tuple(f"T{n}" for n in numbers)


def _exchanged(joints: Joints, *pairs: tuple[str, str]) -> Joints:
    other = dict(pairs) | {b: a for a, b in pairs}
    return tuple(tuple(other.get(n, n) for n in j) for j in joints)


def _dual(
    slug: str, variant: str, name: str, joints: Joints, factor: float, *pairs: tuple[str, str]
) -> tuple[Plan, ...]:
    forward = Plan(
        arrangement=slug,
        variant=variant,
        connection=name,
        joints=joints,
        factor=factor,
        turning="outside",
    )
    return _both(forward, replace(forward, joints=_exchanged(joints, *pairs)))


_SERIES, _PARALLEL = "high volts: mains in series", "low volts: mains in parallel"


def _dual_six(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    swap = ("T5", "T8")
    if variant == "single-voltage":
        joints = (("L1", *_t(1, 8)), ("L2", *_t(4, 5)))
        return _dual(slug, variant, "main and start across the line", joints, 1.0, swap)
    low = (("L1", *_t(1, 3, 8)), ("L2", *_t(2, 4, 5)))
    high = (("L1", *_t(1)), _t(2, 3, 8), ("L2", *_t(4, 5)))
    return (
        *_dual(slug, variant, _PARALLEL, low, 1.0, swap),
        *_dual(slug, variant, _SERIES, high, 2.0, swap),
    )


def _dual_eight(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    low = (("L1", *_t(1, 3, 6, 8)), ("L2", *_t(2, 4, 5, 7)))
    high = (("L1", *_t(1, 8)), _t(2, 3), _t(6, 7), ("L2", *_t(4, 5)))
    return (
        *_dual(slug, variant, _PARALLEL, low, 1.0, ("T5", "T8"), ("T6", "T7")),
        *_dual(slug, variant, _SERIES, high, 2.0, ("T5", "T8")),
    )


_LOOSE = "Never unloaded at full volts: it flies apart. First run at a quarter of its volts."


def _series(
    slug: str, name: str, field: tuple[str, str], speed: str = "", against: bool = False
) -> tuple[Plan, ...]:
    """Field from `field[0]` to `field[1]`; `against` that way runs against the whole field's."""

    def way(near: str, far: str) -> Plan:
        return Plan(
            arrangement=slug,
            connection=name,
            joints=(("L1", field[0]), (field[1], near), ("L2", far)),
            speed=speed,
            turning="outside",
            notes=(_LOOSE,),
        )

    ways = way("armature-1", "armature-2"), way("armature-2", "armature-1")
    return _both(*(reversed(ways) if against else ways))


def _universal_four(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    return _series(slug, "field and armature in series", ("field-1", "field-2"))


def _universal_five(slug: str, variant: str, devices: Devices) -> tuple[Plan, ...]:
    """From the middle the halves lie opposite: from one outer end to the other also reverses."""
    return (
        *_series(slug, "whole field and armature", ("field-1", "field-2"), "low"),
        *_series(slug, "first part of the field and armature", ("field-1", "field-tap"), "high"),
        *_series(
            slug,
            "second part of the field and armature",
            ("field-2", "field-tap"),
            "medium",
            against=True,
        ),
    )
