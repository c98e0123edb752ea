"""Is a hookup right? Verdict, findings, and what the network says of it."""

import itertools
import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from careful_coil.core.connect import faults
from careful_coil.core.connect.given import (
    Fault,
    Given,
    Pictures,
    reversed_turn,
    shown_by_ohms,
)
from careful_coil.core.connect.hookup import Answer, Hookup, start_and_run
from careful_coil.core.connect.plans import Wish, plan
from careful_coil.core.errors import BadDocument, CannotConnect
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import check_devices
from careful_coil.core.ways.way import Joint, Plan

Verdict = Literal["sound", "wrong", "dangerous"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StateFigures:
    """What one state of a hookup shows; `line_amp_ratio` None where it cannot be said."""

    state: str
    line_ohm: dict[str, float]
    coil_volt: dict[str, float]
    line_amp_ratio: dict[str, float | None]
    field: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """The answer on a hookup. Ohms are infinite where nothing conducts; volts per coil by name.

    `right` is the hookup this supply needs, None where there is none; `turning` says how the
    direction can be changed.
    """

    verdict: Verdict
    connection: str | None
    faults: tuple[Fault, ...]
    figures: StateFigures
    states: tuple[StateFigures, ...]
    coil_rated_volt: dict[str, float] | None
    rotation_reversed: bool
    right: Plan | None
    turning: str


def check(hookup: Hookup) -> Check:
    """Return the verdict on a hookup, however absurd.

    Raises: NotKnownYet for an arrangement, variant or device that is not known; BadDocument for
    coil ohms that name no coil, and for devices that cannot be.
    """
    check_devices(hookup.devices)
    _check_ohms(hookup)
    cleaned, found = _cleaned(hookup)
    right, why = right_plan(cleaned)
    pictures = _pictures(cleaned, right)
    rated = rated_volts(cleaned)
    given = Given(hookup=cleaned, right=right, pictures=pictures, rated=rated)
    if right is None:
        found.append(faults.supply_mismatch(why))
    found += faults.all_faults(given)
    shown = shown_by_ohms(given)
    found = [f if f.shown_by_ohms is not None else replace(f, shown_by_ohms=shown) for f in found]
    bad = any(f.severity == "hold" for f in found)
    verdict: Verdict = "dangerous" if any(f.danger for f in found) else "wrong" if bad else "sound"
    start, run = pictures.start, pictures.run
    called = {"L2": "N"} if _only_neutral(hookup) else {}
    figures = _figures("run", run, pictures.right_start, start, called)
    with_states = (_figures("start", start, pictures.right_start, start, called), figures)
    meant = given.meant
    return Check(
        verdict=verdict,
        connection=meant.plan.connection if meant and not meant.slips else None,
        faults=tuple(sorted(found, key=lambda f: ("hold", "watch", "note").index(f.severity))),
        figures=figures,
        states=with_states if hookup.devices else (),
        coil_rated_volt=rated,
        rotation_reversed=reversed_turn(given),
        right=right,
        turning=(right or plans_of(hookup.arrangement, hookup.variant)[0]).turning or "lines",
    )


def right_plan(hookup: Hookup) -> tuple[Plan | None, str]:
    """Return the hookup that the supply needs, or None with the reason.

    Of several speeds it is the one that the joints come nearest to.
    """
    options = plans_of(hookup.arrangement, hookup.variant)
    speeds = list(dict.fromkeys(p.speed for p in options))
    made = {frozenset(j) for j in hookup.joints}

    def common(p: Plan) -> int:
        return sum(frozenset(j) in made for j in p.joints)

    speeds.sort(key=lambda s: -max(common(p) for p in options if p.speed == s))
    try:
        wish = Wish(
            family=hookup.family,
            speed=speeds[0],
            variant=hookup.variant,
            devices=hookup.devices,
            phases=hookup.supply.phases,
        )
        supply = hookup.supply
        return plan(hookup.arrangement, hookup.plate, supply.volt, supply.hertz, wish), ""
    except CannotConnect as error:
        return None, str(error)


def rated_volts(hookup: Hookup) -> dict[str, float] | None:
    """Return the volts of each coil at the plate's own rating; None where no rating fits."""
    for low, high in hookup.plate.volts:
        volt = high if low == high else (low + high) / 2
        phases = hookup.known.phases
        at = replace(
            hookup,
            supply=replace(hookup.supply, phases=phases, volt=volt, hertz=hookup.plate.hertz),
        )
        meant, _ = right_plan(at)
        if meant is not None:
            return start_and_run(at.of_plan(meant), meant.field)[1].coil_volt
    return None


def _pictures(hookup: Hookup, right: Plan | None) -> Pictures:
    pole = right.field if right else 0
    start, run = start_and_run(hookup, pole)
    right_start, right_run = start_and_run(hookup.of_plan(right), pole) if right else (None, None)
    return Pictures(start=start, run=run, right_start=right_start, right_run=right_run)


def _figures(
    name: str, shown: Answer, right: Answer | None, start: Answer, called: Mapping[str, str]
) -> StateFigures:
    """Return a state's figures; amps are compared at standstill; `called` what lines are named."""
    ratios: dict[str, float | None] = {}
    pairs = [pair.split("-") for pair in shown.line_ohm]
    for line in dict.fromkeys(itertools.chain.from_iterable(pairs)):
        wanted = right.line_amp[line] if right else 0.0
        ratios[line] = None if start.shorted or wanted <= 0 else start.line_amp[line] / wanted
    word = {1: "forward", -1: "backward", 0: None}[
        start.turn * (right.turn if right and right.turn else 1)
    ]
    return StateFigures(
        state=name,
        line_ohm={
            "-".join(called.get(n, n) for n in p.split("-")): v for p, v in shown.line_ohm.items()
        },
        coil_volt=shown.coil_volt,
        line_amp_ratio={called.get(n, n): r for n, r in ratios.items()},
        field=word,
    )


def _check_ohms(hookup: Hookup) -> None:
    names = [c.name for c in hookup.inside().coils]
    given: Mapping[str, float] = (
        hookup.coil_ohm
        if isinstance(hookup.coil_ohm, Mapping)
        else dict.fromkeys(names, hookup.coil_ohm)
    )
    for name, ohm in given.items():
        if name not in names:
            raise BadDocument("coil_ohm", name, "coils " + ", ".join(names))
        if not 0 < ohm < math.inf:
            raise BadDocument(f"coil_ohm {name}", f"{ohm:g}", "ohms above nothing")
    missing = [n for n in names if n not in given]
    if missing:
        raise BadDocument("coil_ohm", "nothing for " + ", ".join(missing), "ohms of every coil")


def _only_neutral(hookup: Hookup) -> bool:
    used = {n for j in hookup.joints for n in j}
    return hookup.supply.phases == 1 and "N" in used and "L2" not in used


def _cleaned(hookup: Hookup) -> tuple[Hookup, list[Fault]]:
    """Return the hookup with unknown names left out and N called L2, and what was found on the way."""
    leads = hookup.inside().leads
    terminals = [t for d in hookup.devices for t in d.terminals()]
    known = {*leads, *hookup.lines(), *terminals}
    used = {n for j in hookup.joints for n in j}
    alias = {"N": "L2"} if _only_neutral(hookup) else {}
    found = [faults.unknown_lead(n, leads) for n in sorted(used - known)]
    joints: list[Joint] = []
    for j in hookup.joints:
        named = tuple(dict.fromkeys(alias.get(n, n) for n in j if n in known))
        if named:
            joints.append(named)
    for name in known:
        if sum(name in j for j in joints) > 1:
            found.append(faults.in_two_joints(name, [j for j in joints if name in j]))
    return replace(hookup, joints=_merged(joints)), sorted(found, key=lambda f: f.leads)


def _merged(joints: list[Joint]) -> tuple[Joint, ...]:
    """Return joints with those that share a name made one."""
    merged: list[list[str]] = []
    for j in joints:
        touching = [m for m in merged if set(m) & set(j)]
        one = list(dict.fromkeys(n for m in (*touching, list(j)) for n in m))
        merged = [m for m in merged if m not in touching] + [one]
    return tuple(tuple(m) for m in merged)
