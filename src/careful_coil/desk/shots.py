"""The pictures in docs/screenshots, made from the demo shop: python -m careful_coil.desk.shots FOLDER."""

import sys
import tempfile
from collections.abc import Callable
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

from PySide6.QtCore import QCoreApplication, QEventLoop
from PySide6.QtTest import QTest

from careful_coil.core.probes import Request
from careful_coil.desk.keeping import change_settings
from careful_coil.desk.start import application, build
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.theme import Theme
from careful_coil.desk.window import Window

LAYOUT_ROUNDS = 8  # parts within parts fit their heights one after the other
SETTINGS = "settings"
WHY_PAGE = "why-series-parallel.md"
# name of the picture; motor or the settings; station; part of it
VIEWS = (
    ("intake", "demo-bakery", "intake", "counter"),
    ("leads", "demo-theatre", "leads", ""),
    ("leads-polarity", "demo-theatre", "leads", "kick"),
    ("insulation", "demo-cider-mill", "insulation", "test"),
    ("start-gear", "demo-chandlery", "start-gear", "why"),
    ("start-gear-capacitors", "demo-chandlery", "start-gear", "capacitor"),
    ("start-gear-curves", "demo-chandlery", "start-gear", "curves"),
    ("mechanics", "demo-dairy", "mechanics", "bearings"),
    ("look", "demo-bakery", "intake", "condition"),
    ("mechanics-commutator", "demo-sander", "mechanics", "bars"),
    ("winding", "demo-boatyard", "winding", "record"),
    ("connect", "demo-theatre", "connect", "change"),
    ("connect-what-if", "demo-theatre", "connect", "what-if"),
    ("test-run", "demo-lock-house", "test-run", "run"),
    ("release", "demo-cider-mill", "release", ""),
    ("settings", SETTINGS, "", ""),
)


def settle(window: Window, done: Callable[[], bool] = lambda: True) -> None:
    """Run the event loop until nothing is on its way and `done` holds."""
    for _ in range(6000):
        QCoreApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 20)
        if window.session.idle and done():
            for _ in range(LAYOUT_ROUNDS):
                QCoreApplication.processEvents()
            return
        QTest.qWait(5)
    raise RuntimeError("the window did not settle")


def is_open(window: Window, job: str) -> bool:
    """Whether a job is on the bench."""
    return window.session.open is not None and window.session.open.id == job


def open_demo(folder: Path, theme: Theme, width: int, height: int) -> Window:
    """Return the window on a fresh demo shop, filled."""
    application()
    window = build(folder, True, lambda: datetime(2026, 3, 4, 9, 0, tzinfo=UTC), theme)
    window.resize(width, height)
    window.show()
    settle(window, lambda: window.session.open is not None)
    return window


def show(window: Window, job: str, station: str, part: str) -> None:
    """Bring a view up and wait for it."""
    if job == SETTINGS:
        window.settings()
    else:
        window.session.open_job(job)
        settle(window, partial(is_open, window, job))
        window.session.bind()
    if station:
        window.go(station)
        settle(window)
    if part == "kick":
        window.session.pick(Request(kind="kick", ends=("A", "F"), sense=("B", "G")))
    page = window.stack.currentWidget()
    if part and isinstance(page, PartedPage):
        page.open_part(part)
    settle(window)


def in_german(window: Window, file: Path) -> None:
    """Write a picture of the window as a German shop has it."""
    for language in ("german", "english"):
        change_settings(window.session, {"schools": {"language": language}})
        settle(window)
        if language == "german":
            show(window, "demo-lock-house", "test-run", "ready")
            window.grab().save(str(file))


def open_book(window: Window, file: Path) -> None:
    """Write a picture of the handbook at a page whose drawing is alive."""
    window.reading.toggle()
    window.reading.handbook.show_page(WHY_PAGE)
    settle(window)
    window.grab().save(str(file))


def empty_shop(file: Path, theme: Theme, width: int, height: int) -> None:
    """Write a picture of a shop that holds no motor."""
    application()
    with tempfile.TemporaryDirectory() as shop:
        window = build(Path(shop), False, lambda: datetime(2026, 3, 4, 9, 0, tzinfo=UTC), theme)
        window.resize(width, height)
        window.show()
        settle(window, lambda: window.session.known)
        window.grab().save(str(file))
        window.close()


def take(folder: Path, theme: Theme, width: int = 1280, height: int = 800) -> None:
    """Write one picture of each view into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    empty_shop(folder / "first.png", theme, width, height)
    with tempfile.TemporaryDirectory() as shop:
        window = open_demo(Path(shop), theme, width, height)
        for name, job, station, part in VIEWS:
            show(window, job, station, part)
            window.grab().save(str(folder / f"{name}.png"))
        in_german(window, folder / "in-german.png")
        open_book(window, folder / "handbook.png")
        window.close()


if __name__ == "__main__":
    if len(sys.argv) < 2:
        sys.exit("Wanted: the folder for the pictures.")
    dim, large = "--dim" in sys.argv, "--large" in sys.argv
    size = (1100, 700) if "--small" in sys.argv else (1280, 800)
    take(Path(sys.argv[1]), Theme(dim=dim, scale=1.5 if large else 1.0), *size)
