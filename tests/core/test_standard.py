"""Standard hookups by the marks, printed diagrams, joints as they are spoken."""

from typing import Any

import pytest

from careful_coil.core.connect.standard import standards_for
from careful_coil.core.errors import BadValue
from careful_coil.core.identify import Naming
from careful_coil.core.job.at_intake import Lead
from careful_coil.core.job.spoken import lead_named, read_joints
from careful_coil.core.ways.way import Joint
from tests.core.logs import job_of, judged, leads

NOBODY = Naming(word="none", names={}, arrangement=None)
NINE = leads(*(f"{t} black T{k}" for k, t in enumerate("ABCDEFGHJ", 1)))
SIX = leads(
    *(f"{t} black {m}" for t, m in zip("ABCDEF", ["U1", "V1", "W1", "U2", "V2", "W2"], strict=True))
)


def titles(body: dict[str, Any]) -> dict[str, tuple[Joint, ...]]:
    return {s.title: s.joints for s in standards_for(job_of(body), NOBODY)}


def test_nine_leads_have_the_low_and_high_hookups_of_wye_and_delta() -> None:
    found = titles(NINE)
    joints = {frozenset(map(frozenset, j)) for j in found.values()}
    low_wye = {"L1 A G", "L2 B H", "L3 C J", "D E F"}
    high = {"L1 A", "L2 B", "L3 C", "D G", "E H", "F J"}
    low_delta = {"L1 A F G", "L2 B D H", "L3 C E J"}
    for wanted in (low_wye, high, low_delta):
        assert frozenset(frozenset(j.split()) for j in wanted) in joints
    assert len(found) == 3  # the high ones are the same joints


def test_six_iec_leads_have_wye_and_delta_by_tag() -> None:
    found = titles(SIX)
    assert any(("D", "E", "F") in j for j in found.values())
    assert all(n in "ABCDEF" or n.startswith("L") for j in found.values() for e in j for n in e)


def test_leads_without_marks_have_no_standard_hookup() -> None:
    assert titles(leads("A", "B", "C")) == {}


def diagram(*joints: str, title: str = "") -> dict[str, Any]:
    return {"kind": "diagram", "title": title, "joints": [j.split() for j in joints]}


def told(*joints: str) -> tuple[str, str]:
    found = [f for f in judged(diagram(*joints)).findings if f.code == "diagram"]
    assert len(found) == 1
    return found[0].verdict, found[0].why


@pytest.mark.parametrize(
    ("joints", "verdict", "words"),
    [
        (("L1 T1 T7", "L2 T2 T8", "L3 T3 T9", "T4 T5 T6"), "note", "It is the standard"),
        (("L1 U1", "L2 V1", "L3 W1", "U2 V2 W2"), "note", "wye"),
        (("L1 U1 W2", "L2 V1 U2", "L3 W1 V2"), "note", "delta"),
        (("L1 T1", "L2 T2", "L3 T3", "T4 T7", "T5 T9", "T6 T8"), "watch", "It differs from"),
        (("L1 U1 L2", "V1 W1"), "hold", "a short"),
        (("L1 U1 U2 V1 V2", "L2 W1 W2 L3"), "hold", "a short"),
        (("L1 U1", "L2 V1", "L3 W1", "U2 V2"), "watch", "without current"),
        (("L1 Q7", "L2 Q8"), "note", "no hookup known here"),
    ],
    ids=["low wye", "wye", "delta", "halves crossed", "lines joined", "two in one", "open", "odd"],
)
def test_a_printed_diagram_is_told(joints: tuple[str, ...], verdict: str, words: str) -> None:
    found = told(*joints)
    assert found[0] == verdict
    assert words in found[1]


def test_a_coil_joined_to_itself_is_named_as_printed() -> None:
    told_of = told("L1 U1 V1 U2", "L2 W1 V2", "L3 W2")
    assert told_of == ("watch", "It leaves U1-U2 without current.")


def test_a_diagram_that_shorts_keeps_the_gate_shut_until_it_is_struck() -> None:
    found = judged(diagram("L1 U1 L2", title="lid"))
    assert "diagram" in [f.code for f in found.gate]
    assert "(lid)" in next(f.subject for f in found.gate if f.code == "diagram")
    empty = judged(diagram("L1 U1 L2"), {"kind": "diagram", "joints": []})
    assert not [f for f in empty.findings if f.code == "diagram"]


MARKED = [Lead(tag=t, marking=m) for t, m in (("A", "T1"), ("B", "T4"), ("C", "u1"), ("D", ""))]


@pytest.mark.parametrize(
    ("word", "tag"), [("a", "A"), ("T4", "B"), ("4", "B"), ("1", "A"), ("U1", "C"), ("d", "D")]
)
def test_leads_are_named_by_tag_or_as_printed(word: str, tag: str) -> None:
    assert lead_named(word, MARKED) == tag


def test_joints_are_typed_as_read() -> None:
    assert read_joints("L1 1; 4 U1 ;", MARKED) == (("L1", "A"), ("B", "C"))
    assert read_joints("N-A", MARKED) == (("N", "A"),)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("L1 9", "one of A \\(T1\\)"),
        ("A", "two ends or more"),
        ("A B; B C", "each lead and line once"),
        ("A T1", "once"),
    ],
)
def test_joints_that_cannot_be_are_refused(text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        read_joints(text, MARKED)


def test_a_word_that_means_two_leads_is_asked_about() -> None:
    crossed = [Lead(tag="A", marking="B"), Lead(tag="B", marking="A")]
    with pytest.raises(BadValue, match="printed on B"):
        lead_named("A", crossed)
    twice = [Lead(tag="A", marking="T1"), Lead(tag="B", marking="T1")]
    with pytest.raises(BadValue):
        lead_named("T1", twice)
