"""The stand-back view: pair, value, verdict and what comes after at three times the size, for two metres."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from careful_coil.desk import paint
from careful_coil.desk.heard import Heard
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.strip import Strip
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement

EDGE = 48
SIZES = (110, 84, 64, 48, 39)  # of what to do, the largest that fits


class StandBack(Painted):
    """Lies over rack, bench and ledger; the strip below it stays, and the keys go on to it."""

    def __init__(self, parent: QWidget, session: Session, strip: Strip, theme: Theme) -> None:
        super().__init__(theme)
        self.setParent(parent)
        self._session, self._strip = session, strip
        strip.line.textChanged.connect(lambda _: self.update())
        strip.note.said.connect(self.update)
        session.target_changed.connect(self.update)
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
        """Return what to do, what is typed or was read last, and what comes after."""
        judged = self._judged()
        if judged is None:
            return "No motor on the bench", "", "Ctrl+N starts a job, Ctrl+K finds one."
        step, target = judged.next, self._session.target
        title = step.title if step else "Nothing to do"
        if target is not None and target.ends:
            pair = [" ".join(target.ends)] if target.sense else list(target.ends)
            pair += [" ".join(target.sense)] if target.sense else []
            title = " → ".join([*pair, *(["+".join(target.also)] if target.also else [])])
        later = [s for s in judged.steps if step is not None and s.code != step.code]
        after = f"Then: {later[0].title}" if later else "Then nothing is open"
        return title, self._value(), after

    def hears(self) -> Heard:
        """Return what is read from two metres away."""
        title, value, after = self.words()
        return Heard(self.heard_as, f"{title} {value}".strip(), f"{self.verdict()[1]}. {after}")

    def verdict(self) -> tuple[str, str]:
        """Return mark and words of what the last value did, else of what stands first before it can go."""
        judged = self._judged()
        if self._strip.note.words:
            return self._strip.note.tone, self._strip.note.words
        if judged is None:
            return "", ""
        first = judged.gate[0] if judged.gate else None
        return (first.verdict, first.subject) if first else ("good", "Nothing is open")

    def _value(self) -> str:
        """Return what is typed on the strip, with its unit."""
        typed = self._strip.line.text().strip()
        return f"{typed} {self._strip.unit()}".strip() if typed else ""

    def _judged(self) -> "Judgement | None":
        return self._session.open.judged if self._session.open else None

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the pair, the value, the verdict and what comes after, for eyes two metres away."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), t.colour("ground"))
        judged = self._judged()
        title, value, after = self.words()
        mark, verdict = self.verdict()
        wide, y = self.width() - 2 * EDGE, EDGE // 2
        name = judged.job.name if judged else "Careful Coil"
        top = QRect(EDGE, y, wide, t.px(40))
        paint.text(painter, t, top, name, size=26, token="quiet")
        paint.text(painter, t, top, "F11", size=15, token="quiet", align=1)
        y += t.px(56)
        size = next(
            (s for s in SIZES if paint.height_of(t, title, wide, s, True) < t.px(190)), SIZES[-1]
        )
        high = paint.height_of(t, title, wide, size, True)
        painter.fillRect(QRect(0, y, t.px(14), high), t.colour("copper"))
        at = QRect(EDGE, y, wide, high + 8)
        paint.text(painter, t, at, title, size=size, bold=True, wrap=True)
        y += high + t.px(12)
        if value:
            at = QRect(EDGE, y, wide, t.px(190))
            paint.text(painter, t, at, value, size=156, bold=True)
        elif judged is not None and judged.next is not None:
            at = QRect(EDGE, y, wide, self.height() - y)
            paint.text(painter, t, at, judged.next.why, size=30, wrap=True)
        foot = self.height() - t.px(140)
        if mark:
            paint.mark(painter, t, mark, QPointF(EDGE + t.px(24), foot + t.px(30)), 44)
        at = QRect(EDGE + t.px(64), foot, wide - t.px(64), t.px(60))
        paint.text(painter, t, at, verdict, size=39, bold=True)
        at = QRect(EDGE + t.px(64), foot + t.px(66), wide - t.px(64), t.px(50))
        paint.text(painter, t, at, after, size=30, token="quiet")
