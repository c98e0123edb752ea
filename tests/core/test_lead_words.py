"""A lead described in a line, in any order."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_intake import Lead
from careful_coil.core.job.lead_words import alike, counted, lead_words, read_lead

PLAIN = Lead(tag="A")


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("brown", {"colour": "brown", "tracer": ""}),
        ("Brown/White", {"colour": "brown", "tracer": "white"}),
        ("T1", {"marking": "T1"}),
        ("u2", {"marking": "u2"}),
        ("7", {"marking": "7"}),
        ("1.5mm2", {"size": "1.5 mm²"}),
        ("1,5 mm²", {"size": "1.5 mm²"}),
        ("14 AWG", {"size": "14 AWG"}),
        ("12cm", {"length_mm": 120.0}),
        ("4 in", {"length_mm": 101.6}),
        ("0.2 m", {"length_mm": 200.0}),
        ("frayed", {"insulation": "frayed"}),
        ("ring", {"end": "ring"}),
        ("thermistor", {"use": "thermistor"}),
        ("-", {"marking": ""}),
        ("cracked red T5 2.5mm2 80mm spade", {"colour": "red", "marking": "T5", "end": "spade"}),
    ],
)
def test_words_are_read_in_any_order(text: str, said: dict[str, object]) -> None:
    found = read_lead(text, PLAIN)
    for field, value in said.items():
        assert getattr(found, field) == value


def test_what_is_not_said_stays() -> None:
    first = read_lead("blue T4 ring", PLAIN)
    second = read_lead("T5", first)
    assert (second.colour, second.marking, second.end) == ("blue", "T5", "ring")


@pytest.mark.parametrize("text", ["red blue", "T1 T2", "frayed cracked", "90m", "", "ring cut"])
def test_two_of_a_kind_or_nothing_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match=r"brown/white T1|20 m"):
        read_lead(text, PLAIN)


@given(
    st.tuples(
        st.sampled_from(["red", "black/white", "grey"]),
        st.sampled_from(["T1", "U2", "Z", ""]),
        st.sampled_from(["", "1.5mm²", "14AWG"]),
        st.sampled_from(["", "120mm"]),
        st.sampled_from(["", "stiff", "bare"]),
    )
)
def test_a_lead_in_words_reads_back(words: tuple[str, ...]) -> None:
    lead = read_lead(" ".join(w for w in words if w), PLAIN)
    assert read_lead(lead_words(lead), PLAIN) == lead


def test_all_alike_leaves_print_and_use() -> None:
    leads = tuple(read_lead(f"T{k} red ring", Lead(tag=t)) for k, t in enumerate("ABC", 1))
    leads = (*leads[:2], read_lead("T3 earth blue", leads[2]))
    same = alike(leads, "A")
    assert [x.marking for x in same] == ["T1", "T2", "T3"]
    assert {x.colour for x in same} == {"red"}
    assert same[2].use == "earth"


def test_leads_are_counted_with_tags_that_are_not_misread() -> None:
    assert [x.tag for x in counted("9").leads] == list("ABCDEFGHJ")
    for text in ("1", "17", "six", "-3", ""):
        with pytest.raises(BadValue, match="2 to 16"):
            counted(text)


def test_a_row_of_prints_is_one_lead_each() -> None:
    row = counted("black T1-T9")
    assert [(x.tag, x.colour, x.marking) for x in row.leads][::4] == [
        ("A", "black", "T1"),
        ("E", "black", "T5"),
        ("J", "black", "T9"),
    ]
    mixed = counted("T1-T3; green/yellow earth")
    assert [x.marking for x in mixed.leads] == ["T1", "T2", "T3", ""]


@pytest.mark.parametrize(
    ("text", "prints"),
    [
        ("U1 V1 W1 U2 V2 W2", ("U1", "V1", "W1", "U2", "V2", "W2")),
        ("A1 A2 B1 B2 C1 C2", ("A1", "A2", "B1", "B2", "C1", "C2")),
        ("C S R", ("C", "S", "R")),
        ("1 2 3 4", ("1", "2", "3", "4")),
        ("A B C", ("", "", "")),  # tags: nothing is printed
    ],
)
def test_prints_alone_stand_in_a_row(text: str, prints: tuple[str, ...]) -> None:
    found = counted(text).leads
    assert tuple(lead.marking for lead in found) == prints
    assert tuple(lead.tag for lead in found) == tuple("ABCDEF"[: len(prints)])


@pytest.mark.parametrize("text", ["12 6", "T1 T1", "3 phase", "two"])
def test_what_may_be_something_else_is_no_row_of_prints(text: str) -> None:
    with pytest.raises(BadValue):
        counted(text)
