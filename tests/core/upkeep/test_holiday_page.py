"""What is done before going away, and what a neighbour is asked."""

import pytest

from reedmace.core.computations import compute


def page(days: float, **more: object):
    return compute("holiday-page", {"days": days, "feed_g_day": 1.2, **more})


def test_grown_fish_fast_for_a_few_days_and_then_get_half_every_other_day() -> None:
    short, long = page(3), page(14)
    assert (short.portions_count, short.portion_g) == (0, 0)
    assert "No food need be left." in short.before
    assert long.portions_count == 7
    # Half of two days' food in each.
    assert long.portion_g == pytest.approx(0.5 * 2 * 1.2)
    assert any("one of the 7 portions, never more" in line for line in long.neighbour)


def test_water_for_what_evaporates_stands_ready_and_in_salt_water_it_is_fresh() -> None:
    assert any("leave 5 L" in line for line in page(14).before)
    assert any("leave 34 L" in line for line in page(14, top_up_l_day=2).before)
    assert any("never with salt water" in line for line in page(14, salt_water=True).neighbour)


def test_what_each_kind_wants_after_a_power_cut_is_told_once() -> None:
    told = page(7, on_return=["Unplug it first.", "Unplug it first.", ""]).neighbour
    assert told.count("After a power cut: unplug it first.") == 1
    assert told[-1].startswith("Nothing is cleaned")


def test_what_the_care_plan_moved_stands_first_and_last() -> None:
    found = page(7, before=["Squeeze the sponge."], after=["Time the flow."])
    assert found.before[0] == "Squeeze the sponge."
    assert found.may_wait == ["Time the flow."]
    assert page(7).may_wait == ["Nothing falls into these days."]
