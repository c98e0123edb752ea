"""Colours, type and sizes of the window: one frozen theme, handed to every part."""

from dataclasses import dataclass, replace
from functools import cache

from PySide6.QtCore import QByteArray
from PySide6.QtGui import QColor, QFont, QFontDatabase

from careful_coil.assets import font_bytes
from careful_coil.drawing.tokens import DIM, LIGHT, STRIP_QUIET, colour_of

SCALES = (1.0, 1.25, 1.5, 1.75)
FAMILY = "B612"


@cache
def _font(pixels: int, bold: bool) -> QFont:
    """Return a face, made once."""
    font = QFont(FAMILY)
    font.setPixelSize(pixels)
    font.setBold(bold)
    return font


@cache
def _colour(token: str, dim: bool) -> QColor:
    """Return a colour, made once."""
    if token == "strip-quiet":
        return QColor(STRIP_QUIET)
    if token.startswith("strip-mark:"):
        return QColor(DIM[token.removeprefix("strip-mark:")])
    return QColor(colour_of(token, DIM if dim else LIGHT))


@dataclass(frozen=True, slots=True)
class Theme:
    """The palette and the text scale. Sizes are given in pixels at 100 %."""

    dim: bool = False
    scale: float = 1.0

    def px(self, size: float) -> int:
        """Return a size at the text scale."""
        return round(size * self.scale)

    def colour(self, token: str) -> QColor:
        """Return the colour of a token."""
        return QColor(_colour(token, self.dim))  # one's own: a drawing may change it

    def font(self, size: float = 15, bold: bool = False) -> QFont:
        """Return the face at a size in pixels."""
        return QFont(_font(max(self.px(size), 1), bold))  # one's own: a drawing may change it

    def other(self) -> "Theme":
        """Return the same with light and dim exchanged."""
        return replace(self, dim=not self.dim)

    def larger(self, steps: int) -> "Theme":
        """Return the same some text sizes up or down, within what there is."""
        place = min(max(SCALES.index(self.scale) + steps, 0), len(SCALES) - 1)
        return replace(self, scale=SCALES[place])

    def sheet(self) -> str:
        """Return the style sheet of the few stock widgets in use."""
        c = {
            t: self.colour(t).name()
            for t in ("ground", "surface", "ink", "quiet", "note", "hairline", "hold", "copper")
        }
        return f"""
            * {{ font-family: {FAMILY}; font-size: {self.px(15)}px; color: {c["ink"]}; }}
            QScrollArea, QScrollArea > QWidget > QWidget {{ background: {c["ground"]}; border: 0; }}
            QLabel#label {{ color: {c["quiet"]}; font-size: {self.px(13)}px; }}
            QLabel#message {{ color: {c["hold"]}; font-size: {self.px(13)}px; }}
            QLineEdit {{ background: {c["surface"]}; border: 1px solid {c["note"]}; border-radius: 3px;
                padding: 0 {self.px(8)}px; min-height: {self.px(36)}px;
                placeholder-text-color: {c["quiet"]};
                selection-background-color: {c["ink"]}; selection-color: {c["surface"]}; }}
            QLineEdit[asked="true"] {{ border: 1px solid {c["copper"]}; border-left: 5px solid {c["copper"]}; }}
            QLabel#label[asked="true"] {{ color: {c["copper"]}; font-weight: bold; }}
            QLineEdit:focus {{ border: 2px solid {c["ink"]}; }}
            QPushButton {{ background: {c["surface"]}; border: 1px solid {c["note"]}; border-radius: 3px;
                padding: 0 {self.px(12)}px; min-height: {self.px(42)}px; text-align: left; }}
            QPushButton:focus {{ border: 2px solid {c["ink"]}; }}
            QPushButton:checked {{ background: {c["ink"]}; color: {c["ground"]}; }}
            QListView {{ background: {c["ground"]}; border: 0; outline: 0; }}
            QMenuBar, QMenu {{ background: {c["ground"]}; color: {c["ink"]}; }}
            QMenu {{ background: {c["surface"]}; border: 1px solid {c["note"]}; padding: 4px; }}
            QMenuBar::item:selected, QMenu::item:selected {{ background: {c["ink"]}; color: {c["ground"]}; }}
            QScrollBar:vertical {{ background: {c["ground"]}; width: 8px; margin: 0; }}
            QScrollBar::handle:vertical {{ background: {c["hairline"]}; border-radius: 4px; min-height: 30px; }}
            QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page
                {{ background: none; height: 0; }}
        """


def load_fonts() -> None:
    """Make the two faces known to Qt. Needs a QGuiApplication."""
    for name in ("Regular", "Bold"):
        if QFontDatabase.addApplicationFontFromData(QByteArray(font_bytes(name))) < 0:
            raise RuntimeError(f"the font B612 {name} that ships could not be loaded")
