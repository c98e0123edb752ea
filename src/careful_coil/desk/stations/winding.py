"""Winding: the record beside the stator, what is worked out, coils and joints, made anew."""

from careful_coil.desk.rewind.anew import AnewPart
from careful_coil.desk.rewind.joints import JointsPart
from careful_coil.desk.rewind.likes import LikesPart
from careful_coil.desk.rewind.record import RecordPart
from careful_coil.desk.rewind.worked import WorkedPart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    RecordPart,
    WorkedPart,
    JointsPart,
    AnewPart,
    LikesPart,
)
CAUTION = (
    "Take it before stripping: nothing can be read afterwards. Old varnish and asbestos sleeving: no scraping "
    "dry, no burning out above 370 °C at the core, fumes away."
)


class WindingPage(PartedPage):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Winding", CAUTION, GROUPS)
        record, joints = self.parts["record"], self.parts["joints"]
        if isinstance(record, RecordPart) and isinstance(joints, JointsPart):
            record.stator.chosen.connect(joints.choose)
