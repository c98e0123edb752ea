"""The desktop: put there without root, taken away whole; files that validators accept; pages made from the verbs."""

import configparser
import shutil
import subprocess
import sys
from pathlib import Path
from xml.etree import ElementTree

import pytest

from careful_coil import app, at_home
from careful_coil.at_home import ASSETS, NAME, SIZES, NotAtHome, install, pieces, remove
from careful_coil.cli import KEEPING, VERBS, run
from careful_coil.cli_pages import DAY, completions, man_page


def test_all_of_it_is_put_there_and_taken_away_again(tmp_path: Path) -> None:
    files = install(tmp_path)
    assert len(files) == len(list(pieces()))
    assert all(f.is_file() and f.stat().st_size for f in files)
    entry = configparser.ConfigParser(interpolation=None)
    entry.read(tmp_path / "applications" / f"{NAME}.desktop")
    command = entry["Desktop Entry"]["Exec"]
    assert command.endswith("careful-coil %f")
    assert Path(command.removesuffix(" %f")).is_absolute()
    own = tmp_path / "applications" / "other.desktop"
    own.write_text("somebody else's")
    assert remove(tmp_path) == files
    assert not any(f.exists() for f in files)
    assert own.read_text() == "somebody else's"
    assert remove(tmp_path) == []


def test_where_a_file_cannot_be_written_nothing_is_left(tmp_path: Path) -> None:
    (tmp_path / "mime").write_text("a file where a folder is wanted")
    with pytest.raises(NotAtHome, match="Nothing is installed"):
        install(tmp_path)
    left = [p for p in tmp_path.rglob("*") if p.is_file()]
    assert left == [tmp_path / "mime"]


def test_a_path_with_blanks_is_quoted_as_the_menu_takes_it(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(at_home, "program", lambda: '/home/a b/"c"/careful-coil')
    install(tmp_path)
    text = (tmp_path / "applications" / f"{NAME}.desktop").read_text()
    assert 'Exec="/home/a b/\\"c\\"/careful-coil" %f' in text


def test_the_verbs_do_it_under_the_users_own_folder(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    assert run(["install-desktop"]) == 0
    assert "no root was needed" in capsys.readouterr().out
    assert run(["remove-desktop", "--json"]) == 0
    assert capsys.readouterr().out.count("remove-desktop") == len(list(pieces()))


def test_the_manual_and_the_completion_are_those_of_the_verbs() -> None:
    page = (ASSETS / f"{NAME}.1").read_text(encoding="utf-8")
    assert page == man_page(DAY), "run: python -m careful_coil.cli_pages"
    for verb in (*VERBS, *KEEPING):
        assert f".SS {verb.replace('-', chr(92) + '-')}" in page
    for shell, text in completions().items():
        kept = (ASSETS / "completion" / shell).read_text(encoding="utf-8")
        assert kept == text.rstrip() + "\n", "run: python -m careful_coil.cli_pages"


def test_a_shell_is_told_what_may_stand_there(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    for name, told in (
        (app.COMPLETING, "bash_complete"),
        ("COMP_WORDS", "careful-coil re"),
        ("COMP_CWORD", "1"),
    ):
        monkeypatch.setenv(name, told)
    monkeypatch.setattr(sys, "argv", ["careful-coil"])
    with pytest.raises(SystemExit) as left:
        app.main()
    assert left.value.code == 0
    told = capsys.readouterr().out.split()
    assert "plain,report" in told
    assert "plain,judge" not in told


def test_the_version_and_a_job_to_open(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(sys, "argv", ["careful-coil", "--version"])
    with pytest.raises(SystemExit):
        app.main()
    assert capsys.readouterr().out == f"careful-coil {at_home.told_version()}\n"
    opened: list[tuple[bool, list[str]]] = []

    def window(demo: bool, files: list[str]) -> int:
        opened.append((demo, files))
        return 0

    monkeypatch.setattr("careful_coil.desk.start.open_window", window)
    for arguments in ([], ["--demo"], ["214.ccjob"]):
        monkeypatch.setattr(sys, "argv", ["careful-coil", *arguments])
        with pytest.raises(SystemExit):
            app.main()
    assert opened == [(False, []), (True, []), (False, ["214.ccjob"])]


def test_icon_file_type_and_store_page_are_what_they_should_be() -> None:
    for size in SIZES:
        head = (ASSETS / "icons" / f"{size}.png").read_bytes()[:24]
        assert (int.from_bytes(head[16:20]), int.from_bytes(head[20:24])) == (size, size)
    kind = ElementTree.parse(ASSETS / f"{NAME}-mime.xml").getroot()
    space = "{http://www.freedesktop.org/standards/shared-mime-info}"
    assert [g.get("pattern") for g in kind.iter(f"{space}glob")] == ["*.ccjob"]
    store = ElementTree.parse(ASSETS / f"{NAME}.metainfo.xml").getroot()
    launch = store.findtext("launchable")
    assert launch == f"{NAME}.desktop"
    releases = [r.get("version") for r in store.iter("release")]
    assert releases[0] == at_home.told_version()


@pytest.mark.parametrize(
    ("validator", "file"),
    [
        (("desktop-file-validate",), f"{NAME}.desktop"),
        (("appstreamcli", "validate", "--no-net"), f"{NAME}.metainfo.xml"),
        (("mandoc", "-Tlint", "-Wwarning"), f"{NAME}.1"),
    ],
)
def test_validators_that_are_there_find_nothing(validator: tuple[str, ...], file: str) -> None:
    if shutil.which(validator[0]) is None:
        pytest.skip(f"{validator[0]} is not installed here")
    found = subprocess.run(
        [*validator, str(ASSETS / file)], capture_output=True, text=True, check=False
    )
    assert found.returncode == 0, found.stdout + found.stderr
