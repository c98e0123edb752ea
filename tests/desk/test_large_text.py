"""Large text: in every part of every station nothing is wider than the view, however small the window."""

import itertools
from collections.abc import Iterator

import pytest
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QPushButton

from careful_coil.core.stations import STATIONS
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.desk.theme import SCALES, Theme
from tests.desk.driver import Bench

SMALL = (1100, 700)


@pytest.fixture
def small(shared: Bench) -> Iterator[Bench]:
    """The shared window made small; as it was afterwards."""
    window = shared.window
    before, theme = window.size(), window.theme
    window.resize(*SMALL)
    yield shared
    window.set_theme(theme)
    window.resize(before)
    shared.settle()


def too_wide(bench: Bench) -> list[str]:
    """Return the parts whose body is wider than what is seen of it."""
    found = []
    for station in STATIONS:
        bench.window.go(station)
        page = bench.page
        for name in page.parts if isinstance(page, PartedPage) else ("",):
            if isinstance(page, PartedPage):
                page.open_part(name)
            bench.settle()
            if page.body.width() > page.viewport().width():
                found.append(f"{station} {name}")
    return found


def light_of(colour: QColor) -> float:
    """Return the relative luminance of a colour. Source: WCAG 2.2, definition of relative luminance."""
    parts = (colour.redF(), colour.greenF(), colour.blueF())
    red, green, blue = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


@pytest.mark.parametrize("dim", [False, True])
@pytest.mark.parametrize("under", ["ground", "surface"])
def test_words_and_marks_stand_out_from_what_is_under_them(under: str, dim: bool) -> None:
    """4.5 to 1 for words, hints in empty cells among them, 3 to 1 for shapes."""
    theme = Theme(dim=dim)
    words, shapes = ("ink", "quiet", "hold"), ("note", "watch", "good", "unproven", "copper")
    for token in (*words, *shapes):
        both = sorted(light_of(theme.colour(t)) + 0.05 for t in (token, under))
        assert both[1] / both[0] >= (4.5 if token in words else 3.0), token


def test_what_a_drawing_does_to_a_face_or_a_colour_is_its_own() -> None:
    theme = Theme(scale=1.5)
    font, colour = theme.font(13, bold=True), theme.colour("ink")
    before = font.pixelSize(), colour.alpha()
    font.setPixelSize(4)
    colour.setAlpha(9)
    assert (theme.font(13, bold=True).pixelSize(), theme.colour("ink").alpha()) == before


@pytest.mark.parametrize("scale", SCALES)
def test_every_station_stays_in_sight_and_can_be_clicked(small: Bench, scale: float) -> None:
    small.window.set_theme(Theme(scale=scale))
    small.settle()
    way = small.window.way
    for station in STATIONS:
        box = way.box_of(station)
        assert way.rect().contains(box), station
        small.click(way, box.center())
        assert small.station == station


def test_the_words_of_a_button_break_where_it_is_narrow(shared: Bench) -> None:
    words = "End: bench switch is off, supply at zero, capacitors discharged"
    button = EnterButton(words)
    button.show()  # what is hidden is told of its size later
    button.resize(button.sizeHint())
    whole = QPushButton.text(button)
    button.resize(button.minimumSizeHint().width() + 40, 60)
    lines = QPushButton.text(button).split("\n")
    assert (whole, button.text(), button.accessibleName()) == (words,) * 3
    assert len(lines) > 2
    assert " ".join(lines) == words
    widest = max(button.fontMetrics().horizontalAdvance(line) for line in lines)
    assert widest < button.width()
    button.close()


@pytest.mark.parametrize("scale", SCALES[2:])
@pytest.mark.parametrize("job", ["theatre", "chandlery"])
def test_no_part_is_wider_than_the_view(small: Bench, job: str, scale: float) -> None:
    small.open(job)
    small.window.set_theme(Theme(scale=scale))
    small.settle()
    assert too_wide(small) == []


@pytest.mark.parametrize("dim", [False, True])
def test_phases_are_told_apart_and_their_letters_can_be_read(dim: bool) -> None:
    """By 1.5 to 1 between neighbours in tint, 4.5 to 1 for the letter on each; the letter tells them too."""
    theme = Theme(dim=dim)
    lights = [light_of(theme.colour(f"phase-{k}")) + 0.05 for k in (1, 2, 3)]
    by_tint = sorted(lights)
    assert all(b / a >= 1.5 for a, b in itertools.pairwise(by_tint))
    for k, tint in enumerate(lights, 1):
        letter = light_of(theme.colour(f"on-phase-{k}")) + 0.05
        assert max(letter, tint) / min(letter, tint) >= 4.5
