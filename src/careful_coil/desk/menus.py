"""What the menus hold: words, keys, and what of the window does it."""

from collections.abc import Callable, Iterator
from functools import partial
from typing import TYPE_CHECKING, Any

from PySide6.QtGui import QAction, QKeySequence

from careful_coil.core.stations import STATIONS
from careful_coil.core.stations import TITLES as SHOWN
from careful_coil.desk.bundles import take_in, take_offered
from careful_coil.desk.keeping import back_up, rebuild, write_report
from careful_coil.desk.papers import write_job_sheet, write_tags
from careful_coil.desk.tongue import tr

if TYPE_CHECKING:
    from careful_coil.desk.window import Window

PRINTED = (
    ("Print the job sheet", ("Ctrl+Shift+P",), "print_sheet"),
    ("Print the leads' tags", (), "print_tags"),
    ("Print the motor's tag", (), "print_motor_tag"),
)
MENUS = ("&Shop", "&Bench", "&View", "&Help")
Act = tuple[str, str, tuple[str, ...], Callable[[], object]]


def fill(window: "Window") -> None:
    """Make the menus of a window."""
    bar = window.menuBar()
    menus = {name: bar.addMenu(name) for name in MENUS}
    for menu, words, keys, do in actions(window):
        action = QAction("", window)
        action.setObjectName(words)
        action.setShortcuts([QKeySequence(k) for k in keys])
        action.triggered.connect(lambda _=False, do=do: do())
        menus[menu].addAction(action)
    retell(window)


def retell(window: "Window") -> None:
    """Say the menus in the language that is spoken now."""
    for name, own in zip(MENUS, window.menuBar().actions(), strict=True):
        own.setText(tr(name))
    made: Any = window.findChildren(QAction)  # Qt's stubs differ in what children are
    for action in made:
        if action.objectName():
            action.setText(tr(action.objectName()))


def actions(window: "Window") -> Iterator[Act]:
    """Yield menu, words, keys and what is done, in the order of the menus."""
    yield from _shop(window)
    yield from _bench(window)
    w = window
    yield "&Help", "Where was I", ("F2",), w.session.where
    yield "&View", "Fold the rack", ("F6",), w.fold
    yield "&View", "Stand back", ("F11",), w.stand_back
    yield "&View", "Dim or light", ("Ctrl+D",), lambda: w.set_theme(w.theme.other())
    yield "&View", "Beeps on or off", (), partial(_mute, w)
    yield "&View", "Larger text", ("Ctrl+=", "Ctrl++"), lambda: w.set_theme(w.theme.larger(1))
    yield "&View", "Smaller text", ("Ctrl+-",), lambda: w.set_theme(w.theme.larger(-1))
    yield "&Help", "What is this: the handbook", ("F1",), w.reading.toggle
    yield "&Help", "Words on this screen, what they mean", ("F3",), w.reading.words
    yield "&Help", "Write a report", (), partial(write_report, w.session)
    yield "&Help", "Why is it believed", ("Ctrl+R",), w.explain
    yield "&Help", "Keys", ("Ctrl+/", "Shift+F1"), lambda: w.keys.unfold(w.theme)


def _take_along(w: "Window", what: str) -> None:
    """Save what is in sight, or choose a file: loaded when it is first wanted."""
    from careful_coil.desk import taking

    if what == "choose":
        taking.choose_file(w, partial(take_in, w.session))
    else:
        save = taking.save_drawings if what == "drawings" else taking.save_lists
        save(w, w.wrote)


def _print(w: "Window", what: str) -> None:
    """Print a paper; what does it is loaded when it is first wanted."""
    from careful_coil.desk import printing

    getattr(printing, what)(w, w.wrote)


def _calendar(w: "Window") -> None:
    """Write the shop's calendar; what makes it is loaded when it is first wanted."""
    from careful_coil.desk.due import write_calendar

    write_calendar(w.session, w.wrote)


def _mute(w: "Window") -> None:
    """Mute the beeps of clock and guard, or let them be heard; what is due is seen all the same."""
    clock = w.session.clock
    clock.muted = not clock.muted
    w.way.say(
        f"Beeps are {'off' if clock.muted else 'on'}; what is due is shown all the same.", "note"
    )


def _shop(w: "Window") -> Iterator[Act]:
    s = w.session
    yield "&Shop", "New job", ("Ctrl+N",), s.new_job
    yield "&Shop", "Loose leads", ("Ctrl+L",), lambda: s.new_job(loose=True)
    yield "&Shop", "Find a motor or a bench sum", ("Ctrl+K",), w.look_for
    yield "&Shop", "Shop settings", ("Ctrl+,",), w.settings
    yield "&Shop", "Take a job in from a file", ("Ctrl+O",), w.ask_for_file
    yield "&Shop", "Take what it changes", ("Ctrl+Shift+O",), partial(take_offered, s)
    yield "&Shop", "Write the job sheet", ("Ctrl+P",), partial(write_job_sheet, s, w.wrote)
    yield "&Shop", "Write the strip of tags", ("Ctrl+T",), partial(write_tags, s, w.wrote)
    for words, keys, what in PRINTED:
        yield "&Shop", words, keys, partial(_print, w, what)
    along = partial(partial, _take_along, w)
    yield "&Shop", "Write the calendar of promises and waits", (), partial(_calendar, w)
    yield "&Shop", "Choose a job to take in", (), along("choose")
    yield "&Shop", "Save the drawings in sight", ("Ctrl+Shift+S",), along("drawings")
    yield "&Shop", "Save the lists in sight", ("Ctrl+Shift+L",), along("lists")
    yield "&Shop", "Back the shop up now", (), partial(back_up, s)
    yield "&Shop", "Rebuild the rack from the log", (), partial(rebuild, s)
    yield "&Shop", "Close", ("Ctrl+Q",), w.close


def _bench(w: "Window") -> Iterator[Act]:
    s = w.session
    for station, name in SHOWN.items():
        yield "&Bench", name, (f"Ctrl+{STATIONS.index(station) + 1}",), partial(w.go, station)
    yield "&Bench", "To the meter strip", ("Ctrl+M",), w.to_strip
    yield "&Bench", "Do what Next says", ("Ctrl+Return",), w.doing.next
    yield "&Bench", "Bring back what was skipped", ("Shift+N",), s.bring_back
    yield "&Bench", "Strike the last entry", ("Ctrl+Z",), s.strike_last
    yield "&Bench", "Take the strike back", ("Ctrl+Shift+Z",), s.strike_back
