"""Why it is believed: readings for and against, and how the odds moved."""

from collections.abc import Callable, Iterator, Sequence

from PySide6.QtCore import QPointF, QRect, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QVBoxLayout, QWidget

from careful_coil.core.identify.history import Moment, history
from careful_coil.core.identify.why import reasons, told
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_percent
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.desk import paint
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading, plain_label
from careful_coil.desk.theme import Theme

HIGH = 92
NOT_KNOWN = "a winding not known here"


class Moves(Painted):
    """Odds of the likeliest winding and of its groups over the readings, as two lines."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.moments: tuple[Moment, ...] = ()
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(HIGH)

    def show_moments(self, moments: tuple[Moment, ...]) -> None:
        """Show another history."""
        self.moments = moments
        self.setAccessibleDescription(
            "; ".join(f"{m.place} {m.words}: {m.odds:.0%}, groups {m.groups:.0%}" for m in moments)
        )
        self.update()

    def heard_rows(self) -> Iterator[Row]:
        """Yield what each reading did to the odds."""
        for m in self.moments:
            words = f"{m.words}: {show_percent(m.odds)}, groups {show_percent(m.groups)}"
            yield Row(words, self.rect())

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the two lines, a tick for every reading, the last reading in words."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, low, high = t.px(56), self.height() - t.px(26), t.px(8)
        right = self.width() - t.px(150)
        for share, words in ((0.0, "0"), (0.5, "50 %"), (1.0, "100 %")):
            y = round(low + (high - low) * share)
            painter.setPen(t.colour("hairline"))
            painter.drawLine(left, y, right, y)
            at = QRect(0, y - t.px(9), left - 6, t.px(18))
            paint.text(painter, t, at, words, size=13, token="quiet", align=1)
        if not self.moments:
            return
        step = (right - left) / max(len(self.moments) - 1, 1)
        lines = (
            ("groups", "quiet", [m.groups for m in self.moments]),
            ("winding", "ink", [m.odds for m in self.moments]),
        )
        last: list[int] = []
        for words, token, odds in lines:
            points = [QPointF(left + k * step, low + (high - low) * o) for k, o in enumerate(odds)]
            pen = QPen(t.colour(token), 2)
            if token == "quiet":
                pen.setStyle(Qt.PenStyle.DashLine)
            painter.setPen(pen)
            painter.drawPolyline(points)
            y = round(points[-1].y())
            while any(abs(y - other) < t.px(17) for other in last):
                y += t.px(17)
            last.append(y)
            at = QRect(right + 8, y - t.px(9), t.px(140), t.px(18))
            paint.text(painter, t, at, f"{words} {show_percent(odds[-1])}", size=13, token=token)
        words = f"{len(self.moments)} readings; the last: {self.moments[-1].words}"
        at = QRect(left, low + t.px(4), self.width() - left, t.px(20))
        paint.text(painter, t, at, words, size=13, token="quiet")


class WhyPart(QWidget):
    """Folded away until asked for."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self._shown: Judgement | None = None
        self.head = Heading("Why it is believed", theme, rule=True)
        self.favour, self.against = plain_label(), plain_label()
        self.moves = Moves(theme)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        for part in (self.head, self.favour, self.against):
            column.addWidget(part)
        column.addWidget(Heading("How the odds moved, reading by reading", theme))
        column.addWidget(self.moves)
        self.hide()

    def show_judgement(self, judged: Judgement) -> None:
        """Show the reasons of a judgement while unfolded."""
        if not self.isVisibleTo(self.parentWidget()) or judged is self._shown:
            return
        self._shown = judged
        found, evidence = judged.facts.identification, judged.facts.evidence
        if found is None or evidence is None:
            return
        best = found.best
        other = next((c for c in found.candidates[1:] if c.arrangement != best.arrangement), None)
        other = other or (found.candidates[1] if len(found.candidates) > 1 else None)
        first, second = _title(best.arrangement), _title(other.arrangement if other else None)
        if second == first:
            second = "the next way to lay it"
        favour, against = told(reasons(best, other, evidence), second)
        self.head.say("Why it is believed", f"{first}, against {second}" if other else first)
        self.favour.setText(_lines("For", favour) or "No single reading speaks for it alone.")
        self.against.setText(_lines("Against", against))
        self.against.setVisible(bool(against))
        self._session.aside(lambda: history(judged.job, evidence), self._moved(judged))

    def _moved(self, judged: Judgement) -> Callable[[tuple[Moment, ...]], None]:
        def show(moments: tuple[Moment, ...]) -> None:
            if self._shown is judged:  # else another reading has come since
                self.moves.show_moments(moments)

        return show

    def toggle(self, judged: Judgement | None) -> bool:
        """Fold or unfold; return whether it is unfolded now."""
        self.setVisible(self.isHidden())
        self._shown = None
        if judged is not None and not self.isHidden():
            self.show_judgement(judged)
        return not self.isHidden()


def _title(slug: str | None) -> str:
    return ARRANGEMENTS[slug].title if slug else NOT_KNOWN


def _lines(head: str, words: Sequence[str]) -> str:
    return f"{head}: " + ".\n".join(words) + "." if words else ""
