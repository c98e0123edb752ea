"""Plates that cannot be true, plates that can, and what a job's plate says of its kind."""

import pytest

from careful_coil.core.errors import BadValue
from careful_coil.core.job.plate import CODE_LETTERS, check_field, nameplate
from careful_coil.core.kind.plate_checks import plate_checks
from careful_coil.core.kind.rules import looks_of
from careful_coil.core.machine import power
from tests.core.logs import job_of, judged, leads, plate

FIVE = {
    "phases": "3",
    "volt": "230/460",
    "amp": "13/6.5",
    "hertz": "60",
    "rpm": "1755",
    "power": "5 hp",
}
EURO = {
    "phases": "3",
    "volt": "230/400",
    "amp": "5.9/3.4",
    "hertz": "50",
    "rpm": "1420",
    "power": "1.5 kW",
}
ONE = {
    "phases": "1",
    "volt": "115/230",
    "amp": "13.6/6.8",
    "hertz": "60",
    "rpm": "1725",
    "power": "3/4 hp",
}


@pytest.mark.parametrize(
    "fields",
    [
        FIVE,
        EURO,
        ONE,
        FIVE | {"code": "H", "poles": "4", "power-factor": "0.83", "service-factor": "1.15"},
        EURO | {"power-factor": "0.81", "poles": "4"},
        {
            "phases": "1",
            "volt": "230",
            "amp": "0.45",
            "hertz": "50",
            "rpm": "1300",
            "power": "60 W",
        },
        {
            "phases": "3",
            "volt": "208-230/460",
            "amp": "13.8-12.8/6.4",
            "hertz": "60",
            "rpm": "1755",
            "power": "5 hp",
        },
        {"phases": "3", "volt": "400", "amp": "15", "hertz": "50", "rpm": "730", "power": "5.5 kW"},
    ],
)
def test_plates_that_can_be_true_are_left_alone(fields: dict[str, str]) -> None:
    assert [f.subject for f in plate_checks(nameplate(fields))] == []


@pytest.mark.parametrize(
    ("fields", "code", "words"),
    [
        (FIVE | {"rpm": "3755"}, "plate-rpm", "3600 rpm"),
        (EURO | {"rpm": "3100"}, "plate-rpm", "At most 3000"),
        (EURO | {"rpm": "1080"}, "plate-slip", "1500 rpm"),
        (EURO | {"hertz": "60", "rpm": "2300"}, "plate-slip", "3600 rpm"),
        (EURO | {"poles": "2"}, "plate-poles", "pole pairs"),
        (EURO | {"poles": "6"}, "plate-poles", "4 poles are told"),
        (EURO | {"amp": "5.9"}, "plate-amps", "read both again"),
        (EURO | {"volt": "400"}, "plate-amps", "read both again"),
        (EURO | {"amp": "5.9/5.4"}, "plate-connections", "3.39 A at 400 V"),
        (EURO | {"amp": "3.4/5.9"}, "plate-connections", "A at 400 V"),
        (FIVE | {"amp": "13/65"}, "plate-connections", "6.5 A at 460 V"),
        (EURO | {"power": "15 kW"}, "plate-power", "too much to be true"),
        (EURO | {"power": "2.4 kW"}, "plate-power", "taken in"),
        (ONE | {"power": "3 hp"}, "plate-power", "too much to be true"),
        (EURO | {"power": "0.15 kW"}, "plate-amps-high", "About"),
        (FIVE | {"power": "0.5 hp"}, "plate-amps-high", "much for"),
        (EURO | {"power-factor": "0.62"}, "plate-power-factor", "do not go together"),
        (FIVE | {"code": "A", "power": "3 hp"}, "plate-code", "at standstill"),
        (FIVE | {"code": "V"}, "plate-code", "12 times"),
        (FIVE | {"code": "U"}, "plate-code", "12 times"),
    ],
)
def test_what_cannot_be_true_is_named_with_what_would_be_expected(
    fields: dict[str, str], code: str, words: str
) -> None:
    found = plate_checks(nameplate(fields))
    own = [f for f in found if f.code == code]
    assert own, [f.code for f in found]
    assert any(words in f"{f.subject} {f.why}" for f in own)
    assert all(f.verdict == "watch" for f in found)


@pytest.mark.parametrize(
    ("field", "text", "words"),
    [
        ("poles", "3", "even number"),
        ("poles", "four", "even number"),
        ("code", "I", "without I"),
        ("code", "GH", "without I"),
        ("service-factor", "11.5", "0.8 to 2"),
        ("power-factor", "81", "0.1 to 1"),
        ("amp", "0", "18/9"),
        ("amp", "5-6-7", "18/9"),
        ("capacitor", "25 mF", "two things"),
        ("rpm", "fast", "1440"),
    ],
)
def test_fields_that_cannot_be_read_are_refused(field: str, text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        check_field(field, text)


@pytest.mark.parametrize("field", ["volt", "amp", "rpm", "poles", "code"])
def test_an_unreadable_part_is_a_state_and_no_empty_cell(field: str) -> None:
    check_field(field, "unreadable")
    found = judged(*plate(**{field: "?"}))
    own = next(f for f in found.findings if f.code == f"plate-{field}")
    assert (own.verdict, own.subject) == ("note", f"Plate, {field}: unreadable")


def test_a_plate_in_ranges_gives_the_larger_amps_and_a_capacitor() -> None:
    read = nameplate(
        {"amp": "13.8-12.8/6.4", "capacitor": "25 µF 450 V", "hertz": "50/60", "code": "j"}
    )
    assert read.amps == (13.8, 6.4)
    assert read.microfarad == pytest.approx(25)
    assert (read.hertz, read.code) == (50, "J")


def test_the_code_letters_are_those_of_the_standard() -> None:
    assert tuple(CODE_LETTERS) == tuple(power.CODE_LETTERS)


def test_plate_and_leads_are_looks_too_and_what_is_noted_wins() -> None:
    log = [*plate(phases="1", hertz="50", rpm="9000", capacitor="20 µF"), leads(*"ABC")]
    looks = looks_of(job_of(*log), None)
    assert looks == {
        "plate-phases": "1 phase",
        "faster-than-two-poles": "yes",
        "plate-capacitor": "yes",
        "leads": "3",
    }
    noted = {"kind": "look", "sign": "plate-capacitor", "answer": "no"}
    assert looks_of(job_of(*log, noted), None)["plate-capacitor"] == "no"
    back = {"kind": "look", "sign": "plate-capacitor", "answer": ""}
    assert looks_of(job_of(*log, noted, back), None)["plate-capacitor"] == "yes"


def test_looks_make_a_finding_that_says_what_the_kind_means() -> None:
    log = [
        *plate(phases="1"),
        {"kind": "look", "sign": "brushes", "answer": "yes"},
        {"kind": "look", "sign": "stator", "answer": "coils on laminated poles"},
    ]
    found = next(f for f in judged(*log).findings if f.code == "kind")
    assert found.subject.startswith("Universal")
    assert "flies apart" in found.why


def test_looks_that_contradict_are_a_watch() -> None:
    log = [
        {"kind": "look", "sign": "brushes", "answer": "yes"},
        {"kind": "look", "sign": "shading-rings", "answer": "yes"},
    ]
    assert any(f.code == "kind-contradiction" for f in judged(*log).findings)
