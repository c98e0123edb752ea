"""Photographs in the shop's keeping: copied whole or not at all, named by their digest."""

import hashlib
from dataclasses import dataclass
from pathlib import Path

from careful_coil.core.errors import RecordsRefused
from careful_coil.whole import write_whole

FOLDER = "attachments"
MOST_BYTES = 40_000_000
# how a picture begins, and the ending it is kept under
KINDS = ((b"\x89PNG\r\n\x1a\n", ".png"), (b"\xff\xd8\xff", ".jpg"))
WANTED = "a photograph, PNG or JPEG, of at most 40 MB"


@dataclass(frozen=True, slots=True)
class Kept:
    """A file the shop keeps: its name as it came, its SHA-256."""

    name: str
    sha256: str


def keep(shop: Path, source: Path) -> Kept:
    """Copy a photograph into the shop. Raises: RecordsRefused; then nothing was copied."""
    try:
        if source.stat().st_size > MOST_BYTES:
            raise RecordsRefused(f"{source.name} is too large. Wanted: {WANTED}.")
        content = source.read_bytes()
    except OSError as error:
        raise RecordsRefused(
            f"{source} cannot be read: {error.strerror}. Wanted: {WANTED}."
        ) from None
    digest = hashlib.sha256(content).hexdigest()
    ending = next((e for start, e in KINDS if content.startswith(start)), None)
    if ending is None:
        raise RecordsRefused(f"{source.name} is no picture. Wanted: {WANTED}.")
    kept = shop / FOLDER / f"{digest}{ending}"
    try:
        if not kept.exists():
            write_whole(kept, content)
    except OSError as error:
        raise RecordsRefused(f"{source.name} was not kept: {error.strerror}.") from None
    return Kept(source.name[:200], digest)


def kept_file(shop: Path, sha256: str) -> Path | None:
    """Return the file of a digest; None where the shop has it not, or it is not what it was."""
    for _, ending in KINDS:
        file = shop / FOLDER / f"{sha256}{ending}"
        if file.exists() and hashlib.sha256(file.read_bytes()).hexdigest() == sha256:
            return file
    return None
