"""Measured flows of each filter."""

import pytest

from reedmace.logbook.replay.measured_flows import calibration
from tests.support.fitting import CHOSEN, state_of


def test_the_newest_test_that_knew_both_calibrates() -> None:
    s = state_of(
        CHOSEN,
        (9, {"kind": "flow-test", "container_l": 2, "times_s": [10], "computed_lph": 800}),
        (2, {"kind": "timed-flow", "method": "transit", "measured_lph": 600, "computed_lph": 750}),
    )
    assert calibration(s, "f1") == pytest.approx(0.8)
    assert calibration(state_of(CHOSEN), "f1") is None
