"""Parts that air-driven kinds share."""

import pytest

from reedmace.core.filter.kind_parts.air_driven import (
    CAUSES,
    air_faults,
    air_mishaps,
    air_runs,
    air_steps,
    rising_words,
    uplift_cut,
    uplift_fault,
    valve_inspection,
)
from reedmace.core.filter.kind_parts.placement import AIR_LOOP_CM
from reedmace.core.fit import FittingPlanQuestion
from reedmace.core.fit.layout import resolve_layout
from tests.support.fitting import AT, ONE, ROOM


def ground(**layout):
    question = {"filter": ONE["sponge"].model_dump(), "site": ROOM, **AT, "layout": layout}
    return resolve_layout(FittingPlanQuestion.model_validate(question))


def test_a_pump_below_the_water_needs_a_check_valve() -> None:
    for above, valve, faults in ((10, False, 0), (-20, True, 0), (-20, False, 1)):
        g = ground(air_pump_above_water_cm=above, check_valve=valve)
        found = [f for f in air_faults(g) if f.where == "air-pump"]
        assert len(found) == faults
        drop = air_mishaps(g)[0]
        # What is guarded loses nothing; else all above the air's outlet may run out through the line.
        assert (drop.depth_cm > 0) == bool(faults)
        assert drop.depth_cm <= ROOM["water_depth_cm"]
    assert "20 cm below the water line" in found[0].what


def test_the_line_hangs_in_a_loop_lower_than_what_it_joins() -> None:
    for above in (-20, 10, 60):
        g = ground(air_pump_above_water_cm=above)
        points = air_runs(g)[0].points
        outside = [y for x, y in points if x > g.length]
        assert min(outside) <= min(g.rim + 4, points[-1][1]) - AIR_LOOP_CM + 1e-9


def test_an_uplift_in_the_air_is_told_with_what_to_cut() -> None:
    g = ground()
    tall = uplift_fault(g)
    assert (g.bed + g.filter.height_cm > g.water - 2) == bool(tall)
    assert uplift_cut(g).amount == int(g.uplift_cm)
    assert g.bed + g.uplift_cm < g.water


@pytest.mark.parametrize("prefix", ["sponge", "box"])
def test_steps_carry_their_kinds_prefix_and_the_valve_is_looked_at_before_the_start(prefix: str) -> None:
    steps = air_steps(prefix)
    assert [s.id for s in steps] == [f"{prefix}-air-pump", f"{prefix}-check-valve", f"{prefix}-start"]
    assert "siphons the tank onto the floor" in steps[1].caution
    assert list(valve_inspection(prefix)) == [steps[2].id]


def test_height_costs_an_air_lift_nothing() -> None:
    assert rising_words(0.2, 10) == rising_words(1.5, 40)
    assert len(set(CAUSES)) == len(CAUSES)
