"""Pages of the handbook that are made: as they would be made now, and what they say leads on."""

from pathlib import Path

import pytest

from careful_coil.core.glossary import WORDS
from careful_coil.core.terms import AMERICAN, BRITISH, said
from careful_coil.documents import practices_page, words_page
from careful_coil.handbook import pages

ROOT = Path(__file__).parents[2]


@pytest.mark.parametrize("made", [practices_page, words_page])
def test_the_page_is_as_it_would_be_made(made: object) -> None:
    text = (ROOT / made.PAGE).read_text(encoding="utf-8")  # type: ignore[attr-defined]
    assert text == made.page(), f"run: python -m {made.__name__}"  # type: ignore[attr-defined]


def test_every_word_has_a_page_and_its_other_name_is_the_one_that_is_shown() -> None:
    names = [w.british for w in WORDS]
    assert len(names) == len(set(names))
    for word in WORDS:
        assert f"{word.page}.md" in pages()
        if word.british != word.american:
            assert said(word.british, terms=AMERICAN) == word.american
            assert said(word.american, terms=BRITISH) == word.british
