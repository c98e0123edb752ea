"""The handbook's pages as text: found, searched, opened at a heading. Rooms above it show them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

FIRST = "README.md"
HEADING = re.compile(r"^(#{1,3}) +(.+?) *$", re.MULTILINE)
PICTURE = re.compile(r"^!\[[^\]]*\]\((?P<file>[^)]*)\)\n?", re.MULTILINE)
TABLES = ("fields.md", "again.md", "devices.md")  # looked up, not read: found last
LONGEST_LINE = 160  # characters of a line that a search shows


@dataclass(frozen=True, slots=True)
class Hit:
    """A heading under which all words stand: its page, its title, a line with one of them."""

    page: str
    heading: str
    line: str
    near: int  # 0 where the heading begins so, 1 in the heading, 2 in the text


def folder() -> Path:
    """Return where the pages lie: with the program, or in its source."""
    shipped = Path(__file__).parent / "assets" / "handbook"
    return shipped if shipped.is_dir() else Path(__file__).parents[2] / "docs" / "handbook"


def pages() -> tuple[str, ...]:
    """Return the names of the pages, the table of contents first."""
    names = sorted(p.name for p in folder().glob("*.md"))
    return (FIRST, *(n for n in names if n != FIRST))


@cache
def text_of(page: str) -> str:
    """Return a page without pictures that lie elsewhere. Raises: KeyError for one there is not."""
    if page not in pages():
        raise KeyError(page)
    here = folder()

    def kept(picture: re.Match[str]) -> str:
        file = picture["file"]
        return picture[0] if "/" not in file and (here / file).is_file() else ""

    return PICTURE.sub(kept, (here / page).read_text(encoding="utf-8"))


def page_of(station: str) -> str:
    """Return the page of a station, the table of contents where it has none."""
    name = f"{station}.md"
    return name if name in pages() else FIRST


def heading_of(page: str, title: str) -> str:
    """Return the heading of a page that a part's title means, the page's own where there is none."""
    wanted = title.strip().rstrip("?").lower()
    every = [m.group(2) for m in HEADING.finditer(text_of(page))]
    return next((h for h in every if h.lower().rstrip("?").startswith(wanted)), every[0])


def _sections(page: str) -> Iterator[tuple[str, str]]:
    """Yield each heading of a page with the text below it."""
    text = text_of(page)
    marks = list(HEADING.finditer(text))
    for k, mark in enumerate(marks):
        end = marks[k + 1].start() if k + 1 < len(marks) else len(text)
        yield mark.group(2), PICTURE.sub("", text[mark.end() : end]).strip()


def search(words: str) -> list[Hit]:
    """Return where all words stand, headings that have them first; nothing for no words."""
    wanted = words.lower().split()
    found = []
    for page in pages() if wanted else ():
        for heading, body in _sections(page):
            all_of_it = f"{heading} {body}".lower()
            if all(w in all_of_it for w in wanted):
                lines = (line.strip(" -*|") for line in body.splitlines())
                line = next((x for x in lines if any(w in x.lower() for w in wanted)), "")
                low = heading.lower()
                near = 1 if all(w in low for w in wanted) else 2
                near = 0 if low.startswith(" ".join(wanted)) else near
                found.append(Hit(page, heading, line[:LONGEST_LINE], near))
    return sorted(found, key=lambda h: (h.page in TABLES, h.near))
