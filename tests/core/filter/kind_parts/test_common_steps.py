"""Steps that several kinds share."""

from reedmace.core.filter.kind_parts.common_steps import guard_step, leak_order, leak_steps, plug_inspection


def test_leaks_are_looked_for_after_five_minutes_an_hour_and_a_day_in_that_order() -> None:
    steps = leak_steps("box", "Here.", "there")
    assert [s.wait_minutes for s in steps] == [5, 60, 1440]
    assert steps[1].detail == "The same again, and there."
    order = leak_order("box")
    assert [order[s.id] for s in steps] == [("box-power",), ("box-leak-5",), ("box-leak-60",)]


def test_each_is_named_for_its_kind() -> None:
    assert guard_step("box").id == "box-guard"
    assert plug_inspection("box")[0] == "box-look-plug"
