"""Wires in hand for an area: combinations of gauges at hand, ranked by error, room and number of wires."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from careful_coil.core.errors import BadValue, ValueOutOfRange
from careful_coil.core.figures import figure
from careful_coil.core.rewind.convert import Change
from careful_coil.core.rewind.record import Record, Strand, covered_mm2, read_wire
from careful_coil.core.rewind.wire import METRIC, area
from careful_coil.core.units import Quantity

USUAL_MM = tuple(d for d in METRIC if 0.2 <= d <= 1.6)  # what a shop mostly has on reels
NEIGHBOURS = 0.35  # share by which two gauges in one hand may differ in diameter
MOST_OFFERS = 8
LARGEST_KG = 1e5


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """Wires in hand: their area in mm², the error of it in %, the room over the enamel in mm²."""

    strands: tuple[Strand, ...]
    mm2: float
    off_percent: float
    room_mm2: float

    @property
    def count(self) -> int:
        """Return how many wires are in hand."""
        return sum(s.count for s in self.strands)


def read_reels(text: str) -> dict[float, float | None]:
    """Return the gauges at hand in bare mm, each with its kg where typed; blank: the usual ones.

    `0.5 0.56:3.2 AWG 20:1` is any amount of 0.5 mm, 3.2 kg of 0.56 mm, 1 kg of AWG 20. Raises: BadValue.
    """
    if not text.strip():
        return dict.fromkeys(USUAL_MM)
    wanted = "gauges on the reels, kg after a colon where it matters: 0.5 0.56:3.2 AWG 20:1"
    told = text.replace(";", " ").replace("AWG ", "AWG").replace("SWG ", "SWG")
    found: dict[float, float | None] = {}
    for piece in told.split():
        name, colon, mass = piece.partition(":")
        try:
            (one,) = read_wire(name.replace("AWG", "AWG ").replace("SWG", "SWG "))
            kg = figure(mass, Quantity.MASS) if colon else None
        except BadValue:
            raise BadValue(text, wanted) from None
        if one.count != 1 or (kg is not None and not 0 < kg < LARGEST_KG):
            raise BadValue(text, wanted)
        found[one.mm] = kg
    return dict(sorted(found.items()))


@dataclass(frozen=True, slots=True, kw_only=True)
class Fitted:
    """An offer in the new winding: slot fill in %, kg of all of it, what there is not enough of in words."""

    offer: Offer
    fill_percent: float | None
    kg: float | None
    short: tuple[str, ...]


def fitted(
    offered: Iterable[Offer],
    change: Change,
    record: Record,
    kg: float | None,
    reels: Mapping[float, float | None],
) -> tuple[Fitted, ...]:
    """Return offers as they would fill the slots; what there is enough of first, else as ranked.

    `kg` the mass of the old winding, None where it is not known.
    """
    room, sides = record.figure("slot-area"), record.whole("layers") or 2
    found = []
    for o in offered:
        taken = o.room_mm2 * change.new.turns * sides
        grown = o.mm2 * change.new.turns / (change.old.wire_mm2 * change.old.turns)
        mass = kg * grown if kg else None
        found.append(
            Fitted(
                offer=o,
                fill_percent=100 * taken / room if room else None,
                kg=mass,
                short=short_of(o, mass, reels),
            )
        )
    return tuple(sorted(found, key=lambda f: bool(f.short)))


def short_of(
    offer: Offer, kg: float | None, reels: Mapping[float, float | None]
) -> tuple[str, ...]:
    """Return the gauges that there is not enough of, in words; `kg` the mass of the whole winding."""
    if kg is None:
        return ()
    return tuple(
        f"{reels[s.mm]:g} of {need:.2f} kg of {s.mm:g} mm"
        for s in offer.strands
        if (need := kg * s.count * area(s.mm) / offer.mm2) > (reels.get(s.mm) or math.inf)
    )


def offers(
    mm2: float, reels: Iterable[float], most: int = 6, apart_percent: float = 4.0
) -> tuple[Offer, ...]:
    """Return wires in hand of one or two gauges whose area is `mm2` within `apart_percent`.

    At most `most` wires; two gauges only where they differ by little. The nearest first, then the fewest
    wires, then the least room. Raises: ValueOutOfRange.
    """
    if not 0 < mm2 < 1000:
        raise ValueOutOfRange(f"{mm2:g} mm²", "an area above nothing")
    if not 1 <= most <= 40:
        raise ValueOutOfRange(f"{most} wires in hand", "1 to 40")
    sizes = sorted(set(reels))
    found: list[Offer] = []
    for k, one in enumerate(sizes):
        for n in range(1, most + 1):
            first = n * area(one)
            if first > mm2 * (1 + apart_percent / 100):
                break
            found += _offer(mm2, apart_percent, ((n, one),))
            for two in sizes[k + 1 :]:
                if two > one * (1 + NEIGHBOURS):
                    break
                for m in range(1, most - n + 1):
                    found += _offer(mm2, apart_percent, ((n, one), (m, two)))
    found.sort(key=lambda o: (round(abs(o.off_percent), 1), o.count, o.room_mm2))
    return tuple(found)


def _offer(mm2: float, apart: float, parts: tuple[tuple[int, float], ...]) -> list[Offer]:
    whole = sum(n * area(d) for n, d in parts)
    off = 100 * (whole / mm2 - 1)
    if abs(off) > apart:
        return []
    strands = tuple(Strand(n, d, f"{d:g}") for n, d in parts)
    return [Offer(strands=strands, mm2=whole, off_percent=off, room_mm2=covered_mm2(strands))]
