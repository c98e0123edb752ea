"""Sheets written beside the job sheets: made and written aside, each file whole or not at all."""

from collections.abc import Callable, Mapping

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.session import Session
from careful_coil.records.whole import write_whole


def write_papers(
    session: Session,
    what: str,
    make: Callable[[], Mapping[str, bytes]],
    said: Callable[[str], None],
) -> None:
    """Write files by name; `said` is told where they are, or why there are none."""
    folder = session.shop / "sheets"

    def write() -> list[str]:
        every = make()
        try:
            for name, content in every.items():
                write_whole(folder / name, content)
        except OSError as error:
            raise RecordsRefused(f"{what} was not written: {error.strerror}.") from None
        return list(every)

    def written(names: list[str]) -> None:
        said(f"Written: {folder / names[0]}" + "".join(f", {name}" for name in names[1:]))

    session.aside(write, written, said)
