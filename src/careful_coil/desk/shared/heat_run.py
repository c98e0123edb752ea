"""Temperature rise by resistance: cold ohms, ohms while it cools, carried back to switching off."""

from functools import partial

from careful_coil.core.condition.typed import COOLING_WANTED, read_cooling
from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_insulation import HeatRun
from careful_coil.core.ledger import Judgement
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part, Row
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Caution
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme

FIELDS: tuple[Row, ...] = (
    ("cold-ohm", "Cold, Ω", "5.20"),
    ("cold-c", "Cold at, °C", "21"),
    ("run-air-c", "Air at the end, °C", "24"),
)


class RisePart(Part):
    """The part of a heat run."""

    name, title, remark = "rise", "Heat run", "read the same pair cold and hot"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.column.addWidget(
            Caution(
                "Supply at zero, locked and seen as zero before a clip goes on; the shaft stands.",
                theme,
            )
        )
        grid = Flow(3, NARROWEST, theme)
        for name, label, hint in FIELDS:
            check = partial(self._check, name)
            grid.add(self.add_field(name, label, check, hint, holds=True, place=False))
        self.column.addWidget(grid)
        wanted = COOLING_WANTED[0].upper() + COOLING_WANTED[1:]
        self.add_field("hot", wanted, self._hot, "30 6.12; 60 6.05; 90 5.99", holds=True)
        self.key = EnterButton("Log the heat run")
        self.key.clicked.connect(self._log)
        self.column.addWidget(self.key)
        self.said = Prose(theme)
        self.column.addWidget(self.said)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)
        self._metal = "copper"

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return what the newest run says."""
        return told_of(finding_of(judged, "temperature-rise"), "none")

    def show_judgement(self, judged: Judgement) -> None:
        """Show the newest run."""
        self._metal = judged.facts.wall.metal
        self.verdicts.show_findings([finding_of(judged, "temperature-rise")])
        runs = judged.job.tested.heat_runs
        if runs:
            body = runs[-1].body
            for name, value in (
                ("cold-ohm", body.cold_ohm),
                ("cold-c", body.cold_c),
                ("run-air-c", body.air_c),
            ):
                self.fields[name].show_text(f"{value:g}")
            self.fields["hot"].show_text("; ".join(f"{s:g} {r:g}" for s, r in body.hot))
        else:
            self.fields["cold-ohm"].show_text(self.cold(judged))

    def opened(self) -> None:
        """Say nothing of another motor's run."""
        self.said.say("")

    def cold(self, judged: Judgement) -> str:
        """Return the cold ohms that are known already, empty where they are typed."""
        return ""

    def _check(self, name: str, text: str) -> None:
        if text:
            value = parse(text, Quantity.RESISTANCE if name == "cold-ohm" else Quantity.TEMPERATURE)
            if value.number is None or (name == "cold-ohm" and value.value <= 0):
                raise BadValue(text, "a figure")

    def _hot(self, text: str) -> None:
        if text:
            read_cooling(text)

    def _log(self) -> None:
        told = {
            n: self.fields[n].cell.text().strip()
            for n in ("cold-ohm", "cold-c", "run-air-c", "hot")
        }
        try:
            missing = next((n for n, text in told.items() if not text), None)
            if missing is not None:
                raise BadValue("nothing", f"{self.fields[missing].label.text().lower()} first")
            body = HeatRun.model_validate(
                {
                    "cold_ohm": parse(told["cold-ohm"], Quantity.RESISTANCE).value,
                    "cold_c": _celsius(told["cold-c"], 200.0),
                    "air_c": _celsius(told["run-air-c"], 50.0),
                    "hot": read_cooling(told["hot"]),
                    "metal": self._metal,
                }
            )
        except BadValue as error:
            self.said.say(str(error))
            return
        self.said.say("")
        for name in told:
            self.fields[name].drop()
        self.session.record(body, station="insulation")


def _celsius(text: str, most: float) -> float:
    value = parse(text, Quantity.TEMPERATURE).value
    if not -40 <= value <= most:
        raise BadValue(text, f"between -40 and {most:g} °C")
    return value
