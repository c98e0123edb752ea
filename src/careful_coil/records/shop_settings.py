"""The shop's own limits and schools, beside its records in settings.json."""

import json
from pathlib import Path

from careful_coil.core.errors import CoilError, RecordsRefused
from careful_coil.core.settings import Settings
from careful_coil.whole import write_whole

FILE = "settings.json"


def read_settings(shop: Path) -> tuple[Settings, str]:
    """Return the shop's settings, and why the file could not be used where it could not."""
    file = shop / FILE
    try:
        text = file.read_text(encoding="utf-8")
    except FileNotFoundError:
        return Settings(), ""
    except (OSError, UnicodeDecodeError) as error:
        return Settings(), f"{file} cannot be read ({error}). The usual limits stand."
    from careful_coil.documents.base import parse_json  # most shops have none to read at the start

    try:
        return Settings().changed(parse_json(text)), ""
    except CoilError as error:
        return Settings(), f"{file} is left out: {error} The usual limits stand."


def write_settings(shop: Path, settings: Settings) -> None:
    """Write what differs from the usual, whole or not at all. Raises: RecordsRefused."""
    text = json.dumps(settings.told(), indent=1, ensure_ascii=False, sort_keys=True)
    try:
        write_whole(shop / FILE, (text + "\n").encode())
    except OSError as error:
        raise RecordsRefused(f"The settings were not written: {error.strerror}.") from None
