"""Sizes the fitting steps mention."""

import pytest

from reedmace.core.filter.kind_parts.steps import StepFacts


def test_filling_is_a_multiple_of_the_media_at_most_the_body() -> None:
    assert StepFacts(media_l=3, body_l=10).filling_l(2) == 6
    assert StepFacts(media_l=3, body_l=5).filling_l(2) == 5


@pytest.mark.parametrize("facts", [{}, {"hose_length_m": 3.0}, {"hose_bore_mm": 16.0}])
def test_a_hose_of_which_half_is_unknown_is_not_said_to_be_planned(facts: dict) -> None:
    assert StepFacts(**facts).hose_plan == ""


def test_a_strainer_nobody_drew_hangs_three_fifths_down() -> None:
    assert StepFacts(water_depth_cm=50).reach_cm == 30
    assert StepFacts(water_depth_cm=50, intake_depth_cm=0).reach_cm == 0
