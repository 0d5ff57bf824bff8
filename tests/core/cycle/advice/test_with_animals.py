"""Verdict and actions with animals in, from nothing known to a plan."""

from typing import Any

from reedmace.core.contract import Working
from reedmace.core.cycle.advice.action import Action
from reedmace.core.cycle.advice.water_alarm import emergency_today
from reedmace.core.cycle.advice.with_animals import (
    BLIND_SHARE,
    UNREAD_DAYS,
    watch_after_chlorine,
    with_animals,
)
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import water_now

DANIOS = [{"species_id": "zebra-danio", "count": 8}]
TAP = {"kh_dkh": 5, "ph": 7.4, "chlorine": "chlorine"}


def with_danios(*readings: dict[str, Any], **known: Any) -> tuple[str, list[Action]]:
    """Verdict and actions of a new tank on its tenth day with eight danios in."""
    usual = {
        "net_l": 100,
        "day_now": 10,
        "method": "animals-in",
        "start_kh_dkh": 5,
        "tap": TAP,
        "animals": DANIOS,
        "present": DANIOS,
        "animals_in_mg_n_l_day": 0.15,
    }
    log = CycleLog.model_validate({**usual, "readings": readings, **known})
    return with_animals(log, water_now(log), emergency_today(log), Working())


def read(day: float = 9.95, **more: Any) -> dict[str, Any]:
    return {"day": day, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "ph": 7.4, "kh_dkh": 5.0, **more}


def dos(actions: list[Action]) -> list[str]:
    return [a.do for a in actions]


def test_untested_water_is_tested_fed_a_quarter_and_thinned_out() -> None:
    verdict, actions = with_danios()
    assert verdict == "Animals are in: what the water is today decides what to do."
    assert dos(actions) == ["test", "feed-little", "change-water"]
    assert actions[0].title == "Test ammonia, nitrite and pH"
    assert actions[-1].share == BLIND_SHARE
    assert actions[-1].title.startswith("No kit in the house?")


def test_one_poison_read_asks_for_the_other_and_still_changes_water() -> None:
    _, actions = with_danios({"day": 9.95, "ammonia_mg_n_l": 0.0, "ph": 7.4})
    assert actions[0].title == "Test nitrite too"
    assert "until nitrite is read too" in actions[-1].detail


def test_a_poison_read_within_three_days_is_asked_for_and_not_thinned_out_blindly() -> None:
    lately = [read(10 - UNREAD_DAYS + 0.2), {"day": 9.95, "ammonia_mg_n_l": 0.0, "ph": 7.4}]
    assert "change-water" not in dos(with_danios(*lately)[1])
    long_ago = [read(10 - UNREAD_DAYS - 0.2), {"day": 9.95, "ammonia_mg_n_l": 0.0, "ph": 7.4}]
    assert "change-water" in dos(with_danios(*long_ago)[1])


def test_a_third_changed_this_morning_is_not_asked_for_again() -> None:
    assert "change-water" not in dos(with_danios(changes=[{"day": 9.8, "share": 0.35}])[1])
    assert "change-water" in dos(with_danios(changes=[{"day": 9.8, "share": 0.1}])[1])
    assert "change-water" in dos(with_danios(changes=[{"day": 9.0, "share": 0.35}])[1])


def test_poison_over_its_limit_is_changed_out_whatever_else_is_unread() -> None:
    _, actions = with_danios({"day": 9.95, "ammonia_mg_n_l": 4.0, "ph": 8.2})
    change = next(a for a in actions if a.do == "change-water")
    assert change.when == "now"
    assert change.amount_unit == "L"
    # Why, and the cautions, stand once, with the first thing that goes into the water.
    first = next(a for a in actions if a.do in ("bind-ammonia", "change-water"))
    assert first.reason.startswith("Ammonia reads")
    assert "is the most" in first.reason
    assert [a.do for a in actions if a.caution is not None and a.do != "add-seed"] == [first.do]


def test_litres_are_said_only_of_a_tank_that_was_measured() -> None:
    poisoned = read(nitrite_mg_n_l=3.0)
    change = next(a for a in with_danios(poisoned, litres_known=False)[1] if a.do == "change-water")
    assert (change.amount, change.amount_unit) == (None, None)
    assert change.share is not None


def test_water_changed_since_the_test_is_tested_again_first() -> None:
    poisoned = read(9.7, nitrite_mg_n_l=3.0)
    verdict, actions = with_danios(poisoned, changes=[{"day": 9.9, "share": 0.5}])
    assert verdict.startswith("Water was changed since the last test")
    assert actions[0].title == "Test again after the change"
    assert "change-water" not in dos(actions)
    before, _ = with_danios(poisoned, changes=[{"day": 9.5, "share": 0.5}])
    assert not before.startswith("Water was changed")


def test_a_nitrite_test_read_empty_beside_another_kit_is_not_believed() -> None:
    readings = [read(9.0), read(9.05, nitrite_mg_n_l=1.0, other_kit=True), read(9.95)]
    verdict, actions = with_danios(*readings)
    assert verdict.startswith("Another kit read nitrite where this one read none")
    assert dos(actions)[:2] == ["change-water", "test-other-kit"]


def test_clean_water_in_a_new_tank_is_tested_again_and_seed_is_offered() -> None:
    _, actions = with_danios(read())
    assert "change-water" not in dos(actions)
    assert {"test", "feed-little", "add-seed"} <= set(dos(actions))
    assert actions[-1].when == "later"


def test_a_tap_that_brings_the_poison_is_replaced_before_it_is_poured() -> None:
    _, actions = with_danios(read(ammonia_mg_n_l=3.0, ph=8.2), tap={**TAP, "ammonia_mg_n_l": 3.0, "ph": 8.2})
    assert actions[0].do == "other-water"


def test_a_settled_tank_within_its_limits_is_left_in_peace() -> None:
    old = {"day_now": 200, "stocked_day": 20}
    verdict, actions = with_danios(*(read(d) for d in (150.0, 170.0, 199.9)), **old)
    assert verdict == "Its cycle is long over; the water is within the limits."
    assert [(a.do, a.when) for a in actions] == [("test", "later")]
    assert with_danios(*(read(d) for d in (150.0, 160.0)), **old)[0] == "The weekly test is due."


def test_ammonia_is_never_dosed_with_animals_in() -> None:
    for ammonia in (0.0, 0.5, 5.0):
        for nitrite in (0.0, 0.5, 5.0):
            _, actions = with_danios(read(ammonia_mg_n_l=ammonia, nitrite_mg_n_l=nitrite))
            assert "dose-ammonia" not in dos(actions)
            assert actions


def test_film_that_chlorine_killed_shows_days_later() -> None:
    (again,) = watch_after_chlorine()
    assert (again.do, again.when) == ("test", "tomorrow")
