"""Nameplates typed or pasted in any order."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.job.pasted import read_pasted
from tests.core.logs import judged, plate

SPELLINGS: list[tuple[str, str, str]] = [
    ("230/460 V", "volt", "230/460"),
    ("230/460V", "volt", "230/460"),
    ("VOLTS 230/460", "volt", "230/460"),
    ("VOLTS: 460", "volt", "460"),
    ("V 208-230/460", "volt", "208-230/460"),
    ("208–230/460 VOLTS", "volt", "208–230/460"),
    ("200-220/440 V", "volt", "200-220/440"),
    ("115 VAC", "volt", "115"),
    ("400 volt", "volt", "400"),
    ("18/9 A", "amp", "18/9"),
    ("18/9A", "amp", "18/9"),
    ("AMPS 18/9", "amp", "18/9"),
    ("FLA 9.4", "amp", "9.4"),
    ("19.2-17.9/9.1 A", "amp", "19.2-17.9/9.1"),
    ("5,9/3,4 A", "amp", "5,9/3,4"),
    ("amps: 6.2", "amp", "6.2"),
    ("60 Hz", "hertz", "60"),
    ("60HZ", "hertz", "60"),
    ("HZ 50/60", "hertz", "50/60"),
    ("60 cy", "hertz", "60"),
    ("CYCLES 60", "hertz", "60"),
    ("50 c/s", "hertz", "50"),
    ("1725 RPM", "rpm", "1725"),
    ("RPM 1725", "rpm", "1725"),
    ("1420 r/min", "rpm", "1420"),
    ("2850 min-1", "rpm", "2850"),
    ("min-1 2850", "rpm", "2850"),
    ("1440/1730 1/min", "rpm", "1440/1730"),
    ("1 hp", "power", "1 hp"),
    ("HP 5", "power", "5 hp"),
    ("3/4 HP", "power", "3/4 hp"),
    ("1 1/2 HP", "power", "1 1/2 hp"),
    ("7.5 H.P.", "power", "7.5 hp"),
    ("0.55 kW", "power", "0.55 kW"),
    ("0,55kW", "power", "0,55 kW"),
    ("KW 1.5", "power", "1.5 kW"),
    ("60 W", "power", "60 W"),
    ("2 PS", "power", "2 PS"),
    ("3~", "phases", "3"),
    ("3 ~ MOT", "phases", "3"),
    ("1~ motor", "phases", "1"),
    ("PH 3", "phases", "3"),
    ("3 PH", "phases", "3"),
    ("3PH", "phases", "3"),
    ("1-Ph", "phases", "1"),
    ("Ø 1", "phases", "1"),
    ("4 POLES", "poles", "4"),
    ("4P", "poles", "4"),
    ("SF 1.15", "service-factor", "1.15"),
    ("service factor 1.15", "service-factor", "1.15"),
    ("1.15 S.F.", "service-factor", "1.15"),
    ("INS F", "insulation-class", "F"),
    ("INS CL B", "insulation-class", "B"),
    ("Cl.F", "insulation-class", "F"),
    ("CLASS H", "insulation-class", "H"),
    ("AMB 40C", "ambient", "40"),
    ("40°C AMB", "ambient", "40 °C"),
    ("40 °C", "ambient", "40 °C"),
    ("DUTY CONT", "duty", "CONT"),
    ("S1", "duty", "S1"),
    ("CODE J", "code", "J"),
    ("KVA code H", "code", "H"),
    ("FR 56C", "frame", "56C"),
    ("FRAME 184T", "frame", "184T"),
    ("ROT CWLE", "rotation", "CWLE"),
    ("CCW", "rotation", "CCW"),
    ("25µF", "capacitor", "25 µF"),
    ("3.5 mfd", "capacitor", "3.5 µF"),
    ("40 MFD 370 VAC", "capacitor", "40 µF 370 V"),
    ("25 uF 450V", "capacitor", "25 µF 450 V"),
    ("cosφ 0.81", "power-factor", "0.81"),
    ("PF 0.85", "power-factor", "0.85"),
    ("IP55", "enclosure", "IP55"),
    ("SER 12345", "serial", "12345"),
    ("S/N AB123", "serial", "AB123"),
]


def test_there_are_enough_spellings() -> None:
    assert len(SPELLINGS) >= 60


@pytest.mark.parametrize(("text", "field", "value"), SPELLINGS)
def test_each_spelling_is_understood(text: str, field: str, value: str) -> None:
    found = read_pasted(text).fields
    assert found.get(field) == value
    assert set(found) <= {field, "ambient"} if field == "ambient" else set(found) == {field}


PLATES: list[tuple[str, dict[str, str]]] = [
    (
        "3~ MOT 1.5 kW 230/400 V 5.9/3.4 A 50 Hz 1420 r/min cosφ 0.81 IP55 Cl.F S1",
        {
            "phases": "3",
            "power": "1.5 kW",
            "volt": "230/400",
            "amp": "5.9/3.4",
            "hertz": "50",
            "rpm": "1420",
            "power-factor": "0.81",
            "insulation-class": "F",
            "duty": "S1",
        },
    ),
    (
        "HP 5 VOLTS 208-230/460 AMPS 13.8-12.8/6.4 RPM 1755 HZ 60 PH 3 SF 1.15 CODE J INS F FR 184T",
        {
            "power": "5 hp",
            "volt": "208-230/460",
            "amp": "13.8-12.8/6.4",
            "rpm": "1755",
            "hertz": "60",
            "phases": "3",
            "service-factor": "1.15",
            "code": "J",
            "insulation-class": "F",
            "frame": "184T",
        },
    ),
    (
        "1~ 230V 50Hz 0.55kW 3.8A 2850 min-1 25µF 450V",
        {
            "phases": "1",
            "volt": "230",
            "hertz": "50",
            "power": "0.55 kW",
            "amp": "3.8",
            "rpm": "2850",
            "capacitor": "25 µF 450 V",
        },
    ),
    (
        "1 1/2 HP 115/230V 18/9A 60HZ 1725RPM 1PH INS CL B",
        {
            "power": "1 1/2 hp",
            "volt": "115/230",
            "amp": "18/9",
            "hertz": "60",
            "rpm": "1725",
            "phases": "1",
            "insulation-class": "B",
        },
    ),
]


@pytest.mark.parametrize(("text", "fields"), PLATES, ids=[t[:20] for t, _ in PLATES])
def test_whole_plates_are_read(text: str, fields: dict[str, str]) -> None:
    found = read_pasted(text).fields
    assert {k: found.get(k) for k in fields} == fields


@given(st.randoms(use_true_random=False))
def test_the_order_of_a_plate_does_not_matter(chance: random.Random) -> None:
    pieces = [
        "HP 5",
        "VOLTS 230/460",
        "AMPS 12.8/6.4",
        "RPM 1755",
        "HZ 60",
        "PH 3",
        "SF 1.15",
        "CODE J",
    ]
    chance.shuffle(pieces)
    found = read_pasted("  ".join(pieces))
    assert found.fields == read_pasted(" ".join(sorted(pieces))).fields
    assert found.left == ()


@given(st.text(max_size=80))
def test_any_text_gives_an_answer(text: str) -> None:
    found = read_pasted(text)
    assert all(isinstance(v, str) and v for v in found.fields.values())


def test_what_belongs_to_nothing_is_handed_back() -> None:
    found = read_pasted("230 V 7 elephants 50 Hz")
    assert found.left == ("7", "elephants")


@pytest.mark.parametrize(
    ("text", "fields", "left"),
    [
        (
            "1 PH 115/230 V 60 HZ 1 HP 1725 RPM CAP START CAP RUN CW OPE FR 56H MANUAL RESET",
            {"kind": "CAP START CAP RUN", "rotation": "CW OPE", "frame": "56H", "phases": "1"}
            | {"protector": "MANUAL RESET", "volt": "115/230"},
            (),
        ),
        (
            "3~ 400 V D/Y 50 Hz 160L 15 kW 1460 rpm SF 1.15 TENV DUTY 30 MIN",
            {"connection": "D/Y", "frame": "160L", "enclosure": "TENV", "duty": "30 min"}
            | {"service-factor": "1.15", "power": "15 kW"},
            (),
        ),
        (
            "3 PH 208-230/460 V 5-4.8/2.4 A SF 1.15 SFA 6.2 TEFC CONT AMB 40C",
            {"volt": "208-230/460", "amp": "5-4.8/2.4", "ambient": "40", "enclosure": "TEFC"},
            ("SFA 6.2",),
        ),
        (
            "230 V~ 50 Hz 850 W 14,000–22,000 rpm class II",
            {"phases": "1", "protection": "II", "rpm": "14,000–22,000"},
            (),
        ),
        ("12µF 450VDB 1400/min Isol.F", {"capacitor": "12 µF 450 V", "rpm": "1400"}, ()),
        ("SPLIT PH 60 Hz THERMALLY PROTECTED AUTO", {"kind": "SPLIT PH", "hertz": "60"}, ()),
        ("CCW FACING LEAD END 115 V", {"rotation": "CCW LE", "volt": "115"}, ()),
    ],
)
def test_a_plates_phrases_keep_their_words(
    text: str, fields: dict[str, str], left: tuple[str, ...]
) -> None:
    found = read_pasted(text)
    assert {k: v for k, v in found.fields.items() if k in fields} == fields
    assert found.left == left


def test_a_printed_kind_counts_and_a_commutators_speed_is_no_error() -> None:
    told = judged(*plate(phases="1", volt="115", hertz="60", kind="CAP START CAP RUN"))
    (best, *_) = told.facts.kinds.odds
    assert (best.kind.name, best.probability > 0.9) == ("capacitor-start-run", True)
    tool = judged(*plate(phases="1", volt="230", hertz="50", rpm="14,000-22,000", power="850 W"))
    assert tool.job.plate.rpm == 22_000
    assert tool.facts.kinds.odds[0].kind.name == "universal"
    assert not any(f.code == "plate-rpm" for f in tool.findings)
    dual = plate(phases="3", volt="208-230/460", amp="5-4.8/2.4", power="1.5 hp", hertz="60")
    assert not any(f.verdict in ("watch", "hold") for f in judged(*dual).findings)
