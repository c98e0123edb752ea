"""The handbook in the window: F1 opens it at the part that is open, it is searched, Escape leads back."""

from PySide6.QtCore import QUrl
from PySide6.QtGui import QTextDocument

from careful_coil.core.settings import Settings
from careful_coil.desk.gear.capacitors import CapacitorsPart
from careful_coil.desk.said import speak
from careful_coil.desk.stations.start_gear import StartGearPage
from careful_coil.desk.words_here import words_in
from tests.desk.driver import Bench, Key
from tests.desk.hands import part, station

PICTURE = QTextDocument.ResourceType.ImageResource.value


def test_f1_opens_the_page_of_the_part_and_escape_leads_back(shared: Bench) -> None:
    shared.open("chandlery")
    station(shared, 4, StartGearPage)
    part(shared, CapacitorsPart)
    before = shared.focus
    shared.key(Key.Key_F1)
    book = shared.window.reading.handbook
    assert book.isVisible()
    assert (book.page, book.heading) == ("start-gear.md", "Capacitors")
    assert "discharge" in book.browser.toPlainText().lower()
    assert shared.window.ledger.isVisible()  # Next stays in sight
    shared.key(Key.Key_Escape)
    assert not book.isVisible()
    assert shared.focus is before


def test_it_is_searched_and_the_first_place_opened_by_key(shared: Bench) -> None:
    shared.open("chandlery")
    shared.key(Key.Key_F1)
    book = shared.window.reading.handbook
    shared.type("earth bond")
    assert book.hits
    assert "Earth bond" in book.browser.toPlainText()
    shared.key(Key.Key_Return)
    assert (book.page, book.heading) == ("insulation.md", "Earth bond")
    bar = book.browser.verticalScrollBar()
    at = bar.value()
    assert at > 0
    shared.key(Key.Key_PageUp)
    assert bar.value() < at
    shared.type("qqqq")
    assert "No places" in book.browser.toPlainText()
    shared.key(Key.Key_F1)
    assert not book.isVisible()


def test_it_speaks_in_the_terms_of_the_shop_and_leaves_what_is_typed(shared: Bench) -> None:
    shared.key(Key.Key_F1)
    book = shared.window.reading.handbook
    try:
        speak(Settings().changed({"schools": {"terms": "american"}}))
        book.show_page("insulation.md", "Earth bond")
        text = book.browser.toPlainText()
        assert "Ground bond" in text
        assert "Earth bond" not in text
        assert book.browser.verticalScrollBar().value() > 0  # its heading is found all the same
    finally:
        speak(Settings())
        shared.key(Key.Key_Escape)


def test_links_lead_to_other_pages(shared: Bench) -> None:

    shared.key(Key.Key_F1)
    book = shared.window.reading.handbook
    book.browser.anchorClicked.emit(QUrl("mechanics.md#seals"))
    assert (book.page, book.heading.lower()) == ("mechanics.md", "seals")
    book.browser.anchorClicked.emit(QUrl("../../LICENSE"))
    assert "not in the handbook" in book.foot.text()
    assert book.page == "mechanics.md"
    shared.key(Key.Key_Escape)


def test_a_why_page_follows_its_slider(shared: Bench) -> None:
    shared.key(Key.Key_F1)
    book = shared.window.reading.handbook
    assert book.alive is None
    book.browser.anchorClicked.emit(QUrl("why-slip.md"))
    alive = book.alive
    assert alive is not None
    first = alive.words.words
    alive.slider.setFocus()
    shared.key(Key.Key_Right)
    assert alive.words.words != first
    assert "%" in alive.words.words
    book.show_page("mechanics.md")
    assert book.alive is None
    shared.key(Key.Key_F1)


def test_the_words_on_the_screen_are_said_with_where_they_are_spoken_of(shared: Bench) -> None:
    shared.open("boatyard")
    shared.window.go("insulation")
    shared.settle()
    before = shared.window.focusWidget()
    shared.key(Key.Key_F3)
    book = shared.window.reading.handbook
    shown = book.browser.toPlainText()
    assert shown.startswith("Words on this screen")
    assert "earth, American ground: the protective conductor" in shown
    assert "commutator" not in shown.lower()
    shared.key(Key.Key_Escape)
    assert not book.isVisible()
    assert shared.window.focusWidget() is before


def test_a_word_is_found_whole_in_either_name_and_in_the_plural() -> None:
    def names(text: str) -> list[str]:
        return [w.british for w in words_in(text)]

    assert names("Two end bells, one Hipot.") == ["end shield", "flash test"]
    assert names("unearthed bondage") == []


def test_a_lesson_shows_its_drawings_in_the_themes_colours(shared: Bench) -> None:
    window, theme = shared.window, shared.window.theme
    shared.key(Key.Key_F1)
    book = window.reading.handbook
    try:
        for shown in (theme, theme.other()):
            window.set_theme(shown)
            book.show_page("learn-six-marked.md")
            name = QUrl("learn-six-marked-card.svg")
            image = book.browser.loadResource(PICTURE, name)
            assert 200 < image.width() <= book.browser.viewport().width()
            assert image.pixelColor(0, 0) == shown.colour("surface")
            seen = {
                image.pixelColor(x, y).name() for x in range(0, 300, 3) for y in range(0, 90, 3)
            }
            assert shown.colour("ink").name() in seen
        assert book.browser.loadResource(PICTURE, QUrl("nothing.svg")).isNull()
    finally:
        window.set_theme(theme)
        shared.key(Key.Key_Escape)
