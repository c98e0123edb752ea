"""How near an estimated motor comes to the true one, from plate and ohms alone and with readings.

Invented motors of every kind, their figures scattered about usual ones; each is fitted twice. By hand:
`.venv/bin/python benchmarks/estimates.py [COUNT]`. Prints the table of docs/estimates.md.
"""

import collections
import random
import sys
import time
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.core.machines import invented
from tests.core.test_estimate import rated, with_readings

from careful_coil.core.machine.curves import start_curves
from careful_coil.core.machine.estimate import estimate

SEED, USUAL_COUNT = 3, 400
TOLD = ("start torque", "breakdown torque", "locked amps")


def main(count: int) -> None:
    """Fit all and print."""
    chance = random.Random(SEED)
    apart: dict[tuple[str, str], list[tuple[float, ...]]] = collections.defaultdict(list)
    worst, taken = 0.0, []
    for _ in range(count):
        made = invented(chance)
        for known, facts in (("plate, ohms", made.facts), ("and readings", with_readings(made))):
            begun = time.perf_counter()
            found = estimate(made.plan, facts)
            taken.append(1000 * (time.perf_counter() - begun))
            worst = max(worst, *(abs(o) for o in rated(found, made.facts)))
            (start, run), (true, after) = start_curves(found.motor), start_curves(made.motor)
            apart[made.facts.kind, known].append(
                (
                    start.torque[0] / true.torque[0],
                    run.torque.max() / after.torque.max(),
                    start.line_amp[0] / true.line_amp[0],
                )
            )
    print(f"{count} motors, seed {SEED}: rated amps, torque and slip off by {worst:.2f} % at most;")
    print(f"one fit {np.median(taken):.0f} ms in the middle, {max(taken):.0f} ms at most.\n")
    print(f"| kind | known | motors | {' | '.join(TOLD)} |")
    print("|---|---|---|---|---|---|")
    for (kind, known), rows in sorted(apart.items()):
        middle = np.percentile(np.array(rows), [10, 50, 90], axis=0)
        cells = [f"{m:.2f} ({low:.2f}–{high:.2f})" for low, m, high in middle.T]
        print(f"| {kind} | {known} | {len(rows)} | {' | '.join(cells)} |")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else USUAL_COUNT)
