"""The record of a winding: read, worked out, contradicted, explained, made anew; wires from the reels."""

import itertools
import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.condition.coils import Measured
from careful_coil.core.errors import BadValue, ValueOutOfRange
from careful_coil.core.identify import Naming
from careful_coil.core.job import Job, fold
from careful_coil.core.ledger import judge
from careful_coil.core.rewind.alike import alike
from careful_coil.core.rewind.convert import Side, Wanted, coil_form, convert, old_side
from careful_coil.core.rewind.explain import explain, off_percent
from careful_coil.core.rewind.joints import circuits, slot_table
from careful_coil.core.rewind.layout import PHASES, Layout, three_phase
from careful_coil.core.rewind.record import Record, copper_mm2, read_datum, read_wire
from careful_coil.core.rewind.reels import offers, read_reels
from careful_coil.core.rewind.rules import beside_ohms, left_to_read, record_of
from careful_coil.core.rewind.single import convert_single
from careful_coil.core.rewind.wire import METRIC, area
from careful_coil.core.rewind.worked import Plate, work_out
from careful_coil.core.settings import Settings
from careful_coil.core.winding import arrangement
from careful_coil.demo import demo_jobs
from tests.core.logs import job_of, judged, plate, ticket
from tests.core.test_bearings import of

SAW = {
    "slots": "36",
    "poles": "4",
    "coils": "36",
    "groups": "12",
    "span": "1-8",
    "turns": "28",
    "wire": "2 x 0.75",
    "circuits": "1",
    "connection": "wye",
    "core": "110",
    "bore": "98",
    "tooth": "4.1",
    "back-iron": "17",
    "slot-area": "105",
    "mean-turn": "480",
}
PLATE = Plate(volt=400, hertz=50, amp=5.1)
RECORD = Record(SAW, 3)


def test_a_record_is_worked_out_by_hand() -> None:
    """E = 400/√3 on 336 turns at 0.9019: 3.433 mWb; π/2 of its mean over 98π/4 × 110 mm²: 0.637 T."""
    found = work_out(RECORD, PLATE, Settings())
    flux = 400 / math.sqrt(3) / (4.44 * 50 * 336 * found.of("kw").value)  # type: ignore[operator]
    gap = flux / (math.pi * 98 / 4 * 110e-6) * math.pi / 2
    wanted = {
        "q": 3,
        "kw": 0.901912,
        "turns": 336,
        "density": 5.1 / (2 * area(0.75)),
        "flux": 1000 * flux,
        "gap": gap,
        "teeth": gap * (math.pi * 98 / 36) / (4.1 * 0.95),
        "back": flux / 2 / (110 * 17 * 0.95e-6),
        "fill": 100 * 56 * 2 * 0.83129618**2 / 105,
        "ohm": 0.017241 * 0.48 * 336 / (2 * area(0.75)),
        "kg": 3 * 8.89e-3 * 0.48 * 336 * 2 * area(0.75),
    }
    for name, value in wanted.items():
        assert found.of(name).value == pytest.approx(value, rel=1e-5), name
    assert found.of("back").mark == "watch"
    assert found.of("gap").mark == "good"


def test_partial_records_give_what_they_can_and_say_what_is_missing() -> None:
    found = work_out(Record({"slots": "36", "poles": "4"}, 3), Plate(), Settings())
    assert found.of("q").value == 3
    assert found.of("gap").value is None
    assert set(found.of("gap").wants) >= {"plate volts", "turns per coil", "core length", "bore"}
    empty = work_out(Record({}, 3), PLATE, Settings())
    assert empty.why == "Slots and poles first."
    assert all(f.value is None for f in empty.figures)


def test_the_mean_turn_follows_from_the_mass_of_wire() -> None:
    told = {k: v for k, v in SAW.items() if k != "mean-turn"}
    whole = work_out(RECORD, PLATE, Settings()).of("kg").value
    found = work_out(Record(told | {"mass": f"{whole}"}, 3), PLATE, Settings())
    assert found.of("mean-turn").value == pytest.approx(480)
    assert found.of("ohm").value == pytest.approx(
        work_out(RECORD, PLATE, Settings()).of("ohm").value
    )


@pytest.mark.parametrize(
    ("field", "text", "kept"),
    [
        ("span", "1 – 8", "1-8"),
        ("wire", "2x0,75 + AWG 20", "2 x 0.75 + AWG 20"),
        ("wire", "3 x SWG 22 mm", "3 x SWG 22"),
        ("turns", "28 / 26/24", "28/26/24"),
        ("main", "1-8:40, 2-7:35 3–6:20", "1-8:40 2-7:35 3-6:20"),
        ("phase-ohm", "3.35 Ω at 22 °C", "3.35 at 22"),
        ("core", "110 mm", "110"),
        ("mass", "3,8 kg", "3.8"),
        ("connection", "d", "delta"),
    ],
)
def test_data_are_read_as_they_are_said(field: str, text: str, kept: str) -> None:
    assert read_datum(field, text) == kept
    assert read_datum(field, kept) == kept
    assert read_datum(field, " ") == ""


@pytest.mark.parametrize(
    ("field", "text", "words"),
    [
        ("slots", "2", "3 to 360"),
        ("slots", "²", "3 to 360"),
        ("poles", "3", "even"),
        ("span", "8", "1-8"),
        ("wire", "thick", "wires in hand"),
        ("wire", "99 x 0.5", "wires in hand"),
        ("wire", "AWG 99", "AWG"),
        ("turns", "0", "turns per coil"),
        ("main", "1-8", "with their turns"),
        ("main", "8-1:40", "with their turns"),
        ("core", "-5", "core length"),
        ("circuits", "1.5", "circuits"),
        ("connection", "star-ish", "wye, delta"),
        ("phase-ohm", "open", "ohms of one phase"),
    ],
)
def test_data_that_cannot_be_are_refused(field: str, text: str, words: str) -> None:
    with pytest.raises((BadValue, ValueOutOfRange), match=words):
        read_datum(field, text)


# --- against the ohms -----------------------------------------------------------------------------------


def with_ohm(**changes: str) -> Record:
    """Return the record with one datum wrong, beside the ohms of the right one at 20 °C."""
    right = work_out(RECORD, PLATE, Settings()).of("ohm").value
    return Record(SAW | {"phase-ohm": f"{right:.4f} at 20"} | changes, 3)


@pytest.mark.parametrize(
    ("wrong", "field", "text"),
    [
        ({"turns": "24"}, "turns", "28"),
        ({"wire": "2 x 0.85"}, "wire", "2 x 0.75"),
        ({"wire": "0.75"}, "wire", "2 x 0.75"),
        ({"circuits": "2"}, "circuits", "1"),
    ],
)
def test_a_wrong_datum_is_among_what_would_explain_it(
    wrong: dict[str, str], field: str, text: str
) -> None:
    record = with_ohm(**wrong)
    off = off_percent(record, PLATE, Settings())
    assert off is not None
    assert abs(off) > 10
    assert (field, text) in {(c.field, c.text) for c in explain(record, PLATE, Settings())}
    assert abs(off_percent(with_ohm(), PLATE, Settings()) or 1) < 0.01


# --- in a job -------------------------------------------------------------------------------------------

TICKET = [
    *ticket(name="School, bandsaw"),
    *plate(phases="3", volt="230/400", hertz="50", amp="8.8/5.1"),
]


def noted(told: dict[str, str]) -> list[dict[str, Any]]:
    return [{"kind": "winding-noted", "field": f, "text": t} for f, t in told.items()]


@pytest.mark.parametrize(
    ("change", "code", "verdict", "words"),
    [
        ({"coils": "18"}, "winding-coils", "hold", "18 coils, not 36"),
        ({"groups": "6"}, "winding-groups", "hold", "6 groups, not 12"),
        ({"span": "1-12"}, "winding-span", "watch", "beyond the pole pitch"),
        ({"span": "1-4"}, "winding-span", "watch", "far below"),
        ({"circuits": "3"}, "winding-circuits", "hold", "Equal ones: 1, 2, 4"),
        ({"slots": "35"}, "winding-slots", "hold", "three divides"),
        ({"slot-area": "70"}, "winding-fill", "hold", "More than the slot holds"),
        ({"wire": "0.75"}, "winding-density", "watch", "Over 8"),
        ({"bore": "60"}, "winding-gap", "watch", "Over 0.9"),
        ({"phase-ohm": "4.2 at 20"}, "winding-ohms", "hold", "contradicts"),
        ({"phase-ohm": "3.2 at 22"}, "winding-ohms", "good", "fits"),
    ],
)
def test_what_cannot_be_true_is_marked(
    change: dict[str, str], code: str, verdict: str, words: str
) -> None:
    found = [f for f in judged(*TICKET, *noted(SAW | change)).findings if f.code == code]
    assert any(f.verdict == verdict and words in f"{f.subject} {f.why}" for f in found)
    assert not [f for f in judged(*TICKET, *noted(SAW)).findings if f.verdict == "hold"]


def test_a_rewind_asks_for_the_whole_record() -> None:
    begun = judged(*TICKET, *noted(SAW))
    assert of(begun, "winding-data").verdict == "unproven"
    assert "winding-data" not in {f.code for f in begun.gate}
    work = {"kind": "work", "what": "rewound", "at_c": 20}
    rewound = judged(*TICKET, *noted(SAW), work)
    assert "winding-data" in {f.code for f in rewound.gate}
    left = left_to_read(record_of(begun.job))
    assert left == ("exit", "extension", "slot-depth", "liner")
    whole = dict.fromkeys(left, "12")
    assert of(judged(*TICKET, *noted(SAW | whole), work), "winding-data").verdict == "good"
    assert "winding-data" not in {f.code for f in judged(*TICKET).findings}


def test_a_start_winding_that_does_not_suit_its_kind_is_watched() -> None:
    one = [*ticket(name="Pump"), *plate(phases="1", volt="230", hertz="50")]
    looks = [{"kind": "look", "sign": "capacitor", "answer": "start"}]
    told = {
        "slots": "24",
        "poles": "4",
        "main": "1-6:40 2-5:30",
        "start": "1-6:14 2-5:9",
        "start-at": "5",
        "main-wire": "0.8",
        "start-wire": "0.45",
    }
    found = judged(*one, *looks, *noted(told))
    subjects = {f.subject for f in found.findings if f.code == "winding-start-at"}
    assert "Start winding not centred between the mains" in subjects


# --- something else -------------------------------------------------------------------------------------

LAID = RECORD.layout()
OLD = old_side(RECORD, PLATE, LAID, 2200.0) if isinstance(LAID, Layout) else None


def old() -> Side:
    assert OLD is not None
    return OLD


def test_other_volts_keep_flux_torque_and_copper() -> None:
    """230 V delta for 400 V wye is the same coil: the same turns, wire and power, √3 the amps."""
    found = convert(RECORD, old(), Wanted(volt=400 / math.sqrt(3), connection="delta"))
    assert found.turns == pytest.approx(28)
    assert found.new.wire_mm2 == old().wire_mm2
    assert found.new.amp == pytest.approx(5.1 * math.sqrt(3))
    assert found.new.watt == pytest.approx(2200)
    assert found.notes == ()


@given(
    st.floats(100, 700),
    st.sampled_from([40.0, 50.0, 60.0]),
    st.sampled_from(["wye", "delta"]),
    st.sampled_from([1, 2, 4]),
)
def test_there_and_back_is_the_identity(
    volt: float, hertz: float, connection: str, parallel: int
) -> None:
    there = convert(
        RECORD,
        old(),
        Wanted(volt=volt, hertz=hertz, connection=connection, circuits=parallel),  # type: ignore[arg-type]
    )
    exact = convert(
        RECORD,
        old(),
        Wanted(
            volt=volt,
            hertz=hertz,
            connection=connection,  # type: ignore[arg-type]
            circuits=parallel,
            turns=there.turns,
        ),
    )
    back = convert(
        RECORD, exact.new, Wanted(volt=400, hertz=50, connection="wye", circuits=1, turns=28)
    )
    assert back.turns == pytest.approx(28)
    assert back.new.wire_mm2 == pytest.approx(old().wire_mm2)
    assert back.new.amp == pytest.approx(5.1)
    assert back.new.watt == pytest.approx(2200)
    assert exact.new.wire_mm2 * exact.new.turns == pytest.approx(old().wire_mm2 * 28)


def test_fewer_poles_saturate_the_back_iron() -> None:
    found = convert(RECORD, old(), Wanted(poles=2))
    assert found.new.back == pytest.approx(2, rel=0.02)
    assert found.notes[0] == ("hold", "The back iron at 201% of before: it saturates.")
    more = convert(RECORD, old(), Wanted(poles=6))
    assert [v for v, _ in more.notes] == ["watch", "note"]
    assert more.new.watt == pytest.approx(2200 * 4 / 6, rel=0.02)


def test_what_the_core_cannot_hold_is_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="1, 2, 4"):
        convert(RECORD, old(), Wanted(circuits=3))
    with pytest.raises(ValueOutOfRange, match="wire"):
        old_side(Record(SAW | {"wire": ""}, 3), PLATE, three_phase(36, 4), None)


# --- reels ----------------------------------------------------------------------------------------------


@given(
    st.floats(0.1, 4),
    st.lists(
        st.sampled_from([d for d in METRIC if 0.2 <= d <= 1.4]), min_size=1, max_size=7, unique=True
    ),
    st.integers(1, 5),
)
def test_wires_from_the_reels_are_all_that_brute_force_finds(
    mm2: float, reels: list[float], most: int
) -> None:
    brute = set()
    for one, two in itertools.combinations_with_replacement(sorted(reels), 2):
        for n, m in itertools.product(range(1, most + 1), range(0, most + 1)):
            if n + m > most or (m and one == two) or (m and two > 1.35 * one):
                continue
            whole = n * area(one) + m * area(two)
            if abs(whole / mm2 - 1) <= 0.04:
                brute.add(tuple(sorted([(n, one)] + ([(m, two)] if m else []))))
    found = offers(mm2, reels, most)
    assert {tuple(sorted((s.count, s.mm) for s in o.strands)) for o in found} == brute
    rank = [(round(abs(o.off_percent), 1), o.count, o.room_mm2) for o in found]
    assert rank == sorted(rank)
    assert all(o.mm2 == pytest.approx(copper_mm2(o.strands)) for o in found)


def test_reels_are_typed_in_a_line() -> None:
    assert read_reels("0.5 0,56 AWG 20") == pytest.approx((0.5, 0.56, 0.8118), abs=1e-3)
    assert len(read_reels("")) > 20
    with pytest.raises(BadValue, match="gauges on the reels"):
        read_reels("0.5 thick")
    assert read_wire("AWG 20")[0].name == "AWG 20"


# --- joints ---------------------------------------------------------------------------------------------


@given(
    st.sampled_from([(36, 4), (24, 2), (18, 4), (54, 6), (48, 4), (27, 6)]),
    st.booleans(),
    st.data(),
)
def test_joined_circuits_add_up_to_the_whole_phase(
    core: tuple[int, int], skip: bool, data: st.DataObject
) -> None:
    """Walked from lead to star, every group is passed once, in the way its current must go."""
    layout = three_phase(*core)
    from careful_coil.core.rewind.layout import circuits_of

    count = data.draw(st.sampled_from(circuits_of(layout)))
    for phase in PHASES:
        every = circuits(layout, phase, count, skip)
        walked = [g for c in every for g, _ in c.groups]
        assert sorted(walked) == sorted(g[0].group for g in layout.groups(phase))
        ways = {c.group: c.sense > 0 for c in layout.of(phase)}
        assert all(forward == ways[g] for c in every for g, forward in c.groups)
        for c in every:
            ends = [c.begins, *(e for j in c.joints for e in j), c.ends]
            assert len({(e.group, e.start) for e in ends}) == 2 * len(c.groups)


def test_the_slot_table_names_both_layers() -> None:
    table = dict(slot_table(three_phase(36, 4, span=7)))
    assert table[1] == "U g1 c1s, U g10 c30f"
    assert len(table) == 36


# --- single phase, and motors like this one -------------------------------------------------------------

PUMP = {
    "slots": "24",
    "poles": "4",
    "main": "1-6:40 2-5:30",
    "start": "1-6:44 2-5:32",
    "main-wire": "0.8",
    "start-wire": "0.5",
    "core": "70",
    "bore": "78",
}


def test_a_single_phase_winding_for_half_the_volts_has_half_the_turns() -> None:
    """Wire of twice the area, a capacitor of four times the µF."""
    found = convert_single(Record(PUMP, 1), Plate(volt=230, hertz=50), 115)
    assert [[c.turns for c in w.new] for w in found.windings] == [[20, 15], [22, 16]]
    assert found.windings[0].new_mm2 == pytest.approx(2 * area(0.8))
    assert found.microfarad == pytest.approx(4)
    assert found.notes == ()
    faster = convert_single(Record(PUMP, 1), Plate(volt=230, hertz=50), 276, 60)
    assert faster.ratio == pytest.approx(1)
    assert faster.microfarad == pytest.approx(50 / 60)
    assert "start switch" in faster.notes[0][1]


def test_a_single_phase_record_that_is_not_enough_says_so() -> None:
    with pytest.raises(ValueOutOfRange, match="main coils, hertz"):
        convert_single(Record({"slots": "24"}, 1), Plate(volt=230))
    alone = {k: v for k, v in PUMP.items() if not k.startswith("start")}
    notes = convert_single(Record(alone, 1), Plate(volt=230, hertz=50), 24).notes
    assert any("not on record" in words for _, words in notes)
    assert any("would be right" in words for _, words in notes)


def test_motors_like_this_one_are_ranked_by_how_near_they_are() -> None:
    def job(**changes: str) -> Job:
        return job_of(*TICKET, *noted(SAW | changes))

    others = [
        (1, job(core="115")),
        (2, job(core="111", bore="99")),
        (3, job(slots="24")),
        (4, job(core="160")),
        (5, job(turns="31")),
        (6, job_of(*TICKET)),
    ]
    found = alike(job(), others)
    assert [a.number for a in found] == [5, 2, 1]
    assert found[0].apart == 0
    assert "turns 31" in found[0].words
    assert alike(job_of(*TICKET), others) == ()


@pytest.mark.parametrize(
    ("slug", "ohm", "parallel", "phase"),
    [
        ("three-phase-6-lead", 3.3, "1", 3.3),
        ("three-phase-6-lead", 0.825, "2", 0.825),
        ("three-phase-12-lead", 1.65, "1", 3.3),
        ("three-phase-12-lead", 1.65, "2", 0.825),
    ],
)
def test_ohms_read_at_the_leads_stand_beside_the_record(
    slug: str, ohm: float, parallel: str, phase: float
) -> None:
    """A whole phase between two leads, or halves: in series twice one, in parallel half of it."""
    arranged = arrangement(slug)
    naming = Naming(word="proven", names={}, arrangement=arranged)
    told = Measured(
        ohm=dict.fromkeys((c.name for c in arranged.network.coils), ohm),
        at_c=22.0,
        doubt_ohm=0.0,
        wires=4,
        how="test",
    )
    found = beside_ohms(Record(SAW | {"circuits": parallel}, 3), naming, told)
    assert found.phase_ohm == (pytest.approx(phase), 22.0)
    typed = Record(SAW | {"phase-ohm": "9"}, 3)
    assert beside_ohms(typed, naming, told) is typed
    assert beside_ohms(RECORD, Naming(word="none", names={}, arrangement=None), told) is RECORD


def test_a_job_holds_its_record_against_its_own_leads() -> None:
    """The boatyard's coils read 4.2 Ω; its record gives as much."""
    boatyard = next(j for j in demo_jobs() if j.id == "demo-boatyard")
    found = judge(fold(boatyard.entries), Settings())
    assert "phase-ohm" not in found.job.winding
    assert found.winding.phase_ohm is not None
    assert of(found, "winding-ohms").verdict == "good"


def test_a_coil_form_is_the_chord_of_its_span_at_half_the_slots_depth() -> None:
    """115 mm across the slots' middle, seven of 36 slots: 115·sin(35°)."""
    record = Record(SAW | {"slot-depth": "17"}, 3)
    assert coil_form(record, 7) == (
        pytest.approx(120),
        pytest.approx(115 * math.sin(math.radians(35))),
    )
    assert coil_form(RECORD, 7) is None
