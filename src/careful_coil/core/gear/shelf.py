"""What on the shelf serves for a capacitor: alone, two in parallel, two in series; and what must not.

Replacement µF lies inside the old range, its volts are at least the old; kind and duty are the same; it
goes into the can's room: shorter may be padded, wider does not fit.
"""

import itertools
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from careful_coil.core.can_marking import Kind, Marking
from careful_coil.core.errors import BadValue
from careful_coil.core.gear.formulas import together

Way = Literal["alone", "parallel", "series"]
SAME = 1e-9
SPARE_VOLT = 2.0  # more than so many times the volts is needlessly large
MIDDLE_WEIGHT, PAIR_WEIGHT, PAD_WEIGHT, VOLT_WEIGHT, STRADDLE_WEIGHT = 1.0, 1.0, 0.3, 0.2, 3.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """A capacitor on the shelf: its own marking's µF `low` to `high`, V rms, size in mm (0 unknown)."""

    tag: str
    kind: Kind
    low: float
    high: float
    volt: float
    diameter: float = 0.0
    length: float = 0.0
    count: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """What is to be replaced: µF allowed, V at least, kind, the room it has in mm (0 unknown)."""

    kind: Kind
    low: float
    high: float
    volt: float
    diameter: float = 0.0
    length: float = 0.0

    @classmethod
    def like(
        cls,
        marking: Marking,
        below: float,
        above: float,
        diameter: float = 0.0,
        length: float = 0.0,
        kind: Kind = "",
    ) -> "Wanted":
        """Return what a marking asks for; `kind` where it serves, if that is known.

        Raises: BadValue for one without kind or volts, or for DC.
        """
        serves = kind or marking.kind
        if serves not in ("start", "run") or marking.kind == "dc":
            raise BadValue(
                marking.text, "start or run: which of them it is", "Its kind is not known."
            )
        if kind and marking.kind and kind != marking.kind:
            raise BadValue(
                marking.text,
                f"the µF of a {kind} capacitor, from the plate, the maker or the winding",
                f"It is a {marking.kind} capacitor in the place of a {kind} one.",
            )
        if not marking.volt:
            raise BadValue(marking.text, "the volts it must carry", "No volts on it.")
        low, high = marking.allowed(below, above)
        return cls(
            kind=serves,
            low=low,
            high=high,
            volt=marking.volt,
            diameter=diameter,
            length=length,
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """A way to serve: items, how joined, µF and volts of the set, how good (0 best), reasons."""

    items: tuple[Item, ...]
    way: Way
    low: float
    high: float
    volt: float
    cost: float
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Refused:
    """An item that must not be used, and why."""

    item: Item
    why: str


def offers_for(
    wanted: Wanted, shelf: Iterable[Item]
) -> tuple[tuple[Offer, ...], tuple[Refused, ...]]:
    """Return what serves, the best first, and what is near in µF but must not be used."""
    right, refused = [], []
    for item in shelf:
        why = _wrong_kind(wanted, item)
        if why:
            if _overlaps(wanted, item.low, item.high):
                refused.append(Refused(item=item, why=why))
        elif item.count > 0:
            right.append(item)
    found = [*_alone(wanted, right), *_pairs(wanted, right)]
    for item in right:
        alone = any(o.items == (item,) for o in found)
        if not alone and _overlaps(wanted, item.low, item.high):
            refused.append(Refused(item=item, why=_why_not(wanted, item)))
    found.sort(key=lambda o: (o.cost, [i.tag for i in o.items]))
    return tuple(found), tuple(refused)


def _wrong_kind(wanted: Wanted, item: Item) -> str:
    if item.kind == "dc":
        return "polarised, for direct current: on alternating current it bursts"
    if item.kind == wanted.kind:
        return ""
    if wanted.kind == "run":
        return "a start capacitor: made for seconds, it bursts in run"
    return "a run capacitor: good for it, but larger and dearer than a start capacitor of that µF"


def _overlaps(wanted: Wanted, low: float, high: float) -> bool:
    return low <= wanted.high * (1 + SAME) and high >= wanted.low * (1 - SAME)


def _middle_inside(wanted: Wanted, low: float, high: float) -> bool:
    return wanted.low * (1 - SAME) <= (low + high) / 2 <= wanted.high * (1 + SAME)


def _alone(wanted: Wanted, items: Sequence[Item]) -> Iterator[Offer]:
    for item in items:
        if item.volt < wanted.volt * (1 - SAME) or not _fits(wanted, (item,)):
            continue
        if _middle_inside(wanted, item.low, item.high):
            yield _offer(wanted, (item,), "alone", item.low, item.high, item.volt)


def _pairs(wanted: Wanted, items: Sequence[Item]) -> Iterator[Offer]:
    """Yield two in parallel or in series; the room of one can is not asked of two."""
    for one, two in itertools.combinations_with_replacement(items, 2):
        if one is two and one.count < 2:
            continue
        for way in ("parallel", "series"):
            how: Literal["parallel", "series"] = "parallel" if way == "parallel" else "series"
            low, _ = together((one.low, two.low), (one.volt, two.volt), how)
            high, _ = together((one.high, two.high), (one.volt, two.volt), how)
            middles = [(i.low + i.high) / 2 for i in (one, two)]
            _, volt = together(middles, (one.volt, two.volt), how)
            if volt >= wanted.volt * (1 - SAME) and _middle_inside(wanted, low, high):
                yield _offer(wanted, (one, two), how, low, high, volt)


def _fits(wanted: Wanted, items: Sequence[Item]) -> bool:
    wide = all(not (wanted.diameter and i.diameter) or i.diameter <= wanted.diameter for i in items)
    long = all(not (wanted.length and i.length) or i.length <= wanted.length for i in items)
    return wide and long


def _offer(
    wanted: Wanted, items: tuple[Item, ...], way: Way, low: float, high: float, volt: float
) -> Offer:
    span = (wanted.high - wanted.low) / 2
    off = abs((low + high) / 2 - (wanted.low + wanted.high) / 2) / (span or wanted.high * 0.01)
    reasons = [f"{low:.4g} µF" if high - low < SAME * high else f"{low:.4g} to {high:.4g} µF"]
    cost = MIDDLE_WEIGHT * off
    straddles = low < wanted.low * (1 - SAME) or high > wanted.high * (1 + SAME)
    if straddles:
        cost += STRADDLE_WEIGHT
        reasons.append(
            f"its range reaches beyond {wanted.low:.4g} to {wanted.high:.4g} µF: measure it"
        )
    if volt > SPARE_VOLT * wanted.volt:
        cost += VOLT_WEIGHT
        reasons.append(f"{volt:.0f} V, more than it needs")
    if way != "alone":
        cost += PAIR_WEIGHT
        reasons.append(f"two in {way}")
        if way == "series":
            shares = " and ".join(f"{s:.0f} V" for s in shared_volts(items, wanted.volt))
            reasons.append(f"of {wanted.volt:.0f} V they carry {shares}")
        if wanted.diameter or wanted.length:
            reasons.append("room for two must be found")
    elif wanted.length and items[0].length and items[0].length < wanted.length:
        cost += PAD_WEIGHT
        reasons.append(f"{wanted.length - items[0].length:.0f} mm shorter: pad it")
    return Offer(
        items=items, way=way, low=low, high=high, volt=volt, cost=cost, reasons=tuple(reasons)
    )


def shared_volts(items: Sequence[Item], volt: float) -> tuple[float, ...]:
    """Return what each of several in series carries of `volt`: inversely to its µF."""
    shares = [2 / (i.low + i.high) for i in items]
    return tuple(volt * s / sum(shares) for s in shares)


def _why_not(wanted: Wanted, item: Item) -> str:
    if item.volt < wanted.volt * (1 - SAME):
        return f"{item.volt:.0f} V, {wanted.volt:.0f} V are needed"
    if not _fits(wanted, (item,)):
        return "it does not fit the room of the can"
    return f"its middle lies outside {wanted.low:.4g} to {wanted.high:.4g} µF"
