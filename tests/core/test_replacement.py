"""The replacement card; plugs; colours that look alike; settings and schools."""

from typing import Any

import pytest

from careful_coil.core.errors import BadDocument, BadValue
from careful_coil.core.job.at_intake import Lead
from careful_coil.core.kind.colours import colour_words, confusable
from careful_coil.core.kind.plug import by_row, mirrored, pin_of, plug_words, read_plug
from careful_coil.core.kind.replacement import LINES_TYPED, card_of, serves
from careful_coil.core.kind.rules import kind_of
from careful_coil.core.schools import SCHOOLS
from careful_coil.core.settings import Settings
from tests.core.logs import job_of, judged, plate

PLATE = plate(
    phases="1", volt="230", hertz="50", power="0.75 kW", rpm="1420", frame="80", enclosure="IP54"
)
WANTED = {"kind": "capacitor-start", "shaft": "19x40", "control": "none"}
SAME = {
    "phases": "1",
    "volt": "230",
    "hertz": "50",
    "power": "1 hp",
    "rpm": "1430",
    "frame": "80",
    "enclosure": "IP55",
    **WANTED,
}


def card(offered: dict[str, str], wanted: dict[str, str] | None = None) -> Any:
    lines = [
        *(
            {"kind": "card", "side": "wanted", "field": f, "text": t}
            for f, t in (wanted or WANTED).items()
        ),
        *({"kind": "card", "side": "offered", "field": f, "text": t} for f, t in offered.items()),
    ]
    job = job_of(*PLATE, *lines)
    return card_of(job, kind_of(job, None))


def answers(offered: dict[str, str], wanted: dict[str, str] | None = None) -> dict[str, str]:
    return {x.title: x.answer for x in card(offered, wanted)}


def test_a_motor_that_matches_point_by_point_serves() -> None:
    lines = card(SAME)
    assert serves(lines) == ("good", "It serves.")
    assert {x.answer for x in lines} == {"good"}


@pytest.mark.parametrize(
    ("change", "title", "answer"),
    [
        ({"phases": "3"}, "Phases", "hold"),
        ({"volt": "110"}, "Volts", "hold"),
        ({"volt": "115/230"}, "Volts", "good"),
        ({"volt": "220-240"}, "Volts", "good"),
        ({"hertz": "60"}, "Hertz", "hold"),
        ({"hertz": "60/50"}, "Hertz", "good"),
        ({"volt": "275", "hertz": "60"}, "Hertz", "watch"),  # 4.6 V/Hz, as 230 V at 50 Hz
        ({"volt": "275", "hertz": "60"}, "Volts", "good"),
        ({"volt": "250"}, "Volts", "watch"),
        ({"volt": "240"}, "Volts", "good"),
        ({"power": "0.5 kW"}, "Power", "hold"),
        ({"power": "2 kW"}, "Power", "watch"),
        ({"rpm": "2850"}, "Poles, by its speed", "hold"),
        ({"kind": "permanent-capacitor"}, "Kind", "hold"),
        ({"kind": "capacitor-start-run"}, "Kind", "watch"),
        ({"kind": "split-phase"}, "Kind", "hold"),
        ({"shaft": "24x50"}, "Shaft in mm", "hold"),
        ({"shaft": "19x30"}, "Shaft in mm", "watch"),
        ({"shaft": "19 x 40,5"}, "Shaft in mm", "good"),
        ({"enclosure": "IP44"}, "Enclosure", "hold"),
        ({"enclosure": "IP65"}, "Enclosure", "good"),
        ({"frame": "90L"}, "Frame", "hold"),
    ],
    ids=lambda v: "/".join(v.values()) if isinstance(v, dict) else v,
)
def test_each_point_is_judged(change: dict[str, str], title: str, answer: str) -> None:
    assert answers({**SAME, **change})[title] == answer


def test_what_is_not_told_stays_open() -> None:
    lines = card({"phases": "1"})
    assert serves(lines)[0] == "unproven"
    assert "frame" in serves(lines)[1]


def test_a_brush_control_cannot_slow_an_induction_motor() -> None:
    wanted = {**WANTED, "control": "brush control"}
    line = next(x for x in card({**SAME}, wanted) if x.title == "Works with which control")
    assert (line.answer, "brush motors" in line.why) == ("hold", True)
    tool = {**WANTED, "kind": "universal", "control": "brush control"}
    assert answers({**SAME, "kind": "universal"}, tool)["Works with which control"] == "good"


def test_a_reversible_motor_serves_either_direction() -> None:
    title = LINES_TYPED["rotation"][0]
    wanted = {**WANTED, "rotation": "CW from the drive end"}
    assert answers({**SAME, "rotation": "reversible"}, wanted)[title] == "good"
    assert answers({**SAME, "rotation": "CCW from the drive end"}, wanted)[title] == "hold"


LEADS = [Lead(tag=t) for t in "ABCD"]


def test_a_plug_is_drawn_from_its_face_whichever_side_it_was_read_from() -> None:
    face = read_plug("3+2 A B empty C dummy", LEADS, "face")
    assert list(by_row(face)) == [("A", "B", "empty"), ("C", "dummy")]
    wires = read_plug("3+2 empty B A dummy C", LEADS, "wires")
    assert wires.pins == face.pins
    assert wires.view == "wires"
    assert mirrored(face) == ("empty", "B", "A", "dummy", "C")
    assert (pin_of(face, "C"), pin_of(face, "D")) == (4, None)
    assert plug_words(face) == "pin 1 A, 2 B, 4 C; 1 empty; 1 dummy"
    grid = read_plug("2x3 A", LEADS, "face")
    assert grid.rows == (3, 3)
    assert plug_words(grid).endswith("5 not looked at")


@pytest.mark.parametrize(
    "text", ["A B", "3+ A", "0+2", "2 A B C", "2 A A", "2 Z", "99", "9x9 A", "2x A"]
)
def test_a_plug_that_cannot_be_is_refused(text: str) -> None:
    with pytest.raises(BadValue):
        read_plug(text, LEADS, "face")


@pytest.mark.parametrize(
    ("one", "two", "words"),
    [
        ("grey", "white", "by dirt"),
        ("Gray", "white", "by dirt"),
        ("red", "red/white", "plain and with white"),
        ("red", "red", "both red"),
        ("white/black", "black/white", "white with black"),
        ("orange", "red", "by lamplight"),
        ("red/grey", "red/white", "stripes alike"),
    ],
)
def test_colours_that_look_alike_are_named(one: str, two: str, words: str) -> None:
    assert words in colour_words(coloured(one, two))


@pytest.mark.parametrize(
    ("one", "two"), [("red", "blue"), ("", "white"), ("red/black", "red/white"), ("black", "white")]
)
def test_colours_that_differ_are_not_named(one: str, two: str) -> None:
    assert confusable(coloured(one, two)) == ()


def coloured(*colours: str) -> list[Lead]:
    parts = [c.partition("/") for c in colours]
    return [Lead(tag=t, colour=c, tracer=r) for t, (c, _, r) in zip("AB", parts, strict=True)]


def test_settings_change_and_tell_only_what_differs() -> None:
    changed = Settings().changed(
        {
            "balance_watch": 3,
            "schools": {"marks": "IEC", "bleed": "never relied on"},
            "currency": "Kr",
        }
    )
    assert changed.balance_watch.value == 3
    assert changed.balance_watch.source == "this shop's setting"
    assert (changed.school("marks"), changed.school("star")) == ("IEC", "wye")
    assert changed.money(120) == "120 Kr"
    assert changed.told() == {"balance_watch": 3, "schools": {"marks": "IEC"}, "currency": "Kr"}
    assert Settings().changed(changed.told()).told() == changed.told()
    assert Settings().told() == {}
    assert Settings().money(5) == "5"


@pytest.mark.parametrize(
    ("told", "words"),
    [
        ({"schools": {"marks": "runes"}}, "T, IEC, letters"),
        ({"schools": {"ears": "yes"}}, "tape"),
        ({"schools": "all"}, "map"),
        ({"currency": 5}, "four letters"),
        ({"currency": "doubloons"}, "four letters"),
        ({"balance_watch": True}, "above nothing"),
        ({"balance_watch": float("inf")}, "above nothing"),
        ({"balance": 1}, "balance_watch"),
    ],
)
def test_settings_that_cannot_be_are_refused(told: dict[str, Any], words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        Settings().changed(told)


@pytest.mark.parametrize("school", SCHOOLS.values(), ids=list(SCHOOLS))
def test_every_school_has_reasons_for_each_choice(school: Any) -> None:
    assert len(school.choices) >= 2
    assert school.usual in school.choices
    assert all(school.choices.values())


def test_the_shops_currency_stands_in_the_estimate() -> None:
    figures = {"parts": 45, "labour": 120, "replacement": 200}
    log = [{"kind": "estimate", "field": f, "value": v} for f, v in figures.items()]
    found = judged(*log, settings=Settings().changed({"currency": "£"}))
    (worth,) = [f for f in found.findings if f.code == "worth-repairing"]
    assert worth.why.startswith("Repair 165 £, ")
    assert "120 £" in worth.why


@pytest.mark.parametrize(
    ("offered", "answer", "words"),
    [
        ({"volt": "440", "hertz": "50"}, "watch", "0.83 of its torque"),  # (400/440)²
        ({"volt": "440", "hertz": "60"}, "watch", "more iron loss"),  # 8.0 against 7.33 V/Hz
        ({"volt": "480", "hertz": "60"}, "good", ""),  # both 8.0 V/Hz
        ({"volt": "400", "hertz": "60"}, "hold", "Not for these volts"),
    ],
)
def test_another_plates_volts_are_judged_by_volts_per_hertz(
    offered: dict[str, str], answer: str, words: str
) -> None:
    """IEC 60034-1: zone A ±5 %, zone B ±10 %, at the same volts per hertz."""
    job = job_of(*plate(phases="3", volt="400", hertz="50"))
    told = {**offered, "phases": "3"}
    noted = [
        {"kind": "noted", "sheet": "card", "of": "offered", "field": f, "text": t}
        for f, t in told.items()
    ]
    job = job_of(*plate(phases="3", volt="400", hertz="50"), *noted)
    line = next(x for x in card_of(job, kind_of(job, None)) if x.title == "Volts")
    assert (line.answer, words in line.why) == (answer, True)
