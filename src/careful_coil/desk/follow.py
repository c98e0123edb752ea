"""The cursor goes on with Next: where Enter answered what it asked, and it asks on at the same station."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QLineEdit, QWidget
from shiboken6 import isValid

from careful_coil.core.stations import Station

if TYPE_CHECKING:
    from careful_coil.core.ledger import NextStep

Asked = tuple[object, ...]


class Follow:
    """What Next asked when Enter was pressed, and where the cursor stood then.

    Nothing moves under a hand: not where something is typed meanwhile, nor where the cursor was put elsewhere.
    """

    def __init__(self, focus: Callable[[], QWidget | None]) -> None:
        self._focus = focus
        self._at: QWidget | None = None
        self._asked: Asked = ()

    def entered(self, step: "NextStep | None") -> None:
        """Remember what Next asks as something is entered."""
        self._at, self._asked = self._focus(), _asked(step)

    def on(self, step: "NextStep | None", station: Station) -> "NextStep | None":
        """Return the step to go on to now that the entry is judged, None where the cursor stays."""
        at, asked = self._at, self._asked
        listed = step is not None and asked[:2] == _asked(step)[:2]  # of a list, more is on its way
        self._at = at if listed else None
        if at is None or step is None or step.station != station or _asked(step) == asked:
            return None
        if not isValid(at) or not at.isVisible():
            return step  # what had the cursor is gone with the answer
        typing = isinstance(at, QLineEdit) and at.isModified() and at.text()
        return None if typing or at is not self._focus() else step


def _asked(step: "NextStep | None") -> Asked:
    return (step.code, step.focus, step.title, step.ends, step.why) if step is not None else ()
