"""What every station has: its session, its theme, what it shows of a judgement."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QPointF, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QFrame, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from careful_coil.desk import paint
from careful_coil.desk.field import Field
from careful_coil.desk.heard import Heard, Role
from careful_coil.desk.label import Label
from careful_coil.desk.painted import Painted
from careful_coil.desk.said import said
from careful_coil.desk.session import Session
from careful_coil.desk.theme import Theme
from careful_coil.drawing.shapes import Drawing

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement


class Page(QScrollArea):
    """A station: a column of parts that scrolls when the window is small."""

    stubs_wanted = Signal()
    tags_wanted = Signal()
    joint_wanted = Signal()  # Connect's own next step, whatever other stations still want

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session, self.theme = session, theme
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.body = QWidget()
        self.column = QVBoxLayout(self.body)
        self.column.setContentsMargins(20, 12, 20, 12)
        self.column.setSpacing(10)
        self.setWidget(self.body)
        self.setFrameShape(QFrame.Shape.NoFrame)
        for under in (self.viewport(), self.body):
            under.setAutoFillBackground(False)  # the ground of the window shows through
        self.fields: dict[str, Field] = {}
        session.job_opened.connect(self.take_up)

    def show_judgement(self, judged: "Judgement") -> None:
        """Show a judgement of the open job."""

    def take_up(self) -> None:
        """Take up the open job: what was half typed of another stays with that one."""
        id = self.session.open.id if self.session.open else ""
        body: Any = self.body
        for field in body.findChildren(Field):
            field.take(id)
        self.opened(id)

    def opened(self, id: str) -> None:
        """Begin anew what is not kept in fields."""

    def start(self) -> bool:
        """Put the cursor where the station begins; False when that is the strip."""
        return False

    def step(self, by: int) -> None:
        """Open the part after or before, where it has several."""

    def topic(self) -> str:
        """Return the heading of the handbook that speaks of what is open."""
        return ""

    def explain(self) -> bool:
        """Fold the reasons for what the station believes out or away; False where it has none."""
        return False

    def discharge(self) -> bool:
        """Start the countdown to earth, or tick it when it is over; False where none is."""
        return False

    def set_theme(self, theme: Theme) -> None:
        """Take another theme. A page that is not in sight takes it when it comes into sight."""
        self.theme = theme
        self.verticalScrollBar().setStyleSheet(theme.sheet())
        for root in self.in_sight():
            self.dress(root)

    def in_sight(self) -> Sequence[QWidget]:
        """Return what takes another theme at once; the rest takes it when it comes into sight."""
        return (self.body,)

    def dress(self, root: QWidget) -> None:
        """Let a widget with all it holds take the theme."""
        root.setStyleSheet(self.theme.sheet())
        whole: Any = root  # Qt's stubs differ in what children are
        for part in (root, *whole.findChildren(QWidget)):
            setter = getattr(part, "set_theme", None)
            if callable(setter):
                setter(self.theme)

    def called(self, focus: str) -> str:
        """Return the name of the field that Next calls so."""
        return focus

    def mark_next(self, focus: str) -> None:
        """Show at its place what Next asks for at this station; an empty one: nothing."""
        name = self.called(focus)
        for own, field in self.fields.items():
            field.ask(own == name)

    def put_cursor(self, field: str) -> bool:
        """Put the cursor into a field; False when this station has none of that name."""
        if field not in self.fields or not self.fields[field].isVisibleTo(self):
            return False
        self.fields[field].take_cursor()
        self.ensureWidgetVisible(self.fields[field])
        return True


class Heading(Painted):
    """A heading with a quiet remark beside it."""

    heard_as = Role.Heading

    def hears(self) -> Heard:
        """Return the heading, its remark beside it."""
        return Heard(self.heard_as, said(self.words), said(self.remark))

    def __init__(self, words: str, theme: Theme, remark: str = "", rule: bool = False) -> None:
        super().__init__(theme)
        self.words, self.remark, self._rule = words, remark, rule
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(30 if self._rule else 24)

    def say(self, words: str, remark: str = "") -> None:
        """Show other words."""
        self.words, self.remark = words, remark
        if self.shows(words, remark):
            self.setAccessibleName(words)
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it, with a hairline above where it starts a part."""
        painter, t = QPainter(self), self.theme
        box = self.rect()
        if self._rule:
            painter.setPen(t.colour("hairline"))
            painter.drawLine(0, 0, self.width(), 0)
            box = box.adjusted(0, t.px(8), 0, 0)
        words = said(self.words)
        wide = paint.width_of(t, words, 15, True)
        paint.text(painter, t, box, words, bold=True)
        rest = QRect(box.left() + wide + 14, box.top(), box.width() - wide - 14, box.height())
        paint.text(painter, t, rest, self.remark_in(rest.width()), size=13, token="quiet")

    def remark_in(self, width: int) -> str:
        """Return the remark, without what follows its colon where there is no room for it."""
        remark = said(self.remark)
        fits = paint.width_of(self.theme, remark, 13) <= width
        return remark if fits else remark.split(":")[0]


class Caution(Painted):
    """One line where the hand is, before the step."""

    heard_as = Role.AlertMessage

    def hears(self) -> Heard:
        """Return that it is a caution, and its words."""
        return Heard(self.heard_as, f"Caution: {said(self.words)}" if self.words else "")

    def __init__(self, words: str, theme: Theme) -> None:
        super().__init__(theme)
        self.words = words
        self.setAccessibleName("Caution: " + words)
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        wide = max(self.width() - 30, 200)
        return paint.height_of(self.theme, said(self.words), wide, 14) + 6

    def say(self, words: str) -> None:
        """Show another caution."""
        self.words = words
        if self.shows(words):
            self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a triangle and the words."""
        painter, t = QPainter(self), self.theme
        paint.mark(painter, t, "watch", QPointF(10, t.px(11)), 14)
        paint.text(
            painter, t, self.rect().adjusted(28, 1, 0, 0), said(self.words), size=14, wrap=True
        )


class Drawn(Painted):
    """A drawing of the drawing package."""

    heard_as = Role.Graphic

    def __init__(self, theme: Theme, most: float = 5.2) -> None:
        super().__init__(theme)
        self.theme, self._most = theme, most
        self.drawing = Drawing((), 0.0, 0.0)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def show_drawing(self, drawing: Drawing, words: str = "") -> None:
        """Show another drawing; `words` tell it to a screen reader."""
        self.drawing = drawing
        self.setAccessibleName("Drawing")
        self.setAccessibleDescription(words)
        self.update()

    def sizeHint(self) -> QSize:
        """Return a middling size."""
        return QSize(280, 260)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it as large as fits."""
        painter = QPainter(self)
        paint.drawing(
            painter, self.theme, self.drawing, QRectF(self.rect()), self._most * self.theme.scale
        )


def plain_label(words: str = "") -> Label:
    """Return a label that never reads markup into what a user typed."""
    label = Label(words)
    label.setWordWrap(True)
    return label
