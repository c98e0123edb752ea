"""Commutator: each bar to the next round the ring, typed, pasted or taken by Space; bars to shaft."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_mechanics import Commutator
from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.brush_rules import bars_of, next_bar
from careful_coil.core.mechanics.places import shell_of
from careful_coil.core.mechanics.typed import bars_count, bars_read
from careful_coil.core.probes import Request
from careful_coil.core.sheets.mechanics import FELT
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.theme import Theme
from careful_coil.drawing.commutator import draw_bars

TO_SHAFT = FELT.field("bars-shaft")
TO_BAR = "bar "  # before a list: from which bar on


class BarsPart(Part):
    """The part of the commutator."""

    codes = ("bars", "bars-shaft")
    nothing = "none counted"
    name, title, remark = "bars", "Commutator", "four wires, brushes lifted, probes pressed"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        grid = Flow(2, NARROWEST, theme)
        grid.add(self.add_field("bars-count", "How many bars", self._count, "24", place=False))
        grid.add(
            self.add_field(
                "bars-shaft",
                TO_SHAFT.label,
                lambda text: self.set_down("felt", "bars-shaft", text),
                TO_SHAFT.hint,
                place=False,
            )
        )
        self.column.addWidget(grid)
        self.add_field(
            "bars-typed",
            "Ohms from the next bar on, one or all; bar 7: from bar 7",
            self._read,
            "0.21 0.22 0.21, or bar 7: 0.20",
            clears=True,
            most=4000,
        )
        self.taking = False  # bars by Space
        self.key = EnterButton("Take them by Space")
        self.key.clicked.connect(self._take)
        self.next, self.list = Prose(theme), Verdicts(theme)
        self.ring = Plot(theme, "Ohms round the commutator", 10)
        for part in (self.next, self.key, self.ring, self.list):
            self.column.addWidget(part)

    def wanted(self, judged: Judgement) -> bool:
        """Whether it has a commutator."""
        return shell_of(judged.job, judged.facts.kinds).commutator

    def start(self) -> QWidget:
        """Start at the count, then at the ohms."""
        known = self.judged is not None and self.judged.job.hands.bars
        return self.fields["bars-typed" if known else "bars-count"].cell

    def show_judgement(self, judged: Judgement) -> None:
        """Show the ring of readings and what it says."""
        hands = judged.job.hands
        self.fields["bars-count"].show_text(str(hands.bars) if hands.bars else "")
        self.fields["bars-shaft"].show_text(hands.felt.get("bars-shaft", ""))
        self.list.show_findings(self.own(judged))
        self.ring.setVisible(hands.bars > 0)
        bar = next_bar(hands)
        self.next.say(f"Next: bar {bar} to bar {bar % hands.bars + 1}." if bar else "")
        self.key.setVisible(bar is not None)
        if self.taking:
            self._pick()
        if not hands.bars:
            return
        told, settings = bars_of(hands, self.session.settings), self.session.settings
        words = "; ".join(
            f"bar {k} {'open' if v is None else f'{v:g} Ω'}" for k, v in sorted(hands.ohms.items())
        )
        self.ring.show_whole(
            draw_bars(
                hands.bars,
                hands.ohms,
                told.like if told else (),
                told.bars if told else (),
                settings.bars_watch.value / 100,
                settings.bars_hold.value / 100,
            ),
            words or "nothing read yet",
        )

    def _take(self) -> None:
        """Put the probes on the bars that are left, one after another; the cursor goes to the strip."""
        self.taking = True
        self._pick()
        self.session.strip_wanted.emit()

    def _pick(self) -> None:
        hands = self.judged.job.hands if self.judged else None
        bar = next_bar(hands) if hands else None
        if hands is None or bar is None:
            self.taking = False
            return
        ends = (f"{TO_BAR}{bar}", f"{TO_BAR}{bar % hands.bars + 1}")
        self.session.pick(Request(kind="bar", ends=ends))

    def opened(self) -> None:
        """Take no bars by Space until it is asked for."""
        self.taking = False

    def _count(self, text: str) -> None:
        self.session.record(Commutator(bars=bars_count(text or "0")), station="mechanics")

    def _read(self, text: str) -> None:
        if not text.strip():
            return
        hands = self.judged.job.hands if self.judged else None
        if hands is None or not hands.bars:
            raise BadValue(text, "how many bars there are, first")
        first = next_bar(hands)
        front, colon, rest = text.partition(":")
        if colon:
            number = front.strip().lower().removeprefix(TO_BAR.strip()).strip()
            if not number.isascii() or not number.isdecimal() or not 0 < int(number) <= hands.bars:
                raise BadValue(front, f"a bar from 1 to {hands.bars}, such as bar 7: 0.21")
            first, text = int(number), rest
        if first is None:
            raise BadValue(text, "all bars are read: from which one again, such as bar 7: 0.21")
        body = bars_read(text, first)
        if len(body.ohms) > hands.bars:
            raise BadValue(f"{len(body.ohms)} ohms", f"at most {hands.bars}, one for each bar")
        self.session.record(body, station="mechanics")
