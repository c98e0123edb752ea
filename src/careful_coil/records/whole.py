"""Files written whole or not at all."""

import contextlib
import os
from pathlib import Path


def write_whole(file: Path, content: bytes) -> None:
    """Write a file so that it is never seen half done; its folder is made. Raises: OSError."""
    part = file.with_name(file.name + ".part")
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        part.write_bytes(content)
        os.replace(part, file)
    except OSError:
        with contextlib.suppress(OSError):
            part.unlink(missing_ok=True)
        raise
