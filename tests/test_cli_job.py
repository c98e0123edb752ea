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
    }
    assert answer["next"]["title"]
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
    assert len(PdfReader(file).pages) in (1, 2)


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
    assert status == 1  # the winding is still charged
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
