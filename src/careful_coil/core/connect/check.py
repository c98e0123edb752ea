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
    Seen,
    reversed_turn,
    shown_by_ohms,
    without_old_switch,
)
from careful_coil.core.connect.hookup import Answer, Hookup, answer, start_and_run
from careful_coil.core.connect.plans import Wish, plan
from careful_coil.core.errors import BadDocument, CannotConnect, CannotPlace
from careful_coil.core.ways.book import plans_of
from careful_coil.core.ways.devices import check_devices
from careful_coil.core.ways.states import State, off_of, states_of, tripped_of
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
    unplaced = "" if right else _unplaced(cleaned)
    pictures = _pictures(cleaned, right)
    rated = rated_volts(cleaned)
    given = Given(hookup=cleaned, right=right, pictures=pictures, rated=rated)
    if unplaced:
        found.append(faults.no_plan(unplaced))
    elif right is None:
        found.append(faults.supply_mismatch(why))
    found += faults.all_faults(given)
    shown = shown_by_ohms(given)
    found = [f if f.shown_by_ohms is not None else replace(f, shown_by_ohms=shown) for f in found]
    bad = any(f.severity == "hold" for f in found)
    verdict: Verdict = "dangerous" if any(f.danger for f in found) else "wrong" if bad else "sound"
    called = {"L2": "N"} if _only_neutral(hookup) else {}
    right_start = pictures.right_start
    figures = _figures("run", pictures.run, pictures.start, right_start, right_start, called)
    meant = given.meant
    return Check(
        verdict=verdict,
        connection=meant.plan.connection if meant and not meant.slips else None,
        faults=tuple(sorted(found, key=lambda f: ("hold", "watch", "note").index(f.severity))),
        figures=figures,
        states=_states(pictures, called) if hookup.devices else (),
        coil_rated_volt=rated,
        rotation_reversed=reversed_turn(given),
        right=right,
        turning=(right or plans_of(hookup.arrangement, hookup.variant)[0]).turning or "lines",
    )


def _unplaced(hookup: Hookup) -> str:
    """Return why no plan places the devices of a hookup; empty where one does."""
    try:
        plans_of(hookup.arrangement, hookup.variant, without_old_switch(hookup.devices))
    except CannotPlace as error:
        return str(error)
    return ""


def right_plan(hookup: Hookup) -> tuple[Plan | None, str]:
    """Return the hookup that the supply needs, or None with the reason.

    Of several speeds it is the one that the joints come nearest to; how it is started follows from
    the states of its contactors.
    """
    devices = without_old_switch(hookup.devices)
    try:
        options = plans_of(hookup.arrangement, hookup.variant, devices)
    except CannotPlace as error:
        return None, str(error)
    speeds = list(dict.fromkeys(p.speed for p in options))
    made = {frozenset(j) for j in hookup.joints}

    def common(p: Plan) -> int:
        return sum(frozenset(j) in made for j in p.joints)

    speeds.sort(key=lambda s: -max(common(p) for p in options if p.speed == s))
    starts = {p.start for p in options}
    try:
        wish = Wish(
            start="direct" if "direct" in starts else min(starts),
            family=hookup.family,
            speed=speeds[0],
            variant=hookup.variant,
            devices=devices,
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
    good = hookup.of_plan(right) if right else None
    states = states_of(hookup.devices)
    seen: list[Seen] = []
    for pair in zip(states[::2], states[1::2], strict=True):
        made = start_and_run(hookup, pole, pair)
        shown = start_and_run(good, pole, pair) if good else (None, None)
        seen += [Seen(state=s, made=m, right=r) for s, m, r in zip(pair, made, shown, strict=True)]

    def still(state: State | None) -> Seen | None:
        if state is None:
            return None
        shown = answer(good, state, 1.0, pole) if good else None
        return Seen(state=state, made=answer(hookup, state, 1.0, pole), right=shown)

    return Pictures(
        seen=tuple(seen),
        off=still(off_of(hookup.devices)),
        tripped=still(tripped_of(hookup.devices)),
    )


def _states(pictures: Pictures, called: Mapping[str, str]) -> tuple[StateFigures, ...]:
    """Return the figures of every state, by the words of the document: a word tells its first state.

    A speed is told running, a direction at standstill.
    """
    found: dict[str, StateFigures] = {}
    first = pictures.right_start
    for start, run in zip(pictures.seen[::2], pictures.seen[1::2], strict=True):
        told = [(start.state.words[-1], start), (run.state.words[-1], run)] if not found else []
        speed, direction = run.state.speed, start.state.direction
        if speed and direction:
            told.append((f"{speed}, {direction}", run))
        for word, shown in ((speed, run), (direction, start)):
            if word and word not in found:
                told.append((word, shown))
        for word, shown in told:
            found[word] = _figures(word, shown.made, start.made, start.right, first, called)
    if pictures.off is not None:
        off = pictures.off
        found["off"] = _figures("off", off.made, off.made, off.right, first, called)
    return tuple(found.values())


def _figures(
    name: str,
    shown: Answer,
    still: Answer,
    right: Answer | None,
    first: Answer | None,
    called: Mapping[str, str],
) -> StateFigures:
    """Return a state's figures. Amps are compared at standstill (`still` and `right`).

    `first` the right hookup at standstill, which says what is forward; `called` what lines are named.
    """
    ratios: dict[str, float | None] = {}
    pairs = [pair.split("-") for pair in shown.line_ohm]
    for line in dict.fromkeys(itertools.chain.from_iterable(pairs)):
        wanted = right.line_amp[line] if right else 0.0
        ratios[line] = None if still.shorted or wanted <= 0 else still.line_amp[line] / wanted
    word = {1: "forward", -1: "backward", 0: None}[
        still.turn * (first.turn if first and first.turn else 1)
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
    neutral = bool(alias)
    return replace(hookup, joints=_merged(joints), neutral=neutral), sorted(
        found, key=lambda f: f.leads
    )


def _merged(joints: list[Joint]) -> tuple[Joint, ...]:
    """Return joints with those that share a name made one."""
    merged: list[list[str]] = []
    for j in joints:
        touching = [m for m in merged if set(m) & set(j)]
        one = list(dict.fromkeys(n for m in (*touching, list(j)) for n in m))
        merged = [m for m in merged if m not in touching] + [one]
    return tuple(tuple(m) for m in merged)
