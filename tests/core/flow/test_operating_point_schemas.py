"""What an operating point accepts."""

import pytest
from pydantic import ValidationError

from reedmace.core.flow.materials import fitting_k
from reedmace.core.flow.operating_point_schemas import Fitting, Hose, OperatingPointQuestion, Pump


def test_a_bar_has_its_hoses_bore_unless_it_has_one() -> None:
    bar = Fitting(kind="spray-bar", holes_count=10, hole_mm=4)
    assert bar.k_on(16) == fitting_k("spray-bar", 16, None, 10, 4)
    assert bar.model_copy(update={"bore_mm": 12}).k_on(16) == fitting_k("spray-bar", 12, None, 10, 4)
    assert bar.model_copy(update={"k": 3.5}).k_on(16) == 3.5


def test_more_holes_in_a_spray_bar_resist_less() -> None:
    few, many = (Fitting(kind="spray-bar", holes_count=n, hole_mm=4).k_on(16) for n in (8, 16))
    assert few > many > 0


@pytest.mark.parametrize(
    "wrong",
    [{"max_flow_lph": 5, "max_head_m": 1}, {"max_flow_lph": 800, "max_head_m": 0}, {"max_flow_lph": 800},
     {"max_flow_lph": 800, "max_head_m": 1, "speed_share": 0}],
)  # fmt: skip
def test_a_pump_outside_its_ranges_is_refused(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        Pump.model_validate(wrong)


def test_a_question_needs_only_its_pump() -> None:
    asked = OperatingPointQuestion(pump=Pump(max_flow_lph=800, max_head_m=1.4))
    assert (asked.hoses, asked.fittings, asked.media, asked.rise_to_open_air_m) == ([], [], [], 0)
    with pytest.raises(ValidationError):
        OperatingPointQuestion(pump=asked.pump, hoses=[Hose(bore_mm=16, length_m=1)] * 11)
