"""Painting: texts, verdict marks and the shapes of the drawing package."""

from functools import cache, lru_cache

from PySide6.QtCore import QPointF, QRect, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetrics, QPainter, QPen, QPolygonF

from careful_coil.desk.theme import Theme
from careful_coil.desk.tongue import tr
from careful_coil.drawing.shapes import Area, Dot, Drawing, Flag, Ring, Stroke, Words
from careful_coil.drawing.tokens import LIGHT_WIRES, wire

WRAP = Qt.TextFlag.TextWordWrap
ALIGN = {
    -1: Qt.AlignmentFlag.AlignLeft,
    0: Qt.AlignmentFlag.AlignHCenter,
    1: Qt.AlignmentFlag.AlignRight,
}
MOST_KNOWN = 4096  # texts whose sizes are remembered
MIDDLE = Qt.AlignmentFlag.AlignVCenter


def text(
    painter: QPainter,
    theme: Theme,
    at: QRect,
    words: str,
    *,
    size: float = 15,
    bold: bool = False,
    token: str = "ink",
    align: int = -1,
    wrap: bool = False,
) -> int:
    """Write plain text into a rectangle; return the height it took. One line is elided."""
    words = tr(words)
    painter.setFont(theme.font(size, bold))
    painter.setPen(theme.colour(token))
    if wrap:
        flags = int(ALIGN[align]) | int(WRAP)
        painter.drawText(at, flags, words)
        return height_of(theme, words, at.width(), size, bold)
    shown = _elided(theme, words, at.width(), size, bold)
    painter.drawText(at, int(ALIGN[align] | MIDDLE), shown)
    return _metrics(theme, size, bold).height()


def fitting(theme: Theme, room: int, *shorter: str, size: float = 13) -> str:
    """Return the first of several ways to say a thing that fits, the shortest at last."""
    return next((w for w in shorter if width_of(theme, w, size) <= room), "")


@cache
def _metrics(theme: Theme, size: float, bold: bool) -> QFontMetrics:
    return QFontMetrics(theme.font(size, bold))


# what a text measures is asked at every repaint, and is the same at most of them
@lru_cache(MOST_KNOWN)
def _elided(theme: Theme, words: str, width: int, size: float, bold: bool) -> str:
    return _metrics(theme, size, bold).elidedText(words, Qt.TextElideMode.ElideRight, width)


def height_of(theme: Theme, words: str, width: int, size: float = 15, bold: bool = False) -> int:
    """Return the height of a wrapped text."""
    return _height(theme, tr(words), width, size, bold)


@lru_cache(MOST_KNOWN)
def _height(theme: Theme, words: str, width: int, size: float, bold: bool) -> int:
    metrics = _metrics(theme, size, bold)
    return metrics.boundingRect(QRect(0, 0, max(width, 1), 10000), int(WRAP), words).height()


def width_of(theme: Theme, words: str, size: float = 15, bold: bool = False) -> int:
    """Return the width of a one-line text."""
    return _width(theme, tr(words), size, bold)


@lru_cache(MOST_KNOWN)
def _width(theme: Theme, words: str, size: float, bold: bool) -> int:
    return _metrics(theme, size, bold).horizontalAdvance(words)


def mark(
    painter: QPainter, theme: Theme, verdict: str, centre: QPointF, size: float, strip: bool = False
) -> None:
    """Draw a verdict's mark: shape and colour of its own."""
    colour = theme.colour(f"strip-mark:{verdict}" if strip else verdict)
    ground = theme.colour("strip" if strip else "ground")
    r = theme.px(size) / 2
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(colour)
    x, y = centre.x(), centre.y()
    if verdict == "good":
        painter.drawEllipse(centre, r, r)
        painter.setPen(QPen(ground, r / 3.2, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        tick = [
            QPointF(x - r * 0.45, y + r * 0.05),
            QPointF(x - r * 0.1, y + r * 0.4),
            QPointF(x + r * 0.5, y - r * 0.35),
        ]
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(QPolygonF(tick))
    elif verdict == "watch":
        painter.drawPolygon(
            QPolygonF([QPointF(x, y - r), QPointF(x + r, y + r * 0.8), QPointF(x - r, y + r * 0.8)])
        )
    elif verdict == "hold":
        painter.drawRect(QRectF(x - r, y - r, 2 * r, 2 * r))
        painter.setBrush(ground)
        painter.drawRect(QRectF(x - r * 0.6, y - r * 0.18, r * 1.2, r * 0.36))
    elif verdict == "unproven":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(colour, r / 2.6))
        painter.drawEllipse(centre, r * 0.8, r * 0.8)
    else:
        painter.drawRect(QRectF(x - r * 0.8, y - r * 0.18, r * 1.6, r * 0.36))
    painter.restore()


def stub(
    painter: QPainter, theme: Theme, at: QRectF, colour: str, tracer: str, upright: bool = True
) -> None:
    """Draw a piece of wire in its own colour, with its tracer; light ones get an outline."""
    token = wire(colour)
    fill = theme.colour(token) if token != "ink" else theme.colour("surface")
    painter.save()
    outline = token == "ink" or token.removeprefix("wire:") in LIGHT_WIRES or theme.dim
    painter.setPen(QPen(theme.colour("quiet"), 1) if outline else Qt.PenStyle.NoPen)
    painter.setBrush(fill)
    painter.drawRect(at)
    if tracer:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour(wire(tracer)))
        w, h = at.width(), at.height()
        stripe = QRectF(at.x() + w * 0.36, at.y(), w * 0.28, h)
        painter.drawRect(stripe)
    painter.restore()


def drawing(painter: QPainter, theme: Theme, shapes: Drawing, into: QRectF, most: float) -> None:
    """Draw shapes scaled into a rectangle, at most `most` pixels a millimetre, centred."""
    if not shapes.width or not shapes.height:
        return
    scale = min(into.width() / shapes.width, into.height() / shapes.height, most)
    left = into.x() + (into.width() - shapes.width * scale) / 2

    def at(point: tuple[float, float]) -> QPointF:
        return QPointF(left + point[0] * scale, into.y() + point[1] * scale)

    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    for shape in shapes.shapes:
        if isinstance(shape, Stroke):
            pen = QPen(theme.colour(shape.token), max(shape.width * scale, 1.4))
            pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
            if shape.dashed:
                pen.setDashPattern([3, 2.4])
            painter.setPen(pen)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPolyline(QPolygonF([at(p) for p in shape.points]))
        elif isinstance(shape, Area):
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour(shape.token))
            painter.drawPolygon(QPolygonF([at(p) for p in shape.points]))
        elif isinstance(shape, Dot):
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour(shape.token))
            painter.drawEllipse(at(shape.at), shape.radius * scale, shape.radius * scale)
        elif isinstance(shape, Ring):
            _ring(painter, theme, shape, at(shape.at), scale)
        elif isinstance(shape, Flag):
            x, y = shape.at
            corners = (
                (x - 5.5, y - 9),
                (x + 5.5, y - 9),
                (x + 5.5, y - 3.4),
                (x, y),
                (x - 5.5, y - 3.4),
            )
            flag = QPolygonF([at(c) for c in corners])
            painter.setBrush(theme.colour("surface"))
            if shape.token != "ink":  # a conductor's own colour may be that of the ground
                painter.setPen(QPen(theme.colour("quiet"), max(0.9 * scale, 3.4)))
                painter.drawPolygon(flag)
            painter.setPen(QPen(theme.colour(shape.token), max(0.5 * scale, 1.4)))
            painter.drawPolygon(flag)
            _centred(painter, theme, shape.text, at((x, y - 5.6)), max(4.0 * scale, 13), "ink")
        elif isinstance(shape, Words):
            _words(painter, theme, shape, at(shape.at), scale, into.right())
    painter.restore()


def _ring(painter: QPainter, theme: Theme, shape: Ring, centre: QPointF, scale: float) -> None:
    radius = max(shape.radius * scale, theme.px(11))
    size = theme.px(15 if len(shape.text) < 2 else 13)
    half = max(shape.half * scale, radius)
    if len(shape.text) > 2:
        half = max(half, width_of(theme, shape.text, 13, bold=True) / 2 + theme.px(5))

    def outline(more: float) -> None:
        box = QRectF(
            centre.x() - half - more,
            centre.y() - radius - more,
            2 * (half + more),
            2 * (radius + more),
        )
        painter.drawRoundedRect(box, radius + more, radius + more)

    colour: QColor = theme.colour(shape.token)
    light = shape.token.removeprefix("wire:") in LIGHT_WIRES
    painter.setBrush(theme.colour("surface"))
    if light or theme.dim:
        painter.setPen(QPen(theme.colour("quiet"), 1))
        outline(2.0)
    painter.setPen(QPen(colour, 3.2))
    outline(0.0)
    if shape.tracer:
        painter.setPen(QPen(theme.colour(wire(shape.tracer)), 3.2, Qt.PenStyle.DotLine))
        outline(0.0)
    _centred(painter, theme, shape.text, centre, size, "ink")


def _centred(
    painter: QPainter, theme: Theme, words: str, centre: QPointF, size: float, token: str
) -> None:
    font = theme.font(13, bold=True)
    font.setPixelSize(round(size))
    painter.setFont(font)
    painter.setPen(theme.colour(token))
    box = QRectF(centre.x() - 40, centre.y() - size, 80, 2 * size)
    painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), words)


def _words(
    painter: QPainter, theme: Theme, shape: Words, at: QPointF, scale: float, edge: float
) -> None:
    size, words = max(shape.size * scale, theme.px(13)), tr(shape.text)
    font = theme.font(13, shape.bold)
    font.setPixelSize(round(size))
    painter.setFont(font)
    painter.setPen(theme.colour(shape.token))
    width = 400.0
    start = at.x()
    if shape.anchor == -1:  # letters do not shrink with the drawing: the last ones stay in sight
        start = max(min(start, edge - painter.fontMetrics().horizontalAdvance(words)), 0.0)
    left = {-1: start, 0: at.x() - width / 2, 1: at.x() - width}[shape.anchor]
    box = QRectF(left, at.y() - size, width, 2 * size)
    painter.drawText(box, int(ALIGN[shape.anchor] | MIDDLE), words)
