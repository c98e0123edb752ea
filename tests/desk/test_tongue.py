"""The window's language: what is said in another, what stays, figures and days, and that all of it fits."""

import re
from collections.abc import Iterator

import pytest

from careful_coil.core.stations import TITLES
from careful_coil.desk.keeping import change_settings
from careful_coil.desk.tongue import CODES, ENGLISH, Tongue, read, speak_in, tr
from careful_coil.documents.catalogue import texts
from tests.desk.driver import Bench
from tests.desk.test_large_text import SMALL, too_wide

BEGUN = {language: code for language, code in CODES.items() if code != ENGLISH}
HOLE = re.compile(r"\{\w*\}")


@pytest.fixture
def german() -> Iterator[Tongue]:
    """The window speaks German for a while."""
    speak_in("german")
    yield Tongue("de", read("de"))
    speak_in("english")


def test_every_language_says_the_same_texts() -> None:
    said = [set(read(code)) for code in BEGUN.values()]
    assert all(own == said[0] for own in said)
    assert set(TITLES.values()) <= said[0]


def test_no_text_loses_a_hole_and_none_is_of_no_program() -> None:
    """A text that the program no longer says would never be seen to be wrong."""
    shown = [HOLE.sub("{}", text).lower() for text, _, _ in texts()]
    whole = "\n".join(shown)
    for code in BEGUN.values():
        for english, other in read(code).items():
            assert sorted(HOLE.findall(english)) == sorted(HOLE.findall(other)), (code, english)
    for english in read(next(iter(BEGUN.values()))):  # every language says the same
        assert HOLE.sub("{}", english).lower() in whole, english


def test_words_figures_and_days(german: Tongue) -> None:
    assert tr("Insulation") == "Isolation"
    assert tr("Next · Test run") == "Jetzt · Probelauf"
    assert tr("again: test run") == "erneut: Probelauf"
    assert tr("Capacitor C1 bad") == "Kondensator C1 schlecht"
    assert tr("start gear not judged, cause not found") == (
        "Anlauf nicht beurteilt, Ursache nicht gefunden"
    )
    assert tr("Not proved dead yet. Isolate, lock out.").startswith("Noch nicht als spannungsfrei")
    assert tr("C reads 3.92 Ω of 4.0 since 2026-03-04") == "C reads 3,92 Ω of 4,0 since 04.03.2026"


@pytest.mark.parametrize(
    "typed",
    ["Bakery, dough mixer", "at 40 °C", "again: hums", "192.168.0.1", "v1.2.3", "job-1.pdf"],
)
def test_what_is_not_the_programs_own_stays(german: Tongue, typed: str) -> None:
    assert tr(typed) == typed
    assert tr(tr(typed)) == tr(typed)


def test_the_shop_chooses_its_language_and_a_comma_is_read_as_a_point(bench: Bench) -> None:
    bench.open("theatre")
    window = bench.window
    try:
        change_settings(window.session, {"schools": {"language": "german"}})
        bench.settle()
        assert window.menuBar().actions()[0].text() == "&Werkstatt"
        window.go("leads")
        bench.meter_here()
        bench.enter("AG 9,53")
        bench.settle()
        assert "A to G 9.53" in bench.page.sheet.cell_words()
    finally:
        change_settings(window.session, {"schools": {"language": "english"}})
        bench.settle()
    assert window.menuBar().actions()[0].text() == "&Shop"


@pytest.mark.parametrize("language", BEGUN)
def test_no_part_is_wider_than_the_view_in_another_language(shared: Bench, language: str) -> None:
    window, before = shared.window, shared.window.size()
    speak_in(language)
    window.resize(*SMALL)
    try:
        shared.open("chandlery")
        window.set_theme(window.theme)
        shared.settle()
        assert too_wide(shared) == []
    finally:
        speak_in("english")
        window.resize(before)
        shared.settle()
