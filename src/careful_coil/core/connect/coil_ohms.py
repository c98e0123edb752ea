"""Ohms of each kind of coil: worked out, and as this meter shows them."""

from collections.abc import Mapping

from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Job


def shown_ohms(job: Job, found: Identification | None, naming: Naming) -> dict[str, float] | None:
    """Return the ohms of each kind of coil as this meter shows them.

    Test leads that nobody nulled or clipped together stay in: what is expected is what will be read.
    """
    if found is None or job.meter.lead_ohm is not None:
        return coil_ohms(found, naming)
    return _by_kind(found.best.shown_ohm, naming)


def coil_ohms(found: Identification | None, naming: Naming) -> dict[str, float] | None:
    """Return the mean ohms of each kind of coil, by kind; None where one has none."""
    return _by_kind(found.best.coil_ohm, naming) if found is not None else None


def _by_kind(own: Mapping[str, float], naming: Naming) -> dict[str, float] | None:
    if naming.network is None:
        return None
    kinds: dict[str, list[float]] = {}
    for c in naming.network.coils:
        kinds.setdefault(c.like, [])
        if c.name in own:
            kinds[c.like].append(own[c.name])
    if not all(kinds.values()):
        return None
    return {kind: sum(ohms) / len(ohms) for kind, ohms in kinds.items()}
