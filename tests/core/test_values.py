"""Bench values: everything a meter shows or a person types, in and out of text."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from careful_coil.core.errors import AmbiguousValue, BadValue
from careful_coil.core.units import Quantity
from careful_coil.core.values import (
    BenchValue,
    Qualifier,
    parse,
    show,
    show_figure,
    show_number,
    show_ohm,
    show_ohm_to,
)

OHM = Quantity.RESISTANCE


@pytest.mark.parametrize(
    ("text", "ohm"),
    [
        ("12.4", 12.4),
        ("12,4", 12.4),
        ("12.4 Ω", 12.4),
        ("12.4 \u2126", 12.4),
        ("12.4Ω", 12.4),
        ("12.4 ohm", 12.4),
        ("12.4 ohms", 12.4),
        ("12.4 Ohm", 12.4),
        ("4k7", 4700.0),
        ("4R7", 4.7),
        ("4.7 k", 4700.0),
        ("4.7 kΩ", 4700.0),
        ("4.7 K", 4700.0),
        ("4.7 kohm", 4700.0),
        ("320 m", 0.32),
        ("320 mΩ", 0.32),
        ("850 µΩ", 850e-6),
        ("850 u", 850e-6),
        ("850 \u03bcΩ", 850e-6),
        ("1.2 M", 1.2e6),
        ("550 MΩ", 550e6),
        ("2 G", 2e9),
        ("0,250", 0.25),
        (",5", 0.5),
        (".5", 0.5),
        ("1,2345", 1.2345),
        ("1.200", 1.2),
        ("7", 7.0),
        ("0", 0.0),
        ("0.00", 0.0),
        ("  3.9  ", 3.9),
        ("3.9\u00a0Ω", 3.9),
    ],
)
def test_ohms_are_read_in_every_usual_way(text: str, ohm: float) -> None:
    assert parse(text, OHM).value == pytest.approx(ohm, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "qualifier"),
    [
        ("OL", Qualifier.OPEN),
        ("O.L", Qualifier.OPEN),
        ("0L", Qualifier.OPEN),
        ("ol", Qualifier.OPEN),
        ("open", Qualifier.OPEN),
        ("Open", Qualifier.OPEN),
        ("inf", Qualifier.OPEN),
        ("∞", Qualifier.OPEN),
        ("rising", Qualifier.RISING),
        ("Unsteady", Qualifier.UNSTEADY),
        ("beep", Qualifier.BEEP),
    ],
)
def test_words_a_meter_shows_are_qualifiers(text: str, qualifier: Qualifier) -> None:
    value = parse(text, OHM)
    assert value.qualifier is qualifier
    assert value.number is None


def test_open_counts_as_infinite_and_rising_as_no_figure() -> None:
    assert parse("open", OHM).value == float("inf")
    assert parse("rising", OHM).value != parse("rising", OHM).value


def test_a_testers_range_end_is_a_lower_bound() -> None:
    value = parse(">2 G", OHM)
    assert (value.qualifier, value.value) == (Qualifier.ABOVE, 2e9)
    assert show(value) == ">2 GΩ"


@pytest.mark.parametrize(
    ("text", "quantity", "value"),
    [
        ("38 µF", Quantity.CAPACITANCE, 38e-6),
        ("38 uF", Quantity.CAPACITANCE, 38e-6),
        ("38 mfd", Quantity.CAPACITANCE, 38e-6),
        ("38 MFD", Quantity.CAPACITANCE, 38e-6),
        ("38", Quantity.CAPACITANCE, 38e-6),
        ("220 nF", Quantity.CAPACITANCE, 220e-9),
        ("100 mmf", Quantity.CAPACITANCE, 100e-12),
        ("3/4 hp", Quantity.POWER, 0.75 * 745.7),
        ("1 1/2 hp", Quantity.POWER, 1.5 * 745.7),
        ("2 PS", Quantity.POWER, 2 * 735.5),
        ("2 CV", Quantity.POWER, 2 * 735.5),
        ("0.55 kW", Quantity.POWER, 550.0),
        ("550", Quantity.POWER, 550.0),
        ("72 °F", Quantity.TEMPERATURE, 22.222),
        ("-10", Quantity.TEMPERATURE, -10.0),
        ("\u221210 °C", Quantity.TEMPERATURE, -10.0),
        ("300 K", Quantity.TEMPERATURE, 26.85),
        ("230", Quantity.VOLTAGE, 230.0),
        ("1.5 kV", Quantity.VOLTAGE, 1500.0),
        ("85 mA", Quantity.CURRENT, 0.085),
        ("50 Hz", Quantity.FREQUENCY, 50.0),
        ("1440 rpm", Quantity.SPEED, 1440.0),
        ("1440 1/min", Quantity.SPEED, 1440.0),
        ("2,2 kw", Quantity.POWER, 2200.0),
        ("750 w", Quantity.POWER, 750.0),
        ("1 ps", Quantity.POWER, 735.5),
        ("25 uf", Quantity.CAPACITANCE, 25e-6),
        ("100 PF", Quantity.CAPACITANCE, 100e-12),
        ("2 gohm", Quantity.INSULATION, 2e9),
        ("500 MEG", Quantity.INSULATION, 500e6),
        ("500 ma", Quantity.CURRENT, 0.5),
    ],
)
def test_other_quantities_are_read_in_their_own_units(
    text: str, quantity: Quantity, value: float
) -> None:
    assert parse(text, quantity).value == pytest.approx(value, rel=1e-4)


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("1,200", OHM),
        ("12,400", OHM),
        ("38 mF", Quantity.CAPACITANCE),
        ("38 MF", Quantity.CAPACITANCE),
    ],
)
def test_what_can_mean_two_things_is_asked_about(text: str, quantity: Quantity) -> None:
    with pytest.raises(AmbiguousValue) as caught:
        parse(text, quantity)
    assert caught.value.first != caught.value.second
    assert caught.value.first in str(caught.value)
    assert caught.value.second in str(caught.value)


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("", OHM),
        ("   ", OHM),
        ("1.2.3", OHM),
        ("-5 Ω", OHM),
        ("-0.2", Quantity.VOLTAGE),
        ("12 V", OHM),
        ("12 F", OHM),
        ("12 Ω", Quantity.VOLTAGE),
        ("abc", OHM),
        ("4k7k", OHM),
        ("1 2", OHM),
        ("1,23,4.5", OHM),
        ("1,200,00", OHM),
        ("--3", OHM),
        ("nan", OHM),
        ("1e999", OHM),
        ("9" * 60, OHM),
        ("3/4", OHM),
        ("3/0 hp", Quantity.POWER),
        ("72 °Q", Quantity.TEMPERATURE),
        ("-400", Quantity.TEMPERATURE),
        ("open", Quantity.VOLTAGE),
        (">5", Quantity.VOLTAGE),
        ("M", OHM),
    ],
)
def test_nonsense_is_refused_with_what_was_read_and_what_is_wanted(
    text: str, quantity: Quantity
) -> None:
    with pytest.raises(BadValue) as caught:
        parse(text, quantity)
    assert caught.value.read == text
    assert caught.value.accepted
    assert "Wanted" in str(caught.value)


@pytest.mark.parametrize(
    ("text", "is_nothing"),
    [("-0.003", True), ("-0.010", True), ("-0.1", True), ("-0.02", False), ("-1.5", False)],
)
def test_a_zeroed_meter_may_stand_a_little_below_nothing(text: str, is_nothing: bool) -> None:
    """Ten milliohms, or one step of the digits given."""
    if is_nothing:
        assert parse(text, OHM).value == 0.0
    else:
        with pytest.raises(BadValue):
            parse(text, OHM)


@pytest.mark.parametrize(
    ("text", "quantity", "shown"),
    [
        ("12.40", OHM, "12.40 Ω"),
        ("4k7", OHM, "4.7 kΩ"),
        ("320 m", OHM, "0.320 Ω"),
        ("32 m", OHM, "32 mΩ"),
        ("0.00", OHM, "0.00 Ω"),
        ("550 M", OHM, "550 MΩ"),
        ("open", OHM, "open"),
        ("38 mfd", Quantity.CAPACITANCE, "38 µF"),
        ("3/4 hp", Quantity.POWER, "3/4 hp"),
        ("72 °F", Quantity.TEMPERATURE, "72 °F"),
        ("21.5", Quantity.TEMPERATURE, "21.5 °C"),
    ],
)
def test_values_are_shown_with_the_digits_given(text: str, quantity: Quantity, shown: str) -> None:
    assert show(parse(text, quantity)) == shown


@pytest.mark.parametrize(
    ("ohm", "shown"),
    [
        (0.51234, "0.512 Ω"),
        (1234.5, "1.23 kΩ"),
        (999.6, "1.00 kΩ"),
        (2.04e6, "2.04 MΩ"),
        (0.0123, "12.3 mΩ"),
    ],
)
def test_computed_figures_have_three_digits(ohm: float, shown: str) -> None:
    assert show_ohm(ohm) == shown


def test_computed_open_and_nothing_have_words() -> None:
    assert show_ohm(float("inf")) == "open"
    assert show_number(float("nan"), Quantity.VOLTAGE) == "no figure"


@pytest.mark.parametrize(
    ("ohm", "step", "shown"),
    [
        (0.5101, 0.01, "0.51 Ω"),
        (12.345, 0.1, "12.3 Ω"),
        (0.5101, None, "0.510 Ω"),
        (120.04, 1.0, "120 Ω"),
    ],
)
def test_a_computed_figure_says_no_more_than_the_meter(
    ohm: float, step: float | None, shown: str
) -> None:
    assert show_ohm_to(ohm, step) == shown


NUMBERS = st.decimals(
    min_value=Decimal("0.0001"), max_value=Decimal("99999999"), places=4, allow_nan=False
)


@given(NUMBERS)
def test_parsing_what_is_shown_keeps_the_value_to_the_digits_shown(number: Decimal) -> None:
    value = BenchValue(quantity=OHM, number=number)
    again = parse(show(value), OHM)
    assert again.number == number


@given(
    st.sampled_from([OHM, Quantity.VOLTAGE, Quantity.POWER, Quantity.CAPACITANCE]),
    st.integers(1, 999999),
    st.integers(-6, 3),
)
def test_showing_again_what_was_shown_changes_nothing(
    quantity: Quantity, digits: int, exponent: int
) -> None:
    first = show(BenchValue(quantity=quantity, number=Decimal(digits).scaleb(exponent)))
    assert show(parse(first, quantity)) == first


@given(st.text(max_size=45))
def test_any_text_gives_a_value_or_a_message(text: str) -> None:
    for quantity in Quantity:
        try:
            value = parse(text, quantity)
        except BadValue as error:
            wanted = error.accepted
        else:
            wanted = show(value)
        assert wanted


@pytest.mark.parametrize(
    ("value", "digits", "text"),
    [
        (2000.0, 3, "2000"),
        (2345.6, 3, "2350"),
        (1234567.0, 3, "1230000"),
        (0.00001234, 3, "0.0000123"),
        (6.0, 3, "6"),
        (9.996, 3, "10"),
        (-0.5, 2, "-0.5"),
        (0.0, 3, "0"),
        (float("inf"), 3, "inf"),
    ],
)
def test_a_figure_is_written_as_a_person_writes_it(value: float, digits: int, text: str) -> None:
    assert show_figure(value, digits) == text


@pytest.mark.parametrize(
    ("text", "quantity"),
    [("5 mw", Quantity.POWER), ("5 MA", Quantity.CURRENT), ("500 mohm", Quantity.INSULATION)],
)
def test_the_case_of_m_tells_milli_from_mega_and_is_never_guessed(
    text: str, quantity: Quantity
) -> None:
    with pytest.raises(BadValue, match="is not a unit of"):
        parse(text, quantity)


def test_a_horsepower_is_shown_as_it_was_typed() -> None:
    assert show(parse("3 Hp", Quantity.POWER)) == "3 Hp"
    with pytest.raises(AmbiguousValue):
        parse("25 mf", Quantity.CAPACITANCE)
