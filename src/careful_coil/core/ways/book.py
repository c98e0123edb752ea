"""Every hookup of a winding, and joints made alike whichever line goes where."""

from collections.abc import Iterable, Sequence

from careful_coil.core.ways.devices import Device
from careful_coil.core.ways.single_phase import single_phase
from careful_coil.core.ways.three_contactors import contacted
from careful_coil.core.ways.three_phase import three_phase
from careful_coil.core.ways.way import LINES, Plan
from careful_coil.core.winding.arrangements import arrangement


def plans_of(slug: str, variant: str = "", devices: Sequence[Device] = ()) -> tuple[Plan, ...]:
    """Return every hookup of an arrangement with these devices, lower volts first.

    Raises: NotKnownYet; CannotPlace for devices that no rule knows a place for.
    """
    arrangement(slug).inside(variant)
    three = three_phase(slug, variant)
    if three:
        return contacted(three, devices) if devices else three
    return single_phase(slug, variant, devices)


def unlined(joints: Iterable[Iterable[str]]) -> frozenset[frozenset[str]]:
    """Return joints with all lines called alike; lone leads are left out."""
    return frozenset(
        frozenset("L" if n in LINES else n for n in j) for j in joints if len(set(j)) > 1
    )
