"""How long the program takes to be there, as ratios to a bare interpreter and a bare window of the same run.

Resident is what it holds once it is at rest: everything loaded, the rack filled, all jobs judged.

python benchmarks/start.py [--jobs N] [--rounds N]: a shop of N jobs (20,000) for the last window. Baselines: of
the verbs `python -c "import pydantic, click, numpy"`, of the window a bare toolkit window of 1280 by 800.
"""

import argparse
import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from pathlib import Path

from benchmarks.made_shop import fill
from tests.test_cli_hookup import HOOKUP

CASES = Path(__file__).parents[1] / "src" / "careful_coil" / "demo" / "jobs"
BASE = "import pydantic, click, numpy"
BARE = """
import sys
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QWidget
app = QApplication(sys.argv)
window = QWidget()
window.resize(1280, 800)
window.paintEvent = lambda event: QTimer.singleShot(0, app.quit)
window.show()
app.exec()
"""
WINDOW = """
import os, sys, time
from datetime import UTC, datetime
from pathlib import Path
from careful_coil.desk.start import application, build
app = application()
from PySide6.QtCore import QEvent, QObject, QTimer
begun, seen = float(os.environ["BEGUN"]), {}
def stamp(what, also=lambda: None):
    if what not in seen:
        seen[what] = time.time() - begun
        also()
class Eye(QObject):
    def eventFilter(self, watched, event):
        if event.type() == QEvent.Type.Paint and "paint" not in seen:
            QTimer.singleShot(0, lambda: stamp("paint"))
        return False
eye = Eye()
window = build(Path(sys.argv[1]), sys.argv[2] == "demo", lambda: datetime.now(UTC))
window.ledger.installEventFilter(eye)
window.show()
def shown():
    app.processEvents()
    stamp("job", rest)
def rest():
    if window.session.idle and window.session.known and "whole" in seen:
        return app.quit()
    if window.session.idle:
        seen["whole"] = True
    QTimer.singleShot(300, rest)
window.session.job_changed.connect(lambda: QTimer.singleShot(0, shown))
app.exec()
pages = next(line for line in open("/proc/self/status") if line.startswith("VmRSS"))
print("SEEN", seen["paint"], seen["job"], int(pages.split()[1]) / 1024)
os._exit(0)
"""
READINGS = {
    "format": "careful-coil/readings",
    "version": 1,
    "meter": {"resolution_ohm": 0.01},
    "leads": [{"tag": t} for t in "ABC"],
    "readings": [
        {"kind": "resistance", "between": [a, b], "value": v, "unit": "ohm"}
        for a, b, v in (("A", "B", 4.0), ("B", "C", 7.0), ("A", "C", 11.0))
    ],
}


def run(code: Sequence[str], **told: str) -> tuple[float, str]:
    """Return how many seconds a process of this interpreter took, and what it printed."""
    begun = time.time()
    env = os.environ | {"QT_QPA_PLATFORM": "offscreen", "BEGUN": str(begun)} | told
    done = subprocess.run(
        [sys.executable, *code], env=env, capture_output=True, text=True, check=False
    )
    if done.returncode not in (0, 1) or "Traceback" in done.stderr:
        raise SystemExit(done.stderr)
    return time.time() - begun, done.stdout


def middle(times: list[float]) -> float:
    """Return the middle one."""
    return sorted(times)[len(times) // 2]


def verbs(aside: Path) -> dict[str, tuple[list[str], str]]:
    """Return the verbs by name: their words and what is wanted."""
    (aside / "hookup.json").write_text(json.dumps(HOOKUP), encoding="utf-8")
    (aside / "readings.json").write_text(json.dumps(READINGS), encoding="utf-8")
    job = str(CASES / "theatre.json")
    return {
        "sum": (["sum", "slip", "hertz=50", "rpm=1440"], "≤ 4"),
        "connect": (CONNECT, "≤ 4"),
        "hookup": (["hookup", str(aside / "hookup.json")], "≤ 4"),
        "identify, 3 leads": (["identify", str(aside / "readings.json"), "--json"], "≤ 6"),
        "judge": (["judge", job], "≤ 8"),
        "report": (["report", job, "-o", str(aside / "sheet.pdf")], "≤ 12"),
    }


PROGRAM = ["-c", "from careful_coil.app import main; main()"]
CONNECT = [
    *("connect", "--arrangement", "three-phase-9-lead-wye", "--rated", "230/460"),
    *("--supply", "230", "--json"),
]


def main() -> None:
    """Print the table."""
    told = argparse.ArgumentParser(description=__doc__)
    told.add_argument("--jobs", type=int, default=20_000)
    told.add_argument("--rounds", type=int, default=5)
    asked = told.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        table(Path(folder), asked.jobs, asked.rounds)


def table(aside: Path, jobs: int, rounds: int) -> None:
    """Measure everything in turn, `rounds` times."""
    few, many = fill(aside / "few", 12), fill(aside / "many", jobs)
    code: dict[str, Callable[[], list[str]]] = {
        "base": lambda: ["-c", BASE],
        "bare": lambda: ["-c", BARE],
        "importing the desk": lambda: ["-c", "import careful_coil.desk.start"],
        "12 jobs": lambda: ["-c", WINDOW, str(few), "shop"],
        "demo": lambda: ["-c", WINDOW, tempfile.mkdtemp(dir=aside), "demo"],
        f"{jobs} jobs": lambda: ["-c", WINDOW, str(many), "shop"],
    }
    wanted = verbs(aside)
    for name, (words, _) in wanted.items():
        code[name] = lambda words=words: [*PROGRAM, *words]  # type: ignore[misc]
    took: dict[str, list[float]] = {name: [] for name in code}
    seen: dict[str, list[list[float]]] = {}
    for _ in range(rounds):
        for name, make in code.items():
            seconds, printed = run(make())
            took[name].append(seconds)
            if printed.startswith("SEEN"):
                seen.setdefault(name, []).append([float(w) for w in printed.split()[1:]])
    base, bare = middle(took["base"]), middle(took["bare"])
    print(f"base of the verbs {base:.2f} s, bare window {bare:.2f} s; middle of {rounds}")
    desk = middle(took["importing the desk"])
    print(f"importing the desk: {desk:.2f} s, {desk / bare:.1f} × bare (≤ 4)")
    for name, three in seen.items():
        paint, job, resident = (middle([t[k] for t in three]) for k in range(3))
        print(
            f"window, {name}: first paint {paint / bare:.1f} × (≤ 4), job shown {job:.2f} s, "
            f"{job / bare:.1f} × (≤ 8), resident {resident:.0f} MB"
        )
    for name, (_, most) in wanted.items():
        print(f"{name}: {middle(took[name]):.2f} s, {middle(took[name]) / base:.1f} × ({most})")


if __name__ == "__main__":
    main()
