"""Bar to bar: sound and faulty armatures worked out by a network, each fault named; typed readings; wear."""

import math
import random
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue
from careful_coil.core.mechanics.brush_rules import days_left
from careful_coil.core.mechanics.commutator import (
    Bars,
    armature,
    bar_ohms,
    judge_bars,
    pattern_of,
    wave_step,
)
from careful_coil.core.mechanics.typed import bars_count, bars_read, earlier_of, megohm_of, ports_of
from tests.core.logs import entries, job_of, judged, ticket
from tests.core.test_bearings import of

COIL = 0.21
SLOTS = {1: (1.0,), 2: (1.0, 1.09), 3: (1.0, 1.07, 1.15)}
NOISE = 0.005  # of a four-wire reading, one sigma


def test_a_lap_ring_is_a_coil_beside_all_the_others() -> None:
    """R = r(N−1)/N; with one open the others read r and its own place (N−1)·r."""
    sound = bar_ohms(armature(24), [COIL] * 24)
    assert sound == pytest.approx([COIL * 23 / 24] * 24)
    opened = bar_ohms(armature(24), [math.inf, *[COIL] * 23])
    assert opened[0] == pytest.approx(23 * COIL)
    assert opened[1:] == pytest.approx([COIL] * 23)
    short = bar_ohms(armature(24), [0.0, *[COIL] * 23])
    assert short[0] == pytest.approx(0, abs=1e-8)
    assert short[5] == pytest.approx(COIL * 22 / 23)


def test_a_wave_winding_reads_a_pole_pair_of_coils_between_neighbours() -> None:
    """p coils in series beside the other N−p."""
    assert wave_step(25, 2) == 12
    assert wave_step(24, 2) == 0
    for bars, pairs in ((25, 2), (37, 3)):
        found = bar_ohms(armature(bars, pairs), [COIL] * bars)
        assert found == pytest.approx([COIL * pairs * (bars - pairs) / bars] * bars)


def test_a_bad_riser_raises_both_its_readings_and_two_opens_part_the_ring() -> None:
    plain = bar_ohms(armature(12), [COIL] * 12)
    riser = bar_ohms(armature(12), [COIL] * 12, {4: 0.1})
    assert riser - plain == pytest.approx([0, 0, 0, 0.1, 0.1, *[0] * 7])
    parted = bar_ohms(armature(12), [math.inf, *[COIL] * 5, math.inf, *[COIL] * 5])
    assert np.isinf(parted[[0, 6]]).all()
    assert parted[1:6] == pytest.approx([COIL] * 5)


def made(chance: random.Random, kind: str) -> tuple[list[float], set[int]]:
    """Return readings of an armature of 12 to 48 bars, lap or wave, and the bars of its fault, from 1."""
    bars = chance.randrange(12, 49)
    pairs = chance.choice([0, 0, 2, 3])
    pairs = pairs if pairs and wave_step(bars, pairs) else 0
    shape = SLOTS[chance.choice([k for k in SLOTS if bars % k == 0 and bars >= 4 * k])]
    coils = armature(bars, pairs)
    ohms = [COIL * shape[k % len(shape)] for k in range(bars)]
    at = chance.randrange(bars)
    joints, bridges = {}, {}
    where = {coils[at][0] + 1, coils[at][1] + 1}
    if kind == "shorted coil":
        ohms[at] *= chance.choice([0.02, 0.2, 0.5])
    elif kind == "open coil":
        ohms[at] = math.inf
    elif kind == "high coil":
        ohms[at] *= chance.choice([1.6, 3.0])
    elif kind == "high joint":
        joints, where = {at: COIL * max(pairs, 1) * chance.uniform(0.25, 2.0)}, {at + 1}
    elif kind == "bars bridged":
        bridges, where = {at: COIL * 0.05}, {at + 1, (at + 1) % bars + 1}
    read = bar_ohms(coils, ohms, joints, bridges)
    return [float(v) * (1 + chance.gauss(0, NOISE)) for v in read], where


FAULTS = ("shorted coil", "open coil", "high coil", "high joint", "bars bridged")


@pytest.mark.parametrize("kind", FAULTS)
def test_one_fault_is_named_in_nineteen_of_twenty(kind: str) -> None:
    chance = random.Random(FAULTS.index(kind))
    right = 0
    for _ in range(60):
        read, where = made(chance, kind)
        found = judge_bars(read)
        right += found.standing == "fault" and kind in found.faults and set(found.bars) == where
    assert right >= 57


def test_no_fault_is_named_in_sound_ones() -> None:
    chance = random.Random(7)
    assert {judge_bars(made(chance, "sound")[0]).standing for _ in range(120)} == {"sound"}


@given(st.integers(0, 23), st.sampled_from(FAULTS[:4]))
def test_where_reading_began_does_not_matter(turn: int, kind: str) -> None:
    """Turned round, the same readings tell the same fault that much further on."""
    coils = [COIL] * 24
    joints = {0: 0.15} if kind == "high joint" else {}
    coils[0] = {"shorted coil": 0.01, "open coil": math.inf, "high coil": 0.5}.get(kind, COIL)
    read = bar_ohms(armature(24), coils, joints)
    found = judge_bars(list(np.roll(read, turn)))
    assert found.faults[0] == kind
    assert found.bars[0] == turn + 1


def test_a_pattern_belongs_to_the_winding() -> None:
    read = [0.20, 0.22, 0.24] * 8
    assert pattern_of(read) == 3
    assert judge_bars(read).standing == "sound"
    low = [*read[:10], 0.02, *read[11:]]
    found = judge_bars(low)
    assert (found.pattern, found.faults[0], found.bars) == (3, "shorted coil", (11, 12))


def test_what_no_single_fault_shows_is_said() -> None:
    two = [COIL] * 24
    two[3], two[15] = 0.02, 0.02
    assert judge_bars(two).standing == "several"
    assert judge_bars([COIL] * 5).standing == "too few"
    assert judge_bars([math.inf] * 24).standing == "unclear"
    assert isinstance(judge_bars([0.0] * 24), Bars)


# --- in a job -------------------------------------------------------------------------------------------


def bars(*ohms: float | None, first: int = 1, step: float = 0.0001) -> dict[str, Any]:
    return {"kind": "bars-read", "first": first, "ohms": list(ohms), "step_ohm": step}


def commutator(count: int) -> dict[str, Any]:
    return {"kind": "commutator", "bars": count}


TICKET = ticket(name="Sander")


def test_bars_are_a_line_of_the_gate_until_all_are_read() -> None:
    open_one = [4.83 if k == 8 else 0.21 for k in range(24)]
    half = of(judged(*TICKET, commutator(24), bars(*open_one[:12])), "bars")
    assert (half.verdict, half.subject) == ("unproven", "12 of 24 bars not read")
    log = [*TICKET, commutator(24), bars(*open_one[12:], first=13), bars(*open_one[:12])]
    whole = of(judged(*log), "bars")
    assert (whole.verdict, whole.subject) == ("hold", "Bars 9 and 10: open coil")
    again = of(judged(*log, bars(0.21, first=9)), "bars")
    assert again.verdict == "good"
    assert of(judged(*log, commutator(26)), "bars").subject == "26 of 26 bars not read"


def test_a_coarse_meter_proves_nothing_of_bars() -> None:
    found = of(judged(*TICKET, commutator(6), bars(*[0.2] * 6, step=0.1)), "bars")
    assert found.verdict == "unproven"
    assert "Four wires" in found.why
    again = of(judged(*TICKET, commutator(6), bars(*[0.2] * 6, step=0.1), bars(*[0.2] * 6)), "bars")
    assert again.verdict == "good"


def felt(field: str, text: str) -> dict[str, Any]:
    return {"kind": "felt", "field": field, "text": text}


@pytest.mark.parametrize(
    ("text", "verdict"),
    [
        *(("", "unproven"), ("open", "good"), ("12", "good"), ("0.3", "hold")),
        *(
            ("4.9", "hold"),
            ("5", "good"),
        ),  # IEEE 43-2013: 5 MΩ at 40 °C, random windings under 1 kV
        *(("5 at 60 °C", "good"), ("6 at 20 °C", "hold")),  # × 2.25 and × 0.762, thermosetting
    ],
)
def test_bars_to_shaft(text: str, verdict: str) -> None:
    told = judged(*TICKET, commutator(24), felt("bars-shaft", text))
    assert of(told, "bars-shaft").verdict == verdict


def brush(name: str = "B1", **fields: str) -> list[dict[str, Any]]:
    return [{"kind": "brush", "name": name, "field": f, "text": t} for f, t in fields.items()]


def test_a_brush_has_the_hours_left_that_two_dates_tell() -> None:
    """From 16 mm on 1 September to 13 mm on 1 March, 181 days: 7 mm is reached 362 days later."""
    log = [*brush(length="13", earlier="16 2025-09-01"), felt("hours-week", "20")]
    assert days_left(job_of(*log).hands, "B1", 7.0) == pytest.approx(181 / 3 * 6)
    assert "about 1034 hours left" in of(judged(*TICKET, *log), "brush").why
    assert days_left(job_of(*brush(length="13")).hands, "B1", 7.0) is None
    grown = [*brush(length="16", earlier="13 2025-09-01")]
    assert days_left(job_of(*grown).hands, "B1", 7.0) is None
    assert entries(*grown)[0].body.kind == "brush"


@pytest.mark.parametrize(
    ("fields", "verdict", "words"),
    [
        ({"length": "5"}, "hold", "renew both"),
        ({"length": "5", "least": "4"}, "good", "4 mm at least"),
        ({"length": "12", "spring": "weak"}, "watch", "renew the spring"),
        ({"spark": "ring"}, "hold", "read bar to bar"),
        ({"seating": "sticks"}, "watch", "falls freely"),
        ({"length": "5", "done": "renewed"}, "good", "bedded in"),
    ],
)
def test_a_brush_is_as_good_as_its_worst(fields: dict[str, str], verdict: str, words: str) -> None:
    found = of(judged(*TICKET, *brush(**fields)), "brush")
    assert found.verdict == verdict
    assert words in found.why


def test_bars_typed_or_pasted() -> None:
    body = bars_read("0.21 0,22;\n open 210m", 5)
    assert body.first == 5
    assert body.ohms == (0.21, 0.22, None, 0.21)
    for text in ("", "nine", "0.2 12V"):
        with pytest.raises(BadValue):
            bars_read(text, 1)
    assert bars_count("24") == 24
    for text in ("2", "241", "²", "-5", "many"):
        with pytest.raises(BadValue, match="number of bars"):
            bars_count(text)


def test_other_fields_as_they_are_kept() -> None:
    assert earlier_of("14.5 mm 2025-11-02") == "14.5 2025-11-02"
    assert (megohm_of("12"), megohm_of("300k"), megohm_of("OL")) == ("12", "0.3", "open")
    assert ports_of("1/2") == "1 of 2"
    for call, text in (
        (earlier_of, "14.5 mm 2025-13-02"),
        (earlier_of, "2025-11-02"),
        (ports_of, "3 of 2"),
    ):
        with pytest.raises(BadValue):
            call(text)
