"""KH by drops: what the kit counts, a range that holds the truth, and a finer sample."""

import numpy as np
import pytest

from reedmace.core.chemistry.kh_titration import DROP_SHARE, LINE_ML, KhTitrationQuestion, kh_titration


def asked(drops: int, **more: float):
    return kh_titration(KhTitrationQuestion(drops_count=drops, **more))


def test_drops_count_as_the_leaflet_says_and_a_larger_sample_halves_the_step() -> None:
    six = asked(6)
    assert (six.kh_dkh, six.step_dkh, six.finer_ml) == (6, 1, 10)
    twelve = asked(12, sample_ml=10)
    assert (twelve.kh_dkh, twelve.step_dkh, twelve.finer_ml) == (6, 0.5, None)
    assert twelve.high_dkh - twelve.low_dkh < six.high_dkh - six.low_dkh
    assert "In 10 mL a drop counts 0.5." in six.verdict


@pytest.mark.parametrize("sample", [2.5, 5.0, 10.0])
def test_nine_of_ten_random_waters_lie_within_the_range(sample: float) -> None:
    rng = np.random.default_rng(3)
    held = 0
    for _ in range(1000):
        kh = rng.uniform(1, 15)
        # What the sample truly needs, with drops and a line that are a little off.
        poured = sample + rng.normal(0, LINE_ML / 2)
        needed = kh * (poured / 5.0) / (1 + rng.normal(0, DROP_SHARE / 2))
        answer = asked(max(int(np.ceil(needed)), 1), sample_ml=sample)
        held += answer.low_dkh <= kh <= answer.high_dkh
    assert held >= 900


def test_one_drop_says_no_more_than_that_there_may_be_none() -> None:
    assert asked(1).low_dkh == 0
