"""What the desk costs as a shop grows: interface-thread times, folds, imports, memory, in one run.

python benchmarks/shop.py [--jobs N] [--rounds N]: a small shop of 13 jobs beside one of N (20,000; 100,000 are made
within minutes). Milliseconds hold where `python -c "import pydantic, click, numpy"` takes 0.24 s: the run says
what it takes here.
"""

import argparse
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from benchmarks.made_shop import fill
from PySide6.QtCore import QCoreApplication, QEvent, QEventLoop
from PySide6.QtTest import QTest

from careful_coil.core.job import Entry
from careful_coil.core.job.fold import Folding
from careful_coil.core.job.noted import note
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.desk.start import application, build
from careful_coil.desk.window import Window
from careful_coil.records import RecordsThread

BASE_S = 0.24


class Blocked:
    """How long the interface thread was held, event by event, while something went on."""

    def __init__(self, window: Window) -> None:
        self.window = window

    def during(self, act: Callable[[], object], done: Callable[[], bool]) -> float:
        """Return the ms the interface thread was busy from `act` until nothing is on its way."""
        busy = _timed(act)
        for _ in range(20_000):
            begun = time.thread_time()
            QCoreApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents)
            QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
            busy += 1000 * (time.thread_time() - begun)
            if self.window.session.idle and done():
                return busy
            time.sleep(0.0005)
        raise SystemExit("the window does not come to rest")


def _timed(act: Callable[[], object]) -> float:
    begun = time.thread_time()
    act()
    return 1000 * (time.thread_time() - begun)


def _wall(act: Callable[[], object]) -> float:
    begun = time.perf_counter()
    act()
    return 1000 * (time.perf_counter() - begun)


def main() -> None:
    """Print the table."""
    told = argparse.ArgumentParser(description=__doc__)
    told.add_argument("--jobs", type=int, default=20_000)
    told.add_argument("--rounds", type=int, default=9)
    asked = told.parse_args()
    base = min(_base() for _ in range(5))
    print(
        f"base of the verbs {base:.2f} s; times below as measured, wanted ones × {base / BASE_S:.2f}"
    )
    with tempfile.TemporaryDirectory() as aside:
        begun = time.perf_counter()
        many = fill(Path(aside) / "many", asked.jobs)
        print(f"{asked.jobs} jobs made in {time.perf_counter() - begun:.0f} s")
        few = fill(Path(aside) / "few", 13)
        in_window(few, "13 jobs", asked.rounds)
        in_window(many, f"{asked.jobs} jobs", asked.rounds)
        judging()
        folding()
        importing(Path(aside) / "in")


def _base() -> float:
    begun = time.perf_counter()
    subprocess.run([sys.executable, "-c", "import pydantic, click, numpy"], check=True)
    return time.perf_counter() - begun


def in_window(shop: Path, name: str, rounds: int) -> None:
    """Print what one entry, another job, another theme and a letter in the finder hold the interface up."""
    application()
    window = build(shop, False, lambda: datetime(2026, 3, 4, 9, 0, tzinfo=UTC))
    session, blocked = window.session, Blocked(window)
    window.show()
    QTest.qWaitForWindowExposed(window)
    blocked.during(lambda: None, lambda: session.open is not None)
    session.who = "AB"
    ids = [s.id for s in session.summaries[: rounds + 1]]

    def opens(id: str) -> Callable[[], bool]:
        return lambda: session.open is not None and session.open.id == id

    for id in ids:  # each page and part is made once before it is timed
        blocked.during(lambda id=id: session.open_job(id), opens(id))
    another = [blocked.during(lambda id=id: session.open_job(id), opens(id)) for id in ids]

    def entry(k: int) -> Callable[[], object]:
        return lambda: session.record(note("ticket", "complaint", f"hums {k}"), station="intake")

    entries = [blocked.during(entry(k), lambda: session.flying == 0) for k in range(rounds)]
    themes = [
        blocked.during(lambda: window.set_theme(window.theme.other()), lambda: True)
        for _ in range(rounds)
    ]
    sizes = [
        blocked.during(
            lambda k=k: window.set_theme(window.theme.larger(1 - 2 * (k % 2))), lambda: True
        )
        for k in range(rounds)
    ]
    letters = []
    for k in range(rounds):
        letters.append(
            blocked.during(lambda k=k: window.rack.search.setText("abcehlm"[k % 7]), lambda: True)
        )
        window.rack.search.setText("")
    for what, times, most in (
        ("one entry", entries, 16),
        ("another job", another, 50),
        ("theme", themes, 100),
        ("text size", sizes, 100),
        ("finder, first letter", letters, 16),
    ):
        times = sorted(times)
        print(f"{name}: {what} {times[len(times) // 2]:.0f} ms, most {times[-1]:.0f} (≤ {most})")
    window.close()
    window.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


JUDGE = """
import sys, time
from careful_coil.core.job import fold
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
job = demo_jobs()[int(sys.argv[1])]
begun = time.perf_counter()
judge(fold(job.entries), Settings())
once = time.perf_counter()
judge(fold(job.entries), Settings())
print(job.id, 1000 * (once - begun), 1000 * (time.perf_counter() - once))
"""


def judging() -> None:
    """Print what the first judgement of each demo job costs a process that has judged nothing."""
    for k in range(len(demo_jobs())):
        run = [sys.executable, "-c", JUDGE, str(k)]
        id, first, again = subprocess.run(
            run, capture_output=True, text=True, check=True
        ).stdout.split()
        print(
            f"first judgement of {id}: {float(first):.0f} ms (≤ 150), again {float(again):.0f} ms"
        )


def folding() -> None:
    """Print what the next entry of a very long job costs the fold."""
    log = list(demo_jobs()[1].entries)
    for count, most in ((5_000, 5), (20_000, 10)):
        told = note("ticket", "complaint", "hums")
        long = log + [
            Entry(id=f"x{k}", at="2026-03-04T09:00:00Z", by="AB", station="intake", body=told)
            for k in range(count - len(log))
        ]
        folding = Folding()
        anew = _wall(partial(folding.job, long[:-9]))
        times = [_wall(partial(folding.job, long[: count - 9 + k])) for k in range(1, 9)]
        job = folding.job(long)
        judge(job, Settings())
        whole = _wall(partial(judge, job, Settings()))
        print(
            f"fold of the next of {count} entries: {sorted(times)[4]:.1f} ms (≤ {most}), "
            f"anew {anew:.0f} ms; judged {whole:.0f} ms"
        )


def importing(folder: Path, count: int = 300) -> None:
    """Print what taking one job in costs."""
    told = demo_jobs()
    made = []
    for k in range(count):
        job = told[k % len(told)]
        entries = tuple(e.model_copy(update={"id": f"{k}-{e.id}"}) for e in job.entries)
        made.append(job.model_copy(update={"id": f"j{k}", "number": 1000 + k, "entries": entries}))
    thread = RecordsThread(folder, Settings())
    thread.start()
    thread.ask(lambda s: s.rack.every()).result()
    begun = time.perf_counter()
    for job in made:
        thread.ask(lambda s, d=job: s.take_in(d)).result()  # type: ignore[misc]
    took = 1000 * (time.perf_counter() - begun) / count
    thread.close()
    print(f"taking a job in: {took:.1f} ms (≤ 10)")


if __name__ == "__main__":
    main()
