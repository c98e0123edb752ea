"""Documents taken into a shop as it is opened: the demo's."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from careful_coil.desk.session import Session

if TYPE_CHECKING:
    from careful_coil.documents.job import JobDocument
    from careful_coil.records.store import Imported, Store


def load(session: Session, make: "Callable[[], list[JobDocument]]") -> None:
    """Take documents into the shop, made where it is opened; the first is shown before the rest is in."""

    def some(store: "Store") -> "tuple[list[JobDocument], list[Imported]]":
        documents = make()
        return documents[1:], [store.take_in(d) for d in documents[:1]]

    def begun(told: "tuple[list[JobDocument], list[Imported]]") -> None:
        rest, first = told
        taken(first)
        session.ask(lambda store: [store.take_in(d) for d in rest], taken)

    def taken(found: "list[Imported]") -> None:
        for one in found:
            if one.number != one.wanted:
                words = f"Number {one.wanted} is taken: the job is {one.number} here."
                session.told.emit(words, "note")
        session.fill()

    session.ask(some, begun)
