"""The motor in section on the screen: it comes to rest at any width, with and without a scroll bar."""

import pytest

from careful_coil.desk.intake.condition import ConditionPart
from careful_coil.desk.mechanics.felt import ShaftPart
from careful_coil.desk.stations.intake import IntakePage
from careful_coil.desk.stations.mechanics import MechanicsPage
from tests.desk.driver import Bench
from tests.desk.hands import station


@pytest.mark.parametrize(
    ("number", "page", "part"), [(1, IntakePage, ConditionPart), (5, MechanicsPage, ShaftPart)]
)
def test_it_comes_to_rest_at_every_width(
    shared: Bench, number: int, page: type, part: type
) -> None:
    shared.open("bakery")
    window = shared.window
    before = window.size()
    station(shared, number, page, part.name)  # type: ignore[attr-defined]
    for wide in range(980, 1420, 6):
        window.resize(wide, 700)
        shared.settle()
    window.resize(before)
    shared.settle()
    assert shared.page.body.width() <= shared.page.viewport().width()
