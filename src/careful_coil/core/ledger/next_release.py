"""What Release asks for next: what keeps the gate shut, the signature."""

from collections.abc import Iterator
from typing import cast

from careful_coil.core.ledger.facts import Facts
from careful_coil.core.ledger.next_gear import cause_steps
from careful_coil.core.ledger.next_wall import closed_steps
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.stations import Station


def release_steps(c: Facts) -> Iterator[NextStep]:
    """Yield what still keeps the gate shut, then the signature."""
    gate = c.gate
    for f in gate:
        if f.verdict == "hold" or f.code in ("insulation", "insulation-between", "leads-proven"):
            continue
        if f.code in ("earth-bond", "cause"):
            yield from closed_steps(c) if f.code == "earth-bond" else cause_steps(c)
            continue
        if f.code == "supply" and c.job.supply is not None and c.connecting.changed:
            yield NextStep(
                code="supply-line",
                title="Measure the supply",
                why=f.why,
                station="connect",
                focus="supply-line",
            )
        elif f.code == "supply":
            yield NextStep(
                code=f.code, title="Name the supply", why=f.why, station="connect", focus=f.code
            )
    ran = not any(f.code == "test-run" for f in gate)
    for f in gate:
        if f.code == "direction" and f.verdict == "unproven" and not ran:
            continue  # the run shows it
        focus = {"coils-balanced": "coil-ohm"}.get(f.code, "")
        yield NextStep(
            code=f"open-{f.code}",
            title=f.subject,
            why=f.why,
            station=cast(Station, f.station),
            focus=focus,
        )
    if not gate:
        yield NextStep(
            code="sign",
            act="sign",
            title="Sign and let it go",
            station="release",
            focus="sign",
            why="Nothing is open. The sheet goes with the motor.",
        )
