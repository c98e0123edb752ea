"""Where no battery is at hand: the series test that parts most of the worlds."""

from collections.abc import Sequence

import numpy as np

from careful_coil.core.identify.evidence import Evidence
from careful_coil.core.identify.nextstep import LEAST_BITS, entropy
from careful_coil.core.identify.polarity import kick_pairs, ratios
from careful_coil.core.identify.result import NextReading
from careful_coil.core.identify.worlds import Sorted, World

APPLIED_VOLT = 12.0  # from a small transformer
SAME_VOLT = 0.15  # of the volts applied: sums this close are one outcome


def next_series(worlds: Sequence[World], evidence: Evidence) -> NextReading | None:
    """Return it: low volts on one path, its finish tied to another, read from end to end."""
    same = Sorted.of(worlds)
    if same is None:
        return None
    roles, way = same.roles, same.coupling
    table = np.array([ratios(same.model.network, halves) for halves in same.couplings])
    done = {(t.source, t.tie, t.across) for t in evidence.serieses}
    best, best_gain = None, LEAST_BITS
    for a, b, c, d in kick_pairs(same.model, worlds[0].placed.roles):
        test = ((a, b), (b, c), (a, d))
        if test in done or evidence.waits("series", a, b, b, c, a, d):
            continue
        volt = np.abs(1 + table[way, roles[:, a], roles[:, b], roles[:, c], roles[:, d]])
        _, which = np.unique(np.round(volt / SAME_VOLT), return_inverse=True)
        gain = entropy(np.bincount(which, same.weight).tolist())
        if gain > best_gain + 1e-9:
            best, best_gain = test, gain
    if best is None:
        return None
    source, tie, across = (tuple(evidence.tags[k] for k in pair) for pair in best)
    return NextReading(
        kind="series",
        source=(source[0], source[1]),
        tie=(tie[0], tie[1]),
        across=(across[0], across[1]),
        applied_volt=APPLIED_VOLT,
        gain_bits=round(best_gain, 3),
        why=f"{APPLIED_VOLT:g} V AC on {source[0]} and {source[1]}, tie {tie[0]} to {tie[1]}, read {across[0]} "
        f"to {across[1]}: more than was put on means the same sense, less the opposite.",
    )
