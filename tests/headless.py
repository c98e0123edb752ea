"""A headless verb run in this process."""

import pytest

from careful_coil import cli

CONNECT = ("connect", "--arrangement", "three-phase-9-lead-wye", "--rated", "230/460")


def run(capsys: pytest.CaptureFixture[str], *arguments: str) -> tuple[int, str, str]:
    """Return exit status, standard output and standard error; no traceback may reach a user."""
    status = cli.run(list(arguments))
    out, err = capsys.readouterr()
    assert "Traceback" not in out + err
    return status, out, err
