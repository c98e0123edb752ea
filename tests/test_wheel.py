"""The wheel: it carries handbook, icons, demo and faces, and what is in it opens a window on the demo shop."""

import os
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest
from hatchling.builders.wheel import WheelBuilder

ROOT = Path(__file__).parents[1]
CARRIED = (
    "careful_coil/assets/handbook/mechanics.md",
    "careful_coil/assets/desktop/careful-coil.svg",
    "careful_coil/assets/desktop/careful-coil.1",
    "careful_coil/assets/fonts/B612-Regular.ttf",
    "careful_coil/assets/fonts/COPYRIGHT-B612",
    "careful_coil/demo/shelf.csv",
)
SHOWS = """
import tempfile
from datetime import UTC, datetime
from pathlib import Path
from PySide6.QtCore import QCoreApplication
import careful_coil
from careful_coil.desk.start import application, build
from careful_coil.handbook import folder
with tempfile.TemporaryDirectory() as shop:
    application()
    window = build(Path(shop) / "shop", True, lambda: datetime(2026, 3, 4, 9, tzinfo=UTC))
    window.show()
    while window.session.open is None:  # the most urgent one, before the rest is judged
        QCoreApplication.processEvents()
    window.reading.toggle()
    print(careful_coil.__file__, folder(), window.way.title(), window.reading.handbook.page, sep="|")
    window.close()
"""


@pytest.fixture(scope="module")
def unpacked(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The wheel, built and unpacked into a folder of its own."""
    folder = tmp_path_factory.mktemp("wheel")
    (made,) = WheelBuilder(str(ROOT)).build(directory=str(folder), versions=["standard"])
    with zipfile.ZipFile(made) as wheel:
        wheel.extractall(folder / "here")
    return folder / "here"


def test_it_carries_what_the_program_shows(unpacked: Path) -> None:
    for name in CARRIED:
        assert (unpacked / name).is_file(), name
    assert not list(unpacked.rglob("tests"))
    entry = next(unpacked.glob("*.dist-info")) / "entry_points.txt"
    assert "careful-coil = careful_coil.app:main" in entry.read_text()


def test_what_is_in_it_opens_the_demo_shop_and_its_handbook(unpacked: Path, tmp_path: Path) -> None:
    inside = os.environ | {
        "PYTHONPATH": str(unpacked),
        "QT_QPA_PLATFORM": "offscreen",
        "HOME": str(tmp_path),
    }
    done = subprocess.run(
        [sys.executable, "-c", SHOWS],
        env=inside,
        cwd=tmp_path,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    program, handbook, motor, page = done.stdout.strip().split("|")
    assert program.startswith(str(unpacked))
    assert handbook.startswith(str(unpacked))
    assert ", " in motor
    assert page.endswith(".md")
