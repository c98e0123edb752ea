"""A capacitor missing or unreadable: its µF from the windings, at low volts with the rotor held; a running
one from short runs with shelf values, from small upward.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from careful_coil.core.errors import ValueOutOfRange
from careful_coil.core.gear.shelf import Wanted
from careful_coil.core.job.at_start_gear import RunTried, WindingLocked
from careful_coil.core.job.gear import Gear
from careful_coil.core.machine.capacitors import impedance, start_microfarad
from careful_coil.core.machine.facts import Metered
from careful_coil.core.winding.network import Coil
from careful_coil.core.winding.single_phase import START_COILS

HIGH_LINE = 1.10  # NEMA MG 1: rated volts ±10 %
SAME = 0.01  # two shelf values this near each other are one
RISES = 1.01  # line amps over the least seen so far: past the best


@dataclass(frozen=True, slots=True, kw_only=True)
class StartFigures:
    """Impedances in Ω of both windings at the lead; µF for currents 90° apart and for most torque, the
    capacitor's volts with each at the line's `volt`; what stands for a wattmeter."""

    main: complex
    aux: complex
    quadrature: float
    quadrature_volt: float
    most_torque: float
    most_torque_volt: float
    volt: float
    notes: tuple[str, ...]

    def wanted(self) -> Wanted:
        """Return what the shelf is asked for: between the two figures, volts for the higher, line high."""
        low, high = sorted((self.quadrature, self.most_torque))
        most = max(self.quadrature_volt, self.most_torque_volt)
        return Wanted(kind="start", low=low, high=high, volt=HIGH_LINE * most)


def locked_of(gear: Gear) -> dict[str, Metered]:
    """Return what was read of each winding locked, by winding."""
    return {w: Metered(b.volt, b.amp, b.watt) for w, b in gear.locked.items()}


def start_figures(
    locked: Mapping[str, WindingLocked], ohms: Mapping[str, float], volt: float, hertz: float
) -> StartFigures:
    """Return the starting figures of a motor whose capacitor is missing or unreadable.

    `locked` readings of `main` and `start`; `ohms` their DC ohms, which stand for R without watts.
    Raises: ValueOutOfRange for readings that cannot be.
    """
    notes = [
        "Starting figures: never left in. For a running capacitor they are two to five times too much."
    ]
    found = {}
    for winding in ("main", "start"):
        body = locked.get(winding)
        if body is None:
            raise ValueOutOfRange(
                f"no {winding} winding", "V, A and W of both windings, rotor held"
            )
        if body.watt is None and winding not in ohms:
            raise ValueOutOfRange(
                f"{winding} winding, no watts", "its watts, or its DC ohms at Insulation or Leads"
            )
        if body.watt is None:
            notes.append(
                f"{winding}: DC ohms stand for R, without a wattmeter; it comes out a little low."
            )
        found[winding] = impedance(body.volt, body.amp, body.watt, ohms.get(winding, 0.0))
    main, aux = found["main"], found["start"]
    square, most = start_microfarad(main, aux, hertz)
    return StartFigures(
        main=main,
        aux=aux,
        quadrature=square,
        quadrature_volt=capacitor_volt(aux, square, volt, hertz),
        most_torque=most,
        most_torque_volt=capacitor_volt(aux, most, volt, hertz),
        volt=volt,
        notes=tuple(notes),
    )


def capacitor_volt(aux: complex, microfarad: float, volt: float, hertz: float) -> float:
    """Return the rms volts on a capacitor in series with a locked winding of impedance `aux` in Ω."""
    reactance = 1e6 / (2 * math.pi * hertz * microfarad)
    return volt * reactance / abs(aux - 1j * reactance)


def winding_ohms(coils: Iterable[Coil], ohms: Mapping[str, float]) -> dict[str, float]:
    """Return the DC ohms of main and start winding, coils in series; `ohms` by coil or by kind of coil."""
    found: dict[str, float] = {}
    for coil in coils:
        own = ohms.get(coil.name, ohms.get(coil.like))
        if own is not None:
            which = "start" if coil.like in START_COILS else "main"
            found[which] = found.get(which, 0.0) + own
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class Series:
    """Where a series of short runs stands: the best so far, what to fit next (0 none), why."""

    best: RunTried | None
    next: float
    why: str


def series_of(
    tried: Sequence[RunTried], shelf: Iterable[float], most_amp: float, most_volt: float
) -> Series:
    """Return what to fit next of the µF at hand, from small upward, and the best so far.

    The best draws the least line amps within the start winding's amps and the capacitor's volts; when
    amps rise again, or a limit is passed, no larger one is fitted.
    """
    values = sorted(set(shelf))
    inside = [t for t in tried if t.aux_amp <= most_amp and t.capacitor_volt <= most_volt]
    best = min(inside, key=lambda t: (t.line_amp, t.microfarad), default=None)
    largest = max(tried, key=lambda t: t.microfarad, default=None)
    if largest is None:
        first = values[0] if values else 0.0
        return Series(best=None, next=first, why="The smallest first: a short run, four readings.")
    if largest not in inside:
        what = "start winding's amps" if largest.aux_amp > most_amp else "capacitor's volts"
        return Series(
            best=best, next=0.0, why=f"{largest.microfarad:g} µF passes the {what}: no larger one."
        )
    if best is not None and largest.line_amp > RISES * best.line_amp:
        return Series(best=best, next=0.0, why="The line's amps rise again: the best is behind.")
    more = [v for v in values if v > largest.microfarad * (1 + SAME)]
    if not more:
        return Series(best=best, next=0.0, why="No larger one is at hand.")
    return Series(best=best, next=more[0], why="The line's amps still fall: the next larger.")
