"""The job sheet: what it says, how long it gets, that it embeds our face."""

import io
from pathlib import Path

import pytest
from pypdf import PdfReader

from careful_coil.core.job import fold
from careful_coil.core.ledger import judge
from careful_coil.core.ledger.site import field_sheet
from careful_coil.core.settings import Settings
from careful_coil.demo import demo_jobs
from careful_coil.report.field_sheet import field_sheet_paper
from careful_coil.report.page import CannotWrite
from careful_coil.report.sheet import sheet, write_sheet
from tests.core.logs import READY, judged, leads, ticket


def words_of(data: bytes) -> str:
    return " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(data)).pages).split())


@pytest.mark.parametrize("job", demo_jobs(), ids=lambda j: j.id)
def test_every_demo_job_fits_on_few_pages(job: object) -> None:
    from careful_coil.documents.job import JobDocument

    assert isinstance(job, JobDocument)
    data = sheet(job.number, judge(fold(job.entries), Settings()))
    pages = PdfReader(io.BytesIO(data)).pages
    assert len(pages) in (2, 3)
    first = pages[0].extract_text()
    for head in ("Hookup", "With the motor", "Sign"):  # all that is to do on one page
        assert head in first
    for head in ("Insulation", "Findings"):
        assert f"{head}\n" not in first
    assert [round(float(x)) for x in pages[0].mediabox[2:]] == [595, 842]
    catalog = PdfReader(io.BytesIO(data)).trailer["/Root"]
    assert catalog["/Lang"] == "en"
    assert f"Job {job.number}" in words_of(data)


def test_a_ready_motor_has_all_of_it_on_its_sheet() -> None:
    words = words_of(sheet(12, judged(*READY, {"kind": "released", "signed": "AB"})))
    for part in (
        "Mill",
        "released",
        "230/400",
        "proven by readings",
        "A–D 2.60 Ω",
        "480 MΩ at 20 °C",
        "For 400 V, 50 Hz, 3-phase (measured): wye",
        "D (T4) – E (T5) – F (T6) made, pulled",
        "L1 to L2: 5.21 Ω expected, read 5.20 Ω",
        "GOOD: Earth bond good",
        "The winding is well insulated from the frame. (183 MΩ, limit 5 MΩ)",
        "A D to the frame, the other windings earthed: 480 MΩ",
        "prove dead",
        "AB 2026-03-01",
    ):
        assert part in words, part


def test_a_motor_that_may_not_go_says_so_in_large() -> None:
    words = words_of(sheet(12, judged(*READY[:-1])))
    assert "NOT RELEASED" in words
    assert "Signature: not released" in words


def test_start_gear_has_its_own_part_of_the_sheet() -> None:
    entries = next(j.entries for j in demo_jobs() if j.id == "demo-chandlery")
    words = words_of(sheet(223, judge(fold(entries), Settings())))
    for part in (
        "Start gear",
        "UNPROVEN: Cause not found",
        "HOLD: Capacitor C1 bad. 121 µF, 189 to 227 µF wanted",
        "C1: 189-227 µF 250 V, start, measured 121 µF, 0.3 V DC left on it.",
        "1 to 2 at rest 0.120 Ω (before 1.90 Ω)",
        "Dress S1 not finished",
    ):
        assert part in words
    without = words_of(sheet(12, judged()))
    assert "C1:" not in without
    assert "Dress S1" not in without


def test_mechanics_has_its_own_part_of_the_sheet() -> None:
    jobs = {j.id: j for j in demo_jobs()}
    churn = words_of(sheet(225, judge(fold(jobs["demo-dairy"].entries), Settings())))
    for part in (
        "Shaft, fan, cord: by hand binding, runs on 1.1 s, end float 0.35 mm, starts turning at 52 V",
        "Bearing, drive end: number 62?4 ZZ, bore 20.02 mm, outside 47 mm, width 14.05 mm, runs dry",
        "Temporary T1: clip lead across the protector; NOT CLEARED.",
        "To order: 1 × 6204-ZZ, drive end.",
    ):
        assert part in churn
    sander = words_of(sheet(222, judge(fold(jobs["demo-sander"].entries), Settings())))
    assert "24 bars, each to the next:" in sander
    assert "HOLD: Bars 9 and 10: open coil" in sander


def test_an_empty_job_still_gives_a_sheet() -> None:
    assert "Motor without a name" in words_of(sheet(12, judged()))


def test_odd_names_and_long_complaints_do_no_harm() -> None:
    log = [*ticket(name="<b>Mühle & Söhne</b>", complaint="it hums " * 200), leads("A", "B")]
    words = words_of(sheet(12, judged(*log)))
    assert "<b>Mühle & Söhne</b>" in words
    assert words.count("it hums") >= 150


def test_the_face_is_embedded() -> None:
    page = PdfReader(io.BytesIO(sheet(12, judged(*READY)))).pages[0]
    fonts = page["/Resources"]["/Font"]  # type: ignore[index]
    names = {str(fonts[f]["/BaseFont"]) for f in fonts}
    assert any("B612" in n for n in names)


def test_the_same_job_gives_the_same_bytes() -> None:
    found = judged(*READY)
    assert sheet(12, found) == sheet(12, found)


def test_a_sheet_is_written_whole_or_not_at_all(tmp_path: Path) -> None:
    file = tmp_path / "a.pdf"
    write_sheet(file, 12, judged(*READY))
    assert file.read_bytes().startswith(b"%PDF")
    assert [f.name for f in tmp_path.iterdir()] == ["a.pdf"]
    with pytest.raises(CannotWrite, match="not written"):
        write_sheet(tmp_path / "none" / "a.pdf", 12, judged(*READY))


def test_a_run_made_here_stands_on_the_sheet_with_its_steps() -> None:
    run = [
        {"kind": "trial-begun", "covers": "on"},
        {
            "kind": "trial-step",
            "volt": [400],
            "amp": [2.6, 2.6, 2.7],
            "watt": 180,
            "rpm": 1497,
            "turns": "smooth",
        },
        {"kind": "trial-start", "volt": 400, "outcome": "turns", "seconds": 0.8},
        {"kind": "trial-heard", "what": "sound", "text": "quiet"},
        {"kind": "trial-ended", "abandoned": "clamp came loose"},
    ]
    words = words_of(sheet(12, judged(*READY, *run)))
    for part in (
        "covers on, without load, abandoned: clamp came loose",
        "400 V, 2.6/2.6/2.7 A, 180 W, 1497 rpm, smooth.",
        "Start at 400 V: turns after 0.8 s.",
        "sound quiet.",
    ):
        assert part in words, part


def test_the_customers_sheet_leaves_the_shops_own_figures_out() -> None:
    log = judged(*READY, {"kind": "released", "signed": "AB"})
    shop, customer = words_of(sheet(12, log)), words_of(sheet(12, log, customer=True))
    for part in ("A–D 2.60 Ω", "Odds of the winding"):
        assert part in shop
        assert part not in customer
    for part in ("released", "For 400 V", "prove dead", "AB 2026-03-01"):
        assert part in customer


def test_one_that_leaves_unrepaired_says_so_in_large_and_why() -> None:
    let_go = {"kind": "let-go", "how": "unrepaired", "reason": "costs more than a new one"}
    words = words_of(sheet(12, judged(*READY, let_go)))
    assert "RETURNED UNREPAIRED: DO NOT CONNECT. costs more than a new one" in words
    assert "Signature: not released" in words


def test_two_runs_are_told_with_their_losses_and_what_changed() -> None:
    def run(watt: float, covers: str) -> list[dict[str, object]]:
        steps = [
            {
                "kind": "trial-step",
                "volt": [v],
                "amp": [2.6 * v / 400],
                "watt": watt + 60 * (v / 400) ** 2,
                "rpm": 1495,
                "celsius": c,
                "turns": "smooth",
            }
            for v, c in ((100, 22), (200, 30), (300, 35), (400, 38))
        ]
        begun = {"kind": "trial-begun", "covers": covers, "since": "bearings" if watt < 80 else ""}
        return [begun, {"kind": "trial-ready", "items": ["clamp"]}, *steps, {"kind": "trial-ended"}]

    words = words_of(sheet(12, judged(*READY, *run(90, "off"), *run(40, "on"))))
    for part in (
        "At 400 V: friction and windage",
        "It ends near",
        "Between them: bearings.",
        "watt: 150 → 100 W, −33 %: more than two readings of one thing differ.",
        "At the machine, to read and to set",
        "1 Volts at the terminals, under load: 360 to 440 V",
    ):
        assert part in words, part


def test_the_field_sheet_has_every_line_with_its_number_and_what_is_on_record() -> None:
    found = judged(*ticket(customer="Mill lane 4"), *READY, {"kind": "on-site"})
    words = words_of(field_sheet_paper(12, found))
    lines = field_sheet(found.job, found.facts.connecting, found.facts.installer)
    for k, line in enumerate(lines, 1):
        assert f"{k} {line.title}" in words
        assert line.done in words or len(line.done) > 40
        assert bool(line.done) or f"such as {line.hint}" in words
    assert "Mill lane 4" in words
    assert "prove dead" in words
