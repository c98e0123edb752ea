"""The markings as a strip of tags to cut and wrap round the leads: each twice, to be read all round."""

import io
from collections.abc import Sequence

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.job import Job
from careful_coil.report.canvas import ink
from careful_coil.report.page import BOLD, REGULAR, load_faces

HIGH, WIDE = 14 * mm, 58 * mm
LEFT, TOP = 15 * mm, A4[1] - 20 * mm
COLUMNS = 3


def tag_strip(number: int, job: Job, marks: Sequence[tuple[str, str, str]]) -> bytes:
    """Return tags as PDF. `marks`: tag, marking, how sure; open ones are left out.

    A guess is printed with a question mark: it is not to be mistaken for a proven marking.
    """
    load_faces()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4, invariant=1, lang="en")
    canvas.setTitle(f"Tags {number}: {job.name}")
    canvas.setFont(REGULAR, 9)
    canvas.setFillColor(ink("quiet"))
    canvas.drawString(
        LEFT, TOP + 4 * mm, f"Job {number}, {job.name}: cut along the lines, wrap, sleeve over"
    )
    sure = [(tag, mark, word) for tag, mark, word in marks if mark != "–"]
    for k, (tag, mark, word) in enumerate(sure):
        x = LEFT + (k % COLUMNS) * (WIDE + 3 * mm)
        y = TOP - (k // COLUMNS + 1) * (HIGH + 2 * mm)
        shown = f"{mark} ?" if word == "guess" else mark
        canvas.setStrokeColor(ink("note"))
        canvas.rect(x, y, WIDE, HIGH)
        canvas.setFillColor(ink("ink"))
        for half in (0, 1):
            canvas.setFont(BOLD, 22 if len(shown) < 5 else 12)
            canvas.drawCentredString(x + WIDE * (0.28 + 0.44 * half), y + 4.5 * mm, shown)
        canvas.setFont(REGULAR, 7)
        canvas.setFillColor(ink("quiet"))
        canvas.drawString(x + 1.5 * mm, y + HIGH - 3.2 * mm, f"{tag} · {number}")
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()
