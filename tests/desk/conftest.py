"""Fixtures of the desk: a window on the demo shop, a window on an empty one."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from tests.desk.driver import Bench, demo_template


@pytest.fixture(scope="session")
def template(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A demo shop made once, copied for each test."""
    return demo_template(tmp_path_factory.mktemp("demo") / "shop")


@pytest.fixture
def bench(qtbot: QtBot, tmp_path: Path, template: Path) -> Iterator[Bench]:
    """The window on a fresh demo shop."""
    found = Bench(tmp_path / "shop", demo=True, template=template)
    yield found
    found.close()


@pytest.fixture(scope="module")
def one_window(tmp_path_factory: pytest.TempPathFactory, template: Path) -> Iterator[Bench]:
    """One window on a demo shop for tests that log nothing: to build one costs more than to look."""
    folder = tmp_path_factory.mktemp("shared") / "shop"
    found = Bench(folder, demo=True, template=template)
    yield found
    found.close()


@pytest.fixture
def shared(one_window: Bench) -> Bench:
    """The window of `one_window`, in front again where another one was meanwhile."""
    one_window.window.activateWindow()
    one_window.settle(one_window.window.isActiveWindow)
    return one_window


@pytest.fixture
def empty(qtbot: QtBot, tmp_path: Path) -> Iterator[Bench]:
    """The window on a shop without jobs and without instruments."""
    found = Bench(tmp_path / "shop", demo=False)
    yield found
    found.close()
