"""Intake: an index of what is to be kept before anything is touched, and the open part of it."""

from careful_coil.desk.intake.condition import ConditionPart
from careful_coil.desk.intake.counter import CounterPart
from careful_coil.desk.intake.diagram import DiagramPart
from careful_coil.desk.intake.hookup_found import HookupPart
from careful_coil.desk.intake.kind import KindPart
from careful_coil.desk.intake.leads_found import LeadsPart
from careful_coil.desk.intake.pictures import PicturesPart
from careful_coil.desk.intake.plate import PlatePart
from careful_coil.desk.intake.plug import PlugPart
from careful_coil.desk.intake.replacement import ReplacementPart
from careful_coil.desk.intake.worth import WorthPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.stations.together import Group
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    CounterPart,
    Group("Plate and kind", PlatePart, KindPart),
    Group("Leads and joints", LeadsPart, HookupPart, PlugPart, DiagramPart),
    ConditionPart,
    PicturesPart,
    Group("Worth it", WorthPart, ReplacementPart),
)


class IntakePage(PartedPage):
    """The station."""

    above = True  # the drawing of its looks has the whole width

    def __init__(self, session: Session, theme: Theme) -> None:
        caution = (
            "Isolate it, lock it out, prove it dead. Photograph the joints before anything is cut."
        )
        super().__init__(session, theme, "Intake", caution, GROUPS)
        counter = self.parts["counter"]
        if isinstance(counter, CounterPart):
            counter.stubs_wanted.connect(self.stubs_wanted)

    def start(self) -> bool:
        """Begin at the counter while the motor has no name."""
        if self.judged is None or self.judged.job.ticket.get("name"):
            return super().start()
        self.open_part("counter")
        return True
