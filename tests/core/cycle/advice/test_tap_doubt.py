"""Whether the tap brings what changes should take away."""

from reedmace.core.cycle.advice.tap_doubt import changes_do_not_help, other_water, tap_brings_poison, tap_test
from reedmace.core.cycle.animals.day_plan import EmergencyPlanQuestion
from reedmace.core.cycle.animals.emergency import emergency_plan
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import water_now


def log(**more: object) -> CycleLog:
    return CycleLog.model_validate(
        {"day_now": 20, "net_l": 100, "start_kh_dkh": 6, "start_ph": 8.0, "stocked_day": 2, **more}
    )


def helped(before: float, now: float, shares: tuple[float, ...]) -> bool:
    readings = [{"day": 16.5, "ammonia_mg_n_l": before}, {"day": 20, "ammonia_mg_n_l": now}]
    changes = [{"day": 17.5 + n / 2, "share": share} for n, share in enumerate(shares)]
    one = log(readings=readings, changes=changes)
    plan = emergency_plan(
        EmergencyPlanQuestion.model_validate(
            {"net_l": 100, "ammonia_mg_n_l": now, "nitrite_mg_n_l": 0, "ph": 8.0, "temperature_c": 26}
        )
    )
    return not changes_do_not_help(one, plan)


def test_after_half_the_water_a_poison_as_high_as_before_is_doubted() -> None:
    assert not helped(1.0, 1.0, (0.3, 0.3, 0.3))
    assert helped(1.0, 0.7, (0.3, 0.3, 0.3))
    assert helped(1.0, 1.0, (0.2, 0.2))
    assert helped(1.0, 1.0, ())


def test_a_tap_with_chloramine_brings_it_and_other_water_says_how_much() -> None:
    bad, good = log(tap={"ammonia_mg_n_l": 1.2}), log(tap={"ammonia_mg_n_l": 0})
    assert tap_brings_poison(bad, water_now(bad))
    assert not tap_brings_poison(good, water_now(good))
    action = other_water(bad)
    assert (action.do, action.when) == ("other-water", "now")
    assert bad.ppm(bad.tap.released_mg_n_l()) in action.reason
    assert tap_test().do == "test-tap"
