"""Sheets written into the shop's folder: made and written aside, each file whole or not at all."""

from collections.abc import Callable, Mapping
from functools import partial
from typing import TYPE_CHECKING

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.session import Session
from careful_coil.whole import write_whole

if TYPE_CHECKING:
    from careful_coil.core.ledger import Judgement

    Make = Callable[[int, Judgement], bytes]  # a job's number and its judgement into a paper

FOLDER = "sheets"
Said = Callable[[str], None]


def write_papers(
    session: Session,
    what: str,
    make: Callable[[], Mapping[str, bytes]],
    said: Said,
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
    make: "Make",
    said: Said,
) -> None:
    """Write a paper of the open job, `name` with its number in it."""
    job = session.open
    if job is not None:
        number, judged = job.number, job.judged
        write_papers(session, what, lambda: {name.format(number): make(number, judged)}, said)


def write_job_sheet(session: Session, said: Said) -> None:
    """Write the open job's sheet."""
    from careful_coil.report.sheet import sheet  # ReportLab is slow to import

    write_paper_of(session, "The sheet", "job-{}.pdf", sheet, said)


def tags_maker(session: Session) -> "Make":
    """Return what makes the tags of a job's markings, a page each where the shop has a label printer."""
    from careful_coil.desk.shared.marks import marks_of
    from careful_coil.report.tag_strip import tag_strip  # ReportLab is slow to import

    settings = session.settings

    def make(number: int, judged: "Judgement") -> bytes:
        marks = marks_of(judged, settings)
        return tag_strip(number, judged.job, marks, settings.lists.label("leads"))

    return make


def motor_tag_maker(session: Session) -> "Make":
    """Return what makes the tag that goes with a motor, as large as the shop's label printer has it."""
    from careful_coil.report.motor_tag import motor_tag  # ReportLab is slow to import

    return partial(motor_tag, day=session.today, label=session.settings.lists.label("motor"))


def write_tags(session: Session, said: Said) -> None:
    """Write the open job's markings as a strip of tags."""
    write_paper_of(session, "The strip of tags", "tags-{}.pdf", tags_maker(session), said)


def write_stubs(session: Session, said: Said) -> None:
    """Write the two stubs of the open job."""
    from careful_coil.report.stubs import stubs  # ReportLab is slow to import

    write_paper_of(session, "The stubs", "stubs-{}.pdf", stubs, said)
