"""The verb sum."""

import json

import pytest

from tests.headless import run


def test_sums_in_words_and_json(capsys: pytest.CaptureFixture[str]) -> None:
    line = ("sum", "locked-rotor", "letter=G", "hp=1 1/2", "volt=230", "phases=3")
    status, out, _ = run(capsys, *line, "--json")
    answer = json.loads(out)
    assert status == 0
    assert answer["format"] == "careful-coil/sum"
    assert answer["inputs"] == {"letter": "G", "hp": 1.5, "volt": 230.0, "phases": 3}
    assert answer["results"]["amp_low"] == pytest.approx(21.086, abs=1e-3)
    assert answer["source"] == "NEMA MG 1, 10.37.2"
    status, out, _ = run(capsys, *line)
    assert "Amp low: 21.0858 A" in out
    assert "Source: NEMA MG 1" in out
    status, out, _ = run(capsys, "sum", "--list")
    assert [row.split()[0] for row in out.splitlines()] == [
        "slip",
        "locked-rotor",
        "power-factor",
        "flux-and-torque",
        "resistance-at",
        "balance",
        "phases-from-lines",
        "insulation-at-40",
        "insulation-minimum",
        "polarization",
        "temperature-rise",
        "capacitor-from-amps",
        "capacitor-discharge",
        "capacitors-together",
        "start-capacitor",
        "stall-heating",
        "bearing",
        "wire",
        "winding-factor",
        "winding-ohms",
        "rewind-turns",
        "core-loop",
        "supply-unbalance",
        "supply-name",
        "overload",
    ]
