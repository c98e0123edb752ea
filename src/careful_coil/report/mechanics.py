"""Mechanics on the job sheet: figures as felt and measured, bearings, brushes, bars, what was changed, parts."""

from collections.abc import Iterator

from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.bearing_rules import ENDS
from careful_coil.core.values import show_ohm

FIELDS = {
    "feel": "by hand {}",
    "coast-down": "runs on {} s",
    "end-float": "end float {} mm",
    "radial-play": "radial play {} mm",
    "rub": "rub marks {}",
    "start-before": "turns from {} V",
    "start-after": "after easing from {} V",
    "ends": "shaft ends: {}",
}
BEARING = ("number", "state", "seat", "done", "fitted", "oil", "wick", "ports")


def mechanics_lines(judged: Judgement) -> Iterator[str]:
    """Yield what the sheet says of the mechanics; nothing where nothing was noted."""
    hands = judged.job.hands
    if hands.empty:
        return
    felt = [words.format(hands.felt[f]) for f, words in FIELDS.items() if f in hands.felt]
    if felt:
        yield f"Shaft: {', '.join(felt)}."
    for end, title in ENDS.items():
        told = hands.bearings.get(end, {})
        size = " × ".join(told[n] for n in ("bore", "outside", "width") if told.get(n))
        words = [f"{f} {told[f]}" for f in BEARING if told.get(f)]
        if told:
            yield f"Bearing, {title.lower()}: {', '.join([*words, *([f'measured {size} mm'] if size else [])])}."
    for name, told in hands.brushes.items():
        yield f"Brush {name}: {', '.join(f'{f} {t}' for f, t in told.items())}."
    if hands.bars:
        read = ", ".join(
            f"{k} {'open' if v is None else show_ohm(v)}" for k, v in sorted(hands.ohms.items())
        )
        yield f"{hands.bars} bars, each to the next: {read or 'not read'}."
    for tag, mend in hands.mended.items():
        yield f"Lead {tag}: {mend.how}{f', {mend.words}' if mend.words else ''}."
    for name, it in hands.temporary.items():
        yield f"Temporary {name}: {it.words}; {f'cleared: {it.cleared}' if it.cleared else 'NOT CLEARED'}."
    for name, change in hands.changed.items():
        yield f"Changed {name}: {change.words}; {f'closed: {change.closed}' if change.closed else 'NOT CLOSED'}."
    for part in judged.facts.parts:
        yield f"To order: {part.count} × {part.words}, {part.place}."
