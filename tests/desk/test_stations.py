"""Intake and Release, by keys, and what they refuse."""

from pathlib import Path

import pytest
from pypdf import PdfReader

from careful_coil.core.stations import STATIONS, Station
from careful_coil.desk.release.gate import GatePart
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.stations.release import ReleasePage
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station


def test_intake_shows_what_is_on_record(bench: Bench) -> None:
    bench.open("theatre")
    bench.ctrl(Key.Key_1)
    assert bench.field("name").cell.text() == "Theatre, stage fan"
    assert bench.page.put_cursor("volt")
    assert bench.field("volt").cell.text() == "230/460"
    assert bench.page.put_cursor("found")
    assert bench.field("found").cell.text() == "L1 A B; L2 C G; L3 D E; F H J"


@pytest.mark.parametrize(
    ("name", "text", "words"),
    [
        ("phases", "2", "1 or 3"),
        ("volt", "460/230", "the lower first"),
        ("hertz", "fifty", "hertz"),
        ("amp", "5.8/x", "amps"),
        ("power", "1 donkey", "power"),
    ],
)
def test_a_plate_field_that_cannot_be_read_is_told_below_it(
    shared: Bench, name: str, text: str, words: str
) -> None:
    shared.ctrl(Key.Key_1)
    assert shared.page.put_cursor(name)
    before = len(shared.job.entries)
    shared.enter(text)
    assert words in shared.field(name).message.text()
    assert shared.field(name).cell.text() == text
    assert shared.focus is shared.field(name).cell
    assert len(shared.job.entries) == before


def release(bench: Bench) -> ReleasePage:
    return station(bench, 9, ReleasePage)


def test_a_signature_is_refused_while_something_stands_open(bench: Bench) -> None:
    bench.open("boatyard")
    page = release(bench)
    assert page.put_cursor("sign")
    bench.enter("AB")
    assert "insulation too low" in page.fields["sign"].message.text()
    assert bench.judged.job.released is None


def test_the_gate_lists_everything_with_its_reason(bench: Bench) -> None:
    bench.open("theatre")
    release(bench)
    rows = part(bench, GatePart).gate.rows
    assert rows[0][0] == "hold"
    assert len(rows) == len(bench.judged.gate)
    assert all(why for _, _, why in rows)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("installer", "initials and a reason"),
        ("installer A.B. old", "second person"),
        ("hookup CD waits", "never waived"),
        ("unheard CD of", "a code"),
    ],
)
def test_what_may_not_be_set_aside_is_not(shared: Bench, text: str, words: str) -> None:
    shared.open("theatre")
    page = release(shared)
    assert page.put_cursor("waive")
    shared.enter(text)
    assert words in page.fields["waive"].message.text()
    assert not shared.judged.job.waived


def test_a_second_person_may_set_aside_what_cannot_hurt(bench: Bench) -> None:
    bench.open("theatre")
    page = release(bench)
    assert page.put_cursor("waive")
    bench.enter("installer CD told by word of mouth")
    assert "installer" not in {f.code for f in bench.judged.gate}
    assert page.fields["waive"].cell.text() == ""


def test_signing_releases_and_makes_the_sheet(bench: Bench, tmp_path: Path) -> None:
    bench.open("cider")
    page = release(bench)
    assert bench.next == "Sign and let it go"
    assert page.put_cursor("sign")
    bench.enter("CD")
    assert bench.judged.job.released is not None
    file = tmp_path / "shop" / "sheets" / "job-206.pdf"
    assert str(file) in bench.message
    assert len(PdfReader(file).pages) in (1, 2, 3)
    assert any("released" in tag for tag in bench.rack())


def test_a_sheet_that_cannot_be_written_is_told(bench: Bench, tmp_path: Path) -> None:
    (tmp_path / "shop" / "sheets").write_text("in the way")
    bench.ctrl(Key.Key_P)
    assert bench.window.way._tone == "hold"
    assert bench.message
    assert (tmp_path / "shop" / "sheets").read_text() == "in the way"


@pytest.mark.parametrize("name", [s for s in STATIONS if s != "leads"])
def test_page_down_leads_through_every_part_and_back_to_the_first(
    shared: Bench, name: Station
) -> None:
    """From wherever the cursor starts in it, no part is a trap."""
    shared.open("chandlery")
    shared.window.go(name)
    page = shared.page
    assert isinstance(page, PartedPage)
    seen = page.seen()
    page.open_part(seen[0])
    shared.settle()
    visited = [page.part.name]
    for _ in range(3 * len(seen)):
        shared.key(Key.Key_PageDown)
        visited.append(page.part.name)
        if visited[-1] == seen[0] and len(set(visited)) >= len(seen):
            break
    assert list(dict.fromkeys(visited)) == seen
    assert visited[-1] == seen[0]
