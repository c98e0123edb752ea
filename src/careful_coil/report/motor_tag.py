"""The tag that goes with the motor: released with its volts and direction, or DO NOT CONNECT with the reason.

The code beside it carries the same in plain text, so that any reader shows it without this program.
"""

import io
from collections.abc import Sequence

from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.tag import tag_words
from careful_coil.report.canvas import fitted, ink
from careful_coil.report.code import QUIET, code_rows
from careful_coil.report.page import BOLD, REGULAR, load_faces

WIDE, HIGH = 100 * mm, 62 * mm
CODE = 30 * mm
LONGEST = 120  # characters of a line: a name as long as a page still gets its tag
SIZES, LEADING = (8.5, 7.5, 6.5), 1.43  # points, largest first; of the size


def motor_tag(
    number: int, judged: Judgement, day: str, label: tuple[float, float] | None = None
) -> bytes:
    """Return the tag as PDF; `label` width and height in mm of a label printer's page, else a card."""
    load_faces()
    buffer = io.BytesIO()
    page = (label[0] * mm, label[1] * mm) if label else (WIDE, HIGH)
    canvas = Canvas(buffer, pagesize=page, invariant=1, lang="en")
    fitted(canvas, page, (WIDE, HIGH))
    canvas.setTitle(f"Tag {number}: {judged.job.name[:LONGEST]}")
    head, whole = tag_words(number, judged, day)
    lines = [x if len(x) <= LONGEST else f"{x[: LONGEST - 1]}…" for x in whole]
    canvas.setStrokeColor(ink("ink"))
    canvas.setLineWidth(1.2)
    canvas.roundRect(2 * mm, 2 * mm, WIDE - 4 * mm, HIGH - 4 * mm, 3 * mm)
    canvas.circle(WIDE / 2, HIGH - 6 * mm, 2 * mm)
    canvas.setFillColor(ink("ink"))
    canvas.setFont(BOLD, 19 if len(head) < 12 else 15)
    canvas.drawString(6 * mm, HIGH - 17 * mm, head)
    size, told = _fitted(lines)
    y = HIGH - 24 * mm
    for line in told:
        canvas.setFont(REGULAR, size)
        canvas.drawString(6 * mm, y, line)
        y -= size * LEADING
    _code(canvas, "\n".join((head, *lines)), WIDE - CODE - 6 * mm, 8 * mm, CODE)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _fitted(lines: Sequence[str]) -> tuple[float, list[str]]:
    """Return the largest size at which all lines stand on the tag, and them wrapped."""
    size, told = SIZES[-1], list[str]()
    for size in SIZES:
        told = [
            p for line in lines for p in simpleSplit(line, REGULAR, size, WIDE - CODE - 16 * mm)
        ]
        if len(told) * size * LEADING <= HIGH - 29 * mm:
            break
    return size, told


def _code(canvas: Canvas, text: str, left: float, bottom: float, side: float) -> None:
    """Draw a code of a text, dark squares on white."""
    rows = code_rows(text)
    module = side / (len(rows) + 2 * QUIET)
    canvas.setFillColor(ink("ink"))
    for r, row in enumerate(rows):
        for c, dark in enumerate(row):
            if dark:
                x = left + (c + QUIET) * module
                y = bottom + side - (r + QUIET + 1) * module
                canvas.rect(x, y, module, module, stroke=0, fill=1)
