"""Units of a browser's locale, and sentences with a decimal comma."""

import pytest

from reedmace.core.quantity.keeper_units import Units, units_of_keeper, units_of_locale, with_comma


@pytest.mark.parametrize(
    ("locale", "volume", "temperature", "currency"),
    [
        ("en-US", "US gal", "°F", "USD"),
        ("en_US", "US gal", "°F", "USD"),
        ("en-GB", "L", "°C", "GBP"),
        ("de-DE", "L", "°C", "EUR"),
        ("zh-Hant-TW", "L", "°C", ""),
        ("fr", "L", "°C", ""),
        ("", "L", "°C", ""),
    ],
)
def test_a_region_tells_units_and_currency(locale: str, volume: str, temperature: str, currency: str) -> None:
    found = units_of_locale(locale)
    assert (found.volume, found.temperature, found.currency) == (volume, temperature, currency)
    assert (found.length == "in") == (volume == "US gal")


def test_an_account_without_units_reads_metric() -> None:
    assert units_of_keeper(None) == Units()
    stored = Units(volume="imp gal", decimal=",").model_dump()
    assert units_of_keeper(stored).chosen()[:3] == ("imp gal", "cm", "°C")


def test_figures_in_sentences_get_a_comma_and_what_was_typed_does_not() -> None:
    answer = {
        "verdict": "Change 12.5 L of 1,200 L on 2026-11-29.",
        "name": "Tank 1.5 of two",
        "lines": [{"words": "about 0.02 mg/L"}, "v1.2", 0.5],
    }
    assert with_comma(answer) == {
        "verdict": "Change 12,5 L of 1.200 L on 2026-11-29.",
        "name": "Tank 1.5 of two",
        "lines": [{"words": "about 0,02 mg/L"}, "v1.2", 0.5],
    }
