"""Insulation: coils, the wall tested over minutes and years, drying, earth bond, heat run."""

from careful_coil.desk.insulation.bond import BondPart
from careful_coil.desk.insulation.coils import CoilsPart
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.insulation.made import MadePart
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.insulation.test import TestPart
from careful_coil.desk.insulation.traces import TracesPart
from careful_coil.desk.insulation.years import YearsPart
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.heat_run import RisePart
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.theme import Theme

PARTS: tuple[type[Part], ...] = (
    CoilsPart,
    MadePart,
    ReadyPart,
    TestPart,
    YearsPart,
    DryingPart,
    BondPart,
    RisePart,
    TracesPart,
)


class InsulationPage(PartedPage):
    """The station; it opens at what comes next."""

    def __init__(self, session: Session, theme: Theme) -> None:
        caution = "Capacitors, electronics and sensors off first. A tested winding holds its charge: earth it."
        super().__init__(session, theme, "Insulation", caution, PARTS)

    def discharge(self) -> bool:
        """Start the countdown to earth, or tick it when it is over."""
        self.open_part("test")
        part = self.parts["test"]
        if isinstance(part, TestPart):
            part.discharge()
        return True

    def start(self) -> bool:
        """Begin at the part that the next step asks for, else where it was left."""
        step = self.judged.next if self.judged else None
        wanted = step.focus if step is not None and step.station == "insulation" else ""
        if not self.put_cursor(wanted):
            self.open_part(self.part.name)
        return True
