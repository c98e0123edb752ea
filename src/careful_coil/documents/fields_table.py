"""Every field that is noted, as a page of the handbook: what it is called, what it takes, what it does.

`python -m careful_coil.documents.fields_table` writes docs/handbook/fields.md.
"""

from collections.abc import Iterator
from pathlib import Path

from careful_coil.core.job.voids import VOIDS
from careful_coil.core.sheets import SHEETS, Field, Sheet

PAGE = Path("docs/handbook/fields.md")
HEAD = """# Fields, and what they take

Every field that is noted in the window, or in a job
document, where it is an entry of the kind `noted`: sheet, field, text, and of which item where a sheet has
several. Answers are picked from the list (Down, or the arrow in the cell), typed by their beginning or
number, or said as at the bench (*tight* for binding); of several said at once the worst stands. Figures take
a decimal comma or point and their unit; a blank takes a field back. Where a plate, a bearing or a winding
cannot be read any more, `?` stands for it.
"""
FOOT = "\nMade from what the program itself reads by: `python -m careful_coil.documents.fields_table`.\n"


def takes(field: Field) -> str:
    """Return what a field takes."""
    if field.choices and not field.special:
        return ", ".join(field.words)
    if field.wanted:
        return field.wanted
    if field.whole is not None:
        return f"a whole number, {field.whole[0]} to {field.whole[1]}"
    example = f"such as {field.hint}" if field.hint else "words"
    if field.quantity is not None:
        return f"{field.quantity.value}, {example}" if field.hint else field.quantity.value
    return example


def does(field: Field) -> str:
    """Return what noting it does: a deed of the void table."""
    if not field.deed:
        return ""
    when = f"{', '.join(field.deed_on)}: " if field.deed_on else ""
    return f"{when}{VOIDS[field.deed].words}"


def table(sheet: Sheet) -> Iterator[str]:
    """Yield the lines of a sheet."""
    of = f", of {' or '.join(sheet.of)}" if sheet.of else ""
    of = of or (f", of each by name, such as {sheet.example}" if sheet.example else "")
    yield f"\n## {sheet.title} ({sheet.name}{of})\n"
    yield "| field | label | takes | does |"
    yield "|---|---|---|---|"
    for f in sheet.fields:
        yield f"| {f.name} | {f.label} | {takes(f)} | {does(f)} |".replace("  |", " |")


def page() -> str:
    """Return the page."""
    lines = [line for s in SHEETS.values() if s.fields for line in table(s)]
    return HEAD + "\n".join(lines) + "\n" + FOOT


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
