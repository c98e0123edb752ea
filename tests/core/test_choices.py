"""Answers as people type them: synonyms, beginnings, numbers, several at once; a refusal lists what is taken."""

import re
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.choices import Choice, one_of, pick, table
from careful_coil.core.condition.answered import read_looks, read_symptoms
from careful_coil.core.condition.suspicion import symptoms_in
from careful_coil.core.condition.symptoms import SHORT, complaint_of
from careful_coil.core.connect.rotation import read_turn
from careful_coil.core.connect.typed import read_supply
from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.gear.names import KINDS, kind_named, title_of
from careful_coil.core.gear.separating import TESTS
from careful_coil.core.job import fold
from careful_coil.core.job.at_intake import Lead
from careful_coil.core.job.lead_words import counted, lead_words, read_lead
from careful_coil.core.job.noted import Noted
from careful_coil.core.job.pasted import read_pasted
from careful_coil.core.ledger.entry_line import split
from careful_coil.core.ledger.written import SPECIALS, WISHES, read_text, written
from careful_coil.core.probes import Request
from careful_coil.core.sheets import SHEETS, Field, Sheet
from tests.core.logs import job_of, plate

NOTHING = fold(())


def declared() -> Iterator[tuple[Sheet, Field]]:
    for sheet in SHEETS.values():
        for field in sheet.fields:
            yield sheet, field


@pytest.mark.parametrize(
    ("sheet", "field", "text", "kept"),
    [
        ("felt", "feel", "tight", "binding"),
        ("felt", "feel", "stiff", "binding"),
        ("felt", "feel", "grinds", "rough"),
        ("felt", "feel", "2", "rough"),
        ("felt", "fan", "no fan", "missing"),
        ("felt", "cord", "stiff", "cracked"),
        ("capacitor", "looks", "bulged and leaking", "bulged"),
        ("capacitor", "looks", "Swollen.", "bulged"),
        ("capacitor", "looks", "ok", "sound"),
        ("device-noted", "plate", "pitted and welded", "welded"),
        ("device-noted", "actuator", "stiff", "sticks"),
        ("bearing", "state", "dry and rough", "rough"),
        ("brush", "spring", "strong", "even"),
        ("winding-noted", "connection", "star", "wye"),
        ("estimate", "needed", "yep", "yes"),
    ],
)
def test_a_field_understands_what_is_said_at_the_bench(
    sheet: str, field: str, text: str, kept: str
) -> None:
    of = {"bearing": "drive", "capacitor": "C1", "device-noted": "S1", "brush": "B1"}.get(sheet, "")
    (body,) = written(sheet, field, text, NOTHING, of)
    assert body.text == kept


@pytest.mark.parametrize("text", ["not bulged", "never leaks", "purple", "?"])
def test_what_says_the_contrary_or_nothing_is_not_guessed(text: str) -> None:
    with pytest.raises(BadValue, match="sound, bulged, vented"):
        list(written("capacitor", "looks", text, NOTHING, "C1"))


def test_a_refusal_lists_nothing_that_it_refuses() -> None:
    for sheet, field in declared():
        for word in field.words:
            if field.special != WISHES:
                assert read_text(sheet, field, word, NOTHING, "C1") == word, (
                    sheet.name,
                    field.name,
                )
    for kind in KINDS:
        assert kind_named(title_of(kind)) == kind_named(title_of(kind).lower()) == kind
    for test in TESTS.values():
        assert [one_of(o, test.outcomes) for o in test.outcomes] == list(test.outcomes)


def test_what_is_kept_is_read_back_the_same() -> None:
    """The example of every field is understood, and what is kept of it stays what it is."""
    for sheet, field in declared():
        if field.hint and not field.choices and field.special != WISHES:
            example = re.split(r",? or ", field.hint)[-1 if field.special == "loss" else 0]
            kept = read_text(sheet, field, example, NOTHING, "C1")
            assert read_text(sheet, field, kept, NOTHING, "C1") == kept, (sheet.name, field.name)


def test_every_special_reader_is_bound_and_used() -> None:
    named = {f.special for _, f in declared() if f.special}
    assert named == {*SPECIALS, WISHES}


@given(
    st.lists(st.sampled_from(["one", "two", "three"]), unique=True, min_size=1),
    st.text(max_size=12),
)
def test_a_pick_is_one_of_the_answers_or_refused_with_them(words: list[str], text: str) -> None:
    try:
        found = pick(text, [Choice(word=w) for w in words])
    except BadValue as error:
        found = error.accepted.split(", ")[0]
    assert found in words


def test_of_several_said_at_once_the_worst_stands() -> None:
    known = table("fine | good\n odd | note\n worn | watch = tired, gone")
    assert pick("worn but fine", known) == "worn"
    assert pick("odd, else fine", known) == "odd"
    assert pick("gone", known) == "worn"


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("hums", {"hums": "yes"}),
        ("hums, will not start", {"hums": "yes"}),
        ("does not hum; smells burnt", {"hums": "no", "smells": "yes"}),
        ("nothing happens", {"dead": "yes"}),
        ("no power", {"weak": "yes"}),
        ("not hot, no noise", {"hot": "no", "noisy": "no"}),
    ],
)
def test_symptoms_are_read_several_at_once(text: str, found: dict[str, str]) -> None:
    assert {n.field: n.text for n in read_symptoms(text)} == found


@pytest.mark.parametrize("text", ["hums without load", "runs, never noisy by day", "trips"])
def test_a_symptom_that_says_two_things_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match="how it failed"):
        read_symptoms(text)


def test_a_look_that_is_fine_takes_back_what_was_wrong_and_a_bearing_is_named_by_its_end() -> None:
    blank, fine = read_looks("fan ok")
    assert (blank.topic, fine.topic) == ("condition", "rest-fine")
    with pytest.raises(BadValue, match="drive-end bearing, other bearing"):
        read_looks("bearing rough")


def test_looks_are_read_several_at_once() -> None:
    found = read_looks("windings burnt, one side; shaft tight, leads stiff")
    assert [(n.field, n.text, n.words) for n in found if isinstance(n, Noted)] == [
        ("windings", "burnt", "one side"),
        ("by-hand", "stiff", ""),
        ("leads", "stiff", ""),
    ]


@pytest.mark.parametrize(
    ("text", "volt", "phases", "hertz"),
    [
        ("1~ 230", 230, 1, 50),
        ("230 single phase", 230, 1, 50),
        ("240 V 1ph 60 Hz", 240, 1, 60),
        ("3 x 400 V", 400, 3, 50),
        ("three phase 0,4 kV", 400, 3, 50),
        ("415", 415, 3, 50),
    ],
)
def test_a_supply_says_its_phases_and_hertz(
    text: str, volt: float, phases: int, hertz: float
) -> None:
    found = read_supply(text, NOTHING)
    assert (found.volt, found.phases, found.hertz) == (volt, phases, hertz)


@pytest.mark.parametrize(
    ("text", "volt", "measured"),
    [("231", 231, True), ("230", 230, False), ("230 measured", 230, True), ("3~ 462", 462, False)],
)
def test_a_figure_that_no_supply_is_called_by_was_measured(
    text: str, volt: float, measured: bool
) -> None:
    one = job_of(*plate(phases="1", volt="230", hertz="50"))
    assert (read_supply(text, one).volt, read_supply(text, one).measured) == (volt, measured)


def test_a_plate_of_volts_and_phases_alone() -> None:
    for text in ("1~ 230", "230 single phase"):
        assert read_pasted(text).fields == {"phases": "1", "volt": "230"}
    assert read_pasted("230 V single phase 50 Hz").fields["hertz"] == "50"


def test_a_click_that_was_heard_is_an_answer() -> None:
    outcomes = TESTS["lets-go"].outcomes
    assert [one_of(t, outcomes) for t in ("heard it", "yes", "no")] == [
        *["opens"] * 2,
        "does not",
    ]


def test_a_light_colour_is_one_colour() -> None:
    lead = read_lead("light blue/white T1", Lead(tag="A"))
    assert (lead.colour, lead.tracer, lead.marking) == ("light-blue", "white", "T1")
    assert read_lead(lead_words(lead), Lead(tag="A")) == lead


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("clockwise from the shaft end", ("cw", "drive-end", "low run")),
        ("ccw opposite bump", ("ccw", "opposite", "bump")),
        ("anticlockwise, drive-end, indicator", ("ccw", "drive-end", "indicator")),
    ],
)
def test_a_direction_is_read_in_plain_words(text: str, found: tuple[str, str, str]) -> None:
    told = read_turn(text)
    assert (told.turns, told.seen_from, told.how) == found


@pytest.mark.parametrize(
    ("typed", "told"),
    [
        ("bn T1 bu T4 gnye earth", [("brown", "T1"), ("blue", "T4"), ("green", "")]),
        ("bnT1 buT4 bk1U2", [("brown", "T1"), ("blue", "T4"), ("black", "1U2")]),
        ("light blue T1 brown T2", [("light-blue", "T1"), ("brown", "T2")]),
        ("bk T1-T3 rd T4-T6", [("black", f"T{k}") for k in (1, 2, 3)] + [("red", f"T{k}") for k in (4, 5, 6)]),
        ("U1; V1", [("", "U1"), ("", "V1")]),
        ("A brown; B bn/wh", [("brown", ""), ("brown", "")]),
    ],
)  # fmt: skip
def test_leads_are_described_in_letter_codes_each_beginning_with_its_colour(
    typed: str, told: list[tuple[str, str]]
) -> None:
    """IEC 60757 letter codes; a print that is glued to one is still the print."""
    leads = counted(typed).leads
    assert [(x.colour, x.marking) for x in leads] == told
    assert counted("; ".join(lead_words(x) for x in leads)).leads == leads


@pytest.mark.parametrize("typed", ["BK", "bn", "T1 bn bu", ""])
def test_a_lone_colour_is_no_count_of_leads(typed: str) -> None:
    with pytest.raises(BadValue, match="how many"):
        counted(typed)


def test_a_complaint_by_numbers_says_what_its_words_say() -> None:
    """Each number's words name its own symptom; words stay as they are typed."""
    for number, (symptom, words) in enumerate(SHORT.items()):
        assert complaint_of(str(number)) == words
        assert set(symptoms_in(words)) - {"slow", symptom} == set()
        assert symptom in (*symptoms_in(words), "")
    assert complaint_of("1 2, 12") == "hums, starts when pushed, vibrates"
    assert complaint_of("stops after 20 minutes") == "stops after 20 minutes"
    for bad in ("20", "0 1", "1 99", "555"):
        with pytest.raises(BadValue, match="0"):
            complaint_of(bad)


@pytest.mark.parametrize("text", ["5", "0,4", "9 V", "1~ 5"])
def test_a_supply_of_fewer_volts_than_any_motor_takes_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match="No motor runs on so few"):
        read_supply(text, NOTHING)


@pytest.mark.parametrize(("text", "first"), [("2,2", "2,2 hp"), ("5.5", "5.5 hp"), ("35", "35 W")])
def test_a_bare_power_that_may_be_another_unit_is_asked_about(text: str, first: str) -> None:
    with pytest.raises(AmbiguousValue) as asked:
        list(written("plate", "power", text, NOTHING))
    assert first in str(asked.value)
    assert f"{text} kW" in str(asked.value)
    for plain in ("370", f"{text} kW", f"{text} hp", f"{text} W"):
        assert list(written("plate", "power", plain, NOTHING))


def test_a_telephone_without_a_figure_is_what_was_meant_for_the_next_field() -> None:
    for told in ("0555 123", "shop@example.org", "none"):
        assert list(written("ticket", "phone", told, NOTHING))
    with pytest.raises(BadValue, match="has its own field"):
        list(written("ticket", "phone", "hums, will not start", NOTHING))


def test_a_plates_capacitor_is_no_power_and_no_speed() -> None:
    for told in (
        "25 uf 450 v",
        "60",
        "88-108 MFD 110 VAC",
        "none",
        "?",
        "35 450",
        "108-130 250 vac",
    ):
        assert list(written("plate", "capacitor", told, NOTHING))
    for other in ("3/4 hp", "1725", "3.2 A", "115/230"):
        with pytest.raises(BadValue):
            list(written("plate", "capacitor", other, NOTHING))


@pytest.mark.parametrize(
    ("text", "kept"), [("three", "3"), ("3~", "3"), ("single phase", "1"), ("1", "1")]
)
def test_phases_in_words(text: str, kept: str) -> None:
    assert [n.text for n in written("plate", "phases", text, NOTHING)] == [kept]


@pytest.mark.parametrize(
    ("field", "text"),
    [("hertz", "500000"), ("rpm", "14300000"), ("power", "900 MW"), ("phases", "4")],
)
def test_a_figure_that_no_plate_bears_is_refused(field: str, text: str) -> None:
    with pytest.raises(BadValue):
        list(written("plate", field, text, NOTHING))


def test_a_pair_of_one_lead_and_a_lead_that_is_not_there_are_no_reading() -> None:
    target = Request(kind="resistance", ends=("A", "B"))
    assert split("AC 3.2", target, "ABC").target.ends == ("A", "C")
    for text, words in (("A A 3", "A and another"), ("AZ 3", "There is no AZ here")):
        with pytest.raises(BadValue, match=words):
            split(text, target, "ABC")
