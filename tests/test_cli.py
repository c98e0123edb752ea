"""Headless verbs: what they answer, how they end, what they refuse; and that they never import Qt."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from careful_coil.cli import VERBS
from tests.headless import CONNECT, demo_job, run, write

READINGS: dict[str, Any] = {
    "format": "careful-coil/readings",
    "version": 1,
    "leads": ["A", "B", "C"],
    "meter": {"accuracy_percent": 0.5, "resolution_ohm": 0.01, "lead_ohm": 0.2},
    "readings": [
        {"kind": "resistance", "between": ["B", "C"], "value": 3.59},
        {"kind": "switch", "between": ["A", "B"], "value": "opens"},
        {"kind": "resistance", "between": ["A", "B"], "value": 8.94},
        {"kind": "switch", "between": ["B", "C"], "value": "opens"},
        {"kind": "resistance", "between": ["A", "C"], "value": "5.55 Ω"},
    ],
}
NINE = {
    **dict.fromkeys(("AD", "BE", "CF"), 1.0),
    "GH": 1.8,
    "GJ": 1.8,
    "HJ": 3.4,  # through a bad clip
    **dict.fromkeys(("AB", "AC", "BC", "AG", "BG", "CG"), "open"),
}
CONTRADICTORY = READINGS | {
    "leads": list("ABCDEFGHJ"),
    "readings": [{"kind": "resistance", "between": list(p), "value": v} for p, v in NINE.items()],
}
NEXT_KEYS = {
    "resistance": {"kind", "between", "gain_bits", "why"},
    "switch": {"kind", "between", "gain_bits", "why"},
    "kick": {"kind", "source", "sense", "gain_bits", "why"},
}


def stream(text: str, *arguments: str) -> tuple[int, list[str], str]:
    done = subprocess.run(
        [sys.executable, "-c", "from careful_coil.app import main; main()", *arguments],
        input=text.encode(),
        capture_output=True,
        check=False,
    )
    err = done.stderr.decode()
    assert "Traceback" not in err
    return done.returncode, done.stdout.decode().splitlines(), err


def test_identify_answers_as_the_contract_says(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    status, out, _ = run(capsys, "identify", "--json", write(tmp_path, READINGS))
    answer = json.loads(out)
    assert status == 0
    assert (answer["format"], answer["version"]) == ("careful-coil/identification", 1)
    assert answer["status"] == "settled"
    best = answer["candidates"][0]
    assert best["roles"] == {"A": "run", "B": "start", "C": "common"}
    assert best["groups"] == [["A", "B", "C"]]
    assert answer["never_energise"] == [["A", "B"], ["B", "C"]]
    assert answer["suspect"] == []
    assert answer["next"] is None
    odds = [c["probability"] for c in answer["candidates"]]
    assert odds == sorted(odds, reverse=True)


def test_identify_in_words_says_the_same(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    status, out, _ = run(capsys, "identify", write(tmp_path, READINGS))
    assert status == 0
    assert "B = start (proven)" in out
    assert "never line voltage: A to B" in out


def test_bad_news_ends_with_one(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    status, out, _ = run(capsys, "identify", "--json", write(tmp_path, CONTRADICTORY))
    answer = json.loads(out)
    assert status == 1
    assert answer["status"] == "contradictory"
    assert [s["reading"] for s in answer["suspect"]] == [5]
    low, high = answer["suspect"][0]["expected_ohm"]
    assert low < 1.8 < high < 2.0


@pytest.mark.parametrize("count", range(6))
def test_next_has_exactly_the_keys_of_its_kind(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, count: int
) -> None:
    part = CONTRADICTORY | {"readings": CONTRADICTORY["readings"][6 : 6 + count]}
    _, out, _ = run(capsys, "identify", "--json", write(tmp_path, part))
    step = json.loads(out)["next"]
    assert set(step) == NEXT_KEYS[step["kind"]]


def test_several_files_are_answered_in_order_and_a_bad_one_does_not_stop_the_rest(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    good = write(tmp_path, READINGS, "good.json")
    bad = write(tmp_path, "{", "bad.json")
    status, out, err = run(capsys, "identify", "--json", bad, good, str(tmp_path / "none.json"))
    formats = [json.loads(line)["format"] for line in out.splitlines()]
    assert status == 2
    assert formats == [
        "careful-coil/refusal",
        "careful-coil/identification",
        "careful-coil/refusal",
    ]
    assert "bad.json" in err
    assert "none.json" in err


def test_a_stream_answers_line_by_line_before_the_next_is_read() -> None:
    process = subprocess.Popen(
        [
            sys.executable,
            "-c",
            "from careful_coil.app import main; main()",
            "identify",
            "-",
            "--json",
        ],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
    )
    assert process.stdin is not None
    assert process.stdout is not None
    readings: list[Any] = []
    for _ in range(3):
        process.stdin.write(json.dumps(READINGS | {"readings": readings}) + "\n")
        process.stdin.flush()
        answer = json.loads(process.stdout.readline())
        step = answer["next"]
        readings.append(
            {"kind": "resistance", "between": step["between"], "value": 4.0 + len(readings)}
        )
    process.stdin.write("nonsense\n")
    process.stdin.close()
    refusal = json.loads(process.stdout.readline())
    process.stdout.close()
    assert refusal["format"] == "careful-coil/refusal"
    assert process.wait() == 2


def test_a_stream_ends_with_the_worst_of_all_lines() -> None:
    lines = "\n".join((json.dumps(READINGS), json.dumps(CONTRADICTORY), "", json.dumps(READINGS)))
    status, out, _ = stream(lines, "identify", "-", "--json")
    assert status == 1
    assert len(out) == 3


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"format": "careful-coil/readings2"}, "careful-coil/readings2"),
        ({"version": 2}, "2"),
        ({"version": True}, "True"),
        ({"leads": []}, "leads"),
        ({"leads": ["A", "A"]}, "twice"),
        ({"leads": "ABC"}, "leads"),
        ({"readings": {}}, "readings"),
        ({"readings": [{"kind": "dance"}]}, "dance"),
        ({"readings": [{"kind": "resistance", "between": ["A"], "value": 3}]}, "between"),
        ({"readings": [{"kind": "resistance", "between": ["A", "Z"], "value": 3}]}, "lead Z"),
        ({"readings": [{"kind": "resistance", "between": ["A", "B"], "value": "1,200"}]}, "1,200"),
        ({"readings": [{"kind": "resistance", "between": ["A", "B"], "value": "12 V"}]}, "12 V"),
        ({"readings": [{"kind": "resistance", "between": ["A", "B"], "value": None}]}, "value"),
        ({"readings": [{"kind": "resistance", "between": ["A", "B"], "value": -3}]}, "-3"),
        (
            {
                "readings": [
                    {"kind": "kick", "source": ["A", "B"], "sense": ["A", "C"], "value": "sideways"}
                ]
            },
            "sideways",
        ),
        ({"meter": {"accuracy_percent": -1}}, "accuracy_percent"),
        ({"temperature_c": "warm"}, "temperature_c"),
    ],
)
def test_a_broken_document_is_refused_with_what_was_read(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, change: dict[str, Any], words: str
) -> None:
    status, out, err = run(capsys, "identify", write(tmp_path, READINGS | change))
    assert status == 2
    assert words in err
    assert "Wanted" in err
    assert out == ""


@pytest.mark.parametrize("missing", ["leads", "readings", "format", "version"])
def test_a_missing_key_is_named(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, missing: str
) -> None:
    part = {k: v for k, v in READINGS.items() if k != missing}
    status, _, err = run(capsys, "identify", write(tmp_path, part))
    assert status == 2
    assert missing in err


@pytest.mark.parametrize(
    "text",
    [
        "",
        "[]",
        "3",
        "null",
        "{",
        '{"a": NaN}',
        "[" * 100000,
        "\x00",
        '{"format": "careful-coil/readings"',
    ],
)
def test_what_is_no_document_is_refused(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, text: str
) -> None:
    status, out, err = run(capsys, "identify", write(tmp_path, text))
    assert (status, out) == (2, "")
    assert "Wanted" in err


def test_bytes_that_are_no_text_are_refused(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    (tmp_path / "x").write_bytes(b"\xff\xfe\x00")
    status, _, err = run(capsys, "identify", str(tmp_path / "x"), str(tmp_path))
    assert status == 2
    assert "UTF-8" in err
    assert "directory" in err


def test_a_byte_order_mark_and_unknown_keys_do_no_harm(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    text = "\ufeff" + json.dumps(READINGS | {"mood": "good"})
    status, _, _ = run(capsys, "identify", write(tmp_path, text))
    assert status == 0


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        ((*CONNECT, "--supply", "120"), "off the nearest rating"),
        ((*CONNECT, "--supply", "x"), "volts"),
        ((*CONNECT, "--supply", "0"), "above nothing"),
        ((*CONNECT, "--supply", "460", "--hertz", "5O"), "hertz"),
        ((*CONNECT, "--supply", "460", "--coil-ohm", "open"), "above nothing"),
        ((*CONNECT, "--supply", "460", "--start", "wye-delta"), "no wye-delta start"),
        ((*CONNECT, "--supply", "460", "--start", "backwards"), "backwards"),
        ((*CONNECT, "--supply", "460", "--from", "x.json"), "a file that can be read"),
        ((*CONNECT, "--supply", "460", "--rotation", "cw"), "which end"),
        ((*CONNECT[:3], "--rated", "460/230", "--supply", "460"), "the lower first"),
        ((*CONNECT[:3], "--rated", "460", "--supply", "460"), "Give both ratings"),
        (
            (
                "connect",
                "--arrangement",
                "three-phase-40-lead",
                "--rated",
                "230/460",
                "--supply",
                "460",
            ),
            "three-phase-6-lead",
        ),
        (
            (
                "connect",
                "--arrangement",
                "single-phase-3-lead",
                "--rated",
                "230/460",
                "--supply",
                "460",
            ),
            "one connection",
        ),
        (("connect",), "--arrangement"),
        (("hookup", "x.json"), "a file that can be read"),
        (("hookup",), "FILE"),
        (("sum", "slip"), "slip needs more"),
        (("sum",), "sum slip hertz=50"),
        (("sum", "slip", "hertz"), "key=value"),
        (("sum", "slip", "hertz=50", "hertz=60"), "once"),
        (("sum", "haunt", "a=1"), "power-factor"),
        (("export", "12"), "-o"),
        (("export", "x", "-o", "y.ccjob"), "such as 214"),
        (("export", "12", "-o", "y.ccjob", "--shop", "/nowhere/at/all"), "There is no shop"),
        (("import", "nowhere.ccjob"), "written by export"),
        (("import",), "FILE"),
        (("dance",), "It knows"),
        (("identify",), "FILE"),
        (("identify", "--loud", "x"), "--loud"),
        (("report", "x.json"), "-o"),
    ],
)
def test_what_cannot_be_done_is_said_in_one_line(
    capsys: pytest.CaptureFixture[str], arguments: tuple[str, ...], words: str
) -> None:
    status, out, err = run(capsys, *arguments)
    assert status == 2
    assert words in err
    assert err.count("\n") == 1
    assert out == ""


def test_headless_verbs_never_import_qt() -> None:
    code = (
        "import sys; from careful_coil.app import main\n"
        "try: main()\n"
        "except SystemExit: print(sorted(m for m in sys.modules if 'PySide' in m or m.endswith('.desk')))"
    )
    done = subprocess.run(
        [sys.executable, "-c", code, "judge", demo_job("theatre")],
        capture_output=True,
        text=True,
        check=True,
    )
    assert done.stdout.splitlines()[-1] == "[]"


def test_help_is_there(capsys: pytest.CaptureFixture[str]) -> None:
    status, out, _ = run(capsys, "--help")
    assert status == 0
    assert all(verb in out for verb in VERBS)
