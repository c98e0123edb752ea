"""Identification measured by hand: python benchmarks/identification.py [speed|odds|readings|truth].

`speed` an answer against scoring every assignment of lead names one by one (a sample is timed, the
rest is counted); `odds` how often what is called so likely is true, written to docs/reliability.md;
`readings` how many until the groups are known; `truth` whole sheets with and without a bad clip.
"""

import math
import random
import sys
import time
from collections import Counter
from collections.abc import Sequence
from multiprocessing import Pool
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parents[1]))
from tests.core.motors import Player, groups_of

from careful_coil.core.identify.engine import identify
from careful_coil.core.identify.evidence import Evidence, Leanings
from careful_coil.core.identify.models import PRIOR, models_for
from careful_coil.core.identify.tables import tables
from careful_coil.core.winding import ARRANGEMENTS

SENSORS = ("thermistor", "rtd", "heater", "thermostat")
SAMPLE = 20_000
SIX = [k for k in PRIOR if len(ARRANGEMENTS[k[0]].inside(k[1]).leads) == 6]
NINE = [("three-phase-9-lead-wye", ""), ("three-phase-9-lead-delta", "")]
TWELVE = [("three-phase-12-lead", "")]
BANDS = (
    (0.0, 0.25),
    (0.25, 0.5),
    (0.5, 0.7),
    (0.7, 0.85),
    (0.85, 0.95),
    (0.95, 0.99),
    (0.99, 1.01),
)
PAGE = Path(__file__).parents[1] / "docs" / "reliability.md"
Kind = tuple[str, str]


def asked(player: Player, bunching: bool = True) -> Evidence:
    """Return a motor's readings digested."""
    return Evidence.of(
        player.tags, player.readings, player.meter, leanings=Leanings(bunching=bunching)
    )


def answered(evidence: Evidence) -> float:
    """Return how long an answer takes, in s, nothing remembered."""
    begun = time.perf_counter()
    identify.__wrapped__(evidence)
    return time.perf_counter() - begun


def assignments(count: int) -> int:
    """Return how many ways there are to lay lead names on so many tags that ohms could tell apart."""
    return sum(math.factorial(count) // m.ohm_symmetries for m in models_for(count))


def one_by_one(evidence: Evidence) -> float:
    """Return the s it takes to score one assignment: predict every pair, sum squares, coils fitted."""
    model = models_for(len(evidence.tags))[0]
    table = tables(model.network)
    a, b = (np.array([getattr(o, e) for o in evidence.ohms]) for e in "ab")
    read = np.array([o.ohm if o.state == "value" else np.inf for o in evidence.ohms])
    chance = np.random.default_rng(1)
    rows = np.array([chance.permutation(len(evidence.tags)) for _ in range(SAMPLE)])
    begun = time.perf_counter()
    slope = table.slope[rows[:, a], rows[:, b]].sum(axis=2)
    conducts = table.conduct[rows[:, a], rows[:, b]]
    right = (conducts == np.isfinite(read)).sum(axis=1)
    known = np.where(np.isfinite(read), read, 0.0)
    scale = (slope * known).sum(axis=1) / np.maximum((slope**2).sum(axis=1), 1e-9)
    off = ((known - slope * scale[:, None]) ** 2).sum(axis=1)
    (right - off).max()
    took = time.perf_counter() - begun
    return took / SAMPLE


def speed() -> None:
    """Print answers at 6, 9, 12 and 16 leads over a played motor, and the ratio at whole sheets."""
    for kind, sensors in (
        (SIX[0], ()),
        (NINE[0], ()),
        (TWELVE[0], ()),
        (TWELVE[0], ("rtd", "heater")),
    ):
        times = []
        for seed in (1, 2):  # the second play finds tables built
            times = []
            player = Player(kind[0], seed, variant=kind[1], sensors=sensors)
            for _ in range(70):
                times.append(answered(asked(player)))
                step = player.answer().next
                if step is None:
                    break
                player.take(step)
        whole = Player(kind[0], 3, variant=kind[1], sensors=sensors)
        whole.read_all()
        own = min(answered(asked(whole)) for _ in range(3))
        count = assignments(len(whole.tags))
        other = count * one_by_one(asked(whole))
        print(
            f"{len(whole.tags)} leads: median {1e3 * sorted(times)[len(times) // 2]:.0f} ms, "
            f"worst {1e3 * max(times):.0f} ms of {len(times)} states; whole sheet {1e3 * own:.0f} ms, "
            f"{count:.2e} assignments one by one {other:.1f} s: {other / own:.0f} times"
        )


def _played(job: tuple[Kind, int, bool]) -> int:
    (slug, variant), seed, bunching = job
    player = Player(slug, seed, variant=variant)
    true = player.true_groups()
    for count in range(60):
        found = identify(asked(player, bunching))
        if sum(c.probability for c in found.candidates if groups_of(c.groups) == true) >= 0.95:
            return count
        if found.next is None or found.next.kind != "resistance":
            break
        player.take(found.next)
    return 60


def readings(seeds: int = 10) -> None:
    """Print readings until the right groups hold 95 %."""
    with Pool() as pool:
        for name, kinds in (("six", SIX), ("nine", NINE), ("twelve", TWELVE)):
            for bunching in (False, True):
                jobs = [(k, s, bunching) for k in kinds for s in range(seeds)]
                got = pool.map(_played, jobs)
                how = "with bunching" if bunching else "single pairs"
                print(
                    f"{name} leads, {how}: mean {np.mean(got):.1f}, most {max(got)} of {len(got)}"
                )


def _whole(job: tuple[Kind, int, bool]) -> tuple[bool, ...]:
    (slug, variant), seed, bad = job
    chance = random.Random(seed * 31 + sum(map(ord, slug + variant)))
    few = len(ARRANGEMENTS[slug].inside(variant).leads) <= 12
    sensors = tuple(chance.sample(SENSORS, chance.choice((0, 0, 1, 2)))) if few else ()
    player = Player(slug, seed, variant=variant, sensors=sensors)
    player.read_all()
    place = -1
    if bad:
        figures = [k for k, r in enumerate(player.readings) if str(r.value)[0].isdigit()]  # type: ignore[union-attr]
        place = chance.choice(figures)
        read = player.readings[place]
        wrong = f"{float(read.value) * chance.uniform(1.2, 4.0):.2f}"  # type: ignore[union-attr,arg-type]
        player.readings[place] = read.model_copy(update={"value": wrong})
    found = identify(asked(player))
    blamed = [s.reading for s in found.suspects]
    same = {c.arrangement for c in found.candidates if c.probability >= 0.05}
    return (
        groups_of(found.best.groups) == player.true_groups(),
        found.best.arrangement == slug,
        slug in same,
        player.claims_hold(found),
        place in blamed,
        any(k != place for k in blamed),
    )


def truth(seeds: int = 40) -> None:
    """Print how often whole sheets are understood, without and with one bad clip."""
    with Pool() as pool:
        for bad in (False, True):
            got = np.array(pool.map(_whole, [(k, s, bad) for k in PRIOR for s in range(seeds)]))
            words = (
                "groups",
                "winding",
                "winding among those above 5 %",
                "claims right",
                "named",
                "good blamed",
            )
            print("one bad clip" if bad else "all good", len(got), end=": ")
            print(", ".join(f"{w} {int(n)}" for w, n in zip(words, got.sum(axis=0), strict=True)))


def _odds(job: tuple[Kind, int]) -> list[tuple[float, bool]]:
    (slug, variant), seed = job
    chance = random.Random(seed)
    sensors = tuple(chance.sample(SENSORS, chance.choice((0, 0, 0, 1))))
    player = Player(slug, seed, variant=variant, sensors=sensors, bad_clips=0.02)
    true = player.true_groups()
    told = []
    for _ in range(24):
        found = identify(asked(player))
        chances: Counter[frozenset[frozenset[str]]] = Counter()
        for c in found.candidates:
            chances[frozenset(groups_of(c.groups))] += c.probability  # type: ignore[assignment]
        told += [(p, set(g) == true) for g, p in chances.items() if p >= 0.02]
        if found.next is None or found.next.kind != "resistance":
            break
        player.take(found.next)
    return told


def odds(seeds: int = 16) -> None:
    """Write how often a grouping called so likely is the true one, motors as often as shops meet them."""
    kinds = list(PRIOR)
    chance = random.Random(7)
    drawn = chance.choices(kinds, [PRIOR[k] for k in kinds], k=seeds * len(kinds))
    with Pool() as pool:
        told = [
            t for part in pool.map(_odds, [(k, 100 + s) for s, k in enumerate(drawn)]) for t in part
        ]
    _, head, untidy = PAGE.read_text(encoding="utf-8").partition("## Untidy sheets")
    PAGE.write_text(_page(told, len(drawn)) + "\n" * bool(head) + head + untidy, encoding="utf-8")
    print(PAGE.read_text(encoding="utf-8"))


def _page(told: Sequence[tuple[float, bool]], motors: int) -> str:
    rows = []
    for low, high in BANDS:
        own = [(p, right) for p, right in told if low <= p < high]
        if own:
            mean = sum(p for p, _ in own) / len(own)
            share = sum(right for _, right in own) / len(own)
            rows.append(
                f"| {low:.0%} to {min(high, 1):.0%} | {len(own)} | {mean:.1%} | {share:.1%} |"
            )
    return (
        "# How far the odds can be trusted\n\n"
        "Made-up motors as often as shops meet them, played by the program's own suggestions through the "
        f"simulated meter, one reading in fifty through a bad clip: {motors} motors. Every grouping named "
        "with 2 % or more at any moment counts. Odds are right when the last two columns agree.\n\n"
        "Made by `python benchmarks/identification.py odds`.\n\n"
        "| odds told | how many | mean of them | true |\n|---|---|---|---|\n"
        + "\n".join(rows)
        + "\n"
    )


if __name__ == "__main__":
    wanted = sys.argv[1] if len(sys.argv) > 1 else "speed"
    {"speed": speed, "odds": odds, "readings": readings, "truth": truth}[wanted]()
