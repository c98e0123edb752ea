"""Capacitors on the bench: formulas by hand, markings in any spelling, what on the shelf serves."""

import itertools
import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.can_marking import Marking, read_marking
from careful_coil.core.errors import (
    AmbiguousValue,
    BadDocument,
    BadValue,
    CoilError,
    ValueOutOfRange,
)
from careful_coil.core.gear.formulas import (
    discharge,
    microfarad_from_amps,
    together,
    volts_left,
)
from careful_coil.core.gear.shelf import Item, Wanted, offers_for, shared_volts
from careful_coil.core.gear.shelf_list import read_shelf, write_shelf
from careful_coil.core.sums import work_out

ABOVE = st.floats(0.1, 1000)


def test_microfarad_by_volts_and_amps() -> None:
    """159155·I/(f·V): 1.5 A at 230 V, 50 Hz is 20.76 µF; 5 A at 115 V, 60 Hz 115.3 µF."""
    assert microfarad_from_amps(230, 1.5, 50) == pytest.approx(159155 * 1.5 / 50 / 230, rel=1e-5)
    found = work_out("capacitor-from-amps", {"volt": "115", "amp": "5", "hertz": "60"}).results
    assert found["microfarad"] == pytest.approx(115.33, abs=0.01)


def test_letting_a_capacitor_down() -> None:
    """100 µF marked 250 V through 20 kΩ: 353.6 V, 2 s a time constant, ln 11.785 of them: 4.93 s."""
    found = discharge(100, 250, 20_000)
    assert found.start_volt == pytest.approx(353.55, abs=0.01)
    assert found.seconds == pytest.approx(2 * math.log(353.553 / 30), rel=1e-5)
    assert found.peak_watt == pytest.approx(6.25)
    assert found.joule == pytest.approx(6.25)
    texts = {"microfarad": "100 µF", "volt": "250", "ohm": "20k"}
    assert work_out("capacitor-discharge", texts).results["seconds"] == pytest.approx(found.seconds)
    small = work_out("capacitor-discharge", texts | {"ohm": "1 k"})
    assert any("Over 25 W" in n for n in small.notes)


@given(farad=ABOVE, volt=ABOVE, ohm=st.floats(10, 1e6))
def test_the_time_given_is_when_the_safe_volts_are_reached(
    farad: float, volt: float, ohm: float
) -> None:
    found = discharge(farad, volt, ohm)
    left = volts_left(farad, volt, ohm, found.seconds)
    assert left == pytest.approx(min(30.0, math.sqrt(2) * volt))


def test_several_together() -> None:
    """20 and 30 µF: 50 µF at the least volts; in series 12 µF, 450 V on the 20 means 750 V in all."""
    assert together((20, 30), (450, 400), "parallel") == (50, 400)
    farad, volt = together((20, 30), (450, 400), "series")
    assert (farad, volt) == (pytest.approx(12), pytest.approx(750))
    texts = {"microfarad": "20/30", "volt": "450/400", "how": "series"}
    assert work_out("capacitors-together", texts).results == {
        "microfarad": pytest.approx(12),
        "volt": pytest.approx(750),
    }
    with pytest.raises(ValueOutOfRange, match="as many volts"):
        together((20, 30), (450,), "series")
    with pytest.raises(ValueOutOfRange, match="above nothing"):
        discharge(0, 250, 20_000)


@given(st.lists(st.tuples(ABOVE, ABOVE), min_size=2, max_size=4))
def test_a_set_in_series_carries_just_what_its_first_full_one_allows(
    parts: list[tuple[float, float]],
) -> None:
    farads, volts = zip(*parts, strict=True)
    whole, most = together(farads, volts, "series")
    shares = [most * whole / c for c in farads]
    assert all(s <= v * (1 + 1e-9) for s, v in zip(shares, volts, strict=True))
    assert any(s == pytest.approx(v) for s, v in zip(shares, volts, strict=True))
    assert whole < min(farads)


@pytest.mark.parametrize(
    ("text", "low", "high", "volt", "kind"),
    [
        ("88-108 µF 250 V", 88, 108, 250, "start"),
        ("189–227 mfd", 189, 227, 0, "start"),
        ("270-324MFD 110VAC 60Hz", 270, 324, 110, "start"),
        ("88 to 108 uF 165V", 88, 108, 165, "start"),
        ("35 µF ±5 % 450 V", 35, 35, 450, ""),  # a tolerance proves no kind
        ("40 uF +5% -5% 330V", 40, 40, 330, ""),
        ("8 µF -0/+20 % 450V", 8, 8, 450, ""),
        ("35 µF 5 % 450 V", 35, 35, 450, ""),
        ("40 µF 450 VDB", 40, 40, 450, "run"),  # classes of operation: IEC 60252-1
        ("20 µF 400 V class B", 20, 20, 400, "run"),
        ("40 µF 450/500 V", 40, 40, 450, ""),
        ("341 MFD 110 VAC", 341, 341, 110, "start"),
        ("30-36 MFD 110-125 VAC", 30, 36, 125, "start"),
        ("35/5 MFD 440", 35, 35, 440, "run"),
        ("210 250", 210, 210, 250, ""),
        ("20µF 400V~ 50Hz run", 20, 20, 400, "run"),
        ("12,5 μF 450 V", 12.5, 12.5, 450, ""),
        ("72 MFD 110 V", 72, 72, 110, "start"),
        ("100 µF 25 V DC", 100, 100, 25, "dc"),
        ("35 uF 370/440 VAC", 35, 35, 440, ""),
    ],
)
def test_markings_in_any_spelling(
    text: str, low: float, high: float, volt: float, kind: str
) -> None:
    found = read_marking(text)
    assert (found.low, found.high, found.volt) == (
        pytest.approx(low),
        pytest.approx(high),
        pytest.approx(volt),
    )
    assert found.kind == kind


def test_sections_and_tolerances_of_a_marking() -> None:
    can = read_marking("35/5 MFD 440 VAC")
    assert (can.sections, can.kind) == ((pytest.approx(35), pytest.approx(5)), "run")
    assert read_marking("30+5 µF 440V").sections == (pytest.approx(30), pytest.approx(5))
    assert read_marking("8 µF -0/+20 % 450V").allowed(5, 5) == (
        pytest.approx(8),
        pytest.approx(9.6),
    )
    assert read_marking("40 µF 450 V").allowed(5, 10) == (pytest.approx(38), pytest.approx(44))
    assert read_marking("88-108 µF 250 V").allowed(0, 20) == (88, 108)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("0 µF 250 V", "0 µF is none"),
        ("108-88 µF 250 V", "runs backwards"),
        ("banana", "No µF in it"),
        ("", "for example 88-108"),
        ("250 V", "No µF in it"),
        ("x" * 200, "for example"),
    ],
)
def test_markings_that_cannot_be_are_named(text: str, words: str) -> None:
    with pytest.raises(BadValue, match=words):
        read_marking(text)


def test_what_a_marking_leaves_open_is_asked_or_said() -> None:
    with pytest.raises(AmbiguousValue, match="millifarad"):
        read_marking("12 mF 250V")
    with pytest.raises(CoilError, match="two things"):
        read_marking("1,200 µF 250V")
    assert any("No volts" in n for n in read_marking("40 µF").notes)
    assert any("never on alternating" in n for n in read_marking("100 µF 25 V DC").notes)
    assert any("odd" in n for n in read_marking("100-200 µF 250 V").notes)


@given(st.text(max_size=60))
def test_no_marking_breaks_it(text: str) -> None:
    try:
        found = read_marking(text)
    except CoilError:
        return
    assert found.low > 0
    assert found.high >= found.low


def test_what_a_replacement_must_be() -> None:
    wanted = Wanted.like(read_marking("88-108 µF 250 V"), 0, 20)
    assert (wanted.low, wanted.high, wanted.volt, wanted.kind) == (88, 108, 250, "start")
    with pytest.raises(BadValue, match="No volts"):
        Wanted.like(read_marking("88-108 µF"), 0, 20)
    with pytest.raises(BadValue, match="kind is not known"):
        Wanted.like(read_marking("12 µF 450 V"), 5, 5)
    with pytest.raises(BadValue, match="kind is not known"):
        Wanted.like(read_marking("100 µF 25 V DC"), 5, 5)


def test_a_capacitor_of_the_wrong_kind_tells_no_replacement() -> None:
    with pytest.raises(BadValue, match="in the place of a run one"):
        Wanted.like(read_marking("88-108 µF 250 V"), 5, 5, kind="run")
    plain = Wanted.like(read_marking("12 µF 450 V"), 5, 5, kind="run")
    assert (plain.kind, plain.low) == ("run", pytest.approx(11.4))


RUN_20 = Wanted(kind="run", low=19.0, high=21.0, volt=400, diameter=40, length=80)


def run_can(tag: str, farad: float, volt: float = 450, **more: float) -> Item:
    return Item(tag=tag, kind="run", low=farad, high=farad, volt=volt, **more)  # type: ignore[arg-type]


def test_the_best_serves_first_and_says_why() -> None:
    shelf = [
        run_can("twenty", 20, diameter=40, length=60),
        run_can("eight", 8),
        run_can("twelve", 12),
        run_can("forty", 40, 250, count=2),
        run_can("low volts", 20, 250),
        run_can("wide", 20, diameter=60, length=80),
        Item(tag="start", kind="start", low=18, high=22, volt=450),
        Item(tag="dc", kind="dc", low=20, high=20, volt=450),
    ]
    found, refused = offers_for(RUN_20, shelf)
    assert [i.tag for i in found[0].items] == ["twenty"]
    assert "20 mm shorter: pad it" in found[0].reasons
    ways = {(o.way, tuple(i.tag for i in o.items)) for o in found}
    assert ("parallel", ("eight", "twelve")) in ways
    assert ("series", ("forty", "forty")) in ways
    series = next(o for o in found if o.way == "series")
    assert any("200 V and 200 V" in r for r in series.reasons)
    why = {r.item.tag: r.why for r in refused}
    assert "400 V are needed" in why["low volts"]
    assert "does not fit" in why["wide"]
    assert "bursts in run" in why["start"]
    assert "polarised" in why["dc"]
    assert shared_volts((run_can("a", 10), run_can("b", 30)), 400) == (300.0, 100.0)


def test_a_range_that_straddles_is_named_and_comes_later() -> None:
    wanted = Wanted(kind="start", low=88, high=108, volt=250)
    shelf = [
        Item(tag="wide", kind="start", low=80, high=112, volt=250),
        Item(tag="same", kind="start", low=88, high=108, volt=275),
    ]
    found, _ = offers_for(wanted, shelf)
    alone = [o for o in found if o.way == "alone"]
    assert [o.items[0].tag for o in alone] == ["same", "wide"]
    assert any("reaches beyond 88 to 108" in r for r in alone[1].reasons)


def test_a_hundred_random_shelves_against_trying_everything() -> None:
    """All single cans and pairs, judged again from the wording of the rule."""
    chance = random.Random(8)
    for _ in range(100):
        kind = chance.choice(["start", "run"])
        shelf = [_random_item(chance, str(k)) for k in range(chance.randint(0, 9))]
        middle = chance.uniform(5, 60)
        wanted = Wanted(
            kind=kind,  # type: ignore[arg-type]
            low=middle * 0.95,
            high=middle * 1.05,
            volt=chance.choice([250.0, 400.0]),
            diameter=chance.choice([0.0, 40.0]),
        )
        found, refused = offers_for(wanted, shelf)
        told = {(o.way, tuple(i.tag for i in o.items)) for o in found}
        assert told == set(_tried(wanted, shelf))
        assert [o.cost for o in found] == sorted(o.cost for o in found)
        serving = {o.items[0].tag for o in found if o.way == "alone"}
        assert not serving & {r.item.tag for r in refused}


def _random_item(chance: random.Random, tag: str) -> Item:
    farad = chance.uniform(4, 60)
    spread = chance.choice([1.0, 1.0, 1.2])
    return Item(
        tag=tag,
        kind=chance.choice(["start", "run", "run", "dc"]),  # type: ignore[arg-type]
        low=farad,
        high=farad * spread,
        volt=chance.choice([125.0, 250.0, 450.0]),
        diameter=chance.choice([0.0, 35.0, 50.0]),
        count=chance.choice([0, 1, 2]),
    )


def _tried(wanted: Wanted, shelf: list[Item]) -> list[tuple[str, tuple[str, ...]]]:
    found = []
    usable = [i for i in shelf if i.kind == wanted.kind and i.count]
    for i in usable:
        fits = not (wanted.diameter and i.diameter > wanted.diameter)
        if fits and i.volt >= wanted.volt and wanted.low <= (i.low + i.high) / 2 <= wanted.high:
            found.append(("alone", (i.tag,)))
    pairs = [*itertools.combinations(usable, 2), *((i, i) for i in usable if i.count > 1)]
    for a, b in pairs:
        ends = ((a.low, b.low), (a.high, b.high))
        both = sum(x + y for x, y in ends) / 2
        if wanted.low <= both <= wanted.high and min(a.volt, b.volt) >= wanted.volt:
            found.append(("parallel", (a.tag, b.tag)))
        chain = sum(x * y / (x + y) for x, y in ends) / 2
        first, second = (a.low + a.high) / 2, (b.low + b.high) / 2
        on_a = wanted.volt * second / (first + second)
        held = on_a <= a.volt * (1 + 1e-9) and wanted.volt - on_a <= b.volt * (1 + 1e-9)
        if wanted.low <= chain <= wanted.high and held:
            found.append(("series", (a.tag, b.tag)))
    return found


def test_a_marking_is_kept_as_read() -> None:
    assert read_marking("  88-108   µF 250 V ").text == "88-108 µF 250 V"
    assert Marking(text="", low=1, high=1).ranged is False


SHELF = """tag,kind,marking,diameter_mm,length_mm,count
# top board
R20,run,20 µF 450 V,40,75,3
S88,,88-108 µF 250 V,"36,5",70,
D1,,100 µF 25 V DC,10,20,1
"""


def test_a_shelf_is_read_and_written_back() -> None:
    items = read_shelf("\ufeff" + SHELF)
    assert [(i.tag, i.kind, i.low, i.high, i.volt, i.count) for i in items] == [
        ("R20", "run", 20, 20, 450, 3),
        ("S88", "start", 88, 108, 250, 1),
        ("D1", "dc", 100, 100, 25, 1),
    ]
    assert items[1].diameter == 36.5
    assert read_shelf(write_shelf(items)) == items


def test_no_cell_of_a_shelf_begins_a_formula() -> None:
    item = Item(tag="=HYPERLINK(1)", kind="run", low=20, high=20, volt=450)
    written = write_shelf([item])
    assert "\n'=HYPERLINK" in written
    assert read_shelf(written) == (item,)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "a first line tag,kind,marking"),
        ("name,what\nx,y\n", "first line"),
        ("tag,marking\nA,banana\n", "line 2, marking"),
        ("tag,marking\nA,0 µF 250 V\n", "0 µF is none"),
        ("tag,marking\nA,88-108 µF\n", "its volts too"),
        ("tag,marking\nA,12 µF 450 V\n", "the marking does not tell"),
        ("tag,kind,marking\nA,big,20 µF 450 V run\n", "start, run or dc"),
        ("tag,marking,count\nA,20 µF 450 V run,many\n", "line 2, count"),
        ("tag,marking\nA,20 µF 450 V run,1,2\n", "2 cells"),
        ("tag,marking\n,20 µF 450 V run\n", "line 2, tag"),
        ("tag,marking\nA,20 µF 450 V run\nA,30 µF 450 V run\n", "A twice"),
    ],
)
def test_a_shelf_that_cannot_be_read_is_named_by_line(text: str, words: str) -> None:
    with pytest.raises(BadDocument, match=words):
        read_shelf(text)
