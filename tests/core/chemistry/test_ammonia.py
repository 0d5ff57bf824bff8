"""The toxic (un-ionised) share of ammonia, and published ammonia criteria."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.chemistry import acute_criterion_mg_n_l, chronic_criterion_mg_n_l, un_ionised_share
from reedmace.core.computations import compute


@given(st.floats(5, 9.5), st.floats(1, 35))
def test_the_poison_share_rises_with_ph_and_warmth(ph: float, temperature: float) -> None:
    share = un_ionised_share(ph, temperature)
    assert 0 < share < 1
    assert un_ionised_share(ph + 0.1, temperature) > share
    assert un_ionised_share(ph, temperature + 1) > share


def test_criteria_ease_with_acid_and_cold() -> None:
    assert chronic_criterion_mg_n_l(7, 20) > chronic_criterion_mg_n_l(8, 20) > chronic_criterion_mg_n_l(8, 28)
    assert acute_criterion_mg_n_l(7, 20) > chronic_criterion_mg_n_l(7, 20)


@pytest.mark.parametrize(
    ("tan", "words"), [(0.2, "within it"), (3, "harmful if it lasts"), (30, "harmful to fish now")]
)
def test_the_verdict_on_ammonia_follows_the_criteria(tan: float, words: str) -> None:
    assert words in compute("un-ionised-ammonia", {"tan_mg_n_l": tan, "ph": 7, "temperature_c": 20}).verdict


def test_salt_water_has_no_freshwater_criterion() -> None:
    answer = compute("un-ionised-ammonia", {"tan_mg_n_l": 1, "ph": 8.1, "temperature_c": 25, "salinity_g_kg": 35})
    assert answer.chronic_criterion_mg_n_l is None
    assert answer.acute_criterion_mg_n_l is None
