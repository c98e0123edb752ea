"""What a plate rates, and which rating a supply is held against."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import BadValue, ValueOutOfRange
from careful_coil.core.job.plate import Nameplate, check_field, nameplate
from careful_coil.core.kind.plate_checks import plate_checks, plate_told
from careful_coil.core.run.tacho import hertz_of, speed_words, speeds_of, sync_rpm
from tests.core.logs import SIX_LEADS, judged, plate


def rated(**fields: str) -> Nameplate:
    return nameplate(fields)


def said(found: Nameplate) -> list[tuple[int | None, float, float | None, float | None]]:
    return [(r.connection, r.volt, r.amp, r.hertz) for r in found.ratings]


def test_two_system_voltages_share_a_connection_each_with_its_own_amps() -> None:
    found = rated(volt="200–220/440", amp="6.2–5.8/2.9", hertz="50")
    assert said(found) == [(0, 200, 6.2, 50), (0, 220, 5.8, 50), (1, 440, 2.9, 50)]
    at = [found.at(v, 50) for v in (200, 220, 440, 300)]
    assert [r.amp if r else None for r in at] == [6.2, 5.8, 2.9, None]


def test_two_hertz_have_their_own_speeds() -> None:
    found = rated(volt="230/400", amp="5.9/3.4", hertz="50/60", rpm="1420/1710")
    at_60 = found.at(400, 60)
    assert at_60 is not None
    assert (at_60.rpm, at_60.amp, at_60.connection) == (1710, 3.4, 1)
    assert found.hertz_at(60) == 60
    assert found.hertz_at(52) == 50


def test_a_rating_printed_beside_belongs_to_the_connection_of_its_flux() -> None:
    found = rated(
        volt="230/400", amp="5.9/3.4", hertz="50", rpm="1420", ratings="460 V 3.4 A 60 Hz 1710"
    )
    assert said(found)[-1] == (1, 460, 3.4, 60)
    low, high = found.volts_at(60)
    assert high == (460, 460)
    assert low == pytest.approx((264.5, 264.5))
    assert found.volts_at(50) == ((230, 230), (400, 400))


def test_a_further_rating_of_no_connection_is_named() -> None:
    found = rated(volt="400", hertz="50", ratings="690 V 2 A 50 Hz")
    assert found.ratings[-1].connection is None
    assert [f.code for f in plate_checks(found)] == ["plate-ratings"]


@pytest.mark.parametrize("text", ["2.9 A 60 Hz", "460 V and more", "230/460 V", "460 V 5 kW"])
def test_a_further_rating_that_is_none_is_refused(text: str) -> None:
    with pytest.raises(BadValue, match=r"460 V 2\.9 A 60 Hz 1720"):
        check_field("ratings", text)


def test_a_supply_at_the_second_hertz_is_planned_by_the_rating_of_that_hertz() -> None:
    log = [*SIX_LEADS, *plate(ratings="460 V 6.4 A 60 Hz")]
    supply = {"kind": "supply", "volt": 460, "hertz": 60, "phases": 3, "measured": True}
    found = judged(*log, supply)
    assert found.facts.connecting.plan is not None
    assert found.facts.connecting.plan.connection.startswith("wye")
    assert any(f.code == "rating" and "460 V" in f.subject for f in found.findings)
    without = judged(*SIX_LEADS, supply).facts.connecting.plan
    assert without is not None  # the same volts per hertz within ten per cent: it may run
    assert any("volts per hertz × 0.96" in n for n in without.notes)
    far = judged(*SIX_LEADS, supply | {"volt": 575})
    assert far.facts.connecting.plan is None


def test_power_taken_in_is_asked_then_believed() -> None:
    fields = {"phases": "1", "volt": "230", "amp": "1.0", "hertz": "50", "power": "220 W"}
    (asked,) = plate_checks(rated(**fields))
    assert "Say in or out" in asked.why
    assert plate_checks(rated(**fields, **{"power-side": "in"})) == []
    (stays,) = plate_checks(rated(**fields, **{"power-side": "out"}))
    assert "Say in or out" not in stays.why
    (more,) = plate_checks(rated(**{**fields, "power": "400 W", "power-side": "in"}))
    assert "cannot be" in more.subject
    with pytest.raises(BadValue, match=r"in \(taken from the line\) or out"):
        check_field("power-side", "perhaps")


def test_what_the_figures_imply_is_told() -> None:
    told = plate_told(
        rated(
            phases="3", volt="230/460", amp="13/6.5", hertz="60", rpm="1755", power="5 hp", code="J"
        )
    )
    assert told[0] == "4 poles, slip 2.5 % at 60 Hz"
    assert told[1] == "5.18 kVA"
    assert told[2] == "efficiency × power factor 0.72"
    assert told[3] == "89 to 100 A locked at 230 V"
    assert plate_told(rated()) == ()


def test_tachometer_readings_give_least_mean_most_and_slip() -> None:
    found = speeds_of([1418, 1422, 1420], 50)
    assert (found.least, found.mean, found.most) == (1418, 1420, 1422)
    assert (found.poles, found.sync_rpm) == (4, 1500)
    assert found.slip == pytest.approx(80 / 1500)
    words = speed_words(found, plate_poles=2)
    assert any("2 pairs" in w for w in words)
    assert any("pairs·n/60" in w for w in words)
    assert not any("wander" in w for w in words)
    assert "wander" in speed_words(speeds_of([1300, 1420], 50))[1]
    assert speeds_of([900], None).poles is None


def test_a_speed_above_synchronous_is_told_as_driven() -> None:
    assert any("driven" in w for w in speed_words(speeds_of([1560], 50, poles=4)))


@given(st.sampled_from([50.0, 60.0, 400.0]), st.integers(1, 24))
def test_rpm_to_hertz_and_back(hertz: float, pairs: int) -> None:
    assert hertz_of(sync_rpm(hertz, 2 * pairs), 2 * pairs) == pytest.approx(hertz)


@pytest.mark.parametrize("rpm", [[], [0.0], [-5.0, 10.0], [9000.0]])
def test_speeds_that_cannot_be_are_refused(rpm: list[float]) -> None:
    with pytest.raises(ValueOutOfRange):
        speeds_of(rpm, 50)


def test_an_odd_number_of_poles_is_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="poles, not pairs"):
        sync_rpm(50, 3)
    with pytest.raises(ValueOutOfRange):
        hertz_of(0, 4)
