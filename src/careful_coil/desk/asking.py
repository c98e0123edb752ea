"""Work that is done on other threads and answered on this one: records, judging, files."""

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QObject, Signal

from careful_coil.core.errors import CoilError, RecordsOvertaken
from careful_coil.records import RecordsThread

if TYPE_CHECKING:
    from careful_coil.records.store import Store

Done = Callable[[Any], None]
Failed = Callable[[str], None]


class _Bridge(QObject):
    """Brings answers of other threads to the interface thread."""

    arrived = Signal(object)


class Asking(QObject):
    """Asks other threads; what they refuse is told in words, and to who asked."""

    told = Signal(str, str)  # words, tone
    rested = Signal()  # nothing that a hand waits for is on its way any more
    overtaken = Signal(object)  # RecordsOvertaken: what others recorded in between

    def __init__(self, records: RecordsThread) -> None:
        super().__init__()
        self._records = records
        self._judges = ThreadPoolExecutor(max_workers=1, thread_name_prefix="judge")
        self._aside = ThreadPoolExecutor(max_workers=1, thread_name_prefix="aside")
        self._bridge = _Bridge()
        self._bridge.arrived.connect(self._arrived)
        self._waiting, self._behind = 0, 0

    @property
    def busy(self) -> bool:
        """Whether something a hand waits for is still on its way to disk or being worked out."""
        return self._waiting > self._behind

    @property
    def idle(self) -> bool:
        """Whether nothing at all is on its way, not even what is judged behind."""
        return self._waiting == 0

    def close(self) -> None:
        """Finish what is on its way, then stop."""
        self._judges.shutdown()
        self._aside.shutdown()
        self._records.close()

    def ask(
        self,
        call: "Callable[[Store], Any]",
        done: Done,
        failed: Failed | None = None,
        tell: bool = True,
    ) -> None:
        """Ask the shop's records, in turn; `done` gets the answer here, what is refused is told, or not."""
        self._then(self._records.ask(call), done, failed, tell)

    def ask_behind(self, call: "Callable[[Store], Any]", done: Done, failed: Failed) -> None:
        """Ask for something that nobody waits for."""
        self._behind += 1

        def answered(found: Any) -> None:
            self._behind -= 1
            done(found)

        def refused(words: str) -> None:
            self._behind -= 1
            failed(words)

        self.ask(call, answered, refused, tell=False)

    def aside(self, call: Callable[[], Any], done: Done, failed: Failed | None = None) -> None:
        """Do slow work off the interface thread; `done` gets its result here."""
        self._then(self._aside.submit(call), done, failed)

    def judging(self, call: Callable[[], Any], done: Done) -> None:
        """Work something out of a log, in turn; `done` gets its result here."""
        self._then(self._judges.submit(call), done)

    def _then(
        self, future: "Future[Any]", done: Done, failed: Failed | None = None, tell: bool = True
    ) -> None:
        self._waiting += 1
        future.add_done_callback(lambda f: self._bridge.arrived.emit((f, done, failed, tell)))

    def _arrived(self, answer: tuple["Future[Any]", Done, Failed | None, bool]) -> None:
        self._waiting -= 1
        try:
            self._answer(answer)
        finally:
            if not self.busy:
                self.rested.emit()

    def _answer(self, answer: tuple["Future[Any]", Done, Failed | None, bool]) -> None:
        future, done, failed, tell = answer
        error = future.exception()
        if isinstance(error, CoilError):
            if tell:
                self.told.emit(str(error), "hold")
            if isinstance(error, RecordsOvertaken):
                self.overtaken.emit(error)
            if failed is not None:
                failed(str(error))
            return
        done(future.result())
