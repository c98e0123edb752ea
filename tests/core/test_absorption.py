"""The curve of an insulation test: what went in comes out, bands are honest, kinks are named."""

import math

import numpy as np
import pytest

from careful_coil.core.condition.absorption import fit_curve, kinks_of
from careful_coil.core.errors import ValueOutOfRange

EVERY_TEN = [float(s) for s in range(10, 601, 10)]


def winding(
    times: list[float],
    share: float,
    n: float,
    scale: float = 200.0,
    noise: float = 0.0,
    seed: int = 1,
) -> list[tuple[float, float]]:
    """Return a test with leakage `share` of the current at a minute, exponent n, R(60) `scale`."""
    rng = np.random.default_rng(seed)
    return [
        (t, scale / (share + (1 - share) * (t / 60) ** -n) * math.exp(rng.normal(0, noise)))
        for t in times
    ]


@pytest.mark.parametrize(("share", "n"), [(0.1, 0.8), (0.4, 0.6), (0.7, 0.9)])
def test_a_made_up_winding_is_found_again(share: float, n: float) -> None:
    found = fit_curve(winding(EVERY_TEN, share, n, noise=0.01))
    assert found.exponent.middle == pytest.approx(n, abs=0.06)
    assert found.leak_share.middle == pytest.approx(share, abs=0.05)
    assert found.leak_megohm.low < 200 / share < found.leak_megohm.high
    assert found.absorb_megohm.middle == pytest.approx(200 / (1 - share), rel=0.1)  # A = V over it
    assert found.measured


@pytest.mark.parametrize("seconds", [[15, 30, 60], list(range(5, 121, 5))])
def test_nine_of_ten_early_estimates_hold_the_index(seconds: list[int]) -> None:
    """50 windings, seeds fixed; the table over 1,000 stands in docs/absorption.md."""
    rng = np.random.default_rng(42)
    hits = 0
    for k in range(50):
        share, n = 1 / (1 + math.exp(-rng.normal(0, 2))), rng.uniform(0.4, 1.0)
        times = [float(s) for s in (*seconds, 600)]
        *early, last = winding(times, share, n, noise=0.01, seed=k)
        index = fit_curve(early).index
        hits += index.low <= last[1] / dict(early)[60.0] <= index.high
    assert hits >= 0.8 * 50


def test_more_minutes_narrow_the_estimate() -> None:
    told = winding(EVERY_TEN, 0.3, 0.8, noise=0.005)
    widths = [fit_curve(told[:k]).index.width() for k in (6, 12, 30)]
    assert widths[0] > widths[1] > widths[2]


def test_the_band_holds_the_readings_and_the_answer_is_the_same_twice() -> None:
    told = winding([15.0, 30, 60, 120, 300, 600], 0.3, 0.8)
    found = fit_curve(told)
    assert found == fit_curve(list(reversed(told)))
    low = np.interp(np.log(300), np.log(found.seconds), found.low)
    high = np.interp(np.log(300), np.log(found.seconds), found.high)
    assert low < dict(told)[300.0] < high
    assert found.index.middle == pytest.approx(dict(told)[600.0] / dict(told)[60.0])


def test_a_leaky_winding_does_not_climb() -> None:
    found = fit_curve([(15.0, 0.40), (30.0, 0.40), (60.0, 0.401), (120.0, 0.40)])
    assert found.index.high < 1.3
    assert found.leak_share.low > 0.5


def test_absurd_readings_give_figures_and_no_crash() -> None:
    for told in (
        [(5.0, 1e6), (15.0, 40.0), (60.0, 1e-300)],
        [(15.0, 1e-9), (30.0, 1e7), (60.0, 1e-9)],
        [(1e-9, 5.0), (60.0, 6.0), (7200.0, 7.0)],
    ):
        found = fit_curve(told)
        assert math.isfinite(found.ten.high)
        assert found.index.low <= found.index.middle <= found.index.high


def test_a_fall_a_jump_and_a_stray_reading_are_named() -> None:
    told = winding(EVERY_TEN, 0.2, 0.8, noise=0.003)
    assert kinks_of(told) == ()
    fall = [(s, m * (0.6 if s > 200 else 1)) for s, m in told]
    assert [(k.kind, k.second) for k in kinks_of(fall)] == [("fall", 210.0)]
    jump = [(s, m * (1.5 if s > 300 else 1)) for s, m in told]
    assert [(k.kind, k.second) for k in kinks_of(jump)] == [("jump", 310.0)]
    stray = [(s, m * (0.7 if s == 400 else 1)) for s, m in told]
    assert [(k.kind, k.second) for k in kinks_of(stray)] == [("unsteady", 400.0)]
    rng = np.random.default_rng(3)
    wild = [(s, m * math.exp(rng.choice([-1, 1]) * rng.uniform(0.2, 0.5))) for s, m in told]
    assert [k.kind for k in kinks_of(wild)] == ["unsteady"]
    assert kinks_of(told[:4]) == ()


@pytest.mark.parametrize(
    "readings",
    [
        [(60.0, 5.0), (120.0, 6.0)],
        [(0.0, 5.0), (30.0, 5.0), (60.0, 5.0)],
        [(15.0, 0.0), (30.0, 5.0), (60.0, 5.0)],
        [(15.0, 5.0), (15.0, 5.0), (60.0, 5.0)],
        [(15.0, math.nan), (30.0, 5.0), (60.0, 5.0)],
        [(float(s), 5.0) for s in range(1, 2500)],
    ],
)
def test_what_is_no_curve_is_refused(readings: list[tuple[float, float]]) -> None:
    with pytest.raises(ValueOutOfRange):
        fit_curve(readings)
