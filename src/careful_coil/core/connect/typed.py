"""What is typed at Connect, read: a wish, the supply's volts."""

from collections.abc import Sequence

from careful_coil.core.errors import BadValue
from careful_coil.core.job import Job
from careful_coil.core.job.entries import Supply
from careful_coil.core.sheets import Choice, pick
from careful_coil.core.units import Quantity
from careful_coil.core.values import parse


def read_wish(text: str, allowed: Sequence[str], known: Sequence[Choice] = ()) -> str:
    """Return a wish as kept, one of those allowed now. Raises: BadValue with the choices there are."""
    told = [c for c in known if c.word in allowed]
    told += [Choice(word=w) for w in allowed if w not in {c.word for c in told}]
    return pick(text, told)


def positive(text: str, quantity: Quantity) -> float:
    """Return a figure of a supply. Raises: BadValue."""
    value = parse(text, quantity).value
    if not 0 < value <= 20000:
        raise BadValue(text, "a figure above nothing, as on the supply")
    return value


def read_supply(text: str, job: Job) -> Supply:
    """Return the supply by its volts; hertz as said before, else the plate's. Raises: BadValue."""
    volt = positive(text, Quantity.VOLTAGE)
    hertz = job.supply.hertz if job.supply else (job.plate.hertz or 50.0)
    return Supply(volt=volt, hertz=hertz, phases=1 if job.plate.phases == 1 else 3)
