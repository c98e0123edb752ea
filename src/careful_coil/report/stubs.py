"""The two stubs of a ticket on one small page: one hangs on the motor, one goes with the customer."""

import io

from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.ledger import Judgement
from careful_coil.report.canvas import ink
from careful_coil.report.page import BOLD, REGULAR, load_faces

WIDE, HIGH = 148 * mm, 74 * mm  # a quarter of A4, across
LINES_MOST = 4


def stubs(number: int, judged: Judgement) -> bytes:
    """Return the stubs as PDF."""
    load_faces()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(WIDE, HIGH), invariant=1, lang="en")
    canvas.setTitle(f"Stubs {number}: {judged.job.name}")
    ticket = judged.job.ticket
    _stub(
        canvas,
        0,
        number,
        "Motor",
        (judged.job.name, ticket.get("complaint", ""), ticket.get("place", "")),
    )
    words = (
        ticket.get("customer", "") or judged.job.name,
        ticket.get("phone", ""),
        "Bring this stub.",
    )
    _stub(canvas, WIDE / 2, number, "Customer", words)
    canvas.setStrokeColor(ink("note"))
    canvas.setDash([3, 3])
    canvas.line(WIDE / 2, 4 * mm, WIDE / 2, HIGH - 4 * mm)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _stub(canvas: Canvas, left: float, number: int, title: str, words: tuple[str, ...]) -> None:
    """Draw one stub: a hole to hang it by, the number large, who and what."""
    x, y = left + 6 * mm, HIGH - 12 * mm
    canvas.setStrokeColor(ink("note"))
    canvas.circle(left + WIDE / 4, HIGH - 6 * mm, 2 * mm)
    canvas.setFillColor(ink("quiet"))
    canvas.setFont(REGULAR, 9)
    canvas.drawString(x, y, title)
    canvas.setFillColor(ink("ink"))
    canvas.setFont(BOLD, 40)
    canvas.drawString(x, y - 15 * mm, str(number))
    y -= 23 * mm
    for k, text in enumerate(w for w in words if w):
        face = BOLD if k == 0 else REGULAR
        for line in simpleSplit(text, face, 10, WIDE / 2 - 12 * mm)[:LINES_MOST]:
            canvas.setFont(face, 10)
            canvas.drawString(x, y, line)
            y -= 5 * mm
