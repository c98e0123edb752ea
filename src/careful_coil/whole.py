"""Files written whole or not at all, and on disk when it is said so."""

import contextlib
import errno
import os
import tempfile
from pathlib import Path

NO_FILE = "it is a link, a device or a folder; the name of a plain file is wanted"


def write_whole(file: Path, content: bytes, folders: bool = True) -> None:
    """Write a file so that it is never seen half done; its folder is made, unless no `folders` are wanted.

    No link is followed, no device replaced. Raises: OSError.
    """
    check_plain(file)
    if folders:
        file.parent.mkdir(parents=True, exist_ok=True)
    handle, name = tempfile.mkstemp(prefix=f".{file.name[:80]}.", suffix=".part", dir=file.parent)
    part = Path(name)
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(content)
            out.flush()
            os.fsync(out.fileno())
        part.chmod(0o666 & ~_umask())
        put_in_place(part, file)
    except OSError:
        with contextlib.suppress(OSError):
            part.unlink(missing_ok=True)
        raise


def check_plain(file: Path) -> None:
    """Refuse a name that is a link, a device or a folder. Raises: OSError."""
    if file.is_symlink() or (file.exists() and not file.is_file()):
        raise OSError(errno.EINVAL, NO_FILE, str(file))


def put_in_place(part: Path, file: Path) -> None:
    """Give a file that is whole its name, and see that the folder knows it. Raises: OSError."""
    check_plain(file)
    os.replace(part, file)
    with contextlib.suppress(OSError):  # a file system that cannot, keeps it all the same
        folder = os.open(file.parent, os.O_RDONLY)
        try:
            os.fsync(folder)
        finally:
            os.close(folder)


def _umask() -> int:
    now = os.umask(0)
    os.umask(now)
    return now
