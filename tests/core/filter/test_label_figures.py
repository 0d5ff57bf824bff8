"""Figures of a pasted label, with their units."""

import pytest

from reedmace.core.filter.label_figures import Figure, figures_of


def one(text: str) -> Figure:
    (found,) = figures_of(text)
    return found


@pytest.mark.parametrize(
    ("text", "dimension", "value"),
    [
        ("700 L/h", "flow", 700),
        ("700 l per hour", "flow", 700),
        ("1.2 m3/h", "flow", 1200),
        ("185 gph", "flow", 185 * 3.785411784),
        ("185 imp gal/h", "flow", 185 * 4.54609),
        ("10 L/min", "flow", 600),
        ("55 US gal", "volume", 55 * 3.785411784),
        ("200 litres", "volume", 200),
        ("1.4 m", "length", 1.4),
        ("140 cm", "length", 1.4),
        ("4'", "length", 1.2192),
        ("150 mbar", "length", 1.53),
        ("10 W", "power", 10),
        ("0.04 kW", "power", 40),
        ("38 dB(A)", "sound", 38),
        ("£ 79", "money", 79),
        ("79 EUR", "money", 79),
    ],
)
def test_each_unit_is_read_in_the_home_unit(text: str, dimension: str, value: float) -> None:
    found = one(text)
    assert (found.dimension, found.value) == (dimension, pytest.approx(value))


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1,200 L/h", 1200),
        ("1.200 L/h", 1200),
        ("1 200 L/h", 1200),
        ("1'200 L/h", 1200),
        ("1,4 m", 1.4),
        ("12.500,5 L/h", 12500.5),
    ],
)
def test_a_mark_is_a_thousand_or_a_decimal_by_what_a_label_may_say(text: str, value: float) -> None:
    assert one(text).value == pytest.approx(value)


def test_of_a_range_the_upper_end_is_promised() -> None:
    assert one("100-200 L").value == 200
    assert one("100 to 200 L").value == 200


def test_a_number_without_a_unit_and_one_no_label_may_say_are_left_out() -> None:
    assert list(figures_of("Model 900 of 2026")) == []
    assert list(figures_of("3 L/h")) == []


def test_several_come_in_their_order_each_with_the_words_before_it() -> None:
    found = list(figures_of("Pump output 700 L/h, max. head 1.4 m\n12 W"))
    assert [f.dimension for f in found] == ["flow", "length", "power"]
    assert "output" in found[0].before
    assert "head" in found[1].before
    assert "output" not in found[1].before
