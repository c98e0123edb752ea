"""All that is rendered: every part of every station of some motors, and their sheets, in the trade's own words."""

import io
import re
from collections.abc import Iterator
from typing import Any

import pytest
from pypdf import PdfReader
from PySide6.QtWidgets import QLabel, QPushButton, QWidget

from careful_coil.core.stations import STATIONS
from careful_coil.desk.ask_row import EnterButton
from careful_coil.desk.field import Field
from careful_coil.desk.painted import Painted
from careful_coil.desk.roll import Roll
from careful_coil.desk.shared.page import Caution, Heading
from careful_coil.desk.shared.shown import Prose, Verdicts
from careful_coil.desk.stations.parted import PartedPage
from careful_coil.report.sheet import sheet
from tests.desk.driver import Bench
from tests.test_words import NOT_SAID

# a coil or a lead as the network calls it, where a person reads the mark on the lead
MODEL = r"\b(main|aux|field|armature|start|run)-\d\b"
# more digits than any meter here shows
FALSE_DIGITS = r"\b\d+\.\d{5,}\b|\b\d\.\d{4,} (T|A/mm²|MΩ|V|A)\b|\d[eE][+-]\d"
JOBS = ("theatre", "chandlery", "sander", "boatyard")


def words_of(widget: QWidget) -> Iterator[str]:
    """Yield what a widget shows."""
    if isinstance(widget, EnterButton | QLabel | QPushButton):
        yield widget.text()
    elif isinstance(widget, Field):
        yield widget.label.text()
    elif isinstance(widget, Heading):
        yield f"{widget.words} {widget.remark}"
    elif isinstance(widget, Caution | Prose):
        yield widget.words
    elif isinstance(widget, Verdicts):
        yield from (f"{f.subject}. {f.why}" for f in widget.findings)
    elif isinstance(widget, Roll):
        yield from (widget.row_words(k) for k in range(widget.count()))
    elif isinstance(widget, Painted):
        yield widget.accessibleDescription()


def rendered(bench: Bench) -> Iterator[tuple[str, str]]:
    """Yield where, and what is shown there, of the open motor."""
    window = bench.window
    yield "ledger", "\n".join(bench.ledger())
    for station in STATIONS:
        window.go(station)
        page: Any = bench.page
        for part in page.seen() if isinstance(page, PartedPage) else ("",):
            if part:
                page.open_part(part)
                bench.settle()
            seen = [w for w in page.body.findChildren(QWidget) if w.isVisibleTo(page)]
            yield f"{station} {part}", "\n".join(t for w in seen for t in words_of(w) if t)
    card = window.ledger.card
    yield "next", f"{card.title()} {card.why()} {card.asked()} {card.foot()}"
    paper = PdfReader(io.BytesIO(sheet(bench.job.number, bench.judged))).pages
    yield "sheet", "\n".join(p.extract_text() for p in paper)


@pytest.mark.parametrize("job", JOBS)
def test_all_that_is_shown_of_a_motor_is_said_as_the_trade_says_it(shared: Bench, job: str) -> None:
    shared.open(job)
    shown = list(rendered(shared))
    assert len(shown) > 40
    found = [
        (where, pattern, match[0])
        for where, text in shown
        for pattern in (*NOT_SAID, MODEL, FALSE_DIGITS)
        if (match := re.search(pattern, text, re.IGNORECASE))
    ]
    assert found == []
