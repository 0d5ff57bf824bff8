"""The hang-on: its lip, its room behind the glass, its first water."""

import numpy as np
import pytest

from reedmace.core.contract import Working
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.steps import Step, StepFacts
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

KIND = kind_of("hang-on")
TABLE = table_of(f for f in SAMPLE_BOXES if f.kind == "hang-on")
MINE = np.ones(len(TABLE), dtype=bool)


def steps(**facts: object) -> dict[str, Step]:
    return {s.id: s for s in KIND.steps(StepFacts.model_validate(facts), Working())}


def test_it_lifts_to_its_lip_and_every_centimetre_costs() -> None:
    assert KIND.loop_words is not None
    assert "4.0 cm above the water" in KIND.loop_words(0.04, 0)


def test_room_behind_water_near_the_rim_and_width_are_asked_for() -> None:
    def broken(**site: float) -> list[bool]:
        found = KIND.limits(TABLE, MINE, Site.model_validate(ROOM | {"behind_cm": 30, "rim_to_water_cm": 3} | site))
        return [bool(limit.broken.any()) for limit in found]

    assert broken() == [False, False, False]
    assert broken(behind_cm=0) == [True, False, False]
    assert broken(rim_to_water_cm=6) == [False, False, False]
    assert broken(rim_to_water_cm=6.1) == [False, True, False]
    assert broken(length_cm=5) == [False, False, True]


def test_a_full_tank_is_not_moved_off_the_wall() -> None:
    empty, full = (Site.model_validate(ROOM | {"behind_cm": 0, "filled": f}) for f in (False, True))
    assert "move the tank" in KIND.limits(TABLE, MINE, empty)[0].remedy(0)
    assert "a full tank is not moved" in KIND.limits(TABLE, MINE, full)[0].remedy(0)


@pytest.mark.parametrize(
    ("facts", "step", "words"),
    [
        ({"turning_wheel": True}, "hangon-media", "away from the wheel"),
        ({"mid_strainer": True}, "hangon-intake", "strainer half-way up"),
        ({"bar_tilts": True}, "hangon-prime", "Turn the bars up"),
    ],
)
def test_what_only_some_have_is_told_of_those(facts: dict, step: str, words: str) -> None:
    assert words in steps(**facts)[step].detail
    assert words not in steps()[step].detail


def test_its_motor_is_never_run_dry_and_outside_the_water_burns_out() -> None:
    assert steps()["hangon-prime"].caution == "Never run the motor dry."
    assert "burns out" in (steps(pump_wet=False)["hangon-prime"].caution or "")


def test_the_stem_reaches_as_drawn_or_three_fifths_down() -> None:
    assert "about 24 cm down" in steps(water_depth_cm=40)["hangon-intake"].detail
    assert "about 30 cm down" in steps(water_depth_cm=40, intake_depth_cm=30)["hangon-intake"].detail
