"""A sump filter's overflow as it is checked and exported."""

from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.replay.sump_overflow import overflow_of, overflow_question, sump_under
from tests.support.fitting import BY_ID, CHOSEN, ONE, SUMP, state_of

SIZES = {"length_cm": 120, "width_cm": 50, "height_cm": 50}
TANK = (40, {"kind": "tank-plan", "tank": SIZES})
SUMP_PLAN = (30, {"kind": "filter-plan", "chosen": ONE["sump"].model_dump()})


def installed(*rows: tuple[float, dict]):
    return installed_filters(state_of(TANK, *rows))[0]


def over_sump_at(level_cm: float):
    below = {"sump": {**SUMP, "level_cm": level_cm}}
    return installed(SUMP_PLAN, (20, {"kind": "tank-plan", "tank": SIZES, "surroundings": below}))


def test_only_a_sump_has_an_overflow() -> None:
    canister = installed(CHOSEN)
    assert BY_ID["sweetflag-800"].kind == "canister"
    assert (sump_under(canister), overflow_question(canister), overflow_of(canister)) == (None, None, None)


def test_a_sump_nobody_measured_stands_at_the_usual_level() -> None:
    one = installed(SUMP_PLAN)
    sump, asked = sump_under(one), overflow_question(one)
    assert sump is not None
    assert asked is not None
    assert asked.return_lph == max(one.flow.delivered_lph, 10)
    assert asked.sump_free_l == sump.free_l
    assert overflow_of(one).verdict


def test_the_fall_is_from_the_water_line_to_the_sumps_level() -> None:
    low, high = over_sump_at(10), over_sump_at(25)
    fall = overflow_question(low).drain_fall_m - overflow_question(high).drain_fall_m
    assert abs(fall - 0.15) < 1e-9
    assert overflow_question(high).sump_free_l < overflow_question(low).sump_free_l
