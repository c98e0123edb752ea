"""The one thread that writes: calls are answered in order, when their commit has answered."""

import queue
import threading
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any, TypeVar

from careful_coil.core.errors import CoilError, RecordsRefused
from careful_coil.core.settings import Settings

if TYPE_CHECKING:
    from careful_coil.records.store import Store

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Opened:
    """A shop that is open: its records, what closes them, which file they are in."""

    store: "Store"
    close: Callable[[], None]
    file: tuple[int, int] | None


class RecordsThread:
    """Opens the shop and runs calls on its store, one after the other.

    A shop that is thrown away is not `lasting`.
    """

    def __init__(self, folder: Path, settings: Settings, lasting: bool = True) -> None:
        self._folder, self._settings, self._lasting = folder, settings, lasting
        self._was_there = False  # then an empty folder is no new shop
        self._calls: queue.SimpleQueue[tuple[Callable[[Store], Any], Future[Any]] | None] = (
            queue.SimpleQueue()
        )
        self._thread = threading.Thread(target=self._work, name="records", daemon=True)

    def start(self) -> None:
        """Start; the shop is opened before the first call is answered."""
        self._thread.start()

    def ask(self, call: "Callable[[Store], T]") -> "Future[T]":
        """Queue a call. The future fails with RecordsRefused when it could not be done."""
        future: Future[T] = Future()
        self._calls.put((call, future))
        return future

    def close(self) -> None:
        """Finish what is queued and stop."""
        self._calls.put(None)
        if self._thread.is_alive():
            self._thread.join()

    def _work(self) -> None:
        # SQLAlchemy takes longer to import than the first paint: here it delays nothing
        from sqlalchemy.exc import SQLAlchemyError

        opened: Opened | CoilError = self._open()
        while (item := self._calls.get()) is not None:
            call, future = item
            opened = self._still(opened)
            if isinstance(opened, CoilError):
                future.set_exception(opened)
                continue
            try:
                future.set_result(call(opened.store))
            except CoilError as error:
                future.set_exception(error)
            except SQLAlchemyError as error:
                words = str(getattr(error, "orig", None) or error)
                future.set_exception(RecordsRefused(f"Not recorded: {words}. Nothing was changed."))
            except Exception as error:  # a bug must reach the caller, and the thread must live on
                future.set_exception(error)
        if not isinstance(opened, CoilError):
            opened.close()

    def _open(self) -> "Opened | CoilError":
        from careful_coil.records.shop import identity, open_shop
        from careful_coil.records.store import Store

        try:
            engine = open_shop(self._folder, self._lasting)
        except CoilError as error:
            return error
        self._was_there = True
        return Opened(Store(engine, self._settings), engine.dispose, identity(self._folder))

    def _still(self, opened: "Opened | CoilError") -> "Opened | CoilError":
        """Return the shop as it is now: a database that was moved away takes nothing, one that is back does."""
        from careful_coil.records.folder import SHOP_FILE
        from careful_coil.records.shop import identity

        now = identity(self._folder)
        if not isinstance(opened, CoilError) and now == opened.file and now is not None:
            return opened
        if not isinstance(opened, CoilError):
            self._settings = opened.store.settings
            opened.close()
        if self._was_there and (now is None or not (self._folder / SHOP_FILE).exists()):
            return RecordsRefused(
                f"The shop is not in {self._folder} any more: moved, deleted or not mounted. Nothing was "
                "recorded since; it goes on by itself when it is back."
            )
        return self._open()
