"""Lead insulation and cord: each lead's state and length, what was done, size and class of a new one."""

from careful_coil.core.choices import one_of
from careful_coil.core.figures import figure
from careful_coil.core.job.at_intake import Leads
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.lead_rules import WANTS, new_lead
from careful_coil.core.mechanics.typed import MENDS, of_lead, read_mended
from careful_coil.core.units import Quantity
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme

CORD = ("cord", "cord-done", "relief")
STATES = ("fine", *WANTS)
STATE_WANTED = f"a lead and its state, a length if known: A cracked 180 mm ({', '.join(STATES)})"


class LeadsPart(Part):
    """The part of leads and cord."""

    codes = ("lead-mended", "cord", "relief", "seen-leads")
    nothing = "not looked at"
    name, title, remark = "lead-insulation", "Leads, cord", "bend each along its length"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.add_field("lead-state", "A lead and its state", self._state, "A cracked 180 mm", True)
        self.add_field("lead-done", "A lead and what was done", self._done, "A sleeved", True)
        self.add_sheet("felt", 3, CORD)
        self.new, self.table = Prose(theme), Prose(theme)
        self.words = Prose(theme, "quiet", 13)
        self.words.say(f"States: {', '.join(STATES)}. Done: {', '.join(MENDS)}.")
        self.list = Verdicts(theme)
        for part in (self.table, self.new, self.list, self.words):
            self.column.addWidget(part)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how leads and cord stand."""
        bad = [x for x in judged.job.leads if x.insulation in WANTS]
        if bad and not self.own(judged):
            return "", f"{len(bad)} to mend"
        return super().told(judged)

    def show_judgement(self, judged: Judgement) -> None:
        """Show each lead, what a new one must be, the cord."""
        job = judged.job
        self.show_notes(judged)
        lines = []
        for x in job.leads:
            mend = job.hands.mended.get(x.tag)
            parts: list[str] = [x.insulation or "not looked at"]
            parts += [f"{x.length_mm:g} mm"] if x.length_mm else []
            if mend is not None:
                parts.append(f"{mend.how}{f' ({mend.words})' if mend.words else ''}")
            elif x.insulation in WANTS:
                parts.append(WANTS[x.insulation][0])
            lines.append(f"{x.tag}: {', '.join(parts)}")
        self.table.say("\n".join(lines) or "No leads are tagged yet.")
        told = new_lead(job, self.session.settings)
        self.new.say(
            f"A new lead: {told.mm2:g} mm² of copper for {told.amp:g} A, insulation for {told.celsius} °C at least "
            "(by the shop's list; maker's own lead and local code win). Room to move where a head swings."
            if told
            else "What a new lead must be follows from the plate's amps."
        )
        self.list.show_findings(self.own(judged))

    @property
    def _tags(self) -> tuple[str, ...]:
        return self.judged.job.tags if self.judged else ()

    def _state(self, text: str) -> None:
        if not text.strip():
            return
        tag, rest = of_lead(text, self._tags, STATE_WANTED)
        word, _, length = rest.partition(" ")
        state = one_of(word, STATES)
        changes: dict[str, object] = {"insulation": state}
        if length.strip():
            changes["length_mm"] = figure(
                length, Quantity.LENGTH, least=0.001, most=5000, wanted=STATE_WANTED
            )
        judged = self.judged
        leads = judged.job.leads if judged else ()
        kept = tuple(x.model_copy(update=changes) if x.tag == tag else x for x in leads)
        self.session.record(Leads(leads=kept), station="mechanics")

    def _done(self, text: str) -> None:
        if not text.strip():
            return
        self.session.record(read_mended(text, self._tags), station="mechanics")
