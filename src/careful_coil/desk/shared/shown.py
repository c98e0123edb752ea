"""What the parts of Insulation have in common: a finding in words, a list of what was logged."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QAccessible, QPainter, QPaintEvent

from careful_coil.core.condition.plain import sentence_of
from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role, Row, tell
from careful_coil.desk.painted import Painted
from careful_coil.desk.said import said
from careful_coil.desk.theme import Theme


def finding_of(judged: Judgement, *codes: str) -> Finding | None:
    """Return the first finding of a code, by the order of the codes."""
    for code in codes:
        found = next((f for f in judged.findings if f.code == code), None)
        if found is not None:
            return found
    return None


def told_of(finding: Finding | None, nothing: str) -> tuple[str, str]:
    """Return the mark and the words of a part's line in the index."""
    if finding is None:
        return "", nothing
    return finding.verdict, finding.subject[0].lower() + finding.subject[1:]


class Prose(Painted):
    """Words that wrap, a line break where there is one; nothing takes no room."""

    def __init__(self, theme: Theme, token: str = "ink", size: int = 15) -> None:
        super().__init__(theme)
        self.words, self._token, self._size = "", token, size
        self.fit()

    def say(self, words: str) -> None:
        """Show other words."""
        other = said(words) != self.words
        self.words = words = said(words)
        if other:
            tell(self, QAccessible.Event.NameChanged)
        self.setAccessibleDescription(words)
        if not words or self.parentWidget() is not None:  # alone it would be a window of its own
            self.setVisible(bool(words))
        self.fit()

    def hears(self) -> Heard:
        """Return the words."""
        return Heard(self.heard_as, self.words)

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return paint.height_of(self.theme, self.words, max(self.width(), 200), self._size) + 4

    def paintEvent(self, event: QPaintEvent) -> None:
        """Write it."""
        painter = QPainter(self)
        box = self.rect().adjusted(0, 1, 0, 0)
        paint.text(
            painter, self.theme, box, self.words, size=self._size, token=self._token, wrap=True
        )


class Verdicts(Painted):
    """Findings in full: mark, subject, figure, why, source; nothing where there is none."""

    heard_as = Role.List

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.findings: tuple[Finding, ...] = ()
        self.fit()

    def show_findings(self, findings: Sequence[Finding | None]) -> None:
        """Show other findings."""
        self.findings = tuple(f for f in findings if f is not None)
        words = "; ".join(f"{f.verdict}: {f.subject}. {f.why}" for f in self.findings)
        self.setAccessibleDescription(words)
        self.setVisible(bool(self.findings))
        self.fit()

    def hears(self) -> Heard:
        """Return each finding as a row."""
        rows, top = [], 0
        for f in self.findings:
            high = self._height(f)
            words = f"{f.verdict}: {f.subject}. {self._words(f)}"
            rows.append(Row(words, QRect(0, top, self.width(), high)))
            top += high
        return Heard(Role.List, "Verdicts", "", tuple(rows))

    def _words(self, f: Finding) -> str:
        plain = sentence_of(f)
        source = f"Source: {f.source}." if f.source else ""
        return " ".join(
            w for w in (f.why, source, f"For the customer: {plain}" if plain else "") if w
        )

    def _height(self, f: Finding) -> int:
        wide = max(self.width() - self.theme.px(30), 200)
        return (
            self.theme.px(28)
            + paint.height_of(self.theme, self._words(f), wide, 13)
            + self.theme.px(8)
        )

    def least_height(self) -> int:
        """Return the height that shows all of them."""
        return sum(self._height(f) for f in self.findings) or 1

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw them one below the other."""
        painter, t, y = QPainter(self), self.theme, 0
        for f in self.findings:
            paint.mark(painter, t, f.verdict, QPointF(t.px(10), y + t.px(14)), 16)
            line = QRect(t.px(30), y, self.width() - t.px(30), t.px(28))
            paint.text(painter, t, line, f.subject, size=17, bold=True)
            rest = QRect(t.px(30), y + t.px(28), self.width() - t.px(30), self._height(f))
            paint.text(painter, t, rest, self._words(f), size=13, token="quiet", wrap=True)
            y += self._height(f)
