"""A shop of many jobs made from a seed: the demo's motors under other names, ids and numbers."""

import json
import random
import sqlite3
import tempfile
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.records.folder import DATABASE
from careful_coil.records.rows import Log, rows_of
from careful_coil.records.shop import open_shop
from careful_coil.records.summarise import summarise

OWNERS = ("Mill", "Farm", "Laundry", "Brewery", "Quarry", "Harbour", "School", "Foundry", "Nursery")
PLACES = ("Alder", "Birch", "Cedar", "Elm", "Fir", "Hazel", "Larch", "Maple", "Oak", "Rowan")
MACHINES = ("pump", "fan", "saw", "lathe", "mixer", "conveyor", "compressor", "grinder")
MOST_AT_ONCE = 2000
ENTRY = "id, job_id, seq, at, by, station, body, extra"


def fill(folder: Path, count: int, seed: int = 1) -> Path:
    """Fill the shop in `folder`, made where it is not, with jobs of the demo's motors; their summaries stand."""
    rng, settings = random.Random(seed), Settings()
    open_shop(folder).dispose()
    logs = [(d.id, Log(list(d.entries), len(d.entries))) for d in demo_jobs()]
    made = [
        (list(rows_of(id, log.entries, 0)), summarise(id, 1, log, settings)) for id, log in logs
    ]
    with sqlite3.connect(folder / DATABASE) as c:
        c.execute("PRAGMA synchronous=OFF")
        first = c.execute("SELECT coalesce(max(number), 100) + 1 FROM job").fetchone()[0]
        for begin in range(first, first + count, MOST_AT_ONCE):
            numbers = range(begin, min(begin + MOST_AT_ONCE, first + count))
            drawn = [(n, *rng.choice(made), _name(rng)) for n in numbers]
            jobs, rows = [], []
            for number, log, summary, name in drawn:
                id = f"made-{seed}-{number}"
                known = summary.search.replace(summary.name.lower(), name.lower())
                kept = replace(
                    summary,
                    id=id,
                    number=number,
                    name=name,
                    search=" ".join([str(number), *known.split()[1:]]),
                )
                jobs.append((id, number, "{}", kept.text()))
                rows += _named(log, id, name)
            c.executemany("INSERT INTO job (id, number, extra, summary) VALUES (?, ?, ?, ?)", jobs)
            c.executemany(f"INSERT INTO entry ({ENTRY}) VALUES (?, ?, ?, ?, ?, ?, ?, ?)", rows)
    return folder


def _name(rng: random.Random) -> str:
    return f"{rng.choice(PLACES)} {rng.choice(OWNERS)} {rng.choice(MACHINES)}"


def _named(log: list[dict[str, object]], id: str, name: str) -> Iterator[tuple[object, ...]]:
    for row in log:
        old = str(row["job_id"])  # an entry's id begins with its job's
        body = str(row["body"]).replace(old, id)
        if '"field":"name"' in body:
            body = json.dumps(json.loads(body) | {"text": name})
        yield (
            str(row["id"]).replace(old, id),
            id,
            row["seq"],
            row["at"],
            row["by"],
            row["station"],
            body,
            row["extra"],
        )


if __name__ == "__main__":
    import sys
    import time

    begun = time.perf_counter()
    with tempfile.TemporaryDirectory() as aside:
        fill(Path(aside) / "shop", int(sys.argv[1]))
        size = sum(f.stat().st_size for f in Path(aside).rglob("*") if f.is_file())
    print(f"{sys.argv[1]} jobs in {time.perf_counter() - begun:.0f} s, {size / 1e6:.0f} MB")
