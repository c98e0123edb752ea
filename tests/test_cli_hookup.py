"""The verbs hookup and connect: verdicts, slips, states, steps, and what is refused."""

import json
from pathlib import Path

import pytest

from careful_coil.cli_connect import hookup_answer
from tests.headless import CONNECT, run

HOOKUP: dict[str, object] = {
    "format": "careful-coil/hookup",
    "version": 1,
    "arrangement": "three-phase-9-lead-wye",
    "coil_ohm": 1.7,
    "rated": {"volt": [230.0, 460.0], "hertz": 60, "rpm": 1755, "amp": [18.0, 9.0]},
    "supply": {"phases": 3, "volt": 460.0, "hertz": 60},
    "joints": [["L1", "T1"], ["L2", "T2"], ["L3", "T3"], ["T4", "T7"], ["T5", "T8"], ["T6", "T9"]],
}
TURNED = [["L1", "T4"], ["L2", "T2"], ["L3", "T3"], ["T1", "T7"], ["T5", "T8"], ["T6", "T9"]]


def hookup_file(folder: Path, **change: object) -> str:
    path = folder / "hookup.json"
    path.write_text(json.dumps(HOOKUP | change), encoding="utf-8")
    return str(path)


def test_a_sound_hookup_is_done(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    status, out, err = run(capsys, "hookup", "--json", hookup_file(tmp_path))
    answer = json.loads(out)
    assert (status, err, out.count("\n")) == (0, "", 1)
    assert answer["format"] == "careful-coil/hookup-check"
    assert answer["verdict"] == "sound"
    assert answer["findings"] == []
    assert answer["rotation_reversed"] is False
    assert answer["field"] == "forward"
    assert answer["line_ohm"] == pytest.approx({"L1-L2": 6.8, "L1-L3": 6.8, "L2-L3": 6.8})
    assert set(answer["coil_volt"]) == set(answer["coil_rated_volt"])
    assert "states" not in answer
    assert "slips" not in answer


def test_a_reversed_coil_is_bad_news_that_ohms_do_not_show(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    status, out, _ = run(capsys, "hookup", "--json", hookup_file(tmp_path, joints=TURNED))
    answer = json.loads(out)
    assert status == 1
    assert answer["verdict"] in ("wrong", "dangerous")
    first = answer["findings"][0]
    assert (first["code"], first["coils"]) == ("coil-reversed", ["T1-T4"])
    assert {f["shown_by_ohms"] for f in answer["findings"]} == {False}


def test_a_line_that_is_joined_to_nothing_reads_open(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    joints = [["L1", "T1"], ["L2", "T2"], ["T4", "T7"], ["T5", "T8"], ["T6", "T9"]]
    status, out, _ = run(capsys, "hookup", "--json", hookup_file(tmp_path, joints=joints))
    answer = json.loads(out)
    assert (status, answer["verdict"]) == (1, "wrong")
    assert answer["line_ohm"]["L1-L3"] == "open"
    assert answer["line_ohm"]["L1-L2"] == pytest.approx(6.8)
    assert answer["line_amp_ratio"]["L3"] == 0
    assert {"single-phased", "lead-unused"} <= {f["code"] for f in answer["findings"]}


def test_a_short_is_answered_with_null_amps(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    status, out, _ = run(
        capsys, "hookup", "--json", hookup_file(tmp_path, joints=[["L1", "L2", "T1"]])
    )
    answer = json.loads(out)
    assert (status, answer["verdict"]) == (1, "dangerous")
    assert answer["line_amp_ratio"]["L1"] is None
    assert "Infinity" not in out


def test_hookups_in_words(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    status, out, _ = run(capsys, "hookup", "--slips", hookup_file(tmp_path))
    assert status == 0
    assert "6 leave the line ohms as they are" in out
    assert "Cheapest: run." in out
    status, out, _ = run(capsys, "hookup", hookup_file(tmp_path, joints=TURNED))
    assert status == 1
    assert "Line ohms cannot show it." in out
    assert "right: high volts" in out


def test_slips_are_given_where_asked_for(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    _, out, _ = run(capsys, "hookup", "--slips", "--json", hookup_file(tmp_path))
    slips = json.loads(out)["slips"]
    turned = next(s for s in slips if s["text"].startswith("Coil T1-T4 is reversed"))
    assert (turned["shown_by_ohms"], turned["line_ohm"]) == (False, None)
    assert (turned["shown_by_run"], turned["shown_by_kick"], turned["cheapest"]) == (
        True,
        True,
        "run",
    )
    assert turned["amp_ratio"]["L1"] == pytest.approx(1.77, abs=0.02)
    opened = next(s for s in slips if s["text"].startswith("The joint T4 – T7"))
    assert next(iter(opened["line_ohm"].values())) == ["open", pytest.approx(6.8)]


def test_hookups_with_devices_have_states(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    change: dict[str, object] = {
        "arrangement": "single-phase-3-lead",
        "coil_ohm": {"run-common": 3.0, "start-common": 7.0},
        "rated": {"volt": 230, "hertz": 50, "rpm": 1400},
        "supply": {"phases": 1, "volt": "230 V", "hertz": 50},
        "devices": [{"name": "C1", "kind": "capacitor-run", "microfarad": 25}],
        "joints": [["L1", "run", "C1.1"], ["C1.2", "start"], ["N", "common"]],
    }
    status, out, _ = run(capsys, "hookup", "--json", hookup_file(tmp_path, **change))
    answer = json.loads(out)
    assert (status, answer["verdict"]) == (0, "sound")
    assert [s["state"] for s in answer["states"]] == ["start", "run"]
    assert answer["line_ohm"] == pytest.approx({"L1-N": 3.0})
    assert answer["line_amp_ratio"] == pytest.approx({"L1": 1.0, "N": 1.0})
    assert answer["direction"] == "only by opening the motor"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"arrangement": "three-phase-7-lead"}, "three-phase-9-lead-wye"),
        ({"format": "careful-coil/readings"}, "careful-coil/hookup"),
        ({"version": 2}, "version 1"),
        ({"coil_ohm": -1}, "coil_ohm"),
        ({"coil_ohm": "1,200"}, "two things"),
        ({"coil_ohm": {"T1-T4": 2}}, "T2-T5"),
        ({"rated": {"volt": [460, 230]}}, "rising"),
        ({"rated": {"volt": [230, 460], "amp": [9]}}, "as many amps"),
        ({"rated": {}}, "rated.volt"),
        ({"supply": {"phases": 2, "volt": 460}}, "1 or 3"),
        ({"supply": {"phases": 3, "volt": True}}, "number"),
        ({"joints": "T1"}, "joints"),
        ({"joints": [["T1", 5]]}, "joints"),
        ({"joints": [["x" * 41, "T1"]]}, "joints"),
        ({"devices": [{"name": "C1", "kind": "banana"}]}, "banana"),
        ({"devices": [{"name": "C1", "kind": "capacitor-run"}]}, "0 µF"),
        ({"inside": "round"}, "round"),
    ],
)
def test_broken_hookups_are_refused_and_the_next_is_read(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, change: dict[str, object], words: str
) -> None:
    bad = hookup_file(tmp_path, **change)
    good = tmp_path / "good.json"
    good.write_text(json.dumps(HOOKUP), encoding="utf-8")
    status, out, err = run(capsys, "hookup", "--json", bad, str(good))
    first, second = (json.loads(line) for line in out.splitlines())
    assert status == 2
    assert first["format"] == "careful-coil/refusal"
    assert words in first["message"]
    assert words in err
    assert err.count("\n") == 1
    assert second["verdict"] == "sound"


def test_connect_gives_joints_and_line_ohms(capsys: pytest.CaptureFixture[str]) -> None:
    status, out, _ = run(capsys, *CONNECT, "--supply", "460", "--coil-ohm", "2.0", "--json")
    answer = json.loads(out)
    assert status == 0
    assert answer["format"] == "careful-coil/connection"
    assert {frozenset(j) for j in answer["joints"]} == {
        frozenset(j)
        for j in (
            ("L1", "T1"),
            ("L2", "T2"),
            ("L3", "T3"),
            ("T4", "T7"),
            ("T5", "T8"),
            ("T6", "T9"),
        )
    }
    assert answer["line_ohm"] == pytest.approx({"L1-L2": 8.0, "L1-L3": 8.0, "L2-L3": 8.0})


def test_connect_without_ohms_gives_no_line_ohms(capsys: pytest.CaptureFixture[str]) -> None:
    _, out, _ = run(capsys, *CONNECT, "--supply", "230", "--json")
    assert json.loads(out)["line_ohm"] is None


def test_connect_in_words(capsys: pytest.CaptureFixture[str]) -> None:
    status, out, _ = run(capsys, *CONNECT, "--supply", "208", "--coil-ohm", "0.5 Ω")
    assert status == 0
    assert "L1 – T1 – T7" in out
    assert "0.82" in out


def test_connect_from_a_present_hookup_gives_steps_amps_and_ohms(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    present = hookup_file(tmp_path)
    line = (*CONNECT, "--supply", "230", "--from", present)
    status, out, _ = run(capsys, *line, "--json")
    answer = json.loads(out)
    assert status == 0
    assert answer["amp"] == {"L1": 18.0, "L2": 18.0, "L3": 18.0}
    assert answer["line_ohm"]["L1-L2"] == pytest.approx(1.7)
    assert answer["coil_volt"]["T7-S"] == pytest.approx(132.8, abs=0.1)
    does = [s["do"] for s in answer["steps"]]
    assert does[0] == "prepare"
    assert does[-1] == "retag"
    assert set(answer["steps"][1]) == {"do", "leads", "joint", "loose_after", "text"}
    _, words, _ = run(capsys, *line)
    assert "1. Isolate" in words


def test_connect_from_another_motor_is_refused(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    present = hookup_file(tmp_path, arrangement="three-phase-9-lead-delta")
    status, _, err = run(capsys, *CONNECT, "--supply", "230", "--from", present)
    assert status == 2
    assert "three-phase-9-lead-wye" in err


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (
            ("three-phase-12-lead", "--rated", "230/460", "--supply", "460", "--family", "wye"),
            "series, wye",
        ),
        (
            ("three-phase-6-lead", "--rated", "400/690", "--supply", "400", "--start", "wye-delta"),
            "star:",
        ),
        (
            (
                "three-phase-two-speed-6-lead",
                "--rated",
                "400",
                "--supply",
                "400",
                "--speed",
                "high",
                "--inside",
                "constant-power",
            ),
            "L2 – T4",
        ),
        (
            (
                "single-phase-dual-voltage-8-lead",
                "--rated",
                "115/230",
                "--supply",
                "115",
                "--rotation",
                "cw",
                "--seen-from",
                "opposite",
            ),
            "L1 – T1 – T3 – T7 – T5",
        ),
    ],
)
def test_connect_takes_all_its_options(
    capsys: pytest.CaptureFixture[str], arguments: tuple[str, ...], words: str
) -> None:
    status, out, _ = run(capsys, "connect", "--arrangement", *arguments)
    assert status == 0
    assert words in out


def test_ratings_that_need_more_bring_their_amps(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    ratings = [
        {"connection": "high", "volt": [460], "amp": [9.0]},
        {"connection": "low", "volt": [208, 230], "amp": [19.8, 18.0]},
    ]
    present = hookup_file(tmp_path, ratings=ratings)
    line = ("connect", "--arrangement", "three-phase-9-lead-wye", "--rated", "208-230/460")
    for volt, amp in (("230", 18.0), ("208", 19.8), ("460", 9.0)):
        _, out, _ = run(capsys, *line, "--supply", volt, "--from", present, "--json")
        assert json.loads(out)["amp"] == dict.fromkeys(("L1", "L2", "L3"), amp)
    status, _, _ = run(capsys, "hookup", present)
    assert status == 0


def test_a_hookup_is_answered_in_the_marks_it_was_given() -> None:
    """IEC marks on the leads: coils, leads and words come back in them; mixed names are no marking."""
    told = {
        "format": "careful-coil/hookup",
        "version": 1,
        "arrangement": "three-phase-6-lead",
        "rated": {"volt": [230, 400], "hertz": 50},
        "supply": {"phases": 3, "volt": 400, "hertz": 50},
        "coil_ohm": {"U1-U2": 2.0, "V1-V2": 2.0, "W1-W2": 2.0},
        "joints": [["L1", "U1"], ["L2", "V1"], ["L3", "W1"], ["W2", "U2", "V2"]],
    }
    sound, words, bad = hookup_answer(json.dumps(told))
    assert (sound.verdict, bad) == ("sound", False)
    assert set(sound.coil_volt) == {"U1-U2", "V1-V2", "W1-W2"}
    assert "T1" not in words
    turned = told | {"joints": [["L1", "U1"], ["L2", "V2"], ["L3", "W1"], ["W2", "U2", "V1"]]}
    wrong, words, _ = hookup_answer(json.dumps(turned))
    assert any(f.coils == ["V1-V2"] for f in wrong.findings)
    assert "L1 – U1" in words
    assert not any("T" in n for f in wrong.findings for n in (*f.leads, *f.coils))
    mixed = told | {"coil_ohm": 2.0, "joints": [["L1", "U1"], ["L2", "T2"], ["L3", "W1"]]}
    assert any(f.code == "unknown-lead" for f in hookup_answer(json.dumps(mixed))[0].findings)
