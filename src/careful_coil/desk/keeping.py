"""What keeps a shop, from the menu: backups, the rack made anew, a report of what went wrong."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.asking import Failed
from careful_coil.desk.session import Session
from careful_coil.faults import report
from careful_coil.records.shop_settings import write_settings
from careful_coil.whole import write_whole

Say = Callable[[str], None]
REPORTS = "reports"


def back_up(session: Session) -> None:
    """Write a backup of the shop now."""
    from careful_coil.records.backup import ENDING, backups_of, write_backup

    file = backups_of(session.shop) / f"shop-{session.today}-{session.minute}{ENDING}"

    def written(count: int) -> None:
        session.told.emit(f"Backup written and opened: {file}. {count} entries.", "good")

    session.aside(lambda: write_backup(session.shop, file), written)


def back_up_daily(session: Session) -> None:
    """Write the backup of today, where there is none yet."""

    def written(file: Path | None) -> None:
        if file is not None:
            session.told.emit(f"Today's backup is written: {file}.", "note")

    shop, today = session.shop, session.today

    def backed_up() -> Path | None:
        from careful_coil.records.backup import (
            daily,  # off the interface thread: it loads SQLAlchemy
        )

        return daily(shop, today)

    session.aside(backed_up, written)


def rebuild(session: Session) -> None:
    """Rebuild the rack from the log."""

    def made(_: None) -> None:
        session.fill(session.open.id if session.open is not None else "")
        session.told.emit("The rack is rebuilt from the log, one job after the other.", "good")

    session.ask(lambda store: store.rack.forget(), made)


def write_report(session: Session) -> None:
    """Write a report of what went wrong into the shop: versions and the log, nothing of any customer."""
    file = session.shop / REPORTS / f"report-{session.today}.txt"

    def write() -> None:
        try:
            write_whole(file, report().encode())
        except OSError as error:
            raise RecordsRefused(f"{file} was not written: {error.strerror}.") from None

    def written(_: None) -> None:
        session.told.emit(f"Written: {file}. It holds nothing of any customer.", "good")

    session.aside(write, written)


def change_settings(session: Session, told: dict[str, Any], failed: Failed | None = None) -> None:
    """Change limits or schools: on disk first, then everything is judged anew.

    Raises: BadDocument for what a setting cannot be; then nothing changes.
    """
    wanted = session.settings.changed(told)

    def kept(_: None) -> None:
        session.settings = wanted
        session.settings_changed.emit()
        session.beside.anew()

    session.aside(lambda: write_settings(session.shop, wanted), kept, failed)
