"""Motors walked through the real window, by the keys that the card and the cursor show."""

import pytest
from pytestqt.qtbot import QtBot

from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.desk.walk_window import play_in_window
from careful_coil.documents.walk import WalkDocument
from careful_coil.walk.keys import allowed_keys
from careful_coil.walk.tell import walk
from tests.desk.ears import by_ear


def test_a_whole_job_is_done_by_what_is_heard_alone(qtbot: QtBot) -> None:
    """The same log as without a window: role, name, rows, ticks and the current row were all that was known."""
    bare = walk(cast_motor("nine-site"), 1, Settings())
    heard = walk(cast_motor("nine-site"), 1, Settings(), by_ear)
    assert (heard.end, heard.right) == ("released", True)
    assert log(heard) == log(bare)


def log(document: WalkDocument) -> list[object]:
    return [(e["by"], e["station"], e["body"]) for e in document.job["entries"]]


@pytest.mark.parametrize(
    ("name", "end", "at"),
    [
        ("permanent-split", "released", "sign"),
        ("nine-site", "released", "sign"),
    ],
)
def test_the_window_logs_what_the_core_logs(qtbot: QtBot, name: str, end: str, at: str) -> None:
    """Entry for entry the same; a walk ends where the cursor is elsewhere than what is asked."""
    bare = walk(cast_motor(name), 1, Settings())
    shown = walk(cast_motor(name), 1, Settings(), play_in_window)
    assert (shown.end, shown.steps[-1].code) == (end, at)
    assert shown.entries >= 18
    assert log(shown) == log(bare)[: shown.entries]
    assert shown.keys is not None
    assert 2 * shown.entries < shown.keys <= allowed_keys(s.model_dump() for s in shown.steps)
    if end == "released":
        assert log(shown) == log(bare)
    else:
        told = shown.steps[-1].skip
        assert "the cursor is at" in told or told == "no field takes an answer"
