"""The newest tests as the question of the water's species."""

from typing import Any

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.speciation_question import READ_HALF_C, UNREAD_HALF_C, speciation_question


def question(*readings: dict[str, Any], **more: Any):
    base = {"day_now": 20, "net_l": 100, "start_kh_dkh": 5, "temperature_c": 25}
    return speciation_question(CycleLog.model_validate({**base, "readings": list(readings), **more}))


def test_without_ph_nothing_can_be_said() -> None:
    assert question({"day": 3, "ammonia_mg_n_l": 1}) is None


def test_each_figure_is_its_own_newest() -> None:
    found = question({"day": 3, "ammonia_mg_n_l": 1, "ph": 7}, {"day": 9, "ph": 7.5, "nitrite_mg_n_l": 0.4})
    assert found is not None
    assert (found.ammonia_mg_n_l, found.nitrite_mg_n_l, found.ph, found.kh_dkh) == (1, 0.4, 7.5, 5)


def test_a_temperature_that_was_read_is_known_better() -> None:
    usual = question({"day": 3, "ph": 7}, temperature_known=False)
    read = question({"day": 3, "ph": 7, "temperature_c": 27}, temperature_known=False)
    assert usual is not None
    assert read is not None
    assert (usual.temperature_half_c, read.temperature_half_c, read.temperature_c) == (UNREAD_HALF_C, READ_HALF_C, 27)


def test_a_coarser_step_of_the_kit_is_a_wider_doubt() -> None:
    low, high = (question({"day": 3, "ph": 7, "ammonia_mg_n_l": a}) for a in (0.2, 3.0))
    assert low is not None
    assert high is not None
    assert low.ammonia_half_mg_n_l < high.ammonia_half_mg_n_l
