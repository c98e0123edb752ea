"""Hands at the Insulation station, for its tests."""

from typing import TypeVar

from careful_coil.desk.insulation.ready import ReadyPart
from careful_coil.desk.stations.insulation import InsulationPage
from tests.desk.driver import Bench, Key

P = TypeVar("P")


def insulation(bench: Bench, part: str = "") -> InsulationPage:
    bench.ctrl(Key.Key_3)
    page = bench.page
    assert isinstance(page, InsulationPage)
    if part:
        page.open_part(part)
    bench.settle()
    return page


def part(page: InsulationPage, kind: type[P]) -> P:
    """Return the part of a kind."""
    return next(p for p in page.parts.values() if isinstance(p, kind))


def tick_all(bench: Bench) -> None:
    """Tick what stands before the test, by Space, and log it by Enter."""
    page = insulation(bench, "ready")
    roll = part(page, ReadyPart).roll
    roll.setFocus()
    for _ in roll.items:
        bench.key(Key.Key_Space)
    bench.key(Key.Key_Return)


def earth(bench: Bench) -> None:
    """Start the discharge, let it run, tick it, all by Enter on the Next card."""
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    bench.pass_time(4 * 600 + 1, 20)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
