"""The first minute: an empty shop asks one question; initials once; leads alone; the demo beside it."""

from PySide6.QtTest import QTest

from careful_coil.core.stations import STATIONS
from careful_coil.desk.start import demo_beside
from careful_coil.desk.stations.leads import LeadsPage
from tests.desk.driver import Bench, Key
from tests.desk.hands import typed


def test_three_keys_lead_to_the_first_reading_of_just_these_leads(empty: Bench) -> None:
    window = empty.window
    window.session.asks_who = True
    before = empty.keys
    empty.key(Key.Key_1)
    assert empty.focus is window.pages["leads"].fields["count"].cell
    empty.enter("3")
    assert empty.keys - before == 3
    assert empty.next == "Prove it dead"
    assert not window.beginning.who.isVisible()  # leads alone are anybody's
    assert window.way.boxes_shown() == ("leads",)
    empty.key(Key.Key_Return)  # a proof is under somebody's initials
    assert empty.focus is window.beginning.who.cell
    empty.enter("EF")
    assert empty.judged.job.dead_proved is not None
    assert empty.judged.job.dead_proved.by == "EF"
    empty.enter("AB 3.1")
    empty.enter("AC 5.2")
    empty.enter("BC 8.3")
    assert {f.station for f in empty.judged.gate} <= {"leads", "intake"}
    assert empty.rack()[0].endswith("leads alone")
    page = empty.page
    assert isinstance(page, LeadsPage)
    assert page.keep.isVisible()
    assert "Never line voltage" in page.never.text() or page.never.text()


def test_leads_alone_are_never_signed_and_a_name_makes_them_a_job(empty: Bench) -> None:
    empty.key(Key.Key_1)
    empty.enter("3")
    assert any(f.code == "loose" and not f.waivable for f in empty.judged.gate)
    empty.ctrl(Key.Key_9)
    assert (empty.station, "give it a name" in empty.message) == ("leads", True)
    steps = [s.code for s in empty.judged.steps]
    assert steps[-1] == "keep"
    page = empty.page
    assert isinstance(page, LeadsPage)
    page.keep.click()
    empty.settle()
    assert empty.station == "intake"
    empty.enter("Mill, mixer")
    assert empty.window.way.boxes_shown() == STATIONS
    assert not any(f.code == "loose" for f in empty.judged.gate)
    assert any(f.station == "insulation" for f in empty.judged.gate)
    empty.ctrl(Key.Key_2)
    assert not page.keep.isVisible()


def test_initials_are_asked_once_at_the_first_entry_and_nothing_is_lost_over_it(
    empty: Bench,
) -> None:
    window = empty.window
    window.session.asks_who = True
    empty.key(Key.Key_2)
    empty.enter("Mill, mixer")
    assert empty.focus is window.beginning.who.cell
    assert not empty.job.entries
    for text in ("", "AB 3.1", "somebody else"):  # no initials: it stays
        empty.enter(text)
        assert window.beginning.who.isVisible()
    assert "initials such as AB" in window.beginning.who.why.text()
    empty.enter("EF")
    assert not window.beginning.who.isVisible()
    assert empty.judged.job.name == "Mill, mixer"
    assert {e.by for e in empty.job.entries} == {"EF"}
    assert window.rack.who.text() == "EF"
    typed(empty, "phone", "555")
    assert not window.beginning.who.isVisible()


def test_escape_goes_on_without_initials_and_closing_keeps_what_waits(empty: Bench) -> None:
    window = empty.window
    window.session.asks_who = True
    empty.ctrl(Key.Key_N)
    empty.enter("Mill")
    empty.key(Key.Key_Escape)
    assert empty.judged.job.name == "Mill"
    window.session.asks_who = True
    typed(empty, "phone", "555")
    assert window.session.held
    window.close()
    while window.isVisible():
        QTest.qWait(5)
    again = Bench(window.session.shop, demo=False)
    again.settle(lambda: again.window.session.open is not None)
    assert again.judged.job.ticket["phone"] == "555"
    again.close()


def test_the_demo_shop_opens_beside_and_leaves_nothing(empty: Bench) -> None:
    wanted: list[bool] = []
    empty.window.demo_wanted.connect(lambda: wanted.append(True))
    empty.key(Key.Key_3)
    assert wanted
    beside = demo_beside(empty.window)
    folder = beside.session.shop
    empty.settle(lambda: beside.session.idle and beside.session.open is not None)
    assert folder != empty.window.session.shop
    assert len(beside.session.summaries) > 10
    beside.close()
    empty.settle(lambda: not folder.exists())
