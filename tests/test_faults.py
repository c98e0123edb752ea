"""What nobody foresaw: one line, a small log that says where, nothing of what was in a job."""

import logging
from collections.abc import Iterator
from pathlib import Path

import pytest

from careful_coil import cli_judge, faults
from tests.headless import demo_job, run

SECRET = "Cider mill, 0151 4711"


@pytest.fixture
def log(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Path]:
    """Let the log be written into a folder of the test."""
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path))
    own = logging.getLogger(faults.NAME)
    before, own.handlers = own.handlers, []
    yield tmp_path / faults.NAME / "fault.log"
    for handler in own.handlers:
        handler.close()
    own.handlers = before


def broken(*_: object) -> None:
    raise KeyError(SECRET)


def test_a_fault_is_one_line_and_its_place_is_in_the_log(
    log: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(cli_judge, "judge", broken)
    status, _, err = run(capsys, "judge", demo_job("bakery"))
    assert status == 2
    assert err.startswith("Something went wrong inside (KeyError); what was recorded stands.")
    assert err.count("\n") == 1
    told = log.read_text()
    assert "test_faults.py" in told
    assert SECRET not in told + err


def test_a_report_has_versions_and_the_log_and_no_customer(log: Path) -> None:
    try:
        broken()
    except KeyError as error:
        faults.write_down(error)
    told = faults.report()
    assert told.startswith("careful-coil ")
    assert "Python 3" in told
    assert "KeyError" in told
    assert SECRET not in told
    assert str(log.parent) not in told


def test_a_log_that_cannot_be_written_stops_nobody(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, log: Path
) -> None:
    (tmp_path / "file").write_text("")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))
    assert "Something went wrong inside" in faults.write_down(ValueError(SECRET))
    assert "no log" in faults.report()
