"""The hookup card on half an A4, and as a tag for the lead box; both as PDF, the card also as SVG."""

import io

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.ledger import Judgement
from careful_coil.drawing.card import draw_card, draw_tag
from careful_coil.drawing.shapes import Drawing
from careful_coil.report.canvas import draw_shapes
from careful_coil.report.page import BOLD, REGULAR, load_faces


def card(number: int, judged: Judgement, day: str) -> bytes:
    """Return the card as PDF."""
    return _pdf(draw_card(number, judged, day), f"Hookup {number}: {judged.job.name}")


def tag(number: int, judged: Judgement, day: str) -> bytes:
    """Return the tag as PDF."""
    return _pdf(draw_tag(number, judged, day), f"Tag {number}: {judged.job.name}")


def _pdf(drawing: Drawing, title: str) -> bytes:
    load_faces()
    buffer = io.BytesIO()
    high = drawing.height * mm
    canvas = Canvas(buffer, pagesize=(drawing.width * mm, high), invariant=1, lang="en")
    canvas.setTitle(title)
    draw_shapes(canvas, drawing, 0.0, high, mm, REGULAR, BOLD)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()
