"""The hookups of three-phase windings, built by rule; the network proves each.

Joints follow NEMA MG 1 part 2 terminal markings and IEC 60034-8.
"""

import math

from careful_coil.core.ways.way import Joint, Plan, Stage

ROOT3 = math.sqrt(3)
DELTA, WYE = "delta", "wye"
LOW_WYE, HIGH_WYE = "low volts: two wyes in parallel", "high volts: halves in series, wye"
LOW_DELTA, HIGH_DELTA = "low volts: two deltas in parallel", "high volts: halves in series, delta"
Joints = tuple[Joint, ...]


def _t(*numbers: int) -> Joint:
    return tuple(f"T{n}" for n in numbers)


def _lines(*groups: tuple[int, ...]) -> Joints:
    return tuple((f"L{k}", *_t(*group)) for k, group in enumerate(groups, 1))


PLAIN = _lines((1,), (2,), (3,))
PARALLEL = _lines((1, 7), (2, 8), (3, 9))
SERIES = (_t(4, 7), _t(5, 8), _t(6, 9))
STAR = _t(4, 5, 6)
OUTER_STAR = _t(10, 11, 12)


def three_phase(slug: str, variant: str = "") -> tuple[Plan, ...]:
    """Return every hookup of a three-phase arrangement, the lower volts first; () if it is none."""
    builder = {
        "three-phase-3-lead": _three,
        "three-phase-4-lead": _four,
        "three-phase-6-lead": _six,
        "three-phase-9-lead-wye": _nine_wye,
        "three-phase-9-lead-delta": _nine_delta,
        "three-phase-12-lead": _twelve,
        "three-phase-two-speed-6-lead": _two_speed,
        "three-phase-part-winding-6-lead": _two_stars,
    }.get(slug)
    return builder(slug, variant) if builder else ()


def _three(slug: str, variant: str) -> tuple[Plan, ...]:
    inside = DELTA if variant == DELTA else ""
    factor = 1.0 if variant == DELTA else ROOT3
    return (
        Plan(
            arrangement=slug,
            variant=variant,
            connection="three leads to three lines",
            joints=PLAIN,
            factor=factor,
            family=inside,
        ),
    )


def _four(slug: str, variant: str) -> tuple[Plan, ...]:
    note = "The centre lead is insulated on its own unless the job uses it."
    return (
        Plan(
            arrangement=slug, connection=WYE, joints=PLAIN, factor=ROOT3, family=WYE, notes=(note,)
        ),
    )


def _star_then(name: str, star: Joints, run: Joints) -> tuple[Stage, ...]:
    return (Stage("star", star), Stage(name, run))


def _six(slug: str, variant: str) -> tuple[Plan, ...]:
    wye, delta = (*PLAIN, STAR), _lines((1, 6), (2, 4), (3, 5))
    third = "Started in wye the torque and the line amps are a third of delta's."
    return (
        Plan(arrangement=slug, connection=DELTA, joints=delta, factor=1.0, family=DELTA),
        Plan(
            arrangement=slug,
            connection="wye to start, delta to run",
            joints=delta,
            factor=1.0,
            family=DELTA,
            start="wye-delta",
            stages=_star_then("delta", wye, delta),
            notes=(third,),
        ),
        Plan(arrangement=slug, connection=WYE, joints=wye, factor=ROOT3, family=WYE),
    )


_HALF = (
    "The first half alone gives under half the torque and may hang below speed; the second "
    "follows after 1 to 3 s, 5 s at most. The maker's figure wins."
)


def _in_halves(run: Joints, first: Joints) -> tuple[Stage, ...]:
    return (Stage("first-half", first), Stage("run", run))


def _nine_wye(slug: str, variant: str) -> tuple[Plan, ...]:
    low = (*PARALLEL, STAR)
    return (
        Plan(arrangement=slug, connection=LOW_WYE, joints=low, factor=ROOT3, family=WYE),
        Plan(
            arrangement=slug,
            connection="half the winding to start, then both in parallel",
            joints=low,
            factor=ROOT3,
            family=WYE,
            start="part-winding",
            stages=_in_halves(low, (*PLAIN, STAR)),
            notes=(_HALF,),
        ),
        Plan(
            arrangement=slug,
            connection=HIGH_WYE,
            joints=(*PLAIN, *SERIES),
            factor=2 * ROOT3,
            family=WYE,
        ),
    )


def _nine_delta(slug: str, variant: str) -> tuple[Plan, ...]:
    low = _lines((1, 6, 7), (2, 4, 8), (3, 5, 9))
    return (
        Plan(arrangement=slug, connection=LOW_DELTA, joints=low, factor=1.0, family=DELTA),
        Plan(
            arrangement=slug,
            connection=HIGH_DELTA,
            joints=(*PLAIN, *SERIES),
            factor=2.0,
            family=DELTA,
        ),
    )


def _twelve(slug: str, variant: str) -> tuple[Plan, ...]:
    low_wye = (*PARALLEL, STAR, OUTER_STAR)
    low_delta = _lines((1, 6, 7, 12), (2, 4, 8, 10), (3, 5, 9, 11))
    high_wye = (*PLAIN, *SERIES, OUTER_STAR)
    high_delta = (*_lines((1, 12), (2, 10), (3, 11)), *SERIES)
    third = "Started in wye the torque and the line amps are a third of delta's."
    found = []
    for wye, delta, times, names in (
        (low_wye, low_delta, 1.0, (LOW_WYE, LOW_DELTA)),
        (high_wye, high_delta, 2.0, (HIGH_WYE, HIGH_DELTA)),
    ):
        found += [
            Plan(arrangement=slug, connection=names[1], joints=delta, factor=times, family=DELTA),
            Plan(
                arrangement=slug,
                connection=f"wye to start, delta to run ({names[1]})",
                joints=delta,
                factor=times,
                family=DELTA,
                start="wye-delta",
                stages=_star_then("delta", wye, delta),
                notes=(third,),
            ),
            Plan(
                arrangement=slug,
                connection=names[0],
                joints=wye,
                factor=times * ROOT3,
                family=WYE,
            ),
        ]
    found.append(
        Plan(
            arrangement=slug,
            connection="half the winding to start, then both in parallel",
            joints=low_wye,
            factor=ROOT3,
            family=WYE,
            start="part-winding",
            stages=_in_halves(low_wye, (*PLAIN, STAR)),
            notes=(_HALF,),
        )
    )
    return tuple(sorted(found, key=lambda p: p.factor))


_AT_SPEED = "At a speed the unused leads are live: insulate each on its own."
_MARKS = (
    "Which leads are corners is not proven by ohms: the plate, the marks or a test must say so."
)


def _two_speed(slug: str, variant: str) -> tuple[Plan, ...]:
    low, high = PLAIN, _lines((6,), (4,), (5,))
    if variant == "constant-power":
        low = (*low, STAR)
        words = ("low speed: two stars in parallel", "high speed: halves in series, delta")
        notes: tuple[str, ...] = (_AT_SPEED, _MARKS)
    else:
        high = (*high, _t(1, 2, 3))
        inside = "star" if variant == "variable-torque" else "delta"
        words = (f"low speed: halves in series, {inside}", "high speed: two stars in parallel")
        other = "A plate that says constant power has other joints." if not variant else ""
        notes = tuple(n for n in (_AT_SPEED, _MARKS, other) if n)
    return tuple(
        Plan(
            arrangement=slug,
            variant=variant,
            connection=name,
            joints=joints,
            speed=speed,
            field=field,
            notes=notes,
        )
        for name, joints, speed, field in (
            (words[0], low, "low", 0),
            (words[1], high, "high", 1),
        )
    )


def _two_stars(slug: str, variant: str) -> tuple[Plan, ...]:
    if variant == "two-windings":
        return tuple(
            Plan(
                arrangement=slug,
                variant=variant,
                connection=f"{speed} speed: its own winding",
                joints=_lines(*((n,) for n in numbers)),
                factor=ROOT3,
                speed=speed,
                field=field,
                notes=("The other winding stays open: closed on itself it would brake.",),
            )
            for speed, numbers, field in (("low", (1, 2, 3), 0), ("high", (11, 12, 13), 1))
        )
    return (
        Plan(
            arrangement=slug,
            connection="both stars on the lines",
            joints=PARALLEL,
            factor=ROOT3,
            family=WYE,
        ),
        Plan(
            arrangement=slug,
            connection="one star to start, then both",
            joints=PARALLEL,
            factor=ROOT3,
            family=WYE,
            start="part-winding",
            stages=_in_halves(PARALLEL, PLAIN),
            notes=(_HALF,),
        ),
    )
