"""What hands do at any station: open a part, type into a field, log what another bench has entered."""

from typing import Any, TypeVar

from pydantic import TypeAdapter

from careful_coil.bench.simulated import HiddenMotor, SimulatedMeter
from careful_coil.core.job import Entry
from careful_coil.demo.truths import BENCH_METER
from careful_coil.desk.part import Part
from careful_coil.desk.shared.page import Page
from careful_coil.desk.stations.parted import PartedPage
from tests.desk.driver import CTRL, Bench, Key

P = TypeVar("P", bound=Part)
S = TypeVar("S", bound=Page)
KEYS = {k: getattr(Key, f"Key_{k}") for k in range(1, 10)}


def station(bench: Bench, number: int, kind: type[S], part: str = "") -> S:
    """Go to a station by its number, and open a part of it."""
    bench.key(KEYS[number], CTRL)
    page = bench.page
    assert isinstance(page, kind)
    if part:
        assert isinstance(page, PartedPage)
        page.open_part(part)
        bench.settle()
    return page


def part(bench: Bench, kind: type[P]) -> P:
    """Open a part of the open station; the cursor is where it starts."""
    page = bench.page
    assert isinstance(page, PartedPage)
    page.open_part(kind.name)
    bench.settle()
    found = page.parts[kind.name]
    assert isinstance(found, kind)
    return found


def typed(bench: Bench, field: str, text: str) -> None:
    """Put the cursor into a field of the open station, type, press Enter."""
    assert bench.page.put_cursor(field), field
    bench.settle()
    bench.enter(text)


def log(bench: Bench, *bodies: dict[str, Any]) -> None:
    """Record entries as another bench would have."""
    kinds: TypeAdapter[Any] = TypeAdapter(Entry.model_fields["body"].annotation)
    bench.window.session.record(*(kinds.validate_python(b) for b in bodies), station="leads")
    bench.settle()


def meter_on(bench: Bench, motor: HiddenMotor) -> None:
    """Put the simulated meter on another truth of the open motor."""
    bench.job.instrument = SimulatedMeter(motor, seed=4, meter=BENCH_METER)
    bench.window.session.bound = bench.job
