"""Before the test: volts, temperatures, and what must be off or earthed, each ticked."""

from typing import Literal

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from careful_coil.core.choices import one_of
from careful_coil.core.condition.air import dew_point
from careful_coil.core.condition.apart import clips, ready_for, to_take_off
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.job.at_insulation import TestReady
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.next_wall import CODES
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.desk.tick_roll import TickRoll
from careful_coil.drawing.bench import draw_clips

MOST_LEADS = 6  # drawn one by one
OTHERS: tuple[Literal["earthed", "guarded", "loose"], ...] = ("earthed", "guarded", "loose")


class ReadyPart(Part):
    """The part that makes the motor ready for the tester."""

    name, title, remark = "ready", "Before the test", "the tester puts hundreds of volts on it"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        grid = Flow(3, NARROWEST, theme)
        for name, label, commit, hint in (
            ("temperature", "Winding, °C", self._temperature, "21 or 70 °F"),
            ("test-volt", "Test volts, DC", self._volt, "500"),
            ("air", "Air, °C", self._air, "20"),
            ("humidity", "Humidity, %", self._humidity, "55"),
            ("others", "The other windings", self._others, "earthed"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False))
        self.fields["others"].cell.offer(OTHERS)
        self.column.addWidget(grid)
        self.clips = Plot(theme, "What is joined, what is earthed, where the clips go", 10)
        self.column.addWidget(self.clips)
        self.weather = Prose(theme)
        self.column.addWidget(self.weather)
        self.caution = Caution("", theme)
        self.column.addWidget(self.caution)
        self.roll = TickRoll(theme, "To be ticked before the test", at_once=True)
        self.roll.entered.connect(self.log)
        self.roll.ticked.connect(self._ticked)
        self.column.addWidget(self.roll)
        self.key = EnterButton("All of it is done")
        self.key.clicked.connect(self.log)
        self.column.addWidget(self.key)
        self.fields["temperature"].entered.connect(self._to_ticks)
        self._ready = False  # whether the ticks were logged

    def start(self) -> QWidget:
        """Start at what is still missing: the winding's temperature, else the ticks."""
        known = self.session.under.at_c is not None
        return self.roll if known else self.fields["temperature"].cell

    def _to_ticks(self) -> None:
        """Go on to the ticks once the winding's temperature is known: the usual volts stand."""
        if self.session.under.at_c is not None and not self._ready:
            self.roll.setFocus(Qt.FocusReason.OtherFocusReason)

    def opened(self) -> None:
        """Begin with nothing ticked."""
        self.roll.done, self.roll.current, self._ready = set(), 0, False

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return whether it is ticked, or has lapsed."""
        if self._stands(judged):
            return "good", "ticked"
        if not any(f.code in CODES and f.verdict in ("hold", "unproven") for f in judged.findings):
            return "", "no test due"
        return "unproven", "lapsed" if judged.job.tested.ready else "not ticked"

    def _stands(self, judged: Judgement) -> bool:
        """Whether it is ticked, with no hand on the motor and not too long ago."""
        facts, minutes = judged.facts, self.session.settings.dead_minutes.value
        return ready_for(judged.job, facts.wall, facts.kinds, self.session.at_bench.now, minutes)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the session's figures, the dew point and the ticks."""
        s = self.session.setting
        for name, value in (
            ("temperature", s.at_c),
            ("test-volt", s.volt),
            ("air", s.air_c),
            ("humidity", s.humidity),
        ):
            self.fields[name].show_text("" if value is None else f"{value:g}")
        self.fields["others"].show_text(s.others)
        wall = judged.facts.wall
        span = wall.test_volts()
        usual = ""
        if span is not None:
            usual = f"{span[0]:g} V. " if span[0] == span[1] else f"{span[0]:g} to {span[1]:g} V. "
        self.weather.say(f"{usual}{wall.volts_why()} {self._dew()}".strip())
        self._show_clips(judged)
        items = to_take_off(judged.job, wall, judged.facts.kinds)
        ready = self._stands(judged)
        done = set(self.roll.done)
        if self._ready and not ready:
            done, self.roll.current = set(), 0  # it lapsed: every tick anew
        if ready and judged.job.tested.ready is not None:
            done = set(judged.job.tested.ready.body.items)
        self._ready = ready
        self.roll.show_items(items, done)
        self.caution.say(
            "Isolated and proved dead. The test stresses the insulation: nobody touches, a second person knows."
        )
        self._show_key()

    def _show_clips(self, judged: Judgement) -> None:
        """Draw the tester at the winding as it is asked for next."""
        target = self.session.target
        tested = list(target.ends) if target is not None and target.kind == "insulation" else []
        earths = self.session.setting.others == "earthed"
        joined, earthed = clips(judged.job.tags, judged.facts.wall.beside, tested, earths)
        told = f"{' '.join(joined) or 'all leads'} joined on the tester, frame earthed"
        if earthed:
            told += f", {' '.join(earthed)} earthed"
        many = len(joined) > MOST_LEADS
        drawn = draw_clips(
            [f"{joined[0]} to {joined[-1]}"] if many else joined or ["all leads"],
            earthed if len(earthed) <= MOST_LEADS else [f"{len(earthed)} leads"],
            self.session.setting.volt,
        )
        self.clips.show_whole(drawn, told)

    def _dew(self) -> str:
        s = self.session.under
        if s.air_c is None or s.humidity is None or s.at_c is None:
            return "With air and humidity the dew point is told."
        dew = dew_point(s.air_c, s.humidity)
        margin = self.session.settings.dew_margin.value
        words = f"Dew point {dew:.1f} °C"
        if s.at_c < dew + margin:
            return f"{words}: the winding is not {margin:g} K above it. Warm it first: it is wet, whatever it reads."
        return f"{words}, the winding well above it."

    def _ticked(self) -> None:
        self.session.told.emit("", "")  # what was still to be ticked
        self._show_key()

    def _show_key(self) -> None:
        left = self.roll.left
        self.key.setText("All of it is done · Enter" if not left else f"{len(left)} still to tick")
        self.key.setEnabled(not left)

    def log(self) -> None:
        """Log that all is ticked, under the initials of whoever is at the bench."""
        s = self.session
        if self.roll.still:
            s.told.emit(self.roll.still, "watch")
            return
        if s.under.at_c is None:
            s.told.emit("The winding's temperature first: the figure is corrected by it.", "watch")
            self.fields["temperature"].cell.setFocus()
            return
        s.record(
            TestReady(items=tuple(i.name for i in self.roll.items), volt=s.setting.volt),
            station="insulation",
        )

    # --- figures of the session -----------------------------------------------------------------

    def _told(self) -> None:
        self.session.target_changed.emit()
        if self.session.open is not None:
            self.show_judgement(self.session.open.judged)

    def _temperature(self, text: str) -> None:
        value = parse(text, Quantity.TEMPERATURE).value if text else None
        if value is not None and not -20 <= value <= 150:
            raise BadValue(text, "a winding between -20 and 150 °C")
        self.session.put_under(at_c=value)
        self._told()

    def _volt(self, text: str) -> None:
        value = parse(text, Quantity.VOLTAGE).value if text else 0.0
        if text and not 50 <= value <= 15000:
            raise BadValue(text, "test volts between 50 and 15000")
        self.session.put_under(volt=value)
        self._told()

    def _air(self, text: str) -> None:
        value = parse(text, Quantity.TEMPERATURE).value if text else None
        if value is not None and not -40 <= value <= 50:
            raise BadValue(text, "air between -40 and 50 °C")
        self.session.put_under(air_c=value)
        self._told()

    def _others(self, text: str) -> None:
        self.session.put_under(others=one_of(text, OTHERS))
        self._told()

    def _humidity(self, text: str) -> None:
        wanted = "a relative humidity of 1 to 100 %"
        value = figure(text, Quantity.SHARE, least=1, most=100, wanted=wanted) if text else None
        self.session.put_under(humidity=value)
        self._told()
