"""The verbs export and import: a job out of the shop's records as a bundle, and in."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from careful_coil.core.errors import RecordsRefused
from careful_coil.records.bundle import (
    imported_words,
    lost_words,
    read_bundle,
    take_in_bundle,
    write_bundle,
)
from careful_coil.records.folder import SHOP_FILE
from careful_coil.records.shop import open_shop
from careful_coil.records.shop_settings import read_settings
from careful_coil.records.store import Store
from careful_coil.records.summary import DAMAGED


def export_job(number: int, output: Path, shop: Path) -> str:
    """Write a job of the shop as a bundle; return what is to be said. Raises: RecordsRefused."""
    if not (shop / SHOP_FILE).exists():
        raise RecordsRefused(f"There is no shop in {shop}. Wanted: --shop FOLDER.")
    with _store(shop) as store:
        every = store.rack.every()
        found = next((s for s in every if s.number == number), None)
        if found is None:
            known = ", ".join(str(n) for n in sorted(s.number for s in every)[:20])
            raise RecordsRefused(
                f"There is no job {number} in this shop. It has: {known or 'none'}."
            )
        lost = write_bundle(output, store.give_out(found.id), shop)
    return f"Written: {output}.{lost_words(lost)}"


def import_job(file: Path, shop: Path, accept: bool = False) -> str:
    """Take a bundle, or a plain job document, into the shop; return what is to be said.

    Raises: BadDocument for what is no bundle, RecordsRefused where it cannot be kept, WouldChange with what
    it would do to a job that is there, unless that is accepted.
    """
    document, files = read_bundle(file)
    with _store(shop) as store:
        done = take_in_bundle(store, shop, document, files, accept)
    return imported_words(done, len(files))


def rebuild(shop: Path) -> tuple[str, bool]:
    """Make every summary anew; return what is to be said, and whether a job is damaged. Raises: RecordsRefused."""
    if not (shop / SHOP_FILE).exists():
        raise RecordsRefused(f"There is no shop in {shop}. Wanted: --shop FOLDER.")
    with _store(shop) as store:
        found = store.rebuild()
    bad = [f"job {s.number} {s.state}" for s in found if s.state.startswith(DAMAGED)]
    told = f" Damaged: {'; '.join(bad)}." if bad else ""
    return f"{len(found)} jobs rebuilt from the log.{told}", bool(bad)


@contextmanager
def _store(shop: Path) -> Iterator[Store]:
    settings, _ = read_settings(shop)
    engine = open_shop(shop)
    try:
        yield Store(engine, settings)
    except SQLAlchemyError as error:
        words = str(getattr(error, "orig", None) or error)
        raise RecordsRefused(f"Not recorded: {words}. Nothing was changed.") from None
    finally:
        engine.dispose()
