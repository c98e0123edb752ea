"""One kind of entry for what is noted in fields; the kinds before are kept as written and read as it."""

from typing import Any, get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from careful_coil.core.job import Entry, fold
from careful_coil.core.job.entries import AnyBody
from careful_coil.core.job.noted import LIFTED, Noted, Old
from careful_coil.core.ledger import judge
from careful_coil.core.settings import Settings
from careful_coil.core.sheets import SHEETS
from careful_coil.demo import demo_jobs
from tests.core.logs import entries

BODY: TypeAdapter[Any] = TypeAdapter(AnyBody)
ITEM = {"bearing": "drive", "card": "wanted"}


def lifted(log: list[Entry]) -> list[Entry]:
    """A log as it would be written today."""
    return [
        e.model_copy(update={"body": e.body.lifted}) if isinstance(e.body, Old) else e for e in log
    ]


def test_every_demo_job_is_the_same_written_either_way() -> None:
    count = 0
    for document in demo_jobs():
        old = list(document.entries)
        new = lifted(old)
        count += sum(a.body != b.body for a, b in zip(old, new, strict=True))
        one, two = fold(old), fold(new)
        assert one == two
        assert one.notes == two.notes
        assert judge(one, Settings()).findings == judge(two, Settings()).findings
    assert count > 250


def texts(name: str, field: str) -> st.SearchStrategy[str]:
    """Texts a field may hold: a word of its choices, a figure, a word of the bench's own, nothing."""
    sheet = SHEETS[name]
    if sheet.free:
        return st.text(st.characters(codec="ascii", exclude_categories=["Cc"]), max_size=9)
    told = sheet.field(field)
    if told.is_figure:
        low = told.whole[0] if told.whole else max(told.least, 1)
        high = told.whole[1] if told.whole else min(told.most, 168)
        return st.one_of(st.just(""), st.integers(int(low), int(high)).map(str))
    if told.shape:
        return st.just("")
    return st.sampled_from([*told.words, "", "own words"])


@st.composite
def old_bodies(draw: st.DrawFn) -> dict[str, Any]:
    name = draw(st.sampled_from([k for k in LIFTED if k not in ("estimate", "cause-found")]))
    of, field, text = LIFTED[name]
    sheet = SHEETS[name]
    known = [f.name for f in sheet.fields] or ["windings", "hums", "smell"]
    chosen = draw(st.sampled_from(known))
    body: dict[str, Any] = {"kind": name, field: chosen, text: draw(texts(name, chosen))}
    if of:
        body[of] = draw(st.sampled_from(sheet.of or ("C1", "S2")))
    return body


def test_every_kind_of_before_is_known_by_the_names_in_it() -> None:
    assert set(get_args(Old.model_fields["kind"].annotation)) == set(LIFTED) <= set(SHEETS)


def test_a_copy_with_another_body_is_read_by_that_body() -> None:
    (entry,) = entries({"kind": "felt", "field": "feel", "text": "rough"})
    assert entry.said.text == "rough"
    other = BODY.validate_python({"kind": "felt", "field": "feel", "text": "free"})
    assert entry.model_copy(update={"body": other}).said.text == "free"


@settings(max_examples=60, deadline=None)
@given(st.lists(old_bodies(), max_size=25))
def test_random_logs_are_the_same_written_either_way(bodies: list[dict[str, Any]]) -> None:
    old = entries(*bodies)
    assert fold(old) == fold(lifted(old))
    assert fold(old).notes == fold(lifted(old)).notes


@pytest.mark.parametrize(
    "body",
    [
        {"kind": "felt", "field": "feel", "text": "rough"},
        {"kind": "bearing", "end": "other", "field": "number", "text": "6203", "mine": 1},
        {"kind": "estimate", "field": "needed", "value": 0.0},
        {"kind": "condition", "item": "leads", "answer": "frayed", "words": "two of them"},
    ],
)
def test_an_entry_of_before_is_handed_on_as_it_was_written(body: dict[str, Any]) -> None:
    kept = BODY.validate_python(body)
    assert body.items() <= kept.model_dump().items()
    assert isinstance(kept.lifted, Noted)
    assert kept.topic == kept.lifted.topic == body["kind"]


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ({"kind": "noted", "sheet": "felt", "field": "colour"}, "wanted one of feel"),
        ({"kind": "noted", "sheet": "mood", "field": "feel"}, "wanted one of ticket"),
        ({"kind": "noted", "sheet": "bearing", "field": "state"}, "drive or other"),
        ({"kind": "noted", "sheet": "brush", "of": "!", "field": "spark"}, "such as B1"),
        ({"kind": "noted", "sheet": "felt", "of": "A", "field": "feel"}, "only one"),
        ({"kind": "noted", "sheet": "felt", "field": "end-float", "text": "much"}, "wanted"),
        ({"kind": "bearing", "end": "drive", "field": "bore", "text": "wide"}, "wanted"),
        ({"kind": "bearing", "field": "bore", "text": "17"}, "wanted end"),
        ({"kind": "estimate", "field": "parts", "value": "many"}, "a figure"),
    ],
)
def test_what_no_sheet_can_hold_is_refused_with_what_it_holds(
    body: dict[str, Any], words: str
) -> None:
    with pytest.raises(ValidationError, match=words):
        BODY.validate_python(body)
