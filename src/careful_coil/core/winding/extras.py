"""What may come out of a motor besides its winding: sensors, heater, tachometer, protector.

Usual cold ohms: bimetal and contacts near zero; PTC thermistors 20–250 Ω each (IEC 60034-11), three
in series; platinum 100 Ω at 0 °C is 107.8 Ω at 20 °C (IEC 60751).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from careful_coil.core.errors import NotKnownYet
from careful_coil.core.winding.network import Network, Part


@dataclass(frozen=True, slots=True)
class Extra:
    """A usual extra: its kind, the leads it brings, its parts as (start, finish, ohm)."""

    kind: str
    leads: tuple[str, ...]
    parts: tuple[tuple[str, str, float], ...]


def _pair(kind: str, ohm: float) -> Extra:
    ends = (f"{kind}-1", f"{kind}-2")
    return Extra(kind, ends, ((*ends, ohm),))


CONTACT_OHM = 0.05
EXTRAS: dict[str, Extra] = {
    e.kind: e
    for e in (
        _pair("thermostat", CONTACT_OHM),
        _pair("thermistor", 300.0),
        _pair("rtd", 107.8),
        Extra(
            "rtd-3-wire",
            ("rtd-1", "rtd-2", "rtd-3"),
            (("rtd-1", "rtd-2", 107.8), ("rtd-2", "rtd-3", CONTACT_OHM)),
        ),
        _pair("heater", 80.0),
        _pair("tachometer", 150.0),
        _pair("brake", 400.0),
    )
}


def with_extras(network: Network, kinds: Sequence[str]) -> Network:
    """Return a winding with more leads that belong to extras; several of a kind are numbered on.

    Raises: NotKnownYet for a kind not in EXTRAS.
    """
    for kind in kinds:
        if kind not in EXTRAS:
            raise NotKnownYet(f"The extra “{kind}”", ", ".join(EXTRAS))
        extra = EXTRAS[kind]
        taken = set(network.leads)
        name = {lead: _free(lead, taken) for lead in extra.leads}
        parts = tuple(
            Part(name=f"{name[a]}-{name[b]}", kind=kind, start=name[a], finish=name[b], ohm=ohm)
            for a, b, ohm in extra.parts
        )
        network = replace(
            network, leads=(*network.leads, *name.values()), parts=network.parts + parts
        )
    return network


def _free(lead: str, taken: set[str]) -> str:
    stem, number = lead.rsplit("-", 1)
    count = int(number)
    while f"{stem}-{count}" in taken:
        count += 10
    taken.add(f"{stem}-{count}")
    return f"{stem}-{count}"


def with_protector(network: Network, lead: str, ohm: float = CONTACT_OHM) -> Network:
    """Return the winding with a closed thermal protector between `lead` and what it went to."""
    inside = f"{lead}-inside"
    return replace(
        network,
        coils=tuple(
            replace(
                c,
                start=inside if c.start == lead else c.start,
                finish=inside if c.finish == lead else c.finish,
            )
            for c in network.coils
        ),
        parts=(
            *network.parts,
            Part(name="protector", kind="protector", start=lead, finish=inside, ohm=ohm),
        ),
    )
