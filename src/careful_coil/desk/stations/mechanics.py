"""Mechanics: the motor in section with its places, commutator, what was taken off, what is left on it."""

from careful_coil.desk.mechanics.assembly import AssemblyPart
from careful_coil.desk.mechanics.bars import BarsPart
from careful_coil.desk.mechanics.bearings import BearingsPart
from careful_coil.desk.mechanics.brushes import BrushesPart
from careful_coil.desk.mechanics.felt import FanPart, SealsPart, ShaftPart, ShieldsPart
from careful_coil.desk.mechanics.leads import LeadsPart
from careful_coil.desk.mechanics.open import OpenPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.in_section import CALLED, ENDS, InSection
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.stations.together import Group, Together
from careful_coil.desk.theme import Theme

PLACES = Group(
    "The motor",
    ShaftPart,
    BearingsPart,
    FanPart,
    SealsPart,
    ShieldsPart,
    LeadsPart,
    BrushesPart,
)
GROUPS: Groups = (PLACES, BarsPart, AssemblyPart, OpenPart)
CAUTION = (
    "Unplugged and discharged before a hand goes in. Sharp fan, hot bearing, heavy rotor: two hands, and a second "
    "pair for what is heavy."
)


class MechanicsPage(PartedPage):
    """The station."""

    above = True  # the drawing has the whole width

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Mechanics", CAUTION, GROUPS)

    def gather(self, group: Group) -> Together:
        """Return the places in their drawing, the rest as it is."""
        if group is PLACES:
            return InSection(self.session, self.theme, group)
        return super().gather(group)

    @property
    def places(self) -> InSection:
        """Return the motor in section."""
        return next(g for g in self.groups if isinstance(g, InSection))

    def step(self, by: int) -> None:
        """Go to the next place of the drawing, from the last one to the next part."""
        if not (self.group is self.places and self.places.step(by)):
            super().step(by)

    def put_cursor(self, field: str) -> bool:
        """Fields of an end of the motor open that end: `drive-number`, `other-state`."""
        end = field.partition("-")[0]
        if end in ENDS:
            self.places.bearings.choose(end)
        return super().put_cursor(self.called(field))

    def called(self, focus: str) -> str:
        """Return the name of the field: one of an end is the same at both."""
        end, _, name = focus.partition("-")
        return f"bearing-{name}" if end in ENDS and name else CALLED.get(focus, focus)

    def mark_next(self, focus: str) -> None:
        """Mark a field of a bearing only while its own end is shown."""
        end = focus.partition("-")[0]
        other = end in ENDS and end != self.places.bearings.end
        super().mark_next("bearings" if other else focus)
