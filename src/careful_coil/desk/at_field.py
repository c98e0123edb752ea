"""Which field a value comes from while it is recorded: one that does not reach the disk goes back there."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

GiveBack = Callable[[str], None]
_from: ContextVar[GiveBack | None] = ContextVar("_from", default=None)


@contextmanager
def typed_in(give_back: GiveBack) -> Iterator[None]:
    """Let what is recorded meanwhile be given back, with the reason, where it is not kept."""
    token = _from.set(give_back)
    try:
        yield
    finally:
        _from.reset(token)


def giver() -> GiveBack | None:
    """Return what gives a value back to the field it is typed in; None where it is typed in none."""
    return _from.get()
