"""The hookup as found, read off the marks: what it is, for which volts, what is wrong with it."""

import itertools

import pytest

from careful_coil.core.connect import Plan
from careful_coil.core.connect.as_found import HALF
from careful_coil.core.ways import plans_of
from careful_coil.core.winding import ARRANGEMENTS
from careful_coil.core.winding.markings import mark_of
from tests.core.logs import judged, plate

NINE, DELTA, SIX = "three-phase-9-lead-wye", "three-phase-9-lead-delta", "three-phase-6-lead"
TAGS = "ABCDEFGHJKLM"
DUAL = {"phases": "3", "volt": "230/460", "hertz": "60"}
EURO = {"phases": "3", "volt": "230/400", "hertz": "50"}


def found(slug: str, joints: object, system: str = "T", **more: object) -> tuple[str, str, str]:
    """Verdict, subject and reason of the finding on joints of lead names."""
    leads = ARRANGEMENTS[slug].network.leads
    tag = dict(zip(leads, TAGS, strict=False))
    marks = {n: mark_of(slug, n, system) or n for n in leads}  # type: ignore[arg-type]
    log = [
        *plate(**more.get("plate", EURO if slug == SIX else DUAL)),  # type: ignore[arg-type]
        {"kind": "leads", "leads": [{"tag": tag[n], "marking": marks[n]} for n in leads]},
        {
            "kind": "found-hookup",
            "joints": [[tag.get(n, n) for n in j] for j in joints],  # type: ignore[attr-defined]
            "ran": more.get("ran", "unknown"),
        },
    ]
    if "supply" in more:
        log.append({"kind": "supply", "volt": more["supply"], "hertz": 60, "phases": 3})
    own = next((f for f in judged(*log).findings if f.code == "as-found"), None)
    return (own.verdict, own.subject, own.why) if own else ("", "", "")


CASES = [
    (slug, p, volts)
    for slug, volts in ((NINE, ("230", "460")), (DELTA, ("230", "460")), (SIX, ("230", "400")))
    for p, volts in zip([p for p in plans_of(slug) if p.start == "direct"], volts, strict=True)
]


@pytest.mark.parametrize(("slug", "plan", "volt"), CASES, ids=[f"{s} {v}" for s, _, v in CASES])
def test_every_connection_of_six_and_nine_leads_is_known(slug: str, plan: Plan, volt: str) -> None:
    verdict, subject, why = found(slug, plan.joints)
    assert verdict == "note"
    assert subject.startswith("Found joined as ")
    assert ARRANGEMENTS[slug].title in why
    assert f"for {volt} V" in why


@pytest.mark.parametrize("lines", list(itertools.permutations(["L1", "L2", "L3"])))
def test_whichever_line_goes_where(lines: tuple[str, ...]) -> None:
    swap = dict(zip(("L1", "L2", "L3"), lines, strict=True))
    plan = next(p for p in plans_of(SIX) if p.connection == "wye")
    _, subject, _ = found(SIX, [[swap.get(n, n) for n in j] for j in plan.joints])
    assert subject == "Found joined as wye"


@pytest.mark.parametrize("system", ["IEC", "letters", "C"])
def test_other_marks_are_read_as_well(system: str) -> None:
    plan = next(p for p in plans_of(SIX) if p.connection == "delta")
    assert found(SIX, plan.joints, system)[1] == "Found joined as delta"


def test_high_volts_of_nine_leads_fit_wye_and_delta() -> None:
    plan = next(p for p in plans_of(NINE) if p.joints[3] == ("T4", "T7"))
    _, _, why = found(NINE, plan.joints, ran="yes")
    assert "wye inside" in why
    assert "delta inside" in why
    assert "It ran so." in why


def test_a_slip_is_named_before_anything_is_measured() -> None:
    joints = [["L1", "T4"], ["L2", "T2"], ["L3", "T3"], ["T1", "T7"], ["T5", "T8"], ["T6", "T9"]]
    verdict, subject, why = found(NINE, joints)
    assert (verdict, subject) == ("watch", "Found joined wrong")
    assert "T1-T4 is reversed" in why


def test_half_a_winding_left_idle_is_named() -> None:
    joints = [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T5", "T6"]]
    assert found(NINE, joints)[:2] == ("watch", f"Found with {HALF}")


def test_two_lines_in_a_joint_are_a_short() -> None:
    assert "short" in found(SIX, [["L1", "L2", "T1"]])[2]


def test_a_supply_of_other_volts_is_said() -> None:
    plan = next(p for p in plans_of(NINE) if p.joints[3] == ("T4", "T5", "T6"))
    assert "must be changed" in found(NINE, plan.joints, supply=460)[2]


def test_a_plate_whose_volts_do_not_stand_as_the_connections_names_none() -> None:
    """Six leads are 1 to 1.73; 230/460 belongs to another winding."""
    plan = next(p for p in plans_of(SIX) if p.connection == "wye")
    why = found(SIX, plan.joints, plate=DUAL)[2]
    assert "do not stand" in why
    assert "is for" not in why


def test_leads_without_marks_say_nothing_yet() -> None:
    log = [
        {"kind": "leads", "leads": [{"tag": t} for t in "ABCDEF"]},
        {"kind": "found-hookup", "joints": [["A", "B", "C"]]},
    ]
    assert not any(f.code == "as-found" for f in judged(*log).findings)
