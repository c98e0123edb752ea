"""Connect: the supply, what is wanted, the change a joint at a time, proof before power, beyond the motor."""

from PySide6.QtCore import Qt

from careful_coil.desk.connect.beyond import BeyondPart
from careful_coil.desk.connect.card import CardPart
from careful_coil.desk.connect.change import ChangePart
from careful_coil.desk.connect.proof import ProofPart
from careful_coil.desk.connect.supply import SupplyPart
from careful_coil.desk.connect.what_if import WhatIfPart
from careful_coil.desk.connect.wish import WishPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.stations.together import Group
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    Group("Wanted", WishPart, SupplyPart),
    ChangePart,
    ProofPart,
    BeyondPart,
    WhatIfPart,
    CardPart,
)
CAUTION = (
    "Isolate, lock out, prove dead before the first cut, and again when it lapses. Supply work: qualified "
    "people only."
)
AT = {  # what the Next card asks for that is no field: its part
    "before-power": "proof",
    "turn-round": "proof",
    "voltage-tags": "beyond",
    "installer": "beyond",
    "step-ohm": "change",
}


class ConnectPage(PartedPage):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Connect", CAUTION, GROUPS)
        self.change.steps.chosen.connect(lambda _: self.joint_wanted.emit())

    def put_cursor(self, field: str) -> bool:
        """Open the part that what is asked for belongs to."""
        if field not in AT:
            return super().put_cursor(field)
        self.open_part(AT[field])
        part = self.part
        if field == "installer" and isinstance(part, BeyondPart):
            part.roll.setFocus(Qt.FocusReason.OtherFocusReason)
        if field == "turn-round" and isinstance(part, ProofPart):
            part.turn.setFocus(Qt.FocusReason.OtherFocusReason)
        return True

    @property
    def change(self) -> ChangePart:
        """Return the part of the joints."""
        return next(p for p in self.parts.values() if isinstance(p, ChangePart))

    def start(self) -> bool:
        """Begin where the next step is: a station opened for its joints shows them."""
        job = self.session.open
        step = job.judged.next if job else None
        if step is not None and step.station == "connect" and not step.focus:
            part = "proof" if step.act in ("line", "low-run") else "change"
            self.turn_to(part)
            return False
        return super().start()
