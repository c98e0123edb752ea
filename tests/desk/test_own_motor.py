"""What is typed at one motor stays with it: nothing half typed, ticked or said goes over to the next one."""

from itertools import cycle, pairwise
from typing import Any

import pytest
from PySide6.QtWidgets import QLabel

from careful_coil.core import ledger
from careful_coil.core.job import Job
from careful_coil.core.ledger import judge
from careful_coil.core.stations import STATIONS, Station
from careful_coil.desk.field import Field
from careful_coil.desk.insulation.drying import DryingPart
from careful_coil.desk.mechanics.bearings import BearingsPart
from careful_coil.desk.shared.heat_run import RisePart
from careful_coil.desk.stations.connect import ConnectPage
from careful_coil.desk.stations.insulation import InsulationPage
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.stations.mechanics import MechanicsPage
from careful_coil.desk.stations.parted import PartedPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station

MOTORS = 8  # enough that every part of every station is seen
HALF = "half 1,2,3"  # no figure, no word, no name


def round_trip(ids: list[str]) -> list[str]:
    """One way that opens every motor after every other one exactly once, and ends where it began."""
    steps = [(k, (k + by) % len(ids)) for by in range(1, len(ids)) for k in range(len(ids))]
    left: dict[int, list[int]] = {}
    for a, b in steps:
        left.setdefault(a, []).append(b)
    stack, way = [0], list[int]()
    while stack:
        if left.get(stack[-1]):
            stack.append(left[stack[-1]].pop())
        else:
            way.append(stack.pop())
    return [ids[k] for k in reversed(way)]


def every_field(bench: Bench) -> list[Field]:
    """Every field of the station that is open."""
    return [f for f in bench.page.body.findChildren(Field) if f.isVisibleTo(bench.page)]


def go(bench: Bench, id: str) -> None:
    """Open a motor without a hand leaving its cell."""
    if bench.job.id != id:
        bench.window.session.open_job(id)
        bench.settle(lambda: bench.job.id == id)


def seen(bench: Bench, fields: list[Field]) -> str:
    """What some cells hold, and all else that the station says outside of cells."""
    cells = {id(w) for f in bench.page.body.findChildren(Field) for w in (f.message, f.label)}
    labels = [w.text() for w in bench.page.body.findChildren(QLabel) if id(w) not in cells]
    return "\n".join([*labels, *(f.cell.text() + f.message.text() for f in fields)])


def parts_of(bench: Bench, station: Station) -> int:
    """How many parts a station has."""
    page = bench.window.pages[station]
    return len(page.parts) if isinstance(page, PartedPage) else 1


@pytest.fixture
def quick(monkeypatch: pytest.MonkeyPatch) -> None:
    """Judge each log once: only what is shown is looked at here."""
    known: dict[object, object] = {}

    def once(job: Job, *more: Any) -> object:
        key = (job.log[0].id, len(job.log))
        if key not in known:
            known[key] = judge(job, *more)
        return known[key]

    monkeypatch.setattr(ledger, "judge", once)


@pytest.mark.usefixtures("quick")
def test_what_is_half_typed_stays_with_its_motor_whichever_is_opened_next(shared: Bench) -> None:
    ids = [s.id for s in shared.window.session.summaries][:MOTORS]
    way = round_trip(ids)
    assert len(set(pairwise(way))) == len(ids) * (len(ids) - 1) > 50
    places = cycle([(s, k) for s in STATIONS for k in range(parts_of(shared, s))])
    typed = dict[str, list[Field]]()  # by motor: in which cells something is half typed
    for here, there in pairwise(way):
        go(shared, here)
        at, k = next(places)
        shared.window.go(at)
        if isinstance(shared.page, PartedPage):
            shared.page.open_part(list(shared.page.parts)[k])
        for field in typed.pop(here, ()):
            field.drop()
        typed[here] = every_field(shared)
        for field in typed[here]:
            field.cell.setText(HALF)
            field.cell.setModified(True)
            field.refuse(HALF)
        shared.window.strip.line.setText(f"of {here}")
        go(shared, there)
        back = typed.get(there, [])
        own = [f for f in every_field(shared) if f not in back]
        assert HALF not in seen(shared, own), (here, there, at, k)
        assert shared.window.strip.line.text() == (f"of {there}" if there in typed else "")
        assert [f.cell.text() for f in back] == [HALF] * len(back), (there, at, k)
    for id, fields in typed.items():
        go(shared, id)
        for field in fields:
            field.drop()
        shared.window.strip.line.setText("")


def test_eighty_degrees_typed_at_one_motor_correct_no_other(bench: Bench) -> None:
    ids = [s.id for s in bench.window.session.summaries][:2]
    go(bench, ids[0])
    page = station(bench, 3, InsulationPage, "ready")
    assert page.put_cursor("temperature")
    bench.enter("80")
    assert bench.window.session.setting.at_c == 80
    go(bench, ids[1])
    assert bench.window.session.setting.at_c == 21
    assert page.fields["temperature"].cell.text() == "21"
    go(bench, ids[0])
    assert page.fields["temperature"].cell.text() == "80"


def test_a_heat_run_and_drying_hours_are_logged_into_their_own_motor_only(bench: Bench) -> None:
    ids = [s.id for s in bench.window.session.summaries][:2]
    go(bench, ids[0])
    page = station(bench, 3, InsulationPage)
    drying = part(bench, DryingPart)
    assert page.put_cursor("hours")
    bench.enter("20")
    assert page.put_cursor("work-c")
    bench.enter("80")
    rise = part(bench, RisePart)
    for name, text in (("cold-ohm", "5.2"), ("cold-c", "20"), ("run-air-c", "22")):
        assert page.put_cursor(name)
        bench.enter(text)
    go(bench, ids[1])
    part(bench, DryingPart)
    assert page.fields["hours"].cell.text() == ""
    drying.works["dried"].setFocus()
    bench.key(Key.Key_Return)
    body = bench.job.entries[-1].body
    assert (body.kind, body.hours, body.at_c) == ("work", None, None)
    part(bench, RisePart)
    count = len(bench.job.entries)
    rise.key.setFocus()
    bench.key(Key.Key_Return)
    assert len(bench.job.entries) == count
    go(bench, ids[0])
    assert page.fields["cold-ohm"].cell.text() == "5.2"
    assert page.fields["hours"].cell.text() == "20"


def test_a_cell_that_the_program_emptied_counts_as_not_typed_in(bench: Bench) -> None:
    page = station(bench, 1, IntakePage, "plate")
    assert page.put_cursor("paste")
    bench.enter("1~ 230 V 50 Hz 2.6 A 250 W 2850 r/min")
    assert bench.judged.job.plate.hertz == 50
    field = page.fields["paste"]
    assert (field.cell.text(), field.cell.isModified()) == ("", False)
    assert page.put_cursor("serial")
    bench.settle()
    assert not field.message.isVisibleTo(page)


def test_what_was_refused_stands_for_mending_whatever_else_is_recorded(bench: Bench) -> None:
    page = station(bench, 5, MechanicsPage, "shaft")
    assert page.put_cursor("felt-end-float")
    bench.enter("much")
    assert "Read “much”" in page.fields["felt-end-float"].message.text()
    assert page.put_cursor("felt-radial-play")
    bench.enter("0,02")
    assert bench.judged.job.hands.felt["radial-play"] == "0.02"
    assert page.fields["felt-end-float"].cell.text() == "much"
    assert "Read “much”" in page.fields["felt-end-float"].message.text()


def test_what_is_refused_at_one_end_does_not_go_over_to_the_other(bench: Bench) -> None:
    page = station(bench, 5, MechanicsPage, "bearings")
    bearings = page.parts["bearings"]
    assert isinstance(bearings, BearingsPart)
    field = page.fields["bearing-state"]
    assert page.put_cursor("drive-state")
    bench.enter("purple")
    assert "Read “purple”" in field.message.text()
    assert page.put_cursor("other-state")
    assert "purple" not in field.cell.text() + field.message.text()
    assert page.put_cursor("drive-state")
    assert field.cell.text() == "purple"
    bench.key(Key.Key_Escape)
    assert field.cell.text() == bench.judged.job.hands.bearings.get("drive", {}).get("state", "")


def test_the_answers_one_hookup_leaves_are_not_offered_to_the_next_motor(bench: Bench) -> None:
    page = station(bench, 7, ConnectPage, "wanted")
    cell = page.fields["wish-start"].cell
    for id in [s.id for s in bench.window.session.summaries]:
        go(bench, id)
        state = bench.judged.facts.connecting
        now = state.choices if state.asks == "start" else ("direct", "wye-delta", "part-winding")
        assert cell.choices == tuple(now)
