"""Cleaning and drying: logged acts, and a damp winding's campaign over days."""

from functools import partial

from PySide6.QtWidgets import QWidget

from careful_coil.core.condition.later_rules import campaign_of
from careful_coil.core.errors import BadValue
from careful_coil.core.figures import figure
from careful_coil.core.job.at_insulation import DryingRun, Work
from careful_coil.core.ledger import Judgement
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import Field
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.curve import draw_drying

WORKS = ("cleaned", "dried", "varnished", "rewound", "leads renewed")


class DryingPart(Part):
    """The part of work on the winding."""

    name, title, remark = "drying", "Clean and dry", "any work makes an earlier test void"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.caution = Caution("", theme)
        self.column.addWidget(self.caution)
        self.plot = Plot(theme, "Insulation while it dries", 250)
        self.column.addWidget(self.plot)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self.hint = Prose(theme)
        self.column.addWidget(self.hint)
        grid = Flow(3, NARROWEST, theme)
        for name, label, hint in (
            ("method", "How", "oven, vents open"),
            ("hours", "Hours", "20"),
            ("work-c", "At, °C", "80"),
        ):
            grid.add(self._held(name, label, hint))
        self.column.addWidget(grid)
        self.column.addWidget(self._held("out", "Out, or kept cool", "bearings, seals"))
        keys = Flow(3, 0)
        self.campaign = EnterButton("Begin drying")
        self.campaign.clicked.connect(self._campaign)
        keys.add(self.campaign)
        self.works: dict[str, EnterButton] = {}
        for what in WORKS:
            key = EnterButton(what.capitalize())
            key.setAccessibleName(f"Record: {what}")
            key.clicked.connect(partial(self._work, what))
            keys.add(key)
            self.works[what] = key
        self.column.addWidget(keys)
        self._open = False

    def start(self) -> QWidget:
        """Start at how it is done."""
        return self.fields["method"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return where the campaign stands, or what was done last."""
        found = finding_of(judged, "drying-heat", "drying-rate", "drying")
        if found is not None:
            return told_of(found, "")
        works = judged.job.work
        return "", works[-1] if works else "nothing done"

    def show_judgement(self, judged: Judgement) -> None:
        """Show the campaign with its readings, and the limits."""
        settings = self.session.settings
        found = campaign_of(judged.job, judged.facts.wall, settings)
        run = judged.job.tested.campaign()
        self._open = run is not None and run[1] is None
        self.campaign.setText("End drying" if self._open else "Begin drying")
        self.plot.setVisible(found is not None)
        begin = "Begin drying, then test every few hours while it is hot: each reading is corrected and drawn here."
        self.hint.say(begin if found is None else "")
        self.caution.say(
            f"At most {settings.drying_hottest.value:g} °C at the winding and {settings.drying_rate.value:g} K "
            "an hour while wet, vents open; sealed bearings, capacitors and seals out. The maker's figures win."
        )
        if found is not None:
            state, readings = found
            told = [(r.hour, r.megohm, r.at_c) for r in readings if r.megohm]
            self.plot.draw(partial(draw_drying, told, judged.facts.wall.minimum), state.why)
        codes = ("drying", "drying-out", "drying-heat", "drying-rate")
        works = [f for f in judged.findings if f.code.startswith("work-")]
        self.verdicts.show_findings([*(finding_of(judged, c) for c in codes), *works])

    def _held(self, name: str, label: str, hint: str) -> Field:
        """Return a field whose text is held until a key logs it."""
        check = partial(_check, name)
        return self.add_field(name, label, check, hint, holds=True, place=False)

    def _text(self, name: str) -> str:
        text = self.fields[name].cell.text().strip()
        _check(name, text)
        return text

    def _work(self, what: str) -> None:
        try:
            hours, at_c = self._text("hours"), self._text("work-c")
        except BadValue:
            return  # it stands under the field
        body = Work.model_validate(
            {
                "what": what,
                "method": self._text("method"),
                "hours": _hours(hours) if hours else None,
                "at_c": parse(at_c, Quantity.TEMPERATURE).value if at_c else None,
            }
        )
        self.session.record(body, station="insulation")
        self._clear()

    def _campaign(self) -> None:
        out = tuple(w.strip() for w in self._text("out").split(",") if w.strip())
        act = "end" if self._open else "begin"
        body = DryingRun.model_validate({"act": act, "method": self._text("method"), "out": out})
        self.session.record(body, station="insulation")
        self._clear()

    def _clear(self) -> None:
        for field in self.fields.values():
            field.drop()


def _check(name: str, text: str) -> None:
    """Raise BadValue for hours or °C that cannot be."""
    if name == "hours" and text:
        _hours(text)
    if name == "work-c" and text:
        parse(text, Quantity.TEMPERATURE)


def _hours(text: str) -> float:
    return figure(text, Quantity.TIME, unit="h", most=10000, wanted="hours, for example 20")
