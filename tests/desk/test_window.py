"""The window: rack, stations, keys, themes, sizes, and what it says when something is wrong."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest
from fontTools.ttLib import TTFont

from careful_coil.assets import font_bytes
from careful_coil.core.stations import STATIONS
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.theme import SCALES, Theme
from careful_coil.desk.way import SHOWN
from careful_coil.drawing.tokens import DIM, LIGHT, STRIP_QUIET
from tests.desk.driver import CTRL, SHIFT, Bench, Key

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "careful_coil"


def test_the_rack_shows_the_shop_in_order_of_urgency(bench: Bench) -> None:
    names = [row.split(" ", 1)[1].split(",")[0] for row in bench.rack()]
    assert names == [
        "Boatyard",
        "Theatre",
        "Joinery",
        "Chandlery",
        "Dairy",
        "Waterworks",
        "School workshop",
        "Glasshouse",
        "Ropewalk",
        "Bakery",
        "Cold store",
        "Lock house",
        "Garage",
        "Scrap yard",
        "Cider mill",
        "Quarry",
    ]
    assert "insulation too low" in bench.rack()[0]
    assert "ready to sign" in bench.rack()[-2]
    assert "returned unrepaired: do not connect" in bench.rack()[-1]


@pytest.mark.parametrize(
    ("words", "found"),
    [("", 16), ("theatre", 1), ("211", 1), ("mill hill", 1), ("granary", 1), ("zebra", 0)],
)
def test_the_search_finds_by_any_word_on_record(shared: Bench, words: str, found: int) -> None:
    shared.ctrl(Key.Key_K)
    shared.type(words)
    assert len(shared.rack()) == found


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("lock", "Lock house"),  # a name that begins so, before the boatyard below the lock
        ("bo", "Boatyard"),
        ("214", "Theatre"),
        ("house", "Lock house"),  # a whole word, before a part of one
    ],
)
def test_the_finder_shows_the_nearest_first(shared: Bench, words: str, first: str) -> None:
    shared.ctrl(Key.Key_K)
    shared.type(words)
    assert first in shared.rack()[0]


def test_enter_in_an_empty_finder_does_what_next_says(bench: Bench) -> None:
    assert bench.focus is bench.window.strip.line  # the first key is for the motor shown
    bench.ctrl(Key.Key_K)
    station = bench.judged.next.station if bench.judged.next else ""
    name = bench.judged.job.name
    bench.enter()
    assert (bench.judged.job.name, bench.station) == (name, station)


def test_page_down_on_the_strip_and_enter_at_the_initials_lead_on(shared: Bench) -> None:
    shared.ctrl(Key.Key_5)
    page = shared.page
    assert isinstance(page, PartedPage)
    page.open_part("shaft")
    shared.ctrl(Key.Key_M)
    shared.key(Key.Key_PageDown)
    assert page.part.name == "bearings"
    assert page.isAncestorOf(shared.focus)
    shared.window.rack.who.setFocus()
    shared.key(Key.Key_Return)
    assert shared.focus is shared.window.strip.line


def test_enter_in_the_search_opens_the_first(bench: Bench) -> None:
    bench.open("theatre")
    assert bench.judged.job.name == "Theatre, stage fan"
    assert bench.window.way.title() == "Theatre, stage fan"


@pytest.mark.parametrize("station", list(SHOWN))
def test_every_station_opens_by_its_number(shared: Bench, station: str) -> None:
    number = list(STATIONS).index(station) + 1  # type: ignore[arg-type]
    shared.ctrl(Key(int(Key.Key_0) + number))
    assert shared.station == station
    assert shared.window.stack.currentWidget() is shared.window.pages[shared.station]


def test_release_is_number_nine() -> None:
    assert STATIONS[8] == "release"
    assert [STATIONS.index(s) + 1 for s in SHOWN] == list(range(1, 10))


def test_the_ledger_lists_found_bad_first_and_tells_word_and_reason(bench: Bench) -> None:
    rows = bench.ledger()
    assert rows[0] == "Found"
    assert rows[1].startswith("hold: Insulation too low. ")
    assert rows.index("Found") < rows.index("Still needed") < rows.index("Good, noted")


def test_what_a_station_still_needs_is_one_line_that_a_key_opens(bench: Bench) -> None:
    ledger = bench.window.ledger
    lines = [k for k, row in enumerate(ledger.model.rows) if row.key]
    keys = [ledger.model.rows[k].key for k in lines]
    assert len(keys) == len(set(keys))
    first = ledger.model.rows[lines[0]]
    assert first.folded[0].subject not in [r.words for r in ledger.model.rows]
    before = ledger.model.rowCount()
    ledger.list.setFocus()
    ledger.list.setCurrentIndex(ledger.model.index(lines[0]))
    bench.key(Key.Key_Return)
    assert ledger.model.rowCount() == before + len(first.folded)
    row = ledger.model.rows[lines[0] + 1]
    assert row.finding == first.folded[0]
    ledger.list.setCurrentIndex(ledger.model.index(lines[0] + 1))
    bench.key(Key.Key_Return)
    assert bench.station == first.folded[0].station


def test_what_next_says_is_not_said_twice(bench: Bench) -> None:
    bench.open("dairy")
    said = bench.judged.next
    assert said is not None
    for row in bench.window.ledger.model.rows:
        if row.finding is not None and row.finding.why and row.finding.why in said.why:
            assert row.brief


def test_a_chosen_finding_shows_its_source(bench: Bench) -> None:
    ledger = bench.window.ledger
    ledger.list.setCurrentIndex(ledger.model.index(1))
    bench.settle()
    row = ledger.model.rows[1]
    lines = [words for words, *_ in ledger.delegate._lines(row, True)]
    assert any("IEEE 43" in words for words in lines)


def test_the_next_card_is_enter_wherever_nothing_is_typed(bench: Bench) -> None:
    bench.open("cider")
    bench.ctrl(Key.Key_2)
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.station == "release"
    assert bench.focus is bench.field("sign").cell


def test_f1_tells_what_the_station_is_for_and_the_key_sheet_unfolds(bench: Bench) -> None:
    bench.ctrl(Key.Key_2)
    bench.key(Key.Key_F1)
    assert bench.window.reading.handbook.page == "leads.md"
    bench.key(Key.Key_F1)
    bench.key(Key.Key_F2)
    assert bench.message.startswith("Where you were, ") or "Nothing is open" in bench.message
    bench.key(Key.Key_F1, SHIFT)
    assert bench.window.keys.isVisible()
    bench.key(Key.Key_Space)
    assert not bench.window.keys.isVisible()


def test_the_rack_folds_away(bench: Bench) -> None:
    bench.key(Key.Key_F6)
    assert not bench.window.rack.isVisible()
    bench.ctrl(Key.Key_K)
    assert bench.window.rack.isVisible()


def test_standing_back_shows_next_large_and_keys_still_record(bench: Bench) -> None:
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    bench.meter_here()
    bench.key(Key.Key_F11)
    view = bench.window.standback
    assert view.isVisible()
    assert view.geometry().bottom() < bench.window.strip.geometry().bottom()
    assert view.words()[0] == "A → C"
    bench.type("7.71")
    assert view.words()[1] == "7.71 Ω"
    bench.key(Key.Key_Return)
    assert view.words()[0] != "A → C"
    assert view.words()[1] == ""
    assert view.verdict() == ("good", "A C: 7.71")
    assert view.words()[2].startswith("Then")
    bench.key(Key.Key_F11)
    assert not view.isVisible()


def test_text_grows_and_shrinks_within_bounds(bench: Bench) -> None:
    for _ in range(6):
        bench.key(Key.Key_Equal, CTRL)
    assert bench.window.theme.scale == SCALES[-1]
    for _ in range(6):
        bench.key(Key.Key_Minus, CTRL)
    assert bench.window.theme.scale == SCALES[0]


@pytest.mark.parametrize(
    ("size", "scale", "dim"),
    [
        (size, scale, (k + n) % 2 == 1)
        for n, size in enumerate([(1280, 800), (1100, 700)])
        for k, scale in enumerate(SCALES)
        if (n + k) % 2 or scale == SCALES[-1]
    ],
)
def test_every_view_paints_at_every_size_and_theme(
    bench: Bench, dim: bool, scale: float, size: tuple[int, int]
) -> None:
    bench.window.resize(*size)
    bench.window.set_theme(Theme(dim=dim, scale=scale))
    bench.open("theatre")
    ground = bench.window.theme.colour("ground").rgb()
    for station in SHOWN:
        bench.window.go(station)
        bench.settle()
        picture = bench.window.grab().toImage()
        assert (
            picture.pixel(bench.window.way.x() + 4, bench.window.way.geometry().bottom() + 60)
            == ground
        )
    assert bench.window.width() == size[0]


def luminance(colour: str) -> float:
    """Relative luminance. Source: WCAG 2.2."""
    parts = [int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5)]
    r, g, b = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts)
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(one: str, two: str) -> float:
    """Contrast ratio. Source: WCAG 2.2."""
    light, dark = sorted((luminance(one), luminance(two)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.mark.parametrize("theme", [LIGHT, DIM], ids=["light", "dim"])
@pytest.mark.parametrize("ground", ["ground", "surface"])
@pytest.mark.parametrize(
    "token", ["ink", "quiet", "copper", "good", "watch", "hold", "unproven", "note"]
)
def test_all_text_is_readable_on_both_grounds(
    theme: dict[str, str], ground: str, token: str
) -> None:
    assert contrast(theme[token], theme[ground]) >= 4.5


@pytest.mark.parametrize("theme", [LIGHT, DIM], ids=["light", "dim"])
def test_the_strip_is_readable(theme: dict[str, str]) -> None:
    for token in ("strip-text", "strip-key"):
        assert contrast(theme[token], theme["strip"]) >= 4.5
    assert contrast(STRIP_QUIET, theme["strip"]) >= 4.5
    assert contrast("#1B1916", theme["strip-key"]) >= 4.5
    for mark in ("good", "watch", "hold", "unproven", "note"):
        assert contrast(DIM[mark], theme["strip"]) >= 3.0


@pytest.mark.parametrize("face", ["Regular", "Bold"])
def test_every_string_of_ours_has_its_glyphs_in_the_face(face: str) -> None:
    import io

    table = TTFont(io.BytesIO(font_bytes(face))).getBestCmap()
    used = {c for f in SOURCE.rglob("*.py") for c in f.read_text(encoding="utf-8") if ord(c) > 126}
    code_only = set(
        "ć∥∂θΣαᵀ⁺\u2126\u2212\u202f\u03bc\u00a0\ufeff∞∝⅔√−⁴⁄"
    )  # docstrings and what is read, not shown
    assert {c for c in used - code_only if ord(c) not in table} == set()


def test_a_shop_of_a_newer_version_is_refused_and_not_touched(
    qtbot: object, tmp_path: Path
) -> None:
    shop = tmp_path / "shop"
    shop.mkdir()
    text = json.dumps({"format": "careful-coil/shop", "version": 99})
    (shop / "shop.json").write_text(text)
    bench = Bench(shop, demo=False)
    bench.settle()
    assert "newer version" in bench.message
    assert [f.name for f in shop.iterdir()] == ["shop.json"]
    assert (shop / "shop.json").read_text() == text
    bench.close()


def test_an_empty_shop_teaches_how_to_begin(empty: Bench) -> None:
    assert not empty.window.ledger.isVisible()
    assert not empty.window.strip.line.isVisible()
    assert empty.focus is empty.window.beginning.first.offers
    empty.ctrl(Key.Key_3)
    empty.ctrl(Key.Key_M)
    empty.type("AF")
    assert empty.window.session.open is None
    assert empty.focus is empty.window.beginning.first.offers


def test_what_a_user_types_is_never_read_as_markup(empty: Bench) -> None:
    empty.ctrl(Key.Key_N)
    empty.enter("<b>Mill</b> & <img src=x>")
    assert empty.window.way.title() == "<b>Mill</b> & <img src=x>"
    assert "<b>Mill</b>" in empty.rack()[0]


def test_jobs_are_there_again_after_closing(qtbot: object, tmp_path: Path) -> None:
    first = Bench(tmp_path / "shop", demo=False)
    first.ctrl(Key.Key_N)
    first.enter("Mill")
    first.close()
    second = Bench(tmp_path / "shop", demo=False)
    second.settle(lambda: second.window.session.open is not None)
    assert second.judged.job.name == "Mill"
    second.close()


SMOKE = """
import sys
from pathlib import Path
from tests.desk.driver import Bench, Key
bench = Bench(Path(sys.argv[1]), demo=False)
bench.ctrl(Key.Key_L)
bench.enter("6")
bench.settle(lambda: len(bench.rack()) > 0)
picture = bench.window.grab()
print(picture.width(), picture.height(), len(bench.rack()))
bench.close()
"""


@pytest.mark.skipif(shutil.which("xvfb-run") is None, reason="Xvfb is not installed")
def test_the_window_opens_on_a_real_display(tmp_path: Path) -> None:
    """A green offscreen run does not show a library that xcb misses."""
    environment = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY")}
    environment |= {"QT_QPA_PLATFORM": "xcb", "PYTHONPATH": str(ROOT)}
    done = subprocess.run(
        [
            "xvfb-run",
            "-a",
            "-s",
            "-screen 0 1400x900x24",
            sys.executable,
            "-c",
            SMOKE,
            str(tmp_path / "shop"),
        ],
        capture_output=True,
        text=True,
        env=environment,
        cwd=ROOT,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    assert done.stdout.split() == ["1280", "800", "1"]
