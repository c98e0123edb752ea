"""How long a hookup check with all likely slips takes, against a circuit simulator on the same networks.

Both answer the same for each network: the ohms of three line pairs and the amps of every coil.

By hand: `.venv/bin/python benchmarks/hookup_check.py`. Prints milliseconds and the ratio of one run.
"""

import sys
import tempfile
import time
from math import isfinite
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.core.spice import coil_amps, line_ohms

from careful_coil.core.connect import Hookup, Plate, Supplied, check
from careful_coil.core.connect.check import right_plan
from careful_coil.core.connect.explain import slips_of
from careful_coil.core.connect.slips import likely_slips
from careful_coil.core.winding.rotor import default_rotor
from careful_coil.core.winding.steady import Supply

ROUNDS = 7
LINE_PAIRS = [("L1", "L2"), ("L1", "L3"), ("L2", "L3")]
GOAL_MS, GOAL_RATIO = 150.0, 20.0


def main() -> None:
    """Time both and print."""
    hookup = Hookup(
        arrangement="three-phase-12-lead",
        joints=(),
        plate=Plate(((230.0, 230.0), (460.0, 460.0)), 60.0),
        supply=Supplied(phases=3, volt=460.0),
        family="wye",
        coil_ohm=2.0,
        rpm=1755.0,
    )
    right, why = right_plan(hookup)
    if right is None:
        raise SystemExit(why)
    hookup = hookup.of_plan(right)
    taken = []
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        check(hookup)
        count = len(likely_slips(hookup, right))
        taken.append(time.perf_counter() - begun)
    ours = sorted(taken)[ROUNDS // 2]
    inside = hookup.inside()
    supply, rotor = Supply.of(3, 115.0), default_rotor(inside)
    joined = [s.done_to(right.joints) for s in slips_of(inside, right.joints)]
    with tempfile.TemporaryDirectory() as folder:
        begun = time.perf_counter()
        for joints in joined:
            network = inside.joined(joints)
            pairs = [p for p in LINE_PAIRS if isfinite(network.ohm_between(*p))]
            if pairs:
                line_ohms(network, pairs, Path(folder))
            coil_amps(network, supply, 1.0, rotor, Path(folder))
        theirs = time.perf_counter() - begun
    print(f"12 leads, check and {count} slips: {ours * 1000:.0f} ms (goal {GOAL_MS:.0f} ms)")
    print(f"ngspice, {len(joined)} of the same networks: {theirs * 1000:.0f} ms")
    print(f"ratio {theirs / ours:.1f} (goal {GOAL_RATIO:.0f})")


if __name__ == "__main__":
    main()
