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
    card = bench.window.sum_card
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
    card = bench.window.sum_card
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
    assert not bench.window.sum_card.isVisible()
    assert bench.judged.job.sums == ()


def test_a_motor_goes_before_a_sum_of_the_same_words(bench: Bench) -> None:
    opened(bench, "bakery")
    assert not bench.window.sum_card.isVisible()
    assert bench.judged.job.ticket["name"].startswith("Bakery")


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("sl", ["slip"]),
        ("locked", ["locked-rotor"]),
        ("torque", ["flux-and-torque"]),
        ("", []),
        ("zebra", []),
    ],
)
def test_which_sums_words_mean(text: str, names: list[str]) -> None:
    assert sum_fits(text) == names
