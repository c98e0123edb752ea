"""The record: data of the winding typed beside the stator that they make, in the order the hands work."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QVBoxLayout, QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.rules import left_to_read, plate_of, record_of
from careful_coil.core.rewind.wire import meant_by
from careful_coil.core.rewind.worked import Worked, work_out
from careful_coil.core.sheets.winding import WINDING, asked_of, title_of
from careful_coil.core.units import Quantity
from careful_coil.desk.part import Part
from careful_coil.desk.rewind.stator_plot import StatorPlot
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme

BESIDE, LABEL = 500, 104  # pixels at 100 % text: stator and data beside each other; a label


class Beside(QWidget):
    """The stator, and the data at its right; below it where there is no room."""

    def __init__(self, stator: QWidget, data: QWidget, theme: Theme) -> None:
        super().__init__()
        self._narrow = theme.px(BESIDE)
        self._row = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(14)
        self._row.addWidget(stator, 3, Qt.AlignmentFlag.AlignTop)
        self._row.addWidget(data, 2)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Turn the row into a column where it is narrow."""
        super().resizeEvent(event)
        narrow = self.width() < self._narrow
        way = QBoxLayout.Direction.TopToBottom if narrow else QBoxLayout.Direction.LeftToRight
        if self._row.direction() != way:
            self._row.setDirection(way)


class RecordPart(Part):
    """The part that is typed while the winding comes out."""

    name, title, remark = "record", "Record", "what is not read before stripping is gone"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.left = Prose(theme)
        self.why = Prose(theme, "hold")
        self.stator = StatorPlot(theme)
        data = QWidget()
        rows = QVBoxLayout(data)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(4)
        for field in WINDING.fields:
            rows.addWidget(self.add_noted(WINDING.name, field.name, beside=LABEL))
        self.add_field(
            "micrometer", "Micrometer, mm", self._micrometer, "0.83 over", place=False, beside=LABEL
        )
        rows.addWidget(self.fields["micrometer"])
        rows.addStretch()
        self.meant = Prose(theme)
        self.list = Verdicts(theme)
        both = Beside(self.stator, data, theme)
        for part in (self.left, self.why, self.meant, both, self.list):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the first datum that is still to read."""
        judged = self.judged
        left = left_to_read(record_of(judged.job)) if judged is not None else ()
        field = next(
            (f"winding-{f}" for f in left if f"winding-{f}" in self.fields), "winding-slots"
        )
        return self.fields[field].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the record stands."""
        if not judged.job.winding:
            return "", "nothing noted"
        own = [f for f in judged.findings if f.station == "winding"]
        bad = next((f for f in own if f.verdict == "hold"), None)
        data = next((f for f in own if f.code == "winding-data"), None)
        told = bad or data
        return (told.verdict, told.subject[0].lower() + told.subject[1:]) if told else ("", "")

    def show_judgement(self, judged: Judgement) -> None:
        """Show the data, the stator they make, what contradicts."""
        record = record_of(judged.job)
        self.show_notes(judged)
        for datum in WINDING.fields:
            name = datum.name
            field = self.fields[f"winding-{name}"]
            field.setVisible(asked_of(name, record.phases))
            if not field.cell.isModified():
                wrong = next((f for f in judged.findings if f.code == f"winding-{name}"), None)
                field.refuse(wrong.subject if wrong is not None else "")
        worked = worked_of(judged, self.session)
        self.stator.show_layout(worked.layout)
        begun = bool(record.told.get("slots") and record.told.get("poles"))
        self.why.say(worked.why if begun and worked.layout is None else "")
        left = left_to_read(record)
        names = ", ".join(title_of(f) for f in left)
        self.left.say(
            f"Still to read: {names}." if left else "All that a rewind wants is on record."
        )
        self.list.show_findings(
            [f for f in judged.findings if f.station == "winding" and f.code != "winding-data"]
        )

    def _micrometer(self, text: str) -> None:
        """Say what a micrometer reading can mean, over the enamel or on bare wire; nothing is logged."""
        told = text.strip().lower()
        if not told:
            self.meant.say("")
            return
        figure, _, word = told.partition(" ")
        if word not in ("", "over", "bare"):
            raise BadValue(text, "mm, over the enamel or bare: 0.83 over, 0.75 bare")
        found = meant_by(read_mm_of(figure), {"over": True, "bare": False}.get(word))
        names = "; ".join(f"{m.name} {m.build} ({m.off:+.3f})" for m in found[:6])
        self.meant.say(
            f"{told} can mean {names}." if names else f"{told} is no common size: read again."
        )


def read_mm_of(text: str) -> float:
    """Return a micrometer's figure in mm. Raises: BadValue."""
    return figure(text, Quantity.LENGTH, wanted="mm, over the enamel or bare: 0.83 over, 0.75 bare")


def worked_of(judged: Judgement, session: Session) -> Worked:
    """Return what is worked out of the record of a job."""
    return work_out(judged.facts.winding, plate_of(judged.job), session.settings)
