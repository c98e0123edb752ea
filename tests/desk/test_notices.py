"""Notices: only while the window is elsewhere, urgent for a stop rule, and never an error without a desktop."""

import pytest

from careful_coil.desk.notices import Notices, to_desktop
from tests.desk.driver import Bench, Key


@pytest.fixture
def told(shared: Bench, monkeypatch: pytest.MonkeyPatch) -> list[tuple[str, bool]]:
    """What the desktop is told while the window is behind another one."""
    sent: list[tuple[str, bool]] = []
    monkeypatch.setattr(shared.window.notices, "_send", lambda *words: sent.append(words))
    monkeypatch.setattr(shared.window, "isActiveWindow", lambda: False)
    return sent


def test_a_finished_paper_is_told_and_stands_in_the_window_too(
    shared: Bench, told: list[tuple[str, bool]]
) -> None:
    shared.open("theatre")
    shared.ctrl(Key.Key_P)
    shared.settle(lambda: bool(told))
    assert told[0][0].startswith("Written")
    assert told[0][0] == shared.message


def test_a_stop_rule_is_urgent_and_a_figure_due_is_not(
    shared: Bench, told: list[tuple[str, bool]]
) -> None:
    shared.window.session.alarm.emit("OFF NOW")
    shared.window.session.clock.beeped.emit(60.0)
    assert told == [("OFF NOW", True), ("The time to earth is over.", False)]


def test_in_front_nothing_is_told(shared: Bench) -> None:
    sent: list[str] = []
    notices = Notices(shared.window, shared.window.session, lambda words, _: sent.append(words))
    assert shared.window.isActiveWindow()
    notices.say("Written: a sheet")
    notices.say("")
    assert sent == []


def test_without_a_desktop_nothing_happens(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere")
    to_desktop("words", True)
