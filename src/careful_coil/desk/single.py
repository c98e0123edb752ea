"""One window a shop: a second start hands over its files, raises the first window and ends."""

import hashlib
import json
import os
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QObject

WAIT_MS = 2000  # for a window that is busy
LONGEST = 65536  # bytes of what a second start may say


def meeting_place(shop: Path) -> Path:
    """Return the socket of a shop's window: of this user alone, by the shop's own path."""
    base = os.environ.get("XDG_RUNTIME_DIR", "") or tempfile.gettempdir()
    name = hashlib.sha256(f"{os.getuid()} {shop.resolve()}".encode()).hexdigest()[:16]
    return Path(base) / f"careful-coil-{name}"


def hand_over(shop: Path, files: Sequence[str]) -> bool:
    """Raise the window that is open on a shop and give it the files; False where none answers."""
    place = meeting_place(shop)
    if not place.exists():
        return False  # what speaks to it is loaded only where somebody may be there
    from PySide6.QtNetwork import QLocalSocket

    socket = QLocalSocket()
    socket.connectToServer(str(place))
    if not socket.waitForConnected(WAIT_MS):
        place.unlink(missing_ok=True)  # of a window that ended without leaving
        return False
    socket.write(json.dumps({"open": [str(Path(f).resolve()) for f in files]}).encode())
    told = socket.waitForBytesWritten(WAIT_MS)
    socket.disconnectFromServer()
    return bool(told)


class Door(QObject):
    """What a second start speaks to; `opened` gets its files."""

    def __init__(self, parent: QObject, shop: Path, opened: Callable[[list[str]], None]) -> None:
        super().__init__(parent)
        from PySide6.QtNetwork import QLocalServer

        self._opened = opened
        self._server = QLocalServer(self)
        self._server.setSocketOptions(QLocalServer.SocketOption.UserAccessOption)
        self._server.newConnection.connect(self._visited)
        self.there = self._server.listen(str(meeting_place(shop)))

    def close(self) -> None:
        """Take it away."""
        self._server.close()

    def _visited(self) -> None:
        socket = self._server.nextPendingConnection()
        said = bytearray()

        def more() -> None:
            said.extend(socket.readAll().data())
            if len(said) > LONGEST:
                socket.abort()

        def left() -> None:
            more()
            socket.deleteLater()
            self._opened(files_in(bytes(said)))

        socket.readyRead.connect(more)
        socket.disconnected.connect(left)


def files_in(said: bytes) -> list[str]:
    """Return the files that a second start names; none where it says anything else."""
    try:
        told = json.loads(said)
    except ValueError:
        return []
    files = told.get("open") if isinstance(told, dict) else None
    return [f for f in files if isinstance(f, str)] if isinstance(files, list) else []
