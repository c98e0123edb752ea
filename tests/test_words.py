"""Words: what a technician reads, on screen, on paper and in the handbook, has none of the old turns."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "src" / "careful_coil"
# what is not said; where it may be all the same: as what somebody types, or as a document's own word
NOT_SAID: dict[str, tuple[str, ...]] = {
    r"\blet (\w+ |\{\} )?down\b": (),
    r"\b(goes|go|went) out at\b": (),
    r"\blets go\b": ("core/choices.py", "core/job/noted.py"),  # words of old documents
    r"\bcomes? back in\b": (),
    r"\b(borne|bears?|bear) out\b": (),
    r"\bon the word of\b": (),
    r"\bstands? open\b": (),
    r"\bnot told\b": (),
    r"\bturns not\b": (),
    r"\banew\b": (),
    r"\b(losses|winding) taken apart\b": (),
    r"\b(slot room|wire out)\b": (),
    r"\binduction (in|wanted|of iron)\b": (),
    r"\bclass 1[0358][05]\b": (),
    r"\b(puts? (it|them) off|put off)\b": (),
    r"\bsets? (\w+ )?aside\b": (),
    r"\bwithin the noise\b": (),
    r"\bschools?\b": ("core/settings_given.py", "desk/settings_page.py"),  # of the settings file
    r"\b(core|turn) test\b": (),
    r"\bspeed switch\b": ("core/gear/names.py",),
    r"\blow run\b": ("core/connect/rotation.py", "core/job/at_connect.py"),
    r"\banother way out\b": (),
    r"\bwhat it can take\b": (),
    r"\beach other's place\b": (),
    r"\bcoil (is )?turned round\b": (),
    r"\bstart winding turned round\b": (),
    r"(?<![+\d])\b1 (joints|pairs|leads|readings|parts|jobs|lines)\b": (),
}
PAGES = [*(ROOT / "docs" / "handbook").glob("*.md"), ROOT / "README.md"]


def strings() -> Iterator[tuple[str, str]]:
    """Yield what may be shown of every module: strings with a blank in them that are no docstring."""
    for file in sorted(SOURCE.rglob("*.py")):
        tree = ast.parse(file.read_text(encoding="utf-8"))
        notes = {
            id(node.body[0].value)
            for node in ast.walk(tree)
            if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
            and node.body
            and isinstance(node.body[0], ast.Expr)
        }
        for node in ast.walk(tree):
            if isinstance(node, ast.Constant) and id(node) not in notes:
                told = node.value
                if isinstance(told, str) and " " in told:
                    yield str(file.relative_to(SOURCE)), told


SHOWN = list(strings())


@pytest.mark.parametrize("words", NOT_SAID)
def test_what_is_shown_is_said_as_the_trade_says_it(words: str) -> None:
    pattern = re.compile(words, re.IGNORECASE)
    found = [
        (file, told) for file, told in SHOWN if file not in NOT_SAID[words] and pattern.search(told)
    ]
    assert found == []


@pytest.mark.parametrize("page", PAGES, ids=lambda p: p.name)
def test_a_page_is_written_as_the_trade_says_it(page: Path) -> None:
    text = page.read_text(encoding="utf-8")
    typed = re.sub(r"`[^`]*`", "", text)  # what is typed is typed as it is
    found = [w for w in NOT_SAID if re.search(w, typed, re.IGNORECASE)]
    assert found == []
