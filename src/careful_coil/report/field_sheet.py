"""The field sheet: a visit's lines numbered, in the order hands make them, with room to write; A4."""

import io

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.ledger.site_line import SiteLine
from careful_coil.core.terms import in_terms
from careful_coil.report.canvas import ink
from careful_coil.report.page import BOLD, MARGIN, REGULAR, Page, load_faces

ROW = 12.5 * mm
ROOM = 62 * mm  # to write in
CAUTIONS = (
    "Isolate, lock out, prove dead before a lead is touched; discharge every capacitor and prove it with a meter.",
    "Work on the supply is for qualified people under the local code. Two people where volts are on.",
    "Numbers are those of the entry page: type them there in this order.",
)


def field_sheet_paper(number: int, judged: Judgement) -> bytes:
    """Return the field sheet of a job as PDF; what is on record already stands in its place."""
    load_faces()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4, invariant=1, lang="en")
    canvas.setTitle(f"Field sheet {number}: {judged.job.name}")
    page = Page(
        canvas,
        f"Field sheet · job {number} · {judged.job.name}",
        lambda w: in_terms(w, judged.facts.settings),
    )
    page.text(judged.job.name, 18, bold=True)
    page.text(f"Field sheet, job {number}", 10)
    plate = judged.job.plate
    page.y -= 4
    page.rows(
        [
            ("Where", judged.job.ticket.get("customer", "")),
            ("Complaint", judged.job.ticket.get("complaint", "")),
            ("Volts", plate.printed("volt")),
            ("Amps", plate.printed("amp")),
            ("Power", plate.printed("power")),
            ("Rev/min", plate.printed("rpm")),
        ]
    )
    plan = judged.facts.connecting.plan
    if plan is not None:
        joints = ", ".join(judged.facts.connecting.said(j) for j in plan.joints)
        page.text(f"Hookup: {judged.facts.connection}. {joints}.", 9)
    for caution in CAUTIONS:
        page.text(caution, 9, bold=True)
    page.head("To read and to set")
    lines = field_sheet(judged.job, judged.facts.connecting, judged.facts.installer)
    for k, line in enumerate(lines, 1):
        _line(page, k, line)
    page.room(20 * mm)
    page.y -= 12 * mm
    for words, left in (("By", 0.0), ("Day and hour", 62 * mm), ("Meter, its number", 118 * mm)):
        canvas.setStrokeColor(ink("ink"))
        canvas.line(MARGIN + left, page.y, MARGIN + left + 52 * mm, page.y)
        canvas.setFont(REGULAR, 8)
        canvas.setFillColor(ink("quiet"))
        canvas.drawString(MARGIN + left, page.y - 10, words)
    canvas.save()
    return buffer.getvalue()


def _line(page: Page, k: int, line: SiteLine) -> None:
    """Write a line: its number, what is read and how, room for the figure at the right."""
    page.room(ROW)
    top, canvas = page.y, page.canvas
    words = A4[0] - 2 * MARGIN - ROOM - 16 * mm
    canvas.setFont(BOLD, 12)
    canvas.setFillColor(ink("ink"))
    canvas.drawRightString(MARGIN + 8 * mm, top - 14.5, f"{k}")
    left = 11 * mm
    page.y = top
    page.text(line.title, 10, bold=True, indent=left, wide=words)
    page.text(line.how, 8.5, token="quiet", indent=left, wide=words)
    right = A4[0] - MARGIN
    low = min(page.y - 1.0 * mm, top - ROW + 3 * mm)
    canvas.setStrokeColor(ink("ink"))
    canvas.setLineWidth(0.6)
    canvas.line(right - ROOM, low, right, low)
    canvas.setFont(REGULAR, 10 if line.done else 8)
    canvas.setFillColor(ink("ink" if line.done else "quiet"))
    told = simpleSplit(line.done or f"such as {line.hint}", REGULAR, 10 if line.done else 8, ROOM)
    at = low + 1.5 * mm if line.done else low - 3.2 * mm
    canvas.drawString(right - ROOM, at, told[0] + (" …" if len(told) > 1 else ""))
    page.y = low - 3.2 * mm
