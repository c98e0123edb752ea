"""The record of a winding: read, worked out, contradicted, explained, made anew; wires from the reels."""

import math
from dataclasses import replace
from typing import Any

import pytest

from careful_coil.core.condition.coils import Measured
from careful_coil.core.errors import BadDocument, BadValue, ValueOutOfRange
from careful_coil.core.gear.machine_of import known_motor
from careful_coil.core.identify import Naming
from careful_coil.core.job import fold
from careful_coil.core.ledger import judge
from careful_coil.core.ledger.written import read_text
from careful_coil.core.machine.estimate import estimate
from careful_coil.core.machine.facts import check_facts
from careful_coil.core.rewind.explain import explain, off_percent
from careful_coil.core.rewind.record import Record
from careful_coil.core.rewind.rules import (
    beside_ohms,
    left_to_read,
    plate_of,
    record_of,
    start_over_main,
)
from careful_coil.core.rewind.wire import area
from careful_coil.core.rewind.worked import Plate, work_out
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.winding import WINDING
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


def read_datum(field: str, text: str) -> str:
    """A datum as it is kept."""
    return read_text(WINDING, WINDING.field(field), text, fold(()))


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
        ("connection", "zigzag", "wye, delta"),
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
    assert found.facts.winding.phase_ohm is not None
    assert of(found, "winding-ohms").verdict == "good"


def test_counted_turns_are_what_the_machine_has() -> None:
    """The dairy's start winding has 104 turns a pole beside 100, nearly the same factor: 1.04 times."""
    dairy = next(j for j in demo_jobs() if j.id == "demo-dairy")
    found = judge(fold(dairy.entries), Settings())
    ratio = start_over_main(record_of(found.job))
    assert ratio == pytest.approx(1.04, abs=0.005)
    known = known_motor(
        found.job, found.facts.kinds, found.facts.identification, found.facts.naming
    )
    assert not isinstance(known, str)
    told = estimate(*known)
    assert told.machine.turns == pytest.approx(ratio, rel=0.01)
    assert "start winding's turns" not in {a.name for a in told.assumed}
    assert start_over_main(RECORD) is None
    with pytest.raises(BadDocument, match="start over main"):
        check_facts(replace(known[1], turns=100.0))


@pytest.mark.parametrize(
    ("printed", "amps", "told", "volt", "amp"),
    [
        ("230/400", "8.8/5.1", {"connection": "wye"}, 400, 5.1),
        ("230/400", "8.8/5.1", {"connection": "delta"}, 230, 8.8),
        ("230/460", "18.4/9.2", {"connection": "wye", "circuits": "1"}, 460, 9.2),
        ("230/460", "18.4/9.2", {"connection": "wye", "circuits": "2"}, 230, 18.4),
        ("400/690", "8.8/5.1", {"connection": "delta", "circuits": "2"}, 400, 8.8),
        ("400", "5.1", {"connection": "delta"}, 400, 5.1),
    ],
)
def test_the_plate_is_read_for_the_connection_on_record(
    printed: str, amps: str, told: dict[str, str], volt: float, amp: float
) -> None:
    job = job_of(*plate(phases="3", volt=printed, amp=amps, hertz="50"), *noted(told))
    assert plate_of(job) == Plate(volt=volt, hertz=50, amp=amp)


def test_a_single_phase_record_has_ohms_and_mass_of_both_windings() -> None:
    """400 mm a turn: 280 turns of 0.8 mm in the main, 304 of 0.5 mm in the start winding."""
    told = {
        "slots": "24",
        "poles": "4",
        "main": "1-6:40 2-5:30",
        "start": "1-6:44 2-5:32",
        "main-wire": "0.8",
    }
    assert "start-wire" not in told
    part = work_out(Record(told, 1), Plate(volt=230, hertz=50), Settings())
    assert (part.of("q").title, part.of("q").value) == ("Slots per pole", 6)
    assert part.of("kg").wants == ("start wire", "mean turn, or mass of wire")
    whole = Record(told | {"start-wire": "0.5", "mean-turn": "400"}, 1)
    found = work_out(whole, Plate(volt=230, hertz=50), Settings())
    assert found.of("ohm").value == pytest.approx(0.017241 * 0.4 * 280 / area(0.8))
    kg = 8.89e-3 * 0.4 * (280 * area(0.8) + 304 * area(0.5))
    assert found.of("kg").value == pytest.approx(kg)
    weighed = Record(told | {"start-wire": "0.5", "mass": f"{kg:.6f}"}, 1)
    turn = work_out(weighed, Plate(volt=230, hertz=50), Settings()).of("mean-turn").value
    assert turn == pytest.approx(400, rel=1e-4)
