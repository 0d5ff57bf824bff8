"""Stalls that will come if nothing is done, with their day."""

import pytest

from reedmace.core.cycle.outlook.coming_stalls import kh_fall_dkh_day
from reedmace.core.cycle.record.log import CycleLog, LoggedChange
from tests.support.cycle_logs import DOSED, reading


def test_the_fall_of_kh_is_read_since_the_last_change_only() -> None:
    kh = [reading(d, 0.5, 1, kh_dkh=k) for d, k in ((3, 6.0), (5, 5.0), (7, 8.0), (8, 7.5), (9, 7.0))]
    plain = CycleLog.model_validate({**DOSED, "readings": kh, "day_now": 9.1})
    changed = plain.model_copy(update={"changes": [LoggedChange(day=6, share=0.5)]})
    assert kh_fall_dkh_day(changed) == (pytest.approx(0.5), "3 KH tests over 2 days")
    # Taken together the tests before and after the change would have shown a rise.
    assert kh_fall_dkh_day(plain) is None
