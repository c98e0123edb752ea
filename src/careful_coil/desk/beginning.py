"""How a window begins: the one question of an empty shop; who is at the bench, at the first entry."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt

from careful_coil.desk.theme import Theme
from careful_coil.desk.who import WhoCard

if TYPE_CHECKING:
    from careful_coil.desk.first import First
    from careful_coil.desk.window import Window


class Beginning:
    """What of a window is only there at its beginning."""

    def __init__(self, window: "Window") -> None:
        self._window = window
        self._first: First | None = None
        self._bare = False
        self.who = WhoCard(window.whole, window.theme)
        self.who.told.connect(self._named)
        window.session.who_wanted.connect(self._ask)
        window.session.jobs_changed.connect(self.show)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.who.set_theme(theme)
        if self._first is not None:
            self._first.set_theme(theme)

    @property
    def first(self) -> "First":
        """Return the question of an empty shop, made when it is first shown."""
        if self._first is None:
            from careful_coil.desk.first import First

            self._first = First(self._window.theme)
            self._first.offers.taken.connect(self._begin)
            self._window.stack.addWidget(self._first)
        return self._first

    def show(self) -> None:
        """Ask what is on the bench, in a shop that has no motor."""
        w = self._window
        if w.session.open is None and w.session.known and not w.session.summaries:
            w.stack.setCurrentWidget(self.first)
            self._show_rest(False)
            self.first.offers.setFocus(Qt.FocusReason.OtherFocusReason)

    def over(self) -> None:
        """Show what a motor is worked on with."""
        if self._bare:
            self._show_rest(True)

    def _show_rest(self, shown: bool) -> None:
        """Take away what cannot be used without a motor, or bring it back."""
        w, self._bare = self._window, not shown
        for part in (w.way, w.ledger, w.strip.line, w.strip.key):
            part.setVisible(shown)

    def _begin(self, what: str) -> None:
        if what == "demo":
            self._window.demo_wanted.emit()
        else:
            self._window.session.new_job(loose=what == "leads")

    def _ask(self) -> None:
        self.who.ask(self._window.room_above_strip(), self._window.focusWidget())

    def _named(self, initials: str) -> None:
        self._window.rack.who.setText(initials)
        self._window.session.named(initials)
