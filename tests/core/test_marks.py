"""Marks on leads: what they mean in any marking, the fewest readings that bear them out, exchanged ones."""

import dataclasses
import math
from itertools import combinations

import numpy as np
import pytest
from scipy.optimize import nnls

from careful_coil.core.identify import Evidence, Identification, identify
from careful_coil.core.identify.evidence import Leanings
from careful_coil.core.identify.extras import earthy
from careful_coil.core.identify.nextmark import adds_up, borne_out, plan_of
from careful_coil.core.identify.owed import owed
from careful_coil.core.readings import AnyReading, Frame, Meter, Resistance
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.markings import in_marking, leads_of, mark_of, plain

NULLED = Meter(lead_ohm=0.0, resolution_ohm=0.01)
OHM = {"coil": 1.9, "main": 4.6, "auxiliary": 11.2, "run": 4.6, "start": 11.2}
MOST = {
    "three-phase-6-lead": 4,
    "three-phase-9-lead-wye": 7,
    "three-phase-9-lead-delta": 7,
    "three-phase-12-lead": 9,
    "single-phase-dual-voltage-8-lead": 7,
}


def marked(
    slug: str, system: str = "T", swap: tuple[str, str] = ("", "")
) -> tuple[Evidence, Identification, int]:
    """Follow what is asked of a motor with every lead marked, two marks exchanged; count the readings."""
    network = ARRANGEMENTS[slug].network
    network = network.with_ohm({k: OHM[k] for k in {c.like for c in network.coils}})
    name = dict(zip("ABCDEFGHJKLM", network.leads, strict=False))
    moved = {swap[0]: swap[1], swap[1]: swap[0]}
    marks = {t: str(mark_of(slug, moved.get(n, n), system)) for t, n in name.items()}  # type: ignore[arg-type]
    taken: list[AnyReading] = []
    for count in range(40):
        evidence = Evidence.of(tuple(name), taken, NULLED, ARRANGEMENTS[slug].phases, marks=marks)
        found = identify(evidence)
        step = found.next
        if borne_out(evidence) or step is None or step.kind != "resistance":
            return evidence, found, count
        one, two = step.between or ("", "")
        many = (two,) if isinstance(two, str) else two
        ohm = min(network.ohm_between(name[str(one)], name[t]) for t in many)
        value = "open" if math.isinf(ohm) else f"{ohm:.2f}"
        taken.append(Resistance(between=(one, two), value=value))
    raise AssertionError("it asks for ever")


@pytest.mark.parametrize(("slug", "most"), MOST.items())
def test_all_marked_is_borne_out_by_the_fewest_readings(slug: str, most: int) -> None:
    for system in ("T", "IEC"):
        evidence, found, count = marked(slug, system)
        assert borne_out(evidence)
        assert count <= most
        assert found.best.arrangement == slug
        assert not found.best.unread  # every coil was passed
        leads = ARRANGEMENTS[slug].network.leads
        for tag, mark in zip(evidence.tags, dict(evidence.marks).values(), strict=True):
            assert found.best.names[tag] in leads_of(slug, mark, leads)
        assert "proven" not in found.best.certainty.values()  # a mark is no proof


def test_the_plan_passes_every_coil_and_shows_what_ohms_can_show() -> None:
    for slug, known in ARRANGEMENTS.items():
        network = known.network
        passed = {
            k
            for a, b in plan_of(network)
            for k, share in enumerate(network.shares(a, b))
            if abs(share) > 1e-9
        }
        assert passed == set(range(len(network.coils))), slug


@pytest.mark.parametrize(
    ("slug", "swap", "seen"),
    [
        ("three-phase-9-lead-wye", ("T1", "T2"), True),
        ("three-phase-9-lead-wye", ("T7", "T8"), False),  # a star's points: ohms cannot
        ("three-phase-9-lead-delta", ("T1", "T9"), True),
        ("three-phase-6-lead", ("T1", "T4"), False),  # a coil end for end
    ],
)
def test_two_marks_exchanged_show_where_ohms_can_show_them(
    slug: str, swap: tuple[str, str], seen: bool
) -> None:
    evidence, found, _ = marked(slug, swap=swap)
    assert borne_out(evidence) != seen
    assert "proven" not in found.best.certainty.values()


@pytest.mark.parametrize(
    ("slug", "mark", "lead"),
    [
        ("three-phase-6-lead", "u1", "T1"),
        ("three-phase-6-lead", "X", "T4"),
        ("three-phase-6-lead", "W2", "T6"),
        ("three-phase-6-lead", "C", "T3"),
        ("three-phase-two-speed-6-lead", "1U", "T1"),
        ("single-phase-4-lead", "T8", "aux-2"),
        ("single-phase-4-lead", "V1", "aux-1"),
        ("single-phase-4-lead", "Z2", "aux-2"),
        ("single-phase-3-lead", "C", "common"),
        ("single-phase-3-lead", "S", "start"),
        ("three-phase-9-lead-wye", "T 7", "T7"),
        ("three-phase-12-lead", "11", "T11"),
    ],
)
def test_a_mark_is_compared_by_what_it_means(slug: str, mark: str, lead: str) -> None:
    assert leads_of(slug, mark, ARRANGEMENTS[slug].network.leads) == (lead,)


def test_a_mark_told_in_the_marking_it_is_printed_in() -> None:
    assert in_marking("three-phase-6-lead", "T5", "U1") == "V2"
    assert in_marking("three-phase-6-lead", "T5", "T1") == "T5"
    assert plain(" t 12 ") == "T12"


def test_a_coil_no_reading_has_passed_is_not_as_marked() -> None:
    tags = "ABCDEF"
    marks = dict(zip(tags, ("T1", "T4", "T2", "T5", "T3", "T6"), strict=True))
    two: list[AnyReading] = [
        Resistance(between=("A", "B"), value="1.90"),
        Resistance(between=("C", "D"), value="1.91"),
        Resistance(between=("A", "C"), value="open"),
    ]
    evidence = Evidence.of(tags, two, NULLED, 3, marks=marks)
    assert not borne_out(evidence)
    step = identify(evidence).next
    assert step is not None
    assert step.between == ("E", "F")


def test_an_earth_lead_is_one_that_reads_the_frame_and_nothing_else() -> None:
    assert earthy("green", "yellow")
    assert earthy("yellow", "green")
    assert not earthy("yellow")
    opens = [Resistance(between=pair, value="open") for pair in combinations("ACE", 2)]
    pairs = [
        Resistance(between=("A", "B"), value="4.60"),
        Resistance(between=("C", "D"), value="11.1"),
    ]
    on, off = Frame(lead="E", value="0.03"), Frame(lead="E", value="open", lug="off")
    for frames, sure in (((), "leaning"), ((on,), "leaning"), ((on, off), "proven")):
        taken = [*pairs, *opens, *frames]
        found = identify(Evidence.of("ABCDE", taken, NULLED, 1, uses={"E": "earth"}))
        assert found.best.extras == {"E": "earth"}
        assert found.best.certainty["E"] == sure


def test_a_reading_through_joints_is_no_reading_of_bare_coils() -> None:
    low = [
        Resistance(between=pair, value="1.24", joints=(("A", "G"), ("D", "E", "F")))
        for pair in (("A", "D"), ("B", "E"))
    ]
    found = identify(Evidence.of("ABCDEFGHJ", low, NULLED, 3))
    assert found.read_groups == ()
    assert any("Take it apart" in n for n in found.notes)


def test_a_winding_end_on_the_frame_is_no_earth_lead() -> None:
    """Nobody said earth and nothing is green: a lead of its own on the frame is a fault."""
    opens = [Resistance(between=pair, value="open") for pair in combinations("ACE", 2)]
    pairs = [
        Resistance(between=("A", "B"), value="4.60"),
        Resistance(between=("C", "D"), value="11.1"),
    ]
    frame: list[AnyReading] = [
        Frame(lead="E", value="0.2"),
        Frame(lead="E", value="open", lug="off"),
    ]
    found = identify(Evidence.of("ABCDE", [*pairs, *opens, *frame], NULLED, 1))
    assert "earth" not in found.best.extras.values()
    assert found.best.certainty["E"] != "proven"


def test_a_speed_tap_told_by_its_ohms_is_owed_to_a_run_only_where_they_are_far_apart() -> None:
    bare = Leanings(path=(1.0, 0.0, 0.0, 0.0))
    for low, fit in (("1.30", False), ("0.40", True)):
        whole = f"{1.6 + float(low):.2f}"
        rows = [("A", "B", "1.60"), ("B", "C", low), ("A", "C", whole)]
        taken = [Resistance(between=(a, b), value=v) for a, b, v in rows]
        odds = (("single-phase-two-speed-coil", 50.0), ("single-phase-3-lead", 0.02))
        leanings = dataclasses.replace(bare, kinds=odds)
        evidence = Evidence.of("ABC", taken, NULLED, 1, leanings=leanings)
        found = identify(evidence)
        assert found.best.arrangement == "single-phase-two-speed-coil"
        assert owed(found, evidence) == fit


def test_columns_are_fitted_as_by_least_squares_without_negative_ones() -> None:
    """Held against SciPy's own: what it leaves over is within the bound, or it is not."""
    rng, seen = np.random.default_rng(7), set()
    for _ in range(200):
        rows = int(rng.integers(1, 9))
        matrix = rng.normal(0.6, 0.7, (rows, int(rng.integers(1, 6))))
        most = float(rng.uniform(0.05, 0.9))
        left = float(nnls(matrix, np.ones(rows))[1])
        if abs(left - most) > 1e-9:
            assert adds_up(matrix, most) == (left < most)
            seen.add(left < most)
    assert seen == {True, False}
