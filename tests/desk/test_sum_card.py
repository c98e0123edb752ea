"""Bench sums in the window: found by name, worked out as typed, put into the log."""

import pytest
from PySide6.QtCore import Qt

from careful_coil.desk.sum_card import sum_fits
from tests.desk.driver import Bench

Key = Qt.Key


def opened(bench: Bench, words: str) -> None:
    bench.ctrl(Key.Key_K)
    bench.enter(words)


def test_a_sum_is_found_by_name_and_answers_as_typed(bench: Bench) -> None:
    opened(bench, "slip")
    card = bench.window.reading.sum_card
    assert card.isVisible()
    assert bench.focus is card.cells["hertz"]
    bench.enter("50")
    assert "Fill in all" in card.result.text()
    bench.type("1440")
    assert "Poles: 4" in card.result.text()
    assert "Slip percent: 4 %" in card.result.text()
    assert "IEC 60034-1" in card.about.text()
    bench.type("5000")
    assert "at most 3000 rpm" in card.result.text()
    assert not card.log.isEnabled()


def test_a_result_goes_into_the_log_by_keys(bench: Bench) -> None:
    opened(bench, "power-f")
    for text in ("230", "2", "300", "1"):
        bench.enter(text)
    card = bench.window.reading.sum_card
    assert bench.focus is card.log
    bench.key(Key.Key_Return)
    assert not card.isVisible()
    name, words = bench.judged.job.sums[0]
    assert name == "power-factor"
    assert "Pf: 0.652174" in words
    assert any("Sum: power-factor" in row for row in bench.ledger())
    bench.ctrl(Key.Key_Z)
    assert bench.judged.job.sums == ()


def test_escape_closes_it_and_nothing_is_logged(bench: Bench) -> None:
    opened(bench, "flux-and-torque")
    bench.key(Key.Key_Escape)
    assert not bench.window.reading.sum_card.isVisible()
    assert bench.judged.job.sums == ()


def test_a_motor_goes_before_a_sum_of_the_same_words(bench: Bench) -> None:
    opened(bench, "bakery")
    assert not bench.window.reading.sum_card.isVisible()
    assert bench.judged.job.ticket["name"].startswith("Bakery")


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("sl", ["slip"]),
        ("locked-r", ["locked-rotor"]),
        ("start-c", ["start-capacitor"]),
        ("several", ["capacitors-together"]),
        ("torque", ["flux-and-torque"]),
        ("", []),
        ("zebra", []),
    ],
)
def test_which_sums_words_mean(text: str, names: list[str]) -> None:
    assert sum_fits(text) == names


@pytest.mark.parametrize("steps", [0, 5])
def test_a_sum_of_many_inputs_keeps_its_result_in_sight(bench: Bench, steps: int) -> None:
    """Nine inputs, also at the largest text: what is typed in and what comes out can both be seen."""
    bench.window.set_theme(bench.window.theme.larger(steps))
    opened(bench, "start-capacitor")
    card = bench.window.reading.sum_card
    for text in ("30", "3.1", "60", "", "30", "2", "50", "", "50"):
        bench.enter(text)
        here = card.focusWidget()
        assert here is not None
        assert here.visibleRegion().boundingRect().height() >= 0.9 * here.height()
    assert bench.focus is card.log
    assert "Microfarad quadrature: 168.895 µF" in card.result.text()
    assert "neither may be left in" in card.remarks.text()
    for shown in (card.result, card.remarks, card.log):
        assert shown.visibleRegion().boundingRect().size() == shown.size()
    assert card.geometry().bottom() <= bench.window.whole.height()
