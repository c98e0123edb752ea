"""Fonts that ship with the program."""

from importlib.resources import files


def font_bytes(name: str) -> bytes:
    """Return a font file: `Regular` or `Bold`."""
    return (files(__name__) / "fonts" / f"B612-{name}.ttf").read_bytes()


def language_file(name: str) -> str:
    """Return the words of a language, `de`, as a gettext catalogue."""
    return (files(__name__) / "languages" / f"{name}.po").read_text(encoding="utf-8")
