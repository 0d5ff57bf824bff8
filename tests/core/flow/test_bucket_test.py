"""A container and a clock."""

import pytest

from reedmace.core.computations import compute

TIMES = [12.0, 12.4, 11.8]
FILLS = {"container_l": 2, "times_s": TIMES, "container_uncertainty_percent": 2}


def test_flow_is_the_mean_of_the_fills_and_its_doubt_student_s_with_the_mark_s() -> None:
    answer = compute("bucket-test", FILLS)
    flows = [7200 / t for t in TIMES]
    mean = sum(flows) / 3
    assert answer.measured_lph == pytest.approx(mean)
    spread = (sum((f - mean) ** 2 for f in flows) / 2) ** 0.5
    assert answer.plus_minus_lph == pytest.approx(((4.303 * spread / 3**0.5) ** 2 + (0.02 * mean) ** 2) ** 0.5)
    assert answer.finding == "no-comparison"


def test_one_fill_says_nothing_of_its_doubt() -> None:
    answer = compute("bucket-test", {"container_l": 2, "times_s": [12], "computed_lph": 900})
    assert (answer.finding, answer.plus_minus_lph) == ("one-fill", None)
    assert "time two more" in answer.verdict


@pytest.mark.parametrize(
    ("computed", "finding"), [(600, "as-computed"), (640, "as-computed"), (900, "short"), (400, "more")]
)
def test_only_what_is_beyond_both_doubts_is_short_or_more(computed: float, finding: str) -> None:
    answer = compute("bucket-test", FILLS | {"computed_lph": computed, "causes": ["A kink."]})
    assert answer.finding == finding
    assert answer.ratio_to_computed == pytest.approx(answer.measured_lph / computed)
    assert answer.likely_causes == (["A kink."] if finding == "short" else [])
