"""Papers through Qt's print dialog: it chooses printer, copies or a file; the same PDF goes there that is written.

A printer gets the PDF from `lp`, the print system's own: what is printed is what was laid out, letter for letter.
"""

import shutil
import subprocess
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtPrintSupport import QPrintDialog, QPrinter

from careful_coil.core.errors import RecordsRefused
from careful_coil.desk.papers import Said, motor_tag_maker, tags_maker
from careful_coil.desk.session import Session
from careful_coil.whole import write_whole

if TYPE_CHECKING:
    from careful_coil.desk.papers import Make
    from careful_coil.desk.window import Window

PATIENCE_S = 60  # for the print system to take it
NO_LP = (
    "The print system's lp is not installed (package cups-client). Write it as PDF and print that."
)
NOT_PRINTED = "Nothing was printed."


@dataclass(frozen=True, slots=True)
class Printed:
    """Where a paper goes: a file, or a printer by name with copies."""

    file: str = ""
    printer: str = ""
    copies: int = 1


def ask_where(window: "Window") -> Printed | None:
    """Return what was chosen in Qt's dialog; None where it was left."""
    printer = QPrinter()
    if QPrintDialog(printer, window).exec() != QPrintDialog.DialogCode.Accepted:
        return None
    return Printed(printer.outputFileName(), printer.printerName(), printer.copyCount())


def print_paper(window: "Window", title: str, make: "Make", said: Said) -> None:
    """Print a paper of the open job; `said` is told where it went, or why nowhere."""
    session: Session = window.session
    job = session.open
    if job is None:
        return
    where = ask_where(window)
    if where is None:
        said(NOT_PRINTED)
        return
    number, judged = job.number, job.judged

    def put() -> str:
        return put_out(make(number, judged), f"{title} {number}", where)

    session.aside(put, said, said)


def put_out(paper: bytes, title: str, where: Printed) -> str:
    """Send a PDF where it was chosen to go; return that in words. Raises: RecordsRefused."""
    if where.file:
        try:
            write_whole(Path(where.file), paper)
        except OSError as error:
            raise RecordsRefused(f"{where.file} was not written: {error.strerror}.") from None
        return f"Written: {where.file}"
    lp = shutil.which("lp")
    if lp is None:
        raise RecordsRefused(NO_LP)
    command = [lp, "-d", where.printer, "-n", str(where.copies), "-t", title]
    try:
        done = subprocess.run(
            command, check=False, input=paper, capture_output=True, timeout=PATIENCE_S
        )
    except subprocess.TimeoutExpired:
        raise RecordsRefused(f"{where.printer} took nothing for {PATIENCE_S} s.") from None
    if done.returncode:
        why = done.stderr.decode(errors="replace").strip() or f"lp ended with {done.returncode}"
        raise RecordsRefused(f"{where.printer} did not take it: {why}")
    return f"{title} is with {where.printer}."


def print_sheet(window: "Window", said: Said) -> None:
    """Print the open job's sheet."""
    from careful_coil.report.sheet import sheet  # ReportLab is slow to import

    print_paper(window, "Job", sheet, said)


def print_tags(window: "Window", said: Said) -> None:
    """Print the open job's markings as tags, on a label printer's page where the shop set one."""
    print_paper(window, "Tags", tags_maker(window.session), said)


def print_motor_tag(window: "Window", said: Said) -> None:
    """Print the tag that goes with the motor."""
    print_paper(window, "Tag", motor_tag_maker(window.session), said)
