"""The sheet of keys: drawn over the bench, gone with any key."""

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from careful_coil.desk import paint
from careful_coil.desk.theme import Theme

KEYS = (
    ("Ctrl+1 … 9", "the nine stations, in the order they stand"),
    ("Ctrl+N", "new job"),
    ("Ctrl+L", "loose leads: just tell me these leads"),
    ("Ctrl+K", "find a motor; a bench sum by its name: slip, power-factor"),
    ("Ctrl+M", "to the meter strip"),
    ("Space", "take the live value"),
    ("Enter", "record what is typed; with nothing typed, do what Next says"),
    ("AF 3.92", "A to F reads 3.92 Ω, whatever was suggested; A frame open"),
    ("* and /", "open, rising"),
    (
        "move AF AH",
        "that reading was of A to H;  swap A B: two tags were crossed;  strike AF dirty clip",
    ),
    ("Ctrl+Enter", "do what Next says, wherever the cursor is"),
    ("Arrows", "another pair"),
    (
        "sweep A",
        "A against every other lead in turn; sweep off;  know B common: a leaning with initials",
    ),
    ("Ctrl+R, Ctrl+T", "at Leads: why it is believed; write the strip of tags"),
    ("N or +", "not here: the next best (+ in a field); Shift+N brings all back"),
    ("Ctrl+Z", "strike the last entry, so does - on the number pad; Ctrl+Shift+Z takes it back"),
    ("Ctrl+P, Ctrl+O", "write the job sheet; take a job in from a file"),
    ("Ctrl+Shift+P", "print the job sheet; tags and calendar are in the menu Shop"),
    ("Ctrl+Shift+O", "take what it changes in a job that is here"),
    ("Down, then a digit", "in a cell with answers: pick one; a digit answers a row of keys"),
    ("Page Up, Page Down", "the part before or after, where a station has several"),
    ("T, Shift+T", "on the strip: the clock of an insulation test, one minute or ten; T ends it"),
    (
        "Enter, then T D S X",
        "at the stall guard: armed, started; turns, dropped out, stalled, tripped",
    ),
    ("120/180/260", "an insulation test at 15, 30, 60 s; 30s 180 60s 260 for other times"),
    ("Ctrl+Shift+S, Ctrl+Shift+L", "save the drawings in sight as SVG and PNG, the lists as CSV"),
    ("Ctrl+,", "shop settings: limits, shop practice, currency"),
    ("F1", "what is this: the handbook, at the part that is open; searchable"),
    ("F3", "the words on this screen, what they mean"),
    ("F2", "where was I: what is charged, loose, open; where the probes go"),
    ("F6, F11", "fold the rack away; stand back: all large"),
    ("Ctrl+D", "dim or light"),
    ("Ctrl+= and Ctrl+-", "larger or smaller text"),
    ("Ctrl+/, Ctrl+Q", "this sheet; close, once all is on disk"),
)


class KeySheet(QWidget):
    """The sheet."""

    def __init__(self, parent: QWidget, theme: Theme) -> None:
        super().__init__(parent)
        self.theme = theme
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Keys")
        self.setAccessibleDescription("; ".join(f"{key}: {does}" for key, does in KEYS))
        self.hide()

    def unfold(self, theme: Theme) -> None:
        """Show it over the whole window."""
        self.theme = theme
        parent = self.parentWidget()
        if parent is not None:
            self.setGeometry(parent.rect())
        self.show()
        self.raise_()
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Any key folds it."""
        self._fold()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """So does a click."""
        self._fold()

    def _fold(self) -> None:
        self.hide()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw key and meaning in rows."""
        painter, t = QPainter(self), self.theme
        painter.fillRect(self.rect(), t.colour("ground"))
        paint.text(painter, t, QRect(40, 24, 400, t.px(36)), "Keys", size=26, bold=True)
        high = min(t.px(34), (self.height() - 90) // len(KEYS))
        for k, (key, meaning) in enumerate(KEYS):
            y = 76 + k * high
            paint.text(painter, t, QRect(40, y, t.px(190), high), key, bold=True)
            paint.text(
                painter, t, QRect(40 + t.px(200), y, self.width() - t.px(240) - 40, high), meaning
            )
