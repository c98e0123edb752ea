"""The verbs that keep a shop: backup, restore, rebuild."""

from datetime import UTC, datetime
from pathlib import Path

import click

from careful_coil.documents.base import Done, compact

_shop = click.option("--shop", "shop", metavar="FOLDER", help="A shop other than this user's own.")
_json = click.option("--json", "as_json", is_flag=True, help="One JSON document a line.")


def _here(shop: str | None) -> Path:
    from careful_coil.records.place import usual_shop

    return Path(shop) if shop else usual_shop()


def _said(verb: str, file: str, words: str, as_json: bool) -> int:
    click.echo(compact(Done(verb=verb, file=file)) if as_json else words)
    return 0


@click.command("backup")
@click.option(
    "-o", "output", metavar="FILE.ccshop", help="Where; else beside the shop, by day and time."
)
@_shop
@_json
def backup_verb(output: str | None, shop: str | None, as_json: bool) -> int:
    """Write the whole shop as one file, read back and opened before it counts."""
    from careful_coil.records.backup import ENDING, backups_of, write_backup

    here = _here(shop)
    now = datetime.now(UTC).strftime("%Y-%m-%d-%H%M%S")
    file = Path(output) if output else backups_of(here) / f"shop-{now}{ENDING}"
    count = write_backup(here, file)
    return _said("backup", str(file), f"Written: {file}. {count} entries.", as_json)


@click.command("restore")
@click.argument("source", metavar="FILE.ccshop")
@click.argument("folder", metavar="FOLDER")
@_json
def restore_verb(source: str, folder: str, as_json: bool) -> int:
    """Bring a backup back into a new folder, and open it to be sure."""
    from careful_coil.records.backup import restore

    jobs, entries = restore(Path(source), Path(folder))
    return _said("restore", folder, f"{folder}: {jobs} jobs, {entries} entries.", as_json)


@click.command("rebuild")
@_shop
@_json
def rebuild_verb(shop: str | None, as_json: bool) -> int:
    """Rebuild the rack from the log; what is damaged is named."""
    from careful_coil.cli_records import rebuild

    here = _here(shop)
    words, bad = rebuild(here)
    _said("rebuild", str(here), words, as_json)
    return 1 if bad else 0
