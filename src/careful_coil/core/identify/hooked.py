"""What hookups tell of leads: a run at reduced volts, joints as found, a role on somebody's word."""

import math
from collections.abc import Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from careful_coil.core.identify.evidence import Evidence, FoundJoints, RunTest
from careful_coil.core.identify.models import Model, role_word
from careful_coil.core.ways.book import plans_of, unlined
from careful_coil.core.ways.way import Joint, Plan
from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.markings import leads_of
from careful_coil.core.winding.turning import TURNS, run_shown

Floats = NDArray[np.float64]
Mask = NDArray[np.bool_]
Joints = tuple[Joint, ...]

AMP_SIGMA = 0.12  # of the logarithm: how far a default rotor's amps are off between lines
LEAST_AMP = 0.02  # of the largest: less is none
P_RUN_ODD = 0.02
MOST_RUN = 96  # hookups worked out; lighter worlds get their mean
P_FOUND_RIGHT = {"yes": 0.85, "unknown": 0.6, "no": 0.5}  # less after somebody else's repair
P_KNOWN_RIGHT = 0.9
FITS_FROM = 0.2  # a way of turning less likely than this does not fit


def weigh_runs(
    model: Model,
    coupling: Halves,
    roles: NDArray[np.int64],
    weight: Floats,
    runs: Sequence[RunTest],
) -> tuple[Floats, Mask]:
    """Return the log likelihood of the runs for worlds, and whether they fit.

    `roles` (worlds, tags); `weight` (worlds,) logarithms so far: the heaviest are worked out.
    """
    log, fits = np.zeros(len(roles)), np.ones(len(roles), dtype=bool)
    if not runs:
        return log, fits
    heavy = np.argsort(-weight, kind="stable")[:MOST_RUN]
    for k in heavy:
        log[k], fits[k] = _run_log(model, coupling, roles[k], runs)
    light = np.setdiff1d(np.arange(len(roles)), heavy)
    log[light] = log[heavy].mean()
    return log, fits


def _run_log(
    model: Model, coupling: Halves, roles: NDArray[np.int64], runs: Sequence[RunTest]
) -> tuple[float, bool]:
    log, right = 0.0, True
    measured: list[float] = []
    predicted: list[float] = []
    for run in runs:
        lines, joints = (named(model, roles, j) for j in (run.lines, run.joints))
        shown, at = run_shown(model.network, lines, joints, coupling), TURNS.index(run.turns)
        amps, odds = shown.amps[at], shown.odds[at]
        if not all(math.isfinite(a) for a in amps):
            return math.log(P_RUN_ODD) * (1 + len(run.amp)), False
        log += math.log(odds)
        right &= odds > FITS_FROM
        measured += _logs([a / run.volt for a in run.amp])
        predicted += _logs(amps)
    off = np.array(measured) - np.array(predicted)
    off -= off.mean()  # the machine's own impedance is not known
    sigmas = off / AMP_SIGMA
    worst = -2 * math.log(P_RUN_ODD)
    log += float(-0.5 * np.minimum(sigmas**2, worst).sum())
    return log, right and bool(np.abs(sigmas).max() <= 3.0)


def _logs(amps: Sequence[float]) -> list[float]:
    most = max(*amps, 1e-9)
    return [math.log(max(a, LEAST_AMP * most)) for a in amps]


def named(
    model: Model, roles: Sequence[int] | NDArray[np.int64], joints: Sequence[tuple[int, ...]]
) -> Joints:
    """Return joints of tags by number as joints of leads, `roles` the lead of each tag."""
    leads = model.network.leads
    return tuple(tuple(leads[int(roles[k])] for k in joint) for joint in joints)


@cache
def hookups(model: Model) -> frozenset[frozenset[frozenset[str]]]:
    """Return every hookup of a winding that may be found without devices, under all its own names."""
    leads = model.network.leads
    found = set()
    for plan in direct_plans(model):
        for g in model.symmetries:
            new = {leads[k]: leads[x] for k, x in enumerate(g)}
            found.add(unlined(tuple(new.get(n, n) for n in j) for j in plan.joints))
    return frozenset(found)


@cache
def direct_plans(model: Model) -> tuple[Plan, ...]:
    """Return the hookups of a winding for a direct start without devices, the usual one first."""
    every = plans_of(model.slug, model.variant)
    return tuple(p for p in every if p.start == "direct" and not p.devices)


def match_found(model: Model, roles: NDArray[np.int64], found: FoundJoints) -> Mask:
    """Return for each world whether joints as found make one of its hookups. `roles` (worlds, tags)."""
    leads, known = model.network.leads, hookups(model)
    return np.array(
        [
            unlined(
                tuple(n if isinstance(n, str) else leads[int(row[n])] for n in j)
                for j in found.joints
            )
            in known
            for row in roles
        ],
        dtype=bool,
    )


def match_known(model: Model, roles: NDArray[np.int64], known: Sequence[tuple[int, str]]) -> Mask:
    """Return for each world whether roles on somebody's word hold under one of its equal namings."""
    leads = model.network.leads
    words = np.array([role_word(n) for n in leads])
    right = np.ones((len(model.symmetries), len(roles)), dtype=bool)
    for s, g in enumerate(model.symmetries):
        image = np.array(g)
        for tag, role in known:
            lead = image[roles[:, tag]]
            meant = set(leads_of(model.slug, role, leads))
            right[s] &= (words[lead] == role.lower()) | np.array([n in meant for n in leads])[lead]
    return np.asarray(right.any(axis=0))


def leaned(match: Mask, share: float) -> Floats:
    """Return the logarithm that gives the worlds that match `share` of all, whatever their number."""
    count = int(match.sum())
    if count in (0, len(match)):
        return np.zeros(len(match))
    return np.where(
        match,
        math.log(share * len(match) / count),
        math.log((1 - share) * len(match) / (len(match) - count)),
    )


def lean_on(model: Model, roles: NDArray[np.int64], evidence: Evidence) -> Floats:
    """Return what joints as found and roles on somebody's word make of a placement's worlds."""
    log = np.zeros(len(roles))
    for found in evidence.founds:
        log += leaned(match_found(model, roles, found), P_FOUND_RIGHT[found.ran])
    if evidence.known:
        match = match_known(model, roles, evidence.known)
        log += np.where(match, math.log(P_KNOWN_RIGHT), math.log(1 - P_KNOWN_RIGHT))
    return log
