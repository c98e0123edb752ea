"""The template of a language: every text that can be shown, its holes named, for a translator's own tool.

`python -m careful_coil.documents.catalogue FILE.pot` writes it; a catalogue in `assets/languages` is a part
of it, said in one language.
"""

import ast
import sys
from collections.abc import Iterator
from pathlib import Path

SOURCE = Path(__file__).parent.parent
SHORTEST = 2  # letters of a text that is worth saying in another language


def texts() -> Iterator[tuple[str, str, int]]:
    """Yield every literal of the program that may be shown, with its file and line; holes by their names."""
    for file in sorted(SOURCE.rglob("*.py")):
        tree = ast.parse(file.read_text(encoding="utf-8"))
        skipped = {id(part) for node in ast.walk(tree) for part in _not_shown(node)}
        for node in ast.walk(tree):
            if id(node) in skipped:
                continue
            text = _text(node)
            if text and sum(c.isalpha() for c in text) >= SHORTEST:
                yield text, str(file.relative_to(SOURCE)), getattr(node, "lineno", 0)


def _not_shown(node: ast.AST) -> Iterator[ast.AST]:
    """Yield the docstring of a node, and the pieces of a text that has holes: they are not said alone."""
    if isinstance(node, ast.JoinedStr):
        yield from node.values
    if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef) and node.body:
        first = node.body[0]
        if isinstance(first, ast.Expr):
            yield first.value


def _text(node: ast.AST) -> str:
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        return node.value
    if isinstance(node, ast.JoinedStr):
        return "".join(
            str(v.value) if isinstance(v, ast.Constant) else f"{{{_name(v, k)}}}"
            for k, v in enumerate(node.values)
        )
    return ""


def _name(value: ast.AST, k: int) -> str:
    """Return a name for a hole: the last name in it."""
    names = [
        n.attr if isinstance(n, ast.Attribute) else n.id
        for n in ast.walk(value)
        if isinstance(n, ast.Attribute | ast.Name)
    ]
    return names[0] if names else f"part{k}"


def template() -> str:
    """Return the template as gettext's tools read it."""
    import polib

    made = polib.POFile()
    made.metadata = {
        "Project-Id-Version": "careful-coil",
        "Content-Type": "text/plain; charset=UTF-8",
    }
    entries: dict[str, polib.POEntry] = {}
    for text, file, line in texts():
        flags = ["python-brace-format"] if "{" in text else []
        entry = entries.setdefault(text, polib.POEntry(msgid=text, flags=flags))
        entry.occurrences.append((file, str(line)))
    made.extend(entries.values())
    return str(made)


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(template(), encoding="utf-8")
