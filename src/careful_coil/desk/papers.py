"""Sheets written into the shop's folder: made and written aside, each file whole or not at all."""

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.session import Session
from careful_coil.whole import write_whole

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement

FOLDER = "sheets"


def write_papers(
    session: Session,
    what: str,
    make: Callable[[], Mapping[str, bytes]],
    said: Callable[[str], None],
) -> None:
    """Write files by name; `said` is told where they are, or why there are none."""
    folder = session.shop / FOLDER

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


def write_paper_of(
    session: Session,
    what: str,
    name: str,
    make: "Callable[[int, Judgement], bytes]",
    said: Callable[[str], None],
) -> None:
    """Write a paper of the open job, `name` with its number in it."""
    job = session.open
    if job is not None:
        number, judged = job.number, job.judged
        write_papers(session, what, lambda: {name.format(number): make(number, judged)}, said)


def write_job_sheet(session: Session, said: Callable[[str], None]) -> None:
    """Write the open job's sheet."""
    from careful_coil.report.sheet import sheet  # ReportLab is slow to import

    write_paper_of(session, "The sheet", "job-{}.pdf", sheet, said)


def write_tags(session: Session, said: Callable[[str], None]) -> None:
    """Write the open job's markings as a strip of tags."""
    from careful_coil.desk.shared.marks import marks_of
    from careful_coil.report.tag_strip import tag_strip  # ReportLab is slow to import

    settings = session.settings

    def make(number: int, judged: "Judgement") -> bytes:
        return tag_strip(number, judged.job, marks_of(judged, settings))

    write_paper_of(session, "The strip of tags", "tags-{}.pdf", make, said)


def write_stubs(session: Session, said: Callable[[str], None]) -> None:
    """Write the two stubs of the open job."""
    from careful_coil.report.stubs import stubs  # ReportLab is slow to import

    write_paper_of(session, "The stubs", "stubs-{}.pdf", stubs, said)
