"""What is laid over the bench, and away again: the handbook, the card of bench sums."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from careful_coil.desk.shared.page import Page
from careful_coil.desk.theme import Theme

if TYPE_CHECKING:
    from careful_coil.desk.handbook import Handbook
    from careful_coil.desk.sum_card import SumCard
    from careful_coil.desk.window import Window


class Reading:
    """The handbook and the sums of a window, each made when it is first wanted."""

    def __init__(self, window: "Window") -> None:
        self._window = window
        self._made: Handbook | None = None
        self._sum_card: SumCard | None = None
        self._back: QWidget | None = None

    @property
    def handbook(self) -> "Handbook":
        """Return the handbook, made when it is first opened."""
        if self._made is None:
            from careful_coil.desk.handbook import Handbook

            self._made = Handbook(self._window.theme)
            self._made.setParent(self._window.whole)
            self._made.left.connect(self.close)
            self._made.hide()
        return self._made

    @property
    def sum_card(self) -> "SumCard":
        """Return the card of bench sums, made when one is first wanted."""
        if self._sum_card is None:
            from careful_coil.desk.sum_card import SumCard

            w = self._window
            self._sum_card = SumCard(w.whole, w.session, w.theme)
            self._sum_card.set_theme(w.theme)
            self._sum_card.closed.connect(w.to_strip)
        return self._sum_card

    @property
    def open(self) -> bool:
        """Whether handbook or sums lie over the bench."""
        return any(p is not None and p.isVisible() for p in (self._made, self._sum_card))

    def unfold(self, name: str) -> None:
        """Open the card of a bench sum."""
        room = self._window.room_above_strip().adjusted(0, 60, 0, -20)
        self.sum_card.unfold(name, room)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        for part in (self._made, self._sum_card):
            if part is not None:
                part.set_theme(theme)

    def fit(self) -> None:
        """Lie over the bench, however large it is."""
        if self._made is not None:
            self._made.setGeometry(self._window.stack.geometry())

    def toggle(self) -> None:
        """Open the page of what is open, or go back to it."""
        if self._made is not None and self._made.isVisible():
            self.close()
            return
        w, book = self._window, self._laid()
        page = w.stack.currentWidget()
        on_bench = w.session.open is not None and isinstance(page, Page)
        book.open_at(
            w.session.station if on_bench else "", page.topic() if isinstance(page, Page) else ""
        )

    def words(self) -> None:
        """Say what the words mean that stand on the screen now, or go back to it."""
        if self._made is not None and self._made.isVisible():
            self.close()
            return
        from careful_coil.desk.words_here import page_of_words, texts, words_in

        here = words_in("\n".join(texts(self._window)))
        self._laid().show_words(page_of_words(here))

    def _laid(self) -> "Handbook":
        """Lay the handbook over the bench; what had the cursor gets it back."""
        self._back = self._window.focusWidget()
        book = self.handbook
        self.fit()
        book.show()
        book.raise_()
        return book

    def close(self) -> None:
        """Go back to the bench."""
        if self._made is not None:
            self._made.hide()
        if self._back is not None and self._back.isVisible():
            self._back.setFocus(Qt.FocusReason.OtherFocusReason)
