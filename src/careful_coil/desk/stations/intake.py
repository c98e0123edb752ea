"""Intake: an index of what is to be kept before anything is touched, and the open part of it."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk.intake.condition import ConditionPart
from careful_coil.desk.intake.counter import CounterPart
from careful_coil.desk.intake.diagram import DiagramPart
from careful_coil.desk.intake.hookup_found import HookupPart
from careful_coil.desk.intake.index import Index
from careful_coil.desk.intake.kind import KindPart
from careful_coil.desk.intake.leads_found import LeadsPart
from careful_coil.desk.intake.part import Part
from careful_coil.desk.intake.pictures import PicturesPart
from careful_coil.desk.intake.plate import PlatePart
from careful_coil.desk.intake.plug import PlugPart
from careful_coil.desk.intake.replacement import ReplacementPart
from careful_coil.desk.intake.worth import WorthPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Caution, Page
from careful_coil.desk.theme import Theme

PARTS: tuple[type[Part], ...] = (
    CounterPart,
    PlatePart,
    KindPart,
    LeadsPart,
    HookupPart,
    PlugPart,
    DiagramPart,
    ConditionPart,
    PicturesPart,
    WorthPart,
    ReplacementPart,
)


class IntakePage(Page):
    """The station."""

    stubs_wanted = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Isolate it, lock it out, prove it dead. Photograph the joints before anything is cut.",
                theme,
            )
        )
        self.parts: dict[str, Part] = {}
        for make in PARTS:
            part = make(session, theme)
            self.parts[part.name] = part
            self.fields |= part.fields
        self.index = Index(theme, list(self.parts.values()))
        self.index.moved.connect(self._opened)
        row = QHBoxLayout()
        row.setSpacing(20)
        row.addWidget(self.index, 0, Qt.AlignmentFlag.AlignTop)
        holder = QWidget()
        holding = QVBoxLayout(holder)
        holding.setContentsMargins(0, 0, 0, 0)
        for part in self.parts.values():
            part.setVisible(part is self.part)
            holding.addWidget(part)
        holding.addStretch()
        row.addWidget(holder, 1)
        self.column.addLayout(row)
        self.column.addStretch()
        self._judged: Judgement | None = None
        for key, step in (("PgDown", 1), ("PgUp", -1)):
            shortcut = QShortcut(QKeySequence(key), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(lambda step=step: self.step(step))
        counter = self.parts["counter"]
        if isinstance(counter, CounterPart):
            counter.stubs_wanted.connect(self.stubs_wanted)

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
        start = self.part.start()
        start.setFocus(Qt.FocusReason.OtherFocusReason)
        self.verticalScrollBar().setValue(0)

    def _opened(self, _: int) -> None:
        for part in self.parts.values():
            part.setVisible(part is self.part)
        if self._judged is not None:
            self.part.show_judgement(self._judged)

    def show_judgement(self, judged: Judgement) -> None:
        """Show how far each part is, and the open one."""
        self._judged = judged
        self.index.show_judgement(judged)
        self.part.show_judgement(judged)

    def start(self) -> bool:
        """Begin at the counter while the motor has no name, else where it was left."""
        named = self._judged is not None and self._judged.job.ticket.get("name")
        self.open_part(self.part.name if named else "counter")
        return True

    def put_cursor(self, field: str) -> bool:
        """Open the part that has a field, and put the cursor into it."""
        owner = next((p for p in self.parts.values() if p.owns(field)), None)
        if owner is not None and owner is not self.part:
            self.index.go(list(self.parts.values()).index(owner))
        return super().put_cursor(field)
