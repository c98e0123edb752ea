"""Mechanics on the job sheet: figures as felt and measured, bearings, brushes, bars, what was changed, parts."""

from collections.abc import Iterator

from careful_coil.core.ledger import Judgement
from careful_coil.core.mechanics.bearing_rules import ENDS
from careful_coil.core.sheets.bearings import BEARING, BRUSH
from careful_coil.core.sheets.mechanics import FELT
from careful_coil.core.values import show_ohm


def mechanics_lines(judged: Judgement) -> Iterator[str]:
    """Yield what the sheet says of the mechanics; nothing where nothing was noted."""
    hands = judged.job.hands
    if hands.empty:
        return
    felt = FELT.lines(hands.felt)
    if felt:
        yield f"Shaft, fan, cord: {', '.join(felt)}."
    for end, title in ENDS.items():
        if hands.bearings.get(end):
            yield f"Bearing, {title.lower()}: {', '.join(BEARING.lines(hands.bearings[end]))}."
    for name, told in hands.brushes.items():
        yield f"Brush {name}: {', '.join(BRUSH.lines(told))}."
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
