"""The box: ballast before media, media loosely."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import kind_of

KIND = kind_of("box")


def test_it_is_weighted_before_it_is_filled_and_sunk() -> None:
    found = KIND.steps(StepFacts(media_l=1.5), Working())
    assert [s.id for s in found[:3]] == ["box-ballast", "box-media", "box-place"]
    assert found[1].detail.startswith("1.5 L")
    assert KIND.needs_air
