"""The stand-back view: Next, the pair and the verdict at twice the size, for eyes at arm's length."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from careful_coil.desk import paint
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement

EDGE = 48


class StandBack(Painted):
    """Lies over rack, bench and ledger; the strip below it stays, and the keys go on to it."""

    def __init__(self, parent: QWidget, session: Session, theme: Theme) -> None:
        super().__init__(theme)
        self.setParent(parent)
        self._session = session
        self.setAccessibleName("Stand back")
        self.hide()

    def toggle(self, room: QRect) -> bool:
        """Show it over `room`, or take it away; return whether it shows."""
        shown = not self.isVisible()
        self.setGeometry(room)
        self.setVisible(shown)
        self.raise_()
        return shown

    def words(self) -> tuple[str, str, str]:
        """Return title, reason and what stands first before it can go."""
        judged = self._judged()
        if judged is None:
            return "No motor on the bench", "Ctrl+N starts a job, Ctrl+K finds one.", ""
        step = judged.next
        first = judged.gate[0] if judged.gate else None
        title = step.title if step else "Nothing to do"
        return title, step.why if step else "", first.subject if first else "Nothing is open"

    def _judged(self) -> "Judgement | None":
        return self._session.open.judged if self._session.open else None

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the motor, the step, its reason and the first thing that stands open."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), t.colour("ground"))
        judged = self._judged()
        title, why, gate = self.words()
        wide, y = self.width() - 2 * EDGE, EDGE
        name = judged.job.name if judged else "Careful Coil"
        paint.text(painter, t, QRect(EDGE, y, wide, t.px(44)), name, size=30, token="quiet")
        y += t.px(64)
        painter.fillRect(QRect(EDGE, y, t.px(10), t.px(70)), t.colour("copper"))
        left = EDGE + t.px(30)
        room = wide - t.px(30)
        high = paint.height_of(t, title, room, 56, True)
        paint.text(painter, t, QRect(left, y, room, high + 8), title, size=56, bold=True, wrap=True)
        y += high + t.px(20)
        paint.text(painter, t, QRect(left, y, room, self.height() - y), why, size=28, wrap=True)
        foot = self.height() - t.px(70)
        verdict = judged.gate[0].verdict if judged and judged.gate else "good"
        if judged is not None:
            paint.mark(painter, t, verdict, QPointF(EDGE + t.px(16), foot + t.px(22)), 32)
        at = QRect(EDGE + t.px(48), foot, wide - t.px(48), t.px(44))
        paint.text(painter, t, at, gate, size=30, bold=True)
        paint.text(painter, t, at, "F11", size=15, token="quiet", align=1)
