"""The files of a shop's folder, and the version that stands in it."""

import json
from pathlib import Path

from careful_coil.core.errors import RecordsRefused

FORMAT, VERSION = "careful-coil/shop", 1
SHOP_FILE, DATABASE = "shop.json", "shop.sqlite3"


def version_in(folder: Path) -> int:
    """Return the version of a shop as it is written there, 0 where there is none. Raises: RecordsRefused."""
    try:
        text = (folder / SHOP_FILE).read_text(encoding="utf-8")
    except FileNotFoundError:
        return 0
    except OSError as error:
        why = error.strerror or str(error)
        raise RecordsRefused(f"{folder / SHOP_FILE} cannot be read: {why}.") from None
    try:
        found = json.loads(text)
        if found["format"] == FORMAT and isinstance(found["version"], int):
            return int(found["version"])
    except (ValueError, KeyError, TypeError):
        pass
    raise RecordsRefused(
        f"{folder / SHOP_FILE} is not a shop of this program. Nothing was touched."
    )
