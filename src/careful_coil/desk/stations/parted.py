"""A station of several parts: an index of them at the left, the open one beside it."""

from collections.abc import Sequence

from PySide6.QtCore import QPoint, Qt, QTimer, Signal
from PySide6.QtGui import QKeySequence, QResizeEvent, QShortcut
from PySide6.QtWidgets import QBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk.index import Index
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution, Page
from careful_coil.desk.stations.together import Group, Together
from careful_coil.desk.theme import Theme

SPACE = 12  # pixels kept in sight round what has the cursor
SEEN = 60  # pixels of it that must be seen, at 100 % text
ROOM_BESIDE = 640  # pixels at 100 % text below which the index stands above the parts
MOST = 6  # lines of an index: what belongs together is one
Groups = Sequence[type[Part] | Group]  # a line of the index each


class PartedPage(Page):
    """The station `name` with its caution; Page Up and Page Down walk through its parts."""

    turned = Signal()  # to another line of the index

    def __init__(
        self, session: Session, theme: Theme, name: str, caution: str, groups: Groups
    ) -> None:
        super().__init__(session, theme)
        self.caution = Caution(caution, theme)
        self.column.addWidget(self.caution)
        every = [g if isinstance(g, Group) else Group(g.title, g) for g in groups]
        self.groups = [self.gather(g) for g in every]
        self.parts: dict[str, Part] = {n: p for g in self.groups for n, p in g.parts.items()}
        self._now = self.groups[0]
        self.judged: Judgement | None = None
        self.index = Index(theme, name)
        self.index.moved.connect(self._picked)
        self._row = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self._row.setSpacing(20)
        self._row.addWidget(self.index, 0, Qt.AlignmentFlag.AlignTop)
        holder = QWidget()
        holding = QVBoxLayout(holder)
        holding.setContentsMargins(0, 0, 0, 0)
        for group in self.groups:
            self.fields |= {n: f for p in group.parts.values() for n, f in p.fields.items()}
            group.opened.connect(self.open_part)
            holding.addWidget(group)  # first: what has no parent is shown as a window of its own
            group.setVisible(group is self._now)
        holding.addStretch()
        self._row.addWidget(holder, 1)
        self.column.addLayout(self._row)
        self.column.addStretch()
        self.index.show_parts(self.groups, 0)
        self._seeing = QTimer(self)
        self._seeing.setSingleShot(True)
        self._seeing.timeout.connect(self._see_again)
        for key, step in (("PgDown", 1), ("PgUp", -1)):
            shortcut = QShortcut(QKeySequence(key), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(lambda step=step: self.step(step))

    above = False  # whether the index stands above however wide it is

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Put the index above where the parts would be narrow beside it."""
        self._place()
        super().resizeEvent(event)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        super().set_theme(theme)
        self._place()

    def _place(self) -> None:
        above = self.above or self.width() < self.theme.px(ROOM_BESIDE)
        if above != self.index.above:
            way = QBoxLayout.Direction
            self._row.setDirection(way.TopToBottom if above else way.LeftToRight)
            self._row.setAlignment(
                self.index, Qt.AlignmentFlag(0) if above else Qt.AlignmentFlag.AlignTop
            )
            self._row.setSpacing(10 if above else 20)
            self.index.lay(above)

    def gather(self, group: Group) -> Together:
        """Return the parts behind a line of the index."""
        return Together(self.session, self.theme, group)

    def in_sight(self) -> Sequence[QWidget]:
        """Return the index and the open part."""
        return self.caution, self.index, self._now

    def opened(self, id: str) -> None:
        """Take up another motor in every part."""
        for part in self.parts.values():
            part.taken_up(id)

    @property
    def group(self) -> Together:
        """Return the parts behind the open line."""
        return self._now

    @property
    def part(self) -> Part:
        """Return the open part."""
        return self._now.part

    def seen(self) -> list[str]:
        """Return the parts that this motor has, in turn."""
        return [n for g in self._lines() for n in g.seen(self.judged) if self._has(n)]

    def _has(self, name: str) -> bool:
        return (
            self.judged is None
            or self.parts[name] is self.part
            or self.parts[name].wanted(self.judged)
        )

    def _lines(self) -> list[Together]:
        judged = self.judged
        return [g for g in self.groups if judged is None or g is self._now or g.wanted(judged)]

    def step(self, by: int) -> None:
        """Open the next or the previous part, and put the cursor into it."""
        seen = self.seen()
        self.open_part(seen[(seen.index(self.part.name) + by) % len(seen)])

    def open_part(self, name: str) -> None:
        """Open a part and put the cursor where it starts."""
        self.turn_to(name)
        first: QWidget = self.part.start()
        if not (first.isEnabled() and first.isVisibleTo(self)):
            first = self.index  # else the page keys would lead nowhere from here
        first.setFocus(Qt.FocusReason.OtherFocusReason)
        self.verticalScrollBar().setValue(0)
        self._see(first)
        self._seeing.start()  # once more when it is laid out

    def _see_again(self) -> None:
        """Keep in sight what has the cursor, now that the part has its height."""
        now = self.focusWidget()
        if now is not None and now.hasFocus() and self.part.isAncestorOf(now):
            self._see(now)

    def _see(self, first: QWidget) -> None:
        """Show the heading of the part, and above all what has the cursor."""
        self.ensureWidgetVisible(self.part.heading, 0, SPACE)
        top = first.mapTo(self.body, QPoint(0, 0)).y()
        high = min(first.height(), self.theme.px(SEEN))  # of a list its first rows will do
        if top + high > self.verticalScrollBar().value() + self.viewport().height():
            self.ensureVisible(0, top + high, 0, SPACE)

    def turn_to(self, name: str) -> None:
        """Open a part; the cursor stays where it is."""
        group = next(g for g in self.groups if name in g.parts)
        group.open(name, self.judged)
        self._show(group)

    def _picked(self, k: int) -> None:
        self._show(self._lines()[k])

    def _show(self, group: Together) -> None:
        self._now = group
        lines = self._lines()
        self.index.show_parts(lines, lines.index(group))
        if self.part.theme != self.theme or not group.styleSheet():
            self.dress(group)
        for each in self.groups:
            each.setVisible(each is group)
        if self.judged is not None:
            self.index.show_judgement(self.judged)
            group.show_judgement(self.judged)
        self.turned.emit()

    def again(self) -> None:
        """Show how far each part is once more."""
        if self.judged is not None:
            self.index.show_judgement(self.judged)

    def start(self) -> bool:
        """Begin at what is needed here: what Next asks of this station, else where it was left."""
        steps = self.judged.steps if self.judged else ()
        own = (s.focus for s in steps if s.station == self.session.station and s.focus)
        if not any(self.put_cursor(f) for f in own):
            self.open_part(self.part.name)
        return True

    def show_judgement(self, judged: Judgement) -> None:
        """Show how far each part is, and the open one."""
        self.judged = judged
        lines = self._lines()
        self.index.show_parts(lines, lines.index(self._now))
        self.index.show_judgement(judged)
        self._now.show_judgement(judged)

    def topic(self) -> str:
        """Return the heading that speaks of the open part."""
        return self.part.topic or self.part.title

    def mark_next(self, focus: str) -> None:
        """Mark the line of the index too."""
        super().mark_next(focus)
        name = self.called(focus)
        asked = next((p for p in self.parts.values() if p.owns(name)), self.parts.get(name))
        lines = self._lines()
        own = next((k for k, g in enumerate(lines) if asked in g.parts.values()), -1)
        self.index.mark_next(own if asked is not None else -1)

    def put_cursor(self, field: str) -> bool:
        """Open the part that has a field or is named so, and put the cursor into it."""
        owner = next((p for p in self.parts.values() if p.owns(field)), self.parts.get(field))
        if owner is not None and owner is not self.part:
            self.turn_to(owner.name)
        if owner is not None:
            self.fields |= owner.fields  # which fields a part has may follow the job
        if owner is not None and field not in self.fields:
            self.open_part(owner.name)
            return True
        return super().put_cursor(field)
