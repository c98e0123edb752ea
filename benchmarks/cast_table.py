"""The cast as it walks now, as a page: `python benchmarks/cast_table.py docs/cast-now.md`.

Every motor once without a window and once through it, seed 1.
"""

import os
import re
import sys
from collections import Counter
from collections.abc import Iterable, Iterator
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor, cast_names
from careful_coil.desk.walk_window import play_in_window
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk.keys import allowed_keys
from careful_coil.walk.tell import walk

SEED = 1
HEAD = """# The cast

{count} invented motors, each played by one who does what Next says and nothing else (`careful-coil walk`, seed {seed}).
*Right*: it ended as it should, nothing was hurt, no fault left the shop.
*False*: a hold, or a watch at the end, on a part that has nothing wrong.
*Twice*: questions answered again with nothing between that voids the first answer.
*Order*: what came before something that the law asks first.
*Through the window*: where the same walk ends when it is made by keys; the cursor is then elsewhere than the question.
*Keys*: pressed in the window; *allowed*: by the one formula of `src/careful_coil/demo/cast/README.md`.
How it was when the walk was first made: [cast-before.md](cast-before.md).
Made by `python benchmarks/cast_table.py`; what fails is listed line by line in `tests/cast-known.tsv`.

"""
COLUMNS = (
    *("motor", "end", "at", "right", "false holds", "false watches", "not named", "twice", "order"),
    *(
        "skips",
        "refused",
        "readings",
        "kicks",
        "entries",
        "min",
        "window ends at",
        "keys",
        "allowed",
    ),
)


def rows(name: str, bare: WalkDocument, shown: WalkDocument) -> tuple[str, ...]:
    """Return a motor's cells."""
    return (
        name,
        bare.end,
        bare.at or "–",
        "yes" if bare.right else "no",
        str(len(bare.false_holds)),
        str(len(bare.false_watches)),
        ", ".join(bare.unnamed) or "–",
        str(len(bare.asked_twice)),
        str(len(bare.out_of_order)),
        str(len(bare.skips)),
        str(sum(bool(s.refused) for s in bare.steps)),
        str(bare.readings),
        str(bare.kicks),
        str(bare.entries),
        f"{bare.minutes:g}",
        "signed" if shown.end == "released" else shown.steps[-1].code,
        str(shown.keys),
        str(allowed_keys(s.model_dump() for s in shown.steps)),
    )


def counted(title: str, lines: Iterable[str]) -> Iterator[str]:
    """Yield what comes how often, the most frequent first."""
    found = Counter(re.sub(r" at \d+", "", line) for line in lines)
    yield f"\n## {title}\n\n"
    for line, times in found.most_common():
        yield f"- {times} × {line}\n"


def both_ways(name: str) -> tuple[WalkDocument, WalkDocument]:
    """Return a motor's walk without a window, and through it."""
    motor = cast_motor(name)
    return walk(motor, SEED, Settings()), walk(motor, SEED, Settings(), play_in_window)


def page() -> str:
    """Return the page."""
    walks = {}
    with ProcessPoolExecutor(max_workers=os.cpu_count(), mp_context=get_context("spawn")) as pool:
        for name, both in zip(cast_names(), pool.map(both_ways, cast_names()), strict=True):
            walks[name] = both
            print(name, both[0].end, both[1].end, both[1].keys, file=sys.stderr, flush=True)
    bare = [w for w, _ in walks.values()]
    text = HEAD.format(count=len(walks), seed=SEED)
    text += f"| {' | '.join(COLUMNS)} |\n|{'---|' * len(COLUMNS)}\n"
    text += "".join(f"| {' | '.join(rows(n, *w))} |\n" for n, w in walks.items())
    right = sum(w.right for w in bare)
    text += f"\n{right} of {len(bare)} end as they should.\n"
    text += "".join(
        counted(
            "Where one who only obeys cannot go on",
            (f"`{s.code}`: {s.why}" for w in bare for s in w.skips),
        )
    )
    text += "".join(counted("False holds", (x for w in bare for x in w.false_holds)))
    text += "".join(counted("False watches at the end", (x for w in bare for x in w.false_watches)))
    text += "".join(counted("Asked twice", (x for w in bare for x in w.asked_twice)))
    text += "".join(counted("Out of order", (x for w in bare for x in w.out_of_order)))
    return text


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(page(), encoding="utf-8")
