"""What is in sight, taken along: drawings as SVG and PNG, lists as CSV, into the shop's folder."""

import csv
import io
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QBuffer, QIODevice
from PySide6.QtWidgets import QFileDialog, QWidget

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.painted import Painted
from careful_coil.desk.shared.page import Drawn
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.section_view import SectionView
from careful_coil.drawing.shapes import Drawing
from careful_coil.drawing.svg import svg_of
from careful_coil.whole import write_whole

if TYPE_CHECKING:
    from careful_coil.desk.window import Window

_last = dict[str, str]()  # the folder that a file was chosen from
Say = Callable[[str], None]
DRAWINGS, LISTS = "drawings", "lists"
NO_DRAWING = "No drawing is in sight here."
NO_LIST = "No list is in sight here."


def _in_sight(window: "Window") -> Iterator[Painted]:
    """Yield the painted widgets of the open page that are seen."""
    whole: Any = window.stack.currentWidget()
    for widget in whole.findChildren(QWidget) if whole is not None else ():
        if isinstance(widget, Painted) and widget.isVisible():
            yield widget


def drawing_of(widget: Painted) -> Drawing | None:
    """Return what a widget draws, as shapes; None where it draws none."""
    if isinstance(widget, Plot):
        return widget.drawn()
    if isinstance(widget, Drawn):
        return widget.drawing if widget.drawing.shapes else None
    if isinstance(widget, SectionView):
        return widget.drawn()
    return None


def save_drawings(window: "Window", say: Say) -> None:
    """Write each drawing in sight as SVG, and as the PNG that is seen."""
    files: dict[str, bytes] = {}
    for k, widget in enumerate((w for w in _in_sight(window) if drawing_of(w)), 1):
        drawing = drawing_of(widget)
        if drawing is not None:
            name = widget.accessibleName() or "drawing"
            files[f"{k}.svg"] = svg_of(drawing, title=name).encode()
            files[f"{k}.png"] = _png(widget)
    _write(window, DRAWINGS, files, NO_DRAWING, say)


def save_lists(window: "Window", say: Say) -> None:
    """Write each list in sight as CSV: its rows as they are heard, the current one and ticks marked."""
    files: dict[str, bytes] = {}
    lists = [w for w in _in_sight(window) if w.hears().rows]
    for k, widget in enumerate(lists, 1):
        out = io.StringIO()
        told = csv.writer(out)
        told.writerow(["row", "words", "current", "ticked"])
        for n, row in enumerate(widget.hears().rows, 1):
            ticked = "" if row.ticked is None else "yes" if row.ticked else "no"
            told.writerow([n, row.words, "yes" if row.current else "", ticked])
        files[f"{k}.csv"] = out.getvalue().encode()
    _write(window, LISTS, files, NO_LIST, say)


def choose_file(window: "Window", take: Callable[[str], None]) -> None:
    """Let a job be chosen from a dialog that remembers its folder."""
    start = _last.get("folder", "") or str(Path.home())
    file, _ = QFileDialog.getOpenFileName(window, "Take a job in", start, "Jobs (*.ccjob *.json)")
    if file:
        _last["folder"] = str(Path(file).parent)
        take(file)


def _png(widget: QWidget) -> bytes:
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    widget.grab().save(buffer, "PNG")
    return bytes(buffer.data().data())


def _write(window: "Window", kind: str, files: dict[str, bytes], none: str, say: Say) -> None:
    """Write files into a folder of the shop, off the interface thread; say where."""
    s = window.session
    if s.open is None or not files:
        window.way.say(none, "note")
        return
    folder = s.shop / kind
    first = f"job-{s.open.number}-{s.station}-{s.today}-{s.minute}"

    def write() -> None:
        try:
            folder.mkdir(parents=True, exist_ok=True)
            for name, content in files.items():
                write_whole(folder / f"{first}-{name}", content)
        except OSError as error:
            raise RecordsRefused(f"{folder} was not written to: {error.strerror}.") from None

    count = f"{len(files)} file{'s' if len(files) > 1 else ''}"
    s.aside(write, lambda _: say(f"Written: {count}, {folder / first}…"), say)
