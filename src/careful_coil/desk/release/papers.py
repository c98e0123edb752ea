"""What goes with the motor and what stays: sheets, the tag, the job as a bundle, a follow-up."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.condition.earlier import earlier_of
from careful_coil.core.job.follow_up import follow_up
from careful_coil.core.ledger import Judgement
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.bundles import write_out
from careful_coil.desk.flow import Flow
from careful_coil.desk.papers import motor_tag_maker, write_job_sheet, write_paper_of
from careful_coil.desk.part import Part
from careful_coil.desk.release.tag_card import TagCard
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme


class PapersPart(Part):
    """The part of papers."""

    name, title, remark = "papers", "Papers", "into the shop's sheets folder"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.sheet = EnterButton("Job sheet, the shop's  Ctrl+P")
        self.customers = EnterButton("Job sheet, the customer's")
        self.tag = EnterButton("Motor's tag")
        self.bundle = EnterButton("Whole job as a bundle")
        self.follow = EnterButton("A later complaint: follow-up job")
        keys = Flow(2, 0, theme)
        for key in (self.sheet, self.customers, self.tag, self.bundle, self.follow):
            keys.add(key)
        self.column.addWidget(keys)
        self.said = Prose(theme, "quiet", 13)
        self.column.addWidget(self.said)
        self.column.addWidget(Heading("The tag as it stands now", theme, rule=True))
        self.card = TagCard(theme)
        self.column.addWidget(self.card)
        self.sheet.clicked.connect(lambda: write_job_sheet(session, self.said.say))
        self.customers.clicked.connect(self._customers)
        self.tag.clicked.connect(self._tag)
        self.bundle.clicked.connect(self._bundle)
        self.follow.clicked.connect(self._follow_up)

    def start(self) -> QWidget:
        """Start at the shop's sheet."""
        return self.sheet

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the tag says now."""
        return "", "tag: released" if judged.released else "tag: DO NOT CONNECT"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the tag; offer a follow-up of a released motor."""
        self.follow.setVisible(judged.released)
        job = self.session.open
        if job is not None:
            self.card.show_tag(job.number, judged, self.session.today)

    def _tag(self) -> None:
        make = motor_tag_maker(self.session)
        write_paper_of(self.session, "The tag", "tag-{}.pdf", make, self.said.say)

    def _customers(self) -> None:
        from careful_coil.report.sheet import sheet  # ReportLab is slow to import

        make = partial(sheet, customer=True)
        write_paper_of(self.session, "The sheet", "customer-{}.pdf", make, self.said.say)

    def _bundle(self) -> None:
        write_out(self.session, self.said.say)

    def _follow_up(self) -> None:
        job = self.session.open
        if job is not None and job.judged.released:
            j = job.judged
            kept = earlier_of(
                job.number,
                j.job,
                j.facts.identification,
                j.facts.naming,
                j.facts.wall,
                self.session.settings,
            )
            first = [*follow_up(job.id, job.number, job.entries), kept]
            self.session.start_job(first, "intake", "complaint")
