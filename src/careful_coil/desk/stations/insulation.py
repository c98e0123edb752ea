"""Insulation: coils, the wall tested over minutes and years, drying, earth bond, heat run."""

from careful_coil.desk.insulation.bond import BondPart
from careful_coil.desk.insulation.coils import CoilsPart
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.insulation.made import MadePart
from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.insulation.test import TestPart
from careful_coil.desk.insulation.traces import TracesPart
from careful_coil.desk.insulation.years import YearsPart
from careful_coil.desk.session import Session
from careful_coil.desk.shared.heat_run import RisePart
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.stations.together import Group
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    Group("Coils", CoilsPart, RisePart),
    Group("Before the test", ReadyPart, MadePart),
    Group("The test", TestPart, TracesPart),
    YearsPart,
    DryingPart,
    BondPart,
)


class InsulationPage(PartedPage):
    """The station; it opens at what comes next."""

    def __init__(self, session: Session, theme: Theme) -> None:
        caution = "Capacitors, electronics and sensors off first. A tested winding holds its charge: earth it."
        super().__init__(session, theme, "Insulation", caution, GROUPS)

    def discharge(self) -> bool:
        """Start the countdown to earth, or tick it when it is over."""
        self.open_part("test")
        part = self.parts["test"]
        if isinstance(part, TestPart):
            part.discharge()
        return True
