"""The handbook's index of words, made from where they are declared: run it as a module."""

from pathlib import Path

from careful_coil.core.glossary import WORDS
from careful_coil.core.stations import TITLES

PAGE = Path("docs/handbook/words.md")
HEAD = """# Words

The trade's words as they stand on screen, on paper and here. British or American terms: a shop practice.
Made by `python -m careful_coil.documents.words_page`; a test makes it again and compares.

| British | American | means | page |
|---|---|---|---|
"""


def page() -> str:
    """Return the page: a row a word, in the order of the alphabet."""
    titles = {str(s): t for s, t in TITLES.items()}
    return HEAD + "".join(
        f"| {w.british} | {w.american} | {w.meaning} | [{titles[w.page]}]({w.page}.md) |\n"
        for w in WORDS
    )


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
