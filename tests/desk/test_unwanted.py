"""Keys that nothing with the cursor wants: Enter goes where Next asks, N skips, figures go to the strip."""

from careful_coil.desk.cell import Cell
from careful_coil.desk.insulation.test import TestPart
from careful_coil.desk.intake.plate import PlatePart
from careful_coil.desk.stations.insulation import InsulationPage
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.unwanted import NOTHING
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station


def test_enter_in_an_empty_field_goes_where_next_asks_and_logs_nothing(bench: Bench) -> None:
    bench.open("theatre")
    assert bench.judged.next is not None
    assert bench.judged.next.station == "connect"
    station(bench, 1, IntakePage)
    fields = part(bench, PlatePart).fields.values()
    before = len(bench.job.entries)
    next(f for f in fields if f.isVisible() and not f.cell.text()).take_cursor()
    bench.key(Key.Key_Return)
    bench.settle()
    assert bench.station == "connect"
    assert len(bench.job.entries) == before


def test_enter_on_a_line_of_the_ledger_does_what_the_line_does_and_no_more(bench: Bench) -> None:
    bench.open("theatre")
    listing = bench.window.ledger.list
    listing.setFocus()
    listing.setCurrentIndex(listing.model().index(0, 0))
    bench.key(Key.Key_Return)
    bench.settle()
    assert bench.focus is listing


def test_on_what_takes_no_keys_enter_goes_on_and_n_skips(bench: Bench) -> None:
    bench.open("theatre")
    station(bench, 3, InsulationPage)
    plot = part(bench, TestPart).plot
    plot.setFocus()
    first = bench.next
    bench.type("7")
    assert bench.window.strip.note.words == NOTHING
    bench.key(Key.Key_N)
    bench.settle()
    assert bench.next != first
    plot.setFocus()
    bench.key(Key.Key_Return)
    bench.settle()
    assert bench.focus is not plot


def test_a_figure_goes_to_the_strip_where_next_wants_one_from_it(bench: Bench) -> None:
    bench.open("bakery")
    bench.window.go("leads")
    station(bench, 3, InsulationPage)
    part(bench, TestPart).plot.setFocus()
    assert bench.next == "Read A to C"
    bench.type("7")
    assert bench.focus is bench.window.strip.line
    assert bench.window.strip.line.text() == "7"


def test_keys_on_the_settings_are_not_the_benchs(bench: Bench) -> None:
    bench.open("theatre")
    bench.window.settings()
    bench.settle()
    bench.key(Key.Key_Return)
    bench.settle()
    assert bench.window.stack.currentWidget() is bench.window.settings_page


def test_plus_in_an_empty_field_that_next_asks_skips_it(bench: Bench) -> None:
    bench.open("scrap")
    assert bench.next == "Name the supply it ran on"
    bench.ctrl(Key.Key_Return)
    asked = bench.focus
    assert isinstance(asked, Cell)
    bench.type("+")
    bench.settle()
    assert asked.text() == ""
    assert bench.next != "Name the supply it ran on"
