"""The handbook: every part of every station has its heading, a search finds it, the wheel carries it."""

import tomllib
from importlib import import_module
from pathlib import Path

import pytest

from careful_coil.core.stations import STATIONS
from careful_coil.desk.pages import PAGES
from careful_coil.desk.part import Part
from careful_coil.desk.stations.together import Group
from careful_coil.handbook import (
    FIRST,
    HEADING,
    PICTURE,
    TABLES,
    folder,
    heading_of,
    page_of,
    pages,
    search,
    text_of,
)

ROOT = Path(__file__).parents[1]


def parts_of(station: str) -> list[type[Part]]:
    module = import_module(f"careful_coil.desk.stations.{station.replace('-', '_')}")
    found: list[type[Part]] = []
    for group in getattr(module, "GROUPS", ()):
        found += group.make if isinstance(group, Group) else [group]
    return found


@pytest.mark.parametrize("station", STATIONS)
def test_every_part_of_a_station_has_its_heading(station: str) -> None:
    page = page_of(station)
    assert page != FIRST
    for part in parts_of(station):
        title = part.topic or part.title
        heading = heading_of(page, title)
        assert heading.lower().startswith(title.lower().rstrip("?")), (station, title, heading)
    assert len(PAGES) == len(STATIONS)


def test_a_search_finds_headings_first_and_every_word() -> None:
    hits = search("commutator")
    assert (hits[0].page, hits[0].heading) == ("mechanics.md", "Commutator")
    read = [h.near for h in hits if h.page not in TABLES]
    assert read == sorted(read)
    both = search("Sleeve wick")
    assert both
    for hit in both:
        body = text_of(hit.page).lower()
        assert "sleeve" in body
        assert "wick" in body
    assert search("") == []
    assert search("qqqq") == []


def test_every_link_of_a_page_leads_to_a_page_or_a_file() -> None:
    import re

    folder = ROOT / "docs" / "handbook"
    for page in pages():
        for target in re.findall(r"\]\(([^)#:]+)[^)]*\)", (folder / page).read_text("utf-8")):
            assert (folder / target).exists(), (page, target)


def test_pages_have_headings_and_only_pictures_that_are_with_them() -> None:
    shown = set[str]()
    for page in pages():
        assert HEADING.search(text_of(page))
        shown |= {m["file"] for m in PICTURE.finditer(text_of(page))}
    assert shown == {p.name for p in folder().glob("*.svg")}
    assert not any(PICTURE.search(hit.line) for hit in search("winding"))
    with pytest.raises(KeyError):
        text_of("nothing.md")


def test_the_wheel_carries_the_handbook() -> None:
    told = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))
    inside = told["tool"]["hatch"]["build"]["targets"]["wheel"]["force-include"]
    assert inside == {"docs/handbook": "careful_coil/assets/handbook"}
