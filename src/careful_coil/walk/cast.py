"""The cast walked: every motor by what Next says, held against the list of what is known to fail.

The list can only shrink: a failure that is not on it fails the run, one that no longer comes is to be struck.
"""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import click

from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor, cast_names
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk.tell import walk

QUICK_SEEDS, SEEDS = (1,), (1, 2)
QUICK = 12  # motors of a quick run: two cores walk them in about half a minute
_PLACE = re.compile(
    r" at \d+\b|-[A-Z](?:\+[A-Z])*(?=-|\b)"
)  # step numbers, tags: they follow the seed

Known = Mapping[tuple[str, int], frozenset[str]]


@dataclass(frozen=True, slots=True)
class Walked:
    """One walk of the cast."""

    motor: str
    seed: int
    document: WalkDocument


def failures_of(w: WalkDocument) -> frozenset[str]:
    """Return what is not as it should be, one short line each, alike whatever the readings were."""
    found = [] if w.right else [f"{w.end} at {w.at}" if w.at else w.end]
    found += [f"false hold {x}" for x in w.false_holds]
    found += [f"false watch {x}" for x in w.false_watches]
    found += [f"not named {x}" for x in w.unnamed]
    found += [f"asked twice {x}" for x in w.asked_twice]
    found += [f"out of order {x}" for x in w.out_of_order]
    found += [f"skip {s.code}" for s in w.skips]
    found += [f"refused at {s.code}" for s in w.steps if s.refused]
    found += [f"harm {h.what}" for h in w.harm]
    return frozenset(_PLACE.sub("", line) for line in found)


def read_known(text: str) -> Known:
    """Return the list of what is known to fail: lines of motor, seed, failure, a tab between."""
    found: dict[tuple[str, int], set[str]] = {}
    for line in text.splitlines():
        if line and not line.startswith("#"):
            motor, seed, failure = line.split("\t")
            found.setdefault((motor, int(seed)), set()).add(failure)
    return {k: frozenset(v) for k, v in found.items()}


def known_text(walks: Iterable[Walked]) -> str:
    """Return the list as text."""
    head = "# motor, seed of the walk, what fails: it can only shrink\n"
    lines = (
        f"{w.motor}\t{w.seed}\t{line}"
        for w in sorted(walks, key=lambda w: (w.motor, w.seed))
        for line in sorted(failures_of(w.document))
    )
    return head + "\n".join(lines) + "\n"


def chosen(quick: bool, turn: int) -> tuple[str, ...]:
    """Return the motors of a run: all, or a selection that rotates with `turn`."""
    names = cast_names()
    if not quick or len(names) <= QUICK:
        return names
    start = turn * QUICK % len(names)
    return tuple((names * 2)[start : start + QUICK])


def _one(job: tuple[str, int]) -> Walked:
    motor, seed = job
    return Walked(motor, seed, walk(cast_motor(motor), seed, Settings()))


def walk_cast(motors: Sequence[str], seeds: Sequence[int], workers: int) -> list[Walked]:
    """Return a walk of each motor with each seed."""
    jobs = [(m, s) for m in motors for s in seeds]
    if workers == 1:
        return [_one(j) for j in jobs]
    with ProcessPoolExecutor(workers) as pool:
        return list(pool.map(_one, jobs))


def differences(walks: Iterable[Walked], known: Known) -> Iterator[str]:
    """Yield what fails and is not known to, and what is known to fail and does not."""
    for w in walks:
        now, before = failures_of(w.document), known.get((w.motor, w.seed), frozenset())
        yield from (f"{w.motor}, seed {w.seed}: new: {x}" for x in sorted(now - before))
        yield from (f"{w.motor}, seed {w.seed}: gone, strike it: {x}" for x in sorted(before - now))


def struck(known: Known, walks: Iterable[Walked]) -> str:
    """Return the list without what no longer fails; nothing is added to it."""
    left = dict(known)
    for w in walks:
        key = (w.motor, w.seed)
        left[key] = left.get(key, frozenset()) & failures_of(w.document)
    lines = [f"{m}\t{s}\t{x}" for (m, s), every in sorted(left.items()) for x in sorted(every)]
    return "# motor, seed of the walk, what fails: it can only shrink\n" + "\n".join(lines) + "\n"


@click.command()
@click.option("--quick", is_flag=True, help="One seed, a selection that rotates.")
@click.option("--turn", default=0, help="Which selection of a quick run.")
@click.option("--known", type=click.Path(path_type=Path), required=True)
@click.option("--strike", is_flag=True, help="Take what no longer fails off the list.")
@click.option("--begin", is_flag=True, hidden=True, help="Write the list where there is none.")
@click.option("--workers", default=2, show_default=True)
def main(quick: bool, turn: int, known: Path, strike: bool, begin: bool, workers: int) -> None:
    """Walk the cast; exit 1 where it differs from what is known to fail."""
    motors = chosen(quick, turn)
    walks = walk_cast(motors, QUICK_SEEDS if quick else SEEDS, workers)
    for w in walks:
        d = w.document
        word = "right" if d.right else f"{d.end} at {d.at}" if d.at else d.end
        click.echo(f"{w.motor}, seed {w.seed}: {word}, {len(failures_of(d))} lines")
    if begin and not known.exists():
        known.write_text(known_text(walks), encoding="utf-8")
    listed = read_known(known.read_text(encoding="utf-8"))
    if strike:
        known.write_text(struck(listed, walks), encoding="utf-8")
        listed = read_known(known.read_text(encoding="utf-8"))
    found = list(differences(walks, listed))
    for line in found:
        click.echo(line, err=True)
    right = sum(w.document.right for w in walks)
    click.echo(f"{right} of {len(walks)} walks right; {len(found)} differ from the list")
    raise SystemExit(1 if found else 0)


if __name__ == "__main__":
    main()
