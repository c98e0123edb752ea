"""Large text: in every part of every station nothing is wider than the view, however small the window."""

from collections.abc import Iterator

import pytest

from careful_coil.core.stations import STATIONS
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


@pytest.mark.parametrize("scale", SCALES[2:])
@pytest.mark.parametrize("job", ["theatre", "chandlery"])
def test_no_part_is_wider_than_the_view(small: Bench, job: str, scale: float) -> None:
    small.open(job)
    small.window.set_theme(Theme(scale=scale))
    small.settle()
    assert too_wide(small) == []
