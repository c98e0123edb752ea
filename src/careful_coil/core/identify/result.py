"""What the identification answers: frozen values, no arithmetic."""

from dataclasses import dataclass, field
from typing import Literal

Status = Literal["settled", "narrowed", "unsettled", "contradictory"]
NextKind = Literal["resistance", "switch", "kick", "shaft", "spin", "series", "run"]
End = str | tuple[str, ...]
Certainty = Literal["proven", "convention", "leaning", "open"]


NO_SENSORS = ("earth", "capacitor")  # beside the winding, and named in a joint of their own


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """One way to explain the readings. `groups` and keys are tags; `coil_ohm` in Ω.

    `names` the winding's leads by their names in the network (both ends of a pair told apart), `roles`
    by the words of the open format; `extras` what tags beside the winding belong to; `order` the
    speed taps from high to low; `broken` the leads of a coil that stands open; `unread` the coils that
    no reading has passed: their ohms are inferred from their like; `shown_ohm` the
    same with nothing taken off for the test leads: what this meter shows.
    """

    arrangement: str | None
    probability: float
    groups: tuple[tuple[str, ...], ...]
    variant: str = ""
    names: dict[str, str] = field(default_factory=dict)
    roles: dict[str, str] = field(default_factory=dict)
    extras: dict[str, str] = field(default_factory=dict)
    order: tuple[str, ...] = ()
    broken: tuple[str, ...] = ()
    unread: tuple[str, ...] = ()
    certainty: dict[str, Certainty] = field(default_factory=dict)
    coil_ohm: dict[str, float] = field(default_factory=dict)
    shown_ohm: dict[str, float] = field(default_factory=dict)
    notes: tuple[str, ...] = ()

    @property
    def sensors(self) -> tuple[str, ...]:
        """Return the leads beside the winding that are joined again by themselves: sensors, heater, brake."""
        return tuple(t for t, kind in self.extras.items() if kind not in NO_SENSORS)


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspect:
    """A reading that does not fit the rest; `expected_ohm` is a range or empty when open."""

    reading: int
    expected_ohm: tuple[float, float] | None
    why: str


def code_of(kind: str, *ends: End) -> str:
    """Return the name of a reading by its kind and the leads it is taken of."""
    words = (e if isinstance(e, str) else "+".join(e) for e in ends)
    return "-".join((kind, *words))


@dataclass(frozen=True, slots=True, kw_only=True)
class NextReading:
    """The reading that settles most: its kind and ends, the bits it is worth, why.

    An end of `between` may be several leads clipped together; `lines`, `joints` and `applied_volt`
    belong to a run.
    """

    kind: NextKind
    between: tuple[End, End] | None = None
    source: tuple[str, str] | None = None
    sense: tuple[str, str] | None = None
    tie: tuple[str, str] | None = None
    across: tuple[str, str] | None = None
    lines: tuple[tuple[str, ...], ...] | None = None
    joints: tuple[tuple[str, ...], ...] | None = None
    applied_volt: float | None = None
    gain_bits: float = 0.0
    why: str = ""

    @property
    def code(self) -> str:
        """Return what it is put off by."""
        ends = (*(self.between or ()), *(self.source or ()), *(self.sense or ()))
        ends = (*ends, *(self.tie or ()), *(self.across or ()))
        return code_of(self.kind, *ends, *(self.lines or ()), *(self.joints or ()))

    def pair(self) -> tuple[str, str] | None:
        """Return the two leads, or None where an end is several or there are none."""
        if self.between is None:
            return None
        a, b = self.between
        return (a, b) if isinstance(a, str) and isinstance(b, str) else None


@dataclass(frozen=True, slots=True, kw_only=True)
class Identification:
    """The whole answer. `to_close`: settled but for a closing kick, or three equal amps in its place."""

    status: Status
    candidates: tuple[Candidate, ...]
    suspects: tuple[Suspect, ...]
    next: NextReading | None
    never_energise: tuple[tuple[str, str], ...]
    notes: tuple[str, ...]
    to_close: bool = False
    read_groups: tuple[tuple[str, ...], ...] = ()  # tags that conduct to each other as read

    @property
    def best(self) -> Candidate:
        """The likeliest candidate."""
        return self.candidates[0]
