"""Every limit of the settings with its source and where it is read, every practice, every rule that names a source.

`python -m careful_coil.documents.limit_table` writes docs/limits.md.
"""

import ast
from collections import defaultdict
from collections.abc import Iterator, Mapping
from functools import cache
from pathlib import Path

import careful_coil
from careful_coil.core.schools import SCHOOLS
from careful_coil.core.settings import Settings

TABLE = Path("docs/limits.md")
ROOT = Path(careful_coil.__file__).parent
WHERE = ("core", "bench", "desk", "report", "drawing")
DECLARED = (
    "settings.py",
    "settings_given.py",
    "schools.py",
)  # where they are, not where they are read
HEAD = """# Limits, practices and their sources

Made by `python -m careful_coil.documents.limit_table`; a test makes it again and compares. *Read in* are the
modules under `src/careful_coil` whose rules take the figure from the settings; a limit that nothing reads fails
the test, and so does a practice.

## Limits of the settings

| limit | usual | source | read in |
|---|---|---|---|
"""
PRACTICES = """
## Practices

| practice | choices, the usual one first | acts in |
|---|---|---|
"""
SOURCES = """
## Rules that name their source

| source | module |
|---|---|
"""


@cache
def trees() -> Mapping[str, ast.Module]:
    """Return the parsed modules in which limits may be read, by their name."""
    paths = (p for part in WHERE for p in sorted((ROOT / part).rglob("*.py")))
    return {
        str(p.relative_to(ROOT).with_suffix("")): ast.parse(p.read_text(encoding="utf-8"))
        for p in paths
        if p.name not in DECLARED
    }


@cache
def read_in() -> Mapping[str, tuple[str, ...]]:
    """Return the modules that read each limit: as an attribute, or by its name in a table."""
    limits = Settings().limits()
    found = defaultdict[str, list[str]](list)
    for module, tree in trees().items():
        named = {n.attr for n in ast.walk(tree) if isinstance(n, ast.Attribute)}
        named |= _words(tree)
        for name in limits:
            if name in named:
                found[name].append(module)
    return {n: tuple(m) for n, m in found.items()}


@cache
def acts_in() -> Mapping[str, tuple[str, ...]]:
    """Return the modules that ask for each practice by its name, or declare whose it is."""
    found = defaultdict[str, list[str]](list)
    for module, tree in trees().items():
        if module.startswith("desk/settings"):
            continue
        asked = {text for n in ast.walk(tree) for text in _asked(n)}
        for name in SCHOOLS:
            if name in asked:
                found[name].append(module)
    return {n: tuple(m) for n, m in found.items()}


def _asked(node: ast.AST) -> Iterator[str]:
    """Yield what a call of `school`, a keyword or a constant of that name says."""
    told: list[ast.expr] = []
    if (
        isinstance(node, ast.Call)
        and isinstance(node.func, ast.Attribute)
        and node.func.attr == "school"
    ):
        told = list(node.args)
    elif isinstance(node, ast.keyword) and node.arg == "school":
        told = [node.value]
    elif isinstance(node, ast.Assign) and "SCHOOL" in ast.unparse(node.targets[0]):
        told = list(node.value.elts) if isinstance(node.value, ast.Tuple) else [node.value]
    for expression in told:
        if isinstance(expression, ast.Constant):
            yield str(expression.value)


@cache
def _words(tree: ast.Module) -> frozenset[str]:
    return frozenset(
        n.value for n in ast.walk(tree) if isinstance(n, ast.Constant) and isinstance(n.value, str)
    )


def _sources() -> Iterator[str]:
    """Yield a row for each source that a rule gives besides the settings' own."""
    found = defaultdict[str, list[str]](list)
    for module, tree in trees().items():
        for n in ast.walk(tree):
            if (
                isinstance(n, ast.keyword)
                and n.arg == "source"
                and isinstance(n.value, ast.Constant)
            ):
                told = str(n.value.value)
                if told and module not in found[told]:
                    found[told].append(module)
    for told in sorted(found):
        yield f"| {told} | {', '.join(f'`{m}`' for m in found[told])} |\n"


def page() -> str:
    """Return the page."""
    limits = "".join(
        f"| {limit.title or name} (`{name}`) | {limit.value:.10g} {limit.unit} | {limit.source} "
        f"| {', '.join(f'`{m}`' for m in read_in().get(name, ()))} |\n"
        for name, limit in Settings().limits().items()
    )
    practices = "".join(
        f"| {s.question} (`{name}`) | {'; '.join(s.choices)} "
        f"| {', '.join(f'`{m}`' for m in acts_in().get(name, ()))} |\n"
        for name, s in SCHOOLS.items()
    )
    return f"{HEAD}{limits}{PRACTICES}{practices}{SOURCES}{''.join(_sources())}"


if __name__ == "__main__":
    TABLE.write_text(page(), encoding="utf-8")
