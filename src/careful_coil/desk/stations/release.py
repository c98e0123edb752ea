"""Release: the gate and the signature, what is set aside, work on site, the papers."""

from careful_coil.desk.release.gate import GatePart
from careful_coil.desk.release.let_go import AsidePart
from careful_coil.desk.release.papers import PapersPart
from careful_coil.desk.release.site import SitePart
from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.theme import Theme

GROUPS: Groups = (
    GatePart,
    AsidePart,
    SitePart,
    PapersPart,
)
CAUTION = (
    "Nothing leaves with a question open: what is not proven is listed here, and who waived it."
)


class ReleasePage(PartedPage):
    """The station."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Release", CAUTION, GROUPS)
