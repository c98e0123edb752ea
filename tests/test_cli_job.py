"""The verbs judge and report, on jobs of the demo shop."""

import json
from pathlib import Path

import pytest
from pypdf import PdfReader

from tests.headless import demo_job, run, write


@pytest.mark.parametrize(
    ("name", "status"), [("boatyard", 1), ("theatre", 1), ("cider-mill", 0), ("bakery", 0)]
)
def test_judge_gives_every_finding_and_what_comes_next(
    capsys: pytest.CaptureFixture[str], name: str, status: int
) -> None:
    done, out, _ = run(capsys, "judge", "--json", demo_job(name))
    answer = json.loads(out)
    assert done == status
    assert answer["format"] == "careful-coil/findings"
    assert set(answer["findings"][0]) == {
        "code",
        "verdict",
        "subject",
        "figure",
        "limit",
        "unit",
        "why",
        "source",
        "part",
    }
    assert answer["next"]["title"]
    assert answer["next"]["asks"][0]["quantity"]
    assert answer["released"] is False
    assert all(set(g) == {"code", "verdict", "subject", "waived_by"} for g in answer["gate"])
    assert any(f["verdict"] == "hold" for f in answer["findings"]) == (status == 1)


def test_judge_takes_a_shops_limits(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    strict = write(tmp_path, {"insulation_minimum": 1000})
    status, out, _ = run(capsys, "judge", "--settings", strict, demo_job("cider-mill"))
    assert status == 1
    assert "1000 MΩ is wanted" in out
    wrong = write(tmp_path, {"insulation": 1000}, "wrong.json")
    status, _, err = run(capsys, "judge", "--settings", wrong, demo_job("cider-mill"))
    assert status == 2
    assert "insulation_minimum" in err


def test_report_writes_a_sheet_and_says_so(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    file = tmp_path / "sheet.pdf"
    status, out, _ = run(capsys, "report", demo_job("cider-mill"), "-o", str(file), "--json")
    answer = json.loads(out)
    assert status == 0
    assert (answer["format"], answer["verb"], answer["file"]) == (
        "careful-coil/done",
        "report",
        str(file),
    )
    assert len(PdfReader(file).pages) in (1, 2, 3)


@pytest.mark.parametrize("target", ["no/such/folder/x.pdf", "."])
def test_a_sheet_that_cannot_be_written_leaves_nothing_half_done(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, target: str
) -> None:
    status, _, err = run(capsys, "report", demo_job("bakery"), "-o", str(tmp_path / target))
    assert status == 2
    assert "not written" in err
    assert list(tmp_path.iterdir()) == []


CURVE = "time_s,megohm\n15,120\n30,180\n60,260\n600,700\n"


def test_a_tester_s_curve_is_judged_on_its_own(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    file = tmp_path / "curve.csv"
    file.write_text(CURVE, encoding="utf-8")
    status, out, _ = run(capsys, "judge", str(file), "--at-c", "21", "--json")
    found = {f["code"]: f for f in json.loads(out)["findings"]}
    assert status == 0  # the charge left is a thing to do, nothing is bad
    assert found["insulation"]["figure"] == pytest.approx(260 * 0.7733, rel=1e-3)
    assert found["insulation-index"]["figure"] == pytest.approx(700 / 260)
    assert found["winding-charged"]["figure"] == 2400


@pytest.mark.parametrize(
    ("text", "more", "words"),
    [
        (CURVE, (), "--at-c"),
        (CURVE, ("--at-c", "999"), "200"),
        ("time_s,megohm\n15,120\n", ("--at-c", "20"), "60 s"),
        ("time_s,megohm\n60,wet\n", ("--at-c", "20"), "line 2"),
        ("time_s,megohm\n60,5\n60,6\n", ("--at-c", "20"), "one reading at a time"),
    ],
)
def test_a_curve_that_cannot_be_judged_is_refused(
    capsys: pytest.CaptureFixture[str],
    tmp_path: Path,
    text: str,
    more: tuple[str, ...],
    words: str,
) -> None:
    file = tmp_path / "curve.csv"
    file.write_text(text, encoding="utf-8")
    status, _, err = run(capsys, "judge", str(file), *more)
    assert status == 2
    assert words in err


def forged(tmp_path: Path, name: str, *bodies: dict[str, object]) -> str:
    """A job document with entries added that no window would have let through."""
    job = json.loads(Path(demo_job(name)).read_text(encoding="utf-8"))
    for k, body in enumerate(bodies):
        job["entries"].append(
            {
                "id": f"f{k}",
                "at": "2026-03-05T09:00:00Z",
                "by": "AB",
                "station": "release",
                "body": body,
            }
        )
    return write(tmp_path, job)


SIGNED = {"kind": "released", "signed": "AB"}


@pytest.mark.parametrize(
    "more",
    [
        (SIGNED,),
        ({"kind": "waived", "code": "insulation", "reason": "dry soon", "second": "CD"}, SIGNED),
        ({"kind": "attested", "item": "test-run", "words": "ran"}, SIGNED),
        (SIGNED, {"kind": "let-go", "how": "scrap", "reason": "burnt"}),
    ],
    ids=["signed", "waived", "on a word", "let go"],
)
def test_no_document_releases_a_motor_with_a_hold(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, more: tuple[dict[str, object], ...]
) -> None:
    file = forged(tmp_path, "boatyard", *more)
    status, out, _ = run(capsys, "judge", "--json", file)
    assert status == 1
    assert any(f["verdict"] == "hold" for f in json.loads(out)["findings"])
    sheet = tmp_path / "sheet.pdf"
    run(capsys, "report", file, "-o", str(sheet))
    words = " ".join(" ".join(p.extract_text() for p in PdfReader(sheet).pages).split())
    assert "NOT RELEASED" in words or "SCRAP: DO NOT CONNECT" in words
    assert " · released" not in words


def test_a_job_that_is_whole_says_released_once_it_is_signed(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    file = forged(tmp_path, "cider-mill", SIGNED)
    sheet = tmp_path / "sheet.pdf"
    assert run(capsys, "report", file, "-o", str(sheet))[0] == 0
    words = " ".join(" ".join(p.extract_text() for p in PdfReader(sheet).pages).split())
    assert "· released" in words
    assert "At the machine, to read and to set" in words
    assert "Volts at the terminals, under load: 360 to 440 V" in words
