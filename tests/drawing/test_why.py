"""Why pages: each figure by hand, each drawing over the whole of its slider, each page in the handbook."""

import math

import pytest

from careful_coil.drawing.shapes import Area, Stroke
from careful_coil.drawing.why import (
    LIVE,
    Why,
    coil_volts,
    currents,
    flux_of,
    reversed_amps,
    slip_of,
    start_celsius,
    turning,
)
from careful_coil.handbook import pages, text_of


@pytest.mark.parametrize("page", LIVE)
def test_a_page_has_its_drawing_over_the_whole_of_its_slider(page: str) -> None:
    why: Why = LIVE[page]
    assert page in pages()
    assert text_of(page).startswith("# Why")
    said = set()
    for k in range(21):
        factor = why.low * (why.high / why.low) ** (k / 20)
        drawn = why.draw(why.usual * factor)
        points = [p for s in drawn.shapes if isinstance(s, Stroke | Area) for p in s.points]
        assert all(-1 <= x <= drawn.width + 1 and -1 <= y <= drawn.height + 1 for x, y in points)
        said.add(why.says(why.usual * factor))
    assert len(said) > 3
    assert why.told(1.0)


def test_every_why_page_has_its_drawing() -> None:
    assert {p for p in pages() if p.startswith("why-")} == set(LIVE)


def test_a_reversed_phase_shows_at_a_quarter_of_the_volts_and_burns_at_all_of_them() -> None:
    look, full = reversed_amps(25.0), reversed_amps(100.0)
    assert min(look) > 1.2  # a right motor draws a quarter of its amps there
    assert max(look) / min(look) > 1.3
    assert full == pytest.approx([4 * a for a in look])
    assert max(full) ** 2 > 50  # times the heat


def test_the_figures_by_hand() -> None:
    series, parallel = coil_volts(460.0)
    assert (series, parallel) == (pytest.approx(132.8, abs=0.1), pytest.approx(265.6, abs=0.1))
    assert slip_of(1440.0) == pytest.approx(0.04)
    assert start_celsius(10.0) == pytest.approx(40 + 10 * 3600 / 170)
    assert flux_of(60.0) == pytest.approx(5 / 6)


def test_a_capacitor_rounds_the_field_and_there_is_a_best_one() -> None:
    run, bare = currents(0.0)
    assert math.degrees(abs(math.atan2(run.imag, run.real))) == pytest.approx(63.4, abs=0.1)
    assert abs(bare) == pytest.approx(230 / abs(complex(8, 9)))
    rounds = [turning(c) for c in (5.0, 60.0, 245.0, 2000.0)]
    assert rounds[0] < rounds[1] < rounds[2] > rounds[3]
