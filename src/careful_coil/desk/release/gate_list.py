"""What stands before it can go, large; or that nothing does."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.gate import way_out
from careful_coil.desk import paint
from careful_coil.desk.heard import Row
from careful_coil.desk.painted import Painted
from careful_coil.desk.theme import Theme

LEAST_WHY = 150  # pixels at 100 % text: in less a reason says nothing


class Gate(Painted):
    """What stands before it can go, large; or that nothing does."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: list[tuple[str, str, str]] = []
        self.setAccessibleName("Gate")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(30) * max(len(self.rows), 1)

    def show_judgement(self, judged: Judgement) -> None:
        """Take the gate of a judgement."""
        self.rows = [(f.verdict, f.subject, f.why) for f in judged.gate]
        out = way_out(judged.job)
        if out:
            reason = judged.job.let_go.reason if judged.job.let_go else ""
            self.rows = [("hold", "DO NOT CONNECT", f"{out.capitalize()}: {reason}")]
        elif not self.rows:
            done = judged.released
            words = "Released" if done else "Nothing is open"
            self.rows = [
                (
                    "good",
                    words,
                    "The sheet goes with the motor." if done else "Sign below; the sheet is made.",
                )
            ]
        self.setAccessibleDescription("; ".join(f"{s}: {w}" for _, s, w in self.rows))
        self.fit()

    def heard_rows(self) -> Iterator[Row]:
        """Yield each with its verdict."""
        high = self.theme.px(30)
        for k, (verdict, subject, why) in enumerate(self.rows):
            words = f"{verdict}: {subject}. {why}"
            yield Row(words, QRect(0, k * high, self.width(), high))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a row a finding."""
        painter, t = QPainter(self), self.theme
        for k, (verdict, subject, why) in enumerate(self.rows):
            y, high = k * t.px(30), t.px(30)
            paint.mark(painter, t, verdict, QPointF(12, y + high / 2), 16)
            name = min(paint.width_of(t, subject, 15, True) + 28, self.width() - 34)
            paint.text(painter, t, QRect(34, y, name, high), subject, bold=True)
            rest = self.width() - 34 - name
            if rest >= t.px(LEAST_WHY):  # the reason stands whole in the ledger beside it
                at = QRect(34 + name, y, rest, high)
                paint.text(painter, t, at, why, size=13, token="quiet")
