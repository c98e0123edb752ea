"""How long the next entry waits after a limit was changed, in a shop of many jobs.

python benchmarks/settings_change.py [N]: N jobs (200). Baseline, in the same run: judging all of them at once first,
as an entry would wait where nothing ran behind.
"""

import sys
import tempfile
import time
from pathlib import Path

from benchmarks.timing import spread, timed

from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.records import RecordsThread
from careful_coil.records.store import Store


def main() -> None:
    """Fill a shop, change a limit, append while the rest is judged behind."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    with tempfile.TemporaryDirectory() as aside:
        thread = RecordsThread(Path(aside) / "shop", Settings(), lasting=False)
        thread.start()
        told = demo_jobs()
        for k in range(count):
            job = told[k % len(told)]
            entries = tuple(e.model_copy(update={"id": f"{k}-{e.id}"}) for e in job.entries)
            made = job.model_copy(update={"id": f"j{k}", "number": 1000 + k, "entries": entries})
            thread.ask(lambda s, d=made: s.take_in(d)).result()  # type: ignore[misc]
        thread.ask(lambda s: s.summaries()).result()
        wanted = Settings().changed({"insulation_minimum": 12})
        thread.ask(lambda s: s.rack.judge_by(wanted)).result()
        left = [True]

        def behind(store: Store) -> None:
            left[0] = store.rack.behind() is not None

        times = []
        entry = told[0].entries[0]
        for k in range(30):
            rest = thread.ask(behind)  # as the window does: one job, then whoever waits
            fresh = entry.model_copy(update={"id": f"new-{k}"})
            times.append(timed(lambda e=fresh: thread.ask(lambda s: s.append("j3", [e])).result()))  # type: ignore[misc]
            rest.result()
        whole = time.perf_counter()
        while left[0]:
            thread.ask(behind).result()
        all_ms = 1000 * (time.perf_counter() - whole) * count / max(count - 30, 1)
        thread.close()
    middle = sorted(times)[len(times) // 2]
    print(f"{count} jobs; an entry behind one job judged: {spread(times)}")
    print(f"all judged first: {all_ms:.0f} ms; ratio {all_ms / middle:.0f}")


if __name__ == "__main__":
    main()
