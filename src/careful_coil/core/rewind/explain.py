"""What would explain a record that contradicts the measured ohms: other turns, wire, circuits, connection."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from careful_coil.core.rewind.record import Record, show_wire
from careful_coil.core.rewind.wire import METRIC
from careful_coil.core.rewind.worked import Plate, measured_ohm, work_out
from careful_coil.core.settings import Settings

FITS = 0.03  # share within which a change explains the ohms
MOST = 4


@dataclass(frozen=True, slots=True)
class Change:
    """A datum changed so that the record fits the ohms: its field, the text, in words, what is left in %."""

    field: str
    text: str
    words: str
    off_percent: float


def off_percent(record: Record, plate: Plate, settings: Settings) -> float | None:
    """Return by how many per cent the record's ohms lie off the measured ones; None while not known."""
    worked = work_out(record, plate, settings).of("ohm").value
    measured = measured_ohm(record, plate, settings)
    if worked is None or measured is None:
        return None
    return 100 * (worked / measured - 1)


def explain(record: Record, plate: Plate, settings: Settings) -> tuple[Change, ...]:
    """Return single changes of the record that fit the measured ohms, the nearest first.

    The mean turn is held: where it came from the mass of wire it is worked out once, from the record as
    it stands.
    """
    off = off_percent(record, plate, settings)
    turn = work_out(record, plate, settings).of("mean-turn").value
    if off is None or turn is None:
        return ()
    fixed = dict(record.told) | {"mean-turn": f"{turn:.6g}"}
    found = []
    for field, text, words in _candidates(record):
        left = off_percent(replace(record, told=fixed | {field: text}), plate, settings)
        if left is not None and abs(left) <= 100 * FITS:
            found.append(Change(field, text, words, left))
    return tuple(sorted(found, key=lambda c: abs(c.off_percent))[:MOST])


def _candidates(record: Record) -> Iterator[tuple[str, str, str]]:
    told: Mapping[str, str] = record.told
    turns = record.turns
    if len(turns) == 1:
        for n in range(max(1, int(turns[0]) - 12), int(turns[0]) + 13):
            if n != turns[0]:
                yield "turns", str(n), f"{n} turns, not {turns[0]:g}"
    wires = record.wire()
    if len(wires) == 1:
        own = wires[0]
        near = sorted(METRIC, key=lambda d: abs(d - own.mm))[:5]
        for mm in near:
            if mm != own.mm:
                text = show_wire((replace(own, mm=mm, name=f"{mm:g}"),))
                yield "wire", text, f"{mm:g} mm, not {own.name} mm"
        for count in (own.count - 1, own.count + 1):
            if count > 0:
                text = show_wire((replace(own, count=count),))
                yield "wire", text, f"{count} in hand, not {own.count}"
    circuits = record.whole("circuits") or 1
    for other in (1, 2, 3, 4, 6):
        if other != circuits:
            yield "circuits", str(other), f"{other} circuits, not {circuits}"
    if told.get("metal") != "aluminium":
        yield "metal", "aluminium", "aluminium, not copper"
