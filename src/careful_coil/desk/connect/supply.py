"""The supply: named from the shop's list, measured by six voltages, its balance and its colours."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.connect.typed import positive, read_supply
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_connect import SupplyRead
from careful_coil.core.job.entries import Supply
from careful_coil.core.ledger import Judgement
from careful_coil.core.run.supply import read_three, system_words
from careful_coil.core.shop_lists import line_colours, to_neutral
from careful_coil.core.units import Quantity
from careful_coil.desk.ask_row import AskRow, EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.bench import draw_posts

CODES = ("supply", "supply-unbalance", "colour-clash")
LINE_WANTED = "three voltages L1-L2/L2-L3/L3-L1, such as 401/398/403"
NEUTRAL_WANTED = "three voltages to neutral or earth L1/L2/L3, such as 231/230/232"


class SupplyPart(Part):
    """The part of the supply."""

    kept = ("_neutral_now",)
    name, title, remark = "supply", "Supply", "measured and named, not assumed"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.list = AskRow(3)
        self.column.addWidget(self.list)
        grid = Flow(4, NARROWEST, theme)
        for name, label, commit, hint in (
            ("supply", "Supply, volts", self._volt, "460"),
            ("supply-hertz", "Hertz", self._hertz, "60"),
            ("supply-line", "Between lines, V", self._line, "401/398/403"),
            ("supply-neutral", "To neutral, V", self._neutral, "231/230/232"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False))
        self.posts = Plot(theme, "The supply's posts with the volts between them", 10)
        self.column.addWidget(self.posts)
        self.column.addWidget(grid)
        self.measured = EnterButton("Measured")
        self.measured.clicked.connect(self._measured)
        self.running = EnterButton("A motor was running")
        self.running.clicked.connect(self._running)
        keys = Flow(2, 0, theme)
        for key in (self.measured, self.running):
            key.setCheckable(True)
            keys.add(key)
        self.column.addWidget(keys)
        self.words = Prose(theme, "quiet", 13)
        self.verdicts = Verdicts(theme)
        for part in (self.verdicts, self.words):
            self.column.addWidget(part)
        self._neutral_now: tuple[float, float, float] | None = None

    def start(self) -> QWidget:
        """Start at the volts."""
        return self.fields["supply"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the supply stands."""
        worst = finding_of(judged, "supply-unbalance")
        if worst is not None and worst.verdict in ("watch", "hold"):
            return told_of(worst, "")
        return told_of(finding_of(judged, "supply"), "not named yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show the supply, what was read of it, and what that says."""
        supply, read = judged.job.supply, judged.job.joined.read
        self.fields["supply"].show_text(f"{supply.volt:g}" if supply else "")
        self.fields["supply-hertz"].show_text(f"{supply.hertz:g}" if supply else "")
        self.fields["supply-line"].show_text(_slashed(read.line) if read else "")
        self.fields["supply-neutral"].show_text(_slashed(read.neutral) if read else "")
        sure = bool(read or (supply and supply.measured))
        self.measured.setChecked(sure)
        self.measured.setText("Measured" if sure else "Assumed, press when measured")
        self.measured.setEnabled(supply is not None and read is None)
        self.running.setChecked(bool(read and read.running))
        self.running.setEnabled(read is not None)
        phases = supply.phases if supply else judged.job.plate.phases or 3
        line, neutral = (read.line, read.neutral) if read else (None, self._neutral_now)
        told = (
            f"{_slashed(line)} V between lines" if line else "volts between the posts not read yet"
        )
        drawn = draw_posts(phases, line, neutral, asked=supply is not None)
        self.posts.show_whole(drawn, told)
        self._ask(judged)
        self.verdicts.show_findings([f for f in judged.findings if f.code in CODES])
        self.words.say(self._remarks(judged))

    def _ask(self, judged: Judgement) -> None:
        phases = judged.job.plate.phases
        known = self.session.settings.lists.all_supplies()
        own = [s for s in known if phases in (None, s.phases)]
        by_words = {s.words: s for s in own}

        def chosen(words: str) -> None:
            s = by_words[words]
            self._record(s.volt, s.hertz, s.phases)

        self.list.ask("One of the shop's supplies", tuple(by_words), chosen)
        for button, s in zip(self.list.buttons, own, strict=True):
            now = judged.job.supply
            button.setCheckable(True)
            button.setChecked(bool(now and (now.volt, now.hertz) == (s.volt, s.hertz)))

    def _remarks(self, judged: Judgement) -> str:
        supply = judged.job.supply
        if supply is None:
            return (
                "Six voltages name the system: star, high-leg, earthed corner, split, single-phase."
            )
        scheme = self.session.settings.school("supply-colours")
        colours = line_colours(scheme, supply.volt, supply.hertz, supply.phases)
        two = () if to_neutral(supply.volt, supply.hertz, supply.phases) else ("L2",)
        lines = ("L1", "L2", "L3") if supply.phases == 3 else ("L1", *two)
        told = ", ".join(f"{n} {colours[n]}" for n in (*lines, "N", "PE"))
        return " ".join(
            w
            for w in (
                system_words(supply.volt, supply.hertz),
                f"Conductors by this shop's scheme: {told}.",
                "" if two or supply.phases == 3 else "L2 of a connection is the neutral.",
            )
            if w
        )

    def _now(self) -> Supply | None:
        return self.session.open.judged.job.supply if self.session.open else None

    def _record(self, volt: float, hertz: float, phases: int, measured: bool = False) -> None:
        told = {"volt": volt, "hertz": hertz, "phases": phases, "measured": measured}
        self.session.record(Supply.model_validate(told), station="connect")

    def _volt(self, text: str) -> None:
        job = self.session.open
        if job is not None:
            self.session.record(read_supply(text, job.judged.job), station="connect")

    def _hertz(self, text: str) -> None:
        old = self._now()
        if old is None:
            raise BadValue(text, "the volts first")
        hertz = positive(text, Quantity.FREQUENCY)
        self.session.record(old.model_copy(update={"hertz": hertz}), station="connect")

    def _measured(self) -> None:
        old = self._now()
        if old is not None:
            changed = old.model_copy(update={"measured": not old.measured})
            self.session.record(changed, station="connect")

    def _line(self, text: str) -> None:
        line = read_three(text, LINE_WANTED, alike=True)
        if self._now() is None:
            raise BadValue(text, "the supply's own volts first, then what was read of it")
        old = self._read()
        neutral = old.neutral if old else self._neutral_now
        self.session.record(SupplyRead(line=line, neutral=neutral), station="connect")

    def _neutral(self, text: str) -> None:
        self._neutral_now = read_three(text, NEUTRAL_WANTED)
        old = self._read()
        if old is None:
            raise BadValue(text, "the three volts between lines too: they are kept together")
        changed = old.model_copy(update={"neutral": self._neutral_now})
        self.session.record(changed, station="connect")

    def _running(self) -> None:
        old = self._read()
        if old is not None:
            changed = old.model_copy(update={"running": not old.running})
            self.session.record(changed, station="connect")

    def _read(self) -> SupplyRead | None:
        return self.session.open.judged.job.joined.read if self.session.open else None


def _slashed(volts: tuple[float, ...] | None) -> str:
    return "/".join(f"{v:g}" for v in volts) if volts else ""
