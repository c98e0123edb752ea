"""Documents changed at random: each is read, or refused in one line; nothing else comes out.

python benchmarks/mutated.py [N [SEED]]: N documents (10,000), made of the demo's jobs and the cast: values of other
kinds, keys gone, lists long and short, texts cut, odd figures, bytes turned. Prints each exception that is no
refusal, by its kind and place, with the document's number; status 1 where there is any.
"""

import copy
import json
import random
import sys
import time
import traceback
from collections import Counter
from pathlib import Path
from typing import Any

import careful_coil
from careful_coil.core.errors import CoilError
from careful_coil.core.job import fold
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from careful_coil.documents.base import parse_json
from careful_coil.documents.job import read_job
from careful_coil.documents.motor import read_motor

DEMO = Path(careful_coil.__file__).parent / "demo"
ODD: list[Any] = [
    *(None, True, False, 0, -1, 1e308, 10**30, 0.1, "", "x", "∞", "x" * 5000, [], {}, [[]]),
    *(
        {"a": 1},
        "2026-13-45T99:00:00Z",
        "A" * 300,
        "../..",
        "\u202e",
        "12,5",
        "-5 Ω",
        [1, 2, 3] * 500,
    ),
]


def places(told: Any, at: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Return every place in a document."""
    found = [at] if at else []
    items = (
        told.items()
        if isinstance(told, dict)
        else enumerate(told)
        if isinstance(told, list)
        else ()
    )
    for key, value in items:
        found += places(value, (*at, key))
    return found


def changed(told: dict[str, Any], chance: random.Random) -> dict[str, Any]:
    """Return a document with one to four places changed."""
    made = copy.deepcopy(told)
    for _ in range(chance.randint(1, 4)):
        every = places(made)
        if not every:
            break
        *way, last = chance.choice(every)
        here = made
        for key in way:
            here = here[key]
        act = chance.random()
        if act < 0.25:
            del here[last]
        elif act < 0.45 and isinstance(here, list):
            here.insert(chance.randrange(len(here) + 1), copy.deepcopy(here[last]))
        else:
            here[last] = copy.deepcopy(chance.choice(ODD))
    return made


def turned(text: str, chance: random.Random) -> str:
    """Return a text with some characters changed."""
    letters = list(text)
    for _ in range(chance.randint(1, 6)):
        letters[chance.randrange(len(letters))] = chance.choice('{}[],:"0x\\\n é')
    return "".join(letters)


def main() -> int:
    """Change, read, judge and count."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
    chance = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    sources = [json.loads(p.read_text(encoding="utf-8")) for p in sorted(DEMO.glob("jobs/*.json"))]
    sources += [
        json.loads(p.read_text(encoding="utf-8")) for p in sorted(DEMO.glob("cast/*.json"))[::10]
    ]
    ended, wrong, slowest = Counter[str](), Counter[str](), 0.0
    for number in range(count):
        told = chance.choice(sources)
        text = json.dumps(changed(told, chance), ensure_ascii=False)
        text = turned(text, chance) if chance.random() < 0.1 else text
        begun = time.perf_counter()
        try:
            found = parse_json(text)
            if told["format"].endswith("motor"):
                read_motor(found)
            else:
                document = read_job(found)
                judge(fold(document.entries[: chance.choice((5, 20, 400))]), Settings())
            ended["read"] += 1
        except CoilError:
            ended["refused"] += 1
        except Exception as error:  # this is what is looked for
            last = traceback.extract_tb(error.__traceback__)[-1]
            place = f"{type(error).__name__} at {Path(last.filename).name}:{last.lineno}"
            if not wrong[place]:
                print(f"{number}: {place}: {str(error)[:100]}", flush=True)
            wrong[place] += 1
        slowest = max(slowest, time.perf_counter() - begun)
    print(
        json.dumps(
            {
                "documents": count,
                **ended,
                "wrong": sum(wrong.values()),
                "slowest s": round(slowest, 2),
            }
        )
    )
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
