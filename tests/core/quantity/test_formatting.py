"""Quantities in sentences, in the units the keeper reads."""

import pytest

from reedmace.core.quantity import formatting
from reedmace.core.quantity.formatting import METRIC, Units, in_units

US = Units("US gal", "in", "°F", "USD")


@pytest.mark.parametrize(
    ("write", "metric", "us"),
    [
        (lambda: formatting.litres(410), "410 L", "108 US gal"),
        (lambda: formatting.litres(20), "20 L", "5.3 US gal"),
        (lambda: formatting.lph(410), "410 L/h", "108 US gal/h"),
        (lambda: formatting.cm(30.4), "30 cm", "12 in"),
        (lambda: formatting.mm(16, "g"), "16 mm", "0.63 in"),
        (lambda: formatting.metres(2.84), "2.8 m", "9.3 ft"),
        (lambda: formatting.kg(1.0, ".1f"), "1.0 kg", "2.2 lb"),
        (lambda: formatting.celsius(26), "26 °C", "79 °F"),
        (lambda: formatting.degrees(1.0), "1.0 °C", "1.8 °F"),
        (lambda: formatting.money(3), "3.00", "3.00 USD"),
    ],
)
def test_one_figure_in_either_unit(write, metric: str, us: str) -> None:
    assert write() == metric
    with in_units(US):
        assert write() == us
    assert formatting.chosen() == METRIC


def test_the_second_of_two_has_no_unit_and_a_twin_has_the_other_one() -> None:
    assert formatting.lph.bare(320.4) == "320"
    assert formatting.litres.twin(100) == "26.4 US gal"
    with in_units(US):
        assert formatting.litres.twin(100) == "100 L"
        assert formatting.lph.name == "US gal/h"


def test_units_are_put_back_whatever_happens_inside() -> None:
    with pytest.raises(RuntimeError), in_units(US):
        raise RuntimeError
    assert formatting.chosen() == METRIC


@pytest.mark.parametrize(
    ("days", "age"), [(1, "1 days"), (59, "59 days"), (61, "2 months"), (539, "18 months"), (800, "2.2 years")]
)
def test_ages_are_said_in_days_months_or_years(days: float, age: str) -> None:
    assert formatting.age(days) == age


def test_a_sentence_keeps_its_abbreviations_inside_another() -> None:
    assert [formatting.inside(s) for s in ("KH falls", "Change it", "A stone", "x")] == [
        "KH falls",
        "change it",
        "a stone",
        "x",
    ]
