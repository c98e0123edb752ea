"""Leads are called by what is on them; readings after a joint tell it from what may stand there instead."""

import io
import re
from typing import Any

import pytest
from pypdf import PdfReader

from careful_coil.core.connect.called import in_words
from careful_coil.core.connect.proof import offer
from careful_coil.core.ledger import Judgement
from careful_coil.core.settings import Settings
from careful_coil.demo.cast import cast_motor
from careful_coil.drawing.scene import hookup_drawing, winding_now
from careful_coil.drawing.shapes import Words
from careful_coil.report.sheet import sheet
from careful_coil.walk.bench import CoreBench
from careful_coil.walk.play import play
from careful_coil.walk.truth import World
from tests.core.logs import judged, plate, ticket

Body = dict[str, Any]
COLOURS = ("brown", "blue", "black", "grey", "red", "yellow", "white", "orange", "violet")
SUPPLY: Body = {"kind": "supply", "volt": 460, "hertz": 60, "phases": 3, "measured": True}
PAIRS = (("L1", "L2"), ("L1", "L3"), ("L2", "L3"))


def nine(
    marks: tuple[str, ...], *log: Body, colours: bool = True, settings: Settings | None = None
) -> Judgement:
    """Nine leads joined as two stars in parallel, their line ohms read, to be joined in series."""
    leads = [
        {"tag": t, "marking": m, "colour": c if colours else ""}
        for t, m, c in zip("ABCDEFGHJ", marks, COLOURS, strict=True)
    ]
    found = [["L1", "A", "G"], ["L2", "B", "H"], ["L3", "C", "J"], [*"DEF"]]
    ohms = [{"kind": "line-ohm", "lines": list(p), "value": "0.74 Ω"} for p in PAIRS]
    return judged(
        *ticket(name="Sluice", complaint="nothing"),
        {"kind": "on-site"},
        *plate(phases="3", volt="230/460", hertz="60", amp="13/6.5"),
        SUPPLY,
        {"kind": "supply-read", "line": [460, 461, 459]},
        {"kind": "proved-dead", "volt": 0.1},
        {"kind": "leads", "leads": leads},
        {"kind": "found-hookup", "joints": found},
        *ohms,
        {"kind": "insulation", "megohm": 480, "at_c": 20, "test_volt": 500},
        {"kind": "discharged", "seconds": 240},
        *log,
        settings=settings,
    )


T = tuple(f"T{k}" for k in range(1, 10))
IEC = ("U1", "V1", "W1", "U2", "V2", "W2", "U5", "V5", "W5")


def test_a_joint_is_asked_for_by_colour_and_print() -> None:
    cut = [{"kind": "parted", "leads": [t]} for t in "GD"]
    titled = {s.title for s in nine(T, *cut).steps}
    assert "Join grey T4 to white T7" in titled
    assert "Join grey U2 to white U5" in {s.title for s in nine(IEC, *cut).steps}
    assert "Join T4 to T7" in {s.title for s in nine(T, *cut, colours=False).steps}
    why = next(s.why for s in nine(IEC, *cut).steps if s.code == "joint-T4-T7")
    assert "T4" not in why
    assert not [f.why for f in nine(IEC, *cut).findings if f.station == "connect" and "T4" in f.why]


def test_names_in_a_text_are_said_once() -> None:
    words = {"T4": "yellow T4", "T1": "brown T1", "main-2": "B (T2)", "high": "C (H)"}
    once = in_words("Join T4 to T1, not T41 or C1.T1; main-2 on its own, high speed.", words)
    assert once == "Join yellow T4 to brown T1, not T41 or C1.T1; B (T2) on its own, high speed."
    assert in_words(once, words) == once


def test_a_line_of_a_leads_colour_is_warned_of_at_its_step() -> None:
    """480 V 60 Hz is brown, orange, yellow; 400 V 50 Hz brown, black, grey (IEC 60445)."""
    cut = [{"kind": "parted", "leads": [t]} for t in "ABCGHJDEF"]
    why = " ".join(s.why for s in nine(T, *cut).steps)
    assert "L2 is orange, and so is orange T8, which does not belong here" in why
    own = Settings().changed({"schools": {"supply-colours": "brown black grey"}})
    other = " ".join(s.why for s in nine(T, *cut, settings=own).steps)
    assert "L3 is grey, and so is grey T4" in other


def test_the_reading_after_a_joint_tells_its_leads_from_those_not_joined_yet() -> None:
    """Before T5 and T6 have their joints, T4 may be either of them under a wrong mark."""
    first = [{"kind": "parted", "leads": [t]} for t in "GD"]
    joined = [*first, {"kind": "joint", "joint": ["D", "G"]}]
    shown = nine(T, *joined)
    found = offer(shown.job, shown.facts.connecting)
    assert found is not None
    assert not {"T5", "T6"} & {y for x, y in found.untold if x == "T4"}
    assert shown.next is not None
    assert shown.next.act == "step"
    ends = list(shown.next.ends)
    right: Body = {"kind": "step-ohm", "between": ends, "value": f"{found.ohm} Ω"}
    wrong: Body = {"kind": "step-ohm", "between": ends, "value": f"{1.4 * found.ohm} Ω"}
    assert nine(T, *joined, right).next.code.startswith("cut-")  # type: ignore[union-attr]
    again = nine(T, *joined, wrong).next
    assert again is not None
    assert again.ends == tuple(ends[::-1])
    gone = nine(T, *joined, wrong, wrong)  # twice: the marks are no ground any more
    assert gone.facts.connecting.plan is None
    assert gone.next is not None
    assert gone.next.station == "leads"


@pytest.mark.parametrize(
    ("lead_ohm", "coil", "read", "verdict"),
    [
        (None, 2.1, "1.40", "good"),
        (None, 2.1, "1.50", "unproven"),  # 0.3 Ω of leads in every reading
        (None, 2.1, "1.00", "hold"),
        (0.0, 0.655, "0.437", "good"),
        (0.0, 0.655, "0.503", "hold"),
        (0.2, 0.655, "0.503", "good"),
    ],
)
def test_what_is_expected_is_what_this_meter_shows(
    lead_ohm: float | None, coil: float, read: str, verdict: str
) -> None:
    """Three coils in delta read 2/3 of one; unknown test leads r add r/3 to that, and no more."""
    coils = (("A", "D"), ("B", "E"), ("C", "F"))
    pairs = [(a, b) for k, a in enumerate("ABCDEF") for b in "ABCDEF"[k + 1 :]]
    log: list[Body] = [
        *ticket(name="Press", complaint="nothing"),
        *plate(phases="3", volt="230/400", hertz="50", amp="60/35"),
        *([] if lead_ohm is None else [{"kind": "meter", "lead_ohm": lead_ohm}]),
        {
            "kind": "leads",
            "leads": [{"tag": t, "marking": f"T{k}"} for k, t in enumerate("ABCDEF", 1)],
        },
        *(
            {
                "kind": "reading",
                "reading": {
                    "kind": "resistance",
                    "between": list(p),
                    "value": f"{coil}" if p in coils else "open",
                },
            }
            for p in pairs
        ),
        *({"kind": "role-known", "tag": t, "role": f"T{k}"} for k, t in enumerate("ABCDEF", 1)),
        {"kind": "supply", "volt": 230, "hertz": 50, "phases": 3},
        {"kind": "proved-dead", "volt": 0.1},
        *(
            {"kind": "joint", "joint": j}
            for j in (["L1", "A", "F"], ["L2", "B", "D"], ["L3", "C", "E"])
        ),
        *({"kind": "line-ohm", "lines": list(p), "value": f"{read} Ω"} for p in PAIRS),
    ]
    found = {f.code: f for f in judged(*log).findings}
    assert found["line-ohms"].verdict == verdict
    if verdict == "unproven":
        assert "test-leads" in {s.code for s in judged(*log).steps}


MODEL = re.compile(r"\b(?:main|aux|field|armature|line|coil)-\d\b|\bfield-tap\b")


@pytest.mark.parametrize("motor", ["cap-start-weak", "universal-tapped"])
def test_no_name_of_the_model_is_read_or_printed(motor: str) -> None:
    """Every step, finding, drawing and sheet of a whole job, from the counter to the signature."""

    class Reader(CoreBench):
        def judged(self) -> Judgement:
            found = super().judged()
            words.extend(w for s in found.steps for w in (s.title, s.why))
            words.extend(w for f in found.findings for w in (f.subject, f.why))
            return found

    words: list[str] = []
    played = play(World(cast_motor(motor), 1), 1, Reader(Settings()))
    judged = played.judged
    assert judged is not None
    plan = judged.facts.connecting.plan
    drawn = [winding_now(judged), *([hookup_drawing(judged, plan)] if plan is not None else [])]
    words += [s.text for d in drawn if d is not None for s in d.shapes if isinstance(s, Words)]
    for customer in (False, True):
        pages = PdfReader(io.BytesIO(sheet(1, judged, customer=customer))).pages
        words += [p.extract_text() for p in pages]
    assert len(words) > 1000
    assert sorted({w for w in words if MODEL.search(w)}) == []


def test_a_three_phase_motor_on_one_phase_hears_what_would_run_it() -> None:
    """70 µF a kW at 230 V 50 Hz (Steinmetz circuit): 1.1 kW wants 77 µF."""
    log = [
        *ticket(name="Saw", complaint="nothing"),
        *plate(phases="3", volt="230/400", hertz="50", power="1.1 kW"),
    ]
    log += [
        {
            "kind": "leads",
            "leads": [{"tag": t, "marking": f"T{k}"} for k, t in enumerate("ABCDEF", 1)],
        }
    ]
    log += [
        {
            "kind": "found-hookup",
            "joints": [["L1", "A", "F"], ["L2", "B", "D"], ["L3", "C", "E"]],
            "ran": "yes",
        }
    ]
    one = {"kind": "supply", "volt": 230, "hertz": 50, "phases": 1}
    why = judged(*log, one).facts.connecting.why
    assert "will not start on this" in why
    assert "run capacitor of 77 µF" in why
