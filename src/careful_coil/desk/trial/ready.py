"""Before a run: how this motor is started, a sheet of its own, and what must be ready."""

from functools import partial
from typing import Literal

from PySide6.QtWidgets import QWidget

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_trial import TrialBegun, TrialReady
from careful_coil.core.ledger import Judgement
from careful_coil.core.readings import Loaded
from careful_coil.core.trial.begin import ready_items, speeds_of
from careful_coil.core.trial.rules import covers_next, speed_next
from careful_coil.core.trial.typed import sheet_of
from careful_coil.core.trial.whole import since_last_run
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll
from careful_coil.drawing.bench import draw_run

COVERS: tuple[Literal["off", "on"], ...] = ("off", "on")
TESTS: tuple[tuple[Loaded, str], ...] = (
    ("load", "Begin under load"),
    ("locked", "Begin with the rotor locked"),
)


class ReadyPart(Part):
    """The part before volts."""

    name, title, remark = (
        "ready",
        "Make ready",
        "one sheet for each speed, direction and state of covers",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.way = Prose(theme, "ink", 17)
        self.words = Prose(theme)
        self.keys = keys = Flow(2, 0, theme)
        self.begin = {c: EnterButton(f"Begin a run, covers {c}") for c in COVERS}
        for covers, key in self.begin.items():
            key.clicked.connect(partial(self._begin, covers, "none"))
            keys.add(key)
        self.tests = {load: EnterButton(words) for load, words in TESTS}
        for load, key in self.tests.items():
            key.clicked.connect(partial(self._begin, "off", load))
            keys.add(key)
        self.sheet = self.add_field(
            "sheet",
            "This sheet's speed, its direction at the drive end",
            self._sheet,
            "high cw",
            holds=True,
        )
        self.roll = TickRoll(theme, "Ready before volts", at_once=True)
        self.roll.entered.connect(self.log)
        self.roll.ticked.connect(self._ticked)
        self.key = EnterButton("All of it is ready")
        self.key.clicked.connect(self.log)
        self.drawn = Plot(theme, "The bench as it is wired", 10)
        for part in (self.way, self.words, self.drawn, self.sheet, keys, self.roll, self.key):
            self.column.addWidget(part)

    def start(self) -> QWidget:
        """Start at the list of an open sheet, else at beginning one."""
        job = self.session.open
        if job is None:
            return self.begin["off"]
        judged = job.judged
        if judged.job.trials.now is not None:
            return self.roll
        return self.begin[covers_next(judged.job, judged.facts.start_way, judged.facts.connecting)]

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether a sheet is open and ready."""
        now = judged.job.trials.now
        if now is None:
            return "", "no sheet open"
        return ("good", "ready") if now.ready else ("unproven", "not ready yet")

    def show_judgement(self, judged: Judgement) -> None:
        """Show how it is started, and what is ticked."""
        way, now = judged.facts.start_way, judged.job.trials.now
        self.way.say(f"{way.title}.")
        self.words.say(way.words)
        covers = now.begun.covers if now is not None else ""
        wired = judged.facts.connecting.at_lines
        told = "; ".join(f"{line} to {leads}" for line, leads in wired.items())
        load = {"load": "its load", "locked": "rotor locked"}.get(
            now.begun.load if now else "", "no load"
        )
        self.drawn.setVisible(bool(wired))
        if wired:
            drawn = draw_run(wired, covers, judged.job.hands.felt.get("fan") != "missing", load)
            self.drawn.show_whole(drawn, told)
        items = ready_items(judged.job, judged.facts.connecting, way) if now is not None else ()
        self.roll.show_items(items, set(now.ready) if now and now.ready else self.roll.done)
        self.roll.setVisible(now is not None)
        self.keys.setVisible(now is None)  # End or abandon the open sheet first
        self.key.setVisible(now is not None and not now.ready)
        speeds = speeds_of(judged.facts.connecting)
        self.sheet.setVisible(now is None and (bool(speeds) or way.way == "cap"))
        if now is None:
            self.sheet.show_text(speed_next(judged.job, way, judged.facts.connecting) or "")
        self._show_key()

    def opened(self) -> None:
        """Begin with nothing ticked."""
        self.roll.done = set()

    def _sheet(self, text: str) -> None:
        job = self.session.open
        sheet_of(text, speeds_of(job.judged.facts.connecting) if job else ())

    def _ticked(self) -> None:
        self.session.told.emit("", "")  # what was still to be ticked
        self._show_key()

    def _show_key(self) -> None:
        left = self.roll.left
        self.key.setText("All of it is ready · Enter" if not left else f"{len(left)} still to tick")
        self.key.setEnabled(not left)

    def _begin(self, covers: Literal["off", "on"], load: Loaded) -> None:
        job = self.session.open
        if job is None:
            return
        try:
            speed, turns = sheet_of(self.sheet.cell.text(), speeds_of(job.judged.facts.connecting))
        except BadValue as error:
            self.session.told.emit(str(error), "watch")
            return
        done = ", ".join(since_last_run(job.judged.job))
        self.roll.done = set()
        self.sheet.drop()
        body = TrialBegun(covers=covers, load=load, since=done, speed=speed, direction=turns)
        self.session.record(body, station="test-run")
        self.roll.setFocus()

    def log(self) -> None:
        """Log that all is ready."""
        if self.roll.still:
            self.session.told.emit(self.roll.still, "watch")
            return
        if self.roll.items:
            items = tuple(i.name for i in self.roll.items)
            self.session.record(TrialReady(items=items), station="test-run")
            self.session.strip_wanted.emit()
