"""Figures as people of several countries write them, in every quantity, and what is asked about."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.figures import all_in, beside, dimensions, figure, figures, span
from careful_coil.core.units import FAMILIES, Quantity
from careful_coil.core.values import BenchValue, parse, show


@pytest.mark.parametrize(
    ("text", "quantity", "value"),
    [
        ("1.234,5", Quantity.NUMBER, 1234.5),  # German
        ("1 234,5", Quantity.NUMBER, 1234.5),  # French
        ("1\u202f234,5", Quantity.NUMBER, 1234.5),
        ("1'234.5", Quantity.NUMBER, 1234.5),  # Swiss
        ("1’234", Quantity.SPEED, 1234),
        ("1,234.5", Quantity.NUMBER, 1234.5),  # American
        ("1,234,567", Quantity.NUMBER, 1234567),
        ("1.234.567", Quantity.NUMBER, 1234567),
        ("1493 U/min", Quantity.SPEED, 1493),
        ("1 493 tr/min", Quantity.SPEED, 1493),
        ("2k2", Quantity.RESISTANCE, 2200),
        ("0R47", Quantity.RESISTANCE, 0.47),
        ("R47", Quantity.RESISTANCE, 0.47),
        ("4µ7", Quantity.CAPACITANCE, 4.7e-6),
        ("480", Quantity.INSULATION, 480e6),
        (">2 G", Quantity.INSULATION, 2e9),
        ("0,35", Quantity.LENGTH, 0.35),
        ("5/8 in", Quantity.LENGTH, 15.875),
        ('1 3/8"', Quantity.LENGTH, 34.925),
        ("1-1/2 hp", Quantity.POWER, 1118.55),
        ("8 1/2 lb", Quantity.MASS, 3.85553),
        ("10 min", Quantity.TIME, 600),
        ("4 lb-ft", Quantity.TORQUE, 5.4232),
    ],
)
def test_figures_of_many_shops_are_read(text: str, quantity: Quantity, value: float) -> None:
    assert parse(text, quantity).value == pytest.approx(value, rel=1e-5)


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("1,493", Quantity.SPEED),
        ("1.493", Quantity.SPEED),  # a tachometer has no thousandths
        ("1,250", Quantity.LENGTH),
        ("12,400", Quantity.RESISTANCE),
        ("1,250", Quantity.NUMBER),
    ],
)
def test_a_figure_with_two_meanings_is_asked_about(text: str, quantity: Quantity) -> None:
    with pytest.raises(AmbiguousValue):
        parse(text, quantity)


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("12 V", Quantity.RESISTANCE),
        ("12 Ω", Quantity.LENGTH),
        ("5 mm", Quantity.TIME),
        ("1.23.4", Quantity.NUMBER),
        ("1'23", Quantity.NUMBER),
        ("12 34", Quantity.NUMBER),
        ("12 4 100", Quantity.RESISTANCE),
        ("5/8", Quantity.LENGTH),  # a fraction of what
        ("", Quantity.MASS),
        ("x", Quantity.SHARE),
    ],
)
def test_another_quantity_and_what_is_no_figure_are_refused(text: str, quantity: Quantity) -> None:
    with pytest.raises(BadValue):
        parse(text, quantity)


@given(
    st.sampled_from(sorted(Quantity)),
    st.integers(0, 10**7),
    st.integers(-6, 3),
)
def test_what_is_shown_is_read_back_the_same(quantity: Quantity, digits: int, power: int) -> None:
    value = BenchValue(quantity=quantity, number=Decimal(digits).scaleb(power))
    try:
        again = parse(show(value), quantity)
    except AmbiguousValue:
        assert FAMILIES[quantity].grouped  # three places behind the point of a speed
        return
    assert again.number == value.number
    assert show(again) == show(value)


@given(st.sampled_from(sorted(Quantity)), st.integers(1, 10**5), st.data())
def test_any_unit_of_a_quantity_keeps_its_value(
    quantity: Quantity, digits: int, data: st.DataObject
) -> None:
    family = FAMILIES[quantity]
    unit = data.draw(st.sampled_from(sorted(family.units) or [family.base]))
    value = parse(f"{digits} {unit}".strip(), quantity)
    assert parse(show(value), quantity).value == pytest.approx(value.value, rel=1e-4)


def test_lists_ranges_and_dimensions() -> None:
    assert figures("3.1/3,2/3.1 A", Quantity.CURRENT, counts=(1, 3)) == (3.1, 3.2, 3.1)
    assert figures("480/520 M", Quantity.INSULATION, unit="MΩ") == (480, 520)
    assert span("189-227 µF", Quantity.CAPACITANCE, unit="µF") == pytest.approx((189, 227))
    assert span("208 to 230", Quantity.VOLTAGE) == (208, 230)
    assert dimensions("17 x 40 x 12", 3, "three") == (17, 40, 12)
    assert dimensions("5/8 1 3/8 11/32 in", 3, "three") == pytest.approx((15.875, 34.925, 8.73125))
    assert all_in("398, 401 / 399.5 V") == (398, 401, 399.5)
    with pytest.raises(BadValue, match="lower end"):
        span("230-208", Quantity.VOLTAGE)
    with pytest.raises(BadValue, match="two"):
        dimensions("37", 2, "two")
    with pytest.raises(BadValue, match="From 0 to 168 h"):
        figure("200", Quantity.TIME, unit="h", most=168)


def test_a_figure_a_thousand_times_off_its_neighbours_is_asked_about() -> None:
    near = [4.1, 4.2, 8.3]

    def typed(text: str) -> float:
        return beside(text, parse(text, Quantity.RESISTANCE), near).value

    assert typed("12.4") == 12.4
    assert typed("4.2 kΩ") == 4200  # written out: it is meant
    with pytest.raises(AmbiguousValue, match=r"4\.2 Ω or 4\.2 kΩ"):
        typed("4.2 k")
    with pytest.raises(AmbiguousValue, match=r"4\.2 Ω or 4\.2 mΩ"):
        typed("4.2 m")
