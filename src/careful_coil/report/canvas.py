"""Shapes of the drawing package on a PDF canvas."""

from reportlab.lib.colors import Color, HexColor
from reportlab.pdfgen.canvas import Canvas

from careful_coil.drawing.shapes import Area, Dot, Drawing, Flag, Ring, Stroke, Words
from careful_coil.drawing.tokens import LIGHT, colour_of


def ink(token: str) -> Color:
    """Return a token's colour on paper."""
    return HexColor(colour_of(token, LIGHT))


def fitted(canvas: Canvas, page: tuple[float, float], drawn: tuple[float, float]) -> None:
    """Draw from here on as on a page of another size, as large as it fits, in the middle; points."""
    scale = min(page[0] / drawn[0], page[1] / drawn[1])
    canvas.translate((page[0] - drawn[0] * scale) / 2, (page[1] - drawn[1] * scale) / 2)
    canvas.scale(scale, scale)


def draw_shapes(
    canvas: Canvas, drawing: Drawing, left: float, top: float, scale: float, regular: str, bold: str
) -> None:
    """Draw with the upper left corner at (left, top) in points; `scale` points a millimetre."""

    def at(point: tuple[float, float]) -> tuple[float, float]:
        return left + point[0] * scale, top - point[1] * scale

    for shape in drawing.shapes:
        if isinstance(shape, Stroke):
            canvas.setStrokeColor(ink(shape.token))
            canvas.setLineWidth(shape.width * scale)
            canvas.setDash([2, 2] if shape.dashed else [])
            path = canvas.beginPath()
            path.moveTo(*at(shape.points[0]))
            for point in shape.points[1:]:
                path.lineTo(*at(point))
            canvas.drawPath(path)
            canvas.setDash([])
        elif isinstance(shape, Area):
            canvas.setFillColor(ink(shape.token))
            area = canvas.beginPath()
            area.moveTo(*at(shape.points[0]))
            for point in shape.points[1:]:
                area.lineTo(*at(point))
            area.close()
            canvas.drawPath(area, stroke=0, fill=1)
        elif isinstance(shape, Dot):
            canvas.setFillColor(ink(shape.token))
            canvas.circle(*at(shape.at), shape.radius * scale, stroke=0, fill=1)
        elif isinstance(shape, Ring):
            canvas.setFillColor(HexColor("#FFFFFF"))
            canvas.setStrokeColor(ink("ink"))
            canvas.setLineWidth(0.9 * scale)
            _pill(canvas, shape, at(shape.at), shape.radius * scale, scale, fill=1)
            canvas.setStrokeColor(ink(shape.token))
            canvas.setLineWidth(0.6 * scale)
            _pill(canvas, shape, at(shape.at), (shape.radius - 0.2) * scale, scale, fill=0)
            _centred(canvas, shape.text, at(shape.at), 3.0 * scale, bold)
        elif isinstance(shape, Flag):
            x, y = shape.at
            canvas.setStrokeColor(ink(shape.token))
            canvas.setLineWidth(0.5 * scale)
            path = canvas.beginPath()
            corners = ((x - 5, y - 8), (x + 5, y - 8), (x + 5, y - 3), (x, y), (x - 5, y - 3))
            path.moveTo(*at(corners[0]))
            for corner in corners[1:]:
                path.lineTo(*at(corner))
            path.close()
            canvas.drawPath(path)
            _centred(canvas, shape.text, at((x, y - 5)), 3.2 * scale, bold)
        elif isinstance(shape, Words):
            canvas.setFillColor(ink(shape.token))
            canvas.setFont(bold if shape.bold else regular, shape.size * scale)
            x, y = at(shape.at)
            draw = {-1: canvas.drawString, 0: canvas.drawCentredString, 1: canvas.drawRightString}
            draw[shape.anchor](x, y - shape.size * scale * 0.35, shape.text)


def _pill(
    canvas: Canvas, ring: Ring, at: tuple[float, float], radius: float, scale: float, fill: int
) -> None:
    half = max(ring.half * scale, radius)
    canvas.roundRect(
        at[0] - half, at[1] - radius, 2 * half, 2 * radius, radius, stroke=1, fill=fill
    )


def _centred(canvas: Canvas, text: str, at: tuple[float, float], size: float, face: str) -> None:
    canvas.setFillColor(ink("ink"))
    canvas.setFont(face, size)
    canvas.drawCentredString(at[0], at[1] - size * 0.36, text)
