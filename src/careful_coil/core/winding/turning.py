"""What a hookup shows on three lines at reduced volts: amps by how it turns, and how it likely turns."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from careful_coil.core.winding.coupling import Halves
from careful_coil.core.winding.network import Network
from careful_coil.core.winding.steady import Supply, solve

Joints = tuple[tuple[str, ...], ...]
TURNS = ("smooth", "rough", "none")
# odds of each of TURNS by how large the backward field is beside the forward one
TURNING = ((0.25, (0.90, 0.07, 0.03)), (0.70, (0.15, 0.60, 0.25)), (1.01, (0.04, 0.26, 0.70)))
AT_SLIP = (0.03, 0.3, 1.0)  # by TURNS: the last is standstill


@dataclass(frozen=True, slots=True)
class RunShown:
    """What a hookup shows on three lines for 1 V: amps by how it turns, and the odds of that.

    Amps are infinite where the hookup shorts two lines.
    """

    amps: tuple[tuple[float, ...], ...]  # by TURNS, then by line
    odds: tuple[float, ...]  # of TURNS

    def likely(self) -> tuple[str, tuple[float, ...]]:
        """Return how it most likely turns, and its amps then."""
        at = self.odds.index(max(self.odds))
        return TURNS[at], self.amps[at]


@lru_cache(maxsize=8192)
def run_shown(network: Network, lines: Joints, joints: Joints, halves: Halves) -> RunShown:
    """Return what a hookup shows, `lines` the leads on each line, halves that lie as `halves` says."""
    lined = tuple((f"L{k + 1}", *j) for k, j in enumerate(lines))
    wired = network.joined((*lined, *joints))
    found = solve(wired, Supply.of(3, 1.0), AT_SLIP, halves=halves)
    if found.shorted:
        return RunShown(((math.inf,) * len(lines),) * len(TURNS), turn_odds(1.0))
    none = np.zeros(len(AT_SLIP), dtype=complex)
    amp = np.array([np.abs(found.line_amp.get(f"L{k + 1}", none)) for k in range(len(lines))])
    ways = sorted(float(np.abs(w[-1]).sum()) for w in (found.forward, found.backward))
    odds = turn_odds(ways[0] / ways[1] if ways[1] > 0 else 1.0)
    return RunShown(tuple(tuple(row) for row in amp.T.tolist()), odds)


def turn_odds(backward: float) -> tuple[float, ...]:
    """Return the odds of each of TURNS for a backward field over the forward one."""
    return next(odds for below, odds in TURNING if backward < below)
