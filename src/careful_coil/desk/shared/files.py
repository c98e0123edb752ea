"""Files that somebody names: a text within bounds, a picture in a size."""

from pathlib import Path

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QImage, QImageReader

from careful_coil.core.errors import BadDocument, BadValue

MOST_PIXELS = 64  # megapixels: a larger picture is not decoded
LARGEST_FILE = 4_000_000
MOST_NAME = 1000  # characters of a path


def read_file(text: str) -> str:
    """Return the text of a file. Raises: BadValue, BadDocument."""
    try:
        path = Path(text.strip().strip("'\"")).expanduser()
        if path.stat().st_size > LARGEST_FILE:
            raise BadDocument(path.name, "a very large file", f"at most {LARGEST_FILE // 10**6} MB")
        return path.read_text(encoding="utf-8-sig")
    except (OSError, ValueError, RuntimeError) as error:
        if isinstance(error, UnicodeDecodeError):
            raise BadDocument("CSV", "something that is no text", "UTF-8 text") from None
        raise BadValue(text, "the path of a CSV file that can be read") from None


def load_picture(file: Path | None, most: QSize) -> QImage:
    """Return a picture scaled into a size; an empty one where it cannot be read."""
    if file is None:
        return QImage()
    reader = QImageReader(str(file))
    reader.setAutoTransform(True)
    size = reader.size()
    if not size.isValid() or size.width() * size.height() > MOST_PIXELS * 1_000_000:
        return QImage()
    reader.setScaledSize(size.scaled(most, Qt.AspectRatioMode.KeepAspectRatio))
    return reader.read()
