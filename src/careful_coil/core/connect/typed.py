"""What is typed at Connect, read: a wish, the supply's volts."""

from collections.abc import Sequence

from careful_coil.core.connect.dress import mm2_of
from careful_coil.core.errors import BadValue
from careful_coil.core.job import Job
from careful_coil.core.job.at_connect import Wished
from careful_coil.core.job.entries import Supply
from careful_coil.core.units import Quantity
from careful_coil.core.values import one_of, parse


def read_wish(field: str, text: str, choices: Sequence[str]) -> Wished:
    """Return a wish as typed; nothing takes it back. Raises: BadValue with the choices there are."""
    kept = text.strip().lower()
    if kept and field == "cable-mm2":
        if mm2_of(f"{kept.removesuffix('mm²').strip()} mm²") is None:
            raise BadValue(text, "the cable's mm², such as 2.5")
    elif kept:
        try:
            kept = one_of(kept, tuple(choices))
        except BadValue:
            raise BadValue(text, ", ".join(choices) + ", or nothing") from None
    return Wished.model_validate({"field": field, "text": kept})


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
