"""A page on paper: the face, margins, a cursor that runs down and turns over; written whole or not at all."""

import io
from collections.abc import Callable, Sequence
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from careful_coil.assets import font_bytes
from careful_coil.core.errors import CoilError
from careful_coil.report.canvas import ink
from careful_coil.whole import write_whole

REGULAR, BOLD = "B612", "B612-Bold"
MARGIN, TOP, BOTTOM = 16 * mm, A4[1] - 16 * mm, 16 * mm


class CannotWrite(CoilError):
    """The sheet could not be written; what stood there before still stands."""


def write_paper(path: Path, content: bytes) -> None:
    """Write a PDF whole or not at all. Raises: CannotWrite."""
    try:
        write_whole(path, content, folders=False)
    except OSError as error:
        raise CannotWrite(f"The sheet was not written to {path}: {error.strerror}.") from None


def load_faces() -> None:
    """Make the two faces known to the PDF library."""
    for name, face in ((REGULAR, "Regular"), (BOLD, "Bold")):
        pdfmetrics.registerFont(TTFont(name, io.BytesIO(font_bytes(face))))


class Page:
    """A cursor that runs down the page and turns it over."""

    def __init__(
        self, canvas: Canvas, running: str, said: Callable[[str], str] = lambda words: words
    ) -> None:
        """`said` puts the program's own words, headings and labels, into the shop's terms."""
        self.canvas, self.running, self.y, self.count = canvas, running, TOP, 1
        self._said = said
        self._foot()

    def _foot(self) -> None:
        self.canvas.setFont(REGULAR, 8)
        self.canvas.setFillColor(ink("quiet"))
        self.canvas.drawString(MARGIN, 9 * mm, self.running)
        self.canvas.drawRightString(A4[0] - MARGIN, 9 * mm, f"Careful Coil · page {self.count}")

    def room(self, height: float) -> None:
        """Turn the page when less than `height` points are left."""
        if self.y - height < BOTTOM:
            self.turn()

    def turn(self) -> None:
        """Begin another page."""
        self.canvas.showPage()
        self.count += 1
        self.y = TOP
        self._foot()

    def text(
        self,
        words: str,
        size: float = 9,
        bold: bool = False,
        token: str = "ink",
        indent: float = 0,
        wide: float | None = None,
    ) -> None:
        """Write a paragraph, `wide` points or all that is left of the page."""
        face = BOLD if bold else REGULAR
        for line in simpleSplit(words, face, size, wide or A4[0] - 2 * MARGIN - indent):
            self.room(size * 1.4)
            self.y -= size * 1.4
            self.canvas.setFont(face, size)
            self.canvas.setFillColor(ink(token))
            self.canvas.drawString(MARGIN + indent, self.y, line)

    def head(self, words: str) -> None:
        """Start a part of the sheet."""
        self.room(30)
        self.y -= 6
        self.canvas.setStrokeColor(ink("hairline"))
        self.canvas.line(MARGIN, self.y, A4[0] - MARGIN, self.y)
        self.text(self._said(words), 11, bold=True)
        self.y -= 2

    def rows(self, pairs: Sequence[tuple[str, str]], columns: int = 2) -> None:
        """Write label and value pairs in columns; a long value takes a row of its own lines."""
        width = (A4[0] - 2 * MARGIN) / columns
        for start in range(0, len(pairs), columns):
            chunk = pairs[start : start + columns]
            wrapped = [
                simpleSplit(value or "–", REGULAR, 9, width - 78) or ["–"] for _, value in chunk
            ]
            lines = max(len(w) for w in wrapped)
            self.room(lines * 12.5)
            for k, ((label, _), several) in enumerate(zip(chunk, wrapped, strict=True)):
                x, y = MARGIN + width * k, self.y - 12.5
                self.canvas.setFont(REGULAR, 8)
                self.canvas.setFillColor(ink("quiet"))
                self.canvas.drawString(x, y, self._said(label))
                self.canvas.setFont(REGULAR, 9)
                self.canvas.setFillColor(ink("ink"))
                for n, line in enumerate(several):
                    self.canvas.drawString(x + 74, y - 12.5 * n, line)
            self.y -= lines * 12.5
