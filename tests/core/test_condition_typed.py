"""Lines typed at Insulation: tests over time, cooling ohms, steps, curves, bonds."""

import contextlib
from typing import Any

import pytest
from hypothesis import given as each
from hypothesis import strategies as st

from careful_coil.core.condition.typed import (
    read_bonds,
    read_cooling,
    read_curve_csv,
    read_steps,
    read_steps_csv,
)
from careful_coil.core.errors import CoilError
from careful_coil.core.probes.kinds.insulation import read_insulation


@pytest.mark.parametrize(
    ("text", "megohm", "readings"),
    [
        ("550", 550, ()),
        ("3.1 M", 3.1, ()),
        ("320 k", 0.32, ()),
        ("2 G", 2000, ()),
        ("120/180/260", 260, ((15, 120), (30, 180), (60, 260))),
        ("1.2/1.8/2.6 G", 2600, ((15, 1200), (30, 1800), (60, 2600))),
        ("120/180/260/700", 260, ((15, 120), (30, 180), (60, 260), (600, 700))),
        ("30s 180 60s 260 10m 900", 260, ((30, 180), (60, 260), (600, 900))),
        ("1min 260 2min 300", 260, ((60, 260), (120, 300))),
        ("/".join(str(100 + k) for k in range(10)), 100, None),
        ("/".join(str(100 + k) for k in range(12)), 102, None),
    ],
)
def test_a_test_in_one_line(text: str, megohm: float, readings: Any) -> None:
    found = read_insulation(text)
    assert found.megohm == pytest.approx(megohm)
    if readings is not None:
        assert found.readings == readings
    else:
        assert found.readings[-1][0] == 600


@pytest.mark.parametrize(
    "text",
    [
        "",
        "120/180",
        "open",
        "1/2/3/4/5",
        "30s 180 90s 260",
        "60s 5 30s 4",
        ">2G/3/4",
        "60s",
        "1,200",
    ],
)
def test_a_line_that_is_no_test_says_what_is_wanted(text: str) -> None:
    with pytest.raises(CoilError, match="Wanted"):
        read_insulation(text)


@each(st.text(max_size=24))
def test_no_line_is_a_traceback(text: str) -> None:
    for read in (
        read_insulation,
        read_cooling,
        read_steps,
        read_steps_csv,
        read_curve_csv,
        lambda t: read_bonds(t, ("frame",)),
    ):
        with contextlib.suppress(CoilError):
            read(text)


def test_cooling_steps_and_curves() -> None:
    assert read_cooling("30 6.12; 60s 6.05") == ((30.0, 6.12), (60.0, 6.05))
    assert read_steps("500 420; 1000V 0.4 G") == ((500.0, 420.0), (1000.0, 400.0))
    assert read_steps_csv("V,MΩ\n500,420\n1000,400\n") == ((500.0, 420.0), (1000.0, 400.0))
    for bad in ("V,MΩ\n500,420\n", "V,MΩ\n500,4\n400,4\n", "V,MΩ,x\n1,2,3\n", "V,MΩ\n5,0\n6,1\n"):
        with pytest.raises(CoilError):
            read_steps_csv(bad)
    found = read_curve_csv("time;MΩ\n15;120\n60;260,5\n")
    assert found.readings == ((15.0, 120.0), (60.0, 260.5))
    for bad in ("time,MΩ\n15,120\n", "time,MΩ\n60,x\n", "a,b,c\n1,2,3\n", "time,MΩ\n60,-4\n"):
        with pytest.raises(CoilError):
            read_curve_csv(bad)
