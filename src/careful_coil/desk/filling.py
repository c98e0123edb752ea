"""How the window fills: a first look at the shop shows a job, then the records are opened and tell the rest."""

import time
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from careful_coil.desk.open_job import Record
from careful_coil.desk.session import SHOWN_AT_ONCE, Session

if TYPE_CHECKING:
    from careful_coil.documents.job import JobDocument
    from careful_coil.records.look import Look
    from careful_coil.records.store import Imported, Store

PAINTED_S = 0.05  # the job is on the screen before the records take their time
Make = Callable[[], "list[JobDocument]"]


def first_look(session: Session, make: "Make | None", then: Callable[[], None]) -> None:
    """Show the most urgent job of the shop, or the first of the documents made; `then` goes on."""

    def seen() -> "Look | None":
        from careful_coil.records.look import Look, look  # with what jobs are made of
        from careful_coil.records.rows import Log
        from careful_coil.records.summary import unjudged

        if make is None:
            try:
                return look(session.shop, SHOWN_AT_ONCE)
            except Exception:  # whatever is wrong there, the records tell it
                return None
        first = make()[0]
        count = len(first.entries)
        return Look([unjudged(first.id, first.number, "", count)], Log(list(first.entries), count))

    def shown(found: "Look | None") -> None:
        if found is None or found.log.damaged or session.open is not None:
            then()
            return
        first, log = found.summaries[0], found.log
        session.filled(found.summaries)
        session.show(first.id, first.number, Record(log.entries, log.seq, log.damaged))
        # in turn behind its judgement: the records open however that ends, and whatever is opened meanwhile
        session.judging(lambda: None, painted)

    def painted(_: None) -> None:
        session.aside(partial(time.sleep, PAINTED_S), lambda _: then())

    session.aside(seen, shown)


def load(session: Session, make: Make) -> None:
    """Take documents into the shop; the first is shown before the rest is in."""

    def some(store: "Store") -> "tuple[list[JobDocument], list[Imported]]":
        documents = make()
        return documents[1:], [store.take_in(d) for d in documents[:1]]

    def begun(answer: "tuple[list[JobDocument], list[Imported]]") -> None:
        rest, first = answer
        taken(first)
        session.ask(lambda store: [store.take_in(d) for d in rest], taken)

    def taken(found: "list[Imported]") -> None:
        for one in found:
            if one.number != one.wanted:
                words = f"Number {one.wanted} is taken: the job is {one.number} here."
                session.told.emit(words, "note")
        session.fill()

    session.ask(some, begun)
