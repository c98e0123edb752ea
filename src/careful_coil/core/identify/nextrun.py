"""Where kicks cannot prove: a run at reduced volts on the hookup that the likeliest naming gives."""

from collections.abc import Sequence

import numpy as np

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.hooked import direct_plans, named
from careful_coil.core.identify.nextstep import entropy
from careful_coil.core.identify.result import NextReading
from careful_coil.core.identify.worlds import Sorted, World
from careful_coil.core.ways import LINES
from careful_coil.core.ways.way import Joint
from careful_coil.core.winding.turning import RunShown, run_shown

MOST_WORLDS, MOST_TRIED = 96, 12
LEAST_RUN_BITS = 0.1  # a run is work: joints are made and parted
SAME_AMPS = 0.15  # of the logarithm: amps this close are one outcome
APPLIED_VOLT = 60.0  # a quarter of 240 V; less is as good
Joints = tuple[tuple[str, ...], ...]


def next_run(worlds: Sequence[World], evidence: Evidence) -> NextReading | None:
    """Return the tentative hookup whose run parts most of the worlds, None where none would."""
    same = Sorted.of(worlds)
    if same is None or same.model.broken or not 1 < len(same.weight) <= MOST_WORLDS:
        return None
    model, leads = same.model, same.model.network.leads
    plan = max(direct_plans(model), key=lambda p: p.factor, default=None)
    if plan is None:
        return None
    lines, joints = _split(plan.joints)
    done = {(r.lines, r.joints) for r in evidence.runs}
    best, best_gain = None, LEAST_RUN_BITS
    for tried in same.roles[:MOST_TRIED]:
        tag = {leads[role]: k for k, role in enumerate(tried)}
        on = tuple(tuple(tag[n] for n in j) for j in lines)
        tied = tuple(sorted(tuple(tag[n] for n in j) for j in joints))
        if (on, tied) in done or evidence.waits("run", *on, *tied):
            continue
        outcomes: dict[tuple[str, ...], float] = {}
        for roles, way, share in zip(same.roles, same.coupling, same.weight, strict=True):
            at = named(model, roles, on), named(model, roles, tied)
            key = _outcome(run_shown(model.network, *at, same.couplings[way]))
            outcomes[key] = outcomes.get(key, 0.0) + float(share)
        gain = entropy(outcomes.values())
        if gain > best_gain + 1e-9:
            best, best_gain = (on, tied), gain
    if best is None:
        return None
    tags = evidence.tags
    return NextReading(
        kind="run",
        lines=tuple(tuple(tags[k] for k in j) for j in best[0]),
        joints=tuple(tuple(tags[k] for k in j) for j in best[1]),
        applied_volt=APPLIED_VOLT,
        gain_bits=round(best_gain, 3),
        why="Kicks cannot prove these halves. Run it on this tentative hookup, a quarter of rated "
        "volts or less, uncoupled: three equal amps and a smooth start prove it.",
    )


def _split(joints: Sequence[Joint]) -> tuple[Joints, Joints]:
    """Return the leads on each line, and the joints without one."""
    lines: dict[str, tuple[str, ...]] = {}
    rest = []
    for joint in joints:
        on = [n for n in joint if n in LINES]
        if on:
            lines[on[0]] = tuple(n for n in joint if n not in LINES)
        else:
            rest.append(tuple(joint))
    return tuple(lines[n] for n in sorted(lines)), tuple(rest)


def _outcome(shown: RunShown) -> tuple[str, ...]:
    """Return what a person would tell apart: how it turns, and amps of each line by steps."""
    turns, amps = shown.likely()
    if not np.isfinite(amps).all():
        return ("short",)
    steps = np.round(np.log(np.maximum(amps, 1e-9)) / SAME_AMPS)
    return (turns, *(f"{s:.0f}" for s in steps))
