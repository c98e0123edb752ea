"""Shapes as SVG text: one drawing a document, in millimetres, light or dim."""

from xml.sax.saxutils import escape

from careful_coil.drawing.shapes import Area, Dot, Drawing, Flag, Ring, Shape, Stroke
from careful_coil.drawing.tokens import LIGHT, colour_of

FACE = "B612, sans-serif"
ANCHOR = {-1: "start", 0: "middle", 1: "end"}


def svg_of(drawing: Drawing, theme: dict[str, str] = LIGHT, title: str = "") -> str:
    """Return a drawing as an SVG document of its own size."""
    wide, high = max(drawing.width, 1.0), max(drawing.height, 1.0)
    body = "\n".join(_shape(s, theme) for s in drawing.shapes)
    named = f"<title>{escape(title)}</title>\n" if title else ""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.1f}mm" height="{high:.1f}mm" '
        f'viewBox="0 0 {wide:.2f} {high:.2f}" font-family="{FACE}">\n{named}'
        f'<rect width="{wide:.2f}" height="{high:.2f}" fill="{colour_of("ground", theme)}"/>\n{body}\n</svg>\n'
    )


def _shape(shape: Shape, theme: dict[str, str]) -> str:
    paint = colour_of(shape.token, theme)
    if isinstance(shape, Stroke):
        points = " ".join(f"{x:.2f},{y:.2f}" for x, y in shape.points)
        dashed = ' stroke-dasharray="1.6 1.2"' if shape.dashed else ""
        return (
            f'<polyline points="{points}" fill="none" stroke="{paint}" '
            f'stroke-width="{shape.width}" stroke-linejoin="round"{dashed}/>'
        )
    if isinstance(shape, Area):
        points = " ".join(f"{x:.2f},{y:.2f}" for x, y in shape.points)
        return f'<polygon points="{points}" fill="{paint}"/>'
    x, y = shape.at
    if isinstance(shape, Dot):
        return f'<circle cx="{x:.2f}" cy="{y:.2f}" r="{shape.radius}" fill="{paint}"/>'
    if isinstance(shape, Ring):
        half = max(shape.half, shape.radius)
        return (
            f'<rect x="{x - half:.2f}" y="{y - shape.radius:.2f}" width="{2 * half:.2f}" '
            f'height="{2 * shape.radius:.2f}" rx="{shape.radius}" stroke="{paint}" '
            f'stroke-width="0.9" fill="{colour_of("surface", theme)}"/>'
            + _text(shape.text, x, y, 3.0, 0, colour_of("ink", theme), True)
        )
    if isinstance(shape, Flag):
        corners = ((-5.5, -9), (5.5, -9), (5.5, -3.4), (0, 0), (-5.5, -3.4))
        points = " ".join(f"{x + a:.2f},{y + b:.2f}" for a, b in corners)
        return (
            f'<polygon points="{points}" stroke="{paint}" stroke-width="0.5" '
            f'fill="{colour_of("surface", theme)}"/>'
            + _text(shape.text, x, y - 5.6, 3.6, 0, colour_of("ink", theme), True)
        )
    return _text(shape.text, x, y, shape.size, shape.anchor, paint, shape.bold)


def _text(text: str, x: float, y: float, size: float, anchor: int, paint: str, bold: bool) -> str:
    weight = ' font-weight="bold"' if bold else ""
    return (
        f'<text x="{x:.2f}" y="{y + 0.35 * size:.2f}" font-size="{size}" '
        f'text-anchor="{ANCHOR[anchor]}" fill="{paint}"{weight}>{escape(text)}</text>'
    )
