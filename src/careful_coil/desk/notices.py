"""A timer that ends, a stop rule, a finished paper while the window is elsewhere: the desktop says it too.

Never the only sign: each stands in the window as well.
"""

from collections.abc import Callable
from typing import Any

from PySide6.QtWidgets import QApplication, QWidget

from careful_coil.desk.session import Session

Send = Callable[[str, bool], None]  # words, whether they are urgent
SERVICE, PATH, FACE = (
    "org.freedesktop.Notifications",
    "/org/freedesktop/Notifications",
    "org.freedesktop.Notifications",
)
FOR_MS = 10_000
URGENT = 2  # of the Desktop Notifications Specification 1.2: kept until it is seen


class Notices:
    """What the desktop is told while a window is not in front."""

    def __init__(self, window: QWidget, session: Session, send: Send | None = None) -> None:
        self._window, self._clock, self._send = window, session.clock, send or to_desktop
        session.alarm.connect(lambda words: self.say(words, urgent=True))
        session.clock.beeped.connect(self._due)

    def _due(self, mark: float) -> None:
        """Tell that a figure is due, or the earth may come off."""
        timed = self._clock.testing
        self.say(f"{mark:g} s: type the figure." if timed else "The time to earth is over.")

    def say(self, words: str, urgent: bool = False) -> None:
        """Tell the desktop, unless the window is in front."""
        if words and not self._window.isActiveWindow():
            QApplication.alert(self._window)
            self._send(words, urgent)


def to_desktop(words: str, urgent: bool) -> None:
    """Send a notification over the session's bus; where there is none nothing is sent."""
    from PySide6.QtDBus import (  # only once there is something to say
        QDBusConnection,
        QDBusInterface,
    )

    bus = QDBusConnection.sessionBus()
    if not bus.isConnected():
        return
    service = QDBusInterface(SERVICE, PATH, FACE, bus)
    if not service.isValid():
        return
    hints: dict[str, Any] = {"urgency": URGENT} if urgent else {}
    told = ["Careful Coil", 0, "careful-coil", "Careful Coil", words, [], hints, FOR_MS]
    service.asyncCallWithArgumentList("Notify", told)
