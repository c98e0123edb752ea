"""How honest the early estimate of the polarization index is: python benchmarks/absorption.py [--write].

A thousand made-up windings a schedule (exponent 0.4 to 1.0, leakage share of the current at a minute by a
logistic normal of sigma 2, a geometric part in six of ten, a tester that scatters by 0.5, 1 or 2 %), the
ten-minute figure held against the band given after the first readings. `--write` puts the table into
docs/absorption.md.
"""

import sys
import time
from pathlib import Path

import numpy as np

from careful_coil.core.condition.absorption import fit_curve

SCHEDULES = {
    "15, 30, 60 s": [15.0, 30.0, 60.0],
    "every 5 s, one minute": [5.0 * k for k in range(1, 13)],
    "every 5 s, two minutes": [5.0 * k for k in range(1, 25)],
    "every 5 s, three minutes": [5.0 * k for k in range(1, 37)],
    "every 10 s, five minutes": [10.0 * k for k in range(1, 31)],
}
WINDINGS = 1000
DOC = Path(__file__).parent.parent / "docs" / "absorption.md"
HEAD = """# How far an early polarization index can be trusted

The band after the first readings is meant to hold the index, as it is then read at ten minutes, nine times
of ten. Made by `python benchmarks/absorption.py --write`: a thousand made-up windings a row, exponents 0.4 to
1.0, any share of leakage, a charging current in six of ten, testers that scatter by 0.5, 1 or 2 %.

| read | held | below the band | above it | middle width, high over low | one fit, ms |
|---|---|---|---|---|---|
"""


def winding(chance: np.random.Generator) -> tuple[object, float]:
    """Return R(t) in MΩ of a made-up winding, and the scatter of its tester."""
    n, share = chance.uniform(0.4, 1.0), 1 / (1 + np.exp(-chance.normal(0, 2)))
    b, tau = (chance.uniform(0, 3), chance.uniform(2, 8)) if chance.random() < 0.6 else (0.0, 5.0)
    scale = 10 ** chance.uniform(0, 3.5)

    def ohms(t: np.ndarray) -> np.ndarray:
        return scale / (share + (1 - share) * (t / 60) ** -n + b * np.exp(-t / tau))

    return ohms, float(chance.choice([0.005, 0.01, 0.02]))


def row(name: str, times: list[float], seed: int) -> str:
    """Return a line of the table."""
    chance = np.random.default_rng(seed)
    t = np.array([*times, 600.0])
    held = below = above = 0
    widths, spent = [], 0.0
    for _ in range(WINDINGS):
        ohms, scatter = winding(chance)
        read = ohms(t) * np.exp(chance.normal(0, scatter, len(t)))
        index = read[-1] / dict(zip(t, read, strict=True))[60.0]
        began = time.perf_counter()
        band = fit_curve(list(zip(times, read[:-1], strict=True))).index
        spent += time.perf_counter() - began
        held += band.low <= index <= band.high
        below += index < band.low
        above += index > band.high
        widths.append(band.width())
    share = [f"{100 * k / WINDINGS:.1f} %" for k in (held, below, above)]
    each = 1000 * spent / WINDINGS
    return f"| {name} | {' | '.join(share)} | {np.median(widths):.2f} | {each:.0f} |"


def main() -> None:
    """Print the table, or write it."""
    lines = []
    for seed, (name, times) in enumerate(SCHEDULES.items(), 1):
        lines.append(row(name, times, seed))
        print(lines[-1], flush=True)
    if "--write" in sys.argv:
        DOC.write_text(HEAD + "\n".join(lines) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
