"""Release: the gate with everything that stands before it can go, the last checks, the signature."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QPointF, QRect
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QGridLayout, QPushButton

from careful_coil.core.condition.bond import newest_bonds, places_left
from careful_coil.core.condition.typed import read_bonds
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_insulation import EarthBond
from careful_coil.core.job.at_release import LetGo, OnSite, SiteChecked, SiteItem
from careful_coil.core.job.entries import Attested, Released, Waived
from careful_coil.core.job.follow_up import follow_up
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.gate import SITE_ITEMS, WAYS_OUT, way_out
from careful_coil.desk import paint
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import LONG, Field
from careful_coil.desk.insulation.shown import Prose
from careful_coil.desk.painted import Painted
from careful_coil.desk.papers import write_papers
from careful_coil.desk.session import Session
from careful_coil.desk.stations.page import Caution, Heading, Page
from careful_coil.desk.theme import Theme

ATTESTS = (
    ("mechanics", "Bearings and shaft: what was done, how they feel"),
    ("start-gear", "Start gear: switch, relay, capacitors"),
    ("hookup", "Hookup, checked outside this program"),
    ("voltage-tags", "Voltage tags: where they were changed"),
    (
        "test-run",
        "Test run: amps of each line, rev/min, direction and from which end, before and after covers",
    ),
)


class Gate(Painted):
    """What stands before it can go, large; or that nothing does."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.rows: list[tuple[str, str, str]] = []
        self.setAccessibleName("Gate")
        self.fit()

    def least_height(self) -> int:
        """Return the height that shows all of it."""
        return self.theme.px(30) * max(len(self.rows), 1)

    def show_judgement(self, judged: Judgement) -> None:
        """Take the gate of a judgement."""
        self.rows = [(f.verdict, f.subject, f.why) for f in judged.gate]
        out = way_out(judged.job)
        if out:
            reason = judged.job.let_go.reason if judged.job.let_go else ""
            self.rows = [("hold", "DO NOT CONNECT", f"{out.capitalize()}: {reason}")]
        elif not self.rows:
            done = judged.released
            words = "Released" if done else "Nothing stands open"
            self.rows = [
                (
                    "good",
                    words,
                    "The sheet goes with the motor." if done else "Sign below; the sheet is made.",
                )
            ]
        self.setAccessibleDescription("; ".join(f"{s}: {w}" for _, s, w in self.rows))
        self.fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw a row a finding."""
        painter, t = QPainter(self), self.theme
        for k, (verdict, subject, why) in enumerate(self.rows):
            y, high = k * t.px(30), t.px(30)
            paint.mark(painter, t, verdict, QPointF(12, y + high / 2), 16)
            name = min(paint.width_of(t, subject, 15, True) + 28, self.width() // 2)
            paint.text(painter, t, QRect(34, y, name - 12, high), subject, bold=True)
            paint.text(
                painter,
                t,
                QRect(34 + name, y, self.width() - 34 - name, high),
                why,
                size=13,
                token="quiet",
            )


class ReleasePage(Page):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(Heading("Before it can go", theme))
        self.gate = Gate(theme)
        self.column.addWidget(self.gate)
        self.settled = Prose(theme, "quiet", 13)
        self.column.addWidget(self.settled)
        self.site = EnterButton()
        self.site.clicked.connect(self._on_site)
        self.column.addWidget(self.site)
        for own, (label, _) in SITE_ITEMS.items():
            name = f"site-{own}"
            self.fields[name] = Field(label, partial(self._site, own), theme, name=name)
            self.column.addWidget(self.fields[name])
        self.column.addWidget(
            Heading(
                "Done outside this program", theme, "in your words, under your initials", rule=True
            )
        )
        for item, label in ATTESTS:
            self.fields[item] = Field(label, partial(self._attest, item), theme, name=item)
            self.column.addWidget(self.fields[item])
        self.fields["earth-bond"] = Field(
            "Earth bond after the covers, Ω",
            self._bond,
            theme,
            hint="0.03",
            name="earth-bond",
        )
        self.column.addWidget(self.fields["earth-bond"])
        self.column.addWidget(
            Heading(
                "Set aside",
                theme,
                "by a second person; never what can hurt",
                rule=True,
            )
        )
        self.free = Prose(theme, "quiet", 13)
        self.column.addWidget(self.free)
        self.fields["waive"] = Field(
            "Code, initials of the second person, reason",
            self._waive,
            theme,
            hint="mechanics CD oiled",
            name="waive",
            clears=True,
        )
        self.column.addWidget(self.fields["waive"])
        self.column.addWidget(
            Heading(
                "Another way out",
                theme,
                "with a DO NOT CONNECT tag; empty takes it back",
                rule=True,
            )
        )
        self.fields["let-go"] = Field(
            "unrepaired or scrap, and why",
            self._let_go,
            theme,
            hint="unrepaired costs more than a new one",
            name="let-go",
            most=LONG,
        )
        self.column.addWidget(self.fields["let-go"])
        self.column.addWidget(Heading("Signature", theme, rule=True))
        row = QGridLayout()
        row.setHorizontalSpacing(14)
        self.fields["sign"] = Field(
            "Initials of who lets it go", self._sign, theme, hint="AB", name="sign"
        )
        self.sheet = QPushButton("Write the sheet  Ctrl+P")
        row.addWidget(self.fields["sign"], 0, 0)
        self.tag = EnterButton("Write the motor's tag")
        self.customers = EnterButton("Write the customer's sheet")
        self.customers.clicked.connect(self._customers)
        self.follow = EnterButton("A later complaint: follow-up job")
        self.follow.clicked.connect(self._follow_up)
        row.addWidget(self.sheet, 0, 1)
        row.addWidget(self.tag, 1, 0)
        row.addWidget(self.customers, 1, 1)
        row.addWidget(self.follow, 2, 0)
        self.column.addLayout(row)
        self.tag.clicked.connect(self._tag)
        self.said = Prose(theme, "quiet", 13)
        self.column.addWidget(self.said)
        self.column.addWidget(
            Caution(
                "At the machine: volts under load, amps against the plate, direction, overload set.",
                theme,
            )
        )
        self.column.addStretch()
        self._judged: Judgement | None = None

    def show_judgement(self, judged: Judgement) -> None:
        """Show gate, attested items, bond and signature."""
        self._judged = judged
        self.gate.show_judgement(judged)
        codes = {f.code for f in judged.findings}
        for item, _ in ATTESTS:
            word = (judged.job.attested or {}).get(item)
            self.fields[item].show_text(word.words if word else "")
            needed = item in codes and (item != "hookup" or judged.connecting.outside)
            self.fields[item].setVisible(needed)
        bonds = [b.body.ohm for b in newest_bonds(judged.job).values()]
        self.fields["earth-bond"].show_text("/".join(f"{b:g}" for b in bonds))
        self._more(judged)
        released = judged.job.released
        signed = released.body.signed if released and released.body.kind == "released" else ""
        self.fields["sign"].show_text(signed)

    def _more(self, judged: Judgement) -> None:
        """Show what is settled, the site's list, another way out."""
        job = judged.job
        done = [
            f"{f.subject}{f' (set aside by {by})' if by else ''}"
            for state, f, by in judged.gate_lines
            if state in ("good", "waived")
        ]
        self.settled.say(f"Settled: {'; '.join(done)}." if done else "")
        self.site.setText(
            "Work on site, by the site's own list.  Enter: by the shop's"
            if job.on_site
            else "Made ready in the shop.  Enter: work on site, by its own list"
        )
        free = [f"{f.code} ({f.subject.lower()})" for f in judged.gate if f.waivable]
        self.free.say(f"May be set aside: {', '.join(free) or 'nothing that stands open now'}.")
        for item in SITE_ITEMS:
            self.fields[f"site-{item}"].setVisible(job.on_site)
            self.fields[f"site-{item}"].show_text(job.site.get(item, ""))
        told = f"{job.let_go.how} {job.let_go.reason}" if job.let_go else ""
        self.fields["let-go"].show_text(told)
        self.follow.setVisible(judged.released)

    def _on_site(self) -> None:
        self.session.record(
            OnSite(on=not (self._judged and self._judged.job.on_site)), station="release"
        )

    def _site(self, item: SiteItem, text: str) -> None:
        self._initials()
        self.session.record(SiteChecked(item=item, words=text.strip()), station="release")

    def _let_go(self, text: str) -> None:
        how, _, reason = text.strip().partition(" ")
        if how and (how.lower() not in WAYS_OUT or not reason.strip()):
            raise BadValue(text, "unrepaired or scrap, and the reason; nothing takes it back")
        self._initials()
        body = LetGo.model_validate({"how": how.lower(), "reason": reason.strip()})
        self.session.record(body, station="release")

    def _tag(self) -> None:
        from careful_coil.report.motor_tag import motor_tag  # ReportLab is slow to import

        day = self.session.today
        self._paper("The tag", "tag-{}.pdf", lambda number, judged: motor_tag(number, judged, day))

    def _customers(self) -> None:
        from careful_coil.report.sheet import sheet  # ReportLab is slow to import

        self._paper("The sheet", "customer-{}.pdf", partial(sheet, customer=True))

    def _paper(self, what: str, name: str, make: Callable[[int, Judgement], bytes]) -> None:
        job = self.session.open
        if job is not None:
            number, judged = job.number, job.judged
            write_papers(
                self.session,
                what,
                lambda: {name.format(number): make(number, judged)},
                self.said.say,
            )

    def _follow_up(self) -> None:
        job = self.session.open
        if job is not None and job.judged.released:
            first = follow_up(job.id, job.number, job.entries)
            self.session.start_job(first, "intake", "complaint")

    def _attest(self, item: str, words: str) -> None:
        if not words:
            raise BadValue(words, "a few words on what was seen")
        self._initials()
        self.session.record(
            Attested.model_validate({"item": item, "words": words}), station="release"
        )

    def _initials(self) -> None:
        if not self.session.who:
            raise BadValue("nobody at the bench", "your initials first, at the foot of the rack")

    def _bond(self, text: str) -> None:
        left = places_left(self._judged.job) if self._judged else ()
        bonds = [EarthBond(ohm=o, place=p, step_ohm=s) for p, o, s in read_bonds(text, left)]
        self.session.record(*bonds, station="release")

    def _waive(self, text: str) -> None:
        code, _, rest = text.partition(" ")
        second, _, reason = rest.strip().partition(" ")
        gate = {f.code: f for f in (self._judged.gate if self._judged else ())}
        free = ", ".join(c for c, f in gate.items() if f.waivable) or "none now"
        if code not in gate or not second or not reason.strip():
            raise BadValue(text, f"a code ({free}), initials and a reason")
        if not gate[code].waivable:
            raise BadValue(
                code, f"one that may be set aside ({free})", "What can hurt is never set aside."
            )
        self._initials()
        foreman = self.session.settings.foreman
        if foreman and second.upper() != foreman.upper():
            raise BadValue(second, f"{foreman}: this shop's foreman sets lines aside")
        if second.upper() == self.session.who.upper():
            raise BadValue(second, "the initials of a second person")
        self.session.record(
            Waived(code=code, reason=reason.strip(), second=second), station="release"
        )

    def _sign(self, text: str) -> None:
        judged = self._judged
        if judged is None or judged.job.released is not None:
            return
        if judged.job.let_go is not None:
            raise BadValue(text, "no way out but the signature: it was let go unrepaired")
        if judged.gate:
            raise BadValue(text, f"nothing open first; {judged.gate[0].subject.lower()}")
        if not text:
            raise BadValue(text, "initials")
        self.session.record(Released(signed=text), station="release")
