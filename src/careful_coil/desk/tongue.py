"""The language of the window: everything that is painted or written on a widget passes through `tr`.

Words come from a gettext catalogue in `assets/languages`; what is not in it is shown in English. Figures
and days follow the language also where the words do not; what is typed is read with a point or a comma.
"""

import re
from collections.abc import Mapping
from functools import lru_cache

from careful_coil.assets import language_file

ENGLISH = "en"
# what the shop chose: the language's own code; "as the desktop" asks the desktop
CODES: Mapping[str, str] = {"english": ENGLISH, "german": "de", "spanish": "es", "french": "fr"}
DAYS: Mapping[str, str] = {"de": r"\3.\2.\1", "es": r"\3/\2/\1", "fr": r"\3/\2/\1"}
_POINT = re.compile(r"(?<![\w.,/:])(\d+)\.(\d+)(?![\d.]*\.\d)(?![\w]*\.\w)")
_SENTENCE = r"(?<=[.?!]) "
_DAY = re.compile(r"\b(\d{4})-(\d\d)-(\d\d)\b")
_HOLE = re.compile(r"\\\{(\w+)\\\}")
FIGURES = {"count", "number", "hottest", "rate"}  # holes that take a figure
KNOWN = {"station", "what"}  # holes that take only what the catalogue has
MOST_KNOWN = 8192


class Tongue:
    """A language: whole texts, and texts with holes whose insides are said in it too."""

    def __init__(self, code: str, words: Mapping[str, str]) -> None:
        self.code = code
        self._whole = {en: other for en, other in words.items() if "{" not in en}
        self._holed = [
            (re.compile(_HOLE.sub(_group, re.escape(en)), re.DOTALL), other)
            for en, other in words.items()
            if "{" in en
        ]

    def found(self, words: str) -> str | None:
        """Return a text in this language; None where it has no words for it."""
        found = self._found(words)
        if found is None and words[:1].isupper():  # the same at the head of a line
            found = self._found(words[:1].lower() + words[1:])
            return found and found[:1].upper() + found[1:]
        return found

    def _found(self, words: str) -> str | None:
        if words in self._whole:
            return self._whole[words]
        for pattern, other in self._holed:
            match = pattern.fullmatch(words)
            holes = match.groupdict() if match else {}
            if match and all(self.found(v) is not None for k, v in holes.items() if k in KNOWN):
                return other.format(**{k: self.say(v) for k, v in holes.items()})
        for between, mark in ((", ", ", "), (_SENTENCE, " ")):
            pieces = re.split(between, words)
            if len(pieces) > 1 and all(p in self._whole for p in pieces):
                return mark.join(self._whole[p] for p in pieces)
        return None

    def say(self, words: str) -> str:
        """Return a text as it is shown: in this language, else in English with its figures and days."""
        found = self.found(words)
        return self.figures(words if found is None else found)

    def figures(self, words: str) -> str:
        """Return a text with decimal commas and the days as this language writes them."""
        if self.code not in DAYS:
            return words
        return _POINT.sub(r"\1,\2", _DAY.sub(DAYS[self.code], words))


def _group(hole: re.Match[str]) -> str:
    """Return what a hole takes."""
    inside = r"[\d.]+" if hole[1] in FIGURES else ".+?"
    return f"(?P<{hole[1]}>{inside})"


def read(code: str) -> dict[str, str]:
    """Return the catalogue of a language, English text to its own; without what is not yet said in it."""
    import polib  # only where another language is spoken

    entries = polib.pofile(language_file(code))
    return {e.msgid: e.msgstr for e in entries.translated_entries()}


_spoken = [Tongue(ENGLISH, {})]


def speak_in(choice: str) -> bool:
    """Speak the language a shop chose; True where that is another than before."""
    code = CODES.get(choice) or _of_the_desktop()
    if code == _spoken[0].code:
        return False
    _spoken[0] = Tongue(code, read(code) if code != ENGLISH else {})
    tr.cache_clear()
    return True


def _of_the_desktop() -> str:
    """Return the desktop's language where it is one of ours, else English."""
    from PySide6.QtCore import QLocale

    code = QLocale.system().name().partition("_")[0]
    return code if code in CODES.values() else ENGLISH


def spoken() -> Tongue:
    """Return the language that is spoken now."""
    return _spoken[0]


@lru_cache(MOST_KNOWN)
def tr(words: str) -> str:
    """Return words of the window in the language that is spoken now."""
    tongue = _spoken[0]
    return words if tongue.code == ENGLISH or not words else tongue.say(words)
