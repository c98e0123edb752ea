"""A single-phase winding made anew for other volts or hertz: turns of both windings, wire, capacitor."""

from dataclasses import dataclass

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.layout import PoleCoil
from careful_coil.core.rewind.record import Record, copper_mm2
from careful_coil.core.rewind.worked import Plate

SHIFT_WATCH = 1.02  # of the frequency: beyond it speed, µF and switch speed change


@dataclass(frozen=True, slots=True, kw_only=True)
class OneWinding:
    """Main or start winding of one pole, as it was and as it will be; wire in mm²."""

    name: str
    old: tuple[PoleCoil, ...]
    new: tuple[PoleCoil, ...]
    old_mm2: float
    new_mm2: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SingleChange:
    """Both windings; `ratio` new turns over old; `microfarad` new over old of any capacitor; notes."""

    windings: tuple[OneWinding, ...]
    ratio: float
    microfarad: float
    notes: tuple[tuple[str, str], ...]


def convert_single(
    record: Record, plate: Plate, volt: float | None = None, hertz: float | None = None
) -> SingleChange:
    """Return the windings for other volts and hertz at the same flux. Raises: ValueOutOfRange.

    Turns go with volts over hertz, wire the other way, both windings alike: their ratio is the motor's kind.
    A capacitor's reactance must go with the turns squared: C₂ = C₁·(N₁/N₂)²·(f₁/f₂).
    """
    missing = [
        name
        for name, there in (
            ("main coils", record.pole("main")),
            ("plate volts", plate.volt),
            ("hertz", plate.hertz),
        )
        if not there
    ]
    if missing or plate.volt is None or plate.hertz is None:
        raise ValueOutOfRange("the record", f"also {', '.join(missing)}")
    to_volt, to_hertz = volt or plate.volt, hertz or plate.hertz
    ratio = to_volt / plate.volt * plate.hertz / to_hertz
    windings = []
    notes: list[tuple[str, str]] = []
    for name in ("main", "start"):
        old = record.pole(name)
        if not old:
            continue
        new = tuple(PoleCoil(c.first, c.last, max(float(round(c.turns * ratio)), 1.0)) for c in old)
        exact = ratio * sum(c.turns for c in old)
        got = sum(c.turns for c in new)
        if abs(got / exact - 1) > 0.02:
            notes.append(
                ("watch", f"{name.capitalize()}: {got:g} turns a pole, {exact:.1f} would be right.")
            )
        mm2 = copper_mm2(record.wire(f"{name}-wire"))
        windings.append(OneWinding(name=name, old=old, new=new, old_mm2=mm2, new_mm2=mm2 / ratio))
    if not record.pole("start"):
        notes.append(("note", "The start winding is not on record: it changes by the same ratio."))
    faster = to_hertz / plate.hertz
    if max(faster, 1 / faster) > SHIFT_WATCH:
        words = "the start switch must let go at another rpm; speed and the load's power change"
        notes.append(("watch", f"Another frequency: {words}."))
    return SingleChange(
        windings=tuple(windings),
        ratio=ratio,
        microfarad=1 / ratio**2 / faster,
        notes=tuple(notes),
    )
