"""Photographs in the shop's keeping; the shop's settings beside its records."""

import json
import os
from pathlib import Path

import pytest

from careful_coil.core.errors import RecordsRefused
from careful_coil.core.settings import Settings
from careful_coil.records.attachments import KINDS, keep, kept_file
from careful_coil.records.shop_settings import read_settings, write_settings
from careful_coil.whole import write_whole

PNG = KINDS[0][0] + b"the rest"


def picture(folder: Path, name: str = "joints.png", content: bytes = PNG) -> Path:
    file = folder / name
    file.write_bytes(content)
    return file


def test_a_photograph_is_copied_under_its_digest(tmp_path: Path) -> None:
    shop = tmp_path / "shop"
    source = picture(tmp_path)
    kept = keep(shop, source)
    source.unlink()
    file = kept_file(shop, kept.sha256)
    assert file is not None
    assert (file.read_bytes(), kept.name) == (PNG, "joints.png")
    assert keep(shop, picture(tmp_path, "again.png")).sha256 == kept.sha256
    assert len(list((shop / "attachments").iterdir())) == 1


def test_a_photograph_that_was_changed_since_is_not_shown(tmp_path: Path) -> None:
    kept = keep(tmp_path, picture(tmp_path))
    file = kept_file(tmp_path, kept.sha256)
    assert file is not None
    file.write_bytes(PNG + b"!")
    assert kept_file(tmp_path, kept.sha256) is None


@pytest.mark.parametrize(
    ("name", "content"), [("a.txt", b"words"), ("a.png", b""), ("b.jpg", b"\xff")]
)
def test_what_is_no_picture_is_refused_and_nothing_is_left(
    tmp_path: Path, name: str, content: bytes
) -> None:
    with pytest.raises(RecordsRefused, match="PNG or JPEG"):
        keep(tmp_path / "shop", picture(tmp_path, name, content))
    assert not (tmp_path / "shop").exists()


def test_a_photograph_that_is_not_there_is_refused(tmp_path: Path) -> None:
    for missing in (tmp_path / "none.png", tmp_path):
        with pytest.raises(RecordsRefused, match="cannot be read"):
            keep(tmp_path / "shop", missing)


def test_settings_are_written_and_read_back(tmp_path: Path) -> None:
    assert read_settings(tmp_path) == (Settings(), "")
    wanted = Settings().changed({"earth_bond": 0.2, "schools": {"star": "star"}, "currency": "Kr"})
    write_settings(tmp_path, wanted)
    assert read_settings(tmp_path) == (wanted, "")
    assert set(json.loads((tmp_path / "settings.json").read_text(encoding="utf-8"))) == {
        "currency",
        "earth_bond",
        "schools",
    }


@pytest.mark.parametrize("text", ["{", '{"earth_bond": -1}', '["a"]', '{"moon": 1}'])
def test_settings_that_cannot_be_read_are_said_and_the_usual_stand(
    tmp_path: Path, text: str
) -> None:
    (tmp_path / "settings.json").write_text(text, encoding="utf-8")
    settings, why = read_settings(tmp_path)
    assert settings == Settings()
    assert "The usual limits stand." in why


def test_settings_that_cannot_be_written_leave_the_old(tmp_path: Path) -> None:
    (tmp_path / "shop").write_text("a file", encoding="utf-8")
    with pytest.raises(RecordsRefused, match="not written"):
        write_settings(tmp_path / "shop", Settings())


@pytest.mark.parametrize("what", ["link", "device", "folder"])
def test_nothing_but_a_plain_file_is_written_over(tmp_path: Path, what: str) -> None:
    target = tmp_path / "there"
    if what == "link":
        (tmp_path / "precious").write_text("kept")
        target.symlink_to(tmp_path / "precious")
    elif what == "folder":
        target.mkdir()
    else:
        os.mkfifo(target)
    with pytest.raises(OSError, match="a link, a device or a folder"):
        write_whole(target, b"new")
    assert what != "link" or (tmp_path / "precious").read_text() == "kept"
    assert [f.name for f in tmp_path.iterdir() if f.suffix == ".part"] == []
