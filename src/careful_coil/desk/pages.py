"""The stations' pages, each made when it is first opened: a window shows its first one sooner."""

from collections.abc import Callable
from importlib import import_module

from careful_coil.core.stations import Station
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Page
from careful_coil.desk.theme import Theme

PAGES: dict[Station, str] = {  # each in the module of its station's name
    "intake": "IntakePage",
    "leads": "LeadsPage",
    "insulation": "InsulationPage",
    "start-gear": "StartGearPage",
    "mechanics": "MechanicsPage",
    "winding": "WindingPage",
    "connect": "ConnectPage",
    "test-run": "TestRunPage",
    "release": "ReleasePage",
}


def page_of(station: Station) -> Callable[[Session, Theme], Page]:
    """Return what makes a station's page; its module is loaded when it is first opened."""
    module = import_module(f"careful_coil.desk.stations.{station.replace('-', '_')}")
    made: Callable[[Session, Theme], Page] = getattr(module, PAGES[station])
    return made


class Pages(dict[Station, Page]):
    """Pages by station. One that is not there yet is made and handed to `made`; `values` are those made."""

    def __init__(
        self, session: Session, theme: Callable[[], Theme], made: Callable[[Page], None]
    ) -> None:
        super().__init__()
        self._session, self._theme, self._made = session, theme, made

    def __missing__(self, station: Station) -> Page:
        theme = self._theme()
        page = page_of(station)(self._session, theme)
        page.set_theme(theme)
        page.take_up()
        self[station] = page
        self._made(page)
        return page
