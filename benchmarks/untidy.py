"""Untidy sheets measured by hand: python benchmarks/untidy.py [sheets].

Whole sheets of made-up motors as tired people write them: fingers on the clips, two bad clips, two cells
exchanged, a lead left out of the count, one tag on two leads, shorted turns, an open coil. Prints how
often *sure* (95 % and more) is wrong and how often a definite mark is, by slip; writes how far the odds
can be trusted into docs/reliability.md.
"""

import random
import sys
from collections import defaultdict
from collections.abc import Callable
from dataclasses import replace
from multiprocessing import Pool
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))
from tests.core.motors import Player, groups_of

from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.models import P_BROKEN, P_PROTECTOR_OPEN, PRIOR, TWO_LEADS
from careful_coil.core.readings import Resistance
from careful_coil.core.winding import ARRANGEMENTS

PAGE = Path(__file__).parents[1] / "docs" / "reliability.md"
HEAD = "## Untidy sheets"
SURE = 0.95
BANDS = ((0.0, 0.5), (0.5, 0.8), (0.8, 0.9), (0.9, 0.97), (0.97, 1.01))
Slip = Callable[[Player, random.Random], None]


def _value(reading: object) -> str:
    return str(reading.value) if isinstance(reading, Resistance) else ""


def _put(player: Player, place: int, text: str) -> None:
    player.readings[place] = player.readings[place].model_copy(update={"value": text})


def _figures(player: Player) -> list[int]:
    return [k for k, r in enumerate(player.readings) if _value(r)[:1].isdigit()]


def tidy(player: Player, chance: random.Random) -> None:
    """Leave the sheet as it is."""


def fingers(player: Player, chance: random.Random) -> None:
    """Touch the clips on a pair that is open: what a body reads."""
    opens = [k for k, r in enumerate(player.readings) if _value(r) == "open"]
    if opens:
        ohm = 10 ** chance.uniform(4.5, 6.3)
        _put(player, chance.choice(opens), f"{ohm:.0f}")


def bad_clips(player: Player, chance: random.Random) -> None:
    """Take two readings through a bad clip."""
    places = _figures(player)
    for place in chance.sample(places, min(2, len(places))):
        _put(
            player,
            place,
            f"{float(_value(player.readings[place])) * chance.uniform(1.15, 4.0):.2f}",
        )


def exchanged(player: Player, chance: random.Random) -> None:
    """Write two readings into each other's cell."""
    a, b = chance.sample(range(len(player.readings)), 2)
    one, two = _value(player.readings[a]), _value(player.readings[b])
    _put(player, a, two)
    _put(player, b, one)


def left_out(player: Player, chance: random.Random) -> None:
    """Leave a lead out of the count."""
    gone = chance.choice(player.tags)
    player.tags = tuple(t for t in player.tags if t != gone)
    player.readings = [
        r for r in player.readings if isinstance(r, Resistance) and gone not in r.between
    ]


def two_leads(player: Player, chance: random.Random) -> None:
    """Put one tag on two leads: now the one is read, now the other."""
    kept, gone = chance.sample(player.tags, 2)
    by_pair = {frozenset(r.between): r for r in player.readings if isinstance(r, Resistance)}
    player.tags = tuple(t for t in player.tags if t != gone)
    player.readings = []
    for k, a in enumerate(player.tags):
        for b in player.tags[k + 1 :]:
            pair = {chance.choice((kept, gone)) if t == kept else t for t in (a, b)}
            value = by_pair[frozenset(pair)].value
            player.readings.append(Resistance(between=(a, b), value=value))


def shorted(player: Player, chance: random.Random) -> None:
    """Short some turns of one coil."""
    coil = chance.choice([c.name for c in player.core.coils])
    network = player.motor.network
    share = chance.uniform(0.5, 0.9)
    coils = tuple(replace(c, ohm=c.ohm * share) if c.name == coil else c for c in network.coils)
    player.motor = replace(player.motor, network=replace(network, coils=coils))
    player.bench.put_on(player.motor)
    player.readings = []
    player.read_all()


def open_coil(player: Player, chance: random.Random) -> None:
    """Break one coil, or open the protector in a common lead, as often as shops meet them."""
    coil = chance.choice([c.name for c in player.core.coils])
    network = player.motor.network
    coils = tuple(c for c in network.coils if c.name != coil)
    if player.slug == GUARDED and chance.random() < PROTECTOR / (1 + PROTECTOR):
        inner = {"common": "inside"}
        coils = tuple(
            replace(c, start=inner.get(c.start, c.start), finish=inner.get(c.finish, c.finish))
            for c in network.coils
        )
    player.motor = replace(player.motor, network=replace(network, coils=coils))
    player.bench.put_on(player.motor)
    player.readings = []
    player.read_all()


SLIPS: dict[str, Slip] = {
    "none": tidy,
    "fingers": fingers,
    "two bad clips": bad_clips,
    "cells exchanged": exchanged,
    "a lead left out": left_out,
    "one tag on two leads": two_leads,
    "shorted turns": shorted,
    "an open coil": open_coil,
}
KINDS = [k for k in PRIOR if k[0] != TWO_LEADS]  # one reading alone makes no untidy sheet
GUARDED = "single-phase-3-lead"  # it has a protector in its common lead
PROTECTOR = P_PROTECTOR_OPEN / P_BROKEN  # that is open, for each coil that is
FEW = 3  # of three leads one left out leaves one reading, which is no sheet
OTHER_MOTOR = ("a lead left out", "one tag on two leads")  # these may make a consistent one


def _leads(kind: tuple[str, str]) -> int:
    return len(ARRANGEMENTS[kind[0]].inside(kind[1]).leads)


def sheet(job: tuple[str, int]) -> tuple[str, float, bool, bool, str]:
    """Return of one sheet: the slip, the odds of its best answer, whether that is right, whether a definite
    mark is wrong, and how it stands."""
    slip, seed = job
    chance = random.Random(f"{slip} {seed}")
    kinds = [k for k in KINDS if slip not in OTHER_MOTOR or _leads(k) > FEW]
    opened = {GUARDED: 1 + PROTECTOR} if slip == "an open coil" else {}
    often = [PRIOR[k] * opened.get(k[0], 1.0) for k in kinds]
    slug, variant = chance.choices(kinds, often)[0]
    player = Player(slug, seed, variant=variant)
    phases = 3 if slug.startswith("three") else 1
    player.read_all()
    SLIPS[slip](player, chance)
    evidence = Evidence.of(player.tags, player.readings, player.meter, phases)
    found = identify(evidence)
    right = _right(found, player, slug, slip)
    held = all(s not in ("proven", "convention") for s in found.best.certainty.values())
    wrong_mark = not held and not (
        player.claims_hold(found)
        if slip not in ("a lead left out", "one tag on two leads")
        else False
    )
    same = [c for c in found.candidates if _key(c.arrangement) == _key(found.best.arrangement)]
    odds = sum(c.probability for c in same if c.groups == found.best.groups)
    return slip, odds if found.best.arrangement else 0.0, right, wrong_mark, found.status


def _key(slug: str | None) -> str:
    return slug or ""


def _right(found: Identification, player: Player, slug: str, slip: str) -> bool:
    if slip in ("a lead left out", "one tag on two leads"):
        return found.best.arrangement is None
    same = groups_of(found.best.groups) == player.true_groups()
    return found.best.arrangement == slug and (same or slip == "an open coil")


def main(sheets: int) -> None:
    """Print what became of each kind of slip, and write the odds' table."""
    jobs = [(list(SLIPS)[k % len(SLIPS)], k) for k in range(sheets)]
    with Pool(2) as pool:
        got = pool.map(sheet, jobs, chunksize=8)
    by_slip = defaultdict(list)
    for row in got:
        by_slip[row[0]].append(row)
    for slip, rows in by_slip.items():
        sure = [r for r in rows if r[1] >= SURE]
        wrong = sum(not r[2] for r in sure)
        marks = sum(r[3] for r in rows)
        print(
            f"{slip:22} {len(rows)} sheets: {len(sure)} sure, {wrong} of them wrong; a definite mark wrong in {marks}"
        )
    sure = [r for r in got if r[1] >= SURE]
    inconsistent = [r for r in sure if not r[2] and r[0] not in OTHER_MOTOR]
    share = 100 * len(inconsistent) / max(len(sure), 1)
    other = sum(not r[2] and r[0] in OTHER_MOTOR for r in sure)
    print(
        f"sure and wrong: {share:.1f} % of {len(sure)}; {other} more that make another consistent motor"
    )
    _write(got, share, len(sure))


def _write(got: list[tuple[str, float, bool, bool, str]], share: float, sure: int) -> None:
    short = [r for r in got if r[0] in OTHER_MOTOR]
    other = sum(not r[2] and r[1] > 0 for r in short)
    lines = [
        HEAD,
        "",
        f"{len(got)} whole sheets of made-up motors as tired people write them: fingers on the clips, two bad "
        "clips, two cells exchanged, a lead left out of the count, one tag on two leads, shorted turns, an open "
        f"coil, and none of these. Of {sure} answers of 95 % and more, {share:.1f} % are wrong where the "
        "sheet contradicts itself.",
        "",
        f"A lead left out of the count, and one tag on two leads, are counted apart: of {len(short)} such sheets "
        f"{other} read as another motor, mostly a whole one with a lead less, which no reading can tell; the "
        "count has to be right. The table is of the others.",
        "",
        "Made by `python benchmarks/untidy.py`.",
        "",
        "| odds told | how many | mean of them | true |",
        "|---|---|---|---|",
    ]
    for low, high in BANDS:
        rows = [r for r in got if low <= r[1] < high and r[1] > 0 and r[0] not in OTHER_MOTOR]
        if rows:
            mean = 100 * sum(r[1] for r in rows) / len(rows)
            true = 100 * sum(r[2] for r in rows) / len(rows)
            lines.append(
                f"| {100 * low:.0f}% to {min(100 * high, 100):.0f}% | {len(rows)} | {mean:.1f}% | {true:.1f}% |"
            )
    before = PAGE.read_text(encoding="utf-8").split(HEAD)[0].rstrip()
    PAGE.write_text(before + "\n\n" + "\n".join(lines) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 1000)
