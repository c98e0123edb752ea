"""A page of the handbook in the window: its pictures in the theme's colours, as wide as there is room."""

import re
from typing import Any

from PySide6.QtCore import QByteArray, QRectF, QUrl
from PySide6.QtGui import QImage, QPainter, QTextDocument
from PySide6.QtSvg import QSvgRenderer
from PySide6.QtWidgets import QTextBrowser

from careful_coil.desk.theme import Theme
from careful_coil.drawing.tokens import DIM, LIGHT
from careful_coil.handbook import folder

PX_PER_MM = 3.4  # of a drawing at 100 % text
BESIDE = 60  # pixels that a page keeps beside a picture
_HEX = re.compile("#[0-9a-fA-F]{6}")


class HandbookPage(QTextBrowser):
    """The text, with drawings of the program laid into it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme

    def loadResource(self, kind: int, name: QUrl | str) -> Any:
        """Return a picture as it is shown here; what is no drawing of the handbook is left to Qt."""
        file = folder() / QUrl(name).fileName()
        if kind == QTextDocument.ResourceType.ImageResource.value and file.suffix == ".svg":
            return self._drawn(file.read_text(encoding="utf-8")) if file.is_file() else QImage()
        return super().loadResource(kind, name)

    def _drawn(self, svg: str) -> QImage:
        renderer = QSvgRenderer(QByteArray(in_theme(svg, self.theme).encode()))
        box = renderer.viewBoxF()
        room = max(self.viewport().width() - BESIDE, 200)
        wide = min(round(box.width() * PX_PER_MM * self.theme.scale), room)
        high = round(wide * box.height() / max(box.width(), 1.0))
        image = QImage(wide, max(high, 1), QImage.Format.Format_ARGB32_Premultiplied)
        image.fill(self.theme.colour("surface"))
        painter = QPainter(image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        renderer.render(painter, QRectF(image.rect()))
        painter.end()
        return image


def in_theme(svg: str, theme: Theme) -> str:
    """Return a drawing made for paper in the colours of a theme, on the page's own ground."""
    tokens = DIM if theme.dim else LIGHT
    other = {colour.lower(): tokens[token] for token, colour in LIGHT.items()}
    other[LIGHT["ground"].lower()] = tokens["surface"]
    return _HEX.sub(lambda m: other.get(m[0].lower(), m[0]), svg)
