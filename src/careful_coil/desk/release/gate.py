"""What stands before it can go, what is proven outside the program, the earth bond, the signature."""

from functools import partial

from PySide6.QtWidgets import QLineEdit, QWidget

from careful_coil.core.condition.bond import newest_bonds, places_left
from careful_coil.core.condition.typed import read_bonds
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_insulation import EarthBond
from careful_coil.core.job.entries import Attested, Released
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.for_customer import for_customer
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.ledger.leaving import may_attest, read_signature
from careful_coil.desk.part import Part
from careful_coil.desk.release.gate_list import Gate
from careful_coil.desk.release.initials import initials
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme

ATTESTS = (
    ("mechanics", "Bearings and shaft: the shaft by hand, both ends"),
    ("voltage-tags", "Voltage tags: where they were changed"),
)


class GatePart(Part):
    """The part of the gate."""

    name, title, remark = "gate", "Before it can go", "each line proven, waived, or still to do"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.gate = Gate(theme)
        self.column.addWidget(self.gate)
        self.settled = Prose(theme, "quiet", 13)
        self.column.addWidget(self.settled)
        self.outside = Heading(
            "Done outside this program", theme, "in your words, under your initials", rule=True
        )
        self.column.addWidget(self.outside)
        for item, label in ATTESTS:
            self.add_field(item, label, partial(self._attest, item))
        self.add_field("earth-bond", "Earth bond after the covers, Ω", self._bond, "0.03")
        self.signature = Heading("Signature", theme, rule=True)
        self.column.addWidget(self.signature)
        pin = self.add_field("pin", "PIN of who signs", self._pin, "4711", clears=True)
        pin.cell.setEchoMode(QLineEdit.EchoMode.Password)
        self.add_field("sign", "Initials of who lets it go", self._sign, "AB")
        self.customer = Heading("For the customer", theme, "as his sheet says it", rule=True)
        self.column.addWidget(self.customer)
        self.words = Prose(theme)
        self.column.addWidget(self.words)

    def start(self) -> QWidget:
        """Start at the first field that is shown."""
        shown = [f for f in self.fields.values() if not f.isHidden()]
        return shown[0].cell if shown else self

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many lines are open."""
        if way_out(judged.job):
            return "hold", "do not connect"
        if judged.gate:
            return judged.gate[0].verdict, f"{len(judged.gate)} open"
        return "good", "released" if judged.released else "ready to sign"

    def show_judgement(self, judged: Judgement) -> None:
        """Show gate, attested items, bond and signature."""
        job = judged.job
        self.gate.show_judgement(judged)
        done = [
            f"{f.subject}{f' (waived by {by})' if by else ''}"
            for state, f, by in judged.gate_lines
            if state in ("good", "waived")
        ]
        self.settled.say(f"Settled: {'; '.join(done)}." if done else "")
        stays = not way_out(job)
        for item, _ in ATTESTS:
            word = (job.attested or {}).get(item)
            self.fields[item].show_text(word.words if word else "")
            self.fields[item].setVisible(may_attest(judged, item))
        bonds = [b.body.ohm for b in newest_bonds(job).values()]
        self.fields["earth-bond"].show_text("/".join(f"{b:g}" for b in bonds))
        for part in (self.outside, self.fields["earth-bond"]):
            part.setVisible(stays and not job.on_site)
        for part in (self.signature, self.fields["sign"]):
            part.setVisible(stays)
        self.fields["pin"].setVisible(stays and self.session.signing.wanted)
        lines = for_customer(judged).lines() if stays and not judged.gate else ()
        self.words.say("\n".join(f"{title}: {words}" for title, words in lines))
        self.customer.setVisible(bool(lines))
        body = job.released.body if job.released is not None else None
        self.fields["sign"].show_text(body.signed if isinstance(body, Released) else "")

    def _attest(self, item: str, words: str) -> None:
        if not words:
            raise BadValue(words, "a few words on what was seen")
        initials(self.session)
        self.session.record(
            Attested.model_validate({"item": item, "words": words}), station="release"
        )

    def _bond(self, text: str) -> None:
        job = self.session.open
        left = places_left(job.judged.job) if job else ()
        bonds = [EarthBond(ohm=o, place=p, step_ohm=s) for p, o, s in read_bonds(text, left)]
        self.session.record(*bonds, station="release")

    def _pin(self, text: str) -> None:
        self.session.signing.pin = text.strip()

    def _sign(self, text: str) -> None:
        job = self.session.open
        if job is not None and job.judged.job.released is None:
            self.session.record(read_signature(text, job.judged), station="release")
