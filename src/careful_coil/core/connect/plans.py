"""The hookups a motor can have, and the one its supply needs.

Joints follow NEMA MG 1 terminal markings; line ohms are asked of the network, never typed in.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from careful_coil.core.errors import CannotConnect, NotKnownYet
from careful_coil.core.winding.arrangements import arrangement

LINES = ("L1", "L2", "L3")
SUPPLY_APART_PERCENT = 10.0  # NEMA MG 1: rated volts ±10 % at rated frequency
EDGE_PERCENT = 5.0
RATIO_SLACK = 0.06

Joint = tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Plate:
    """What the plate says of volts: one entry a connection, each a range (low, high), rising."""

    volts: tuple[tuple[float, float], ...]
    hertz: float = 60.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """A hookup: its plain name, its joints by lead name, lines' ohms per Ω of coil, remarks."""

    arrangement: str
    connection: str
    joints: tuple[Joint, ...]
    rank: int  # 0 the lower rating of the plate, 1 the higher
    notes: tuple[str, ...] = ()

    def line_ohm(self, coil_ohm: float | dict[str, float]) -> dict[str, float]:
        """Return the ohms between lines for coils of `coil_ohm` Ω (one figure, or by coil name)."""
        network = arrangement(self.arrangement).network
        by_name = (
            dict.fromkeys((c.like for c in network.coils), coil_ohm)
            if isinstance(coil_ohm, int | float)
            else coil_ohm
        )
        ohm = network.with_ohm(by_name).joined(self.joints).resistance(LINES)
        return {f"{LINES[a]}-{LINES[b]}": float(ohm[a, b]) for a, b in ((0, 1), (0, 2), (1, 2))}


_WYE6: tuple[Joint, ...] = (("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T4", "T5", "T6"))
_DELTA6: tuple[Joint, ...] = (("L1", "T1", "T6"), ("L2", "T2", "T4"), ("L3", "T3", "T5"))
_HIGH9: tuple[Joint, ...] = (
    *((f"L{k}", f"T{k}") for k in (1, 2, 3)),
    *((f"T{k}", f"T{k + 3}") for k in (4, 5, 6)),
)
_LOW9: tuple[Joint, ...] = (
    *((f"L{k}", f"T{k}", f"T{k + 6}") for k in (1, 2, 3)),
    ("T4", "T5", "T6"),
)
# slug → (lower rating's connection, higher rating's, the ratio of the two ratings)
_PAIRS: dict[str, tuple[tuple[str, tuple[Joint, ...]], tuple[str, tuple[Joint, ...]], float]] = {
    "three-phase-6-lead": (("delta", _DELTA6), ("wye", _WYE6), math.sqrt(3)),
    "three-phase-9-lead-wye": (
        ("low volts: two wyes in parallel", _LOW9),
        ("high volts: halves in series, wye", _HIGH9),
        2.0,
    ),
}


def plans_of(slug: str) -> tuple[Plan, Plan]:
    """Return the two hookups of an arrangement, lower rating first. Raises: NotKnownYet."""
    arrangement(slug)
    if slug not in _PAIRS:
        raise NotKnownYet(f"Connecting “{slug}”", ", ".join(_PAIRS))
    low, high, _ = _PAIRS[slug]
    return (
        Plan(arrangement=slug, connection=low[0], joints=low[1], rank=0),
        Plan(arrangement=slug, connection=high[0], joints=high[1], rank=1),
    )


def plan(slug: str, plate: Plate, supply_volt: float, supply_hertz: float | None = None) -> Plan:
    """Return the hookup for a supply.

    Raises: NotKnownYet for an arrangement without plans; CannotConnect with the reason and the
    nearest that fits, or with the question that must be answered first.
    """
    options = plans_of(slug)
    wanted = _PAIRS[slug][2]
    names = " or ".join(o.connection.split(":")[0] for o in options)
    if len(plate.volts) != 2:
        raise CannotConnect(
            f"The plate gives one rating ({_span(plate.volts[0])}). Is that for {names}? Give both ratings, as 230/460."
        )
    low, high = plate.volts
    ratio = high[1] / low[1]
    if abs(ratio / wanted - 1) > RATIO_SLACK:
        raise CannotConnect(
            f"Ratings {_span(low)} and {_span(high)} stand {ratio:.2f} to 1; this winding gives {wanted:.2f} to 1. "
            "Look at the plate again."
        )
    apart = [_apart_percent(supply_volt, volts) for volts in plate.volts]
    rank = min((0, 1), key=lambda k: abs(apart[k]))
    if abs(apart[rank]) > SUPPLY_APART_PERCENT:
        raise CannotConnect(
            f"A supply of {supply_volt:g} V is {apart[rank]:+.0f} % off the nearest rating, "
            f"{_span(plate.volts[rank])}; "
            f"±{SUPPLY_APART_PERCENT:g} % is allowed. This motor takes about {low[1]:g} V or {high[1]:g} V."
        )
    found = options[rank]
    return Plan(
        arrangement=slug,
        connection=found.connection,
        joints=found.joints,
        rank=rank,
        notes=_remarks(apart[rank], supply_volt, plate.volts[rank], plate.hertz, supply_hertz),
    )


def which_plan(slug: str, joints: Iterable[Sequence[str]]) -> Plan | None:
    """Return the hookup that these joints make, whichever line goes where; None when neither."""
    if slug not in _PAIRS:
        return None
    made = _unlined(joints)
    return next((p for p in plans_of(slug) if _unlined(p.joints) == made), None)


def _unlined(joints: Iterable[Sequence[str]]) -> frozenset[frozenset[str]]:
    return frozenset(
        frozenset("L" if n in LINES else n for n in j) for j in joints if len(set(j)) > 1
    )


def _apart_percent(volt: float, rated: tuple[float, float]) -> float:
    nearest = min(max(volt, rated[0]), rated[1])
    return 100.0 * (volt / nearest - 1.0)


def _span(volts: tuple[float, float]) -> str:
    return f"{volts[0]:g} V" if volts[0] == volts[1] else f"{volts[0]:g}–{volts[1]:g} V"


def _remarks(
    apart: float,
    volt: float,
    rated: tuple[float, float],
    plate_hertz: float,
    hertz: float | None,
) -> tuple[str, ...]:
    notes = []
    if abs(apart) > EDGE_PERCENT:
        share = (volt / (rated[0] if apart < 0 else rated[1])) ** 2
        notes.append(
            f"{volt:g} V on a {_span(rated)} rating is at the edge: torque {share:.2f} of rated."
        )
    if hertz is not None and hertz != plate_hertz:
        flux = volt / hertz / (rated[1] / plate_hertz)
        notes.append(
            f"{hertz:g} Hz on a {plate_hertz:g} Hz plate: speed × {hertz / plate_hertz:.2f}, "
            f"volts per hertz × {flux:.2f}."
        )
    return tuple(notes)
