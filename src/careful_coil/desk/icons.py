"""The program's icon: as a window bears it, and its sizes made anew: python -m careful_coil.desk.icons."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication, QIcon, QImage, QPainter

from careful_coil.at_home import ASSETS, NAME, SIZES


def window_icon() -> QIcon:
    """Return the icon in all its sizes."""
    icon = QIcon()
    for size in SIZES:
        icon.addFile(str(ASSETS / "icons" / f"{size}.png"))
    return icon


def make() -> None:
    """Draw every size of it from the one drawing."""
    from PySide6.QtSvg import QSvgRenderer  # only where they are made

    app = QGuiApplication.instance() or QGuiApplication([])
    drawn = QSvgRenderer(str(ASSETS / f"{NAME}.svg"))
    (ASSETS / "icons").mkdir(exist_ok=True)
    for size in SIZES:
        image = QImage(size, size, QImage.Format.Format_ARGB32)
        image.fill(Qt.GlobalColor.transparent)
        painter = QPainter(image)
        drawn.render(painter)
        painter.end()
        image.save(str(ASSETS / "icons" / f"{size}.png"))
    del app


if __name__ == "__main__":
    make()
