"""The markings as a strip of tags to cut and wrap round the leads: each twice, to be read all round."""

import io
from collections.abc import Sequence

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.job import Job
from careful_coil.report.canvas import fitted, ink
from careful_coil.report.page import BOLD, REGULAR, load_faces

HIGH, WIDE = 14 * mm, 58 * mm
LEFT, TOP = 15 * mm, A4[1] - 20 * mm
COLUMNS = 3


def tag_strip(
    number: int,
    job: Job,
    marks: Sequence[tuple[str, str, str]],
    label: tuple[float, float] | None = None,
) -> bytes:
    """Return tags as PDF. `marks`: tag, marking, how sure; open ones are left out.

    `label` width and height in mm: a page each, for a label printer. A guess is printed with a question mark:
    it is not to be mistaken for a proven marking.
    """
    load_faces()
    buffer = io.BytesIO()
    sure = [mark for mark in marks if mark[1] != "–"]
    page = (label[0] * mm, label[1] * mm) if label and sure else A4
    canvas = Canvas(buffer, pagesize=page, invariant=1, lang="en")
    canvas.setTitle(f"Tags {number}: {job.name}")
    if page != A4:
        for mark in sure:
            fitted(canvas, page, (WIDE, HIGH))
            _tag(canvas, number, mark)
            canvas.showPage()
    else:
        canvas.setFont(REGULAR, 9)
        canvas.setFillColor(ink("quiet"))
        told = f"Job {number}, {job.name}: cut along the lines, wrap, sleeve over"
        canvas.drawString(LEFT, TOP + 4 * mm, told)
        for k, mark in enumerate(sure):
            canvas.saveState()
            canvas.translate(
                LEFT + (k % COLUMNS) * (WIDE + 3 * mm), TOP - (k // COLUMNS + 1) * (HIGH + 2 * mm)
            )
            _tag(canvas, number, mark)
            canvas.restoreState()
        canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _tag(canvas: Canvas, number: int, mark: tuple[str, str, str]) -> None:
    """Draw a tag from the corner at its left below."""
    tag, marking, word = mark
    shown = f"{marking} ?" if word == "guess" else marking
    canvas.setStrokeColor(ink("note"))
    canvas.rect(0, 0, WIDE, HIGH)
    canvas.setFillColor(ink("ink"))
    for half in (0, 1):
        canvas.setFont(BOLD, 22 if len(shown) < 5 else 12)
        canvas.drawCentredString(WIDE * (0.28 + 0.44 * half), 4.5 * mm, shown)
    canvas.setFont(REGULAR, 7)
    canvas.setFillColor(ink("quiet"))
    canvas.drawString(1.5 * mm, HIGH - 3.2 * mm, f"{tag} · {number}")
