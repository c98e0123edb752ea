"""Set aside by a second person; returned unrepaired, or scrap."""

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_release import LetGo
from careful_coil.core.job.entries import Waived
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.gate import WAYS_OUT, way_out
from careful_coil.desk.field import LONG
from careful_coil.desk.insulation.shown import Prose
from careful_coil.desk.part import Part
from careful_coil.desk.release.initials import INITIALS, initials
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Heading
from careful_coil.desk.theme import Theme


class AsidePart(Part):
    """The part of what is set aside, and of the other ways out."""

    name, title, remark = "aside", "Set aside", "by a second person; never what can hurt"

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
                "Another way out",
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
        return ("watch", f"{count} set aside") if count else ("", "nothing set aside")

    def show_judgement(self, judged: Judgement) -> None:
        """Show which lines may be set aside, which are, and another way out."""
        free = [f"{f.code} ({f.subject.lower()})" for f in judged.gate if f.waivable]
        self.free.say(f"May be set aside: {', '.join(free) or 'nothing that stands open now'}.")
        self.done.say(
            "\n".join(
                f"{f.subject}: set aside by {by}"
                for state, f, by in judged.gate_lines
                if state == "waived"
            )
        )
        told = judged.job.let_go
        self.fields["let-go"].show_text(f"{told.how} {told.reason}" if told else "")

    def _waive(self, text: str) -> None:
        code, _, rest = text.partition(" ")
        second, _, reason = rest.strip().partition(" ")
        job = self.session.open
        gate = {f.code: f for f in (job.judged.gate if job else ())}
        free = ", ".join(c for c, f in gate.items() if f.waivable) or "none now"
        if code not in gate or not second or not reason.strip() or len(second) > INITIALS:
            raise BadValue(text, f"a code ({free}), initials and a reason")
        if not gate[code].waivable:
            raise BadValue(
                code, f"one that may be set aside ({free})", "What can hurt is never set aside."
            )
        initials(self.session)
        foreman = self.session.settings.foreman
        if foreman and second.upper() != foreman.upper():
            raise BadValue(second, f"{foreman}: this shop's foreman sets lines aside")
        if second.upper() == self.session.who.upper():
            raise BadValue(second, "the initials of a second person")
        self.session.record(
            Waived(code=code, reason=reason.strip(), second=second), station="release"
        )

    def _let_go(self, text: str) -> None:
        how, _, reason = text.strip().partition(" ")
        if how and (how.lower() not in WAYS_OUT or not reason.strip()):
            raise BadValue(text, "unrepaired or scrap, and the reason; nothing takes it back")
        initials(self.session)
        body = LetGo.model_validate({"how": how.lower(), "reason": reason.strip()})
        self.session.record(body, station="release")
