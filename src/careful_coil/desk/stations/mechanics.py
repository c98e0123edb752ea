"""Mechanics: shaft, bearings, brushes, commutator, leads and cord, temporaries, what was taken off."""

from careful_coil.desk.mechanics.assembly import AssemblyPart
from careful_coil.desk.mechanics.bars import BarsPart
from careful_coil.desk.mechanics.bearings import BearingsPart
from careful_coil.desk.mechanics.brushes import BrushesPart
from careful_coil.desk.mechanics.leads import LeadsPart
from careful_coil.desk.mechanics.open import OpenPart
from careful_coil.desk.mechanics.shaft import ShaftPart
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.theme import Theme

PARTS: tuple[type[Part], ...] = (
    ShaftPart,
    BearingsPart,
    BrushesPart,
    BarsPart,
    LeadsPart,
    OpenPart,
    AssemblyPart,
)
CAUTION = (
    "Unplugged and discharged before a hand goes in. Sharp fan, hot bearing, heavy rotor: two hands, and a second "
    "pair for what is heavy."
)


class MechanicsPage(PartedPage):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Mechanics", CAUTION, PARTS)

    def put_cursor(self, field: str) -> bool:
        """Fields of an end of the motor open that end: `drive-number`, `other-state`."""
        end, _, name = field.partition("-")
        bearings = self.parts["bearings"]
        if isinstance(bearings, BearingsPart) and end in ("drive", "other"):
            self.index.go(list(self.parts).index("bearings"))
            bearings.choose(end)
            return super().put_cursor(f"bearing-{name}")
        if field == "feel":
            self.open_part("shaft")
            return True
        return super().put_cursor(field)

    def start(self) -> bool:
        """Begin at the part that is open."""
        self.open_part(self.part.name)
        return True
