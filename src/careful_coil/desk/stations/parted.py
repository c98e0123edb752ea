"""A station of several parts: an index of them at the left, the open one beside it."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk.index import Index
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution, Page
from careful_coil.desk.theme import Theme


class PartedPage(Page):
    """The station `name` with its caution; Page Up and Page Down walk through its parts."""

    def __init__(
        self, session: Session, theme: Theme, name: str, caution: str, make: Sequence[type[Part]]
    ) -> None:
        super().__init__(session, theme)
        self.caution = Caution(caution, theme)
        self.column.addWidget(self.caution)
        self.parts: dict[str, Part] = {}
        for kind in make:
            part = kind(session, theme)
            self.parts[part.name] = part
            self.fields |= part.fields
        self.index = Index(theme, list(self.parts.values()), name)
        self.index.moved.connect(self._opened)
        row = QHBoxLayout()
        row.setSpacing(20)
        row.addWidget(self.index, 0, Qt.AlignmentFlag.AlignTop)
        holder = QWidget()
        holding = QVBoxLayout(holder)
        holding.setContentsMargins(0, 0, 0, 0)
        for part in self.parts.values():
            holding.addWidget(part)  # first: what has no parent is shown as a window of its own
            part.setVisible(part is self.part)
        holding.addStretch()
        row.addWidget(holder, 1)
        self.column.addLayout(row)
        self.column.addStretch()
        self.judged: Judgement | None = None
        for key, step in (("PgDown", 1), ("PgUp", -1)):
            shortcut = QShortcut(QKeySequence(key), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(lambda step=step: self.step(step))

    def in_sight(self) -> Sequence[QWidget]:
        """Return the index and the open part."""
        return self.caution, self.index, self.part

    def opened(self, id: str) -> None:
        """Take up another motor in every part."""
        for part in self.parts.values():
            part.taken_up(id)

    @property
    def part(self) -> Part:
        """Return the open part."""
        return list(self.parts.values())[self.index.current]

    def step(self, by: int) -> None:
        """Open the next or the previous part, and put the cursor into it."""
        self.open_part(list(self.parts)[(self.index.current + by) % len(self.parts)])

    def open_part(self, name: str) -> None:
        """Open a part and put the cursor where it starts."""
        self.index.go(list(self.parts).index(name))
        self.part.start().setFocus(Qt.FocusReason.OtherFocusReason)
        self.verticalScrollBar().setValue(0)

    def _opened(self, _: int) -> None:
        if self.part.theme != self.theme or not self.part.styleSheet():
            self.dress(self.part)
        for part in self.parts.values():
            part.setVisible(part is self.part)
        if self.judged is not None:
            self.part.show_judgement(self.judged)

    def show_judgement(self, judged: Judgement) -> None:
        """Show how far each part is, and the open one."""
        self.judged = judged
        self.index.show_judgement(judged)
        self.part.show_judgement(judged)

    def put_cursor(self, field: str) -> bool:
        """Open the part that has a field or is named so, and put the cursor into it."""
        owner = next((p for p in self.parts.values() if p.owns(field)), self.parts.get(field))
        if owner is not None and owner is not self.part:
            self.index.go(list(self.parts.values()).index(owner))
        if owner is not None:
            self.fields |= owner.fields  # which fields a part has may follow the job
        if owner is not None and field not in self.fields:
            self.open_part(owner.name)
            return True
        return super().put_cursor(field)
