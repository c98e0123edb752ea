"""The stations' pages, each made when it is first opened: a window shows its first one sooner."""

from collections.abc import Callable

from careful_coil.core.stations import Station
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Page
from careful_coil.desk.stations.connect import ConnectPage
from careful_coil.desk.stations.insulation import InsulationPage
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.stations.leads import LeadsPage
from careful_coil.desk.stations.mechanics import MechanicsPage
from careful_coil.desk.stations.release import ReleasePage
from careful_coil.desk.stations.start_gear import StartGearPage
from careful_coil.desk.stations.test_run import TestRunPage
from careful_coil.desk.stations.winding import WindingPage
from careful_coil.desk.theme import Theme

MAKE: dict[Station, Callable[[Session, Theme], Page]] = {
    "intake": IntakePage,
    "leads": LeadsPage,
    "insulation": InsulationPage,
    "start-gear": StartGearPage,
    "mechanics": MechanicsPage,
    "winding": WindingPage,
    "connect": ConnectPage,
    "test-run": TestRunPage,
    "release": ReleasePage,
}


class Pages(dict[Station, Page]):
    """Pages by station. One that is not there yet is made and handed to `made`; `values` are those made."""

    def __init__(
        self, session: Session, theme: Callable[[], Theme], made: Callable[[Page], None]
    ) -> None:
        super().__init__()
        self._session, self._theme, self._made = session, theme, made

    def __missing__(self, station: Station) -> Page:
        theme = self._theme()
        page = MAKE[station](self._session, theme)
        page.set_theme(theme)
        page.take_up()
        self[station] = page
        self._made(page)
        return page
