"""Figures in the keeper's own units: read as they are typed, written as they are read."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.cycle.record.test_line import ReadTestLineQuestion, read_test_line
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import (
    CACO3_PER_DKH,
    L_PER_IMP_GAL,
    L_PER_US_GAL,
    NITROGEN_SHARE,
    ReadQuantityQuestion,
    as_nitrogen,
    formatting,
    read_quantity,
)
from reedmace.core.tank import TankVolumeQuestion, tank_volume

US = formatting.Units("US gal", "in", "°F", "USD")


def read(text: str, kind: str, unit: str | None = None) -> float:
    return read_quantity(ReadQuantityQuestion(text=text, kind=kind, unit=unit)).value


@pytest.mark.parametrize(
    ("text", "kind", "unit", "value"),
    [
        ("0,25", "volume", None, 0.25),
        ("12,5", "volume", "L", 12.5),
        ("300 gph", "flow", None, 1135.62),
        ("10.8 ft", "length", None, 329.18),
        ("70", "volume", "US gal", 264.98),
        ("70", "volume", "imp gal", 318.23),
        ("78", "temperature", "°F", 25.5556),
        ("25 °C", "temperature", "°F", 25.0),
        ("200", "flow", "US gal/h", 757.08),
        ("4", "mass", "lb", 1.81437),
        ("1,000,000", "volume", None, 1e6),
        ("1,000.5", "volume", None, 1000.5),
        ("1.000,5", "volume", None, 1000.5),
        ("1 000 l", "volume", None, 1000.0),
        ("0,125", "number", None, 0.125),
    ],
)
def test_what_people_type_is_read_as_they_mean_it(text: str, kind: str, unit: str | None, value: float) -> None:
    assert read(text, kind, unit) == pytest.approx(value, rel=1e-4)


@pytest.mark.parametrize("text", ["1,000", "1,000 gal", "12,500", "1.000"])
def test_what_may_be_a_thousand_or_one_is_asked(text: str) -> None:
    with pytest.raises(CannotAnswer, match="may be") as asked:
        read(text, "volume")
    assert "Type" in asked.value.remedy


@pytest.mark.parametrize("kind", ["volume", "flow", "mass"])
def test_less_than_nothing_is_refused(kind: str) -> None:
    with pytest.raises(CannotAnswer, match="not below 0"):
        read("-5", kind)


def test_a_unit_is_not_taken_for_a_bare_number() -> None:
    with pytest.raises(CannotAnswer):
        read("12 cm", "number")


@given(st.integers(1, 99_999), st.integers(1, 99))
def test_a_decimal_comma_never_becomes_a_hundredfold(whole: int, cents: int) -> None:
    assert read(f"{whole},{cents:02d}", "volume") == pytest.approx(whole + cents / 100)


def test_a_jotted_test_takes_a_decimal_comma_and_the_keepers_degrees() -> None:
    found = read_test_line(ReadTestLineQuestion(text="a 0,25, n 1 t 78", degrees="°F"))
    assert (found.ammonia_ppm, found.nitrite_ppm) == (0.25, 1)
    assert found.temperature_c == pytest.approx(25.56, abs=0.01)
    # Said outright, the other unit is believed.
    assert read_test_line(ReadTestLineQuestion(text="26C", degrees="°F")).temperature_c == 26
    with pytest.raises(CannotAnswer, match="may be"):
        read_test_line(ReadTestLineQuestion(text="no3 1,000"))


@given(st.floats(0.1, 1e5), st.sampled_from(["L", "L/h", "cm", "m", "kg", "°C"]))
def test_what_is_written_reads_back_as_the_same(value: float, home: str) -> None:
    kinds = {"L": "volume", "L/h": "flow", "cm": "length", "m": "length", "kg": "mass", "°C": "temperature"}
    with formatting.in_units(US):
        kind = formatting.BY_HOME_UNIT[home]
        back = read(kind(value, ".6g"), kinds[home])
    if home == "m":
        back /= 100
    # Whole and half degrees of a table are shown to the whole degree Fahrenheit.
    rounded_c = 0.5 / 1.8 if home == "°C" and float(2 * value).is_integer() else 0.0
    assert back == pytest.approx(value, rel=1e-4, abs=1e-3 + rounded_c)


@pytest.mark.parametrize("celsius", [1.0, 4.5, 25.0, 26.5, 30.0])
def test_a_tables_degrees_stay_within_half_a_degree_fahrenheit(celsius: float) -> None:
    with formatting.in_units(US):
        shown = formatting.celsius(celsius)
    assert shown.split()[0].isdigit()
    assert read(shown, "temperature") == pytest.approx(celsius, abs=0.5 / 1.8 + 1e-9)


def test_a_sentence_follows_the_keeper_and_the_figures_do_not() -> None:
    tank = TankVolumeQuestion(shape="box", length_cm=91.44, width_cm=45.72, height_cm=45.72, fill_below_rim_cm=3)
    here = tank_volume(tank)
    with formatting.in_units(US):
        there = tank_volume(tank)
    assert there.model_dump(exclude={"verdict"}) == here.model_dump(exclude={"verdict"})
    assert f"{here.net_l:.0f} L" in here.verdict
    assert f"{here.net_us_gal:.1f} US gal of water ({here.net_l:.0f} L)" in there.verdict
    assert not {"cm", "kg"} & set(there.verdict.replace(",", " ").split())
    assert tank_volume(tank).verdict == here.verdict


def test_a_difference_of_warmth_is_not_shifted_by_the_freezing_point() -> None:
    with formatting.in_units(US):
        assert formatting.degrees(1) == "1.8 °F"
        assert formatting.celsius(25) == "77 °F"
        assert formatting.money(12.4) == "12.40 USD"


def test_gallons_are_the_exact_ones() -> None:
    assert pytest.approx(231 * 2.54**3 / 1000, rel=1e-12) == L_PER_US_GAL
    assert L_PER_IMP_GAL == 4.54609
    assert pytest.approx(17.85, abs=0.01) == CACO3_PER_DKH


@pytest.mark.parametrize(("form", "factor"), [("NH3", 1.2159), ("NH4", 1.2878), ("NO2", 3.2845), ("NO3", 4.4268)])
def test_nitrogen_shares_follow_the_atomic_masses(form: str, factor: float) -> None:
    assert pytest.approx(factor, rel=2e-4) == 1 / NITROGEN_SHARE[form]


def test_a_reading_as_nitrogen_is_left_alone() -> None:
    assert as_nitrogen(2, "nitrite", "N") == 2
    assert as_nitrogen(3.2845, "nitrite", "ion") == pytest.approx(1, rel=1e-4)
