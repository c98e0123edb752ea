"""What on the shelf serves for a capacitor, and what must not be used."""

from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from careful_coil.core.condition.checklist import may_have_capacitor
from careful_coil.core.errors import BadValue, CoilError
from careful_coil.core.gear.capacitor_rules import apart_of, capacitor_of
from careful_coil.core.gear.shelf import Item, Offer, Wanted, offers_for
from careful_coil.core.gear.shelf_list import COLUMNS, read_shelf
from careful_coil.core.gear.typed import size_of
from careful_coil.core.ledger import Judgement
from careful_coil.desk.part import Part
from careful_coil.desk.session import Session
from careful_coil.desk.shared.files import MOST_NAME, read_file
from careful_coil.desk.shared.page import Heading
from careful_coil.desk.shared.shown import Prose
from careful_coil.desk.theme import Theme
from careful_coil.records.shop_shelf import FILE, keep_shelf, shelf_of

OFFERS, REFUSED = 5, 5


class ShelfPart(Part):
    """The part that finds a replacement on the shop's shelf."""

    kept = ("chosen",)
    changed = Signal()  # another list is there
    name, title, remark = "shelf", "Shelf", "what serves in its place, the best first"

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.items: tuple[Item, ...] = ()
        self.why, self._asked = "", False
        self.add_field("shelf-for", "For which capacitor", self._for, "C1")
        self.chosen = ""
        self.words = Prose(theme, "quiet", 13)
        self.offers, self.not_these = Prose(theme), Prose(theme)
        self.head = Heading("Not these", theme, rule=True)
        for part in (self.words, self.offers, self.head, self.not_these):
            self.column.addWidget(part)
        self.column.addWidget(Heading("The shop's list", theme, rule=True))
        self.add_field(
            "shelf-file",
            "Take a list in: a CSV of " + ", ".join(COLUMNS),
            self._take_in,
            "shelf.csv",
            clears=True,
            most=MOST_NAME,
        )
        self.add_field(
            "shelf-out", "Write the list to a file", self._write, "shelf.csv", True, most=MOST_NAME
        )

    def start(self) -> QWidget:
        """Start at the capacitor."""
        return self.fields["shelf-for"].cell

    def wanted(self, judged: Judgement) -> bool:
        """Whether it may have a capacitor."""
        plate = judged.job.plate.printed("capacitor")
        return may_have_capacitor(judged.facts.kinds, judged.job.gear.capacitors, plate)

    def told(self, judged: Judgement) -> tuple[str, str]:
        """Return how many the shelf has."""
        if not self._asked:
            return "", "the shop's own list"
        return "", f"{len(self.items)} on the shelf" if self.items else "no list yet"

    def show_judgement(self, judged: Judgement) -> None:
        """Show what serves for the chosen capacitor."""
        self.load()
        names = list(judged.job.gear.capacitors)
        if self.chosen not in names:
            self.chosen = names[0] if names else ""
        self.fields["shelf-for"].show_text(self.chosen)
        self._show()

    def load(self) -> None:
        """Read the shop's list, once."""
        if not self._asked:
            self._asked = True
            self.session.aside(lambda: shelf_of(self.session.shop), self._have)

    def _have(self, found: tuple[tuple[Item, ...], str]) -> None:
        self.items, self.why = found
        self._show()
        self.changed.emit()

    def _show(self) -> None:
        offers, refused, words = self._offers()
        self.words.say(" ".join(w for w in (words, self.why) if w))
        self.offers.say(
            "\n".join(f"{n}. {offer_words(o)}" for n, o in enumerate(offers[:OFFERS], 1))
        )
        self.head.setVisible(bool(refused))
        self.not_these.say("\n".join(refused[:REFUSED]))

    def _offers(self) -> tuple[tuple[Offer, ...], list[str], str]:
        judged = self.judged
        if judged is None or not self.chosen:
            return (), [], "No capacitor is noted yet."
        settings = self.session.settings
        marking, _ = capacitor_of(judged.job.gear, self.chosen, settings)
        if marking is None:
            return (), [], f"{self.chosen} has no marking yet."
        told = judged.job.gear.capacitors[self.chosen]
        serves = told.get("serves", "") or marking.kind
        below, above, off = apart_of(settings)
        apart = (off, off) if serves == "run" else (below, above)
        wide, long = size_of(told.get("size", ""))
        try:
            wanted = Wanted.like(
                marking, *apart, wide, long, kind="run" if serves == "run" else "start"
            )
        except CoilError as error:
            return (), [], str(error)
        found, refused = offers_for(wanted, self.items)
        words = (
            f"Wanted: {wanted.kind}, {wanted.low:.4g} to {wanted.high:.4g} µF, at least "
            f"{wanted.volt:.0f} V."
        )
        if not found:
            words += " Nothing on the shelf serves." if self.items else " Take a list in below."
        return found, [f"{r.item.tag}: {r.why}" for r in refused], words

    def _for(self, text: str) -> None:
        names = list(self.judged.job.gear.capacitors) if self.judged else []
        name = text.strip().upper()
        if name not in names:
            raise BadValue(text, ", ".join(names) or "a capacitor noted at Capacitors first")
        self.chosen = name
        self._show()

    def _take_in(self, text: str) -> None:
        if not text.strip():
            return
        items = read_shelf(read_file(text))
        shop = self.session.shop

        def kept(_: None) -> None:
            self._have((items, ""))

        self.session.aside(lambda: keep_shelf(shop / FILE, items), kept, self._failed)

    def _write(self, text: str) -> None:
        if not text.strip():
            return
        file, items = Path(text.strip().strip("'\"")).expanduser(), self.items
        if file.is_dir() or file.suffix.lower() != ".csv":
            raise BadValue(text, "the name of a file that ends in .csv")

        def kept(_: None) -> None:
            self.words.say(f"Written: {file}")

        self.session.aside(lambda: keep_shelf(file, items), kept, self._failed)

    def _failed(self, words: str) -> None:
        self.words.say(words)


def offer_words(offer: Offer) -> str:
    """Return an offer in a line."""
    tags = " and ".join(i.tag for i in offer.items)
    return f"{tags}: {'; '.join(offer.reasons)}, {offer.volt:.0f} V"
