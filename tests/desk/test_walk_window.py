"""Motors walked through the real window, by the keys that the card and the cursor show."""

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


def test_the_window_logs_what_the_core_logs(qtbot: QtBot) -> None:
    """Entry for entry the same, within the keys a job may take."""
    bare = walk(cast_motor("permanent-split"), 1, Settings())
    shown = walk(cast_motor("permanent-split"), 1, Settings(), play_in_window)
    assert (shown.end, shown.steps[-1].code) == ("released", "sign")
    assert log(shown) == log(bare)
    assert shown.keys is not None
    assert 2 * shown.entries < shown.keys <= allowed_keys(s.model_dump() for s in shown.steps)
