"""A three-phase winding made anew for something else: turns, wire, induction, amps and power, side by side.

The core's gap induction stays: flux of a pole goes with 1/poles. Ampere-turns of a slot stay: so does
torque; power goes with speed.
"""

import math
from dataclasses import dataclass, replace

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.rewind.factors import Connection, Supplied, new_turns
from careful_coil.core.rewind.layout import PHASES, Layout, circuits_of, three_phase
from careful_coil.core.rewind.record import Record, copper_mm2
from careful_coil.core.rewind.worked import Plate

FLUX_WATCH, FLUX_HOLD = 1.05, 1.10  # of the old flux: shop default, saturation beyond


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """What the new winding is to be; None keeps what is."""

    volt: float | None = None
    hertz: float | None = None
    connection: Connection | None = None
    circuits: int | None = None
    span: int | None = None
    poles: int | None = None
    turns: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Side:
    """One side of the comparison: the winding, and what the core makes of it.

    `flux` of the recorded one's flux per pole (1 as it was), `back` of its induction behind the slots.
    """

    volt: float
    hertz: float
    connection: Connection
    circuits: int
    poles: int
    span: int
    turns: float
    kw: float
    wire_mm2: float
    flux: float = 1.0
    gap: float = 1.0
    back: float = 1.0
    amp: float | None = None
    watt: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """Old and new beside each other; `turns` before rounding; `notes` what must be known, worst first."""

    old: Side
    new: Side
    turns: float
    notes: tuple[tuple[str, str], ...]  # verdict, words


def old_side(record: Record, plate: Plate, layout: Layout, watt: float | None) -> Side:
    """Return the winding as recorded. Raises: ValueOutOfRange with what is missing."""
    connection, wires, turns = record.told.get("connection", ""), record.wire(), record.turns
    missing = [
        name
        for name, there in (
            ("wye or delta", connection),
            ("turns per coil", turns),
            ("wire", wires),
            ("plate volts", plate.volt),
            ("hertz", plate.hertz),
        )
        if not there
    ]
    if missing or plate.volt is None or plate.hertz is None:
        raise ValueOutOfRange("the record", f"also {', '.join(missing)}")
    first = layout.coils[0]
    return Side(
        volt=plate.volt,
        hertz=plate.hertz,
        connection="delta" if connection == "delta" else "wye",
        circuits=record.whole("circuits") or 1,
        poles=layout.poles,
        span=record.span or (first.finish - first.start) % layout.slots,
        turns=sum(turns) / len(turns),
        kw=layout.factor(PHASES[0]),
        wire_mm2=copper_mm2(wires),
        amp=plate.amp,
        watt=watt,
    )


def convert(record: Record, old: Side, wanted: Wanted) -> Change:
    """Return the winding for something else. Raises: ValueOutOfRange for what the core cannot hold."""
    slots = record.whole("slots") or 0
    poles = wanted.poles or old.poles
    span = wanted.span or (old.span if poles == old.poles else round(old.span * old.poles / poles))
    layout = three_phase(
        slots,
        poles,
        layers=record.whole("layers") or 2,
        span=max(span, 1),
        shape="concentric" if record.told.get("shape") == "concentric" else "lap",
        consequent=record.told.get("consequent") == "yes",
        turns=record.turns or (1.0,),
    )
    circuits = wanted.circuits or (old.circuits if old.circuits in circuits_of(layout) else 1)
    if circuits not in circuits_of(layout):
        fit = ", ".join(map(str, circuits_of(layout)))
        raise ValueOutOfRange(
            f"{circuits} circuits", f"circuits that part each phase equally: {fit}"
        )
    kw = layout.factor(PHASES[0])
    before = Supplied(
        volt=old.volt,
        hertz=old.hertz,
        connection=old.connection,
        circuits=old.circuits,
        kw=old.kw,
    )
    after = Supplied(
        volt=wanted.volt or old.volt,
        hertz=wanted.hertz or old.hertz,
        connection=wanted.connection or old.connection,
        circuits=circuits,
        kw=kw,
    )
    exact = new_turns(old.turns, before, after).turns * poles / old.poles
    turns = wanted.turns if wanted.turns is not None else max(float(round(exact)), 1.0)
    flux = old.poles / poles * exact / turns
    speed = after.hertz / old.hertz * old.poles / poles
    line = _line_share(after) / _line_share(before)
    new = replace(
        old,
        volt=after.volt,
        hertz=after.hertz,
        connection=after.connection,
        circuits=circuits,
        poles=poles,
        span=max(span, 1),
        turns=turns,
        kw=kw,
        wire_mm2=old.wire_mm2 * old.turns / turns,
        flux=flux,
        gap=flux * poles / old.poles,
        back=flux,
        amp=old.amp * old.turns / turns * line if old.amp is not None else None,
        watt=old.watt * speed * flux * poles / old.poles if old.watt is not None else None,
    )
    return Change(old=old, new=new, turns=exact, notes=tuple(_notes(old, new, exact)))


STRAIGHT_MM = 10.0  # of the coil beyond the core, both ends together (trade practice)


def coil_form(record: Record, span: int) -> tuple[float, float] | None:
    """Return the size of a coil form in mm: the straight of its sides, and how far they are apart.

    Sides lie in the middle of the slots' depth; None while core, bore, slot depth or slots are not known.
    """
    core, bore, depth = (record.figure(f) for f in ("core", "bore", "slot-depth"))
    slots = record.whole("slots")
    if not core or not bore or not depth or not slots:
        return None
    apart = (bore + depth) * math.sin(math.pi * min(span, slots) / slots)
    return core + STRAIGHT_MM, apart


def _line_share(side: Supplied) -> float:
    """Return line amps over the amps of one coil."""
    return side.circuits * (math.sqrt(3) if side.connection == "delta" else 1.0)


def _notes(old: Side, new: Side, exact: float) -> list[tuple[str, str]]:
    found: list[tuple[str, str]] = []
    if new.gap > FLUX_HOLD or new.back > FLUX_HOLD:
        worse = "the back iron" if new.back > new.gap else "gap and teeth"
        share = max(new.gap, new.back)
        found.append(
            ("hold", f"{worse[0].upper()}{worse[1:]} at {share:.0%} of before: it saturates.")
        )
    elif new.gap > FLUX_WATCH:
        found.append(("watch", f"Gap and teeth at {new.gap:.1%} of before: more no-load amps."))
    if abs(new.turns / exact - 1) > 0.02:
        word = f"{exact:.2f} turns would be right: {new.turns:g} is {new.turns / exact - 1:+.1%}."
        found.append(("watch", word))
    if new.poles != old.poles:
        found.append(
            (
                "watch",
                "Other poles: rotor bars and slots were made for the old ones; noise, crawling and hot teeth can "
                "come. The maker, or an earlier job, wins.",
            )
        )
    if new.hertz != old.hertz:
        faster = new.hertz > old.hertz
        words = "faster: bearings, balance, fan" if faster else "slower: its fan cools less"
        found.append(("watch", f"It turns {words}. The load's power changes too."))
    if new.span * new.poles != old.span * old.poles:
        found.append(
            (
                "note",
                f"Span 1-{new.span + 1}: longer or shorter end turns, another fifth and seventh.",
            )
        )
    return found
