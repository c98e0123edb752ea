"""Earth bond: from stud or lead to frame and both end bells, before the covers and again after."""

from PySide6.QtWidgets import QWidget

from careful_coil.core.choices import one_of
from careful_coil.core.condition.appliance import is_tested
from careful_coil.core.condition.bond import limit_of, newest_bonds, places_left
from careful_coil.core.condition.typed import read_bonds
from careful_coil.core.job.at_insulation import BOND_PLACES, Covers, EarthBond
from careful_coil.core.ledger import Judgement
from careful_coil.core.values import show_ohm
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.flow import Flow
from careful_coil.desk.part import NARROWEST, Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.plot import Plot
from careful_coil.desk.shared.shown import Prose, Verdicts, finding_of, told_of
from careful_coil.desk.theme import Theme
from careful_coil.drawing.bench import draw_bond

YES_OR_NO = ("yes", "no")


class BondPart(Part):
    """The part of the earth bond."""

    kept = (
        "nulled",
        "wires",
        "cord",
    )
    name, title, remark = (
        "bond",
        "Earth bond",
        "stud or lead to bare metal; its colour proves nothing",
    )

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.nulled, self.wires, self.cord = True, 2, False
        self.drawn = Plot(theme, "The motor with its earth, and where the clip goes", 10)
        self.column.addWidget(self.drawn)
        self.words = Prose(theme)
        self.column.addWidget(self.words)
        self.add_field(
            "bond-ohm", "Ohms, in turn or all three", self._bond, "0.03/0.04/0.03", clears=True
        )
        grid = Flow(3, NARROWEST, theme)
        for name, label, commit, hint in (
            ("bond-wires", "Wires", self._wires, "2"),
            ("bond-nulled", "Test leads nulled", self._nulled, "yes"),
            ("bond-cord", "Through the cord", self._cord, "no"),
        ):
            grid.add(self.add_field(name, label, commit, hint, place=False))
        for name, words in (("wires", ("2", "4")), ("nulled", YES_OR_NO), ("cord", YES_OR_NO)):
            self.fields[f"bond-{name}"].cell.offer(words)
        self.column.addWidget(grid)
        self.add_sheet("earth", 1)
        self.key = EnterButton("The covers are on")
        self.key.clicked.connect(self._covers)
        self.column.addWidget(self.key)
        self.verdicts = Verdicts(theme)
        self.column.addWidget(self.verdicts)

    def start(self) -> QWidget:
        """Start at the ohms."""
        return self.fields["bond-ohm"].cell

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how the bond stands."""
        found = finding_of(judged, "earth-bond")
        mark, words = told_of(found, "not measured")
        return mark, words.removeprefix("earth bond ")

    def show_judgement(self, judged: Judgement) -> None:
        """Show each place with its ohms."""
        newest, left = newest_bonds(judged.job), places_left(judged.job)
        lines = []
        for place in BOND_PLACES:
            words = "not read"
            if place in newest:
                body = newest[place].body
                again = ", again after the covers" if place in left else ""
                limit = limit_of(body, self.session.settings).value
                words = f"{show_ohm(body.ohm)}, at most {limit:g} Ω{again}"
            lines.append(f"{place.capitalize()}: {words}")
        self.words.say("\n".join(lines))
        read: dict[str, str] = {
            p: show_ohm(newest[p].body.ohm) if p in newest and p not in left else ""
            for p in BOND_PLACES
        }
        self.drawn.show_whole(draw_bond(read, left[0] if left else ""), "; ".join(lines))
        self.fields["bond-wires"].show_text(str(self.wires))
        self.fields["bond-nulled"].show_text("yes" if self.nulled else "no")
        self.fields["bond-cord"].show_text("yes" if self.cord else "no")
        self.show_notes(judged)
        self.fields["earth-leakage"].setVisible(is_tested(judged.job, self.session.settings))
        on = judged.job.tested.covers >= 0
        self.key.setText("The covers came off again" if on else "The covers are on")
        self.verdicts.show_findings(
            [f for code in ("earth-bond", "appliance") if (f := finding_of(judged, code))]
        )

    def _bond(self, text: str) -> None:
        left = places_left(self.judged.job) if self.judged else ()
        bodies = [
            EarthBond(
                ohm=ohm,
                place=place,
                wires=4 if self.wires == 4 else 2,
                nulled=self.nulled,
                cord=self.cord,
                step_ohm=step,
            )
            for place, ohm, step in read_bonds(text, left)
        ]
        self.session.record(*bodies, station="insulation")

    def _covers(self) -> None:
        on = self.judged is not None and self.judged.job.tested.covers >= 0
        self.session.record(Covers(on=not on), station="insulation")

    def _wires(self, text: str) -> None:
        self.wires = int(one_of(text, ("2", "4")))

    def _nulled(self, text: str) -> None:
        self.nulled = one_of(text, YES_OR_NO) == "yes"

    def _cord(self, text: str) -> None:
        self.cord = one_of(text, YES_OR_NO) == "yes"
