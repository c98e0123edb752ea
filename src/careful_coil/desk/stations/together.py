"""Parts of a station that belong together: one is open, of the others a line says how far they are."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRect, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QVBoxLayout, QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk import paint
from careful_coil.desk.heard import Heard, Role
from careful_coil.desk.painted import Painted
from careful_coil.desk.part import Part
from careful_coil.desk.said import said
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme

HIGH = 40  # pixels of a line at 100 % text
WORST = ("hold", "unproven", "watch", "good", "note", "")


class Group:
    """Parts behind one line of the index, and what that line is called."""

    def __init__(self, title: str, *make: type[Part]) -> None:
        self.title, self.make = title, make


class Line(Painted):
    """A part that is folded away: mark, title, how far it is; Enter, Space or a click opens it."""

    heard_as = Role.Button
    wanted = Signal(str)

    def __init__(self, theme: Theme, part: Part) -> None:
        super().__init__(theme)
        self.part = part
        self.mark, self.words = "", ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(HIGH)

    def tell(self, mark: str, words: str) -> None:
        """Show how far the part is."""
        self.mark, self.words = mark, words
        if self.shows(mark, words):
            self.setAccessibleName(f"{self.part.title}: {words}. Enter opens it.")
            self.update()

    def hears(self) -> Heard:
        """Return what a press opens, and how far it is."""
        return Heard(Role.Button, said(self.part.title), f"{self.mark} {said(self.words)}".strip())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Open it."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.wanted.emit(self.part.name)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Open it."""
        self.wanted.emit(self.part.name)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the line below a hairline; framed while the keys go here."""
        painter, t = QPainter(self), self.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(t.colour("hairline"), 1))
        painter.drawLine(0, 0, self.width(), 0)
        if self.hasFocus():
            painter.setPen(QPen(t.colour("ink"), 2))
            painter.drawRect(self.rect().adjusted(1, 3, -1, -2))
        if self.mark:
            paint.mark(painter, t, self.mark, QPointF(t.px(14), self.height() / 2 + 1), 13)
        own = said(self.part.title)
        wide = paint.width_of(t, own, 15, True) + t.px(14)
        title = QRect(t.px(30), 2, wide, self.height())
        paint.text(painter, t, title, own, bold=True)
        rest = QRect(title.right(), 2, self.width() - title.right() - t.px(60), self.height())
        paint.text(painter, t, rest, said(self.words), size=13, token="quiet")
        key = QRect(self.width() - t.px(56), 2, t.px(50), self.height())
        paint.text(painter, t, key, "Enter", size=13, token="quiet", align=1)


class Together(QWidget):
    """The parts of one line of a station's index, in the order they are made."""

    opened = Signal(str)  # a part, by its line
    lined = True  # whether the others stand as lines

    def __init__(self, session: Session, theme: Theme, of: Group) -> None:
        super().__init__()
        self.title = of.title
        self.parts: dict[str, Part] = {}
        self.lines: dict[str, Line] = {}
        self.now = ""
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(8)
        for kind in of.make:
            part = kind(session, theme)
            self.parts[part.name] = part
            line = Line(theme, part)
            line.wanted.connect(self.opened)
            self.lines[part.name] = line
            self.column.addWidget(line)
            self.column.addWidget(part)
        self.now = next(iter(self.parts))
        self._arrange(None)

    @property
    def part(self) -> Part:
        """Return the open part."""
        return self.parts[self.now]

    def seen(self, judged: Judgement | None) -> list[str]:
        """Return the parts that this motor has, the open one always among them."""
        return [
            n for n, p in self.parts.items() if n == self.now or judged is None or p.wanted(judged)
        ]

    def wanted(self, judged: Judgement) -> bool:
        """Whether this motor has any of them."""
        return any(p.wanted(judged) for p in self.parts.values())

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return the mark and the words of the worst of them."""
        every = [p.told(judged) for p in self._own(judged)] or [("", "")]
        return min(every, key=lambda told: WORST.index(told[0]))

    def open(self, name: str, judged: Judgement | None) -> None:
        """Open one of them."""
        self.now = name
        self._arrange(judged)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the open one, and how far the others are."""
        if len(self.parts) > 1:
            for name, part in self.parts.items():
                self.lines[name].tell(*part.told(judged))
        self._arrange(judged)
        self.part.show_judgement(judged)

    def begins(self) -> None:
        """Begin another motor at the first of them."""
        self.now = next(iter(self.parts))

    def _own(self, judged: Judgement) -> Iterator[Part]:
        yield from (p for p in self.parts.values() if p.wanted(judged))

    def _arrange(self, judged: Judgement | None) -> None:
        seen = self.seen(judged)
        for name, part in self.parts.items():
            part.setVisible(name == self.now)
            self.lines[name].setVisible(self.lined and name in seen and name != self.now)
