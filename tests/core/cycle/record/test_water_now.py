"""The present water as far as the log tells."""

import pytest

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import water_now
from tests.support.cycle_logs import DOSED, reading
from tests.support.cycling import A


def test_a_dose_before_a_change_is_diluted_by_it_and_one_after_is_not() -> None:
    log = {**DOSED, "net_l": 100, "readings": [reading(8, 1, 0)], "tap": {"ammonia_mg_n_l": 0.2}}
    before = [{"day": 8.2, "raise_mg_n_l": 1.0}]
    after = [{"day": 8.6, "raise_mg_n_l": 1.0}]
    change = [{"day": 8.4, "share": 0.5}]

    def ammonia(doses: list) -> float:
        return water_now(CycleLog.model_validate({**log, "doses": doses, "changes": change})).ammonia_now

    assert ammonia(before) == pytest.approx((A + 1.0) / 2 + 0.1)
    assert ammonia(after) == pytest.approx(A / 2 + 0.1 + 1.0)


def test_kh_is_carried_through_bicarbonate_and_changes_with_the_taps_own() -> None:
    log = CycleLog.model_validate(
        {
            **DOSED,
            "readings": [reading(8, 1, 0, kh_dkh=1.0)],
            "tap": {"kh_dkh": 9.0},
            "alkalinity": [{"day": 8.2, "raise_dkh": 2.0}],
            "changes": [{"day": 8.6, "share": 0.5}],
        }
    )
    state = water_now(log)
    assert state.kh_now == pytest.approx((1 + 2) / 2 + 4.5)
    assert not state.low_kh
