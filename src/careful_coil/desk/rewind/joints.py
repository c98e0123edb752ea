"""Coils and joints: one phase unrolled, its circuits in the order they are joined, what lies in each slot."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import CoilError
from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.joints import circuits, slot_table
from careful_coil.core.rewind.layout import Layout
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.papers import write_papers
from careful_coil.desk.part import Part
from careful_coil.desk.rewind.record import worked_of
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.documents.winding import coils_csv, winding_document
from careful_coil.drawing.stator import draw_developed


class JointsPart(Part):
    """The part of coils, groups and joints."""

    kept = (
        "phase",
        "coil",
    )
    name, title, remark = "joints", "Coils, joints", "s start, f finish of a group"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.phase, self.coil = "", 0
        self.which = AskRow()
        self.picture = Plot(theme, "One phase unrolled", 10)
        self.order = Prose(theme)
        self.key = EnterButton("Write the winding sheet: PDF, JSON, CSV")
        self.key.clicked.connect(self._write)
        self.said = Prose(theme)
        self.head = Heading(
            "Slot by slot", theme, "a minus: the current goes the other way", rule=True
        )
        self.slots = Prose(theme, "quiet", 13)
        for part in (
            self.which,
            self.picture,
            self.order,
            self.key,
            self.said,
            self.head,
            self.slots,
        ):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the phases."""
        return self.which.buttons[0] if self.which.buttons else self

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many coils there are."""
        layout = worked_of(judged, self.session).layout
        return "", f"{len(layout.coils)} coils" if layout is not None else "not known yet"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the phase chosen."""
        layout = worked_of(judged, self.session).layout
        for part in (self.which, self.picture, self.head, self.slots):
            part.setVisible(layout is not None)
        if layout is None:
            self.order.say("Slots, poles and the coils first.")
            return
        if self.phase not in layout.phases:
            self.phase = layout.phases[0]
        self.which.ask("Which phase?", layout.phases, self._chosen)
        self.which.setVisible(True)
        for button, phase in zip(self.which.buttons, layout.phases, strict=True):
            button.setCheckable(True)
            button.setChecked(phase == self.phase)
        self.picture.show_whole(
            draw_developed(layout, self.phase, chosen=self.coil),
            f"phase {self.phase}: {len(layout.of(self.phase))} coils",
        )
        self.order.say(self._order(layout))
        self.slots.say("\n".join(f"{slot}: {words}" for slot, words in slot_table(layout)))

    def _order(self, layout: Layout) -> str:
        record = self.judged.facts.winding if self.judged else None
        count = (record.whole("circuits") or 1) if record else 1
        skip = bool(record and record.told.get("jumpers") == "skip")
        try:
            every = circuits(layout, self.phase, count, skip)
        except CoilError as error:
            return str(error)
        lines = []
        for k, c in enumerate(every, 1):
            joined = ", ".join(f"{a.words}–{b.words}" for a, b in c.joints) or "no joints"
            lines.append(f"Circuit {k}: lead on {c.begins.words}; {joined}; out at {c.ends.words}.")
        return "\n".join(lines)

    def _write(self) -> None:
        """Write the sheet beside the job sheets, each file whole or not at all."""
        job = self.session.open
        if job is None:
            return
        from careful_coil.report.winding import winding_sheet  # ReportLab is slow to import

        number, judged, settings = job.number, job.judged, self.session.settings

        def make() -> dict[str, bytes]:
            document = winding_document(number, judged, settings)
            return {
                f"winding-{number}.pdf": winding_sheet(number, judged, settings),
                f"winding-{number}.json": document.model_dump_json(indent=1).encode(),
                f"winding-{number}.csv": coils_csv(document).encode(),
            }

        write_papers(self.session, "The winding sheet", make, self.said.say)

    def choose(self, coil: int) -> None:
        """Show the coil that was walked to, in its phase."""
        job = self.session.open
        layout = worked_of(job.judged, self.session).layout if job else None
        self.coil = coil
        if layout is not None and 0 < coil <= len(layout.coils):
            self.phase = layout.coils[coil - 1].phase

    def _chosen(self, phase: str) -> None:
        self.phase = phase
        self.again()
