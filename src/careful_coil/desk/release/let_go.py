"""Set aside by a second person; returned unrepaired, or scrap."""

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.ledger.leaving import read_let_go, read_waiver
from careful_coil.desk.field import LONG
from careful_coil.desk.part import Part
from careful_coil.desk.release.initials import initials
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme


class AsidePart(Part):
    """The part of what is set aside, and of the other ways out."""

    name, title, remark = "aside", "Waived", "by a second person; never what can hurt"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.free = Prose(theme, "quiet", 13)
        self.column.addWidget(self.free)
        self.add_field(
            "waive",
            "Code, initials of the second person, reason",
            self._waive,
            "mechanics CD oiled",
            clears=True,
        )
        self.done = Prose(theme, "quiet", 13)
        self.column.addWidget(self.done)
        self.column.addWidget(
            Heading(
                "Leave unrepaired",
                theme,
                "with a DO NOT CONNECT tag; empty takes it back",
                rule=True,
            )
        )
        self.add_field(
            "let-go",
            "unrepaired or scrap, and why",
            self._let_go,
            "unrepaired costs more than a new one",
            most=LONG,
        )

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what was set aside, or that it goes as it came."""
        if way_out(judged.job):
            return "hold", way_out(judged.job)
        count = sum(state == "waived" for state, _, _ in judged.gate_lines)
        return ("watch", f"{count} waived") if count else ("", "nothing waived")

    def show_judgement(self, judged: Judgement) -> None:
        """Show which lines may be set aside, which are, and another way out."""
        free = [f"{f.code} ({f.subject.lower()})" for f in judged.gate if f.waivable]
        self.free.say(f"May be waived: {', '.join(free) or 'nothing that is open now'}.")
        self.done.say(
            "\n".join(
                f"{f.subject}: waived by {by}"
                for state, f, by in judged.gate_lines
                if state == "waived"
            )
        )
        told = judged.job.let_go
        self.fields["let-go"].show_text(f"{told.how} {told.reason}" if told else "")

    def _waive(self, text: str) -> None:
        job = self.session.open
        if job is not None:
            initials(self.session)
            waiver = read_waiver(text, job.judged, self.session.who, self.session.settings)
            self.session.record(waiver, station="release")

    def _let_go(self, text: str) -> None:
        body = read_let_go(text)
        initials(self.session)
        self.session.record(body, station="release")
