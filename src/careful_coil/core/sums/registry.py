"""The registry of bench sums: names for functions that live in the subjects."""

from collections.abc import Mapping

from careful_coil.core.errors import BadValue, NotKnownYet
from careful_coil.core.sums.condition_sums import CONDITION_SUMS
from careful_coil.core.sums.gear_sums import GEAR_SUMS
from careful_coil.core.sums.machine_sums import MACHINE_SUMS
from careful_coil.core.sums.mechanics_sums import MECHANICS_SUMS
from careful_coil.core.sums.model import Answer, Sum
from careful_coil.core.sums.power_sums import POWER_SUMS
from careful_coil.core.sums.rewind_sums import REWIND_SUMS
from careful_coil.core.sums.supply_sums import SUPPLY_SUMS

SUMS: dict[str, Sum] = {
    s.name: s
    for s in (
        *POWER_SUMS,
        *CONDITION_SUMS,
        *GEAR_SUMS,
        *MACHINE_SUMS,
        *MECHANICS_SUMS,
        *REWIND_SUMS,
        *SUPPLY_SUMS,
    )
}


def work_out(name: str, texts: Mapping[str, str]) -> Answer:
    """Return a sum worked out from texts by key.

    Raises: NotKnownYet for a name; BadValue for a key or text; ValueOutOfRange outside its domain.
    """
    if name not in SUMS:
        raise NotKnownYet(f"The sum “{name}”", ", ".join(SUMS))
    chosen = SUMS[name]
    keys = [i.key for i in chosen.inputs]
    for key in texts:
        if key not in keys:
            raise BadValue(key, ", ".join(keys), f"{name} has no such input.")
    told = {i.key: texts.get(i.key, "").strip() or i.usual for i in chosen.inputs}
    missing = [i for i in chosen.inputs if not told[i.key] and not i.optional]
    if missing:
        raise BadValue(
            "nothing", "; ".join(f"{i.key}: {i.wanted()}" for i in missing), f"{name} needs more."
        )
    inputs = {i.key: i.read(told[i.key]) for i in chosen.inputs if told[i.key]}
    results, notes = chosen.work(inputs)
    return Answer(sum=chosen, inputs=inputs, results=results, notes=notes)
