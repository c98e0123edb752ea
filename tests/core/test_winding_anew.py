"""A winding made anew: other volts, hertz, circuits, poles; wires from the reels; the order of the joints."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue, ValueOutOfRange
from careful_coil.core.job import Job
from careful_coil.core.rewind.alike import alike
from careful_coil.core.rewind.convert import Side, Wanted, coil_form, convert, old_side
from careful_coil.core.rewind.joints import circuits, slot_table
from careful_coil.core.rewind.layout import PHASES, Layout, three_phase
from careful_coil.core.rewind.record import Record, copper_mm2, read_wire
from careful_coil.core.rewind.reels import offers, read_reels, short_of
from careful_coil.core.rewind.single import convert_single
from careful_coil.core.rewind.wire import METRIC, area
from careful_coil.core.rewind.worked import Plate
from tests.core.logs import job_of
from tests.core.test_winding_record import PLATE, RECORD, SAW, TICKET, noted

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
    found = read_reels("0.5 0,56:3,2 AWG 20:1")
    assert list(found) == pytest.approx([0.5, 0.56, 0.8118], abs=1e-3)
    assert list(found.values()) == [None, 3.2, 1.0]
    assert len(read_reels("")) > 20
    for text in ("0.5 thick", "0.5:", "0.5:-1", "2x0.5", "0.5:much"):
        with pytest.raises(BadValue, match="gauges on the reels"):
            read_reels(text)
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


def test_a_coil_form_is_the_chord_of_its_span_at_half_the_slots_depth() -> None:
    """115 mm across the slots' middle, seven of 36 slots: 115·sin(35°)."""
    record = Record(SAW | {"slot-depth": "17"}, 3)
    assert coil_form(record, 7) == (
        pytest.approx(120),
        pytest.approx(115 * math.sin(math.radians(35))),
    )
    assert coil_form(RECORD, 7) is None


def test_unequal_coils_keep_their_factor_when_made_anew() -> None:
    record = Record(SAW | {"shape": "concentric", "turns": "20/30/40"}, 3)
    laid = record.layout()
    assert isinstance(laid, Layout)
    side = old_side(record, PLATE, laid, 2200.0)
    assert side.turns == 30
    found = convert(record, side, Wanted(volt=800))
    assert found.new.kw == pytest.approx(side.kw)
    assert found.turns == pytest.approx(60)


def test_what_there_is_not_enough_of_is_said() -> None:
    """Four kilograms in two wires of 0.5 and one of 0.56 mm: 2.46 and 1.54 kg."""
    (found,) = (
        o
        for o in offers(2 * area(0.5) + area(0.56), (0.5, 0.56), 3)
        if [s.count for s in o.strands] == [2, 1]
    )
    reels: dict[float, float | None] = {0.5: 2.0, 0.56: 1.6}
    assert short_of(found, 4.0, reels) == ("2 of 2.46 kg of 0.5 mm",)
    assert short_of(found, 3.0, reels) == ()
    assert short_of(found, None, reels) == ()
    assert short_of(found, 4.0, {0.5: None, 0.56: None}) == ()
