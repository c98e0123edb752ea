"""Start-up: the first paint comes before the records, the records before anything else."""

import sys
import tempfile
from collections.abc import Callable, Sequence
from datetime import UTC, date, datetime
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QApplication

from careful_coil.desk.bundles import take_in
from careful_coil.desk.filling import first_look, load
from careful_coil.desk.heard import listen
from careful_coil.desk.icons import window_icon
from careful_coil.desk.keeping import back_up_daily
from careful_coil.desk.session import Session
from careful_coil.desk.single import Door, hand_over
from careful_coil.desk.theme import Theme, load_fonts
from careful_coil.desk.window import Window
from careful_coil.faults import catch_all
from careful_coil.records import RecordsThread
from careful_coil.records.folder import DATABASE
from careful_coil.records.place import NAME, usual_shop
from careful_coil.records.shop_settings import read_settings
from careful_coil.starting import few_collections, no_feature_search

if TYPE_CHECKING:
    from careful_coil.bench import Instrument
    from careful_coil.core.job import Job
    from careful_coil.documents.job import JobDocument


def application() -> QApplication:
    """Return the application, made once, with its style and faces."""
    app = QApplication.instance()
    if not isinstance(app, QApplication):
        app = QApplication(sys.argv[:1])
    if app.applicationName() != NAME:
        few_collections()
        no_feature_search()
        app.setStyle("Fusion")
        app.setApplicationName(NAME)
        app.setApplicationDisplayName("Careful Coil")
        app.setDesktopFileName(NAME)
        app.setWindowIcon(window_icon())
        app.setCursorFlashTime(0)
        load_fonts()
        listen()
    return app


def _demo_meter(job_id: str, number: int, job: "Job") -> "Instrument | None":
    from careful_coil.demo.truths import demo_meter  # only the demo has hidden motors

    return demo_meter(job_id, number, job)


def _demo_jobs(today: date) -> "list[JobDocument]":
    from careful_coil.demo import (
        demo_jobs,
    )  # with what jobs are made of: not on the interface thread

    return demo_jobs(today)


def build(
    folder: Path, demo: bool, clock: Callable[[], datetime], theme: Theme | None = None
) -> Window:
    """Return the window on the shop in `folder`; its records are opened when the event loop runs."""
    settings, trouble = read_settings(folder)
    records = RecordsThread(folder, settings, lasting=not demo)
    session = Session(records, settings, clock, _demo_meter if demo else None, folder)
    if demo:
        session.who = "AB"
        session.put_under(at_c=21.0)
    window = Window(session, theme or Theme())
    window.rack.who.setText(session.who)

    def keep_demo_files() -> None:
        from careful_coil.core.gear.shelf_list import read_shelf
        from careful_coil.demo import demo_pictures, demo_shelf
        from careful_coil.records.attachments import keep
        from careful_coil.records.shop_shelf import FILE, keep_shelf

        keep_shelf(folder / FILE, read_shelf(demo_shelf()))
        with demo_pictures() as pictures:
            for file in pictures:
                keep(folder, file)

    def demo_jobs_now() -> "list[JobDocument]":
        return _demo_jobs(clock().date())

    fresh = demo and not (folder / DATABASE).exists()
    if demo:  # asked before anything a hand may ask, answered once the records are open
        load(session, demo_jobs_now)
    else:
        session.fill()

    def look() -> None:
        if trouble:
            session.told.emit(trouble, "watch")
        first_look(session, demo_jobs_now if fresh else None, records.start)
        if demo:
            session.aside(keep_demo_files, lambda _: None)

    # behind the paint that is under way, whatever it is that the window shows of itself first
    window.whole.first_painted.connect(lambda: QTimer.singleShot(0, look))
    return window


def open_window(demo: bool, files: Sequence[str] = ()) -> int:
    """Open the window and run until it is closed; the demo shop is a copy that is thrown away.

    `files` are jobs to take in. A window that is open on the shop already is raised instead.
    """
    if not demo and hand_over(usual_shop(), files):
        return 0
    app = application()
    if not demo:
        return _run(app, usual_shop(), demo=False, files=files)
    with tempfile.TemporaryDirectory(prefix="careful-coil-demo-") as folder:
        return _run(app, Path(folder), demo=True, files=files)


def at_the_door(window: Window) -> Door:
    """Return what a second start on the same shop speaks to: it raises this window."""

    def visited(files: list[str]) -> None:
        window.setWindowState(window.windowState() & ~Qt.WindowState.WindowMinimized)
        window.show()
        window.raise_()
        window.activateWindow()
        for file in files:
            take_in(window.session, file)

    door = Door(window, window.session.shop, visited)
    window.closed.connect(door.close)
    return door


def demo_beside(window: Window) -> Window:
    """Return the demo shop in a window of its own, on a copy that goes with it."""
    folder = tempfile.TemporaryDirectory(prefix="careful-coil-demo-")
    beside = build(Path(folder.name), True, lambda: datetime.now(UTC), window.theme)
    beside.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    beside.closed.connect(partial(tempfile.TemporaryDirectory.cleanup, folder))
    beside.show()
    return beside


def _run(app: QApplication, folder: Path, demo: bool, files: Sequence[str]) -> int:
    window = build(folder, demo, lambda: datetime.now(UTC))
    kept: list[Window] = []  # else it would be gone with its name
    window.demo_wanted.connect(lambda: kept.append(demo_beside(window)))
    window.show()
    catch_all(lambda words: window.session.told.emit(words, "hold"))
    window.session.beside.watch()
    if not demo:
        at_the_door(window)
        back_up_daily(window.session)
    for file in files:
        take_in(window.session, file)
    return app.exec()
