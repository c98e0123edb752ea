"""Bearings: numbers against known dimensions, spelling, worn characters, callipers, what is ordered, limits."""

import itertools
import re
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue
from careful_coil.core.job import Finding
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.written import written
from careful_coil.core.mechanics.bearing import Callipers, Found, look_up, numbers_of
from careful_coil.core.mechanics.bearing_rules import proposal_of
from careful_coil.core.mechanics.bearing_suffix import CLOSURES, SUFFIXES
from careful_coil.core.mechanics.bearing_table import BEARINGS, SPELLINGS, bore_of
from careful_coil.core.mechanics.parts import parts_wanted
from careful_coil.core.mechanics.typed import bearing_size
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.bearings import BEARING
from careful_coil.core.sums.registry import work_out
from tests.core.logs import judged, plate, ticket

APART = 0.2


def told(text: str, *measured: float) -> Found:
    names = ("bore", "outside", "width")
    return look_up(text, Callipers(**dict(zip(names, measured, strict=False))), APART)


# bore, outside diameter, width in mm: ISO 15 as printed in common tables; the inch ones ANSI/ABMA 12.2
@pytest.mark.parametrize(
    ("number", "size"),
    [
        ("608", (8, 22, 7)),
        ("609", (9, 24, 7)),
        ("6000", (10, 26, 8)),
        ("6004", (20, 42, 12)),
        ("6205", (25, 52, 15)),
        ("626", (6, 19, 6)),
        ("6200", (10, 30, 9)),
        ("6201", (12, 32, 10)),
        ("6202", (15, 35, 11)),
        ("6203", (17, 40, 12)),
        ("6204", (20, 47, 14)),
        ("6210", (50, 90, 20)),
        ("6220", (100, 180, 34)),
        ("6300", (10, 35, 11)),
        ("6304", (20, 52, 15)),
        ("6309", (45, 100, 25)),
        ("6318", (90, 190, 43)),
        ("688", (8, 16, 4)),
        ("6804", (20, 32, 7)),
        ("61804", (20, 32, 7)),
        ("618/8", (8, 16, 4)),
        ("6904", (20, 37, 9)),
        ("698", (8, 19, 6)),
        ("61908", (40, 62, 12)),
        ("62/22", (22, 50, 14)),
        ("60/28", (28, 52, 12)),
        ("62204", (20, 47, 18)),
        ("62305", (25, 62, 24)),
        ("R8", (12.7, 28.575, 6.35)),
        ("R8-2RS", (12.7, 28.575, 7.9375)),
        ("R6", (9.525, 22.225, 5.55625)),
        ("R12ZZ", (19.05, 41.275, 11.1125)),
    ],
)
def test_a_number_has_its_dimensions(number: str, size: tuple[float, float, float]) -> None:
    (found,) = numbers_of(number)
    assert (found.bearing.bore, found.bearing.outside, found.width) == pytest.approx(size)


def test_the_table_is_large_and_grows_with_its_codes() -> None:
    """Within a series bore, outside and width never fall; nothing is bored wider than it is."""
    assert len(BEARINGS) > 190
    assert [bore_of(c) for c in (0, 1, 2, 3, 4, 22)] == [10, 12, 15, 17, 20, 110]
    for series in {b.series for b in BEARINGS.values()} - {"R"}:
        own = sorted((b for b in BEARINGS.values() if b.series == series), key=lambda b: b.bore)
        for one, two in itertools.pairwise(own):
            assert one.bore < two.bore
            assert one.outside <= two.outside
            assert one.width <= two.width or two.bore <= 12
    assert all(b.bore < b.outside and b.width <= b.closed for b in BEARINGS.values())


SEALS, CLEARANCES = (*CLOSURES, ""), ("", "C2", "C3", "C4", "CM")


@given(
    st.sampled_from(sorted(SPELLINGS)),
    st.sampled_from(SEALS),
    st.sampled_from(CLEARANCES),
    st.sampled_from(["-", " ", "/", ""]),
)
def test_what_is_written_is_read_again(name: str, seal: str, clearance: str, mark: str) -> None:
    text = f"{name}{mark if seal else ''}{seal}{' ' if clearance else ''}{clearance}"
    found = numbers_of(text)
    own = [n for n in found if n.bearing is SPELLINGS[name]]
    assert own, text
    assert own[0].closure == CLOSURES.get(seal, "open")
    assert own[0].clearance == (clearance or "CN")
    if mark and seal:
        assert [n.bearing.name for n in found] == [SPELLINGS[name].name]
        (again,) = numbers_of(own[0].words)
        assert again == own[0]


@given(st.data())
def test_worn_characters_are_searched_as_trying_every_number_would(data: st.DataObject) -> None:
    name = data.draw(st.sampled_from(sorted(SPELLINGS)))
    worn = data.draw(st.sets(st.integers(0, len(name) - 1), max_size=3))
    text = "".join("?" if k in worn and c != "/" else c for k, c in enumerate(name))
    pattern = re.compile(re.escape(text).replace(r"\?", "."))
    brute = {b.name for n, b in SPELLINGS.items() if pattern.fullmatch(n)}
    whole = {n.bearing.name for n in numbers_of(text) if not n.suffixes}
    assert whole == brute


def test_figures_without_a_mark_may_be_two_numbers() -> None:
    assert {n.words for n in numbers_of("62202RS")} == {"6220-2RS", "62202-RS"}
    assert [n.words for n in numbers_of("62202-RS")] == ["62202-RS"]
    assert [n.words for n in numbers_of("6220 2RS")] == ["6220-2RS"]
    assert told("62202RS").standing == "several"
    assert told("62202RS", 15.0).numbers[0].words == "62202-RS"


def test_callipers_narrow_a_worn_number() -> None:
    worn = told("62?3 ZZ")
    assert worn.standing == "several"
    assert "6203, 6213. Measure bore" in worn.why
    found = told("62?3 ZZ", 17.04)
    assert found.standing == "known"
    assert found.numbers[0].words == "6203-ZZ"
    assert "agree" in told("6203", 17, 40, 12).why


def test_nothing_measured_tells_nothing() -> None:
    assert Callipers().told == ()
    assert not Callipers(bore=17.0, outside=40.0).whole


def test_number_and_callipers_that_disagree_are_special() -> None:
    found = told("6203", 17, 42, 12)
    assert found.standing == "special"
    assert "by dimensions, both ends" in found.why
    assert told("AB 12345", 17, 40, 12).standing == "special"
    assert "envelope of 6203" in told("AB 12345", 17, 40, 12).why
    assert told("AB 12345", 17, 41, 12).why.count("Special") == 1
    assert told("", 20, 47, 14).numbers[0].words == "6204"
    assert told("AB 12345").standing == "unknown"
    assert told("").standing == "nothing"


def test_seals_worn_off_the_print_show_in_the_width() -> None:
    assert told("R8", 12.7, 28.6, 7.94).standing == "known"
    assert told("R8 2RS", 12.7, 28.6, 6.35).standing == "special"


def test_what_is_not_known_behind_a_number_is_handed_on() -> None:
    found = told("6203 2RS GXY")
    assert found.numbers[0].unknown == "GXY"
    assert "order it as printed" in found.why
    assert {s.sort for s in SUFFIXES.values()} >= {"seal", "clearance", "cage", "grease"}


@pytest.mark.parametrize("text", ["6203;C3", "bearing of the drive end, it is a large one", "²203"])
def test_what_is_no_number_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match="6203"):
        told(text)


@pytest.mark.parametrize(
    ("text", "mm"),
    [("17", 17), ("17,05 mm", 17.05), ("5/8 in", 15.875), ('1 1/8"', 28.575), ("0.5 inch", 12.7)],
)
def test_lengths_are_read_in_mm_and_inches(text: str, mm: float) -> None:
    assert float(BEARING.field("bore").read(text)) == pytest.approx(mm)


@pytest.mark.parametrize("text", ["0", "-3", "5/8", "1/0 in", "long", "1e9", "17 kg", "5000.1"])
def test_lengths_that_are_none_are_refused(text: str) -> None:
    with pytest.raises(BadValue, match="millimetres"):
        BEARING.field("bore").read(text)


def test_three_sizes_in_a_line() -> None:
    assert bearing_size("17 x 40 x 12 mm") == {"bore": "17", "outside": "40", "width": "12"}
    inches = bearing_size("1/2 x 1.125 x 0.25 in")
    assert inches == {"bore": "12.7", "outside": "28.575", "width": "6.35"}
    with pytest.raises(BadValue, match="smaller than the outside"):
        bearing_size("40 17 12")
    assert bearing_size("5/8 in")["bore"] == "15.875"
    with pytest.raises(BadValue):
        bearing_size("1", "6203")  # the answer to another question


# --- in a job ------------------------------------------------------------------------------------------

TICKET = [*ticket(name="Mill, fan"), *plate(phases="3", rpm="1440")]
Body = dict[str, Any]


def bearing(end: str = "drive", **fields: str) -> list[Body]:
    return [
        {"kind": "bearing", "end": end, "field": f.replace("_", "-"), "text": t}
        for f, t in fields.items()
    ]


def of(found: Judgement, code: str) -> Finding:
    return next(f for f in found.findings if f.code == code)


@pytest.mark.parametrize(
    ("fields", "verdict", "words"),
    [
        ({"number": "6203 ZZ", "state": "good"}, "good", "6203-ZZ"),
        ({"number": "6203 ZZ"}, "unproven", "How does it run"),
        ({"number": "62?3", "state": "good"}, "unproven", "Measure bore"),
        ({"number": "6203", "bore": "20", "state": "good"}, "watch", "special"),
        ({"number": "6203", "state": "rough"}, "hold", "renew it"),
        ({"number": "6203", "state": "rough", "done": "renewed"}, "unproven", "by what"),
        ({"number": "6203", "state": "seized", "done": "oiled"}, "hold", "Oil on it is temporary"),
        ({"number": "6203 2RS", "state": "good", "done": "greased"}, "watch", "not relubricated"),
        (
            {"number": "6203", "state": "noisy", "done": "renewed", "fitted": "6204"},
            "hold",
            "another envelope",
        ),
        (
            {"number": "6203 ZZ", "state": "noisy", "done": "renewed", "fitted": "6203-2RS C3"},
            "watch",
            "two seals in place of two shields",
        ),
        (
            {"number": "6203 ZZ C3", "state": "noisy", "done": "renewed", "fitted": "6203-ZZ"},
            "watch",
            "clearance normal in place of C3",
        ),
        (
            {"number": "6203 ZZ", "state": "noisy", "done": "renewed", "fitted": "6203-ZZ C3"},
            "good",
            "same envelope",
        ),
        (
            {"number": "62?3", "bore": "16", "done": "renewed", "fitted": "6202-ZZ"},
            "hold",
            "does not fit",
        ),
        ({"sort": "sleeve", "state": "good"}, "unproven", "Still to say"),
        ({"sort": "sleeve", "wick": "dry", "state": "good"}, "hold", "until it soaks"),
        (
            {
                "sort": "sleeve",
                "oil": "ISO 32",
                "wick": "soaks",
                "ports": "1 of 2",
                "state": "good",
            },
            "unproven",
            "every oil port",
        ),
        (
            {
                "sort": "sleeve",
                "oil": "ISO 32",
                "wick": "soaks",
                "ports": "2 of 2",
                "state": "good",
            },
            "good",
            "oil ports 2 of 2",
        ),
    ],
)
def test_a_bearing_is_judged_by_number_state_and_work(
    fields: dict[str, str], verdict: str, words: str
) -> None:
    found = of(judged(*TICKET, *bearing(**fields)), "bearing-drive")
    assert found.verdict == verdict
    assert words in f"{found.subject} {found.why}"


def test_the_school_decides_what_oil_may_do() -> None:
    """Never on a seized one, never on worn metal where the shop renews; a bush that only ran dry wants oil."""
    bush = {"sort": "sleeve", "oil": "ISO 32", "wick": "soaks", "ports": "2 of 2"}
    dry = of(judged(*TICKET, *bearing(**bush, state="dry")), "bearing-drive")
    assert (dry.verdict, "oil it" in dry.why) == ("hold", True)
    oiled = judged(*TICKET, *bearing(**bush, state="dry", done="oiled"))
    assert of(oiled, "bearing-drive").verdict == "good"
    sleeve = bearing(**bush, state="noisy", done="oiled")
    renew = judged(*TICKET, *sleeve)
    oil = judged(*TICKET, *sleeve, settings=Settings(schools={"bearing": "oil and watch"}))
    assert of(renew, "bearing-drive").verdict == "hold"
    assert of(oil, "bearing-drive").verdict == "watch"
    weigh = judged(
        *TICKET,
        *bearing(number="6203", state="rough"),
        settings=Settings(schools={"bearing": "replace motor"}),
    )
    assert "Weigh a new motor" in of(weigh, "bearing-drive").why
    stuck = bearing(sort="sleeve", state="seized", done="oiled")
    held = judged(*TICKET, *stuck, settings=Settings(schools={"bearing": "oil and watch"}))
    assert of(held, "bearing-drive").verdict == "hold"


def test_a_hot_class_wants_clearance_and_seals_stay_as_found_until_heat_is_measured() -> None:
    told = {"number": "6203 2RS", "bore": "17", "outside": "40", "width": "12", "state": "rough"}
    job = judged(*TICKET, *plate(**{"insulation-class": "H"}), *bearing(**told))
    made = proposal_of(told, job.job, Settings())
    assert made is not None
    assert made.words == "6203-2RS C3"
    assert "bearing-heat" not in {f.code for f in job.findings}
    run = [
        {"kind": "trial-begun", "covers": "on"},
        {"kind": "trial-step", "volt": [400.0], "amp": [2.6], "celsius": 96.0},
    ]
    warm = judged(*TICKET, *plate(**{"insulation-class": "H"}), *bearing(**told), *run)
    assert "96 °C was measured" in of(warm, "bearing-heat").why
    hot = proposal_of(told, warm.job, Settings())
    assert hot is not None
    assert any("made for heat" in w for w in hot.why)
    cool = proposal_of(told, judged(*TICKET, *bearing(**told)).job, Settings())
    assert cool is not None
    assert cool.words == "6203-2RS"


def test_fast_bearings_are_watched() -> None:
    fast = judged(*ticket(name="Router"), *plate(rpm="18000"), *bearing(number="6203 2RS"))
    assert of(fast, "bearing-speed").figure == pytest.approx(18000 * 28.5)
    slow = judged(*TICKET, *bearing(number="6203 2RS"))
    assert "bearing-speed" not in {f.code for f in slow.findings}


def test_both_ends_go_on_the_list_of_parts_together() -> None:
    ends = [
        *bearing(number="6203 2RS C3", state="rough"),
        *bearing("other", number="6203 2RS C3", state="dry"),
    ]
    (one,) = parts_wanted(judged(*TICKET, *ends).job, Settings())
    assert (one.words, one.count, one.place) == ("6203-2RS C3", 2, "drive end and other end")
    special = bearing(number="XK 9", bore="17", outside="41", width="12", state="rough")
    (odd,) = parts_wanted(judged(*TICKET, *special).job, Settings())
    assert "17 × 41 × 12 mm, by dimensions" in odd.words


def test_the_sum_of_a_bearing() -> None:
    found = work_out("bearing", {"number": "6205-2RS C3"})
    assert found.results == {"bore_mm": 25.0, "outside_mm": 52.0, "width_mm": 15.0}
    assert any("C3 more clearance" in n for n in found.notes)
    for text, words in (
        ("62?3", "6203, 6213"),
        ("9999", "no number known here"),
        ("", "needs more"),
    ):
        with pytest.raises(BadValue, match=words):
            work_out("bearing", {"number": text})


def test_the_same_again_is_one_key() -> None:
    old = bearing(number="6203-2RS")
    job = judged(*TICKET, *old).job
    for end, field in (("drive", "fitted"), ("other", "number")):
        (told,) = written("bearing", field, "=", job, end)
        assert told.text == "6203-2RS"
    with pytest.raises(BadValue, match="its number"):
        list(written("bearing", "fitted", "=", job, "other"))
