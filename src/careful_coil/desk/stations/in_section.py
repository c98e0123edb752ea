"""The motor in section above, the place that is chosen below it."""

from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.places import Place, places_of, shell_of
from careful_coil.core.stations import TITLES as SHOWN
from careful_coil.desk.mechanics.bearings import BearingsPart
from careful_coil.desk.session import Session
from careful_coil.desk.shared.section_view import SectionView
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.stations.together import Group, Together
from careful_coil.desk.theme import Theme

ENDS = ("drive", "other")
CALLED = {"feel": "felt-feel"}  # what Next calls a field that bears another name


class InSection(Together):
    """The parts of Mechanics that are places of the drawing."""

    lined = False

    def __init__(self, session: Session, theme: Theme, of: Group) -> None:
        self.view = SectionView(theme, "The motor in section")
        self.elsewhere = Prose(theme)
        self._session, self._away = session, ""
        super().__init__(session, theme, of)
        self.column.insertWidget(0, self.view)
        self.column.insertWidget(1, self.elsewhere)
        self.elsewhere.hide()
        self.view.chosen.connect(self._chosen)
        self.view.entered.connect(self._entered)

    @property
    def bearings(self) -> BearingsPart:
        """Return the part of the bearings."""
        return next(p for p in self.parts.values() if isinstance(p, BearingsPart))

    def step(self, by: int) -> bool:
        """Go to the place of this station after or before; False past the last one."""
        names = [p.name for p in self.view.places if p.part in self.parts]
        at = names.index(self._here()) + by if self._here() in names else 0
        if not 0 <= at < len(names):
            return False
        self.view.choose(names[at])
        self._entered(names[at])
        return True

    def open(self, name: str, judged: Judgement | None) -> None:
        """Open a part: its place is the one that is chosen."""
        self._away = ""
        super().open(name, judged)
        if judged is not None:
            self._show(judged)

    def show_judgement(self, judged: Judgement) -> None:
        """Show the places, and the one that is chosen."""
        self._show(judged)
        super().show_judgement(judged)

    def _here(self) -> str:
        """Return the place that is chosen."""
        if self._away:
            return self._away
        if self.now == BearingsPart.name:
            return self.bearings.end
        return next((p.name for p in self.view.places if p.part == self.now), "")

    def _show(self, judged: Judgement) -> None:
        kinds = judged.facts.kinds
        places, shell = places_of(judged.job, kinds, judged.findings), shell_of(judged.job, kinds)
        if not self.view.places:
            self.view.places = places
        self.view.show_places(places, shell, self._here(), self._asked(judged, places))

    def _asked(self, judged: Judgement, places: tuple[Place, ...]) -> str:
        """Return the place that Next asks for, empty where it asks for none here."""
        step = judged.next
        if step is None or step.station != "mechanics":
            return ""
        end = step.focus.partition("-")[0]
        if end in ENDS:
            return end
        field = CALLED.get(step.focus, step.focus)
        part = next((n for n, p in self.parts.items() if p.owns(field)), field)
        return next((p.name for p in places if p.part == part), "")

    def _chosen(self, name: str) -> None:
        """Show the place's part, or where it is looked at."""
        place = next(p for p in self.view.places if p.name == name)
        if place.part in self.parts:
            if name in ENDS:
                self.bearings.choose(name)
            self.open(place.part, None)
            self.part.again()
            self.elsewhere.hide()
            return
        self._away = name
        self.part.hide()
        at = (
            SHOWN[place.station] if place.station != "mechanics" else "the commutator's own drawing"
        )
        self.elsewhere.say(f"{place.title} is looked at in {at}: Enter goes there.")

    def _entered(self, name: str) -> None:
        """Put the cursor into the place, here or where it is looked at."""
        place = next(p for p in self.view.places if p.name == name)
        self._chosen(name)
        if place.station != "mechanics":
            self._session.station_wanted.emit(place.station, place.part)
        else:
            self.opened.emit(place.part)
