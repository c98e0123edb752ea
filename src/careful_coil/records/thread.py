"""The one thread that writes: calls are answered in order, when their commit has answered."""

import queue
import threading
from collections.abc import Callable
from concurrent.futures import Future
from pathlib import Path
from typing import TYPE_CHECKING, Any, TypeVar

from careful_coil.core.errors import CoilError, RecordsRefused
from careful_coil.core.settings import Settings

if TYPE_CHECKING:
    from careful_coil.records.store import Store

T = TypeVar("T")


class RecordsThread:
    """Opens the shop and runs calls on its store, one after the other.

    A shop that is thrown away is not `lasting`.
    """

    def __init__(self, folder: Path, settings: Settings, lasting: bool = True) -> None:
        self._folder, self._settings, self._lasting = folder, settings, lasting
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

        from careful_coil.records.shop import open_shop
        from careful_coil.records.store import Store

        refused: CoilError | None = None
        store: Store | None = None
        try:
            engine = open_shop(self._folder, self._lasting)
            store = Store(engine, self._settings)
        except CoilError as error:
            refused = error
        while (item := self._calls.get()) is not None:
            call, future = item
            if store is None:
                future.set_exception(refused or RecordsRefused("The shop is not open."))
                continue
            try:
                future.set_result(call(store))
            except CoilError as error:
                future.set_exception(error)
            except SQLAlchemyError as error:
                words = str(getattr(error, "orig", None) or error)
                future.set_exception(RecordsRefused(f"Not recorded: {words}. Nothing was changed."))
            except Exception as error:  # a bug must reach the caller, and the thread must live on
                future.set_exception(error)
        if store is not None:
            engine.dispose()
