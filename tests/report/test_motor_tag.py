"""The motor's tag: its words, its size, and that its code is the same words."""

import io

import pytest
import segno
from pypdf import PdfReader

from careful_coil.core.ledger.tag import tag_words
from careful_coil.report.motor_tag import motor_tag
from tests.core.logs import READY, judged
from tests.report.test_sheet import words_of

LET_GO = {"kind": "let-go", "how": "scrap", "reason": "core burnt"}
SIGNED = {"kind": "released", "signed": "AB"}


@pytest.mark.parametrize(
    ("log", "head", "part"),
    [
        ([*READY, SIGNED], "400 V 50 Hz", "clockwise from the"),
        (READY, "DO NOT CONNECT", "not signed yet"),
        (READY[:-1], "DO NOT CONNECT", "open"),
        ([*READY, LET_GO], "DO NOT CONNECT", "Scrap: core burnt"),
    ],
)
def test_what_stands_on_it(log: list[dict[str, object]], head: str, part: str) -> None:
    found = judged(*log)
    large, lines = tag_words(12, found, "2026-03-01")
    assert large == head
    assert part in " ".join(lines)
    data = motor_tag(12, found, "2026-03-01")
    assert part in words_of(data)
    (page,) = PdfReader(io.BytesIO(data)).pages
    assert [round(float(x) / 72 * 25.4) for x in page.mediabox[2:]] == [100, 62]


def test_its_code_has_a_square_for_each_dark_module_of_the_words() -> None:
    found = judged(*READY, SIGNED)
    large, lines = tag_words(12, found, "2026-03-01")
    (page,) = PdfReader(io.BytesIO(motor_tag(12, found, "2026-03-01"))).pages
    content = page.get_contents()
    assert content is not None
    drawn = sum(line.endswith(b" re f*") for line in content.get_data().split(b"\n"))
    dark = sum(sum(row) for row in segno.make("\n".join((large, *lines)), error="m").matrix)
    assert drawn == dark


def test_much_to_say_is_written_smaller_and_stays_on_the_tag() -> None:
    name = {
        "kind": "ticket",
        "field": "name",
        "text": "Old mill, the left conveyor of three in the cellar under the kiln, the one with the guard",
    }
    found = judged(*READY, name, SIGNED)
    assert found.released
    data = motor_tag(12, found, "2026-03-01")
    assert "with the guard" in words_of(data)
    places: list[float] = []
    (page,) = PdfReader(io.BytesIO(data)).pages
    page.extract_text(
        visitor_text=lambda text, cm, tm, *_: places.append(tm[5]) if text.strip() else None
    )
    assert min(places) > 4 / 25.4 * 72


def test_a_name_as_long_as_a_page_still_gets_its_tag() -> None:
    found = judged({"kind": "ticket", "field": "name", "text": "x" * 4000})
    (page,) = PdfReader(io.BytesIO(motor_tag(12, found, "2026-03-01"))).pages
    assert "…" in page.extract_text()
