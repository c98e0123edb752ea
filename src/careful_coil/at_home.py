"""A program the desktop knows: menu entry, icons, file type, man page and completion of one user, without root.

What is put where is one table; what is taken away again is just that.
"""

import os
import shutil
import subprocess
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from importlib.metadata import version
from pathlib import Path

from careful_coil.core.errors import CoilError
from careful_coil.whole import write_whole

NAME = "careful-coil"
ASSETS = Path(__file__).parent / "assets" / "desktop"
SIZES = (16, 24, 32, 48, 64, 128, 256)
AFTER = (  # what tells a running desktop; each only where it is there
    ("update-mime-database", "mime"),
    ("update-desktop-database", "applications"),
    ("gtk-update-icon-cache", "icons/hicolor"),
)


class NotAtHome(CoilError):
    """A file could not be put where the desktop looks for it."""


@dataclass(frozen=True, slots=True)
class Piece:
    """A file of the program and where it goes below the user's own data folder."""

    asset: str
    place: str


def told_version() -> str:
    """Return the version of the program that is installed."""
    return version(NAME)


def data_home() -> Path:
    """Return the user's own data folder. Source: XDG Base Directory Specification 0.8."""
    told = os.environ.get("XDG_DATA_HOME", "")
    return Path(told) if told.startswith("/") else Path.home() / ".local" / "share"


def pieces() -> Iterator[Piece]:
    """Yield every file with its place."""
    yield Piece(f"{NAME}.desktop", f"applications/{NAME}.desktop")
    yield Piece(f"{NAME}.svg", f"icons/hicolor/scalable/apps/{NAME}.svg")
    for size in SIZES:
        yield Piece(f"icons/{size}.png", f"icons/hicolor/{size}x{size}/apps/{NAME}.png")
    job = "application-x-careful-coil-job.svg"
    yield Piece(job, f"icons/hicolor/scalable/mimetypes/{job}")
    yield Piece(f"{NAME}-mime.xml", f"mime/packages/{NAME}.xml")
    yield Piece(f"{NAME}.metainfo.xml", f"metainfo/{NAME}.metainfo.xml")
    yield Piece(f"{NAME}.1", f"man/man1/{NAME}.1")
    yield Piece("completion/bash", f"bash-completion/completions/{NAME}")
    yield Piece("completion/zsh", f"zsh/site-functions/_{NAME}")
    yield Piece("completion/fish", f"fish/vendor_completions.d/{NAME}.fish")


def program() -> str:
    """Return the command that starts this program, whole, as the menu needs it."""
    own = Path(sys.argv[0]).resolve()
    if own.name == NAME and own.is_file():
        return str(own)
    beside = Path(sys.executable).parent / NAME
    return str(beside) if beside.is_file() else shutil.which(NAME) or NAME


def install(home: Path | None = None) -> list[Path]:
    """Put every file where this user's desktop looks for it; return them.

    Raises: NotAtHome where one cannot be written; what was written before it is taken away again.
    """
    base, done = home or data_home(), list[Path]()
    for piece in pieces():
        file = base / piece.place
        content = (ASSETS / piece.asset).read_bytes()
        if piece.asset.endswith(".desktop"):
            content = content.replace(
                f"Exec={NAME} ".encode(), f"Exec={_quoted(program())} ".encode()
            )
        try:
            file.parent.mkdir(parents=True, exist_ok=True)
            write_whole(file, content)
        except OSError as error:
            for one in done:
                one.unlink(missing_ok=True)
            raise NotAtHome(
                f"{file} was not written: {error.strerror}. Nothing is installed."
            ) from None
        done.append(file)
    _tell(base)
    return done


def remove(home: Path | None = None) -> list[Path]:
    """Take every file away again; return those that were there.

    Raises: NotAtHome where one cannot be taken away.
    """
    base, gone = home or data_home(), list[Path]()
    for piece in pieces():
        file = base / piece.place
        if not file.is_file():
            continue
        try:
            file.unlink()
        except OSError as error:
            raise NotAtHome(f"{file} is still there: {error.strerror}.") from None
        gone.append(file)
    _tell(base)
    return gone


def _quoted(path: str) -> str:
    """Return a command as the key Exec takes it: in quotes where it has a reserved character."""
    if not set(path) & set(" \t\"'\\><~|&;$*?#()`"):
        return path
    inner = "".join(f"\\{c}" if c in '"`$\\' else c for c in path)
    return f'"{inner}"'


def _tell(base: Path) -> None:
    """Tell a running desktop, where it has the means; it looks by itself at the next start."""
    for command, folder in AFTER:
        found = shutil.which(command)
        if found is not None and (base / folder).is_dir():
            quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL}
            subprocess.run([found, str(base / folder)], check=False, **quiet)  # type: ignore[call-overload]
