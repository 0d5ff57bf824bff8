"""The sponge: its height under the surface, its spare."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.steps import Step, StepFacts
from reedmace.core.filter.kinds import kind_of

KIND = kind_of("sponge")


def steps(**facts: object) -> dict[str, Step]:
    return {s.id: s for s in KIND.steps(StepFacts.model_validate(facts), Working())}


def test_an_outlet_in_the_air_is_told_from_two_centimetres_on() -> None:
    assert steps(filter_height_cm=30, water_depth_cm=32)["sponge-height"].fault is None
    assert steps(filter_height_cm=30, water_depth_cm=31.9)["sponge-height"].fault is not None
    assert "sits 0 cm under" in steps(filter_height_cm=40, water_depth_cm=31)["sponge-height"].detail


def test_it_needs_air_has_no_motor_and_ends_with_a_spare() -> None:
    assert KIND.needs_air
    assert KIND.judged.young_safe > 0.9
    assert list(steps())[-1] == "sponge-spare"
