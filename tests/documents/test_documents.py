"""Documents: schemas that are current, jobs that come back as they went."""

import json
from pathlib import Path
from typing import Any

import pytest

from careful_coil.core.errors import BadDocument
from careful_coil.demo import demo_jobs
from careful_coil.documents import fields_table, voids_table
from careful_coil.documents.base import compact, parse_json
from careful_coil.documents.format_words import MEANS, PAGE, words_page
from careful_coil.documents.job import read_job
from careful_coil.documents.schemas import schema_texts, write_schemas
from careful_coil.documents.slip_table import device_rows, rows
from tests.core.logs import SIX_LEADS, entries

FORMATS = Path(__file__).parents[2] / "docs" / "formats"


def test_the_schemas_in_the_docs_are_current() -> None:
    texts = schema_texts()
    assert {f.name for f in FORMATS.glob("*.json")} == set(texts)
    for name, text in texts.items():
        assert (FORMATS / name).read_text(encoding="utf-8") == text, (
            "run: python -m careful_coil.documents.schemas"
        )


def test_every_schema_says_its_draft_its_name_and_its_title() -> None:
    ids = set()
    for name, text in schema_texts().items():
        told = json.loads(text)
        assert told["$schema"].endswith("2020-12/schema")
        assert told["title"].startswith("Careful Coil: ")
        assert told["description"], name
        ids.add(told["$id"])
    assert len(ids) == len(schema_texts())


def test_schemas_are_written_where_asked(tmp_path: Path) -> None:
    write_schemas(tmp_path / "new")
    assert len(list((tmp_path / "new").glob("*.json"))) == len(schema_texts())


def job(**change: Any) -> dict[str, Any]:
    log = [e.model_dump(mode="json") for e in entries(*SIX_LEADS)]
    return {
        "format": "careful-coil/job",
        "version": 1,
        "id": "j1",
        "number": 7,
        "entries": log,
        "attachments": [],
    } | change


def test_a_job_comes_back_as_it_went_unknown_keys_and_all() -> None:
    first = job(colour="red")
    first["entries"][0]["bench"] = 2
    first["entries"][0]["body"]["mood"] = "good"
    again = json.loads(compact(read_job(parse_json(json.dumps(first)))))
    assert again["colour"] == "red"
    assert again["entries"][0]["bench"] == 2
    assert again["entries"][0]["body"]["mood"] == "good"
    assert len(again["entries"]) == len(first["entries"])


@pytest.mark.parametrize(
    "change",
    [
        {"format": "careful-coil/jobs"},
        {"version": 2},
        {"number": 0},
        {"number": "seven"},
        {"id": ""},
        {"entries": "all"},
        {"entries": [{}]},
        {"attachments": [{"name": "x", "sha256": "short"}]},
    ],
)
def test_a_job_that_is_none_is_refused(change: dict[str, Any]) -> None:
    with pytest.raises(BadDocument, match="Wanted"):
        read_job(job(**change))


def test_an_entry_that_stands_twice_is_refused() -> None:
    broken = job()
    broken["entries"].append(broken["entries"][0])
    with pytest.raises(BadDocument, match="each entry once"):
        read_job(broken)


def test_the_demo_shop_is_sixteen_invented_jobs() -> None:
    jobs = demo_jobs()
    assert [j.number for j in jobs] == [
        211,
        214,
        209,
        206,
        217,
        219,
        221,
        222,
        223,
        224,
        225,
        226,
        227,
        231,
        232,
        233,
    ]
    assert len({j.id for j in jobs}) == 16


def test_a_document_too_large_is_refused_before_it_is_read() -> None:
    with pytest.raises(BadDocument, match="characters"):
        parse_json(" " * (33 * 1024 * 1024))


def test_the_table_of_slips_in_the_docs_is_current() -> None:
    """Line ohms see no turned or exchanged equal coil of a wye; every run or kick does."""
    text = (FORMATS.parent / "slips.md").read_text(encoding="utf-8")
    for row in (*rows(every=9), *device_rows(every=9)):
        assert row in text, "run: python -m careful_coil.documents.slip_table"
    turned = [row for row in text.splitlines() if "reversed" in row and "wye" in row]
    assert turned
    assert all("| none | all | all |" in row for row in turned)


def test_the_page_of_fields_is_current() -> None:
    text = (FORMATS.parent / "handbook" / "fields.md").read_text(encoding="utf-8")
    assert text == fields_table.page(), "run: python -m careful_coil.documents.fields_table"


def test_the_page_of_what_is_tested_again_is_current() -> None:
    text = (FORMATS.parent / "handbook" / "again.md").read_text(encoding="utf-8")
    assert text == voids_table.page(text), "run: python -m careful_coil.documents.voids_table"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ('{"entries": [' + "{}," * 25_000 + "{}]}", "a list of 25001"),
        ('{"number": ' + "9" * 5000 + "}", "a number of 5000 digits"),
        ('{"id": "\\ud800"}', "half of a character"),
        ("[" * 100_000, "nested too deep"),
        ('{"a":' * 50_000, "nested too deep"),
    ],
)
def test_a_small_document_that_would_cost_much_is_refused_at_once(text: str, words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        parse_json(text)


def test_the_first_wrong_entry_ends_the_reading() -> None:
    told = {"format": "careful-coil/job", "version": 1, "id": "x", "number": 1}
    with pytest.raises(BadDocument, match=r"entries\.0\."):
        read_job(told | {"entries": [{}] * 20_000})
    with pytest.raises(BadDocument, match=r"entries\.1: read 7"):
        read_job(told | {"entries": [job_entry(), 7]})


def job_entry() -> dict[str, object]:
    body = {"kind": "ticket", "field": "name", "text": "Press"}
    return {"id": "e", "at": "2026-03-01T08:00:00Z", "by": "AB", "station": "intake", "body": body}


def test_every_field_of_every_format_is_explained_and_no_word_is_left_over() -> None:
    used: set[str] = set()

    def look(schema: object, owner: str) -> None:
        if isinstance(schema, list):
            for one in schema:
                look(one, owner)
        if not isinstance(schema, dict):
            return
        name = str(schema.get("title", owner))
        for field, about in schema.get("properties", {}).items():
            own = f"{name}.{field}" if f"{name}.{field}" in MEANS else field
            assert about["description"] == MEANS[own]
            used.add(own)
        for key, part in schema.items():
            for one, inner in part.items() if key in ("$defs", "properties") else ((name, part),):
                look(inner, one if key == "$defs" else name)

    for text in schema_texts().values():
        look(json.loads(text), "")
    assert sorted(MEANS.keys() - used) == []
    page = (FORMATS / PAGE).read_text(encoding="utf-8")
    assert page == "\n".join(words_page()) + "\n"
