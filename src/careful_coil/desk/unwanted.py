"""Keys that nothing with the cursor wants: Enter goes where Next asks, N skips it, a figure goes to the strip."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit

from careful_coil.desk.cell import SKIP
from careful_coil.desk.listing import ENTER

if TYPE_CHECKING:
    from careful_coil.desk.window import Window

HELD = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
NOTHING = "Nothing here takes that. Enter goes where Next asks; Ctrl+M to the strip."


def taken(window: "Window", event: QKeyEvent) -> bool:
    """Take such a key; False where the bench is not what is open."""
    job, page = window.session.open, window.stack.currentWidget()
    here = page is window.pages.get(window.session.station)
    at_line = isinstance(window.focusWidget(), QLineEdit)  # it has taken Enter, and hands it on
    if job is None or not here or window.reading.open or at_line:
        return False
    if event.modifiers() & HELD or event.isAutoRepeat():
        return False
    if event.key() in ENTER:
        window.doing.to_next()
        return True
    typed = event.text()
    if not typed.strip() or not typed.isprintable():
        return False
    step = job.judged.next
    if typed.lower() == "n" or typed == SKIP:
        window.session.entered.emit()  # the cursor goes on with Next
        window.session.not_here()
    elif step is not None and any(q.reader == "strip" for q in step.asks):
        window.to_strip()
        QCoreApplication.sendEvent(window.strip.line, event)
    else:
        window.strip.note.say(NOTHING, "note")
    return True
