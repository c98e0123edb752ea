"""The hookup card: seen as it will be printed, written as card, tag and drawing."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.ledger import Judgement
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.papers import write_papers
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.drawing.card import draw_card, draw_tag, proved
from careful_coil.drawing.svg import svg_of


class CardPart(Part):
    """The part of the card."""

    name, title, remark = "card", "Hookup card", "the tag of it; the card has the drawing too"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.preview = Plot(theme, "Hookup card")
        self.column.addWidget(self.preview)
        keys = Flow(1, 0, theme)
        self.write = EnterButton("Write card, tag and drawing")
        self.write.clicked.connect(self._write)
        keys.add(self.write)
        self.column.addWidget(keys)
        self.said = Prose(theme, "quiet", 13)
        self.column.addWidget(self.said)

    def start(self) -> QWidget:
        """Start at the key."""
        return self.write

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what is proved of what it says."""
        if judged.facts.connecting.plan is None:
            return "", "no plan yet"
        return "", "ready" if judged.facts.connecting.joined else "not finished"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the card."""
        job = self.session.open
        there = judged.facts.connecting.plan is not None and job is not None
        self.preview.setVisible(there)
        self.write.setEnabled(there)
        self.said.say("" if there else judged.facts.connecting.why)
        if job is not None and there:
            self.preview.show_whole(
                draw_tag(job.number, judged, self.session.today), proved(judged)
            )

    def _write(self) -> None:
        job = self.session.open
        if job is None:
            return
        from careful_coil.report.card import card, tag  # ReportLab is slow to import

        number, judged, day = job.number, job.judged, self.session.today

        def make() -> dict[str, bytes]:
            return {
                f"hookup-{number}.pdf": card(number, judged, day),
                f"hookup-{number}.svg": svg_of(draw_card(number, judged, day)).encode(),
                f"hookup-tag-{number}.pdf": tag(number, judged, day),
            }

        write_papers(self.session, "The hookup card", make, self.said.say)
