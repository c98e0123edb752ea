"""Writers killed at any moment: what was said to be on disk is there, several entries are all there or none.

python benchmarks/kills.py [N]: N kills (60), in turn of a writer of entries, of several at once, of bundles taken
in, of backups, of settings, of upgrades and of photographs. Prints what was lost, cut in half or left behind;
status 1 where anything was.
"""

import json
import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

KINDS = ("entries", "several", "imports", "backups", "settings", "upgrades", "photographs")
WRITER = """
import random, sys, json, uuid
from pathlib import Path
from careful_coil.core.job import Entry
from careful_coil.core.settings import Settings
from careful_coil.documents.job import read_job
from careful_coil.records import shop
from careful_coil.records.attachments import keep
from careful_coil.records.backup import write_backup
from careful_coil.records.shop import open_shop
from careful_coil.records.shop_settings import write_settings
from careful_coil.records.store import Store
folder, kind, said = Path(sys.argv[1]), sys.argv[2], open(sys.argv[3], "a", buffering=1)
store = Store(open_shop(folder), Settings())
def entry():
    body = {"kind": "ticket", "field": "name", "text": uuid.uuid4().hex}
    return Entry.model_validate({"id": uuid.uuid4().hex, "at": "2026-03-01T08:00:00Z", "by": "AB",
                                 "station": "intake", "body": body})
job = uuid.uuid4().hex
first = entry()
store.open_job(job, [first])
said.write(first.id + "\\n")
print("ready", flush=True)
count = 0
while True:
    count += 1
    if kind in ("entries", "several"):
        fresh = [entry() for _ in range(1 if kind == "entries" else 7)]
        store.append(job, fresh)
        said.write(" ".join(e.id for e in fresh) + "\\n")
    elif kind == "imports":
        told = [e.model_dump(mode="json") for e in (entry() for _ in range(9))]
        store.take_in(read_job({"format": "careful-coil/job", "version": 1, "id": uuid.uuid4().hex,
                                "number": 5000 + count, "entries": told}))
        said.write(" ".join(e["id"] for e in told) + "\\n")
    elif kind == "backups":
        write_backup(folder, folder.with_name("b") / f"{count % 3}.ccshop")
    elif kind == "upgrades":
        shop.VERSION = 1 + count
        open_shop(folder).dispose()
    elif kind == "photographs":
        photo = folder.with_name(f"{count}.png")
        photo.write_bytes(b"\\x89PNG\\r\\n\\x1a\\n" + random.randbytes(200_000))
        said.write(keep(folder, photo).sha256 + "\\n")
    else:
        write_settings(folder, Settings().changed({"insulation_minimum": 5 + count % 50}))
"""


def once(folder: Path, kind: str, chance: random.Random) -> list[str]:
    """Kill a writer once; return what is wrong afterwards."""
    from careful_coil.core.settings import Settings
    from careful_coil.records import shop
    from careful_coil.records.attachments import kept_file
    from careful_coil.records.backup import restore
    from careful_coil.records.shop import open_shop
    from careful_coil.records.shop_settings import read_settings
    from careful_coil.records.store import Store

    said = folder.with_name(f"said-{time.monotonic_ns()}")
    said.touch()
    writer = subprocess.Popen(
        [sys.executable, "-c", WRITER, str(folder), kind, str(said)],
        stdout=subprocess.PIPE,
        text=True,
    )
    if writer.stdout is not None:
        writer.stdout.readline()
    time.sleep(chance.uniform(0.0, 0.4))
    writer.send_signal(signal.SIGKILL)
    writer.wait()
    shop.VERSION = 10**6 if kind == "upgrades" else 1
    engine = open_shop(folder)
    store = Store(engine, Settings())
    there = {e.id for s in store.summaries() for e in store.entries_of(s.id)}
    groups = [line.split() for line in said.read_text().split("\n")[:-1]]  # whole lines
    if kind == "photographs":
        there |= {i for g in groups for i in g if kept_file(folder, i)}
    wrong = [f"lost {i}" for g in groups for i in g if i not in there]
    for s in store.summaries():
        own = len(store.entries_of(s.id))
        if (kind == "several" and (own - 1) % 7) or (s.number >= 5000 and own != 9):
            wrong.append(f"cut in half: {own} entries")
    engine.dispose()
    if read_settings(folder)[1]:
        wrong.append(read_settings(folder)[1])
    for file in folder.with_name("b").glob("*.ccshop"):
        with tempfile.TemporaryDirectory() as aside:
            restore(file, Path(aside) / "shop")
    left = [f.name for f in folder.iterdir() if f.name.endswith(".upgrading")]
    return wrong + left


def main() -> int:
    """Kill and count."""
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 60
    chance, bad = random.Random(1), 0
    for k in range(kills):
        kind = KINDS[k % len(KINDS)]
        with tempfile.TemporaryDirectory(prefix="kills-") as aside:
            folder = Path(aside) / "shop"
            wrong = once(folder, kind, chance)
        bad += bool(wrong)
        if wrong:
            print(f"{kind}: {wrong[:3]}")
    print(json.dumps({"kills": kills, "with anything wrong": bad}))
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
