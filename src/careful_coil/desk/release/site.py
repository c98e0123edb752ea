"""Work on site: the field sheet's lines, one field each, in the order they stand on paper."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.job.at_release import OnSite
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.ledger.site_line import SiteLine
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.papers import write_paper_of
from careful_coil.desk.part import Part
from careful_coil.desk.release.initials import initials
from careful_coil.desk.release.site_row import SiteRow
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

MOST = 28  # lines of a field sheet


class SitePart(Part):
    """The part of work where the motor stands."""

    name, title, remark = (
        "site",
        "Work on site",
        "its own list, numbered as on the field sheet; Enter goes on",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.on = EnterButton()
        self.on.clicked.connect(self._on_site)
        self.paper = EnterButton("Write the field sheet")
        self.paper.clicked.connect(self._write)
        self.said = Prose(theme, "quiet", 13)
        for part in (self.on, self.paper, self.said):
            self.column.addWidget(part)
        self.lines: tuple[SiteLine, ...] = ()
        self.rows = [SiteRow(theme, partial(self._typed, k)) for k in range(MOST)]
        for row in self.rows:
            row.field.entered.connect(self.session.entered)
            self.column.addWidget(row)

    def start(self) -> QWidget:
        """Start at the first line that is not read yet, else at whether it is work on site."""
        left = [r for k, r in zip(self.lines, self.rows, strict=False) if not k.done]
        return left[0].field.cell if left else self.on

    def owns(self, field: str) -> bool:
        """Whether a field is one of the lines, also while another part is open."""
        return field.startswith("site-")

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many lines are read."""
        if not judged.job.on_site:
            return "", "made ready in the shop"
        lines = field_sheet(judged.job, judged.facts.connecting, judged.facts.installer)
        done = sum(bool(k.done) for k in lines)
        mark = "good" if done == len(lines) else "unproven"
        return mark, f"{done} of {len(lines)} read"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the list, what was read in it."""
        here = judged.job.on_site
        self.on.setText(
            "On site now.  Enter: in the shop" if here else "In the shop now.  Enter: on site"
        )
        lines = (
            field_sheet(judged.job, judged.facts.connecting, judged.facts.installer) if here else ()
        )
        self.lines = lines[:MOST]
        self.paper.setVisible(here)
        self.fields.clear()
        for k, row in enumerate(self.rows):
            if k < len(self.lines):
                row.show_line(k + 1, self.lines[k])
                self.fields[self.lines[k].name] = row.field
            else:
                row.hide()

    def _on_site(self) -> None:
        job = self.session.open
        if job is not None:
            self.session.record(OnSite(on=not job.judged.job.on_site), station="release")

    def _typed(self, k: int, text: str) -> None:
        if text and k < len(self.lines):
            initials(self.session)
            self.session.record(*self.lines[k].read(text), station="release")

    def _write(self) -> None:
        from careful_coil.report.field_sheet import field_sheet_paper  # ReportLab is slow to import

        write_paper_of(
            self.session, "The field sheet", "field-{}.pdf", field_sheet_paper, self.said.say
        )
