"""Release by keys: other ways out, work on site, the foreman, the follow-up, the tag as a file."""

from pathlib import Path

import pytest
from pypdf import PdfReader

from careful_coil.desk.stations.release import ReleasePage
from tests.desk.driver import Bench, Key
from tests.desk.hands import station, typed


def release(bench: Bench, motor: str) -> ReleasePage:
    bench.open(motor)
    return station(bench, 9, ReleasePage)


def tag(bench: Bench, page: ReleasePage, number: int, shop: Path) -> str:
    page.tag.setFocus()
    bench.key(Key.Key_Return)
    assert page.said.words.startswith("Written:")
    (only,) = PdfReader(shop / "sheets" / f"tag-{number}.pdf").pages
    return " ".join(str(only.extract_text()).split())


def test_a_motor_returned_unrepaired_gets_a_tag_and_no_signature(
    bench: Bench, tmp_path: Path
) -> None:
    page = release(bench, "boatyard")
    typed(bench, "let-go", "unrepaired costs more than a new one")
    assert page.gate.rows == [
        ("hold", "DO NOT CONNECT", "Returned unrepaired: costs more than a new one")
    ]
    number = bench.job.number
    assert any("do not connect" in row for row in bench.rack())
    words = tag(bench, page, number, tmp_path / "shop")
    assert words.startswith("DO NOT CONNECT")
    assert "costs more than a new one" in words
    typed(bench, "sign", "AB")
    assert "let it go" not in bench.next
    assert "no way out" in page.fields["sign"].message.text()
    assert bench.judged.job.released is None
    assert page.put_cursor("let-go")
    bench.settle()
    bench.key(Key.Key_Delete)
    bench.key(Key.Key_Return)
    assert bench.judged.gate
    assert page.gate.rows[0][1] == bench.judged.gate[0].subject


@pytest.mark.parametrize("text", ["sold cheap", "unrepaired", "scrap "])
def test_another_way_out_wants_one_of_two_words_and_a_reason(bench: Bench, text: str) -> None:
    page = release(bench, "boatyard")
    typed(bench, "let-go", text)
    assert "unrepaired or scrap" in page.fields["let-go"].message.text()
    assert bench.judged.job.let_go is None


def test_a_motor_in_work_has_a_tag_that_says_do_not_connect(bench: Bench, tmp_path: Path) -> None:
    page = release(bench, "theatre")
    words = tag(bench, page, 214, tmp_path / "shop")
    assert words.startswith("DO NOT CONNECT")
    assert f"{len(bench.judged.gate)} lines of the gate are open" in words


def test_a_released_motor_has_volts_and_direction_on_its_tag_and_a_follow_up(
    bench: Bench, tmp_path: Path
) -> None:
    page = release(bench, "cider")
    assert not page.follow.isVisible()
    typed(bench, "sign", "CD")
    words = tag(bench, page, 206, tmp_path / "shop")
    assert words.startswith("400 V 50 Hz")
    assert "Clockwise seen from the drive end" in words
    before, jobs = bench.job.id, len(bench.rack())
    page.follow.setFocus()
    bench.key(Key.Key_Return)
    bench.settle(lambda: bench.job.id != before)
    assert bench.station == "intake"
    assert len(bench.rack()) == jobs + 1
    assert bench.judged.job.follows is not None
    assert bench.judged.job.follows.number == 206
    assert bench.judged.job.tags == tuple("ABCDEF")
    assert not bench.judged.released
    assert bench.judged.gate


def test_on_site_its_own_lines_stand_and_go_when_read(bench: Bench) -> None:
    page = release(bench, "cider")
    assert "in the shop" in page.site.text()
    page.site.setFocus()
    bench.key(Key.Key_Return)
    assert bench.judged.job.on_site
    assert "on site" in page.site.text()
    open_now = {f.code for f in bench.judged.gate}
    assert {"site-phase-order", "site-amps", "site-volts"} <= open_now
    typed(bench, "sign", "CD")
    assert bench.judged.job.released is None
    for field, words in (
        ("site-phase-order", "L1 L2 L3"),
        ("site-amps", "6.1 6.2 6.1 A"),
        ("site-volts", "398 399 400 V running"),
    ):
        typed(bench, field, words)
    assert not open_now & {"site-phase-order"} & {f.code for f in bench.judged.gate}
    page.site.setFocus()
    bench.key(Key.Key_Return)
    assert not bench.judged.job.on_site


def test_only_the_foreman_sets_aside_where_one_is_named(bench: Bench) -> None:
    page = release(bench, "theatre")
    bench.window.session.settings = bench.window.session.settings.changed({"foreman": "EF"})
    assert "mechanics" in page.free.words
    typed(bench, "waive", "mechanics CD runs in oil")
    assert "EF" in page.fields["waive"].message.text()
    assert not bench.judged.job.waived


def test_a_released_job_is_frozen_but_for_its_signature(bench: Bench) -> None:
    release(bench, "cider")
    typed(bench, "sign", "CD")
    before = len(bench.job.entries)
    bench.meter_here()
    bench.enter("AD 2.6")
    assert len(bench.job.entries) == before
    assert bench.note.startswith("Released and frozen")
    page = release(bench, "cider")
    typed(bench, "let-go", "scrap fell off the lorry")
    assert bench.judged.job.let_go is None
    assert page.fields["let-go"].cell.text() == ""
    assert bench.judged.released
    bench.ctrl(Key.Key_Z)
    assert not bench.judged.released
    typed(bench, "let-go", "scrap fell off the lorry")
    assert bench.judged.job.let_go is not None


def test_the_customers_sheet_is_written_beside_the_shops(bench: Bench, tmp_path: Path) -> None:
    page = release(bench, "cider")
    page.customers.setFocus()
    bench.key(Key.Key_Return)
    assert page.said.words.startswith("Written:")
    pages = PdfReader(tmp_path / "shop" / "sheets" / "customer-206.pdf").pages
    words = " ".join(" ".join(p.extract_text() for p in pages).split())
    assert "Readings, ohms as read" not in words
    assert "Test run On somebody's word: 400 V, no load 2.6" in words
