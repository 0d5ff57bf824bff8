"""Days until the flow falls to the service limit."""

import numpy as np
import pytest

from reedmace.core.upkeep.cleaning_interval import LONGEST_DAYS, days_until, service_interval


def test_dirt_uses_up_the_spare_resistance() -> None:
    found = days_until(np.array([100.0, 100.0, 0.0, 50.0]), np.array([2.0, 0.0, 1.0, 1e-9]))
    assert found == pytest.approx([50.0, LONGEST_DAYS, 0.0, LONGEST_DAYS])


def test_the_kind_s_usual_days_count_unless_the_limit_comes_sooner() -> None:
    assert service_interval(np.array([60.0, 60.0]), np.array([20.0, 400.0])).tolist() == [20.0, 60.0]
