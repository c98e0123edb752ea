"""Fixtures of the desk: a window on the demo shop, a window on an empty one."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from tests.desk.driver import Bench


@pytest.fixture
def bench(qtbot: QtBot, tmp_path: Path) -> Iterator[Bench]:
    """The window on a fresh demo shop."""
    found = Bench(tmp_path / "shop", demo=True)
    yield found
    found.close()


@pytest.fixture
def empty(qtbot: QtBot, tmp_path: Path) -> Iterator[Bench]:
    """The window on a shop without jobs and without instruments."""
    found = Bench(tmp_path / "shop", demo=False)
    yield found
    found.close()
