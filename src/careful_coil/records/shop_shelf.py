"""What capacitors the shop has at hand, beside its records in shelf.csv."""

from pathlib import Path

from careful_coil.core.errors import CoilError, RecordsRefused
from careful_coil.core.gear.shelf import Item
from careful_coil.core.gear.shelf_list import read_shelf, write_shelf
from careful_coil.whole import write_whole

FILE = "shelf.csv"


def shelf_of(shop: Path) -> tuple[tuple[Item, ...], str]:
    """Return what the shop has, and why its list could not be used where it could not."""
    file = shop / FILE
    try:
        return read_shelf(file.read_text(encoding="utf-8")), ""
    except FileNotFoundError:
        return (), ""
    except (OSError, UnicodeDecodeError) as error:
        return (), f"{FILE} cannot be read ({error})."
    except CoilError as error:
        return (), f"{FILE} is left out: {error}"


def keep_shelf(file: Path, items: tuple[Item, ...]) -> None:
    """Write a list, whole or not at all. Raises: RecordsRefused."""
    try:
        write_whole(file, write_shelf(items).encode())
    except OSError as error:
        raise RecordsRefused(f"The list was not written: {error.strerror}.") from None
