"""Start gear: why it will not start, capacitors, the shelf, switches and relays, wiring, fitting, curves."""

from careful_coil.desk.gear.become import BecomePart
from careful_coil.desk.gear.capacitors import CapacitorsPart
from careful_coil.desk.gear.curves import CurvesPart
from careful_coil.desk.gear.devices import DevicesPart
from careful_coil.desk.gear.fitting import FittingPart
from careful_coil.desk.gear.shelf import ShelfPart
from careful_coil.desk.gear.unknown import UnknownPart
from careful_coil.desk.gear.why import WhyPart
from careful_coil.desk.gear.wiring import WiringPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.stations.together import Group
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    WhyPart,
    Group("Capacitors", CapacitorsPart, UnknownPart, ShelfPart),
    DevicesPart,
    WiringPart,
    FittingPart,
    Group("This motor", CurvesPart, BecomePart),
)


class StartGearPage(PartedPage):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        caution = (
            "A capacitor holds its charge: discharge it through a resistor, prove it with a meter, leave the "
            "resistor on while you handle it."
        )
        super().__init__(session, theme, "Start gear", caution, GROUPS)
        shelf, unknown = self.parts["shelf"], self.parts["unknown"]
        for part in self.parts.values():
            if isinstance(part, ShelfPart | CurvesPart):
                part.changed.connect(self._retell)
        if isinstance(shelf, ShelfPart) and isinstance(unknown, UnknownPart):
            shelf.changed.connect(lambda: unknown.take(shelf.items))
            self.turned.connect(shelf.load)

    def _retell(self) -> None:
        self.again()
