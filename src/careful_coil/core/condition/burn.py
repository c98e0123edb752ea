"""Burn pictures: what the pattern of dark coils says of the cause."""

from dataclasses import dataclass
from typing import Literal

Dark = Literal["none", "all", "phase", "other-phases", "spot", "start", "ends"]


BURN = "burn picture"  # the look that names one


@dataclass(frozen=True, slots=True, kw_only=True)
class Burn:
    """A pattern: its words, how it looks (which coils are dark), cause and what to look at."""

    name: str
    title: str
    dark: Dark
    cause: str
    look: str
    phases: tuple[int, ...] = (1, 3)


BURNS: dict[str, Burn] = {
    b.name: b
    for b in (
        Burn(
            name="two-phases",
            title="two of three phases dark",
            dark="other-phases",
            cause="Wye on two lines: the phase of the lost line stayed cold.",
            look="Fuses, contactor, cable of the lost line, before it goes back.",
            phases=(3,),
        ),
        Burn(
            name="one-phase",
            title="one phase dark",
            dark="phase",
            cause="Delta on two lines: the phase across the two live lines took it all.",
            look="Fuses, contactor, cable of the lost line, before it goes back.",
            phases=(3,),
        ),
        Burn(
            name="all",
            title="all dark, evenly",
            dark="all",
            cause="Overload, low volts, wrong connection, or stalled.",
            look="Load, volts under load, hookup against the plate, overload setting.",
        ),
        Burn(
            name="spot",
            title="one coil or one spot",
            dark="spot",
            cause="Turn short, or a fault to the frame in that slot.",
            look="Wedge and slot liner there; iron burnt with it must be dressed.",
        ),
        Burn(
            name="start",
            title="start winding only",
            dark="start",
            cause="The start circuit stayed in: switch, relay, or too slow a run-up.",
            look="Switch contacts, weights, bearings, volts at start.",
            phases=(1,),
        ),
        Burn(
            name="ends",
            title="end turns only",
            dark="ends",
            cause="No cooling: fan, blocked air ways, or slow on a drive.",
            look="Fan, guard, filters, speed it was run at.",
        ),
    )
}


def burns_for(phases: int | None) -> tuple[Burn, ...]:
    """Return the patterns that a motor of so many phases can show; all where it is not known."""
    return tuple(b for b in BURNS.values() if phases is None or phases in b.phases)


def dark_coils(dark: Dark, coils: int = 12) -> tuple[bool, ...]:
    """Return which of the end-turn groups round the bore are dark, for a drawing of the pattern.

    Groups go round by phase A, B, C in turn; with a start winding every other group is its own.
    """
    dark_at = {
        "none": (),
        "phase": range(0, coils, 3),
        "other-phases": [k for k in range(coils) if k % 3],
        "spot": (0,),
        "start": range(1, coils, 2),
    }
    known = set(dark_at.get(dark, range(coils)))
    return tuple(k in known for k in range(coils))
