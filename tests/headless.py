"""A headless verb run in this process."""

import json
from importlib.resources import files
from pathlib import Path

import pytest

from careful_coil import cli

CONNECT = ("connect", "--arrangement", "three-phase-9-lead-wye", "--rated", "230/460")


def run(capsys: pytest.CaptureFixture[str], *arguments: str) -> tuple[int, str, str]:
    """Return exit status, standard output and standard error; no traceback may reach a user."""
    status = cli.run(list(arguments))
    out, err = capsys.readouterr()
    assert "Traceback" not in out + err
    return status, out, err


def write(folder: Path, document: object, name: str = "in.json") -> str:
    """Write a document into a folder and return its path."""
    file = folder / name
    file.write_text(
        document if isinstance(document, str) else json.dumps(document), encoding="utf-8"
    )
    return str(file)


def demo_job(name: str) -> str:
    """Return the path of a demo job document."""
    return str(files("careful_coil.demo") / "jobs" / f"{name}.json")
