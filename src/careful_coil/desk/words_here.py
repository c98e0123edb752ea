"""The trade's words that stand on the screen now, for the handbook to say what they mean."""

import re
from collections.abc import Iterator
from typing import Any

from PySide6.QtWidgets import QLabel, QPushButton, QWidget

from careful_coil.core.glossary import WORDS, Word
from careful_coil.core.stations import TITLES
from careful_coil.desk.painted import Painted

NONE_HERE = "No word of the trade that is explained stands on this screen."


def texts(whole: QWidget) -> Iterator[str]:
    """Yield what can be read of a window."""
    every: Any = whole.findChildren(QWidget)  # Qt's stubs differ in what children are
    for widget in every:
        if not widget.isVisible():
            continue
        if isinstance(widget, Painted):
            heard = widget.hears()
            yield from (heard.name, heard.says, *(row.words for row in heard.rows))
        elif isinstance(widget, QLabel | QPushButton):
            yield widget.text()


def words_in(text: str) -> list[Word]:
    """Return the words of the trade in a text, in the order of the alphabet, by either name."""
    return [w for w in WORDS if any(_pattern(n).search(text) for n in {w.british, w.american})]


def _pattern(name: str) -> re.Pattern[str]:
    return re.compile(rf"(?<![\w-]){re.escape(name)}(?:s|es)?(?![\w-])", re.IGNORECASE)


def page_of_words(words: list[Word]) -> str:
    """Return a page that says what words mean, each with where the handbook speaks of it."""
    titles = {str(s): t for s, t in TITLES.items()}
    lines = ["# Words on this screen", "" if words else NONE_HERE]
    for w in words:
        other = f", American *{w.american}*" if w.american != w.british else ""
        lines.append(f"**{w.british}**{other}: {w.meaning} · [{titles[w.page]}]({w.page}.md)")
    lines.append("[All words](words.md)")
    return "\n\n".join(lines)
